"""What the weeks ahead hold for a place: hooks in use and free, water a day, and where plans clash."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from .way import Stay

Array = npt.NDArray[np.float64]
Counts = npt.NDArray[np.int64]

MORE_WATER = 1.05  # than the most that was managed, before it is said: weighing is no more exact
DAYS_LATER = 8 * 7  # as far as a way out is looked for


@dataclass(frozen=True)
class InUse:
    """Hooks in use on each day: likely, and at the most if all goes slowly (k,)."""

    likely: Counts
    most: Counts


@dataclass(frozen=True)
class Clash:
    """That more pieces would hang than there are hooks: from when until when [s], and how many on the worst day."""

    from_s: float
    to_s: float
    pieces: int
    hooks: int


def days_ahead(now_s: float, weeks: int) -> Array:
    """The days of some weeks from now on [s], (7·weeks,). Parameters: now_s [s]; weeks [-]."""
    return np.asarray(now_s + np.arange(7 * weeks) * SECONDS_PER_DAY)


def in_use(stays: Sequence[Stay], day_s: Array) -> InUse:
    """How many hooks are in use on each day.

    Parameters: stays, one for each hook that is or will be in use; day_s [s] (k,). A hook that is left during a day can
    be used again that day.
    """
    ends = day_s + SECONDS_PER_DAY

    def count(from_s: Sequence[float], to_s: Sequence[float]) -> Counts:
        begun = np.array(from_s)[:, None] < ends
        return np.asarray((begun & (np.array(to_s)[:, None] >= ends)).sum(axis=0))

    if not stays:
        none = np.zeros(len(day_s), dtype=np.int64)
        return InUse(none, none)
    return InUse(
        count([s.from_s for s in stays], [s.until_s for s in stays]),
        count([s.earliest_s for s in stays], [s.latest_s for s in stays]),
    )


def clash(used: Counts, planned: Sequence[Stay], hooks: int, day_s: Array) -> Clash | None:
    """Where a planned batch finds too few hooks; None where it likely has room on every day.

    Parameters: used, the hooks that others likely use on each day (k,); planned, its own stays; hooks [-] of the place;
    day_s [s] (k,).
    """
    return _over(used, in_use(planned, day_s).likely, hooks, day_s)


def _over(used: Counts, own: Counts, hooks: int, day_s: Array) -> Clash | None:
    wanted = used + own
    over = (wanted > hooks) & (own > 0)
    if not over.any():
        return None
    days = np.flatnonzero(over)
    run_ends = np.flatnonzero(np.diff(days) > 1)
    last = days[run_ends[0]] if len(run_ends) else days[-1]
    worst = int(wanted[over].max())
    return Clash(float(day_s[days[0]]), float(day_s[last] + SECONDS_PER_DAY), worst, hooks)


def days_later(used: Counts, planned: Sequence[Stay], hooks: int, day_s: Array) -> int | None:
    """By how many days a planned batch would have to be later to find its hooks free; None: not within eight weeks.

    Parameters: used; planned; hooks [-]; day_s [s]: as of `clash`.
    """
    own = in_use(planned, day_s).likely
    for days in range(1, DAYS_LATER + 1):
        if _over(used, np.concatenate([np.zeros(days, dtype=np.int64), own[:-days]]), hooks, day_s) is None:
            return days
    return None


def how_many_fit(used: Counts, planned: Sequence[Stay], hooks: int, day_s: Array) -> int:
    """How many of the planned pieces find a hook, the quickest of them first.

    Parameters: used; planned; hooks [-]; day_s [s]: as of `clash`.
    """
    quickest = sorted(planned, key=lambda stay: stay.until_s)
    own, fit = np.zeros(len(day_s), dtype=np.int64), 0
    for stay in quickest:
        own = own + in_use([stay], day_s).likely
        if _over(used, own, hooks, day_s) is not None:
            break
        fit += 1
    return fit


def much_water(own_g: Array, others_g: Array, managed_g: float, day_s: Array) -> tuple[float, float] | None:
    """The worst day on which a place has to take more water than it ever was seen to: when [s], how much [g].

    Parameters: own_g, others_g [g], what a planned batch and everything beside it give up on each day (k,);
    managed_g [g], the most that was seen to leave in a day; day_s [s] (k,). None where it is likely not so.
    """
    total = np.where(own_g > 0, own_g + others_g, 0.0)
    worst = int(total.argmax())
    return (float(day_s[worst]), float(total[worst])) if total[worst] > MORE_WATER * managed_g else None


def weekly_most(by_day: Array | Counts) -> list[float]:
    """The most of each week, of values by day. Parameters: by_day (7·weeks,).

    >>> weekly_most(np.array([1, 2, 1, 1, 1, 1, 1, 0, 0, 0, 0, 0, 0, 3]))
    [2.0, 3.0]
    """
    return [float(v) for v in np.asarray(by_day).reshape(-1, 7).max(axis=1)]
