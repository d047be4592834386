"""Shapes of the reference limits. The figures are data, one file per jurisdiction; see `zymon.limits`."""

import math
from dataclasses import dataclass
from typing import Literal, overload

import numpy as np
import numpy.typing as npt

Goods = Literal["minced", "intact", "belly"]
Array = npt.NDArray[np.float64]
CountedAs = Literal["sodium salt", "ion"]


def over_limit(value: float, limit: float) -> bool:
    """Whether an ingoing amount is over its limit, rounded to whole mg/kg as inspectors do; a limit of 0 allows none.

    Parameters: value, limit [mg/kg].

    >>> over_limit(156.25, 156), over_limit(156.5, 156), over_limit(0.2, 0)
    (False, True, True)
    """
    return value > 0 if limit <= 0 else math.floor(value + 0.5) > limit


@dataclass(frozen=True)
class IngoingLimits:
    """Most nitrite and nitrate that may go in [mg/kg of meat]."""

    nitrite_mg_per_kg: float
    nitrate_mg_per_kg: float


@dataclass(frozen=True)
class DegreeHourStep:
    """An allowance for batches whose highest temperature lies below, or at most at, a bound; the last has none."""

    limit: float
    below: float | None = None
    up_to: float | None = None

    def holds_for(self, highest: float) -> bool:
        """Whether a highest temperature falls under this step. Parameters: highest [in the table's unit]."""
        if self.below is not None:
            return highest < self.below
        return self.up_to is None or highest <= self.up_to


@dataclass(frozen=True)
class DegreeHourTable:
    """Degrees over a threshold times hours, allowed by the highest temperature; unit F or C."""

    unit: Literal["F", "C"]
    threshold: float
    steps: tuple[DegreeHourStep, ...]

    def limit(self, highest: float) -> float:
        """The allowance for a highest temperature. Parameters: highest [in the table's unit]."""
        return next(step.limit for step in self.steps if step.holds_for(highest))

    @overload
    def from_celsius(self, temperature_c: float) -> float: ...
    @overload
    def from_celsius(self, temperature_c: Array) -> Array: ...
    def from_celsius(self, temperature_c: float | Array) -> float | Array:
        """A temperature, or many, in the table's unit. Parameters: temperature_c [°C]."""
        return temperature_c * 1.8 + 32 if self.unit == "F" else temperature_c


@dataclass(frozen=True)
class LimitProfile:
    """The reference limits of one jurisdiction, with their source."""

    id: str
    name: str
    source: str
    as_of: str
    check: str
    counted_as: CountedAs
    minced: IngoingLimits
    intact: IngoingLimits
    belly: IngoingLimits
    degree_hours: DegreeHourTable

    def ingoing(self, goods: Goods) -> IngoingLimits:
        """The ingoing limits for goods. Parameters: goods [-]."""
        return {"minced": self.minced, "intact": self.intact, "belly": self.belly}[goods]
