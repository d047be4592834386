"""What weighings teach: one Gaussian tree workshop → batch → piece, solved exactly by elimination.

Each piece's parameters are θ = μ + c + β + ε with c of the workshop, β of the batch, ε of the piece.
Weighings give a linearised information matrix and vector per piece; sums run up the tree, shares run down.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]


def marginal(information: Array, vector: Array, cov: Array) -> tuple[Array, Array]:
    """What is left on a sum once a part of it with mean 0 is integrated out.

    Parameters: information (…, p, p); vector (…, p); cov (…, p, p) of the part.
    """
    eye = np.eye(information.shape[-1])
    gain = np.linalg.inv(eye + information @ cov)
    return gain @ information, (gain @ vector[..., None])[..., 0]


def _posterior(information: Array, vector: Array, cov: Array) -> tuple[Array, Array]:
    """Mean and covariance of a part with prior N(0, cov) under information on it."""
    eye = np.eye(information.shape[-1])
    post = np.linalg.solve(eye + cov @ information, cov)
    post = (post + np.swapaxes(post, -1, -2)) / 2
    return (post @ vector[..., None])[..., 0], post


def root(cov: Array) -> Array:
    """A square root of covariances, so that root @ normals is a draw. Parameters: cov (…, p, p)."""
    values, vectors = np.linalg.eigh(cov)
    return np.asarray(vectors * np.sqrt(np.maximum(values, 0.0))[..., None, :])


@dataclass(frozen=True)
class Tree:
    """Prior covariances: workshop (p, p); batch (b, p, p); piece (n, p, p); batch index of each piece (n,)."""

    workshop_cov: Array
    batch_cov: Array
    piece_cov: Array
    batch_of: Ints

    def _upward(self, information: Array, vector: Array) -> tuple[Array, Array, Array, Array]:
        up_a, up_h = marginal(information, vector, self.piece_cov)
        batches, p = self.batch_cov.shape[:2]
        batch_a, batch_h = np.zeros((batches, p, p)), np.zeros((batches, p))
        np.add.at(batch_a, self.batch_of, up_a)
        np.add.at(batch_h, self.batch_of, up_h)
        top_a, top_h = marginal(batch_a, batch_h, self.batch_cov)
        return batch_a, batch_h, top_a.sum(axis=0), top_h.sum(axis=0)

    def workshop(self, information: Array, vector: Array) -> tuple[Array, Array]:
        """Posterior mean (p,) and covariance (p, p) of the workshop's part, which a batch to come shares.

        Parameters: information (n, p, p); vector (n, p).
        """
        _, _, top_a, top_h = self._upward(information, vector)
        return _posterior(top_a, top_h, self.workshop_cov)

    def mean(self, information: Array, vector: Array) -> Array:
        """Posterior mean of θ − μ, shape (n, p), from information (n, p, p) and vector (n, p) on θ − μ."""
        nothing = np.zeros((1, len(self.batch_of) + len(self.batch_cov) + 1, vector.shape[1]))
        return np.asarray(self.draw(information, vector, nothing)[0])

    def covariance(self, information: Array, vector: Array, index: int) -> Array:
        """Posterior covariance (p, p) of one piece's θ.

        Parameters: information (n, p, p); vector (n, p); index, of the piece.
        A draw is linear in its noise, so the noise that reaches the piece is sent through one direction at a time.
        """
        b, p = self.batch_cov.shape[:2]
        slots = (0, 1 + int(self.batch_of[index]), 1 + b + index)
        noise = np.zeros((1 + 3 * p, 1 + b + len(self.batch_of), p))
        for k in range(3 * p):
            noise[1 + k, slots[k // p], k % p] = 1.0
        found = self.draw(information, vector, noise)[:, index]
        columns = found[1:] - found[0]
        return np.asarray(columns.T @ columns)

    def draw(self, information: Array, vector: Array, noise: Array) -> Array:
        """Posterior draws of θ − μ, shape (s, n, p).

        Parameters: information (n, p, p); vector (n, p); noise: standard normals (s, 1 + b + n, p).
        """
        batch_a, batch_h, top_a, top_h = self._upward(information, vector)
        b = len(self.batch_cov)
        mean, cov = _posterior(top_a, top_h, self.workshop_cov)
        c = mean + noise[:, 0] @ root(cov).T  # (s, p)
        m0, cov_b = _posterior(batch_a, batch_h, self.batch_cov)
        # given c the batch's vector is less by its information times c
        shift = np.einsum("bij,bjk,sk->sbi", cov_b, batch_a, c)
        beta = m0 - shift + np.einsum("bij,sbj->sbi", root(cov_b), noise[:, 1 : b + 1])
        above = c[:, None, :] + beta  # (s, b, p)
        m1, cov_e = _posterior(information, vector, self.piece_cov)
        above_n = above[:, self.batch_of]
        pull = np.einsum("nij,snj->sni", cov_e @ information, above_n)
        return np.asarray(above_n + m1 - pull + np.einsum("nij,snj->sni", root(cov_e), noise[:, b + 1 :]))
