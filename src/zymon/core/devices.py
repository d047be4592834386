"""The kinds of devices there are: what each sends, in which range it can be, whether it belongs to a place."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import takewhile
from typing import Literal

from .say import Said, said

Kind = Literal["climate", "thermometer", "scale", "ph"]


@dataclass(frozen=True)
class Quantity:
    """Something a device sends: its name on the wire, what is possible, and what to say of what is not."""

    name: str
    unit: str
    lowest: float
    highest: float
    broken: str


@dataclass(frozen=True)
class Steady:
    """When what a carried device shows has come to rest: its last readings lie this close together for so long.

    `within` [unit of the quantity] or `share` [-] of what it shows, whichever is more.
    """

    readings: int
    over_s: float
    within: float
    share: float = 0.0


@dataclass(frozen=True)
class DeviceKind:
    """A kind of device; `steady_when` where one waits for what it shows."""

    quantities: tuple[Quantity, ...]
    has_place: bool  # it tells of the place it hangs in; others are carried to what they measure
    sends_itself: bool  # at intervals, unasked, so that its silence is noticed
    steady_when: Steady | None = None


# Lowest and highest that each can show; usual of sensors for cellars
REGISTRY: dict[Kind, DeviceKind] = {
    "climate": DeviceKind(
        (
            Quantity("temperature_c", "°C", -40.0, 60.0, "device.sensor_or_fahrenheit"),
            Quantity("rh_percent", "% humidity", 0.0, 100.0, "device.sensor_broken"),
        ),
        has_place=True,
        sends_itself=True,
    ),
    "thermometer": DeviceKind(
        (Quantity("temperature_c", "°C", -40.0, 60.0, "device.sensor_or_fahrenheit"),),
        has_place=True,
        sends_itself=True,
    ),
    "scale": DeviceKind(
        (Quantity("gross_g", "g", 1e-9, 1e6, "device.look_at_scale"),),
        has_place=False,
        sends_itself=False,
        steady_when=Steady(readings=3, over_s=2.0, within=1.0, share=0.001),  # a division or two of usual scales
    ),
    "ph": DeviceKind(
        (Quantity("ph", "pH", 1e-9, 14.0, "device.look_at_meter"),),
        has_place=False,
        sends_itself=False,
        steady_when=Steady(readings=3, over_s=10.0, within=0.02),  # an electrode creeps for longer
    ),
}


def at_rest(kind: Kind, shown: Sequence[tuple[float, float]]) -> bool:
    """Whether what a carried device shows has come to rest. Parameters: kind; shown, (moment [s], value) in time order.

    >>> at_rest("scale", [(0.0, 800.0), (1.0, 812.0), (2.0, 812.0)])
    False
    >>> at_rest("scale", [(0.0, 800.0), (1.0, 812.0), (2.0, 812.5), (3.0, 812.0)])
    True
    """
    when = REGISTRY[kind].steady_when
    if when is None or not shown:
        return False
    last_s, last = shown[-1]
    near = max(when.within, when.share * last) + 1e-9
    still = list(takewhile(lambda one: abs(one[1] - last) <= near, reversed(shown)))
    return len(still) >= when.readings and last_s - still[-1][0] >= when.over_s


def impossible(kind: Kind, values: dict[str, float | None]) -> Said | None:
    """Why what a device sent cannot be; None where it can. Parameters: kind; values, by name on the wire.

    >>> impossible("climate", {"temperature_c": 180.0, "rh_percent": 75.0})
    Said(code='device.sensor_or_fahrenheit', values={'value': 180.0})
    >>> impossible("scale", {})
    Said(code='device.sends', values={'device': 'scale', 'quantities': 'gross_g'})
    """
    wanted = REGISTRY[kind].quantities
    if any(values.get(q.name) is None for q in wanted):
        return said("device.sends", device=kind, quantities=", ".join(q.name for q in wanted))
    for quantity in wanted:
        value = values[quantity.name]
        if value is None or not quantity.lowest <= value <= quantity.highest:
            return said(quantity.broken, value=value or 0.0)
    return None
