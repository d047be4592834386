"""Batches beside each other: loss by days on the hook, pH by hours, the air they had, and what differed in words."""

from collections.abc import Iterable, Sequence
from datetime import datetime
from statistics import median

import numpy as np
from pydantic import BaseModel

from zymon.core.bench.sheet import work
from zymon.core.bench.sugars import dextrose_percent
from zymon.core.book.accuracy import reached
from zymon.core.book.compare import FACTS, Compared, Fact, Value, differences
from zymon.core.course import Course, Stage
from zymon.core.drying.climate import Log, or_none
from zymon.core.errors import OutOfRangeError
from zymon.core.formulation import sodium_chloride_g
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench, cuts, warm
from zymon.store.database import Session
from zymon.store.models import Batch, Piece
from zymon.store.weighings import standing

from ..as_forecast import lost_at
from ..course import climate_of, course_of
from ..cut.schemas import FaceOut
from ..cut.views import face_out
from ..keep.yields import yield_of
from ..premises import Premises, moment
from ..schemas import SaidOut, said_out
from .ph_accuracy import crossing
from .story_schemas import StoryPh

DAY_S = 86_400
MOST = 6
FIRST_DAYS = 14


class LossCurve(BaseModel):
    """A piece's loss by days on the hook."""

    tag: str
    days: list[float]
    loss_percent: list[float]


class HookAir(BaseModel):
    """The air on the hook by days since the first piece hung."""

    days: list[float]
    temperature_c: list[float]
    rh_percent: list[float | None]


class ComparedOut(BaseModel):
    """A batch among others."""

    batch_id: int
    code: str
    product: str
    made_at: datetime
    curves: list[LossCurve]
    ph: list[StoryPh]
    air: HookAir | None
    facts: dict[Fact, float | str | None]
    cuts: list[FaceOut]


class CompareOut(BaseModel):
    """Batches on one axis, the facts in the order of the work, and what differs."""

    batches: list[ComparedOut]
    facts: list[Fact]
    differs: list[SaidOut]


def compare(shop: Premises, batch_ids: Sequence[int]) -> CompareOut:
    """Up to six batches beside each other. Raises NotFoundError, OutOfRangeError."""
    wanted = list(dict.fromkeys(batch_ids))
    if len(wanted) > MOST:
        raise OutOfRangeError("refused.many_to_compare", many=MOST)
    costs = {batch_id: yield_of(shop, batch_id).cost_per_finished_kg for batch_id in wanted}
    with shop.db.reading() as session:
        found = [_compared(session, bench.batch(session, one), shop.now_s, costs[one]) for one in wanted]
    known = [fact for fact in FACTS if any(one.facts.get(fact) is not None for one in found)]
    told = differences([Compared(one.code, one.facts) for one in found])
    return CompareOut(batches=found, facts=known, differs=[said_out(one) for one in told])


def _compared(session: Session, batch: Batch, now_s: int, cost: float | None) -> ComparedOut:
    course = course_of(session, batch.id, now_s)
    pieces = [p for p in batch.pieces if p.start_weight_g is not None]
    hung_s = min((p.hung_s for p in batch.pieces), default=None)
    log = _hook_log(session, course, now_s)
    return ComparedOut(
        batch_id=batch.id,
        code=batch.code,
        product=batch.product,
        made_at=moment(course.made_s),
        curves=[_curve(p) for p in pieces],
        ph=[
            StoryPh(at=moment(r.at_s), ph=r.ph, by=r.by, struck=r.struck_s is not None)
            for r in warm.readings(session, batch.id)
        ],
        air=None if log is None or hung_s is None else _air(log, hung_s),
        facts=_facts(session, batch, course, log, cost, now_s),
        cuts=[face_out(f) for p in batch.pieces for f in cuts.faces_of(session, p.id) if f.struck_s is None],
    )


def _curve(piece: Piece) -> LossCurve:
    weighed = sorted(standing(piece), key=lambda w: w.at_s)
    return LossCurve(
        tag=piece.tag,
        days=[0.0, *(round((w.at_s - piece.hung_s) / DAY_S, 2) for w in weighed)],
        loss_percent=[0.0, *(lost_at(piece, w) or 0.0 for w in weighed)],
    )


def _hook_log(session: Session, course: Course, now_s: int) -> Log | None:
    """The log of the place of the first hook, from the first hanging to the last taking down."""
    hangs = [s for s in course.stages if s.kind == "hang" and s.place_id is not None]
    if not hangs:
        return None
    own = [s for s in hangs if s.place_id == hangs[0].place_id]
    ends = [s.to_s for s in own]
    to_s = None if None in ends else max(e for e in ends if e is not None)
    span = Stage("hang", min(s.from_s for s in own), to_s, own[0].place_id, own[0].place, by=own[0].by)
    log = climate_of(session, span, now_s)
    return None if log is None or not len(log.time_s) else log


