"""What scales and meters show now: kept in memory while somebody waits for it to come to rest."""

from collections import deque
from collections.abc import Sequence
from datetime import datetime
from typing import Protocol

from pydantic import BaseModel

from zymon.core.devices import REGISTRY, Kind, at_rest, impossible
from zymon.store.devices import devices, kind_of
from zymon.store.hang_models import Device

from .premises import Premises, moment

SHOWN_LATELY = 20  # readings from which is told whether a device has come to rest
SHOWN_FOR_S = 600  # what a device showed longer ago is not offered


class Shows(Protocol):
    """A reading of a carried device: when, and whether it says itself that it is at rest."""

    at: datetime
    steady: bool | None


class ShownOut(BaseModel):
    """What a carried device shows: its value, how long ago [s], and whether it has come to rest."""

    id: int
    name: str
    kind: Kind
    simulated: bool
    value: float
    at: datetime
    age_s: float
    steady: bool


class Showing:
    """What carried devices showed lately, by device: moment [s], value, and whether it said that it is at rest."""

    def __init__(self) -> None:
        self._lately: dict[int, deque[tuple[float, float, bool | None]]] = {}

    def show(self, device: Device, readings: Sequence[Shows]) -> bool:
        """Take what a device sent; whether it is one that shows something."""
        kind = kind_of(device)
        if REGISTRY[kind].steady_when is None:
            return False
        lately = self._lately.setdefault(device.id, deque(maxlen=SHOWN_LATELY))
        name = REGISTRY[kind].quantities[0].name
        for reading in sorted(readings, key=lambda r: r.at):
            value = getattr(reading, name)
            if value is not None and impossible(kind, {name: value}) is None:
                lately.append((reading.at.timestamp(), value, reading.steady))
        return True

    def at_rest(self, device: Device) -> bool:
        """Whether what a device showed last has come to rest: as it says itself, else as its readings tell."""
        lately = self._lately.get(device.id)
        if not lately:
            return False
        told = lately[-1][2]
        return at_rest(kind_of(device), [(at, value) for at, value, _ in lately]) if told is None else told


def showing(shop: Premises, lately: Showing) -> list[ShownOut]:
    """What carried devices show now, the one heard last first; one not heard for long shows nothing."""
    now_s = shop.clock()
    with shop.db.reading() as session:
        shown = [
            ShownOut(
                id=d.id, name=d.name, kind=kind_of(d), simulated=d.simulated, value=d.value, at=moment(d.value_s),
                age_s=max(0.0, now_s - d.value_s), steady=lately.at_rest(d),
            )
            for d in devices(session)
            if d.ended_s is None and d.value is not None and d.value_s is not None and now_s - d.value_s < SHOWN_FOR_S
        ]  # fmt: skip
    return sorted(shown, key=lambda one: one.age_s)
