"""The life of a piece: what it is, from when to when, where; and up to when its numbers move."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from .errors import OutOfRangeError

Kind = Literal["in_salt", "out", "waiting", "warm", "hanging", "down", "resting", "cut", "kept", "gone"]
AFTER_THE_HOOK: tuple[Kind, ...] = ("down", "resting", "cut", "kept", "gone")
How = Literal["", "vacuum", "paper", "none", "unknown", "eaten", "given", "sold", "discarded"]
BAGS: tuple[How, ...] = ("vacuum", "paper", "none", "unknown")
WENT: tuple[How, ...] = ("eaten", "given", "sold", "discarded")


@dataclass(frozen=True)
class State:
    """What a piece is from a time to a time [s]; `to_s` is None while it is that. Raises OutOfRangeError."""

    kind: Kind
    from_s: float
    to_s: float | None
    place: str | None = None
    by: str = ""
    how: How = ""

    def __post_init__(self) -> None:
        if self.to_s is not None and self.to_s < self.from_s:
            raise OutOfRangeError("refused.state_backwards", became=self.kind)


@dataclass(frozen=True)
class Life:
    """The states of a piece in time order, one at a time. Raises OutOfRangeError where two would be at once."""

    states: tuple[State, ...]

    def __post_init__(self) -> None:
        for before, after in pairwise(self.states):
            if before.to_s is None or before.to_s > after.from_s:
                raise OutOfRangeError("refused.two_states", became=after.kind, was=before.kind)

    def at(self, at_s: float) -> State | None:
        """What the piece was at a time [s], or None where nothing says so. Parameters: at_s."""
        return next((s for s in reversed(self.states) if s.from_s <= at_s and (s.to_s is None or at_s < s.to_s)), None)

    @property
    def last(self) -> State | None:
        """The latest state, or None of a piece of which nothing is known."""
        return self.states[-1] if self.states else None

    def moves_until(self, now_s: float) -> float:
        """Up to when what is worked out of a piece moves [s]: now while it hangs, else its last taking down.

        Parameters: now_s [s]. A piece in a past state does not change with now.
        """
        hung = [s for s in self.states if s.kind == "hanging" and s.from_s <= now_s]
        if not hung:
            return now_s
        end_s = hung[-1].to_s
        return now_s if end_s is None else min(end_s, now_s)

    def paused(self) -> tuple[tuple[float, float], ...]:
        """Times between two hangings [s], in which it did not dry as on a hook."""
        hung = [s for s in self.states if s.kind == "hanging"]
        return tuple((a.to_s, b.from_s) for a, b in pairwise(hung) if a.to_s is not None and b.from_s > a.to_s)


def in_order(states: Sequence[State]) -> Life:
    """A life of states in any order. Parameters: states. Raises OutOfRangeError."""
    return Life(tuple(sorted(states, key=lambda s: (s.from_s, s.to_s is None, s.to_s or 0.0))))
