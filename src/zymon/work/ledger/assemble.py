"""A batch as the ledger sees it: its course with the readings of its places, and what the forecast adds."""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace

import numpy as np
import numpy.typing as npt

from zymon.core import course as told
from zymon.core.drying.judge import in_doubt, runs_ahead
from zymon.core.fermentation.meter import checked
from zymon.core.ledger import batch as judged
from zymon.core.ledger.judge import Ledger, judge
from zymon.core.ledger.species import species_of
from zymon.core.say import said
from zymon.store import bench, evidence, salt, warm
from zymon.store.climate import binned_temperature, hourly_log
from zymon.store.database import Session
from zymon.store.hang import hanging_now
from zymon.store.places import workshop

from ..as_forecast import core_piece
from ..course import course_of
from ..dates import Dates
from ..schemas import read_said

Array = npt.NDArray[np.float64]
BIN_S = 600  # means of so long: an hour above a mark is still seen
LONG = ("hang", "rest")  # stages that last for months
CURE_WAYS: dict[str, judged.CureWay] = {
    "measured": "measured", "by_thickness": "measured", "pressed": "pressed", "rub_and_drain": "rubbed",
    "buried": "buried",
}  # fmt: skip


@dataclass
class Ahead:
    """What the forecast adds of the pieces that hang: weighings it does not believe, rings, the last date."""

    doubtful: dict[str, float] = field(default_factory=dict)  # the moment of the latest weighing [s]
    rings: set[str] = field(default_factory=set)
    end_s: float | None = None


@dataclass(frozen=True)
class Judged:
    """A batch as it was told, as the ledger sees it, and what the ledger says."""

    course: told.Course
    batch: judged.Batch
    ledger: Ledger


def judged_now(session: Session, dates: Dates, batch_id: int, now_s: int) -> Judged:
    """A batch judged as of now. An open hold and the bin stand against it whatever the hurdles say."""
    course = course_of(session, batch_id, now_s)
    batch = judged_of(session, course, _ahead(session, dates, batch_id, now_s), now_s)
    found = judge(batch)
    making = bench.making_of(session, batch_id)
    against = [("discarded", said("ledger.discarded", note=course.discarded))] if course.discarded is not None else []
    holds = [] if making is None else [hold for hold in making.holds if hold.answered_s is None]
    against += [
        ("held", one) for hold in holds for one in read_said(hold.says) or [said("ledger.held", note=hold.text)]
    ]
    ledger = replace(found, ready=found.ready and not against, why=(*against, *found.why))
    return Judged(course, batch, ledger)


def ledger_of(session: Session, dates: Dates, batch_id: int, now_s: int) -> Ledger:
    """Every hurdle of a batch as of now."""
    return judged_now(session, dates, batch_id, now_s).ledger


def batch_of(session: Session, dates: Dates, batch_id: int, now_s: int) -> judged.Batch:
    """What is known of a batch; what nobody recorded is not known."""
    return judged_now(session, dates, batch_id, now_s).batch


def _ahead(session: Session, dates: Dates, batch_id: int, now_s: int) -> Ahead:
    found = Ahead()
    for piece in bench.batch(session, batch_id).pieces:
        if hanging_now(piece) is None:
            continue
        made, core = dates.of_piece(session, piece, now_s), core_piece(piece)
        weighed = [w for w in core.weighings if w.at_s <= now_s]
        if weighed and in_doubt(weighed[-1], made):
            found.doubtful[piece.tag] = weighed[-1].at_s
        if runs_ahead(made) or (made.ring == "strong" and made.loss_percent >= core.aim_percent):
            found.rings.add(piece.tag)
        if made.ready_p50_s is not None:
            found.end_s = max(found.end_s or 0.0, made.ready_p50_s)
    return found


def judged_of(session: Session, course: told.Course, ahead: Ahead, now_s: int) -> judged.Batch:
    """A course as the ledger's batch."""
    shop = workshop(session)
    return judged.Batch(
        id=course.code,
        goods="minced" if course.minced else "intact",
        use=course.use,  # type: ignore[arg-type] # checked on entry
        profile=evidence.profile(session, course.profile or "us"),
        now_s=float(now_s),
        family=course.family,
        cold_hung=course.cold_hung,
        moulded=course.moulded,
        parts=tuple(
            judged.Part(p.name, None if p.species is None else species_of(p.species), p.mass_g, p.fat_percent, p.tags)
            for p in course.parts
            if p.mass_g > 0
        ),
        formulations=tuple(_formulation(f) for f in course.formulations),
        mix_temperature_c=course.mix_temperature_c,
        parasite=tuple(
            judged.ParasiteStep(p.species, p.way, p.temperature_c, p.days, p.thickness_cm)  # type: ignore[arg-type] # checked on entry
            for p in course.parasites
        ),
        stages=tuple(_stages(session, course, now_s)),
        ph=tuple(_ph(session, course)),
        pieces=tuple(_piece(course, p, ahead) for p in course.pieces),
        laboratory=tuple(
            judged.LabValue(r.at_s, r.what, r.value, r.unit, r.taken_of, r.tag)  # type: ignore[arg-type] # checked on entry
            for r in course.laboratory
            if r.what in judged.LAB_WHAT
        ),
        corrections=tuple(
            judged.Correction(c.hurdle, c.at_s, c.by, c.reason, c.was)  # type: ignore[arg-type] # a state
            for c in course.released
        ),
        signatures=tuple(judged.Signature(x.hurdle, x.by, x.at_s, x.reason) for x in course.signatures),
        people=judged.MORE_THAN_ONE if shop is None or shop.people is None else shop.people,
        forecast_end_s=ahead.end_s,
    )


