"""How long wanted pieces would hang, drawn together: the workshop's part alike, each piece's part its own."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import numpy.typing as npt

from ..drying.arrays import Arrays, Future, crossing
from ..drying.draws import even_normals
from ..drying.forecast import DRAWS, DRIFT_SD, IRREGULAR_DRIFT_SD, Fitted, horizon_s
from ..drying.history import Piece
from ..drying.learn import root
from ..errors import OutOfRangeError

Array = npt.NDArray[np.float64]

MOST_PIECES = 200
TRIES = 6  # of the part of a piece that makers' targets rule out, until the most believable is taken


def hanging_times(of: Fitted, wanted: Sequence[Piece], hang_s: float, draws: int = DRAWS) -> Array:
    """How long each wanted piece hangs until its target in each future [s]; inf where it never gets there.

    All of them are one batch, hung at one time in the air of a place, of which its weighings have told what they can.
    A row is one future: of workshop, batch and air for all pieces alike, and for each piece of its own meat.

    Parameters: of, the fitted place; wanted, each with a target; hang_s [s], not before now; draws [-], even.
    Returns shape (draws, pieces). Raises OutOfRangeError for none, for too many, and for a time that has gone by.
    """
    if not 1 <= len(wanted) <= MOST_PIECES:
        raise OutOfRangeError("refused.planned_pieces", most=MOST_PIECES)
    if hang_s < of.arrays.now_s:
        raise OutOfRangeError("refused.planned_past")
    pieces = tuple(replace(p, batch="planned", hung_at_s=hang_s, weighings=(), stays=(), feels=()) for p in wanted)
    c = Arrays(pieces, of.arrays.air, of.arrays.now_s, hook_air=of.arrays.hook_air)
    n, p = c.mean.shape
    noise = even_normals(draws, 2 * p + 3)
    mean, cov = of.arrays.tree.workshop(of.information, of.vector)
    alike = mean + noise[:, :p] @ root(cov).T + noise[:, p : 2 * p] @ root(c.tree.batch_cov[0]).T
    theta = _believable(c, alike, draws)
    ahead = noise[:, -3:] * (c.air.sd_c, c.air.sd_rh_percent, 1.0)
    offset_c, offset_rh, drift = np.repeat(ahead, n, axis=0).T
    drift_sd = np.array([IRREGULAR_DRIFT_SD if piece.shape == "irregular" else DRIFT_SD for piece in pieces])
    future = Future(offset_c, offset_rh, drift * np.tile(drift_sd, draws))
    loss = c.run(theta, future).loss.reshape(-1, draws, n)
    cross = crossing(np.repeat(c.time_s[:, None], draws, axis=1), loss, c.target)
    return np.asarray(np.where(cross <= horizon_s(c), cross, np.inf))


def _believable(c: Arrays, alike: Array, draws: int) -> Array:
    """Parameters of every piece in every future, (draws, n, p): its own part is drawn until its target can be meant."""
    n, p = c.mean.shape
    best, best_weight = np.zeros((draws, n, p)), np.zeros((draws, n))
    settled = np.zeros((draws, n), dtype=bool)
    roots = root(c.tree.piece_cov)
    for go in range(TRIES):
        own = np.stack([_own(draws, p, piece, go) for piece in range(n)], axis=1)  # (draws, n, p)
        theta = c.mean + alike[:, None] + np.einsum("nij,snj->sni", roots, own)
        weight = c.reachable(theta)
        accepted = weight >= np.random.default_rng((go, 1)).random((draws, MOST_PIECES))[:, :n]
        taken = ~settled & (accepted | (weight > best_weight))
        best[taken], best_weight[taken] = theta[taken], weight[taken]
        settled |= accepted
    return best


def _own(draws: int, p: int, piece: int, go: int) -> Array:
    """Normals of one piece, (draws, p), which no other piece shares; the same whoever is planned beside it."""
    order = np.random.default_rng((piece, go, 2)).permuted(np.tile(np.arange(draws), (p, 1)), axis=1).T
    return np.asarray(np.take_along_axis(even_normals(draws, p), order, axis=0))
