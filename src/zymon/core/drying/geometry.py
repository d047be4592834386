"""From the measures a maker takes to a body that can dry."""

import math
from dataclasses import dataclass
from typing import Literal

from ..constants import MEAT_DENSITY_KG_M3
from ..errors import require

Shape = Literal["cylinder", "slab", "irregular"]
Kind = Literal["salame", "whole_muscle", "thin_sausage", "belly", "breast", "ham", "coated"]

# Nothing that hangs to dry is smaller or larger
MIN_NET_G = 1.0
MIN_DIAMETER_MM, MAX_DIAMETER_MM = 3.0, 600.0
MIN_LENGTH_MM, MAX_LENGTH_MM = 10.0, 2500.0


@dataclass(frozen=True)
class Body:
    """Half thickness [m], curvature (0 slab … 2 sphere) and how sure the size is (sd of ln half thickness)."""

    half_thickness_m: float
    curvature: float
    size_sd: float


# Where no measure is given: diameter or thickness from weight w in kg as coefficient · w^(1/3), by kind [mm]; estimates
_FROM_WEIGHT_MM: dict[str, float] = {
    "salame": 60.0,
    "whole_muscle": 76.0,
    "thin_sausage": 42.0,
    "belly": 36.0,
    "breast": 32.0,
    "ham": 82.0,
    "coated": 66.0,
}
# What a piece weighs of which nobody measured anything, by kind [g]; estimates
_USUAL_G: dict[str, float] = {
    "salame": 900.0,
    "whole_muscle": 1800.0,
    "thin_sausage": 150.0,
    "belly": 1500.0,
    "breast": 400.0,
    "ham": 7000.0,
    "coated": 1500.0,
}
SKIN_ON_SLAB, SKIN_ON_OTHER = 1.8, 1.25  # a piece with skin dries as one so much thicker, from one face; estimates
SIZE_SD_MEASURED = 0.05
_SIZE_SD_PARTLY = 0.12
_SIZE_SD_UNKNOWN = 0.18


def body_of(
    kind: Kind,
    shape: Shape,
    net_weight_g: float,
    diameter_mm: float | None = None,
    thickness_mm: float | None = None,
    length_mm: float | None = None,
) -> Body:
    """Half thickness and curvature of a piece; missing measures are inferred from the weight.

    Parameters: kind, shape [-]; net_weight_g [g] 1…200,000; diameter_mm, thickness_mm [mm] 3…600;
    length_mm [mm] 10…2500; None where not measured. Raises OutOfRangeError.
    A cylinder's ends and a slab's edges dry too: curvature grows with the share of the surface they make up.

    >>> round(body_of("salame", "cylinder", 850, diameter_mm=58, length_mm=300).half_thickness_m, 4)
    0.029
    """
    require("net weight", net_weight_g, MIN_NET_G, 200_000.0, "g")
    for name, value, least, most in (
        ("diameter", diameter_mm, MIN_DIAMETER_MM, MAX_DIAMETER_MM),
        ("thickness", thickness_mm, MIN_DIAMETER_MM, MAX_DIAMETER_MM),
        ("length", length_mm, MIN_LENGTH_MM, MAX_LENGTH_MM),
    ):
        if value is not None:
            require(name, value, least, most, "mm")
    volume_mm3 = net_weight_g / 1000 / MEAT_DENSITY_KG_M3 * 1e9
    across = thickness_mm if shape == "slab" and thickness_mm else diameter_mm or thickness_mm
    sd = SIZE_SD_MEASURED
    if across is None and length_mm is not None and shape != "slab":
        across = math.sqrt(volume_mm3 / length_mm * 4 / math.pi) * (1.0 if shape == "cylinder" else 1.08)
        sd = _SIZE_SD_PARTLY
    elif across is None:
        across = _FROM_WEIGHT_MM[kind] * (net_weight_g / 1000) ** (1 / 3)
        sd = _SIZE_SD_UNKNOWN
    if shape == "slab":
        return Body(across / 2000, min(1.0, 0.1 + 1.5 * across / math.sqrt(volume_mm3 / across) / 2), sd)
    length = length_mm or volume_mm3 / (math.pi * across**2 / 4)
    if shape == "cylinder":
        return Body(across / 2000, 1.0 + min(0.6, 0.5 * across / max(length, across)), sd)
    return Body(across / 2000, 1.3, sd)


def usual_weight_g(
    kind: Kind, shape: Shape, diameter_mm: float | None, thickness_mm: float | None, length_mm: float | None
) -> float:
    """What a piece weighs that nobody weighed, from its measures as far as they go, else as usual for its kind [g].

    Parameters: kind, shape [-]; diameter_mm, thickness_mm, length_mm [mm] or None.

    >>> round(usual_weight_g("salame", "cylinder", 58, None, 300))
    832
    """
    across = thickness_mm if shape == "slab" and thickness_mm else diameter_mm or thickness_mm
    if across is None:
        return _USUAL_G[kind]
    usual_across: float = _FROM_WEIGHT_MM[kind] * (_USUAL_G[kind] / 1000) ** (1 / 3)
    if shape == "slab":  # a thicker slab need not be a longer one
        return _USUAL_G[kind] * across / usual_across
    if length_mm is None:
        return _USUAL_G[kind] * (across / usual_across) ** 3
    fill = 1.0 if shape == "cylinder" else 0.8
    return math.pi * across**2 / 4 * length_mm * fill * MEAT_DENSITY_KG_M3 / 1e6


def one_faced(shape: Shape, skin: bool | None) -> float:
    """How many times thicker a piece dries for the skin on one of its faces [-]. Parameters: shape; skin.

    >>> one_faced("slab", False), one_faced("slab", True)
    (1.0, 1.8)
    """
    if not skin:
        return 1.0
    return SKIN_ON_SLAB if shape == "slab" else SKIN_ON_OTHER
