"""A line of the round."""

from collections.abc import Sequence
from dataclasses import dataclass

from zymon.core.schedule import Chore

from .schemas import ActionOut

DAY_S = 86_400


@dataclass(frozen=True)
class LineOfRound:
    """A chore with what is said of it and how it is done."""

    chore: Chore
    title: str
    detail: str = ""
    place: str | None = None
    cost: str = ""
    missed: int = 0
    action: ActionOut | None = None
    link: str | None = None


def tags_in_words(tags: Sequence[str], most: int = 3) -> str:
    """A few tags, and how many more."""
    more = len(tags) - most
    return ", ".join(tags[:most]) + (f" and {more} more" if more > 0 else "")
