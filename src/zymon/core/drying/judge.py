"""What a forecast means for the person at the chamber: state, days left, what wants a hand, how big to draw it."""

import math
from dataclasses import dataclass
from typing import Literal

from ..constants import MEAT_DENSITY_KG_M3, SECONDS_PER_DAY
from ..pieces import at_target
from ..say import Said, said
from .doubt import UNEXPLAINED, likely_slip
from .forecast import PieceForecast
from .geometry import body_of
from .history import Piece, Weighing

State = Literal["drying", "soon", "likely", "ready", "over", "stalled", "feel", "felt", "hold"]
Want = Literal["too_fast", "doubtful", "weigh", "ring"]

SOON_DAYS = 7.0  # days; the week a maker plans by
BIG_LOSS_PERCENT = 30.0  # from which a soft middle is no matter of waiting any more
OVER_POINTS = 3.0  # percentage points past the target from which texture and money are lost
TOO_FAST_RING = 0.5  # chance of a dry ring; more than even is worth a word
HEAVIER_THAN_HUNG = 1.005  # by which a weight may exceed that when hung
WEIGH_AFTER_SHARE = 0.25  # of the usual way, since the last weighing, after which a weighing is worth the walk


JUST_WEIGHED_S = 12 * 3600.0  # for so long a reading above the target says more than the forecast that it is there


@dataclass(frozen=True)
class DaysLeft:
    """Days to the target, rounded as the window allows."""

    value: int
    unit: Literal["d", "wk"]
    about: bool


@dataclass(frozen=True)
class Judgement:
    """State of a piece, and what wants a hand.

    A piece that the scale cannot call done is worth feeling at some time, and then "felt" firm or not; never "ready".
    """

    state: State
    wants: tuple[Want, ...]
    days_left: DaysLeft | None


def days_left(remaining_days: float, window_days: float) -> DaysLeft:
    """Round the days left as the window allows: to the day, about, or in weeks.

    Parameters: remaining_days, window_days [days], both 0 or more.

    >>> days_left(18.4, 16)
    DaysLeft(value=18, unit='d', about=True)
    >>> days_left(60, 40)
    DaysLeft(value=9, unit='wk', about=True)
    """
    if window_days > 18 and remaining_days >= 21:
        return DaysLeft(round(remaining_days / 7), "wk", True)
    return DaysLeft(max(1, round(remaining_days)), "d", window_days > 10)


def runs_ahead(made: PieceForecast) -> bool:
    """Whether a piece dries so fast that its rim closes before its core, or has done so and still shows it.

    Parameters: made, its forecast.
    """
    return made.ring_risk >= TOO_FAST_RING and (made.status == "drying" or made.ring == "strong")


def on_the_scale(piece: Piece, now_s: float) -> Weighing | None:
    """The latest weighing that stands: what the scale says is so. Parameters: piece; now_s [s]."""
    return next((w for w in reversed(piece.weighings) if w.at_s <= now_s), None)


def in_doubt(said: Weighing, made: PieceForecast) -> bool:
    """Whether a weighing meets no target: the forecast disbelieves it, or it was merely kept when asked.

    Parameters: said, a weighing that stands; made, the forecast of its piece.
    """
    if said.confirmed:
        return False
    return said.kept or any((d.at_s, d.gross_g) == (said.at_s, said.gross_g) for d in made.doubts)


