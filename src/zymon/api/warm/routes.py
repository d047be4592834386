"""The Warm station: declare the stage, measure, look ahead, note what is done."""

from fastapi import APIRouter

from zymon.work.schemas import StrikeIn
from zymon.work.warm import doing, views
from zymon.work.warm import schemas as s

from ..context import Ctx, Id

router = APIRouter(prefix="/api/warm", tags=["warm"])


@router.get("")
def warm(ctx: Ctx) -> s.WarmOut:
    """Everything that ferments."""
    return views.warm_out(ctx)


@router.get("/{batch_id}")
def batch(ctx: Ctx, batch_id: Id) -> s.WarmDetail:
    """One batch in the warm stage."""
    return views.detail(ctx, batch_id)


@router.put("/{batch_id}/stage")
def declare(ctx: Ctx, batch_id: Id, body: s.StageIn) -> s.WarmDetail:
    """Declare when a batch was stuffed and where it is warm, or declare it anew."""
    return doing.declare(ctx, batch_id, body)


@router.post("/{batch_id}/readings", status_code=201)
def read(ctx: Ctx, batch_id: Id, body: s.ReadingIn) -> s.WarmDetail:
    """Note a pH. One that cannot well be is asked about before it counts."""
    return doing.read(ctx, batch_id, body)


@router.post("/readings/{reading_id}/strike")
def strike_reading(ctx: Ctx, reading_id: Id, body: StrikeIn) -> s.WarmDetail:
    """Strike a reading through; it stays on record."""
    return doing.strike_reading(ctx, reading_id, body)


@router.post("/{batch_id}/events", status_code=201)
def note(ctx: Ctx, batch_id: Id, body: s.EventIn) -> s.WarmOut:
    """Note something done: mould, vinegar, spray, cooled, to the hook, thrown away."""
    return doing.note(ctx, batch_id, body)


@router.post("/events/{event_id}/strike")
def strike_event(ctx: Ctx, event_id: Id, body: StrikeIn) -> s.WarmOut:
    """Strike something noted through; it stays on record."""
    return doing.strike_event(ctx, event_id, body)


@router.post("/meters", status_code=201)
def calibrate(ctx: Ctx, body: s.CalibrationIn) -> list[s.MeterOut]:
    """Note a calibration of a meter."""
    return doing.calibrate(ctx, body)


@router.post("/{batch_id}/what-if")
def what_if(ctx: Ctx, batch_id: Id, body: s.WarmWhatIf) -> s.WarmWhatIfOut:
    """What would come of another set point from now on; nothing is stored."""
    return doing.what_if(ctx, batch_id, body)
