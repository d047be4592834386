"""Degree-hours: the time that staphylococci are given, until the batch first measures pH 5.3."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from .errors import OutOfRangeError, require
from .limits import DegreeHourTable

HURDLE_PH = 5.3


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
    points: Sequence[tuple[float, float]], until_hour: float, table: DegreeHourTable, gap_hours: float | None = None
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
    if not points:
        raise OutOfRangeError("no temperature is logged: degree-hours cannot be counted")
    for _, temperature_c in points:
        require("temperature", temperature_c, -40.0, 60.0, "°C")
    if any(b[0] < a[0] for a, b in itertools.pairwise(points)):
        raise OutOfRangeError("temperatures must be in time order")
    if until_hour < points[0][0]:
        raise OutOfRangeError(f"pH 5.3 at hour {until_hour:g} lies before the log, which begins at {points[0][0]:g}")
    inside = [p for p in points if p[0] <= until_hour]
    last = inside[-1]
    after = points[len(inside)] if len(inside) < len(points) else None
    if last[0] < until_hour:
        share = 0.0 if after is None else (until_hour - last[0]) / (after[0] - last[0])
        end_c = last[1] + share * ((after[1] - last[1]) if after else 0.0)
        inside.append((until_hour, end_c))
    used = 0.0
    highest_c = max(t for _, t in inside)
    for (t0, c0), (t1, c1) in itertools.pairwise(inside):
        if gap_hours is not None and t1 - t0 > gap_hours:
            c0 = c1 = max(c0, c1)
        used += _area(t1 - t0, table.from_celsius(c0) - table.threshold, table.from_celsius(c1) - table.threshold)
    return DegreeHours(round(used, 9), table.limit(table.from_celsius(highest_c)))


def _area(hours: float, low: float, high: float) -> float:
    """Area above zero of a straight piece."""
    if low >= 0 and high >= 0:
        return hours * (low + high) / 2
    if low <= 0 and high <= 0:
        return 0.0
    up = max(low, high)
    return hours * up / (up - min(low, high)) * up / 2


def longest_hours(temperature: float, table: DegreeHourTable) -> float:
    """How many hours a steady temperature is allowed.

    Parameters: temperature [in the table's unit] above its threshold; table, of the profile. Raises OutOfRangeError.

    >>> from zymon.limits import shipped
    >>> longest_hours(80, shipped()["us"].degree_hours)
    60.0
    """
    if not temperature > table.threshold:
        raise OutOfRangeError(
            f"temperature must be above {table.threshold:g} °{table.unit}, got {temperature:g}: nothing counts there"
        )
    return table.limit(temperature) / (temperature - table.threshold)