def judge(piece: Piece, made: PieceForecast, now_s: float) -> Judgement:
    """Judge one piece. Parameters: piece; made, its forecast; now_s [s].

    Ready and over need the scale: at the tag's gram or under it, and not in doubt. Without that the forecast can at
    most say "likely", which asks for a weighing. What was felt soft in the middle after a big loss, or at its target,
    is neither: it is held.
    """
    said = on_the_scale(piece, now_s)
    wants: list[Want] = []
    if runs_ahead(made):
        wants.append("too_fast")
    if made.doubts or (said is not None and in_doubt(said, made)):
        wants.append("doubtful")
    there = _at_target(said, made)
    if felt_soft(piece, now_s) and (there or _lost_percent(piece, made, said) >= BIG_LOSS_PERCENT):
        return Judgement("hold", tuple(wants), None)
    if made.target_weight_g is None:
        return _by_hand(piece, made, tuple(wants), now_s)
    if said is not None and there:
        if made.ring == "strong":
            wants.append("ring")
        lost = 100 * piece.loss_fraction(said.gross_g)
        return Judgement("over" if lost >= piece.aim_percent + OVER_POINTS else "ready", tuple(wants), None)
    if made.status == "stalled":
        return Judgement("stalled", tuple(wants), None)
    if made.status == "ready" or made.ready_p50_s is None or made.ready_p10_s is None or made.ready_p90_s is None:
        if said is not None and not in_doubt(said, made) and now_s - said.at_s < JUST_WEIGHED_S:
            return Judgement("soon", tuple(wants), DaysLeft(1, "d", True))
        return Judgement("likely", (*wants, "weigh"), None)
    remaining = max(0.0, (made.ready_p50_s - now_s) / SECONDS_PER_DAY)
    left = days_left(remaining, (made.ready_p90_s - made.ready_p10_s) / SECONDS_PER_DAY)
    believed = [w.at_s for w in piece.weighings if all(d.at_s != w.at_s for d in made.doubts)]
    last = max(believed, default=piece.hung_at_s)
    whole = made.ready_p50_s - piece.hung_at_s
    if now_s - last > WEIGH_AFTER_SHARE * whole:
        wants.append("weigh")
    return Judgement("soon" if remaining <= SOON_DAYS else "drying", tuple(wants), left)


def _at_target(said: Weighing | None, made: PieceForecast) -> bool:
    if said is None or made.target_weight_g is None or in_doubt(said, made):
        return False
    return at_target(said.gross_g, made.target_weight_g)


def _lost_percent(piece: Piece, made: PieceForecast, said: Weighing | None) -> float:
    """What it has lost [%]: by the scale where that can be believed, else by the model."""
    if said is None or piece.start_weight_g is None or in_doubt(said, made):
        return made.loss_percent
    return 100 * piece.loss_fraction(said.gross_g)


def felt_soft(piece: Piece, now_s: float) -> bool:
    """Whether the last that fingers said of a piece is that its middle is soft. Parameters: piece; now_s [s]."""
    last = next((f for f in reversed(piece.feels) if f.at_s <= now_s and f.core is not None), None)
    return last is not None and last.soft_core


def worth_feeling_s(piece: Piece, made: PieceForecast) -> tuple[float, float] | None:
    """From when to when a piece without a target is worth feeling [s]; None where not even that can be told.

    Parameters: piece; made, its forecast. Its days where it is done by days, else when it likely lost what is usual.
    """
    if piece.done_days is not None:
        due_s = piece.hung_at_s + piece.done_days * SECONDS_PER_DAY
        return due_s, due_s
    return None if made.usual_s is None else (made.usual_s[0], made.usual_s[2])


def felt_firm(piece: Piece, now_s: float) -> bool:
    """Whether the last that fingers said of a piece is that it is firm to the middle. Parameters: piece; now_s [s]."""
    last = next((f for f in reversed(piece.feels) if f.at_s <= now_s), None)
    return last is not None and last.firm


def _by_hand(piece: Piece, made: PieceForecast, wants: tuple[Want, ...], now_s: float) -> Judgement:
    """A piece that the scale cannot call done: felt firm, worth feeling, or so many days from it."""
    if felt_firm(piece, now_s):
        return Judgement("felt", wants, None)
    worth = worth_feeling_s(piece, made)
    if worth is None:
        return Judgement("drying", wants, None)
    from_s, to_s = worth
    if now_s >= from_s:
        return Judgement("feel", wants, None)
    return Judgement("drying", wants, days_left((from_s - now_s) / SECONDS_PER_DAY, (to_s - from_s) / SECONDS_PER_DAY))


