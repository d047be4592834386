"""Hurdles of the bowl: cold at mixing, salt, nitrite and nitrate going in and lasting."""

import math
from collections.abc import Sequence
from dataclasses import replace

from ..limits import NITRATE_ION_SHARE, NITRITE_ION_SHARE, over_limit
from ..limits import Goods as LimitGoods
from ..pieces import loss_percent
from ..say import Said, said
from .batch import LabValue, Piece
from .hurdle import Evidence, Hurdle
from .line import hours
from .marks import (
    COLD_MIX_C,
    CORE_LEAST,
    DAY_S,
    NITRITE_LASTS_DAYS,
    NITRITE_LEAST,
    NITRITE_LITTLE,
    SALT_LEAST,
    SALT_MINCED,
    SALT_MOST,
    SLACK,
    WARM_MINCE_HOURS,
    WARM_MIX_C,
)
from .view import View


def cold_mix(view: View) -> Hurdle:
    """Cold at mixing, and while the mince rested. Parameters: view."""
    c, resting = view.batch.mix_temperature_c, view.stages("cold", "cure")
    warm = [view.line.over(WARM_MIX_C, *view.span(s)) for s in resting]
    shown = tuple(Evidence(a, b, said("evidence.over_c", limit_c=WARM_MIX_C)) for spans in warm for a, b in spans)
    base = Hurdle("cold_mix", "unknown", c, COLD_MIX_C, "°C", evidence=shown)
    if c is not None and c > WARM_MIX_C:
        return replace(base, state="fail", known="measured", why=said("hurdle.cold_mix.warm", c=c))
    longest = max((hours(spans) for spans in warm), default=0.0)
    if longest > WARM_MINCE_HOURS + SLACK:
        why = said("hurdle.cold_mix.rested_warm", hours=round(longest, 1), limit_c=WARM_MIX_C)
        return replace(base, state="fail", known="measured", why=why)
    if c is None:
        return replace(base, why=said("hurdle.cold_mix.unmeasured"), settles=said("settles.cold_mix"))
    bare = [s for s in view.stages("cold") if not s.temperature or view.line.unknown(*view.span(s))]
    if bare:
        since_s = view.span(bare[-1])[1]
        return replace(base, why=said("hurdle.cold_mix.unlogged"), settles=said("settles.log_or_sign"), since_s=since_s)
    cautions = (said("caution.cold_mix", c=c, limit_c=COLD_MIX_C),) if c > COLD_MIX_C else ()
    return replace(base, state="pass", known="measured", cautions=cautions)


def salt(view: View) -> Hurdle:
    """Salt: sodium chloride of all lines, by the laboratory, by weight, or as taken up. Parameters: view."""
    base = Hurdle("salt", "unknown", None, SALT_LEAST, "%")
    lab = salt_by_laboratory(view)
    percent = view.salt_percent if lab is None else lab
    if percent is not None:
        base = replace(base, value=percent, known="computed" if lab is None else "laboratory")
        if percent < SALT_LEAST - SLACK and lab is None and not view.all_salt_known:
            return replace(base, why=said("hurdle.salt.unweighed"), settles=said("settles.salt"))
        if percent < SALT_LEAST - SLACK:
            return replace(base, state="fail", why=said("hurdle.salt.little", percent=round(percent, 2)))
        return replace(base, state="pass", cautions=_salt_cautions(view, percent))
    if view.formulation is None or view.formulation.dose_known:
        return replace(base, why=said("hurdle.salt.unweighed"), settles=said("settles.salt"))
    modelled = view.taken_up_percent
    base = replace(base, value=modelled)
    cores = [p.core_salt_share for p in view.pieces]
    if modelled is None or modelled < SALT_LEAST or any(core is None or core < CORE_LEAST for core in cores):
        return replace(base, why=said("hurdle.salt.free"), settles=said("settles.salt_free"))
    cautions = (said("caution.salt_estimated"), *_salt_cautions(view, modelled))
    return replace(base, state="pass", known="estimated", cautions=cautions)


def _salt_cautions(view: View, percent: float) -> tuple[Said, ...]:
    if percent < SALT_MINCED and view.batch.goods == "minced":
        return (said("caution.salt_little", limit=SALT_MINCED),)
    return (said("caution.salt_much", limit=SALT_MOST),) if percent > SALT_MOST else ()


def salt_by_laboratory(view: View) -> float | None:
    """The latest laboratory salt, as % of the meat that went in; of a dried product less what it had lost by then.

    Parameters: view.
    """
    for result in reversed([v for v in view.batch.lab("salt", None) if v.tag in (None, *view.tags)]):
        if result.on == "mix":
            return result.value
        loss = loss_when_tested(view, result)
        if loss is not None:
            return result.value * (1 - loss / 100)
    return None


def loss_when_tested(view: View, result: LabValue) -> float | None:
    """What the tested piece, or the one that had lost most, had lost when a laboratory looked [%]; None: unweighed.

    Parameters: view; result.
    """
    pieces = [p for p in view.pieces if result.tag in (None, p.tag)]
    losses = [loss for p in pieces for loss in [loss_at(p, result.at_s)] if loss is not None]
    return max(losses) if losses else None


