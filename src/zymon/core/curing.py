"""How long whole muscle stays in salt: the rules of thumb, and what diffusion says of the core."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.special import j1, jn_zeros

from .errors import require

Geometry = Literal["slab", "cylinder", "sphere"]
TERMS = 80  # of Crank's series; enough from a Fourier number of 0.001 on
SMALLEST_FOURIER = 1e-3  # below it the front is still near the surface, and the short-time solution is better

SLAB_TO_CYLINDER = 2.0  # a slab takes about twice as long as a cylinder as thick


@dataclass(frozen=True)
class CureRule:
    """A rule of thumb in words, and its days by thickness, thickness squared and weight."""

    says: str
    days_per_cm: float = 0.0
    days_per_cm2: float = 0.0
    days_per_kg: float = 0.0


# Days in salt a centimetre, a square centimetre, a kilogram: usual practice
RULES: dict[str, CureRule] = {
    "linear": CureRule("1.5 days a centimetre", days_per_cm=1.5),
    "square": CureRule("0.097 days a square centimetre of diameter", days_per_cm2=0.097),
    "by_weight": CureRule("2 days a kilogram", days_per_kg=2.0),
}


def cure_days(
    rule: str, thickness_mm: float, weight_kg: float, margin_percent: float = 0.0, geometry: Geometry = "cylinder"
) -> float:
    """Days in salt by a rule of thumb.

    Parameters: rule, one of RULES; thickness_mm [mm] above 0…400, where it is thickest; weight_kg [kg] above 0…50;
    margin_percent [%] 0…30; geometry: the square law doubles for a slab. Raises OutOfRangeError.

    >>> round(cure_days("linear", 76, 1.5, 20), 2)
    13.68
    """
    require("thickness", thickness_mm, 0.0, 400.0, "mm", open_low=True)
    require("weight", weight_kg, 0.0, 50.0, "kg", open_low=True)
    require("margin", margin_percent, 0.0, 30.0, "%")
    flat = SLAB_TO_CYLINDER if rule == "square" and geometry == "slab" else 1.0
    by, cm = RULES[rule], thickness_mm / 10
    days = by.days_per_cm * cm + by.days_per_cm2 * cm**2 + by.days_per_kg * weight_kg
    return days * flat * (1 + margin_percent / 100)


@dataclass(frozen=True)
class Uptake:
    """Share of the final value at the centre and on average, 0…1."""

    centre: float
    mean: float


def uptake(geometry: Geometry, fourier_number: float) -> Uptake:
    """How far a step at the surface has come, at the centre and on average.

    Parameters: geometry [-]; fourier_number [-] 0 or more, D·t/a² with a the half thickness or radius.
    Equation: Crank's series for slab, cylinder and sphere. Source: Crank, The Mathematics of Diffusion.
    Raises OutOfRangeError.

    >>> round(uptake("cylinder", 0.2).centre, 4)
    0.4985
    """
    require("Fourier number", fourier_number, 0.0, 1e6, "")
    if fourier_number < SMALLEST_FOURIER:
        surface = {"slab": 1.0, "cylinder": 2.0, "sphere": 3.0}[geometry]
        curved = {"slab": 0.0, "cylinder": 1.0, "sphere": 3.0}[geometry]
        return Uptake(0.0, float(2 * surface * np.sqrt(fourier_number / np.pi)) - curved * fourier_number)
    n = np.arange(1, TERMS + 1, dtype=np.float64)
    if geometry == "slab":
        root = (2 * n - 1) * np.pi / 2
        centre, mean = 2 * (-1.0) ** (n + 1) / root, 2 / root**2
    elif geometry == "cylinder":
        root = np.asarray(jn_zeros(0, TERMS), dtype=np.float64)
        centre, mean = 2 / (root * np.asarray(j1(root), dtype=np.float64)), 4 / root**2
    else:
        root = n * np.pi
        centre, mean = 2 * (-1.0) ** (n + 1), 6 / root**2
    decay = np.exp(-(root**2) * fourier_number)
    return Uptake(
        float(np.clip(1 - (centre * decay).sum(), 0.0, 1.0)), float(np.clip(1 - (mean * decay).sum(), 0.0, 1.0))
    )
