"""Devices that send readings by the open interface: who they are, what they sent, what was wrong with it."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from zymon.core.devices import REGISTRY, Kind, impossible
from zymon.core.errors import ZymonError
from zymon.core.order import CLOCK_AHEAD_S
from zymon.core.say import Said, said
from zymon.words import sentence

from .climate import Source, add_readings, stored_readings
from .hang_models import Device
from .places import ClashError, place, there
from .tokens import hashed, new_token

OLDEST_S = 400 * 86_400
SILENT_S = 1800  # a device that was heard of and is silent for longer is noticed


class UnknownDeviceError(ZymonError, PermissionError):
    """A token that belongs to no device."""


@dataclass(frozen=True)
class Sent:
    """A reading as a device sent it; what its kind does not measure is None."""

    at_s: int
    temperature_c: float | None = None
    rh_percent: float | None = None
    gross_g: float | None = None
    ph: float | None = None

    def value_of(self, kind: Kind) -> float | None:
        """What a carried device shows: the one quantity of its kind."""
        shown: float | None = getattr(self, REGISTRY[kind].quantities[0].name)
        return shown


@dataclass(frozen=True)
class Receipt:
    """What became of the readings of one call."""

    taken: int
    repeated: int
    late: int
    impossible: int
    problems: tuple[str, ...]


def add_device(
    session: Session, name: str, kind: Kind, place_id: int | None, by: str, now_s: int, simulated: bool = False
) -> tuple[Device, str]:
    """Make a device known; its token is given back this once. Raises ClashError, NotFoundError."""
    if session.scalar(select(Device.id).where(Device.name == name)) is not None:
        raise ClashError("refused.device_name_taken", name=name)
    if REGISTRY[kind].has_place and place_id is None:
        raise ClashError("refused.sensor_without_place")
    if place_id is not None:
        place(session, place_id)
    token = new_token()
    made = Device(
        name=name, kind=kind, place_id=place_id, token_sha256=hashed(token), simulated=simulated, by=by, made_s=now_s,
        taken=0, repeated=0, late=0, impossible=0,
    )  # fmt: skip
    session.add(made)
    session.flush()
    return made, token


def devices(session: Session) -> list[Device]:
    """All devices by name."""
    return list(session.scalars(select(Device).options(joinedload(Device.place)).order_by(Device.name)))


def device(session: Session, device_id: int) -> Device:
    """One device. Raises NotFoundError."""
    return there(session, Device, device_id, "refused.no_device")


def put_device(session: Session, device_id: int, place_id: int) -> Device:
    """Say to which place a device belongs from now on. Raises NotFoundError."""
    moved = device(session, device_id)
    place(session, place_id)
    moved.place_id = place_id
    session.flush()
    return moved


def end_device(session: Session, device_id: int, by: str, now_s: int) -> Device:
    """Switch a device off: its token opens nothing any more, what it sent stays. Raises NotFoundError."""
    ended = device(session, device_id)
    if ended.ended_s is None:
        ended.ended_s, ended.ended_by = now_s, by
    return ended


def another_token(session: Session, device_id: int) -> str:
    """Give a device another token; the old one is dead, and one that was switched off is on again."""
    token = new_token()
    changed = device(session, device_id)
    changed.token_sha256, changed.ended_s, changed.ended_by = hashed(token), None, None
    return token


def device_of(session: Session, token: str) -> Device:
    """The device of a token. Raises UnknownDeviceError."""
    found = session.scalar(select(Device).where(Device.token_sha256 == hashed(token), Device.ended_s.is_(None)))
    if found is None:
        raise UnknownDeviceError("refused.unknown_token")
    return found


def silent(device: Device, now_s: int) -> bool:
    """Whether a device that sends by itself was heard of and is silent since."""
    return (
        REGISTRY[kind_of(device)].sends_itself
        and device.ended_s is None
        and device.last_s is not None
        and now_s - device.last_s > SILENT_S
    )


def receive(session: Session, device: Device, sent: Sequence[Sent], now_s: int) -> Receipt:
    """Store what a device sent: late ones too, repeated ones once, impossible ones not; each is counted."""
    problems: list[str] = []
    good: dict[int, Sent] = {}
    repeated = 0
    for reading in sent:
        fault = _impossible(device, reading, now_s)
        if fault:
            problems.append(sentence(fault))
        elif reading.at_s in good:
            repeated += 1
        else:
            good[reading.at_s] = reading
    known = {}
    if REGISTRY[kind_of(device)].has_place and device.place_id is None:
        raise ClashError("refused.device_without_place", name=device.name)
    if device.place_id is not None and REGISTRY[kind_of(device)].has_place and good:
        known = stored_readings(session, device.place_id, min(good), max(good))
        repeated += len(good.keys() & known.keys())
    fresh = sorted(good.keys() - known.keys())
    late = sum(at < (device.last_s or 0) for at in fresh)
    if device.place_id is not None and REGISTRY[kind_of(device)].has_place:
        rows = [(at, good[at].temperature_c or 0.0, good[at].rh_percent) for at in fresh]
        add_readings(session, device.place_id, rows, Source(device_id=device.id))
    elif fresh and fresh[-1] >= (device.value_s or 0):
        device.value, device.value_s = good[fresh[-1]].value_of(kind_of(device)), fresh[-1]
    device.taken += len(fresh)
    device.repeated += repeated
    device.late += late
    device.impossible += len(problems)
    if fresh:
        device.last_s = max(device.last_s or 0, fresh[-1])
    return Receipt(len(fresh), repeated, late, len(problems), tuple(dict.fromkeys(problems)))


def _impossible(device: Device, reading: Sent, now_s: int) -> Said | None:
    if reading.at_s > now_s + CLOCK_AHEAD_S:
        return said("device.clock_ahead")
    if reading.at_s < now_s - OLDEST_S:
        return said("device.clock_behind")
    return impossible(kind_of(device), vars(reading))


def kind_of(device: Device) -> Kind:
    """The kind of a device."""
    return device.kind
