"""Simulated pieces: how they truly dry in a climate, and what a scale shows of it."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from zymon.core.constants import MEAT_DENSITY_KG_M3
from zymon.core.drying.climate import Log, expected_air
from zymon.core.drying.geometry import body_of
from zymon.core.drying.history import Piece
from zymon.core.drying.priors import WATER_IN_LEAN, piece_prior
from zymon.core.drying.transport import Bodies, Drivers, dry
from zymon.core.water import sorption_x

Array = npt.NDArray[np.float64]
DAY_S = 86_400.0


@dataclass(frozen=True)
class Nature:
    """How a piece differs from the typical one of its kind (ln), and how much air its hook gets."""

    ln_permeance: float = 0.0
    ln_diffusivity: float = 0.0
    hook_air: float = 1.0


def true_loss(
    piece: Piece, nature: Nature, log: Log, days: float, air_at: Callable[[Array], Array] | None = None
) -> tuple[Array, Array]:
    """How a piece truly dries from its hanging on.

    Parameters: piece; nature; log of its place over those days; days [days]; air_at, the air at its hook against the
    usual [-] at times [s], None where it hung still.
    Returns times since hanging [s] and loss [share], shapes (121,).
    """
    body = body_of(piece.kind, piece.shape, piece.net_start_g, piece.diameter_mm, piece.thickness_mm, piece.length_mm)
    air = expected_air(log, None, None, float(log.time_s[-1]))
    prior = piece_prior(piece.kind, piece.shape, piece.casing, body, piece.fat_percent, piece.salt_percent)
    time_s = (np.linspace(0, 1, 121) ** 1.4 * days * DAY_S)[:, None]
    saturation, vapour, factor = air.means(time_s + piece.hung_at_s)
    one = np.ones(1)
    salt = prior.salt_fraction
    bodies = Bodies(
        body.half_thickness_m * one,
        body.curvature * one,
        prior.mean[2] * one,
        max((1 - WATER_IN_LEAN) * (1 - prior.fat_fraction), 0.05) * one + salt,
        MEAT_DENSITY_KG_M3 * one,
        np.exp(prior.mean[1] + nature.ln_diffusivity) * one,
        np.exp(prior.mean[0] + nature.ln_permeance) * nature.hook_air * one,
        sorption_x(np.array(salt * 100)) * one,
        np.exp(prior.mean[3]) * one,
    )
    middle_s = (time_s[1:] + time_s[:-1]) / 2 + piece.hung_at_s
    draught = np.ones_like(saturation) if air_at is None else air_at(middle_s)
    run = dry(bodies, Drivers(time_s, saturation, vapour, factor, np.ones_like(saturation), draught))
    return time_s[:, 0], run.loss[:, 0]


def scale_reading(gross_g: float, rng: np.random.Generator) -> float:
    """What a scale shows: rounded to 1 g below 3 kg, to 5 g above, with a little unsteadiness.

    Parameters: gross_g [g]; rng.
    """
    step = 1.0 if gross_g < 3000 else 5.0
    return float(round((gross_g + rng.normal(0, 0.6)) / step) * step)
