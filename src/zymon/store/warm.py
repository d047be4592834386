"""The Warm's records: stages, pH readings, meters, what was done, and a fermentation as the rules see it."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from zymon.core.errors import OutOfRangeError
from zymon.core.fermentation.curve import Fermentation, Reading
from zymon.core.fermentation.meter import Calibration, Measured, medians

from .bench_models import Making
from .climate import binned_temperature, hourly_log
from .once import sent_before
from .places import ClashError, place, setpoint_at, there
from .struck import counted, strike
from .warm_models import BatchEvent, MeterCalibration, PhMeter, PhReading, WarmStage

BIN_S = 600  # of a one-minute log: the goods follow over hours
ENDS = ("hang", "hang_cold", "discard")
AFTER_S = 14 * 86_400  # a stage that nobody ended is shown so long


def stage(session: Session, batch_id: int) -> WarmStage | None:
    """The warm stage of a batch as last declared, or None."""
    found = session.scalars(select(WarmStage).where(WarmStage.batch_id == batch_id).order_by(WarmStage.id)).all()
    return next(iter(reversed(counted(found))), None)


def stages(session: Session) -> list[WarmStage]:
    """The latest stage of every batch that has one, the latest first."""
    query = select(WarmStage).options(joinedload(WarmStage.making).joinedload(Making.batch)).order_by(WarmStage.id)
    latest = {s.batch_id: s for s in counted(session.scalars(query).unique())}
    return sorted(latest.values(), key=lambda s: -s.stuffed_s)


def events(session: Session, batch_id: int) -> list[BatchEvent]:
    """What was done to a batch, in time order, struck entries too."""
    query = select(BatchEvent).where(BatchEvent.batch_id == batch_id).order_by(BatchEvent.at_s, BatchEvent.id)
    return list(session.scalars(query))


def discarded(session: Session, batch_id: int) -> BatchEvent | None:
    """That a batch was thrown away, if it was."""
    return next((e for e in counted(events(session, batch_id)) if e.kind == "discard"), None)


def discarded_batches(session: Session) -> set[int]:
    """The batches that were thrown away."""
    query = select(BatchEvent.batch_id).where(BatchEvent.kind == "discard", BatchEvent.struck_s.is_(None))
    return set(session.scalars(query))


def batches_known(session: Session) -> set[int]:
    """The batches of which a warm stage or anything that was done to them as a whole is on record."""
    return {*session.scalars(select(WarmStage.batch_id)), *session.scalars(select(BatchEvent.batch_id))}


def refuse_discarded(session: Session, batch_id: int) -> None:
    """Raises ClashError for a batch that was thrown away."""
    gone = discarded(session, batch_id)
    if gone is not None:
        raise ClashError("refused.batch_thrown_away", by=gone.by, note=gone.note)


def start(session: Session, new: WarmStage, now_s: int) -> WarmStage:
    """Declare the warm stage of a batch. Raises ClashError, NotFoundError, OutOfRangeError."""
    refuse_discarded(session, new.batch_id)
    place(session, new.place_id)
    if any(r.at_s < new.stuffed_s for r in counted(readings(session, new.batch_id))):
        raise OutOfRangeError("refused.ph_before_stuffed")
    old = stage(session, new.batch_id)
    if old is not None:
        strike(old, "declared anew", new.by, now_s)
    session.add(new)
    session.flush()
    return new


def readings(session: Session, batch_id: int) -> list[PhReading]:
    """The pH readings of a batch, in time order, struck ones too."""
    query = select(PhReading).where(PhReading.batch_id == batch_id).options(joinedload(PhReading.meter))
    return list(session.scalars(query.order_by(PhReading.at_s, PhReading.id)).unique())


def add_reading(session: Session, new: PhReading) -> bool:
    """Store a reading; sent twice it counts once. Returns whether it was new. Raises ClashError, OutOfRangeError."""
    if sent_before(session, PhReading.uid, PhReading.batch_id, new.uid, new.batch_id):
        return False
    refuse_discarded(session, new.batch_id)
    of = stage(session, new.batch_id)
    if of is None:
        raise ClashError("refused.not_declared_warm")
    if new.at_s < of.stuffed_s:
        raise OutOfRangeError("refused.measured_before_stuffed")
    session.add(new)
    session.flush()
    return True


def note(session: Session, new: BatchEvent) -> bool:
    """Note something done to a batch; sent twice it counts once. Returns whether it was new."""
    if sent_before(session, BatchEvent.uid, BatchEvent.batch_id, new.uid, new.batch_id):
        return False
    refuse_discarded(session, new.batch_id)
    session.add(new)
    session.flush()
    return True


def reading(session: Session, reading_id: int) -> PhReading:
    """One reading. Raises NotFoundError."""
    return there(session, PhReading, reading_id, "refused.no_reading")


def event(session: Session, event_id: int) -> BatchEvent:
    """One event. Raises NotFoundError."""
    return there(session, BatchEvent, event_id, "refused.no_entry")


def meters(session: Session) -> list[PhMeter]:
    """All meters by name."""
    return list(session.scalars(select(PhMeter).order_by(PhMeter.name)))


def calibrate(session: Session, name: str, slope_percent: float, by: str, at_s: int) -> MeterCalibration:
    """Note a calibration; a meter that is not known yet is noted with it."""
    found = session.scalar(select(PhMeter).where(PhMeter.name == name))
    if found is None:
        found = PhMeter(name=name, by=by)
        session.add(found)
    made = MeterCalibration(at_s=at_s, slope_percent=slope_percent, by=by)
    found.calibrations.append(made)
    session.flush()
    return made


def calibrations_of(meter: PhMeter, origin_s: int) -> list[Calibration]:
    """A meter's calibrations on a batch's clock."""
    return [Calibration((c.at_s - origin_s) / 3600, c.slope_percent) for c in meter.calibrations]


def measured(found: Sequence[PhReading], origin_s: int) -> list[Measured]:
    """Readings that count, on a batch's clock."""
    return [Measured((r.at_s - origin_s) / 3600, r.ph, r.meter_id, r.confirmed) for r in counted(found)]


