"""How long wanted pieces would hang, drawn together: the workshop's part alike, each piece's part its own.

A forecast draws what is not known alike for every piece, so that a date does not move because a neighbour came. A plan
may not: of twelve pieces the slowest counts, and twelve are never all of the same meat.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from ..drying.arrays import Arrays, crossing
from ..drying.draws import even_normals
from ..drying.forecast import DRAWS, Change, Fitted, horizon_s, weeks_ahead
from ..drying.history import Piece
from ..drying.learn import root
from ..errors import OutOfRangeError

Array = npt.NDArray[np.float64]

MOST_PIECES = 200
TRIES = 6  # of the part of a piece that makers' targets rule out, until the most believable is taken


@dataclass(frozen=True)
class Hanging:
    """How wanted pieces would hang, for each of some days on which they are hung.

    takes_s (times, draws, pieces) [s] until the target, inf where it is never reached. lost_g (times, k), the water
    that all of them together have given up by `since_s` (times, k) [s] after they were hung, as is expected; a piece
    that is done is taken down.
    """

    takes_s: Array
    since_s: Array
    lost_g: Array


def hanging_times(
    place: Fitted, wanted: Sequence[Piece], hang_s: Sequence[float], batch: int = 0, draws: int = DRAWS
) -> Hanging:
    """How long each wanted piece hangs until its target in each future, hung at each of some times.

    All of them are one batch in the air of a place, of which its weighings have told what they can. A row is one
    future: of workshop, batch and air for all pieces alike, and for each piece of its own meat.

    Parameters: place, the fitted place; wanted, each with a target; hang_s [s], none before now; batch, its number
    among those planned together, each of which is a making of its own; draws [-], even.
    Raises OutOfRangeError for none, for too many, and for a time that has gone by.
    """
    if not 1 <= len(wanted) <= MOST_PIECES:
        raise OutOfRangeError("refused.planned_pieces", most=MOST_PIECES)
    if min(hang_s) < place.arrays.now_s:
        raise OutOfRangeError("refused.planned_past")
    bare = [replace(p, batch="planned", weighings=(), stays=(), feels=()) for p in wanted]
    pieces = tuple(replace(p, hung_at_s=float(at_s)) for at_s in hang_s for p in bare)
    c = Arrays(pieces, place.arrays.air, place.arrays.now_s, hook_air=place.arrays.hook_air)
    n, p = len(wanted), c.mean.shape[1]
    of_workshop, of_batch, ahead = _alike(draws, p, batch)
    mean, cov = place.arrays.tree.workshop(place.information, place.vector)
    alike = c.mean + (mean + of_workshop @ root(cov).T + of_batch @ root(c.tree.batch_cov[0]).T)[:, None]
    roots, same_meat = root(c.tree.piece_cov), np.arange(len(pieces)) % n  # hung later it is the same meat

    def thetas(go: int) -> Array:
        own = _own(draws, p, n, batch, go)[:, same_meat]
        return np.asarray(alike + np.einsum("nij,snj->sni", roots, own))

    theta = _believable(c, thetas, draws, same_meat)
    loss, cross = _run(c, theta, ahead * (c.air.sd_c, c.air.sd_rh_percent, 1.0))
    start_g = np.array([piece.net_start_g for piece in pieces])
    lost_g = np.minimum(loss, c.target).mean(axis=1) * start_g
    return Hanging(
        takes_s=cross.reshape(draws, len(hang_s), n).swapaxes(0, 1),
        since_s=c.time_s.T[::n],
        lost_g=lost_g.reshape(-1, len(hang_s), n).sum(axis=2).T,
    )


def still_to_hang(place: Fitted, pick: Sequence[int], batch: int = 0) -> Array:
    """When each of some hanging pieces gets to its target in each future [s], (draws, pieces); inf for never.

    As with wanted pieces what is not known of a piece is its own; what its weighings told counts.
    Parameters: place, the fitted place; pick, indices of pieces of one batch in its history; batch, its number.
    """
    c, whole = place.changed(pick, Change()), place.arrays
    draws, p = len(place.ahead), whole.mean.shape[1]
    of_workshop, of_batch, _ = _alike(draws, p, batch)
    batches = len(whole.tree.batch_cov)
    above = np.concatenate([of_workshop[:, None], of_batch[:, None].repeat(batches, axis=1)], axis=1)

    def thetas(go: int) -> Array:
        own = np.zeros((draws, len(whole.pieces), p))
        own[:, list(pick)] = _own(draws, p, len(pick), batch, go)
        drawn = whole.tree.draw(place.information, place.vector, np.concatenate([above, own], axis=1))
        return np.asarray((whole.mean + drawn)[:, list(pick)])

    _, cross = _run(c, _believable(c, thetas, draws, np.arange(len(pick))), place.ahead)
    return np.asarray(np.array([piece.hung_at_s for piece in c.pieces]) + cross)


def _run(c: Arrays, theta: Array, ahead: Array) -> tuple[Array, Array]:
    """Loss (k, draws, n) and when the target is passed (draws, n) [s], inf beyond the horizon."""
    draws, n = theta.shape[:2]
    loss = c.run(theta, weeks_ahead(c, ahead)).loss.reshape(-1, draws, n)
    cross = crossing(np.repeat(c.time_s[:, None], draws, axis=1), loss, c.target)
    return loss, np.asarray(np.where(cross <= horizon_s(c), cross, np.inf))


def _believable(c: Arrays, thetas: Callable[[int], Array], draws: int, piece_of: npt.NDArray[np.int64]) -> Array:
    """Parameters of every piece in every future, (draws, n, p): its own part is drawn until its target can be meant."""
    n, p = c.mean.shape
    best, best_weight = np.zeros((draws, n, p)), np.full((draws, n), -1.0)
    settled = np.zeros((draws, n), dtype=bool)
    for go in range(TRIES):
        theta = thetas(go)
        weight = c.reachable(theta)
        accepted = weight >= np.random.default_rng((go, 1)).random((draws, MOST_PIECES))[:, piece_of]
        taken = ~settled & (accepted | (weight > best_weight))
        best[taken], best_weight[taken] = theta[taken], weight[taken]
        settled |= accepted
        if settled.all():
            break
    return best


def _alike(draws: int, p: int, batch: int) -> tuple[Array, Array, Array]:
    """Normals of the workshop (draws, p), of a batch (draws, p), and of the air and pace ahead (draws, 3)."""
    noise = even_normals(draws, 2 * p + 3)
    of_batch = noise[:, p : 2 * p]
    return noise[:, :p], _shuffled(of_batch, (batch, 3)) if batch else of_batch, noise[:, -3:]


def _own(draws: int, p: int, pieces: int, batch: int, go: int) -> Array:
    """Normals that no piece shares with another, (draws, pieces, p); the same whoever is planned beside it."""
    even = even_normals(draws, p)
    return np.stack([_shuffled(even, (piece, go, 2, batch)) for piece in range(pieces)], axis=1)


def _shuffled(normals: Array, seed: tuple[int, ...]) -> Array:
    """The same values in another order, column by column. Parameters: normals (draws, p); seed."""
    ranks = np.tile(np.arange(len(normals)), (normals.shape[1], 1))
    order = np.random.default_rng(seed).permuted(ranks, axis=1).T
    return np.asarray(np.take_along_axis(normals, order, axis=0))
