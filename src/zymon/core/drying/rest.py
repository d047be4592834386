"""Vacuum rest: the water within a piece evens out and none leaves. How many weeks until rim and core agree."""

from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from ..errors import require
from .climate import rates
from .feel import Firmness, feels, rim_and_core
from .forecast import Fitted
from .inside import profile_at, ring_index
from .transport import Drivers, dry

Array = npt.NDArray[np.float64]

EVEN_AT_RING_INDEX = 0.05  # rim and core differ by no more than a hand can tell; estimate
LONGEST_WEEKS = 52
REST_TEMPERATURE_C = 4.0  # a usual fridge [°C]


@dataclass(frozen=True)
class VacuumRest:
    """Ring index at the end of each week from 0 on; weeks until even (None: not within a year); how it then feels."""

    ring_index: tuple[float, ...]
    weeks: float | None
    rim_feels: Firmness
    core_feels: Firmness


def vacuum_rest(place: Fitted, index: int, at_s: float, temperature_c: float = REST_TEMPERATURE_C) -> VacuumRest:
    """What a vacuum rest in the cold would do to a piece that is taken down at a time.

    Parameters: place, the fitted place; index, of the piece in its history; at_s [s], when it is sealed;
    temperature_c [°C] −2…25, of the place of rest. Raises OutOfRangeError.
    The same transport as while drying, with nothing leaving the rim.
    """
    require("temperature of the rest", temperature_c, -2.0, 25.0, "°C")
    bodies, start = profile_at(place, index, at_s)
    days = np.arange(LONGEST_WEEKS * 7 + 1, dtype=np.float64)[:, None]
    one = np.ones((len(days) - 1, 1))
    saturation, vapour, arrhenius, _ = (one * float(r) for r in rates(np.array(temperature_c), np.array(80.0)))
    sealed = replace(bodies, permeance_kg_m2_s_pa=np.zeros(1))
    run = dry(sealed, Drivers(days * SECONDS_PER_DAY, saturation, vapour, arrhenius, one), start[:, None], keep=True)
    assert run.profiles is not None
    index_by_day = np.array([ring_index(x) for x in run.profiles[:, :, 0]])
    even = np.flatnonzero(index_by_day <= EVEN_AT_RING_INDEX)
    rim, core = rim_and_core(run.profiles[int(even[0]) if len(even) else -1, :, 0])
    return VacuumRest(
        ring_index=tuple(float(r) for r in index_by_day[::7]),
        weeks=float(even[0]) / 7 if len(even) else None,
        rim_feels=feels(float(rim)),
        core_feels=feels(float(core)),
    )
