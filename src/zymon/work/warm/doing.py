"""What is done at the Warm: declare the stage, measure, look ahead, note; each recorded once."""

from dataclasses import replace

from zymon.core.errors import OutOfRangeError, require
from zymon.core.fermentation.forecast import forecast_fermentation
from zymon.core.fermentation.meter import STORED_PH, WARM_SAMPLE_C
from zymon.core.say import said
from zymon.store import bench, hang, struck
from zymon.store import warm as store
from zymon.store.database import Session
from zymon.store.evidence import profile
from zymon.store.places import NotFoundError
from zymon.store.warm_models import BatchEvent, PhReading, WarmStage

from ..premises import Premises, Recording, moment
from ..schemas import StrikeIn
from . import schemas as s
from . import views


def _stage(session: Session, batch_id: int) -> WarmStage:
    found = store.stage(session, batch_id)
    if found is None:
        raise NotFoundError("refused.not_in_the_warm")
    return found


def declare(shop: Premises, batch_id: int, body: s.StageIn) -> s.WarmDetail:
    """Declare when a batch was stuffed and where it is warm, or declare it anew."""
    with shop.recording(body, f"stage {batch_id}") as entry:
        if entry.new:
            bench.making(entry.session, batch_id)
            values = body.model_dump(exclude={"stuffed_at", "uid", "at", "sure"})
            stage = WarmStage(batch_id=batch_id, stuffed_s=entry.at(body.stuffed_at), entered_s=entry.now_s, **values)
            entry.came("warm_stage", store.start(entry.session, stage, entry.now_s).id)
    return views.detail(shop, batch_id, entry.named)


def read(shop: Premises, batch_id: int, body: s.ReadingIn) -> s.WarmDetail:
    """Note a pH. One that cannot well be is asked about before it counts."""
    with shop.recording(body, f"pH {batch_id}") as entry:
        if entry.new:
            _read(entry, batch_id, body)
    return views.detail(shop, batch_id, entry.named)


def _read(entry: Recording, batch_id: int, body: s.ReadingIn) -> None:
    of = store.warm_batch(entry.session, _stage(entry.session, batch_id), entry.now_s)
    at_s = entry.at(body.at)
    if body.sample_c is not None and body.sample_c > WARM_SAMPLE_C:
        entry.ask(said("ask.sample_fahrenheit", sample_c=body.sample_c, meant_c=round((body.sample_c - 32) / 1.8)))
    question = views.asked_of_ph(entry.session, of, body.ph, at_s)
    entry.ask(question)
    require("pH", body.ph, *STORED_PH, "")
    reading = PhReading(
        uid=body.uid, batch_id=batch_id, at_s=at_s, ph=body.ph, sample_c=body.sample_c, meter_id=body.meter_id,
        confirmed=question is not None, by=body.by, entered_s=entry.now_s,
    )  # fmt: skip
    store.add_reading(entry.session, reading)
    entry.came("ph_reading", reading.id)


def strike_reading(shop: Premises, reading_id: int, body: StrikeIn) -> s.WarmDetail:
    """Strike a reading through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        found = store.reading(session, reading_id)
        struck.strike(found, body.reason, body.by, shop.now_s)
        batch_id = found.batch_id
    return views.detail(shop, batch_id)


def note(shop: Premises, batch_id: int, body: s.EventIn) -> s.WarmOut:
    """Note something done: mould, vinegar, spray, cooled, to the hook, thrown away."""
    if body.kind == "discard" and not body.note:
        raise OutOfRangeError("refused.why_thrown_away")
    with shop.recording(body, f"warm {body.kind} {batch_id}") as entry:
        if entry.new:
            bench.making(entry.session, batch_id)
            made = BatchEvent(
                uid=body.uid, batch_id=batch_id, kind=body.kind, at_s=entry.at(body.at), note=body.note, by=body.by,
                entered_s=entry.now_s,
            )  # fmt: skip
            store.note(entry.session, made)
            entry.came("batch_event", made.id)
            if body.kind == "discard":
                _all_gone(entry, batch_id, made)
    return views.warm_out(shop, entry.named)


def _all_gone(entry: Recording, batch_id: int, discard: BatchEvent) -> None:
    """With its batch every piece of it is thrown away, from its hook or from wherever it is."""
    new = hang.NewState("gone", "discarded", None, discard.note)
    for piece in bench.batch(entry.session, batch_id).pieces:
        if hang.hanging_now(piece) is not None:
            hang.take_down(entry.session, piece, new, discard.at_s, entry.by, entry.now_s)
        elif hang.gone(piece) is None:
            hang.become(entry.session, piece, new, discard.at_s, entry.by, entry.now_s)


def strike_event(shop: Premises, event_id: int, body: StrikeIn) -> s.WarmOut:
    """Strike something noted through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        struck.strike(store.event(session, event_id), body.reason, body.by, shop.now_s)
    return views.warm_out(shop)


def calibrate(shop: Premises, body: s.CalibrationIn) -> list[s.MeterOut]:
    """Note a calibration of a meter."""
    with shop.recording(body, f"calibration {body.name}") as entry:
        if entry.new:
            made = store.calibrate(entry.session, body.name, body.slope_percent, body.by, entry.at(body.at))
            entry.came("meter_calibration", made.id)
    with shop.db.reading() as session:
        return [views.meter_out(m, shop.now_s) for m in store.meters(session)]


def what_if(shop: Premises, batch_id: int, body: s.WarmWhatIf) -> s.WarmWhatIfOut:
    """What would come of another set point from now on; nothing is stored."""
    with shop.db.reading() as session:
        of = store.warm_batch(session, _stage(session, batch_id), shop.now_s)
        table = profile(session, of.stage.making.batch.profile).degree_hours
    now = of.fermentation.now_hour
    box = (*of.fermentation.temperature, (now, body.setpoint_c)) if of.fermentation.temperature else ()
    changed = replace(of.fermentation, setpoint_c=body.setpoint_c, temperature=box)
    made = forecast_fermentation(changed, table, views.GAP_HOURS)
    crosses, out = made.crosses.p50, made.runs_out_hour
    origin = of.stage.stuffed_s
    return s.WarmWhatIfOut(
        crosses=views.when(of, made.crosses),
        reaches_target=views.when(of, made.reaches_target),
        runs_out=None if out is None else moment(origin + out * 3600),
        in_time=None if crosses is None else out is None or crosses < out,
        curve_at=[moment(origin + h * 3600) for h in made.curve_hours.tolist()],
        curve=[round(v, 3) for v in made.curve_p50.tolist()],
    )
