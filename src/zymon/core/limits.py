"""Shapes of the reference limits. The figures are data, one file per jurisdiction; see `zymon.limits`."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal, overload

import numpy as np
import numpy.typing as npt

Goods = Literal["minced", "intact", "belly"]
Array = npt.NDArray[np.float64]
NITRITE_ION_SHARE = 0.66680  # NO2⁻ / NaNO2 by molar mass, 46.0055 / 68.9953
NITRATE_ION_SHARE = 0.72951  # NO3⁻ / NaNO3, 62.0049 / 84.9947
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
    sources: Mapping[str, str] = field(default_factory=dict)  # of ingoing, degree_hours, residual, listeria
    residual_nitrite_mg_per_kg: float | None = None  # left in the finished goods
    residual_as: CountedAs = "sodium salt"
    listeria_zero: bool = True  # none is allowed; else up to a count
    unchilled: str = ""  # what it asks of goods that are kept unchilled
    does_not_know: tuple[str, ...] = ()
    made_by: str = ""  # of a user's own

    def source_of(self, limit: str) -> str:
        """Document and paragraph of a limit: ingoing, degree_hours, residual or listeria. Parameters: limit."""
        return self.sources.get(limit, self.source)

    def ingoing(self, goods: Goods) -> IngoingLimits:
        """The ingoing limits for goods. Parameters: goods [-]."""
        return {"minced": self.minced, "intact": self.intact, "belly": self.belly}[goods]


def milder_than_all(profile: LimitProfile, published: Iterable[LimitProfile]) -> tuple[str, ...]:
    """In which limits a profile allows more than every published one allows; empty where it does not.

    Parameters: profile; published, those it is held against. Amounts are compared as sodium salt.
    """
    others = list(published)
    found = []
    goods: tuple[Goods, ...] = ("minced", "intact", "belly")
    for kind in goods:
        for name, share in (("nitrite_mg_per_kg", NITRITE_ION_SHARE), ("nitrate_mg_per_kg", NITRATE_ION_SHARE)):
            most = max(_as_salt(getattr(p.ingoing(kind), name), p.counted_as, share) for p in others)
            if _as_salt(getattr(profile.ingoing(kind), name), profile.counted_as, share) > most + 0.5:
                found.append(f"{kind}.{name}")
    if any(
        _allowed_hours(profile.degree_hours, c) > max(_allowed_hours(p.degree_hours, c) for p in others) * 1.001
        for c in np.arange(16.0, 45.0, 0.5)
    ):
        found.append("degree_hours")
    residuals = [_as_salt(p.residual_nitrite_mg_per_kg, p.residual_as, NITRITE_ION_SHARE) for p in others]
    if _as_salt(profile.residual_nitrite_mg_per_kg, profile.residual_as, NITRITE_ION_SHARE) > max(residuals):
        found.append("residual_nitrite_mg_per_kg")
    if not profile.listeria_zero and all(p.listeria_zero for p in others):
        found.append("listeria_zero")
    return tuple(found)


def _as_salt(amount: float | None, counted_as: CountedAs, ion_share: float) -> float:
    if amount is None:
        return math.inf
    return amount / ion_share if counted_as == "ion" else amount


def _allowed_hours(table: DegreeHourTable, temperature_c: float) -> float:
    """How long a steady temperature is allowed [h]."""
    temperature = table.from_celsius(float(temperature_c))
    return math.inf if temperature <= table.threshold else table.limit(temperature) / (temperature - table.threshold)
