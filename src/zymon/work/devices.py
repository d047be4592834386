"""Devices: made known, put in a place, given another token; what they sent, and a receipt for it."""

import time
from collections import deque
from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime, BaseModel, Field

from zymon.core.devices import REGISTRY, Kind
from zymon.core.errors import ZymonError
from zymon.store import devices as store
from zymon.store.hang_models import Device
from zymon.store.places import ClashError

from .follow import Happening
from .premises import Premises, moment
from .schemas import ByIn, Name, RecordIn, RowId
from .showing import Showing

CALLS_PER_MINUTE = 120
SHOWN_PER_MINUTE = 600  # a scale shows what is on it several times a second


Finite = Annotated[float, Field(allow_inf_nan=False)]


class QuantityOut(BaseModel):
    """Something a device sends: its name on the wire and its unit."""

    name: str
    unit: str


class SteadyOut(BaseModel):
    """When what a device shows has come to rest."""

    readings: int
    over_s: float
    within: float
    share: float


class KindOut(BaseModel):
    """A kind of device. `has_place`: it tells of the place it hangs in; `sends_itself`: at intervals, unasked."""

    kind: Kind
    has_place: bool
    sends_itself: bool
    quantities: list[QuantityOut]
    steady_when: SteadyOut | None


class DeviceIn(RecordIn):
    """A device to make known; a climate sensor belongs to a place."""

    name: Name
    kind: Kind
    place_id: RowId | None = None


class DevicePlaceIn(ByIn):
    """The place to which a device belongs from now on."""

    place_id: RowId


class DeviceOut(BaseModel):
    """A device, and what it sent so far."""

    id: int
    name: str
    kind: Kind
    place: str | None
    simulated: bool
    made_at: datetime
    made_by: str
    ended_at: datetime | None
    ended_by: str | None
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

    at: AwareDatetime
    temperature_c: Finite | None = None
    rh_percent: Finite | None = None
    gross_g: Finite | None = None
    ph: Finite | None = None
    steady: bool | None = None  # where the device itself tells whether it has come to rest


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


def _out(device: Device, now_s: int) -> DeviceOut:
    return DeviceOut(
        id=device.id,
        name=device.name,
        kind=store.kind_of(device),
        place=None if device.place is None else device.place.name,
        simulated=device.simulated,
        made_at=moment(device.made_s),
        made_by=device.by,
        ended_at=None if device.ended_s is None else moment(device.ended_s),
        ended_by=device.ended_by,
        last_at=None if device.last_s is None else moment(device.last_s),
        silent=store.silent(device, now_s),
        taken=device.taken,
        repeated=device.repeated,
        late=device.late,
        impossible=device.impossible,
        value=device.value,
        value_at=None if device.value_s is None else moment(device.value_s),
    )


class FloodError(ZymonError, RuntimeError):
    """More calls than anybody needs."""


def kinds() -> list[KindOut]:
    """The kinds of devices there are."""
    return [
        KindOut(
            kind=kind,
            has_place=of.has_place,
            sends_itself=of.sends_itself,
            steady_when=None
            if of.steady_when is None
            else SteadyOut.model_validate(of.steady_when, from_attributes=True),
            quantities=[QuantityOut(name=q.name, unit=q.unit) for q in of.quantities],
        )
        for kind, of in REGISTRY.items()
    ]


def devices(shop: Premises) -> list[DeviceOut]:
    """All devices."""
    with shop.db.reading() as session:
        return [_out(d, shop.now_s) for d in store.devices(session)]


def device(shop: Premises, device_id: int) -> DeviceOut:
    """One device."""
    with shop.db.reading() as session:
        return _out(store.device(session, device_id), shop.now_s)


def add(shop: Premises, body: DeviceIn) -> DeviceMade:
    """Make a device known; its token is shown this once. Sent again, it is told that the token was shown."""
    with shop.recording(body, f"device {body.name}"[:60]) as entry:
        if not entry.new:
            raise ClashError("refused.device_known", name=body.name)
        made, token = store.add_device(entry.session, body.name, body.kind, body.place_id, body.by, entry.now_s)
        entry.came("device", made.id)
    return DeviceMade(device=device(shop, made.id), token=token)


def another_token(shop: Premises, device_id: int, by: str) -> DeviceMade:
    """Give a device another token; the old one is dead."""
    with shop.changing(by) as session:
        token = store.another_token(session, device_id)
    return DeviceMade(device=device(shop, device_id), token=token)


def end(shop: Premises, device_id: int, by: str) -> DeviceOut:
    """Switch a device off."""
    with shop.changing(by) as session:
        store.end_device(session, device_id, by, shop.now_s)
    return device(shop, device_id)


def put(shop: Premises, device_id: int, body: DevicePlaceIn) -> DeviceOut:
    """Say to which place a device belongs from now on; where it was before stays in the journal."""
    with shop.changing(body.by) as session:
        store.put_device(session, device_id, body.place_id)
    return device(shop, device_id)


def receive(
    shop: Premises,
    calls: dict[int, deque[float]],
    shown: Showing,
    token: str,
    body: ReadingsIn,
    device_id: int | None = None,
) -> ReceiptOut:
    """Store what a device sent, and say what became of it. Raises UnknownDeviceError, FloodError, ClashError.

    Parameters: device_id, where the device says who it is besides its token; both must be of one device.
    """
    with shop.changing("device") as session:
        of = store.device_of(session, token)
        if device_id is not None and of.id != device_id:
            raise store.UnknownDeviceError("refused.unknown_token")
        _hold_back(calls, of)
        sent = [
            store.Sent(int(r.at.timestamp()), r.temperature_c, r.rh_percent, r.gross_g, r.ph) for r in body.readings
        ]
        found = store.receive(session, of, sent, shop.now_s)
        shows = shown.show(of, body.readings)
    if shows:
        shop.followers.tell(Happening("shown", of.id))
    return ReceiptOut(
        taken=found.taken,
        repeated=found.repeated,
        late=found.late,
        impossible=found.impossible,
        problems=list(found.problems),
    )


def latest(shop: Premises, kind: Kind) -> DeviceOut:
    """What the simulated device of a kind showed last."""
    with shop.db.reading() as session:
        found = [d for d in store.devices(session) if d.kind == kind and d.simulated]
        return _out(max(found, key=lambda d: d.value_s or 0), shop.now_s)


def _hold_back(all_calls: dict[int, deque[float]], device: Device) -> None:
    """Refuse a flood: readings can be gathered into one call. Raises FloodError."""
    carried = not REGISTRY[store.kind_of(device)].has_place
    most = SHOWN_PER_MINUTE if carried else CALLS_PER_MINUTE
    calls = all_calls.setdefault(device.id, deque(maxlen=most))
    now = time.monotonic()
    if len(calls) == most and now - calls[0] < 60:
        raise FloodError("refused.too_many_calls", many=most)
    calls.append(now)
