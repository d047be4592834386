"""The chance to be in time for a start, and the latest start for a chance."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from ..errors import OutOfRangeError

Array = npt.NDArray[np.float64]

USUAL_CHANCE = 0.8
LOOK_EVERY_S = 7 * SECONDS_PER_DAY  # the air of a season changes no faster
LEAST_CHANCE, MOST_CHANCE = 0.05, 0.95  # beyond them a few dozen futures tell nothing


@dataclass(frozen=True)
class Starts:
    """What comes of starting at each of some times: how long it takes in each future until all of it is done.

    begin_s [s] (m,), rising; takes_s [s] (m, draws), from the start to the last piece at the table, inf for never.
    """

    begin_s: Array
    takes_s: Array

    def chances(self, by_s: float) -> Array:
        """The chance to be done by a time for each start (m,). Parameters: by_s [s]."""
        return np.asarray((self.begin_s[:, None] + self.takes_s <= by_s).mean(axis=1))

    def chance(self, start_s: float, by_s: float) -> float:
        """The chance to be done in time; futures of two starts beside it are taken in turn by how near they are.

        Parameters: start_s [s], within the times that were looked at; by_s [s]. Raises OutOfRangeError.
        """
        if not self.begin_s[0] <= start_s <= self.begin_s[-1]:
            raise OutOfRangeError("refused.planned_start")
        j = int(np.clip(np.searchsorted(self.begin_s, start_s, side="right") - 1, 0, max(len(self.begin_s) - 2, 0)))
        near = [(start_s + self.takes_s[k] <= by_s).mean() for k in (j, min(j + 1, len(self.begin_s) - 1))]
        width = self.begin_s[min(j + 1, len(self.begin_s) - 1)] - self.begin_s[j]
        share = 0.0 if width == 0 else (start_s - self.begin_s[j]) / width
        return float(near[0] * (1 - share) + near[1] * share)

    def latest(self, by_s: float, chance: float = USUAL_CHANCE) -> float | None:
        """The latest start with at least a chance to be done in time [s], to the day; None where no start has it.

        Parameters: by_s [s]; chance [-] 0.05…0.95. Raises OutOfRangeError.
        """
        if not LEAST_CHANCE <= chance <= MOST_CHANCE:
            raise OutOfRangeError("refused.planned_chance", least=100 * LEAST_CHANCE, most=100 * MOST_CHANCE)
        last = min(self.begin_s[-1], by_s)
        for start_s in np.arange(last, self.begin_s[0] - 1, -SECONDS_PER_DAY):
            if self.chance(float(start_s), by_s) >= chance:
                return float(start_s)
        return None


def together(steps: Sequence[Array]) -> Array:
    """How long steps take one after the other in each future [s] (draws,): added future by future.

    Parameters: steps [s], each (draws,) or (draws, pieces), of which the slowest piece counts.

    >>> together([np.array([1.0, 2.0]), np.array([[5.0, 7.0], [3.0, 1.0]])])
    array([8., 5.])
    """
    return np.asarray(sum(step if step.ndim == 1 else step.max(axis=1) for step in steps))
