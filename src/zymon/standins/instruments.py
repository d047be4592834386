"""A simulated scale and a simulated pH meter: what they would show of a piece or a batch now."""

import zlib
from collections.abc import Mapping

import numpy as np
import numpy.typing as npt

from zymon.core.drying.climate import Log
from zymon.core.drying.history import Piece

from .goods import DAY_S, Nature, scale_reading, true_loss

Array = npt.NDArray[np.float64]
PH_ERROR = 0.02


def weighed(piece: Piece, log: Log, now_s: float, airs: Mapping[str, float]) -> float:
    """What a scale shows of a piece now [g], gross: it dried on from its last weight in the air of its hooks.

    Parameters: piece, with its believed weighings and stays; log of its place since it was hung; now_s [s];
    airs, of hooks by name where they truly differ [-].
    """
    rng = np.random.default_rng(zlib.crc32(f"{piece.tag} {now_s:.0f}".encode()))
    own = np.random.default_rng(zlib.crc32(piece.tag.encode()))
    nature = Nature(float(own.normal(0, 0.06)), float(own.normal(0, 0.05)))
    begins = np.array([stay.from_s for stay in piece.stays] or [piece.hung_at_s])
    air = np.array([airs.get(stay.hook, 1.0) for stay in piece.stays] or [1.0])

    def air_at(at_s: Array) -> Array:
        return np.asarray(air[np.clip(np.searchsorted(begins, at_s, side="right") - 1, 0, None)])

    days = max((now_s - piece.hung_at_s) / DAY_S, 0.05)
    time_s, loss = true_loss(piece, nature, log, days, air_at)
    lost = float(loss[-1])
    if piece.weighings:
        last = piece.weighings[-1]
        then = float(np.interp(last.at_s - piece.hung_at_s, time_s, loss))
        lost += piece.loss_fraction(last.gross_g) - then
    return scale_reading(piece.gross_at(max(lost, 0.0)), rng)


def dipped(ph: float, at_s: float) -> float:
    """What a pH meter shows [-]. Parameters: ph, the true one; at_s [s], which makes its error."""
    rng = np.random.default_rng(int(at_s))
    return round(ph + float(rng.normal(0, PH_ERROR)), 2)
