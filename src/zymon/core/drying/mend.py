"""What goes wrong with a hanging piece, on what evidence, and what mending it would do to its date and its ring."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..causes.records import pull_of_air
from ..causes.table import MARKS
from ..constants import SECONDS_PER_DAY
from ..pieces import at_target
from ..say import Said, said
from .dried_by import mean_rh
from .forecast import Change, Fitted, PieceForecast
from .history import Piece
from .inside import inside, ring_ahead
from .judge import OVER_POINTS, felt_soft, in_doubt, on_the_scale, runs_ahead
from .priors import CASINGS
from .reach import reaching
from .rest import EVEN_AT_RING_INDEX, vacuum_rest

Trouble = Literal["too_fast", "too_slow", "stuck", "overshooting"]
Way = Literal["hook", "humidity", "air", "wrap", "rest", "take_down"]

SLOW_SHARE = 0.3  # of the safe pace, under which a piece that is not half way dries too slowly
SLOW_AFTER_DAYS = 5.0  # days; sooner a slow start tells little; estimate
GENTLER_RH, DRIER_RH = 6.0, -6.0  # points
CALMER_AIR, MORE_AIR = 0.65, 1.5  # of the mass transfer at hand; estimates
WRAPS_TO = "membrane"
HIGHEST_RH, LOWEST_RH = 90.0, 60.0  # percent; wetter makes slime, drier a rim; usual practice
WIDE_SHARE = 0.5  # of a place's pieces in the same trouble, from which it is the place's


@dataclass(frozen=True)
class Mend:
    """One thing to do. Dates [s]; ring index 0…1 at its strongest from then on; None where it tells nothing."""

    way: Way
    hook: str | None
    rh_percent: float | None
    ready_p50_s: float | None
    days_later: float | None
    ring_index: float | None
    weeks: float | None = None  # of a vacuum rest


@dataclass(frozen=True)
class Mending:
    """The trouble of a piece: what speaks for it, whether the whole place has it, the ring to come as it is, mends.

    Up to `over_at_s` an overshoot is harmless; after it weight, texture and money are lost.
    """

    trouble: Trouble
    evidence: tuple[Said, ...]
    place_wide: bool
    ring_index: float
    over_at_s: float | None
    loss_g_per_day: float  # that it goes on losing
    mends: tuple[Mend, ...]


def passes_over_s(piece: Piece, made: PieceForecast) -> float | None:
    """When a piece will most likely be past its target by OVER_POINTS [s]; None when not within the forecast.

    Parameters: piece; made, its forecast.
    """
    if not piece.by_weight:
        return None
    over = (piece.aim_percent + OVER_POINTS) / 100
    past = np.flatnonzero(made.curve_p50 >= over)
    if not len(past) or past[0] == 0:
        return None
    j = int(past[0])
    low, high = made.curve_p50[j - 1], made.curve_p50[j]
    share = (over - low) / max(high - low, 1e-12)
    return float(made.curve_s[j - 1] + share * (made.curve_s[j] - made.curve_s[j - 1]))


def trouble_of(piece: Piece, made: PieceForecast, now_s: float) -> Trouble | None:
    """What is wrong with the drying of a piece, None where nothing is. Parameters: piece; made; now_s [s]."""
    if made.status == "stalled":
        return "stuck"
    if runs_ahead(made):
        return "too_fast"
    if made.status == "ready" and felt_soft(piece, now_s):
        return None  # it is held, and nothing is taken down as done
    if made.status == "ready":
        shown = on_the_scale(piece, now_s)
        target_g = made.target_weight_g
        weighed = shown is not None and target_g is not None and not in_doubt(shown, made)
        # nothing is taken down that nobody weighed
        return "overshooting" if weighed and shown and at_target(shown.gross_g, target_g or 0.0) else None
    days = (now_s - piece.hung_at_s) / SECONDS_PER_DAY
    half_way = made.loss_percent > 0.5 * piece.aim_percent
    slow = made.rate_percent_per_day < SLOW_SHARE * made.safe_percent_per_day
    return "too_slow" if slow and not half_way and days > SLOW_AFTER_DAYS else None


def mending(place: Fitted, index: int, free_hooks: Sequence[str], mates: Sequence[int]) -> Mending | None:
    """The trouble of a piece and what can be done about it; None where nothing is wrong.

    Parameters: place, the fitted place; index, of the piece; free_hooks, names of those that are free;
    mates, indices of the other pieces that hang there. What a thing does is worked out as any what-if is.
    """
    piece, made = place.arrays.pieces[index], place.forecasts[index]
    now_s = place.arrays.now_s
    trouble = trouble_of(piece, made, now_s)
    if trouble is None:
        return None
    alike = [i for i in mates if trouble_of(place.arrays.pieces[i], place.forecasts[i], now_s) == trouble]
    wide = trouble != "overshooting" and len(mates) >= 2 and len(alike) >= WIDE_SHARE * len(mates)
    ring = ring_ahead(place, index, Change()) if trouble != "overshooting" else inside(place, index, now_s).ring_index
    return Mending(
        trouble=trouble,
        evidence=tuple(_evidence(place, index, trouble, len(alike), len(mates))),
        place_wide=wide,
        ring_index=ring,
        over_at_s=passes_over_s(piece, made),
        loss_g_per_day=made.rate_percent_per_day / 100 * piece.net_start_g,
        mends=tuple(_mends(place, index, trouble, free_hooks)),
    )


def _evidence(place: Fitted, index: int, trouble: Trouble, alike: int, mates: int) -> list[Said]:
    piece, made = place.arrays.pieces[index], place.forecasts[index]
    now_s = place.arrays.now_s
    days = (now_s - piece.hung_at_s) / SECONDS_PER_DAY
    out = []
    if trouble == "too_fast":
        lost = round(made.loss_percent, 1)
        out.append(said("trouble.lost_fast", loss_percent=lost, days=round(days), gentle_days=round(made.gentle_days)))
    if trouble == "too_slow":
        pace, gentle = round(made.rate_percent_per_day, 2), round(made.safe_percent_per_day, 2)
        out.append(said("trouble.slow", pace=pace, gentle=gentle))
    # the place is weighed against the hook: what pulls harder comes first
    pulls = [*_hook_evidence(place, piece, trouble), *_air_evidence(place, trouble)]
    out += [why for _, why in sorted(pulls, key=lambda one: -one[0])]
    if trouble != "overshooting" and mates:
        if alike >= WIDE_SHARE * mates and mates >= 2:
            out.append(said("trouble.place", alike=alike, mates=mates))
        else:
            known = ("trouble.none_alike", "trouble.one_alike", "trouble.some_alike")[min(alike, 2)]
            out.append(said(known, alike=alike, mates=mates))
    return out


def _hook_evidence(place: Fitted, piece: Piece, trouble: Trouble) -> list[tuple[float, Said]]:
    """What its hook does, with how hard that pulls (ln)."""
    hook = place.hooks.get(piece.stays[-1].hook) if piece.stays else None
    if hook is None or piece.stays[-1].hook not in place.arrays.hook_air:
        return []
    if not ((trouble == "too_fast" and hook.ln_air > 0) or (trouble in ("too_slow", "stuck") and hook.ln_air < 0)):
        return []
    one = "trouble.hook_of_one" if hook.pieces == 1 else "trouble.hook"
    return [(abs(hook.ln_air), said(one, air=round(float(np.exp(hook.ln_air)), 1), pieces=hook.pieces))]


def _air_evidence(place: Fitted, trouble: Trouble) -> list[tuple[float, Said]]:
    """What the air of the place does, with how hard that pulls (ln)."""
    now_s = place.arrays.now_s
    lately = mean_rh(place.history.log, now_s - 3 * SECONDS_PER_DAY, now_s)
    setpoint = place.history.setpoint_rh_percent
    if lately is None:
        return []
    off = 0.0 if setpoint is None else lately - setpoint
    pull = 0.0 if setpoint is None else abs(pull_of_air(lately, setpoint))
    if trouble == "too_fast" and off < -MARKS["off_points"]:
        return [(pull, said("trouble.air_under", rh_percent=round(lately), points=round(-off)))]
    if trouble in ("stuck", "too_slow"):
        c = round(place.arrays.air.ahead_temperature_c)
        if off > MARKS["off_points"]:
            return [(pull, said("trouble.air_over", rh_percent=round(lately), c=c, points=round(off)))]
        return [(0.0, said("trouble.air", rh_percent=round(lately), c=c))]
    return []


def _place_pulls_harder(place: Fitted, piece: Piece, trouble: Trouble) -> bool:
    """Whether the air of the place is more to blame than the hook; then the place is mended first."""
    air, hook = (
        max((pull for pull, _ in pulls), default=0.0)
        for pulls in (_air_evidence(place, trouble), _hook_evidence(place, piece, trouble))
    )
    return air > hook


def _mends(place: Fitted, index: int, trouble: Trouble, free_hooks: Sequence[str]) -> list[Mend]:
    piece, made = place.arrays.pieces[index], place.forecasts[index]
    rh = place.arrays.air.ahead_rh_percent
    if trouble == "overshooting":
        return [Mend("take_down", None, None, place.arrays.now_s, None, None)]
    if trouble == "stuck":
        found = reaching(place, index)
        return (
            [] if found.rh_percent is None else [_tried(place, index, "humidity", Change(rh_percent=found.rh_percent))]
        )
    fast = trouble == "too_fast"
    out = []
    here = place.air_at(piece.stays[-1].hook) if piece.stays else 1.0
    airs = {
        name: place.air_at(name)
        for name in free_hooks
        if (place.air_at(name) < here if fast else place.air_at(name) > here)
    }
    if airs:
        best = (min if fast else max)(airs, key=lambda name: airs[name])
        out.append(_tried(place, index, "hook", Change(air=airs[best] / here), best))
    wanted = float(np.clip(rh + (GENTLER_RH if fast else DRIER_RH), LOWEST_RH, HIGHEST_RH))
    set_otherwise = _tried(place, index, "humidity", Change(rh_percent=round(wanted)))
    out.insert(0 if _place_pulls_harder(place, piece, trouble) else len(out), set_otherwise)
    out.append(_tried(place, index, "air", Change(air=CALMER_AIR if fast else MORE_AIR)))
    if fast:
        wraps = CASINGS[WRAPS_TO] / CASINGS[piece.casing]
        if wraps < 1:
            out.append(_tried(place, index, "wrap", Change(air=wraps)))
        rest = vacuum_rest(place, index, place.arrays.now_s)
        if rest.weeks is not None and made.ready_p50_s is not None:
            later = rest.weeks * 7
            ready_s = made.ready_p50_s + later * SECONDS_PER_DAY
            out.append(Mend("rest", None, None, ready_s, later, EVEN_AT_RING_INDEX, rest.weeks))
    return out


def _tried(place: Fitted, index: int, way: Way, change: Change, hook: str | None = None) -> Mend:
    after, before = place.what_if(index, change), place.forecasts[index].ready_p50_s
    later = None if after.ready_p50_s is None or before is None else (after.ready_p50_s - before) / SECONDS_PER_DAY
    return Mend(way, hook, change.rh_percent, after.ready_p50_s, later, ring_ahead(place, index, change))
