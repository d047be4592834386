"""The Warm station: declare the stage, measure, look ahead, note what is done."""

from dataclasses import replace

import numpy as np
from fastapi import APIRouter
from sqlalchemy.orm import Session

from zymon.core.errors import OutOfRangeError
from zymon.core.fermentation.forecast import forecast_fermentation
from zymon.core.fermentation.meter import WARM_SAMPLE_C, ask_about_ph
from zymon.store import bench
from zymon.store import warm as store
from zymon.store.evidence import profile
from zymon.store.places import NotFoundError
from zymon.store.warm_models import BatchEvent, PhReading, WarmStage

from ..context import Ctx, Id, moment
from ..errors import DoubtfulError
from ..schemas import StrikeIn
from . import schemas as s
from . import views

router = APIRouter(prefix="/api/warm", tags=["warm"])


def _stage(session: Session, batch_id: int) -> WarmStage:
    found = store.stage(session, batch_id)
    if found is None:
        raise NotFoundError("nobody said when this batch was stuffed and where it is warm")
    return found


@router.get("")
def warm(ctx: Ctx) -> s.WarmOut:
    """Everything that ferments."""
    with ctx.db.reading() as session:
        return views.warm_out(session, ctx.now_s)


@router.get("/{batch_id}")
def batch(ctx: Ctx, batch_id: Id) -> s.WarmDetail:
    """One batch in the warm stage."""
    with ctx.db.reading() as session:
        return views.detail(session, batch_id, ctx.now_s)


@router.put("/{batch_id}/stage")
def declare(ctx: Ctx, batch_id: Id, body: s.StageIn) -> s.WarmDetail:
    """Declare when a batch was stuffed and where it is warm, or declare it anew."""
    with ctx.db.writing() as session:
        bench.making(session, batch_id)
        values = body.model_dump(exclude={"stuffed_at"})
        stuffed_s = int(body.stuffed_at.timestamp())
        store.start(
            session, WarmStage(batch_id=batch_id, stuffed_s=stuffed_s, entered_s=ctx.now_s, **values), ctx.now_s
        )
        return views.detail(session, batch_id, ctx.now_s)


@router.post("/{batch_id}/readings", status_code=201)
def read(ctx: Ctx, batch_id: Id, body: s.ReadingIn) -> s.WarmDetail:
    """Note a pH. One that cannot well be is asked about before it counts."""
    with ctx.db.writing() as session:
        of = store.warm_batch(session, _stage(session, batch_id), ctx.now_s)
        at_s = ctx.now_s if body.at is None else int(body.at.timestamp())
        if body.sample_c is not None and body.sample_c > WARM_SAMPLE_C and not body.confirmed:
            raise DoubtfulError(
                f"a sample of {body.sample_c:g} °C? In degrees Fahrenheit that is {(body.sample_c - 32) / 1.8:.0f} °C"
            )
        made = views.forecast_of(session, of)
        hour = (at_s - of.stage.stuffed_s) / 3600
        low, high = (
            float(np.interp(hour, made.curve_hours, c)) for c in (made.curve_p10, made.curve_p90)
        )  # fmt: skip
        question = ask_about_ph(body.ph, low, high)
        if question and not body.confirmed:
            raise DoubtfulError(question)
        if not 3 <= body.ph <= 9:
            raise OutOfRangeError(question or "pH must be between 3 and 9")
        entry = PhReading(
            uid=body.uid, batch_id=batch_id, at_s=at_s, ph=body.ph, sample_c=body.sample_c, meter_id=body.meter_id,
            confirmed=body.confirmed, by=body.by, entered_s=ctx.now_s,
        )  # fmt: skip
        store.add_reading(session, entry, ctx.now_s)
        return views.detail(session, batch_id, ctx.now_s)


@router.post("/readings/{reading_id}/strike")
def strike_reading(ctx: Ctx, reading_id: Id, body: StrikeIn) -> s.WarmDetail:
    """Strike a reading through; it stays on record."""
    with ctx.db.writing() as session:
        found = store.reading(session, reading_id)
        store.strike(found, body.reason, body.by, ctx.now_s)
        session.flush()
        return views.detail(session, found.batch_id, ctx.now_s)


@router.post("/{batch_id}/events", status_code=201)
def note(ctx: Ctx, batch_id: Id, body: s.EventIn) -> s.WarmOut:
    """Note something done: mould, vinegar, spray, cooled, to the hook, thrown away."""
    if body.kind == "discard" and not body.note:
        raise OutOfRangeError("say why it is thrown away")
    with ctx.db.writing() as session:
        bench.making(session, batch_id)
        at_s = ctx.now_s if body.at is None else int(body.at.timestamp())
        entry = BatchEvent(
            uid=body.uid, batch_id=batch_id, kind=body.kind, at_s=at_s, note=body.note, by=body.by, entered_s=ctx.now_s
        )
        store.note(session, entry, ctx.now_s)
        return views.warm_out(session, ctx.now_s)


@router.post("/events/{event_id}/strike")
def strike_event(ctx: Ctx, event_id: Id, body: StrikeIn) -> s.WarmOut:
    """Strike something noted through; it stays on record."""
    with ctx.db.writing() as session:
        store.strike(store.event(session, event_id), body.reason, body.by, ctx.now_s)
        session.flush()
        return views.warm_out(session, ctx.now_s)


@router.post("/meters", status_code=201)
def calibrate(ctx: Ctx, body: s.CalibrationIn) -> list[s.MeterOut]:
    """Note a calibration of a meter."""
    with ctx.db.writing() as session:
        store.calibrate(session, body.name, body.slope_percent, body.by, ctx.now_s)
        return [views.meter_out(m, ctx.now_s) for m in store.meters(session)]


@router.post("/{batch_id}/what-if")
def what_if(ctx: Ctx, batch_id: Id, body: s.WarmWhatIf) -> s.WarmWhatIfOut:
    """What would come of another set point from now on; nothing is stored."""
    with ctx.db.reading() as session:
        of = store.warm_batch(session, _stage(session, batch_id), ctx.now_s)
        table = profile(session, of.stage.making.profile).degree_hours
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
