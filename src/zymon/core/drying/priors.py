"""What is known of a piece before it is ever weighed, and how far pieces, batches and workshops differ.

The five parameters that the weighings may move, in this order everywhere:
ln permeance, ln diffusivity, water fraction, ln half-diffusion point, trend of the pace.
Estimate: set from the order of magnitude in the literature and fitted by kind to dense weight curves of
simulated hangings of several physics; see docs/forecast.md.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..water import TYPICAL_SALT_PERCENT
from .geometry import Body, Kind, Shape

Array = npt.NDArray[np.float64]

PARAMETERS = ("ln_permeance", "ln_diffusivity", "water_fraction", "ln_half_diffusion_x", "trend")
WATER_IN_LEAN = 0.745  # mass fraction; usual of lean pork and beef


@dataclass(frozen=True)
class KindPrior:
    """Typical transport of a kind of goods, and its fat share where none is declared."""

    permeance_1e8: float  # kg/(m² s Pa) · 10⁻⁸, bare
    diffusivity_1e10: float  # m²/s · 10⁻¹⁰ at 12 °C
    fat_percent: float
    fat_sd: float
    half_diffusion_x: float  # water per dry matter at which diffusivity has halved
    water_beyond_lean: float  # kg/kg that the goods hold beyond the water of their lean: fat tissue, wine
    target_loss_percent: float  # that most hang for, where nobody set one
    spread: float = 1.0  # how far its batches and pieces differ; 1 as usual, less for goods made to a measure


# Estimates, of which docs/benchmarks.md says how they fare; fat and losses as practitioners usually have them
KINDS: dict[Kind, KindPrior] = {
    "salame": KindPrior(0.71, 1.29, 25, 6, 0.33, 0.011, 35, spread=0.75),
    "whole_muscle": KindPrior(0.81, 1.05, 7, 5, 0.34, 0.004, 35, spread=1.05),
    "thin_sausage": KindPrior(0.53, 0.96, 28, 6, 0.31, 0.018, 40),
    "belly": KindPrior(0.48, 0.45, 43, 6, 0.41, 0.0, 27),
    "breast": KindPrior(0.96, 0.90, 21, 6, 0.37, 0.004, 30),
    "ham": KindPrior(1.2, 1.65, 12, 5, 0.41, 0.0, 33),
    "coated": KindPrior(0.82, 1.07, 12, 5, 0.39, 0.002, 30),
}
# An irregular muscle is thin somewhere and thick elsewhere: it starts fast and slows early. In terms of one
# equivalent body that is a leaky rim round a slow inside.
IRREGULAR_PERMEANCE, IRREGULAR_DIFFUSIVITY = 3.9, 0.51
FLAT_PERMEANCE = 1.4  # a flat muscle is uneven too, though less
# Its thick parts go on drying where such a body would have slowed; its pace is freer, as no one body is quite like it
IRREGULAR_USUAL_TREND, IRREGULAR_TREND = 0.15, 1.9
IRREGULAR_SPREAD = 1.12  # and how far its batches and pieces differ, against goods with one measure all along
CASINGS: dict[str, float] = {
    "none": 1.05, "natural": 1.0, "fibrous": 0.93, "collagen": 0.95, "cloth": 0.95, "membrane": 0.8, "coating": 0.6,
}  # fmt: skip

SIZE = np.array([-1.0, -2.0, 0.0, 0.0, 0.0])  # what a thicker body does: ln of time goes with −permeance, −diffusivity
DECLARED_FAT_SD = 4.0  # how far a declared fat share may be off, points

# One standard deviation of each parameter. Chambers differ in their air, and workshops in the meat they buy, by more
# than the batches of one do.
WORKSHOP_SD = np.array([0.20, 0.11, 0.0, 0.0, 0.06])
USUAL_TREND = -0.05  # goods slow a little more in their first weeks than one body of even meat does; estimate
# The trend is shared by a batch more than a piece has one of its own: what no physics here knows of a recipe.
BATCH_SD = np.array([0.16, 0.14, 0.009, 0.07, 0.13])
PACE_TOGETHER = 0.25  # correlation in a batch of permeance and diffusivity: loose meat lets its water go at the rim too
PIECE_SD = np.array([0.09, 0.06, 0.004, 0.02, 0.05])


@dataclass(frozen=True)
class PiecePrior:
    """Mean of the five parameters, and covariances at batch and piece level, shapes (5,), (5, 5), (5, 5)."""

    mean: Array
    batch_cov: Array
    piece_cov: Array
    fat_fraction: float
    salt_fraction: float


def piece_prior(
    kind: Kind,
    shape: Shape,
    casing: str,
    body: Body,
    fat_percent: float | None,
    salt_percent: float | None,
    ln_air: float = 0.0,
) -> PiecePrior:
    """Prior of one piece from what is declared; what is not declared widens it.

    Parameters: kind, shape, casing [-]; body; fat_percent, salt_percent [%] or None;
    ln_air [-], ln of the air of the place against gently moved air.
    """
    typical = KINDS[kind]
    fat = typical.fat_percent if fat_percent is None else fat_percent
    permeance = typical.permeance_1e8 * CASINGS[casing] * float(np.exp(ln_air))
    diffusivity = typical.diffusivity_1e10
    if shape == "irregular":
        permeance *= IRREGULAR_PERMEANCE
        diffusivity *= IRREGULAR_DIFFUSIVITY
    elif shape == "slab" and kind == "whole_muscle":
        permeance *= FLAT_PERMEANCE
    mean = np.array(
        [
            np.log(permeance * 1e-8),
            np.log(diffusivity * 1e-10),
            WATER_IN_LEAN * (1 - fat / 100) + typical.water_beyond_lean,
            np.log(typical.half_diffusion_x),
            IRREGULAR_USUAL_TREND if shape == "irregular" else USUAL_TREND,
        ]
    )
    batch_cov = np.diag(BATCH_SD**2)
    batch_cov[0, 1] = batch_cov[1, 0] = PACE_TOGETHER * BATCH_SD[0] * BATCH_SD[1]
    fat_sd = typical.fat_sd if fat_percent is None else DECLARED_FAT_SD
    batch_cov[2, 2] += (WATER_IN_LEAN * fat_sd / 100) ** 2 * 0.6
    size = SIZE * body.size_sd
    batch_cov += np.outer(size, size) * 0.6
    piece_cov = np.diag(PIECE_SD**2) + np.outer(size, size) * 0.4
    if shape == "irregular":
        batch_cov[4, 4] *= IRREGULAR_TREND**2
        piece_cov[4, 4] *= IRREGULAR_TREND**2
    salt = TYPICAL_SALT_PERCENT if salt_percent is None else salt_percent
    spread = typical.spread * (IRREGULAR_SPREAD if shape == "irregular" else 1.0)
    return PiecePrior(mean, batch_cov * spread**2, piece_cov * spread**2, fat / 100, salt / 100)
