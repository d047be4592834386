"""How pH falls: a lag, then a sigmoid, both on the culture's own clock, which runs with the goods' temperature."""

from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..errors import OutOfRangeError, require

Array = npt.NDArray[np.float64]
Culture = Literal["slow", "medium", "fast", "wild", "none"]
BoxFault = Literal["", "fell", "cold"]

STEP_HOURS = 0.25  # hours; the step of the clock
LONGEST_HOURS = 240.0  # what has not crossed by then does not
GOODS_LAG_HOURS = 3.0  # the goods follow the box over hours; estimate for a salame of 60 mm
GOODS_START_C = 6.0  # mince as it comes from the machine, kept cold [°C]; usual practice
PERSISTS_OFF_C = 4.0  # a box this far off its set point has a fault
WARMING_UP_HOURS, RECENT_HOURS = 4.0, 3.0  # hours until a box is judged, and that count as lately; estimates
UNNOTICED_HOURS = 15.0  # a box that has been down for longer is not about to be mended


@dataclass(frozen=True)
class CulturePrior:
    """Hours at `reference_c` to half of a usual fall of 0.8, and from a tenth to nine tenths of it."""

    reference_c: float
    least_c: float  # at and under which it does not work
    best_c: float  # above which it works no faster
    most_c: float  # at and above which it works no more, and dies
    half_hours: float
    half_sd: float  # of ln; far surer than when the fall begins, for a late one is mostly a steep one
    fall_hours: float
    fall_sd: float  # of ln


# Estimate, calibrated on simulated fermentations of several physics and the ranges that makers report
CULTURES: dict[Culture, CulturePrior] = {
    "slow": CulturePrior(21, 5, 27, 38, 40.3, 0.275, 32, 0.38),
    "medium": CulturePrior(25, 5, 32, 42, 17.3, 0.285, 14.5, 0.475),
    "fast": CulturePrior(34, 8, 40, 47, 8.27, 0.361, 6.5, 0.475),
    "wild": CulturePrior(21, 5, 28, 42, 58.3, 0.342, 43, 0.418),
    "none": CulturePrior(21, 4, 28, 42, 80, 0.361, 100, 0.456),
}
USUAL_FALL = 0.8
FADES_WITHIN_C = 3.0  # under the most that it bears it slows to nothing; estimate
KILLED_BY_C_HOURS = 3.0  # so many °C times hours above what it bears, and a third of a culture is left; estimate
REPEAT_WITHIN_HOURS, REPEAT_WITHIN_PH = 2.0, 0.12  # two readings so near confirm each other


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


def box_fault(points: Array, setpoint_c: float | None, now_hour: float) -> BoxFault:
    """Whether a box is far off its set point now: "fell" if it was far nearer a while ago, "cold" if it was not.

    Parameters: points of (hour, °C) in time order, up to now, shape (k, 2); setpoint_c [°C] or None; now_hour [h].
    """
    if setpoint_c is None or not len(points) or now_hour <= WARMING_UP_HOURS:
        return ""
    off_c = np.abs(points[:, 1] - setpoint_c)
    recent_c = off_c[points[:, 0] >= points[-1, 0] - RECENT_HOURS].mean()
    if recent_c <= PERSISTS_OFF_C:
        return ""
    a_while = off_c[points[:, 0] >= points[-1, 0] - UNNOTICED_HOURS]
    return "fell" if a_while.min() <= recent_c / 2 else "cold"


def goods_temperature(points: Array, setpoint_c: float | None, now_hour: float, back_after_hours: float = 0.0) -> Array:
    """Temperature of the goods every quarter of an hour to 240 h: they follow the box's log, then what is ahead.

    Parameters: points of (hour, °C) in time order, up to now, shape (k, 2); setpoint_c [°C] or None; now_hour [h];
    back_after_hours [h] from now until the box is at its set point, inf if it stays as it is.
    """
    hours = np.arange(0.0, LONGEST_HOURS + STEP_HOURS / 2, STEP_HOURS)
    if len(points):
        at, c = points.T
        recent = float(np.mean(c[at >= at[-1] - RECENT_HOURS]))
        box = np.interp(hours, at, c)
    else:
        recent = 20.0 if setpoint_c is None else setpoint_c
        box = np.full(len(hours), recent)
    box[hours > now_hour] = recent
    if setpoint_c is not None:
        box[hours > now_hour + back_after_hours] = setpoint_c
    first = min(GOODS_START_C, float(box[0]))
    share = 1 - np.exp(-STEP_HOURS / GOODS_LAG_HOURS)
    goods = accumulate(box[1:], lambda was, around: was + share * (around - was), initial=first)
    return np.fromiter(goods, np.float64)


def culture_clock(culture: Culture, goods_c: Array) -> Clock:
    """The clock of a culture in goods of a temperature.

    Parameters: culture [-]; goods_c [°C] every quarter of an hour.
    Equation: rate = ((T − least)/(reference − least))², Ratkowsky's square law, held above the best temperature and
    fading to nothing at the highest; above that it dies, by °C times hours, and what is dead stays dead.
    """
    prior = CULTURES[culture]
    warm = np.clip(goods_c, prior.least_c, prior.best_c) - prior.least_c
    rate: Array = (warm / (prior.reference_c - prior.least_c)) ** 2
    rate *= np.clip((prior.most_c - goods_c) / FADES_WITHIN_C, 0.0, 1.0)
    too_hot = np.cumsum(np.maximum(goods_c - prior.most_c, 0.0)) * STEP_HOURS
    rate *= np.exp(-too_hot / KILLED_BY_C_HOURS)
    hours: Array = np.arange(len(goods_c), dtype=np.float64) * STEP_HOURS
    clock: Array = np.concatenate([np.zeros(1), np.cumsum((rate[1:] + rate[:-1]) / 2) * STEP_HOURS])
    # a clock that stands still is told apart by a hair, so that it can be read backwards
    return Clock(hours, np.asarray(clock + hours * 1e-9))


@dataclass(frozen=True)
class Reading:
    """A pH reading, hours since stuffing; `confirmed`: asked about and kept, or repeated at once."""

    hour: float
    ph: float
    confirmed: bool = False


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

    @property
    def sure(self) -> tuple[bool, ...]:
        """Which readings are no slips: confirmed by the maker, or by another that agrees shortly before or after."""
        return tuple(
            r.confirmed
            or any(
                abs(r.hour - o.hour) <= REPEAT_WITHIN_HOURS and abs(r.ph - o.ph) <= REPEAT_WITHIN_PH
                for j, o in enumerate(self.readings)
                if i != j
            )
            for i, r in enumerate(self.readings)
        )

    def __post_init__(self) -> None:
        require("target pH", self.target_ph, 4.0, 6.0, "")
        if self.now_hour < 0:
            raise OutOfRangeError("refused.now_before_stuffed")
        for name, value, low, high, unit in (
            ("dextrose", self.dextrose_percent, 0.0, 5.0, "%"),
            ("salt", self.salt_percent, 0.0, 10.0, "%"),
            ("start pH", self.start_ph, 4.5, 7.5, ""),
            ("set point", self.setpoint_c, -5.0, 60.0, "°C"),
        ):
            if value is not None:
                require(name, value, low, high, unit)