def loss_at(piece: Piece, at_s: float) -> float | None:
    """What a piece had lost by its latest weighing up to a moment [%]. Parameters: piece; at_s [s]."""
    seen = [gross_g for t, gross_g in piece.weights if t <= at_s]
    if not seen or piece.start_weight_g is None:
        return None
    return loss_percent(piece.start_weight_g, piece.tare_g, seen[-1])


def limits_for(view: View) -> LimitGoods:
    """Under which limits the goods fall. Parameters: view."""
    if view.batch.goods == "minced":
        return "minced"
    return "belly" if view.formulation is not None and view.formulation.belly else "intact"


def _ingoing(view: View, base: Hurdle, fractions: Sequence[float]) -> float | Hurdle:
    """What went in as sodium salt [mg/kg of meat], or the verdict where that is not known."""
    f = view.formulation
    if f is None or f.curing_salts is None or view.meat_g is None:
        return replace(base, why=said("hurdle.nitrite.unweighed"), settles=said("settles.nitrite"))
    if f.curing_salts and (not f.dose_known or any(c.grams is None for c in f.curing_salts)):
        return replace(base, why=said("hurdle.nitrite.dose"), settles=said("settles.nitrite"))
    grams = [c.grams or 0.0 for c in f.curing_salts]
    return 1e6 * sum(g * share for g, share in zip(grams, fractions, strict=True)) / view.meat_g


def _counted(view: View, base: Hurdle, as_salt: float, ion_share: float, most: float) -> Hurdle:
    """The amount as the profile counts it, rounded to whole mg/kg as inspectors do, held against its limit."""
    value = as_salt * ion_share if view.batch.profile.counted_as == "ion" else as_salt
    whole = float(math.floor(value + 0.5))
    base = replace(base, value=whole, known="computed")
    if over_limit(value, most):
        return replace(base, state="fail", why=said("hurdle.nitrite.over", value=whole, limit=most))
    return replace(base, state="pass")


def nitrite_in(view: View) -> Hurdle:
    """Nitrite going in: enough of it in minced goods, not too much in any. Parameters: view."""
    batch, minced = view.batch, view.batch.goods == "minced"
    most = batch.profile.ingoing(limits_for(view)).nitrite_mg_per_kg
    source = batch.profile.source_of("ingoing")
    base = Hurdle("nitrite_in", "unknown", None, most, "mg/kg", source=source, signable=not minced)
    salts = () if view.formulation is None else view.formulation.curing_salts or ()
    as_salt = _ingoing(view, base, [c.nitrite_fraction for c in salts])
    if isinstance(as_salt, Hurdle):
        return as_salt
    found = _counted(view, base, as_salt, NITRITE_ION_SHARE, most)
    if found.state == "fail":
        return found
    if minced and as_salt < NITRITE_LEAST:
        why = said("hurdle.nitrite.too_little", value=round(as_salt, 1), limit=NITRITE_LEAST)
        return replace(found, state="fail", why=why)
    if as_salt <= 0:
        return replace(found, state="unknown", why=said("hurdle.nitrite.none"), settles=said("settles.nitrite_none"))
    little = minced and as_salt < NITRITE_LITTLE
    return replace(found, cautions=(said("caution.nitrite_little", limit=NITRITE_LITTLE),) if little else ())


def nitrate_in(view: View) -> Hurdle:
    """Nitrate going in; none of it is a known zero. Parameters: view."""
    batch = view.batch
    most = batch.profile.ingoing(limits_for(view)).nitrate_mg_per_kg
    source, signable = batch.profile.source_of("ingoing"), batch.goods == "intact"
    base = Hurdle("nitrate_in", "unknown", None, most, "mg/kg", source=source, signable=signable)
    salts = () if view.formulation is None else view.formulation.curing_salts or ()
    as_salt = _ingoing(view, base, [c.nitrate_fraction for c in salts])
    return as_salt if isinstance(as_salt, Hurdle) else _counted(view, base, as_salt, NITRATE_ION_SHARE, most)


def nitrite_lasts(view: View) -> Hurdle | None:
    """Whether nitrite alone lasts as long as the goods are to hang; a caution, never a fail. Parameters: view."""
    salts = () if view.formulation is None else view.formulation.curing_salts or ()
    nitrite = any(c.nitrite_fraction > 0 for c in salts)
    if not view.batch.stages or not nitrite or any(c.nitrate_fraction > 0 for c in salts):
        return None
    end_s = max(view.end_s, view.batch.forecast_end_s or view.end_s)
    days = (end_s - view.line.start_s) / DAY_S
    cautions = (said("caution.nitrite_lasts", days=round(days)),) if days > NITRITE_LASTS_DAYS else ()
    return Hurdle("nitrite_lasts", "pass", days, NITRITE_LASTS_DAYS, "d", "computed", cautions=cautions)
