"""Moist air over liquid water: saturation pressure, vapour pressure deficit, dew point.

Our own equation rather than a psychrometrics package: those turn to ice below 0 °C, where salted meat
and most hygrometers still refer to liquid water, and they take one value at a time where a climate log
has a million. A test holds it against such a package wherever both refer to water.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from .constants import ZERO_CELSIUS_K
from .errors import require

Array = npt.NDArray[np.float64]

# Hyland & Wexler (1983), ASHRAE Transactions 89(2A), saturation over liquid water: ln p = C8/T + C9 + … + C13 ln T
_HW = (-5.8002206e3, 1.3914993, -4.8640239e-2, 4.1764768e-5, -1.4452093e-8, 6.5459673)

TEMPERATURE_RANGE_C = (-40.0, 60.0)  # range the formula was fitted in [°C]


def saturation_pressure(temperature_c: Array) -> Array:
    """Saturation pressure of water vapour over liquid water [Pa].

    Parameters: temperature_c [°C], any shape; not checked, for use on whole logs.
    Equation: Hyland & Wexler (1983).

    >>> round(float(saturation_pressure(np.array(13.0))), 1)
    1497.8
    """
    t = np.asarray(temperature_c, dtype=np.float64) + ZERO_CELSIUS_K
    a, b, c, d, e, f = _HW
    return np.asarray(np.exp(a / t + b + c * t + d * t**2 + e * t**3 + f * np.log(t)))


@dataclass(frozen=True)
class AirState:
    """What temperature and humidity together mean for a hanging piece."""

    saturation_pressure_pa: float
    vapour_pressure_deficit_pa: float
    dew_point_c: float


def air_state(temperature_c: float, rh_percent: float) -> AirState:
    """Saturation pressure, deficit and dew point of the air.

    Parameters: temperature_c [°C] −40…60; rh_percent [%] above 0…100.
    Raises OutOfRangeError. Dew point by bisection on Hyland & Wexler, to 10⁻⁶ °C.

    >>> round(air_state(12.5, 80).dew_point_c, 2)
    9.15
    """
    require("temperature", temperature_c, *TEMPERATURE_RANGE_C, "°C")
    require("humidity", rh_percent, 0.0, 100.0, "%", open_low=True)
    p_sat = float(saturation_pressure(np.array(temperature_c)))
    p = p_sat * rh_percent / 100
    low, high = -120.0, temperature_c
    while high - low > 1e-6:
        mid = (low + high) / 2
        if float(saturation_pressure(np.array(mid))) < p:
            low = mid
        else:
            high = mid
    return AirState(p_sat, p_sat - p, (low + high) / 2)
