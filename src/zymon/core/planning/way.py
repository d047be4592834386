"""The way of a batch from its start to the table, over futures that all of its pieces and steps share."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from ..drying.forecast import Fitted
from ..drying.history import Piece
from .before import Part, hook_after
from .drying import Hanging, hanging_times
from .start import Starts, together

Array = npt.NDArray[np.float64]

LOOKS = 4  # starts that are looked at where the air ahead is not always the same
LOOKS_WITHIN_S = 26 * 7 * SECONDS_PER_DAY  # as far as last year's air tells of the weeks ahead


@dataclass(frozen=True)
class Window:
    """10, 50 and 90 % quantiles of a moment [s]; inf where so many futures never get there."""

    p10: float
    p50: float
    p90: float


@dataclass(frozen=True)
class Moments:
    """When a batch is hung, when its last piece is done, when it is at the table."""

    hung: Window
    done: Window
    table: Window


@dataclass(frozen=True)
class Stay:
    """A hook that is in use: likely, and at the most [s]. inf: nobody knows until when."""

    from_s: float
    until_s: float
    earliest_s: float
    latest_s: float


@dataclass(frozen=True)
class Way:
    """A batch that would be made: when it is done whenever it is started."""

    parts: tuple[Part, ...]
    before_s: Array  # (draws,), from the start to the hook
    hanging: Hanging
    starts: Starts
    rest_s: float

    def moments(self, start_s: float) -> Moments:
        """When its steps are, for a start. Parameters: start_s [s]. Raises OutOfRangeError."""
        table = self.tables(start_s).max(axis=1)
        return Moments(window(start_s + self.before_s), window(table - self.rest_s), window(table))

    def tables(self, start_s: float) -> Array:
        """When each piece is at the table in each future [s] (draws, pieces); inf for never. Raises OutOfRangeError.

        Parameters: start_s [s].
        """
        hangs = self.starts.mixed(self.hanging.takes_s, start_s)
        return np.asarray(start_s + self.before_s[:, None] + hangs + self.rest_s)

    def stays(self, start_s: float) -> tuple[Stay, ...]:
        """The hooks it would take, piece by piece, for a start. Parameters: start_s [s]. Raises OutOfRangeError."""
        hung = window(start_s + self.before_s)
        down = [window(one - self.rest_s) for one in self.tables(start_s).T]
        return tuple(Stay(hung.p50, one.p50, hung.p10, one.p90) for one in down)

    def water_g(self, start_s: float, day_s: Array) -> Array:
        """The water it gives up on each of some days [g], for a start. Parameters: start_s [s]; day_s [s] (k,)."""
        near = int(np.abs(self.starts.begin_s - start_s).argmin())
        hung_s = window(start_s + self.before_s).p50
        since, lost = self.hanging.since_s[near], self.hanging.lost_g[near]
        edges = np.stack([day_s, day_s + SECONDS_PER_DAY]) - hung_s
        given = np.interp(edges, since, lost, left=0.0)
        return np.asarray(given[1] - given[0])


def find_way(
    place: Fitted,
    wanted: Sequence[Piece],
    parts: Sequence[Part],
    rest_s: float,
    from_s: float,
    until_s: float,
    wait_s: float = 0.0,
    batch: int = 0,
) -> Way:
    """How long wanted pieces take through all of their steps, for starts in a span.

    Parameters: place, the fitted place where they would hang; wanted; parts, before the hook; rest_s [s], after it;
    from_s, until_s [s], between which it may be started; wait_s [s], from the start to the hook at the least;
    batch, its number among those planned together. Raises OutOfRangeError.
    """
    before = hook_after(parts, wait_s)
    air = place.arrays.air
    changes = air.time_s[-1] > place.arrays.now_s  # the weeks ahead go as they did a year ago, or a step is to come
    looked = np.linspace(from_s, max(min(until_s, from_s + LOOKS_WITHIN_S), from_s), LOOKS if changes else 1)
    hang_s = np.maximum(looked + np.median(before), place.arrays.now_s)
    hanging = hanging_times(place, wanted, hang_s.tolist(), batch)
    rest = np.full(len(before), rest_s)
    takes = np.array([together([before, one, rest]) for one in hanging.takes_s])
    begin, rows = looked, list(range(len(looked)))
    if until_s > looked[-1]:  # beyond it nothing else is known
        begin, rows = np.append(looked, until_s), [*rows, rows[-1]]
    held = Hanging(hanging.takes_s[rows], hanging.since_s[rows], hanging.lost_g[rows])
    return Way(tuple(parts), before, held, Starts(begin, takes[rows]), rest_s)


def window(at_s: Array) -> Window:
    """The window of a moment that is drawn. Parameters: at_s [s] (draws,), inf for never."""
    ranked = np.sort(at_s)
    return Window(*(float(ranked[round(q * (len(ranked) - 1))]) for q in (0.1, 0.5, 0.9)))


def in_time(tables_s: Sequence[Array], by_s: Sequence[float]) -> float:
    """The chance that several batches are all in time, over the same futures.

    Parameters: tables_s [s], when each is at the table in each future (draws,); by_s [s], when each is wanted.
    """
    late = np.zeros(len(tables_s[0]), dtype=bool)
    for table, by in zip(tables_s, by_s, strict=True):
        late |= table > by
    return float(1 - late.mean())