def box_log(session: Session, place_id: int, from_s: int, to_s: int, bin_s: int = BIN_S) -> list[tuple[float, float]]:
    """Temperature of a place between two times in means of ten minutes: (hour since `from_s`, °C)."""
    times, values = binned_temperature(session, place_id, from_s - 3600, to_s, bin_s)
    return _since(list(zip(times.tolist(), values.tolist(), strict=True)), from_s)


def hourly_box(session: Session, place_id: int, from_s: int, to_s: int) -> list[tuple[float, float]]:
    """The same by the hour, from the roll-ups."""
    log = hourly_log(session, place_id, from_s, to_s, whole_hours=True)
    return _since(list(zip(log.time_s.tolist(), log.temperature_c.tolist(), strict=True)), from_s)


def _since(rows: list[tuple[float, float]], from_s: int) -> list[tuple[float, float]]:
    before = [c for at, c in rows if at < from_s]
    inside = [((at - from_s) / 3600, c) for at, c in rows if at >= from_s]
    return [(0.0, before[-1]), *inside] if before and (not inside or inside[0][0] > 0) else inside


@dataclass(frozen=True)
class WarmBatch:
    """A batch in the warm stage with everything its forecast rests on."""

    stage: WarmStage
    readings: list[PhReading]
    events: list[BatchEvent]
    fermentation: Fermentation

    ended_s: int | None  # when it left the warm stage, None while it is there


def end_of(done: Sequence[BatchEvent]) -> int | None:
    """When somebody said that a batch left its warm place [s], or None."""
    return min((e.at_s for e in counted(done) if e.kind in ENDS), default=None)


def left_the_warm(warm_stage: WarmStage, done: Sequence[BatchEvent]) -> int | None:
    """When a batch left its warm place [s]: from then on the place's log is not its own. None while it is there.

    It was said, or all its pieces hang.
    """
    told = end_of(done)
    batch = warm_stage.making.batch
    waiting = any(made.piece_id is None for made in warm_stage.making.pieces)
    hung = None if waiting or not batch.pieces else max(piece.hung_s for piece in batch.pieces)
    return min((at for at in (told, hung) if at is not None), default=None)


def warm_batch(session: Session, warm_stage: WarmStage, now_s: int, coarse: bool = False) -> WarmBatch:
    """A batch's fermentation as of now, or as of its end. Repeats count as their median.

    Parameters: coarse, the box by the hour, so that no single reading is read.
    """
    found = readings(session, warm_stage.batch_id)
    done = events(session, warm_stage.batch_id)
    ended_s = left_the_warm(warm_stage, done)
    end_s = max(now_s if ended_s is None else min(ended_s, now_s), warm_stage.stuffed_s)
    setpoint = setpoint_at(warm_stage.place, end_s)
    return WarmBatch(
        warm_stage,
        found,
        done,
        Fermentation(
            culture=warm_stage.culture,
            dextrose_percent=warm_stage.dextrose_percent,
            salt_percent=warm_stage.salt_percent,
            start_ph=warm_stage.start_ph,
            target_ph=warm_stage.target_ph,
            setpoint_c=setpoint.temperature_c if setpoint else None,
            temperature=tuple(
                (hourly_box if coarse else box_log)(session, warm_stage.place_id, warm_stage.stuffed_s, end_s)
            ),
            readings=tuple(Reading(m.hour, m.ph, m.confirmed) for m in medians(measured(found, warm_stage.stuffed_s))),
            now_hour=(end_s - warm_stage.stuffed_s) / 3600,
        ),
        ended_s,
    )


def in_the_warm(session: Session, now_s: int) -> list[WarmStage]:
    """Stages that are running, and those nobody ended lately."""
    return [
        of
        for of in stages(session)
        if now_s - of.stuffed_s < AFTER_S and left_the_warm(of, events(session, of.batch_id)) is None
    ]


def waiting_for_warmth(session: Session) -> list[Making]:
    """Batches, whole muscle too, of which no piece hangs and whose warm stage nobody declared, the latest first."""
    declared = select(WarmStage.batch_id).where(WarmStage.struck_s.is_(None))
    ended = select(BatchEvent.batch_id).where(BatchEvent.kind.in_(ENDS), BatchEvent.struck_s.is_(None))
    query = select(Making).where(Making.batch_id.not_in(declared), Making.batch_id.not_in(ended))
    found = session.scalars(query.order_by(Making.made_s.desc()))
    return [m for m in found if not any(p.piece_id is not None for p in m.pieces)]
