"""Salt that nobody weighed: what a piece took up of more than it could take, and how its core catches up."""

from collections.abc import Sequence

import numpy as np

from ..drying.climate import Log
from ..drying.geometry import body_of
from ..errors import OutOfRangeError
from ..salting.bag import DIFFUSIVITY_SPREAD, Bag, Cold, Step, diffusivity
from ..salting.clock import salt_clocks
from .batch import Stage
from .marks import HOUR_S

FREE_WAYS = ("buried", "pressed")
HUMID_PERCENT = 80.0  # of the air around the salt; plays no part
AIM_PERCENT = 3.0  # of free salt: sets no dose, the model wants one
# First root of the spreading of salt in a sealed body between cylinder (3.832) and sphere (4.493), squared
EVENING = 16.3
USUAL_FAT_PERCENT = 8.0  # of a muscle where nobody said; slows the salt a little


def taken_up_percent(cures: Sequence[Stage], weight_g: float, fat_percent: float | None, end_s: float) -> float | None:
    """Mean salt of a piece after its time in free salt [% of the meat]; None where that cannot be told.

    Parameters: cures, its stages in salt; weight_g [g]; fat_percent [%]; end_s [s], where its line ends. Diffusion from
    a wetted rim under the logged cold; an estimate, and only of salt that lay in excess: of what was rubbed on and ran
    off nothing is told.
    """
    free = [s for s in cures if s.way in FREE_WAYS]
    readings = sorted(point for s in free for point in s.temperature)
    if not readings:
        return None
    out_s = end_s if free[-1].to_s is None else min(free[-1].to_s, end_s)
    times, values = np.array(readings).T
    log = Log(times, values, np.full(len(times), HUMID_PERCENT))
    try:
        bag = Bag(
            "cylinder",
            2000 * body_of("whole_muscle", "irregular", weight_g).half_thickness_m,
            weight_g,
            _fat(fat_percent),
            (Step(free[0].from_s, "lay", "buried", AIM_PERCENT, free_salt=True), Step(out_s, "out")),
            Cold(log, float(values.mean())),
        )
    except OutOfRangeError:
        return None
    return salt_clocks([bag], out_s)[0].mean_percent


def core_share_after(
    share: float, cold_hours: float, temperature_c: float, weight_g: float, fat_percent: float | None
) -> float:
    """The core's share of its level after more hours in the cold.

    Parameters: share; cold_hours [h]; temperature_c [°C]; weight_g [g]; fat_percent [%] or None.
    Equation: 1 − (1 − share)·exp(−16.3·D·t/R²), the slowest way in which salt evens out in a sealed body.

    >>> 0.5 < core_share_after(0.5, 48.0, 3.0, 2000.0, 10.0) < 0.6
    True
    """
    pace = _evening_per_s(temperature_c, weight_g, fat_percent)
    return float(1 - (1 - share) * np.exp(-pace * cold_hours * HOUR_S))


def hours_until_core(
    share: float, least: float, temperature_c: float, weight_g: float, fat_percent: float | None
) -> float:
    """Hours in the cold until a core has its share; 0 where it has it.

    Parameters: share; least; temperature_c [°C]; weight_g [g]; fat_percent [%] or None.
    """
    if share >= least:
        return 0.0
    return float(np.log((1 - share) / (1 - least)) / _evening_per_s(temperature_c, weight_g, fat_percent) / HOUR_S)


def _fat(fat_percent: float | None) -> float:
    return USUAL_FAT_PERCENT if fat_percent is None else min(fat_percent, 80.0)


def _evening_per_s(temperature_c: float, weight_g: float, fat_percent: float | None) -> float:
    """How fast the core of a piece catches up [1/s], at the slow end of what is known of diffusion."""
    half_m = body_of("whole_muscle", "irregular", weight_g).half_thickness_m
    slow = float(diffusivity(np.array(temperature_c), _fat(fat_percent))) / DIFFUSIVITY_SPREAD
    return EVENING * slow / half_m**2
