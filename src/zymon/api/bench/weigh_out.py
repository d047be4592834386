"""Weighing out, one thing at a time, and the batch that comes of it."""

from fastapi import APIRouter

from zymon.work.bench import making
from zymon.work.bench import making_schemas as m

from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["bench"])


@router.post("/weigh-outs", status_code=201)
def begin(ctx: Ctx, body: m.WeighOutIn) -> m.WeighOutOut:
    """Begin to weigh a sheet out."""
    return making.begin(ctx, body)


@router.get("/weigh-outs/{weigh_out_id}")
def weigh_out(ctx: Ctx, weigh_out_id: Id) -> m.WeighOutOut:
    """A weigh-out as it stands."""
    return making.weigh_out(ctx, weigh_out_id)


@router.post("/weigh-outs/{weigh_out_id}/entries", status_code=201)
def pour(ctx: Ctx, weigh_out_id: Id, body: m.EntryIn) -> m.WeighOutOut:
    """Note what was poured; an entry sent twice counts once, two screens at one thing are told of each other."""
    return making.pour(ctx, weigh_out_id, body)


@router.post("/weigh-outs/{weigh_out_id}/rescale", status_code=201)
def rescale(ctx: Ctx, weigh_out_id: Id, body: m.RescaleIn) -> m.WeighOutOut:
    """Rescale the rest to what was really put in of one thing."""
    return making.rescale(ctx, weigh_out_id, body)


@router.post("/weigh-out-entries/{entry_id}/strike")
def strike_entry(ctx: Ctx, entry_id: Id, body: m.EndIn) -> m.WeighOutOut:
    """Strike an entry through; it stays on record."""
    return making.strike_entry(ctx, entry_id, body)


@router.put("/weigh-outs/{weigh_out_id}/temperature")
def temperature(ctx: Ctx, weigh_out_id: Id, body: m.TemperatureIn) -> m.WeighOutOut:
    """Note the meat's temperature before it is mixed."""
    return making.temperature(ctx, weigh_out_id, body)


@router.post("/weigh-outs/{weigh_out_id}/give-up")
def give_up(ctx: Ctx, weigh_out_id: Id, body: m.EndIn) -> m.WeighOutOut:
    """Give a weigh-out up; what was weighed stays on record."""
    return making.give_up(ctx, weigh_out_id, body)


@router.post("/weigh-outs/{weigh_out_id}/mix", status_code=201)
def join(ctx: Ctx, weigh_out_id: Id, body: m.MixIn) -> m.BatchOut:
    """What was weighed out joins a batch as another mix of it."""
    return making.join(ctx, weigh_out_id, body)


@router.post("/weigh-outs/{weigh_out_id}/batch", status_code=201)
def make_batch(ctx: Ctx, weigh_out_id: Id, body: m.BatchIn) -> m.BatchOut:
    """Make a batch of what was weighed out. What breaks the limits puts a red hold on it."""
    return making.make_batch(ctx, weigh_out_id, body)