def _air(log: Log, hung_s: int) -> HookAir:
    day = np.floor((log.time_s - hung_s) / DAY_S)
    starts = np.flatnonzero(np.diff(day, prepend=day[0] - 1))
    sizes = np.diff(np.append(starts, len(day)))
    return HookAir(
        days=day[starts].tolist(),
        temperature_c=np.round(np.add.reduceat(log.temperature_c, starts) / sizes, 2).tolist(),
        rh_percent=or_none(np.add.reduceat(log.rh_percent, starts) / sizes),
    )


def _facts(
    session: Session, batch: Batch, course: Course, log: Log | None, cost: float | None, now_s: int
) -> dict[Fact, Value]:
    first = None if log is None else log.time_s <= log.time_s[0] + FIRST_DAYS * DAY_S
    across = [p.thickness_mm if p.shape == "slab" else p.diameter_mm for p in batch.pieces]
    lost = [lost_at(p, standing(p)[-1]) for p in batch.pieces if standing(p) and p.start_weight_g is not None]
    hang = next((s for s in course.stages if s.kind == "hang"), None)
    return {
        "recipe": _recipe(session, batch.id),
        "casing": batch.casing,
        "salt_percent": _salt(course, batch),
        "fat_percent": batch.fat_percent,
        "dextrose_percent": _dextrose(session, batch.id),
        "across_mm": _middle(across),
        "start_g": _middle([p.start_weight_g for p in batch.pieces]),
        "target_percent": _middle([p.target_loss_percent for p in batch.pieces]),
        "mix_c": course.mix_temperature_c,
        **_warm(session, batch.id, course, now_s),
        "place": None if hang is None else hang.place,
        "first_c": None if log is None else _mean(log.temperature_c[first]),
        "first_rh_percent": None if log is None else _mean(log.rh_percent[first]),
        "hang_c": None if log is None else _mean(log.temperature_c),
        "hang_rh_percent": None if log is None else _mean(log.rh_percent),
        "days_to_target": _middle(list(_days_to_target(batch))),
        "loss_percent": _middle(lost),
        "cost_per_kg": None if cost is None else round(cost, 2),
    }


def _middle(values: Sequence[float | None]) -> float | None:
    known = [v for v in values if v is not None]
    return round(median(known), 1) if known else None


def _mean(values: np.ndarray) -> float | None:
    told = values[np.isfinite(values)]
    return round(float(told.mean()), 1) if len(told) else None


def _days_to_target(batch: Batch) -> Iterable[float | None]:
    for piece in batch.pieces:
        curve = _curve(piece) if piece.start_weight_g is not None else None
        if curve is None or piece.target_loss_percent is None:
            continue
        yield reached(list(zip(curve.days, curve.loss_percent, strict=True)), piece.target_loss_percent)


def _salt(course: Course, batch: Batch) -> float | None:
    known = [f for f in course.formulations if f.dose_known and f.meat_g > 0]
    if not known:
        return batch.salt_percent
    cured_g = [sodium_chloride_g(f.curing_salt_g, f.nitrite_fraction, f.nitrate_fraction) for f in known]
    salts_g = [f.plain_salt_g + f.other_salt_g + g for f, g in zip(known, cured_g, strict=True)]
    return round(100 * sum(salts_g) / sum(f.meat_g for f in known), 2)


def _dextrose(session: Session, batch_id: int) -> float | None:
    making = bench.making_of(session, batch_id)
    if making is None:
        return None
    core = SheetModel.model_validate_json(making.sheet).to_core()
    worked = work(core)
    found = dextrose_percent(core.lines, worked.grams, worked.meat_g)
    return None if found is None else round(found, 2)


def _recipe(session: Session, batch_id: int) -> str | None:
    making = bench.making_of(session, batch_id)
    recipe = cuts.recipe_of(session, batch_id)
    if making is None or recipe is None or making.weigh_out is None:
        return None
    number = next((v.number for v in recipe.versions if v.id == making.weigh_out.recipe_version_id), None)
    return None if number is None else f"{recipe.name}, version {number}"


def _warm(session: Session, batch_id: int, course: Course, now_s: int) -> dict[Fact, Value]:
    """How warm and damp the warm stage was, how low the pH came, and when it crossed 5.3."""
    found: dict[Fact, Value] = {"warm_c": None, "warm_rh_percent": None, "lowest_ph": None, "hours_to_mark": None}
    stage, declared = course.stage("warm"), warm.stage(session, batch_id)
    log = None if stage is None else climate_of(session, stage, now_s)
    if log is not None and len(log.time_s):
        found["warm_c"], found["warm_rh_percent"] = _mean(log.temperature_c), _mean(log.rh_percent)
    if course.acidity:
        found["lowest_ph"] = min(a.ph for a in course.acidity)
    if declared is not None:
        hour = crossing(warm.warm_batch(session, declared, now_s, coarse=True).fermentation)
        found["hours_to_mark"] = None if hour is None else round(hour, 1)
    return found
