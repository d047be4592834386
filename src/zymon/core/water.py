"""Water activity and what follows from it: brine, meat, water-phase salt, keep class."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from .errors import OutOfRangeError, require

Array = npt.NDArray[np.float64]

SODIUM_CHLORIDE_G_MOL = 58.443  # molar mass [g/mol]
WATER_KG_MOL = 0.0180153  # molar mass [kg/mol]
SATURATED_MOLALITY = 6.15  # sodium chloride at 25 °C
# Pitzer's parameters for sodium chloride at 25 °C (Pitzer and Mayorga 1973)
_BETA0, _BETA1, _CPHI, _APHI, _B, _ALPHA = 0.0765, 0.2664, 0.00127, 0.3915, 1.2, 2.0
TYPICAL_SALT_PERCENT, LEAST_SALT_PERCENT = 2.8, 0.5  # of the piece when hung
OSWIN_X = 0.18  # water per dry matter at aw 0.5 with typical salt; estimate
SORPTION_EXPONENT = 1.34  # of the isotherm; estimate: aw 0.97 fresh, 0.95 at X = 1.5, 0.80 at X = 0.5 with typical salt
WATER_IN_LEAN, PROTEIN_IN_LEAN, DRY_IN_LEAN = 0.75, 0.21, 0.25  # shares of fat-free meat, tables of food composition
ESTIMATE_SD = 0.015  # one standard deviation of the estimate in meat
UPPER_SDS = 2.0  # over the estimate, for what safety hangs on

KeepClass = Literal["no_chill", "max_10_c", "max_5_c"]


def brine_water_activity(molality: float) -> float:
    """Water activity of a sodium chloride brine at 25 °C.

    Parameters: molality [mol/kg water] 0…6.15, where it is saturated. Raises OutOfRangeError.
    Equation: ln aw = −2·m·Mw·φ with Pitzer's osmotic coefficient φ. Source: Pitzer and Mayorga (1973).

    >>> round(brine_water_activity(2.0), 3)
    0.932
    """
    require("molality", molality, 0.0, SATURATED_MOLALITY, "mol/kg")
    root = math.sqrt(molality)
    osmotic = (
        1
        - _APHI * root / (1 + _B * root)
        + molality * (_BETA0 + _BETA1 * math.exp(-_ALPHA * root))
        + molality**2 * _CPHI
    )
    return math.exp(-2 * molality * WATER_KG_MOL * osmotic)


@dataclass(frozen=True)
class Brine:
    """The salt in the water of a piece."""

    water_phase_salt_percent: float
    molality: float
    water_activity_of_brine: float


def brine_in_meat(salt_g: float, water_g: float) -> Brine:
    """The brine that the water of a piece makes with its salt; an upper bound of water activity.

    Parameters: salt_g [g] 0 or more; water_g [g] above 0. Raises OutOfRangeError, also above saturation.
    Equation: water-phase salt = salt/(salt + water).

    >>> round(brine_in_meat(2.8, 24.0).water_activity_of_brine, 3)
    0.932
    """
    require("salt", salt_g, 0.0, math.inf, "g")
    require("water", water_g, 0.0, math.inf, "g", open_low=True)
    molality = salt_g / SODIUM_CHLORIDE_G_MOL / water_g * 1000
    if molality > SATURATED_MOLALITY:
        raise OutOfRangeError("refused.does_not_dissolve", salt_g=salt_g, water_g=water_g)
    return Brine(100 * salt_g / (salt_g + water_g), molality, brine_water_activity(molality))


@dataclass(frozen=True)
class WaterActivity:
    """An estimate with one standard deviation; never a test."""

    value: float
    sd: float

    @property
    def upper(self) -> float:
        """What it is held to be under: two standard deviations over the estimate, at most 1."""
        return min(self.value + UPPER_SDS * self.sd, 1.0)


def sorption_x(salt_percent: Array) -> Array:
    """Water per dry matter at which salted meat has a water activity of 0.5 [kg/kg].

    Parameters: salt_percent [% of the piece when hung]. More salt holds more water. Estimate.

    >>> float(sorption_x(np.array(2.8)))
    0.18
    """
    return np.asarray(OSWIN_X * np.sqrt(np.maximum(salt_percent, LEAST_SALT_PERCENT) / TYPICAL_SALT_PERCENT))


def isotherm(x: Array, sorption_x: Array) -> Array:
    """Water activity of salted meat by the Oswin isotherm, 0…1: the one that dries, keeps and is judged by.

    Parameters: x [kg water/kg fat-free dry matter with its salt] above 0; sorption_x [kg/kg], the x at which it is 0.5.
    Equation: aw = 1/(1 + (x₀/x)^1.34). Source: the form is Oswin's (1946); x₀ and exponent are estimates.

    >>> round(float(isotherm(np.array(1.0), np.array(0.18))), 2)
    0.91
    """
    return np.asarray(1.0 / (1.0 + (sorption_x / x) ** SORPTION_EXPONENT))


def meat_water_activity(salt_g: float, water_g: float, dry_matter_g: float) -> WaterActivity:
    """Water activity of salted meat: by the isotherm, and never over that of the brine its water makes with its salt.

    Parameters: salt_g [g], water_g [g] above 0 and dry_matter_g [g] above 0, fat-free and without the salt; all for
    100 g of the piece when hung. Estimate. Raises OutOfRangeError.

    >>> 0.88 < meat_water_activity(2.8, 20.0, 18.0).value < 0.93
    True
    """
    require("salt", salt_g, 0.0, math.inf, "g")
    require("water", water_g, 0.0, math.inf, "g", open_low=True)
    require("dry matter", dry_matter_g, 0.0, math.inf, "g", open_low=True)
    molality = salt_g / SODIUM_CHLORIDE_G_MOL / water_g * 1000
    brine = brine_water_activity(min(molality, SATURATED_MOLALITY))
    x = np.array(water_g / (dry_matter_g + salt_g))
    return WaterActivity(min(float(isotherm(x, sorption_x(np.array(salt_g)))), brine), ESTIMATE_SD)


def keep_class(water_activity: float, ph: float | None) -> KeepClass:
    """How finished goods keep (Leistner).

    Parameters: water_activity [-] 0…1; ph [-] or None where it is not known. Raises OutOfRangeError.
    pH ≤ 5.2 and aw ≤ 0.95, or aw ≤ 0.91, or pH ≤ 5.0: without chill; one of pH ≤ 5.2, aw ≤ 0.95: at most 10 °C;
    neither: at most 5 °C.

    >>> keep_class(0.90, None), keep_class(0.94, 5.1), keep_class(0.94, 5.6), keep_class(0.97, None)
    ('no_chill', 'no_chill', 'max_10_c', 'max_5_c')
    """
    require("water activity", water_activity, 0.0, 1.0, "")
    sour, very_sour = ph is not None and ph <= 5.2, ph is not None and ph <= 5.0
    if water_activity <= 0.91 or very_sour or (sour and water_activity <= 0.95):
        return "no_chill"
    return "max_10_c" if sour or water_activity <= 0.95 else "max_5_c"