def _formulation(mix: told.Formulation) -> judged.Formulation:
    salts: tuple[judged.CuringSalt, ...] | None = None
    if mix.curing_known:
        one = judged.CuringSalt(mix.curing_salt_g, mix.nitrite_fraction, mix.nitrate_fraction)
        salts = (one,) if mix.curing_salt else ()
    plain_g = mix.plain_salt_g if mix.dose_known else None
    return judged.Formulation(plain_g, salts, mix.other_salt_g, mix.dose_known, mix.belly, mix.tags)


def _piece(course: told.Course, piece: told.Individual, ahead: Ahead) -> judged.Piece:
    doubtful = {*piece.doubtful, *([ahead.doubtful[piece.tag]] if piece.tag in ahead.doubtful else [])}
    share = next((s.core_share for s in course.saltings if s.tag == piece.tag), None)
    downs = [s.to_s for s in piece.life.states if s.kind == "hanging"]
    return judged.Piece(
        tag=piece.tag,
        start_weight_g=piece.start_weight_g,
        tare_g=piece.tare_g,
        target_loss_percent=piece.target_loss_percent,
        done_by=piece.done_by or course.done_by,  # type: ignore[arg-type] # checked on entry
        core_salt_share=share,
        weights=tuple((w.at_s, w.gross_g) for w in piece.weighings),
        doubtful=tuple(sorted(doubtful)),
        taken_down_s=downs[-1] if downs else None,
        inspections=tuple(
            judged.Inspection(f.at_s, f.rim, f.core, f.smell or "")  # type: ignore[arg-type] # checked on entry
            for f in piece.felt
        ),
        casing=piece.casing,
        ring_past_bound=piece.tag in ahead.rings,
    )


def _ph(session: Session, course: told.Course) -> Iterable[judged.Ph]:
    """The readings, each with whether its meter could be trusted then."""
    meters = {m.id: warm.calibrations_of(m, 0) for m in warm.meters(session)}
    for r in course.acidity:
        if r.meter_id is None:
            yield judged.Ph(r.at_s, r.ph, "unknown")
        else:
            sure = checked(meters.get(r.meter_id, []), r.at_s / 3600)
            yield judged.Ph(r.at_s, r.ph, "checked" if sure else "unchecked")


def _stages(session: Session, course: told.Course, now_s: int) -> Iterable[judged.Stage]:
    """The stages with what the thermometers of their places showed, and what was typed of the meat itself."""
    logs: dict[tuple[int, bool], tuple[Array, Array]] = {}
    for key in {(s.place_id, s.kind in LONG) for s in course.stages if s.place_id is not None}:
        spans = [(s.from_s, s.to_s) for s in course.stages if (s.place_id, s.kind in LONG) == key]
        low = min(a for a, _ in spans)
        high = max(now_s if b is None else b for _, b in spans)
        logs[key] = _log(session, key[0], int(low), int(high), key[1])
    typed = salt.typed_temperatures(session, course.code)
    for stage in course.stages:
        end_s = now_s if stage.to_s is None else stage.to_s
        points: list[tuple[float, float]] = []
        if stage.place_id is not None:
            times, values = logs[stage.place_id, stage.kind in LONG]
            here = (times >= stage.from_s) & (times <= end_s)
            points = list(zip(times[here].tolist(), values[here].tolist(), strict=True))
        points += [
            (at_s, c)
            for tag, at_s, c in typed
            if (not stage.tags or tag in stage.tags) and stage.from_s <= at_s <= end_s
        ]
        way = None if stage.kind != "cure" else CURE_WAYS.get(stage.way or "", "buried")
        yield judged.Stage(stage.kind, stage.from_s, stage.to_s, tuple(sorted(points)), way, stage.place, stage.tags)


def _log(session: Session, place_id: int, low_s: int, high_s: int, long: bool) -> tuple[Array, Array]:
    """Temperature of a place: of stages that last for months by the hour, their marks being of hours."""
    if not long:
        return binned_temperature(session, place_id, low_s, high_s, BIN_S)
    log = hourly_log(session, place_id, low_s, high_s, whole_hours=True)
    return log.time_s, log.temperature_c
