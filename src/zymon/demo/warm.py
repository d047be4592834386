"""What ferments in the Wheelhouse: a batch at hour sixteen, and one that stalled last month and was thrown away."""

from zymon.formats.recipe_file import SheetModel
from zymon.store import bench, warm
from zymon.store.bench_models import Making
from zymon.store.database import Session
from zymon.store.evidence_models import ParasiteStep
from zymon.store.models import Place
from zymon.store.warm_models import BatchEvent, PhReading, WarmStage

from .bench import SALAME
from .plan import DAY, PEOPLE

HOUR = 3600
METER = "Pocket meter"
# (hours since stuffing, what the meter showed)
FALLING = ((11.8, (5.66, 5.64)), (14.6, (5.49,)))
WELL = ((12.1, (5.61, 5.62)), (19.5, (5.24,)), (23.0, (5.15, 5.14)), (46.0, (5.11,)))
STALLED = ((14.0, (5.78,)), (20.0, (5.77, 5.75)), (27.0, (5.74,)), (40.0, (5.71,)), (52.0, (5.70, 5.69)))


def warm_up(session: Session, box: Place, now_s: int) -> None:
    """Declare the stages, measure, and throw the stalled batch away."""
    meter_id = _calibrated(session, now_s + int(-34.2 * DAY), 97.5)
    _calibrated(session, now_s + int(-0.8 * DAY), 98.2)
    running = next(m for m in bench.makings(session) if m.batch.code == "J-23")
    ferment(session, running, box, now_s - int(15.5 * HOUR), 5.2, meter_id, FALLING, now_s)
    _certified(session, running, "SH-1147", now_s - 10 * HOUR)
    stuffed_s = int(now_s - 34 * DAY)
    sheet = SheetModel.model_validate(SALAME.model_dump())
    new = bench.NewMaking(
        code="J-19", product="Juniper salame", kind="salame", shape="cylinder", casing="natural", fat_percent=25.8,
        salt_percent=2.7, sheet=sheet.model_dump_json(), profile="us", pinch_place_id=box.id, holds=(),
    )  # fmt: skip
    stalled = bench.make_batch(session, new, None, PEOPLE[0], stuffed_s - HOUR)
    ferment(session, stalled, box, stuffed_s, 5.1, meter_id, STALLED, now_s)
    at_s = stuffed_s + 60 * HOUR
    why = "pH stood at 5.7 after two days; the culture had been wakened in tap water"
    event = BatchEvent(uid="demo-j19", batch_id=stalled.batch_id, kind="discard", at_s=at_s, note=why, by=PEOPLE[0],
                       entered_s=at_s)  # fmt: skip
    warm.note(session, event)


def _calibrated(session: Session, at_s: int, slope: float) -> int:
    warm.calibrate(session, METER, slope, PEOPLE[1], at_s)
    return warm.meters(session)[0].id


def _certified(session: Session, making: Making, lot: str, at_s: int) -> None:
    session.add(
        ParasiteStep(
            batch_id=making.batch_id, species="pork", way="certified", temperature_c=None, days=None, thickness_cm=None,
            note=f"certificate of lot {lot}", by=PEOPLE[0], entered_s=at_s,
        )
    )  # fmt: skip


def fermented(session: Session, making: Making, box: Place, hung_s: int, lot: str) -> None:
    """The warm stage of a batch that went well, and hangs since."""
    stuffed_s = hung_s - int(52 * HOUR)
    meter_id = _calibrated(session, stuffed_s - 2 * HOUR, 98.0)
    ferment(session, making, box, stuffed_s, 5.2, meter_id, WELL, hung_s)
    _certified(session, making, lot, stuffed_s)


def ferment(
    session: Session, of: Making, box: Place, stuffed_s: int, target_ph: float, meter_id: int,
    measured: tuple[tuple[float, tuple[float, ...]], ...], now_s: int,
) -> None:  # fmt: skip
    """Declare a warm stage and measure in it: hours since stuffing, and what the meter showed."""
    stage = WarmStage(
        batch_id=of.batch_id, place_id=box.id, stuffed_s=stuffed_s, culture="medium", dextrose_percent=0.3,
        salt_percent=2.7, start_ph=5.8, target_ph=target_ph, by=PEOPLE[1], entered_s=stuffed_s,
    )  # fmt: skip
    warm.start(session, stage, now_s)
    for hour, repeats in measured:
        for i, ph in enumerate(repeats):
            at_s = stuffed_s + int(hour * HOUR) + 90 * i
            reading = PhReading(
                uid=f"demo-{of.batch_id}-{at_s}", batch_id=of.batch_id, at_s=at_s, ph=ph, sample_c=22.0,
                meter_id=meter_id, confirmed=False, by=PEOPLE[i % 2], entered_s=at_s,
            )  # fmt: skip
            warm.add_reading(session, reading)
