"""Alarms: what was wrong, what is watched, who is told; acknowledged by whoever takes care."""

from fastapi import APIRouter

from zymon.work.alarms import doing as work
from zymon.work.alarms import schemas as s
from zymon.work.schemas import ByIn

from ..context import Ctx, Id

router = APIRouter(prefix="/api/alarms", tags=["alarms"])


@router.get("")
def alarms(ctx: Ctx) -> s.AlarmsOut:
    """Everything about alarms."""
    ways = ctx.senders
    return work.alarms(ctx, ways, ctx.push_key.public if "push" in ways else None)


@router.put("/bands/{place_id}")
def watch(ctx: Ctx, place_id: Id, body: s.BandIn) -> s.BandOut:
    """Watch a place otherwise from now on."""
    return work.watch(ctx, place_id, body)


@router.post("/{event_id}/acknowledge")
def acknowledge(ctx: Ctx, event_id: Id, body: ByIn) -> s.AlarmOut:
    """Somebody has seen it and takes care: nobody else is told."""
    return work.acknowledge(ctx, event_id, body.by)


@router.post("/people", status_code=201)
def tell_somebody(ctx: Ctx, body: s.TellIn) -> s.TellOut:
    """Tell somebody from now on; the secret with which calls are signed is shown this once."""
    return work.tell_somebody(ctx, body)


@router.post("/people/{person_id}/end", status_code=204)
def tell_no_more(ctx: Ctx, person_id: Id, body: ByIn) -> None:
    """Tell somebody no more."""
    work.tell_no_more(ctx, person_id, body.by)


@router.post("/people/{person_id}/test")
def attempt(ctx: Ctx, person_id: Id, body: ByIn) -> s.TrialOut:
    """Send a test to somebody now."""
    del body  # who asks is on the call's own line
    return work.attempt(ctx, ctx.senders, person_id, ctx.address)
