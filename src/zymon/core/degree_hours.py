"""Degree-hours: the time that staphylococci are given, until the batch first measures pH 5.3."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from .errors import OutOfRangeError, require
from .limits import DegreeHourTable

Array = npt.NDArray[np.float64]

HURDLE_PH = 5.3  # American Meat Institute, good manufacturing practices for fermented dry sausage


@dataclass(frozen=True)
class DegreeHours:
    """Degree-hours used, the allowance by the highest temperature so far, both in the table's unit times hours."""

    used: float
    limit: float

    @property
    def passes(self) -> bool:
        """Whether the allowance has held."""
        return self.used <= self.limit


def degree_hours(
    points: Sequence[tuple[float, float]] | Array,
    until_hour: float,
    table: DegreeHourTable,
    gap_hours: float | None = None,
) -> DegreeHours:
    """Degree-hours from the first point to an hour, by exact areas over the threshold.

    Parameters: points of (hour, temperature [°C]) in time order, linear between them, held after the last; two at one
    hour are a step; until_hour [h], not before the first point; table, of the profile; gap_hours [h], None or the
    silence from which a gap is counted at the warmer of its two ends. Raises OutOfRangeError.
    Source: the profile's; trapezoids cut at the threshold.

    >>> from zymon.limits import shipped
    >>> degree_hours([(0, 26), (52, 26)], 52, shipped()["us"].degree_hours).used
    977.6
    """
    if not len(points):
        raise OutOfRangeError("refused.no_temperature")
    hour, c = np.asarray(points, dtype=np.float64).T
    require("temperature", float(c[np.argmax(np.abs(c - 10.0))]), -40.0, 60.0, "°C")
    if (np.diff(hour) < 0).any():
        raise OutOfRangeError("refused.not_in_time_order")
    if until_hour < hour[0]:
        raise OutOfRangeError("refused.before_the_log", hour=until_hour, begins_hour=hour[0])
    inside = int(np.searchsorted(hour, until_hour, side="right"))
    if hour[inside - 1] < until_hour:
        end_c = float(np.interp(until_hour, hour[inside - 1 : inside + 1], c[inside - 1 : inside + 1]))
        hour, c = np.append(hour[:inside], until_hour), np.append(c[:inside], end_c)
    else:
        hour, c = hour[:inside], c[:inside]
    hours, low, high = np.diff(hour), c[:-1], c[1:]
    if gap_hours is not None:
        gap = hours > gap_hours
        low, high = (np.where(gap, np.maximum(low, high), side) for side in (low, high))
    used = _areas(hours, table.from_celsius(low) - table.threshold, table.from_celsius(high) - table.threshold)
    return DegreeHours(round(float(used.sum()), 9), table.limit(table.from_celsius(float(c.max()))))


def _areas(hours: Array, low: Array, high: Array) -> Array:
    """Areas above zero of straight pieces."""
    up, down = np.maximum(low, high), np.minimum(low, high)
    crossing = np.where(up > 0, up / np.maximum(up - down, 1e-12), 0.0) * np.maximum(up, 0.0) / 2
    return np.asarray(hours * np.where(down >= 0, (low + high) / 2, crossing))


def longest_hours(temperature: float, table: DegreeHourTable) -> float:
    """How many hours a steady temperature is allowed.

    Parameters: temperature [in the table's unit] above its threshold; table, of the profile. Raises OutOfRangeError.

    >>> from zymon.limits import shipped
    >>> longest_hours(80, shipped()["us"].degree_hours)
    60.0
    """
    if not temperature > table.threshold:
        raise OutOfRangeError(
            "refused.nothing_counts", threshold=table.threshold, unit=table.unit, temperature=temperature
        )
    return table.limit(temperature) / (temperature - table.threshold)
