"""What a piece weighs, should weigh, and is made of: tare, loss, target, casing, composition."""

import math
from dataclasses import dataclass

from .errors import OutOfRangeError, require

MAX_TARGET_LOSS_PERCENT = 80.0  # more water than meat has


def net_weight(gross_g: float, tare_g: float) -> float:
    """Net weight: gross less net, string and casing [g].

    Parameters: gross_g [g] above 0; tare_g [g] from 0, below gross. Raises OutOfRangeError.

    >>> net_weight(842, 11)
    831
    """
    require("weight", gross_g, 0.0, math.inf, "g", open_low=True)
    require("tare", tare_g, 0.0, math.inf, "g")
    if tare_g >= gross_g:
        raise OutOfRangeError("refused.tare_over_weight", gross_g=gross_g, tare_g=tare_g)
    return gross_g - tare_g


@dataclass(frozen=True)
class Target:
    """What the scale must show when the piece is done."""

    target_gross_g: float
    target_net_g: float


def target_weight(start_gross_g: float, tare_g: float, target_loss_percent: float) -> Target:
    """Weight at which a piece is done.

    Parameters: start_gross_g [g]; tare_g [g]; target_loss_percent [%] above 0…80, of the net start weight.
    Equation: net = (start − tare)·(1 − loss/100); gross = net + tare. Raises OutOfRangeError.

    >>> target_weight(3240, 46, 38).target_gross_g
    2026.28
    """
    require("target loss", target_loss_percent, 0.0, MAX_TARGET_LOSS_PERCENT, "%", open_low=True)
    net_g = net_weight(start_gross_g, tare_g) * (1 - target_loss_percent / 100)
    return Target(round(net_g + tare_g, 9), round(net_g, 9))


def tag_grams(target_gross_g: float) -> int:
    """What stands on the tag: the target to the gram [g].

    Parameters: target_gross_g [g] above 0. Halves go up, as on every scale that shows whole grams.

    >>> tag_grams(606.5), tag_grams(606.4)
    (607, 606)
    """
    require("target", target_gross_g, 0.0, math.inf, "g", open_low=True)
    return math.floor(target_gross_g + 0.5)


def at_target(gross_g: float, target_gross_g: float) -> bool:
    """Whether a reading of the scale is at the tag's gram or under it.

    Parameters: gross_g, the reading [g]; target_gross_g [g]. The maker reads the tag, so its gram decides.

    >>> at_target(607.0, 606.6), at_target(607.1, 606.6)
    (True, False)
    """
    return gross_g <= tag_grams(target_gross_g)


def sliced(start_gross_g: float, tare_g: float, before_gross_g: float, after_gross_g: float) -> float:
    """The gross start weight that keeps a piece's loss true after a slice was taken off [g].

    Parameters: start_gross_g, tare_g; before_gross_g, after_gross_g [g], weighed around the cut; the tare stays on.
    Equation: what is left of the net weight is what is left of its start. Raises OutOfRangeError.

    >>> sliced(1010, 10, 710, 640)
    910.0
    """
    before_g, after_g = net_weight(before_gross_g, tare_g), net_weight(after_gross_g, tare_g)
    if after_g >= before_g:
        raise OutOfRangeError("refused.slice_adds", after_gross_g=after_gross_g, before_gross_g=before_gross_g)
    return tare_g + net_weight(start_gross_g, tare_g) * after_g / before_g


def loss_percent(start_gross_g: float, tare_g: float, gross_g: float) -> float:
    """Share of the net start weight that is gone [%]; negative when the piece has gained.

    Parameters: start_gross_g, tare_g, gross_g [g]. Raises OutOfRangeError.

    >>> round(loss_percent(842, 11, 795), 2)
    5.66
    """
    return (1 - net_weight(gross_g, tare_g) / net_weight(start_gross_g, tare_g)) * 100


def target_by_basis(raw_g: float, cured_g: float, hung_net_g: float, target_loss_percent: float) -> dict[str, float]:
    """Net weight to reach when the loss is counted from the raw, the cured or the hung weight [g].

    Parameters: raw_g, cured_g, hung_net_g [g] above 0; target_loss_percent [%]. Raises OutOfRangeError.

    >>> target_by_basis(2460, 2391, 2430, 35)["raw"]
    1599.0
    """
    bases = {"raw": raw_g, "cured": cured_g, "hung": hung_net_g}
    return {name: target_weight(weight_g, 0.0, target_loss_percent).target_net_g for name, weight_g in bases.items()}


def filled_length(mass_g: float, diameter_mm: float, density_g_per_ml: float = 1.05) -> float:
    """Length of casing that a mass of mince fills, without ties [mm].

    Parameters: mass_g [g] above 0; diameter_mm [mm] above 0, filled; density_g_per_ml [g/ml] 0.8…1.3.
    Equation: m/ρ / (π d²/4). Raises OutOfRangeError.

    >>> round(filled_length(900, 60), 1)
    303.2
    """
    require("mass", mass_g, 0.0, math.inf, "g", open_low=True)
    require("diameter", diameter_mm, 0.0, 1000.0, "mm", open_low=True)
    require("density", density_g_per_ml, 0.8, 1.3, "g/ml")
    return mass_g / density_g_per_ml * 1000 / (math.pi * diameter_mm**2 / 4)


@dataclass(frozen=True)
class Composition:
    """Water before and after drying, per 100 g of start weight and of finished piece."""

    water_before_g_per_100g: float
    water_after_g_per_100g_start: float
    moisture_protein_ratio: float
    water_percent_of_finished: float


def composition(
    fat_percent: float, loss_percent: float, water_in_lean_percent: float = 75.0, protein_in_lean_percent: float = 21.0
) -> Composition:
    """Composition after a loss of water alone; fat tissue is counted as pure fat.

    Parameters: fat_percent [%] 0…below 100; loss_percent [%] 0…100; water_in_lean_percent [%] 50…85;
    protein_in_lean_percent [%] 10…30. Raises OutOfRangeError, also when the loss exceeds the water there is.

    >>> composition(30, 35).moisture_protein_ratio
    1.1904761904761905
    """
    require("fat", fat_percent, 0.0, 99.0, "%")
    require("loss", loss_percent, 0.0, 100.0, "%")
    require("water in lean", water_in_lean_percent, 50.0, 85.0, "%")
    require("protein in lean", protein_in_lean_percent, 10.0, 30.0, "%")
    lean_share = 1 - fat_percent / 100
    before = water_in_lean_percent * lean_share
    after = before - loss_percent
    if after < 0 or loss_percent >= 100:
        raise OutOfRangeError("refused.loss_over_water_of_piece", most=round(before, 1), value=loss_percent)
    return Composition(
        before, after, after / (protein_in_lean_percent * lean_share), after / (100 - loss_percent) * 100
    )
