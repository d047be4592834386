"""What goes into the bowl: salt and curing salt in grams, what they bring, blends of lean and fat, scale errors."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from .errors import OutOfRangeError, require
from .limits import NITRATE_ION_SHARE, NITRITE_ION_SHARE

SaltBasis = Literal["inclusive", "exact", "on_top"]
LineBasis = Literal["percent", "per_kg", "absolute", "fixed"]

MAX_MEAT_G = 900_000.0  # grams; more is a slip of the hand, or no workshop of this kind
MAX_SALT_PERCENT = 15.0  # of the meat; more is a slip of the hand
TOO_COARSE_PERCENT = 5.0  # worst rounding error from which a scale is too coarse for salt, curing salt or culture
SCALES_G = (5.0, 1.0, 0.1, 0.01)  # resolutions that makers own, coarse to fine


@dataclass(frozen=True)
class Formulation:
    """Grams of plain and curing salt, the true sodium chloride, and ingoing nitrite and nitrate per kg of meat."""

    curing_salt_g: float
    plain_salt_g: float
    sodium_chloride_percent_of_meat: float
    nitrite_mg_per_kg_meat: float
    nitrite_ion_mg_per_kg_meat: float
    nitrate_mg_per_kg_meat: float
    nitrate_ion_mg_per_kg_meat: float


def sodium_chloride_g(curing_salt_g: float, nitrite_fraction: float, nitrate_fraction: float) -> float:
    """The common salt in a curing salt [g]. Parameters: curing_salt_g [g]; nitrite_fraction, nitrate_fraction [-].

    >>> round(sodium_chloride_g(10, 0.0625, 0.04), 3)
    8.975
    """
    return curing_salt_g * (1 - nitrite_fraction - nitrate_fraction)


def formulate(
    meat_g: float,
    salt_percent: float,
    curing_salt_percent: float,
    nitrite_fraction: float,
    nitrate_fraction: float,
    salt_basis: SaltBasis,
) -> Formulation:
    """Salt and curing salt for a meat block, and what they bring into it.

    Parameters: meat_g [g] above 0; salt_percent [%] 0…15 of the meat; curing_salt_percent [%] 0…15 of the meat;
    nitrite_fraction, nitrate_fraction [-], sodium nitrite and nitrate in the curing salt, together at most 1;
    salt_basis [-], what salt_percent covers: the curing salt whole (inclusive), its sodium chloride (exact),
    nothing of it (on_top).
    Equation: ingoing = 10⁶ · grams · fraction / meat. Source: inspectors' calculations handbook (9 CFR 424).
    Raises OutOfRangeError, also when the curing salt alone is more than the salt wanted.

    >>> round(formulate(6120, 2.6, 0.25, 0.0625, 0.04, "inclusive").plain_salt_g, 6)
    143.82
    """
    require("meat", meat_g, 0.0, MAX_MEAT_G, "g", open_low=True)
    require("salt", salt_percent, 0.0, MAX_SALT_PERCENT, "%")
    require("curing salt", curing_salt_percent, 0.0, MAX_SALT_PERCENT, "%")
    require("nitrite in the curing salt", nitrite_fraction, 0.0, 1.0, "parts of 1")
    require("nitrate in the curing salt", nitrate_fraction, 0.0, 1.0 - nitrite_fraction, "parts of 1")
    curing_g = meat_g * curing_salt_percent / 100
    common_g = sodium_chloride_g(curing_g, nitrite_fraction, nitrate_fraction)
    covered_g = {"inclusive": curing_g, "exact": common_g, "on_top": 0.0}
    if salt_basis not in covered_g:
        raise OutOfRangeError("refused.salt_basis", got=salt_basis)
    plain_g = meat_g * salt_percent / 100 - covered_g[salt_basis]
    if plain_g < -1e-9 * meat_g:
        raise OutOfRangeError(
            "refused.curing_salt_covers_more", curing_salt_percent=curing_salt_percent, salt_percent=salt_percent
        )
    plain_g = max(plain_g, 0.0)
    nitrite = 1e6 * curing_g * nitrite_fraction / meat_g
    nitrate = 1e6 * curing_g * nitrate_fraction / meat_g
    return Formulation(
        curing_salt_g=curing_g,
        plain_salt_g=plain_g,
        sodium_chloride_percent_of_meat=100 * (plain_g + common_g) / meat_g,
        nitrite_mg_per_kg_meat=nitrite,
        nitrite_ion_mg_per_kg_meat=nitrite * NITRITE_ION_SHARE,
        nitrate_mg_per_kg_meat=nitrate,
        nitrate_ion_mg_per_kg_meat=nitrate * NITRATE_ION_SHARE,
    )


@dataclass(frozen=True)
class Part:
    """One part of the meat block; fat as share of the part, counted as pure fat."""

    weight_g: float
    fat_percent: float


@dataclass(frozen=True)
class Blend:
    """A meat block put together."""

    meat_g: float
    fat_percent: float


def blend(parts: Sequence[Part]) -> Blend:
    """Weight and fat share of a meat block.

    Parameters: parts, one at least, each weight_g [g] 0 or more and fat_percent [%] 0…100. Raises OutOfRangeError.
    Equation: fat = Σ w·f / Σ w.

    >>> blend([Part(4200, 8), Part(1300, 85)]).meat_g
    5500
    """
    for part in parts:
        require("weight of a part", part.weight_g, 0.0, MAX_MEAT_G, "g")
        require("fat of a part", part.fat_percent, 0.0, 100.0, "%")
    meat_g = sum(part.weight_g for part in parts)
    require("meat", meat_g, 0.0, MAX_MEAT_G, "g", open_low=True)
    return Blend(meat_g, sum(part.weight_g * part.fat_percent for part in parts) / meat_g)


@dataclass(frozen=True)
class TwoPart:
    """How much of the fat and of the lean part makes the blend."""

    fat_part_g: float
    lean_part_g: float


def two_part_blend(
    lean_fat_percent: float, fat_fat_percent: float, target_fat_percent: float, total_g: float
) -> TwoPart:
    """Grams of a lean and a fat part for a wanted fat share.

    Parameters: lean_fat_percent, fat_fat_percent, target_fat_percent [%] 0…100, the target between the two;
    total_g [g] above 0. Raises OutOfRangeError.
    Equation: fat part = total · (target − lean)/(fat − lean).

    >>> round(two_part_blend(8, 85, 25, 6000).fat_part_g, 3)
    1324.675
    """
    require("fat of the lean part", lean_fat_percent, 0.0, 100.0, "%")
    require("fat of the fat part", fat_fat_percent, 0.0, 100.0, "%")
    require("total", total_g, 0.0, MAX_MEAT_G, "g", open_low=True)
    low, high = sorted((lean_fat_percent, fat_fat_percent))
    if not low <= target_fat_percent <= high or low == high:
        raise OutOfRangeError("refused.fat_between_parts", low=low, high=high, value=target_fat_percent)
    share = (target_fat_percent - lean_fat_percent) / (fat_fat_percent - lean_fat_percent)
    fat_g = total_g * min(max(share, 0.0), 1.0)  # rounding must not leave less than nothing of a part
    return TwoPart(fat_g, total_g - fat_g)


def blend_to_fat(parts: Sequence[Part], target_fat_percent: float) -> list[Part]:
    """Shift a meat block to a wanted fat share at the same total: the fattest part against the rest in their ratios.

    Parameters: parts, two at least, of different fat; target_fat_percent [%]. Raises OutOfRangeError.

    >>> [round(p.weight_g) for p in blend_to_fat([Part(4000, 8), Part(2000, 85)], 25)]
    [4675, 1325]
    """
    whole = blend(parts)
    fattest = max(range(len(parts)), key=lambda i: parts[i].fat_percent)
    rest = [part for i, part in enumerate(parts) if i != fattest]
    lean = blend(rest) if sum(part.weight_g for part in rest) > 0 else None
    if lean is None:
        raise OutOfRangeError("refused.no_second_part")
    made = two_part_blend(lean.fat_percent, parts[fattest].fat_percent, target_fat_percent, whole.meat_g)
    scale = made.lean_part_g / lean.meat_g
    return [
        Part(made.fat_part_g if i == fattest else part.weight_g * scale, part.fat_percent)
        for i, part in enumerate(parts)
    ]


def worst_rounding_error(grams: float, scale_resolution_g: float) -> float:
    """Worst error of one weighing by the rounding of its scale [%].

    Parameters: grams [g] above 0; scale_resolution_g [g] above 0…1000. Raises OutOfRangeError.
    Equation: resolution/2 / grams.

    >>> round(worst_rounding_error(2.2, 1.0), 3)
    22.727
    """
    require("weight", grams, 0.0, MAX_MEAT_G, "g", open_low=True)
    require("resolution of the scale", scale_resolution_g, 0.0, 1000.0, "g", open_low=True)
    return 100 * scale_resolution_g / 2 / grams


def scale_needed(grams: float, worst_percent: float = TOO_COARSE_PERCENT) -> float:
    """The coarsest usual scale that weighs an amount well enough: its resolution [g]; the finest if none does.

    Parameters: grams [g] above 0; worst_percent [%] above 0, error that may be. Raises OutOfRangeError.

    >>> scale_needed(15.3), scale_needed(2.2)
    (1.0, 0.1)
    """
    require("error that may be", worst_percent, 0.0, 100.0, "%", open_low=True)
    return next((s for s in SCALES_G if worst_rounding_error(grams, s) <= worst_percent), SCALES_G[-1])


def line_grams(amount: float, basis: LineBasis, meat_g: float) -> float:
    """Grams of a line of the sheet.

    Parameters: amount [in its basis]; basis: percent of the meat [%], per_kg dose [g/kg], absolute or fixed [g];
    meat_g [g] above 0. An absolute line follows when the whole sheet is scaled, a fixed one never does.
    Raises OutOfRangeError.

    >>> line_grams(0.3, "percent", 5000), line_grams(0.2, "per_kg", 5000), line_grams(7, "absolute", 5000)
    (15.0, 1.0, 7)
    """
    require("meat", meat_g, 0.0, MAX_MEAT_G, "g", open_low=True)
    most = {"percent": 100.0, "per_kg": 1000.0}.get(basis, MAX_MEAT_G)
    unit = {"percent": "%", "per_kg": "g/kg"}.get(basis, "g")
    require("amount", amount, 0.0, most, unit)
    return {"percent": amount * meat_g / 100, "per_kg": amount * meat_g / 1000}.get(basis, amount)


def line_amount(grams: float, basis: LineBasis, meat_g: float) -> float:
    """The amount in its basis that stands for grams; the inverse of line_grams.

    Parameters: grams [g] 0 or more; basis [-]; meat_g [g] above 0. Raises OutOfRangeError.

    >>> line_amount(15, "percent", 5000)
    0.3
    """
    require("meat", meat_g, 0.0, MAX_MEAT_G, "g", open_low=True)
    require("weight", grams, 0.0, MAX_MEAT_G, "g")
    return {"percent": grams * 100 / meat_g, "per_kg": grams * 1000 / meat_g}.get(basis, grams)


@dataclass(frozen=True)
class Acid:
    """What the sugar can do at most."""

    lactic_acid_mmol_per_kg: float
    end_ph_if_all_used: float


DEXTROSE_G_MOL = 180.156  # molar mass [g/mol]
BUFFER_MMOL_PER_KG_PER_PH = 55.0  # of meat, usual


def acid_ceiling(
    dextrose_g_per_kg: float, start_ph: float, buffer_mmol_per_kg_per_ph: float = BUFFER_MMOL_PER_KG_PER_PH
) -> Acid:
    """The lowest pH that the sugar allows, if all of it turns to lactic acid; a bound, not a forecast.

    Parameters: dextrose_g_per_kg [g/kg] 0…100; start_ph [-] 4…8; buffer_mmol_per_kg_per_ph [mmol/kg] 20…120.
    Equation: one mole of dextrose gives two of lactic acid; ΔpH = acid / buffer. Raises OutOfRangeError.

    >>> round(acid_ceiling(3, 5.8, 55).end_ph_if_all_used, 3)
    5.194
    """
    require("dextrose", dextrose_g_per_kg, 0.0, 100.0, "g/kg")
    require("start pH", start_ph, 4.0, 8.0, "")
    require("buffer", buffer_mmol_per_kg_per_ph, 20.0, 120.0, "mmol/kg per pH")
    acid = 2000 * dextrose_g_per_kg / DEXTROSE_G_MOL
    return Acid(acid, start_ph - acid / buffer_mmol_per_kg_per_ph)


def pieces_from(mass_g: float, piece_g: float) -> int:
    """How many pieces a mass makes, the last one smaller.

    Parameters: mass_g [g] above 0; piece_g [g] above 0, filled weight of one. Raises OutOfRangeError.

    >>> pieces_from(6400, 900)
    8
    """
    require("mass", mass_g, 0.0, math.inf, "g", open_low=True)
    require("weight of a piece", piece_g, 0.0, math.inf, "g", open_low=True)
    return math.ceil(mass_g / piece_g - 1e-9)


def cost_per_kg(cost: float, finished_g: float) -> float:
    """Cost of a kilogram of finished goods [money/kg].

    Parameters: cost [money] 0 or more, of all that went in; finished_g [g] above 0. Raises OutOfRangeError.

    >>> cost_per_kg(40.0, 4000)
    10.0
    """
    require("cost", cost, 0.0, math.inf, "")
    require("finished weight", finished_g, 0.0, math.inf, "g", open_low=True)
    return cost / finished_g * 1000
