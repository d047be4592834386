"""Water activity, water-phase salt and keeping of a piece along its drying, corrected by what a laboratory found."""

from dataclasses import dataclass

from .errors import OutOfRangeError, require
from .water import (
    DRY_IN_LEAN,
    ESTIMATE_SD,
    PROTEIN_IN_LEAN,
    WATER_IN_LEAN,
    KeepClass,
    WaterActivity,
    brine_in_meat,
    keep_class,
    meat_water_activity,
)

FAR_POINTS = 15.0  # of loss, from which a measurement tells little more
LAB_SD = 0.004  # of a water activity measured once
FOLLOWS = 0.6  # how much of what one measurement found holds for other losses; estimate


@dataclass(frozen=True)
class Keeping:
    """The goods at a loss. Water activity with one standard deviation."""

    loss_percent: float
    water_activity: float
    water_activity_sd: float
    water_phase_salt_percent: float
    moisture_protein_ratio: float
    keeps: KeepClass


@dataclass(frozen=True)
class LabActivity:
    """A water activity from a laboratory, and the loss the piece had then [%]."""

    loss_percent: float
    water_activity: float


def keeping_at(
    fat_percent: float, salt_percent: float, loss_percent: float, ph: float | None, lab: LabActivity | None = None
) -> Keeping:
    """The goods after a loss.

    Parameters: fat_percent [%] 0…70; salt_percent [%] of the meat; loss_percent [%] 0…65; ph or None; lab, the latest
    laboratory value or None: at its own loss it is taken as it is, elsewhere it shifts the estimate.
    Equations: water and protein from the fat-free part, brine by Pitzer; the class by the upper value. Raises
    OutOfRangeError.

    >>> keeping_at(25, 2.7, 35, 5.1).keeps
    'no_chill'
    """
    made = _estimate(fat_percent, salt_percent, loss_percent)
    value, sd = made.value, made.sd
    if lab is not None:
        require("water activity", lab.water_activity, 0.5, 1.0, "")
        shift = lab.water_activity - _estimate(fat_percent, salt_percent, lab.loss_percent).value
        apart = min(abs(loss_percent - lab.loss_percent) / FAR_POINTS, 1.0)
        value += shift * (1 - (1 - FOLLOWS) * apart)
        sd = LAB_SD + (ESTIMATE_SD - LAB_SD) * 0.7 * apart
    value = min(max(value, 0.5), 0.995)
    water_g, lean_g = _water_and_lean(fat_percent, loss_percent)
    return Keeping(
        loss_percent=loss_percent,
        water_activity=value,
        water_activity_sd=sd,
        water_phase_salt_percent=brine_in_meat(salt_percent, water_g).water_phase_salt_percent,
        moisture_protein_ratio=water_g / (PROTEIN_IN_LEAN * lean_g),
        keeps=keep_class(WaterActivity(value, sd).upper, ph),
    )


def _water_and_lean(fat_percent: float, loss_percent: float) -> tuple[float, float]:
    """Water left and lean, per 100 g of start weight."""
    require("fat", fat_percent, 0.0, 70.0, "%")
    require("loss", loss_percent, 0.0, 65.0, "%")
    lean_g = 100 - fat_percent
    water_g = WATER_IN_LEAN * lean_g - loss_percent
    if not water_g > 0:
        raise OutOfRangeError("refused.loss_over_water", most=round(WATER_IN_LEAN * lean_g, 1))
    return water_g, lean_g


def _estimate(fat_percent: float, salt_percent: float, loss_percent: float) -> WaterActivity:
    water_g, lean_g = _water_and_lean(fat_percent, loss_percent)
    return meat_water_activity(salt_percent, water_g, DRY_IN_LEAN * lean_g)


def losses_to(target_percent: float) -> tuple[float, ...]:
    """Losses worth showing on the way to a target and a little past it [%]. Parameters: target_percent [%].
    Raises OutOfRangeError for a target past 65 %, where the water curves end.

    >>> losses_to(35.0)
    (0.0, 10.0, 20.0, 30.0, 35.0, 40.0)
    """
    steps = [float(x) for x in range(0, int(target_percent), 10)]
    if target_percent > 65:
        raise OutOfRangeError("refused.target_at_most", value=target_percent)
    return (*steps, target_percent, min(target_percent + 5, 65.0))
