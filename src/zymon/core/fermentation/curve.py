"""How pH falls: a lag, then a sigmoid, both on the culture's own clock, which runs with the goods' temperature."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
import numpy.typing as npt
from scipy.signal import lfilter

from ..errors import OutOfRangeError, require

Array = npt.NDArray[np.float64]
Culture = Literal["slow", "medium", "fast", "wild", "none"]

STEP_HOURS = 0.25
LONGEST_HOURS = 240.0  # what has not crossed by then does not
GOODS_LAG_HOURS = 3.0  # the goods follow the box over hours; estimate for a salame of 60 mm
GOODS_START_C = 6.0
PERSISTS_OFF_C = 4.0  # a box this far off its set point has a fault


@dataclass(frozen=True)
class CulturePrior:
    """Hours at `reference_c` to a tenth of the fall, and from there to nine tenths of a usual fall of 0.8."""

    reference_c: float
    least_c: float  # at and under which it does not work
    best_c: float  # above which it works no faster
    onset_hours: float
    onset_sd: float  # of ln
    fall_hours: float
    fall_sd: float  # of ln


# Estimate, calibrated on simulated fermentations of several physics and the ranges that makers report
CULTURES: dict[Culture, CulturePrior] = {
    "slow": CulturePrior(21, 5, 27, 19.5, 0.38, 29, 0.36),
    "medium": CulturePrior(25, 5, 32, 6.6, 0.42, 14, 0.40),
    "fast": CulturePrior(34, 8, 40, 2.2, 0.75, 5.0, 0.50),
    "wild": CulturePrior(21, 5, 28, 29, 0.45, 36, 0.38),
    "none": CulturePrior(21, 4, 28, 33, 0.50, 68, 0.38),
}
USUAL_FALL = 0.8


@dataclass(frozen=True)
class Clock:
    """Hours since stuffing, and the culture's clock at each: hours it would have taken at its reference temperature."""

    hours: Array
    clock: Array

    def at(self, hour: float) -> float:
        """The clock at an hour. Parameters: hour [h]."""
        return float(np.interp(hour, self.hours, self.clock))

    def hour_of(self, clock: Array) -> Array:
        """The hours at which the clock shows values; inf beyond 240 hours. Parameters: clock [h]."""
        found = np.interp(clock, self.clock, self.hours)
        return np.where(clock > self.clock[-1], np.inf, found)


def goods_temperature(
    points: Sequence[tuple[float, float]] | Array, setpoint_c: float | None, now_hour: float, recovers: bool = True
) -> Array:
    """Temperature of the goods every quarter of an hour to 240 h: they follow the box's log, then what is ahead.

    Parameters: points of (hour, °C) in time order, up to now; setpoint_c [°C] or None; now_hour [h];
    recovers [-], whether a box far off its set point comes back to it.
    """
    hours = np.arange(0.0, LONGEST_HOURS + STEP_HOURS / 2, STEP_HOURS)
    if len(points):
        at, c = np.asarray(points, dtype=np.float64).T
        recent = float(np.mean(c[at >= at[-1] - 3.0]))
        box = np.interp(hours, at, c)
    else:
        recent = 20.0 if setpoint_c is None else setpoint_c
        box = np.full(len(hours), recent)
    off = setpoint_c is not None and abs(recent - setpoint_c) > PERSISTS_OFF_C and now_hour > 4
    ahead = recent if setpoint_c is None or (off and not recovers) else setpoint_c
    box[hours > now_hour] = ahead
    first = min(GOODS_START_C, float(box[0]))
    share = 1 - np.exp(-STEP_HOURS / GOODS_LAG_HOURS)
    # goods[i] = goods[i-1] + share · (box[i] − goods[i-1])
    rest, _ = lfilter([share], [1.0, share - 1.0], box[1:], zi=[(1 - share) * first])
    return np.concatenate([[first], rest])


def culture_clock(culture: Culture, goods_c: Array) -> Clock:
    """The clock of a culture in goods of a temperature.

    Parameters: culture [-]; goods_c [°C] every quarter of an hour.
    Equation: rate = ((T − least)/(reference − least))², Ratkowsky's square law, held above the best temperature.
    """
    prior = CULTURES[culture]
    warm = np.clip(goods_c, prior.least_c, prior.best_c) - prior.least_c
    rate: Array = (warm / (prior.reference_c - prior.least_c)) ** 2
    hours: Array = np.arange(len(goods_c), dtype=np.float64) * STEP_HOURS
    clock: Array = np.concatenate([np.zeros(1), np.cumsum((rate[1:] + rate[:-1]) / 2) * STEP_HOURS])
    # a clock that stands still is told apart by a hair, so that it can be read backwards
    return Clock(hours, np.asarray(clock + hours * 1e-9))


@dataclass(frozen=True)
class Reading:
    """A pH reading, hours since stuffing."""

    hour: float
    ph: float


@dataclass(frozen=True)
class Fermentation:
    """What is known of a batch in the warm stage, as of now. None where it is not known."""

    culture: Culture | None
    dextrose_percent: float | None
    salt_percent: float | None
    start_ph: float | None
    target_ph: float
    setpoint_c: float | None
    temperature: tuple[tuple[float, float], ...]  # (hour, °C)
    readings: tuple[Reading, ...]
    now_hour: float

    @cached_property
    def box(self) -> Array:
        """The box's temperature as an array of (hour, °C), shape (k, 2)."""
        return np.array(self.temperature, dtype=np.float64).reshape(-1, 2)

    def __post_init__(self) -> None:
        require("target pH", self.target_ph, 4.0, 6.0, "")
        if self.now_hour < 0:
            raise OutOfRangeError("now lies before it was stuffed")
        for name, value, low, high, unit in (
            ("dextrose", self.dextrose_percent, 0.0, 5.0, "%"),
            ("salt", self.salt_percent, 0.0, 10.0, "%"),
            ("start pH", self.start_ph, 4.5, 7.5, ""),
            ("set point", self.setpoint_c, -5.0, 60.0, "°C"),
        ):
            if value is not None:
                require(name, value, low, high, unit)
