"""The chance to be in time for a start, and the latest start for a chance."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from ..errors import OutOfRangeError

Array = npt.NDArray[np.float64]

USUAL_CHANCE = 0.8  # chance that a plan aims at where nobody said
SURE, EVEN = 0.95, 0.5  # chances shown beside it
LEAST_CHANCE, MOST_CHANCE = 0.05, 0.95  # beyond them a few dozen futures tell nothing


@dataclass(frozen=True)
class Starts:
    """What comes of starting at each of some times: how long it takes in each future until all of it is done.

    begin_s [s] (m,), rising; takes_s [s] (m, draws), from the start to the last piece at the table, inf for never.
    """

    begin_s: Array
    takes_s: Array

    def chance(self, start_s: float, by_s: float) -> float:
        """The chance to be done in time; futures of two starts beside it are taken in turn by how near they are.

        Parameters: start_s [s], within the times that were looked at; by_s [s]. Raises OutOfRangeError.
        """
        self._between(start_s)
        return float(self._chances(np.array([start_s]), by_s)[0])

    def _chances(self, start_s: Array, by_s: float) -> Array:
        """The same for many starts (k,), each within the times that were looked at."""
        in_time = np.stack([np.searchsorted(row, by_s - start_s, side="right") for row in self._ranked])
        in_time = in_time / self._ranked.shape[1]
        last = len(self.begin_s) - 1
        j = np.clip(np.searchsorted(self.begin_s, start_s, side="right") - 1, 0, max(last - 1, 0))
        after, column = np.minimum(j + 1, last), np.arange(len(start_s))
        width = self.begin_s[after] - self.begin_s[j]
        share = np.where(width > 0, (start_s - self.begin_s[j]) / np.where(width > 0, width, 1.0), 0.0)
        return np.asarray(in_time[j, column] * (1 - share) + in_time[after, column] * share)

    @cached_property
    def _ranked(self) -> Array:
        return np.sort(self.takes_s, axis=1)

    def done_by(self, start_s: float, chance: float = USUAL_CHANCE) -> float:
        """By when it is done with a chance if it is started then [s]; inf where too few futures get there.

        Parameters: start_s [s], within the times that were looked at; chance [-] 0.05…0.95. Raises OutOfRangeError.
        """
        _require_chance(chance)
        done_s = np.sort(start_s + self.takes_at(start_s))
        return float(done_s[int(np.ceil(chance * len(done_s) - 1e-9)) - 1])

    def takes_at(self, start_s: float) -> Array:
        """How long it takes in each future from a start between those looked at [s] (draws,). Raises OutOfRangeError.

        Parameters: start_s [s].
        """
        return self.mixed(self.takes_s, start_s)

    def mixed(self, by_start: Array, start_s: float) -> Array:
        """What lies between the values of the two starts beside a time; inf where it is so at either.

        Parameters: by_start (m, …), a value for each start looked at; start_s [s]. Raises OutOfRangeError.
        """
        j, share = self._between(start_s)
        if share == 0:
            return np.asarray(by_start[j])
        return np.asarray(by_start[j] * (1 - share) + by_start[min(j + 1, len(self.begin_s) - 1)] * share)

    def _between(self, start_s: float) -> tuple[int, float]:
        """Which start lies before a time, and how far the time is on the way to the next. Raises OutOfRangeError."""
        if not self.begin_s[0] <= start_s <= self.begin_s[-1]:
            raise OutOfRangeError("refused.planned_start")
        j = int(np.clip(np.searchsorted(self.begin_s, start_s, side="right") - 1, 0, max(len(self.begin_s) - 2, 0)))
        width = self.begin_s[min(j + 1, len(self.begin_s) - 1)] - self.begin_s[j]
        return j, 0.0 if width == 0 else float((start_s - self.begin_s[j]) / width)

    def days(self, by_s: float) -> list[tuple[float, float]]:
        """The starts there are, day by day back from the day it is wanted, and now: each with its chance, rising.

        Parameters: by_s [s].
        """
        first, last = float(self.begin_s[0]), float(min(self.begin_s[-1], by_s))
        days = np.concatenate([[first], np.arange(last, first, -SECONDS_PER_DAY)[::-1]])
        return list(zip(days.tolist(), self._chances(days, by_s).tolist(), strict=True))

    def between(self, by_s: float) -> tuple[float, float]:
        """From which start that is in time nineteen times in twenty to which that is every other time [s].

        Parameters: by_s [s]. The first start there is stands for what would have to be earlier.
        """
        first = float(self.begin_s[0])
        early, late = (self.latest(by_s, chance) for chance in (SURE, EVEN))
        return first if early is None else early, first if late is None else late

    def latest(self, by_s: float, chance: float = USUAL_CHANCE) -> float | None:
        """The latest start with at least a chance to be done in time [s], to the day; None where no start has it.

        Parameters: by_s [s]; chance [-] 0.05…0.95. Raises OutOfRangeError.
        """
        _require_chance(chance)
        if by_s < self.begin_s[0]:
            return None
        return next((start_s for start_s, has in reversed(self.days(by_s)) if has >= chance), None)


def _require_chance(chance: float) -> None:
    if not LEAST_CHANCE <= chance <= MOST_CHANCE:
        raise OutOfRangeError("refused.planned_chance", least=100 * LEAST_CHANCE, most=100 * MOST_CHANCE)


def together(steps: Sequence[Array]) -> Array:
    """How long steps take one after the other in each future [s] (draws,): added future by future.

    Parameters: steps [s], each (draws,) or (draws, pieces), of which the slowest piece counts.

    >>> together([np.array([1.0, 2.0]), np.array([[5.0, 7.0], [3.0, 1.0]])])
    array([8., 5.])
    """
    return np.asarray(sum(step if step.ndim == 1 else step.max(axis=1) for step in steps))