def _tolerance(made: PieceForecast, at_s: float) -> float:
    """How far a loss may lie from the expected one before it is asked about [share]."""
    low, _, high = made.loss_at(at_s)
    return max(4.0 * max((high - low) / 2.56, 0.004), 0.03)


def _believed_before(piece: Piece, made: PieceForecast, at_s: float) -> list[float]:
    doubted = {d.at_s for d in made.doubts}
    return [w.gross_g for w in piece.weighings if w.at_s < at_s and w.at_s not in doubted]


def ask_range(piece: Piece, made: PieceForecast, at_s: float) -> tuple[float, float]:
    """Between which gross weights [g] a weighing is not asked about. Parameters: piece; made; at_s [s]."""
    _, mid, _ = made.loss_at(at_s)
    tolerance = _tolerance(made, at_s)
    most_g = [piece.gross_at(mid - tolerance), (piece.net_start_g + piece.tare_g) * HEAVIER_THAN_HUNG]
    before = _believed_before(piece, made, at_s)
    if before:
        most_g.append(before[-1] + max(2.0, 0.012 * piece.net_start_g))
    return piece.gross_at(mid + tolerance), min(most_g)


def ask_about(piece: Piece, made: PieceForecast, gross_g: float, at_s: float) -> Said | None:
    """Why a weight should be asked about before it counts; None when it may be right.

    Parameters: piece, with its believed weighings; made, its forecast; gross_g [g]; at_s [s].
    A weight is asked about when it is well outside the window, or heavier than an earlier believed weighing; of a
    piece whose start was not weighed nothing is expected.
    """
    if piece.start_weight_g is None:
        return None
    _, mid, _ = made.loss_at(at_s)
    low_g, high_g = ask_range(piece, made, at_s)
    if gross_g > piece.start_weight_g * HEAVIER_THAN_HUNG:
        slip = likely_slip(gross_g, piece.gross_at(mid))
        if slip.code not in UNEXPLAINED:
            return slip
        return said("slip.over_start", more_g=round(gross_g - piece.start_weight_g), start_g=piece.start_weight_g)
    if gross_g < low_g or gross_g > piece.gross_at(mid - _tolerance(made, at_s)):
        return likely_slip(gross_g, piece.gross_at(mid))
    if gross_g > high_g:
        return said("slip.gained", before_g=_believed_before(piece, made, at_s)[-1])
    return None


@dataclass(frozen=True)
class Outline:
    """Size of the hanging silhouette [mm], at hanging, and the girth now and at target as shares of it."""

    length_mm: float
    width_mm: float
    girth_now: float
    girth_target: float


def outline(piece: Piece, loss_now: float) -> Outline:
    """How big a piece hangs there, for a drawing at true relative size.

    Parameters: piece; loss_now [share]. Volume shrinks by the water lost; a body keeps most of its length.
    """
    body = body_of(piece.kind, piece.shape, piece.net_start_g, piece.diameter_mm, piece.thickness_mm, piece.length_mm)
    across = body.half_thickness_m * 2000
    volume = piece.net_start_g / 1000 / MEAT_DENSITY_KG_M3 * 1e9
    if piece.shape == "slab":
        length = piece.length_mm or math.sqrt(volume / across) * 1.15
        width = volume / across / length
    else:
        fill = 1.0 if piece.shape == "cylinder" else 0.8
        length = piece.length_mm or volume / (math.pi * across**2 / 4 * fill)
        width = across
    power = 1 / 3 if piece.shape == "slab" else 1 / 2

    def girth(loss: float) -> float:
        return float((1 - min(max(loss, 0.0), 0.8) * 1.05) ** power)

    return Outline(length, width, girth(loss_now), girth(piece.aim_percent / 100))
