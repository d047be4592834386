"""The kinds of devices there are: what each sends, in which range it can be, whether it belongs to a place."""

from dataclasses import dataclass
from typing import Literal

from .say import Said, said

Kind = Literal["climate", "scale", "ph"]


@dataclass(frozen=True)
class Quantity:
    """Something a device sends: its name on the wire, what is possible, and what to say of what is not."""

    name: str
    unit: str
    lowest: float
    highest: float
    broken: str


@dataclass(frozen=True)
class DeviceKind:
    """A kind of device."""

    quantities: tuple[Quantity, ...]
    has_place: bool  # it tells of the place it hangs in; others are carried to what they measure
    steady: bool  # it sends by itself at intervals, so that its silence is noticed


REGISTRY: dict[Kind, DeviceKind] = {
    "climate": DeviceKind(
        (
            Quantity("temperature_c", "°C", -40.0, 60.0, "device.sensor_or_fahrenheit"),
            Quantity("rh_percent", "% humidity", 0.0, 100.0, "device.sensor_broken"),
        ),
        has_place=True,
        steady=True,
    ),
    "scale": DeviceKind(
        (Quantity("gross_g", "g", 1e-9, 1e6, "device.look_at_scale"),),
        has_place=False,
        steady=False,
    ),
    "ph": DeviceKind((Quantity("ph", "pH", 1e-9, 14.0, "device.look_at_meter"),), has_place=False, steady=False),
}


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
