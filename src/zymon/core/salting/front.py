"""How salt moves into a muscle: shells of equal kind, exact in time between steps, many pieces side by side.

Source: Fick's second law in slab, cylinder and sphere (Crank, The Mathematics of Diffusion). The shells' equations are
solved by their own modes, so that a step may be of any length; what is outside and what is inside always sum up to
what was given.
"""

from dataclasses import dataclass
from functools import cache

import numpy as np
import numpy.typing as npt

from ..curing import Geometry

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

SHELLS = 28
TOWARDS_RIM = 1.7  # shells get thinner towards the rim, where the salt comes in
GEOMETRIES: tuple[Geometry, ...] = ("slab", "cylinder", "sphere")


@dataclass(frozen=True)
class Modes:
    """Modes of one geometry: rates (c,), shells from modes (c, c), push of the rim (c,), shell volumes (c,), radii."""

    rate: Array
    shells: Array
    push: Array
    volume: Array
    radius: Array


@cache
def modes_of(geometry: Geometry) -> Modes:
    """The modes of a geometry of half thickness or radius 1. Parameters: geometry."""
    power = GEOMETRIES.index(geometry)
    edge = 1 - (1 - np.linspace(0, 1, SHELLS + 1)) ** TOWARDS_RIM
    radius = (edge[1:] + edge[:-1]) / 2
    volume = np.diff(edge ** (power + 1))
    area = (power + 1) * edge**power
    inner = area[1:-1] / np.diff(radius)
    rim = area[-1] / (1 - radius[-1])
    flow = np.zeros((SHELLS, SHELLS))
    i = np.arange(SHELLS - 1)
    flow[i, i + 1] = flow[i + 1, i] = inner
    flow -= np.diag(flow.sum(axis=1))
    flow[-1, -1] -= rim
    root = np.sqrt(volume)
    rate, vectors = np.linalg.eigh(flow / root[:, None] / root[None, :])
    shells = vectors / root[:, None]
    push = vectors[-1] / root[-1] * rim
    return Modes(np.minimum(rate, -1e-12), shells, push, volume, radius)


@dataclass(frozen=True)
class Outside:
    """What the rim meets over each step, each (m, n): highest level at the rim [%], brine by volume of meat.

    `added` [% of the meat] is the salt that is laid on at the begin of a step; `free` marks steps with salt without
    end; `washed` marks the begin of a step at which everything outside is taken away.
    """

    ceiling: Array
    brine: Array
    added: Array
    free: npt.NDArray[np.bool_]
    washed: npt.NDArray[np.bool_]

    def repeated(self, times: int) -> "Outside":
        """The same for every piece several times, side by side. Parameters: times [-]."""
        ceiling, brine, added = (np.tile(a, times) for a in (self.ceiling, self.brine, self.added))
        return Outside(ceiling, brine, added, np.tile(self.free, times), np.tile(self.washed, times))


@dataclass(frozen=True)
class TakenUp:
    """Salt [%] by step: mean, centre and outside, each (m+1, n); modes (m+1, n, c), from which the shells come."""

    mean: Array
    centre: Array
    outside: Array
    modes: Array

    def shells(self, step: int, piece: int, geometry: Geometry) -> Array:
        """Salt of a piece's shells after a step, from the middle to the rim. Parameters: step, piece, geometry."""
        return np.asarray(modes_of(geometry).shells @ self.modes[step, piece])


def take_up(geometry: Ints, fourier: Array, outside: Outside) -> TakenUp:
    """Follow the salt of n pieces over m steps.

    Parameters: geometry (n,), index in GEOMETRIES; fourier (m+1, n) [-], rising from 0; outside, of each step.
    Where the dose is finite, mean + outside stays what was laid on, to the last digit.
    """
    all_modes = [modes_of(g) for g in GEOMETRIES]
    rate = np.array([m.rate for m in all_modes])[geometry]
    shells = np.array([m.shells for m in all_modes])[geometry]
    push = np.array([m.push for m in all_modes])[geometry]
    volume = np.array([m.volume for m in all_modes])[geometry]
    weight = np.einsum("nc,nck->nk", volume, shells)  # a mean out of modes
    steps, n = len(fourier) - 1, len(geometry)
    y = np.zeros((n, SHELLS))
    middle = shells[:, 0, :]
    mean, rest, centre = (np.zeros((steps + 1, n)) for _ in range(3))
    kept = np.zeros((steps + 1, n, SHELLS))
    for k in range(steps):
        left = np.where(outside.washed[k], 0.0, rest[k]) + outside.added[k]
        decay = np.exp(rate * (fourier[k + 1] - fourier[k])[:, None])
        stay = decay * y
        gain = (decay - 1) / rate * push
        drift = (weight * (stay - y)).sum(axis=1)  # what the inside would lose against a rim without salt
        per_level = (weight * gain).sum(axis=1)
        even = (left - drift) / np.maximum(outside.brine[k] + per_level, 1e-15)  # all dissolved, shared with the brine
        level = np.where(outside.free[k], outside.ceiling[k], np.minimum(outside.ceiling[k], even))
        still = per_level <= 1e-14  # no time passes
        level = np.where(still, 0.0, level)
        y = np.where(still[:, None], y, stay + gain * level[:, None])
        mean[k + 1] = (weight * y).sum(axis=1)
        rest[k + 1] = left - np.where(still, 0.0, mean[k + 1] - mean[k])
        centre[k + 1] = (middle * y).sum(axis=1)
        kept[k + 1] = y
    return TakenUp(mean, centre, rest, kept)
