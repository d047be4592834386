"""Devices: make one known, send readings with its token, see what arrived. docs/devices.md tells makers of devices."""

import time
from collections import deque
from datetime import datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Header
from pydantic import BaseModel, Field

from zymon.store import devices as store
from zymon.store.hang_models import Device
from zymon.store.places import NotFoundError

from ..context import Context, Ctx, Id, Standins, moment
from ..errors import FloodError
from ..schemas import Name, Who

router = APIRouter(tags=["devices"])

CALLS_PER_MINUTE = 120

Kind = Literal["climate", "scale", "ph"]
Finite = Annotated[float, Field(allow_inf_nan=False)]


class DeviceIn(BaseModel):
    """A device to make known; a climate sensor belongs to a place."""

    name: Name
    kind: Kind
    place_id: int | None = None
    by: Who


class DeviceOut(BaseModel):
    """A device, and what it sent so far."""

    id: int
    name: str
    kind: Kind
    place: str | None
    simulated: bool
    last_at: datetime | None
    silent: bool
    taken: int
    repeated: int
    late: int
    impossible: int
    value: float | None
    value_at: datetime | None


class DeviceMade(BaseModel):
    """A new device with its token, which is shown this once."""

    device: DeviceOut
    token: str


class DeviceReading(BaseModel):
    """A reading: a climate sensor's temperature and humidity, a scale's grams, or a meter's pH."""

    at: datetime
    temperature_c: Finite | None = None
    rh_percent: Finite | None = None
    gross_g: Finite | None = None
    ph: Finite | None = None


class ReadingsIn(BaseModel):
    """Readings, in any order; those sent before do no harm."""

    readings: Annotated[list[DeviceReading], Field(min_length=1, max_length=2000)]


class ReceiptOut(BaseModel):
    """What became of them."""

    taken: int
    repeated: int
    late: int
    impossible: int
    problems: list[str]


def _out(of: Device, now_s: int) -> DeviceOut:
    return DeviceOut(
        id=of.id,
        name=of.name,
        kind=of.kind,  # type: ignore[arg-type] # checked on entry
        place=None if of.place is None else of.place.name,
        simulated=of.simulated,
        last_at=None if of.last_s is None else moment(of.last_s),
        silent=of.last_s is not None and of.kind == "climate" and now_s - of.last_s > store.SILENT_S,
        taken=of.taken,
        repeated=of.repeated,
        late=of.late,
        impossible=of.impossible,
        value=of.value,
        value_at=None if of.value_s is None else moment(of.value_s),
    )


@router.get("/api/devices")
def devices(ctx: Ctx) -> list[DeviceOut]:
    """All devices."""
    with ctx.db.reading() as session:
        return [_out(d, ctx.now_s) for d in store.devices(session)]


@router.post("/api/devices", status_code=201)
def add(ctx: Ctx, body: DeviceIn) -> DeviceMade:
    """Make a device known; its token is shown this once."""
    with ctx.db.writing() as session:
        made, token = store.add_device(session, body.name, body.kind, body.place_id, body.by, ctx.now_s)
        return DeviceMade(device=_out(made, ctx.now_s), token=token)


@router.post("/api/devices/{device_id}/token", status_code=201)
def another_token(ctx: Ctx, device_id: Id) -> DeviceMade:
    """Give a device another token; the old one is dead."""
    with ctx.db.writing() as session:
        token = store.new_token(session, device_id)
        return DeviceMade(device=_out(store.device(session, device_id), ctx.now_s), token=token)


@router.post("/device/v1/readings")
def send(ctx: Ctx, body: ReadingsIn, authorization: Annotated[str, Header()] = "") -> ReceiptOut:
    """The open interface: a device sends its readings with `Authorization: Bearer TOKEN`."""
    token = authorization.removeprefix("Bearer ").strip()
    with ctx.db.writing() as session:
        of = store.device_of(session, token)
        _hold_back(ctx.device_calls, of.id)
        sent = [
            store.Sent(int(r.at.timestamp()), r.temperature_c, r.rh_percent, r.gross_g if of.kind == "scale" else r.ph)
            for r in body.readings
        ]
        found = store.receive(session, of, sent, ctx.now_s)
    return ReceiptOut(
        taken=found.taken,
        repeated=found.repeated,
        late=found.late,
        impossible=found.impossible,
        problems=list(found.problems),
    )


class ForwardIn(BaseModel):
    """By how many hours a simulated workshop is run ahead."""

    hours: Annotated[float, Field(gt=0, le=24 * 14)]


class ForwardOut(BaseModel):
    """The time it is now in the simulated workshop, and how many readings came in."""

    now: datetime
    readings: int


@router.post("/api/standins/forward")
def forward(ctx: Ctx, body: ForwardIn) -> ForwardOut:
    """Run a simulated workshop ahead; a real one has its own time."""
    readings = _standins(ctx).forward(body.hours)
    return ForwardOut(now=moment(ctx.now_s), readings=readings)


@router.post("/api/standins/weigh/{piece_id}")
def weigh(ctx: Ctx, piece_id: Id) -> DeviceOut:
    """Put a piece on the simulated scale; it sends what it shows as a real one would."""
    _standins(ctx).weigh(piece_id)
    return _latest(ctx, "scale")


@router.post("/api/standins/dip/{batch_id}")
def dip(ctx: Ctx, batch_id: Id) -> DeviceOut:
    """Dip the simulated pH meter into a batch's pinch; it sends what it shows as a real one would."""
    _standins(ctx).dip(batch_id)
    return _latest(ctx, "ph")


def _standins(ctx: Context) -> Standins:
    if ctx.standins is None:
        raise NotFoundError("nothing is simulated here: time runs by itself")
    return ctx.standins


def _latest(ctx: Context, kind: Kind) -> DeviceOut:
    with ctx.db.reading() as session:
        found = [d for d in store.devices(session) if d.kind == kind and d.simulated]
        return _out(max(found, key=lambda d: d.value_s or 0), ctx.now_s)


def _hold_back(all_calls: dict[int, deque[float]], device_id: int) -> None:
    """Refuse a flood: readings can be gathered into one call. Raises FloodError."""
    calls = all_calls.setdefault(device_id, deque(maxlen=CALLS_PER_MINUTE))
    now = time.monotonic()
    if len(calls) == CALLS_PER_MINUTE and now - calls[0] < 60:
        raise FloodError(f"more than {CALLS_PER_MINUTE} calls a minute: gather readings, 2000 fit in one call")
    calls.append(now)
