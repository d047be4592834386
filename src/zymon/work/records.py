"""What a batch's records say of one of its pieces, measure by measure, for the table of causes."""

from collections.abc import Iterable

import numpy as np

from zymon.core.bench.sheet import work
from zymon.core.bench.sugars import dextrose_percent
from zymon.core.causes import records as r
from zymon.core.causes.table import MARKS
from zymon.core.course import Course, Formulation, Stage
from zymon.core.drying.dried_by import first_weeks, mean_rh
from zymon.core.drying.forecast import Fitted
from zymon.core.formulation import sodium_chloride_g
from zymon.core.ledger.marks import BELIEVED_PH
from zymon.core.pieces import net_weight
from zymon.core.salting.clock import salt_clocks
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench, hang_events, salt, warm
from zymon.store.climate import hourly_log
from zymon.store.database import Session
from zymon.store.models import Piece
from zymon.store.weighings import standing

from .as_forecast import lost_at
from .course import climate_of
from .salt.bags import bag_of, colds_for

DAY_S = 86_400


def of_the_drying(session: Session, fit: Fitted, index: int, batch_id: int) -> dict[str, r.Measured]:
    """What may have dried a rim ahead of its middle: the warm stage, the first weeks on the hook."""
    return first_weeks(fit, index) | r.of_warm_stage(*_warm_air(session, batch_id))


def _warm_air(session: Session, batch_id: int) -> tuple[float | None, float]:
    """Mean humidity of the warm stage of a batch [%], None where nobody logged it, and how long it took [h]."""
    stage = warm.stage(session, batch_id)
    if stage is None:
        return None, 0.0
    end_s = warm.left_the_warm(stage, warm.events(session, batch_id)) or stage.stuffed_s
    log = hourly_log(session, stage.place_id, stage.stuffed_s, end_s)
    return mean_rh(log, stage.stuffed_s, end_s), (end_s - stage.stuffed_s) / 3600


def of_the_batch(session: Session, course: Course, piece: Piece, at_s: int) -> dict[str, r.Measured]:
    """What bowl, salt, cold, warm and hook of a piece were like up to a time [s]; what nobody recorded is not there."""
    making = bench.making_of(session, piece.batch_id)
    sheet = None if making is None else SheetModel.model_validate_json(making.sheet)
    formulation = _formulation_of(course, piece.tag)
    found = r.plain(
        cold_c=_warmest(session, course, piece.tag, ("cold", "cure")),
        hang_c=_mean_c(session, course, piece.tag, at_s),
        age_days=(at_s - course.made_s) / DAY_S,
        nitrite=_nitrite(formulation),
    )
    found |= r.of_salt(
        _salt_percent(formulation), _lost(piece, at_s), _taken_share(session, piece.tag, at_s), _core(course, piece.tag)
    )
    if sheet is not None:
        found |= r.plain(antioxidant=float(any(line.role == "antioxidant" for line in sheet.lines)))
    if course.minced:
        sour = [a.ph for a in course.acidity if a.at_s <= at_s and BELIEVED_PH[0] <= a.ph <= BELIEVED_PH[1]]
        culture = None if sheet is None else any(line.role == "culture" for line in sheet.lines)
        found |= r.of_acid(min(sour, default=None), _dextrose(sheet), culture)
        found |= r.plain(mix_c=course.mix_temperature_c)
        if piece.shape == "cylinder" and piece.start_weight_g is not None:
            net_g = net_weight(piece.start_weight_g, piece.tare_g)
            found |= r.of_packing(net_g, piece.diameter_mm, piece.length_mm)
    return found | _over_and_damp(session, course, piece, at_s)


def _over_and_damp(session: Session, course: Course, piece: Piece, at_s: int) -> dict[str, r.Measured]:
    lost, target = _lost(piece, at_s), piece.target_loss_percent
    over = None if lost is None or target is None else lost - target
    hangs = [s for s in course.stages_of(piece.tag) if s.kind == "hang" and s.place_id is not None]
    damp, logged = 0.0, False
    for stage in hangs:
        end_s = int(min(at_s if stage.to_s is None else stage.to_s, at_s))
        log = climate_of(session, stage, at_s)
        logged = logged or (log is not None and len(log.time_s) > 0)
        assert stage.place_id is not None  # chosen so above
        damp += hang_events.damp_hours(session, stage.place_id, MARKS["damp_rh_percent"], int(stage.from_s), end_s)
    return r.plain(over_target=over, damp_hours=damp if logged else None)


def _lost(piece: Piece, at_s: int) -> float | None:
    weighed = [w for w in standing(piece) if w.at_s <= at_s]
    return lost_at(piece, weighed[-1]) if weighed else None


def _formulation_of(course: Course, tag: str) -> Formulation | None:
    return next((f for f in course.formulations if not f.tags or tag in f.tags), None)


def _nitrite(formulation: Formulation | None) -> float | None:
    if formulation is None or not formulation.curing_known or formulation.meat_g <= 0:
        return None
    return (
        1e6 * formulation.curing_salt_g * formulation.nitrite_fraction / formulation.meat_g
        if formulation.curing_salt
        else 0.0
    )


def _salt_percent(formulation: Formulation | None) -> float | None:
    if formulation is None or not formulation.dose_known or formulation.meat_g <= 0:
        return None
    cured_g = sodium_chloride_g(formulation.curing_salt_g, formulation.nitrite_fraction, formulation.nitrate_fraction)
    return 100 * (formulation.plain_salt_g + cured_g + formulation.other_salt_g) / formulation.meat_g


def _taken_share(session: Session, tag: str, at_s: int) -> float | None:
    """What a piece under free salt took up of what it was to take up; None where its salt was a dose."""
    one = salt.piece_of_tag(session, tag)
    out = None if one is None else salt.out_at(one)
    if one is None or out is None:
        return None
    bag = bag_of(one, colds_for(session, [one], at_s))
    if not bag.free or bag.laid.percent <= 0:
        return None
    (clock,) = salt_clocks([bag], at_s)
    return clock.at(out.at_s)[0] / bag.laid.percent


def _core(course: Course, tag: str) -> float | None:
    return next((s.core_share for s in course.saltings if s.tag == tag and s.to_s is not None), None)


def _dextrose(sheet: SheetModel | None) -> float | None:
    if sheet is None:
        return None
    core = sheet.to_core()
    worked = work(core)
    return dextrose_percent(core.lines, worked.grams, worked.meat_g)


def _stages(course: Course, tag: str, kinds: Iterable[str]) -> list[Stage]:
    return [s for s in course.stages_of(tag) if s.kind in kinds]


def _warmest(session: Session, course: Course, tag: str, kinds: Iterable[str]) -> float | None:
    """The warmest hour of some stages [°C]; None where none of them was logged."""
    logs = [climate_of(session, s, int(s.to_s or s.from_s)) for s in _stages(course, tag, kinds)]
    known = [float(log.temperature_c.max()) for log in logs if log is not None and len(log.time_s)]
    return max(known, default=None)


def _mean_c(session: Session, course: Course, tag: str, at_s: int) -> float | None:
    """The mean temperature on the hook [°C]; None where nobody logged it."""
    logs = [climate_of(session, s, at_s) for s in _stages(course, tag, ("hang",))]
    known = [log.temperature_c for log in logs if log is not None and len(log.time_s)]
    return float(np.concatenate(known).mean()) if known else None
