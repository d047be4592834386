"""What is to be done, how long it may wait, and in which order one walks."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Elasticity = Literal["elastic", "firm", "weight_led"]
When = Literal["late", "now", "later"]
STATIONS = ("bench", "salt", "warm", "hang", "rest", "book")


@dataclass(frozen=True)
class Chore:
    """A step with its window: from when it may be done, its best and its latest time [s]; None: it may wait.

    The id stays the same as long as it is the same step, however often the plan is made anew.
    """

    id: str
    station: str
    place_order: int
    elasticity: Elasticity
    from_s: float
    best_s: float
    latest_s: float | None


def when(chore: Chore, now_s: float) -> When:
    """Whether a step is late, due, or still to come. Parameters: chore; now_s [s].

    >>> when(Chore("a", "salt", 0, "firm", 0, 10, 20), 21)
    'late'
    """
    if chore.latest_s is not None and now_s > chore.latest_s:
        return "late"
    return "now" if now_s >= chore.from_s else "later"


def replanned(chore: Chore, now_s: float) -> float:
    """When to do a step now that it is `now_s` [s]: its best time, or at once where that has passed.

    Parameters: chore; now_s. An elastic step that slipped simply moves; a firm one is late, and still comes first.
    """
    return max(chore.best_s, now_s)


def in_walking_order(chores: Sequence[Chore], now_s: float) -> list[Chore]:
    """The round: firm steps that are late first, then station by station and place by place.

    Parameters: chores; now_s [s].
    """

    def key(chore: Chore) -> tuple[bool, int, int, float, str]:
        pressing = chore.elasticity == "firm" and when(chore, now_s) == "late"
        return (not pressing, STATIONS.index(chore.station), chore.place_order, chore.best_s, chore.id)

    return sorted(chores, key=key)
