"""Devices: make one known, send readings with its token, see what arrived. docs/devices.md tells makers of devices."""

from datetime import datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Header
from pydantic import BaseModel, Field

from zymon.store.places import NotFoundError
from zymon.work import devices as work
from zymon.work.premises import moment
from zymon.work.schemas import ByIn
from zymon.work.showing import ShownOut
from zymon.work.showing import showing as shown_now

from .context import Context, Ctx, Id, Standins

router = APIRouter(tags=["devices"])


class ForwardIn(BaseModel):
    """By how many hours a simulated workshop is run ahead."""

    hours: Annotated[float, Field(gt=0, le=24 * 14)]


class ForwardOut(BaseModel):
    """The time it is now in the simulated workshop, and how many readings came in."""

    now: datetime
    readings: int


class BrokerOut(BaseModel):
    """The link to a broker: how it is and since when, what came, how much of it was refused."""

    state: Literal["none", "reaching", "linked", "away", "ended"]
    where: str | None
    since: datetime | None
    trouble: str
    messages: int
    refused: int


@router.get("/api/devices")
def devices(ctx: Ctx) -> list[work.DeviceOut]:
    """All devices."""
    return work.devices(ctx)


@router.get("/api/devices/kinds")
def kinds() -> list[work.KindOut]:
    """The kinds of devices there are: what each sends, and whether it belongs to a place."""
    return work.kinds()


@router.get("/api/devices/showing")
def showing(ctx: Ctx) -> list[ShownOut]:
    """What scales and meters show now, how long ago, and whether it has come to rest."""
    return shown_now(ctx, ctx.shown)


@router.get("/api/devices/broker")
def broker(ctx: Ctx) -> BrokerOut:
    """Whether the broker is linked at which devices leave their readings."""
    link = ctx.link
    if link is None:
        return BrokerOut(state="none", where=None, since=None, trouble="", messages=0, refused=0)
    return BrokerOut(
        state=link.state,
        where=f"{link.broker.host}:{link.broker.port}",
        since=moment(link.since_s),
        trouble=link.trouble,
        messages=link.messages,
        refused=link.refused,
    )


@router.post("/api/devices", status_code=201)
def add(ctx: Ctx, body: work.DeviceIn) -> work.DeviceMade:
    """Make a device known; its token is shown this once."""
    return work.add(ctx, body)


@router.post("/api/devices/{device_id}/token", status_code=201)
def another_token(ctx: Ctx, device_id: Id, body: ByIn) -> work.DeviceMade:
    """Give a device another token; the old one is dead."""
    return work.another_token(ctx, device_id, body.by)


@router.post("/api/devices/{device_id}/end")
def end(ctx: Ctx, device_id: Id, body: ByIn) -> work.DeviceOut:
    """Switch a device off: its token opens nothing any more."""
    return work.end(ctx, device_id, body.by)


@router.put("/api/devices/{device_id}/place")
def put(ctx: Ctx, device_id: Id, body: work.DevicePlaceIn) -> work.DeviceOut:
    """Say to which place a device belongs from now on."""
    return work.put(ctx, device_id, body)


@router.post("/device/v1/readings")
def send(ctx: Ctx, body: work.ReadingsIn, authorization: Annotated[str, Header()] = "") -> work.ReceiptOut:
    """The open interface: a device sends its readings with `Authorization: Bearer TOKEN`."""
    return work.receive(ctx, ctx.device_calls, ctx.shown, authorization.removeprefix("Bearer ").strip(), body)


@router.post("/api/standins/forward")
def forward(ctx: Ctx, body: ForwardIn) -> ForwardOut:
    """Run a simulated workshop ahead; a real one has its own time."""
    readings = _standins(ctx).forward(body.hours)
    return ForwardOut(now=moment(ctx.now_s), readings=readings)


@router.post("/api/standins/weigh/{piece_id}")
def weigh(ctx: Ctx, piece_id: Id) -> work.DeviceOut:
    """Put a piece on the simulated scale; it sends what it shows as a real one would."""
    _standins(ctx).weigh(piece_id)
    return work.latest(ctx, "scale")


@router.post("/api/standins/dip/{batch_id}")
def dip(ctx: Ctx, batch_id: Id) -> work.DeviceOut:
    """Dip the simulated pH meter into a batch's pinch; it sends what it shows as a real one would."""
    _standins(ctx).dip(batch_id)
    return work.latest(ctx, "ph")


def _standins(ctx: Context) -> Standins:
    if ctx.standins is None:
        raise NotFoundError("refused.nothing_simulated")
    return ctx.standins
