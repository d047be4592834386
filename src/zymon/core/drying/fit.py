"""What the weighings of a place say: Gauss-Newton passes that hold back what cannot be right."""

import numpy as np
import numpy.typing as npt

from .arrays import Arrays

Array = npt.NDArray[np.float64]

# Added to a weighing's sd, pass by pass, so that no good one is thrown out early
ANNEAL = (0.06, 0.02, 0.006, 0.0, 0.0)
OUTLIER_SHARE = 1 / 60
OUTLIER_WIDTH = 0.35  # spread of a mistaken weighing, loss fraction
UNUSUAL_PIECE = 40.0  # how much wider the prior of a piece becomes that its own weighings contradict together
STEPS = np.array([0.05, 0.05, 0.004, 0.05, 0.03])  # finite differences


def fit(c: Arrays) -> tuple[Array, Array, Array, Array]:
    """Fit the parameters of all pieces.

    Parameters: c, the arrays of a place. Returns θ (n, 5), information, vector, good share of weighings (w, n).
    """
    n, p = c.mean.shape
    if not c.w_mask.any():
        return c.mean.copy(), np.zeros((n, p, p)), np.zeros((n, p)), np.ones_like(c.w_loss)
    theta, information, vector, good, fitting = _passes(c)
    held = (c.w_mask & (fitting < 0.5)).sum(axis=0)
    unusual = (held >= 2) & (held > 0.4 * c.w_mask.sum(axis=0))
    unusual |= (c.w_sure & (fitting < 0.5)).any(axis=0)  # what a second reading confirmed widens what was believed
    if unusual.any():  # several weighings that agree against the prior: the piece is unusual, not the scale
        c.tree.piece_cov[unusual] *= UNUSUAL_PIECE
        theta, information, vector, good, _ = _passes(c)
    return theta, information, vector, good


def _passes(c: Arrays) -> tuple[Array, Array, Array, Array, Array]:
    """θ, information, vector, and how far each weighing is believed: as it counts, and by how it fits alone."""
    p = c.mean.shape[1]
    theta = c.mean.copy()
    for extra in ANNEAL:
        points = np.concatenate([theta[None], theta[None] + np.eye(p)[:, None, :] * STEPS[:, None, None]])
        at = c.losses_at_weighings(points)
        base = at[:, 0]
        slope = (at[:, 1:] - base[:, None]) / STEPS[:, None]  # (w, p, n)
        residual = c.w_loss - base
        sd = np.hypot(c.w_sd, extra)
        fits = (1 - OUTLIER_SHARE) * np.exp(-0.5 * (residual / sd) ** 2 / 1.5) / sd
        fitting = np.where(c.w_mask, fits / (fits + OUTLIER_SHARE / OUTLIER_WIDTH), 0.0)
        good = np.where(c.w_sure, 1.0, fitting)
        # heavy tails: a weighing that fits badly counts for less, one that cannot be right for nothing; what a second
        # reading confirmed counts fully
        tail = np.where(c.w_sure, 1.0, 5.0 / (4.0 + (residual / sd) ** 2))
        weight = good * tail / sd**2
        information = np.einsum("wpn,wn,wqn->npq", slope, weight, slope)
        aim = residual + np.einsum("wpn,np->wn", slope, theta - c.mean)
        vector = np.einsum("wpn,wn,wn->np", slope, weight, aim)
        theta = c.mean + c.tree.mean(information, vector)
    return theta, information, vector, good, fitting
