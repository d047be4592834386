"""Devices that send readings by the open interface: who they are, what they sent, what was wrong with it."""

import hashlib
import secrets
from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from zymon.core.errors import ZymonError

from .climate import add_readings, stored_readings
from .hang_models import Device
from .places import ClashError, NotFoundError, place

AHEAD_S = 300  # a clock may be this far ahead; one that is further is wrong
OLDEST_S = 400 * 86_400
TEMPERATURE_C, RH_PERCENT = (-40.0, 60.0), (0.0, 100.0)
SILENT_S = 1800  # a device that was heard of and is silent for longer is noticed


class UnknownDeviceError(ZymonError, PermissionError):
    """A token that belongs to no device."""


@dataclass(frozen=True)
class Sent:
    """A reading as a device sent it; what its kind does not measure is None."""

    at_s: int
    temperature_c: float | None = None
    rh_percent: float | None = None
    value: float | None = None  # grams of a scale, pH of a meter


@dataclass(frozen=True)
class Receipt:
    """What became of the readings of one call."""

    taken: int
    repeated: int
    late: int
    impossible: int
    problems: tuple[str, ...]


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def add_device(
    session: Session, name: str, kind: str, place_id: int | None, by: str, now_s: int, simulated: bool = False
) -> tuple[Device, str]:
    """Make a device known; its token is given back this once. Raises ClashError, NotFoundError."""
    if session.scalar(select(Device.id).where(Device.name == name)) is not None:
        raise ClashError(f"there is a device {name} already")
    if place_id is not None:
        place(session, place_id)
    token = secrets.token_urlsafe(24)
    made = Device(
        name=name, kind=kind, place_id=place_id, token_sha256=_hash(token), simulated=simulated, by=by, made_s=now_s,
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
    found = session.get(Device, device_id)
    if found is None:
        raise NotFoundError("this device is not there")
    return found


def new_token(session: Session, device_id: int) -> str:
    """Give a device another token; the old one is dead."""
    token = secrets.token_urlsafe(24)
    device(session, device_id).token_sha256 = _hash(token)
    return token


def device_of(session: Session, token: str) -> Device:
    """The device of a token. Raises UnknownDeviceError."""
    found = session.scalar(select(Device).where(Device.token_sha256 == _hash(token)))
    if found is None:
        raise UnknownDeviceError("this token belongs to no device: make the device known first")
    return found


def receive(session: Session, of: Device, sent: Sequence[Sent], now_s: int) -> Receipt:
    """Store what a device sent: late ones too, repeated ones once, impossible ones not; each is counted."""
    problems: list[str] = []
    good: dict[int, Sent] = {}
    repeated = 0
    for reading in sent:
        said = _impossible(of, reading, now_s)
        if said:
            problems.append(said)
        elif reading.at_s in good:
            repeated += 1
        else:
            good[reading.at_s] = reading
    known = {}
    if of.kind == "climate" and of.place_id is not None and good:
        known = stored_readings(session, of.place_id, min(good), max(good))
        repeated += len(good.keys() & known.keys())
    fresh = sorted(good.keys() - known.keys())
    late = sum(at < (of.last_s or 0) for at in fresh)
    if of.kind == "climate" and of.place_id is not None:
        rows = [(at, good[at].temperature_c or 0.0, good[at].rh_percent or 0.0) for at in fresh]
        add_readings(session, of.place_id, rows, None)
    elif fresh and fresh[-1] >= (of.value_s or 0):
        of.value, of.value_s = good[fresh[-1]].value, fresh[-1]
    of.taken += len(fresh)
    of.repeated += repeated
    of.late += late
    of.impossible += len(problems)
    if fresh:
        of.last_s = max(of.last_s or 0, fresh[-1])
    return Receipt(len(fresh), repeated, late, len(problems), tuple(dict.fromkeys(problems)))


def _impossible(of: Device, reading: Sent, now_s: int) -> str | None:
    if reading.at_s > now_s + AHEAD_S:
        return "its clock is ahead: set it, readings from the future are not kept"
    if reading.at_s < now_s - OLDEST_S:
        return "its clock is more than a year behind: set it"
    if of.kind != "climate":
        if reading.value is None or not reading.value > 0:
            return "a scale sends gross_g, a meter ph, above 0"
        return None
    c, rh = reading.temperature_c, reading.rh_percent
    if c is None or rh is None:
        return "a climate sensor sends temperature_c and rh_percent"
    if not TEMPERATURE_C[0] <= c <= TEMPERATURE_C[1]:
        return f"{c:g} °C cannot be: the sensor is broken, or sends degrees Fahrenheit"
    if not RH_PERCENT[0] <= rh <= RH_PERCENT[1]:
        return f"{rh:g} % humidity cannot be: the sensor is broken"
    return None
