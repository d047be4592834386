"""A line of the round."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from zymon.core.say import Said, Value
from zymon.core.schedule import Chore

from .schemas import ActionOut

DAY_S = 86_400
TAGS_SHOWN = 3


@dataclass(frozen=True)
class LineOfRound:
    """A chore with what is said of it and how it is done."""

    chore: Chore
    title: Said
    detail: Said | None = None
    place: str | None = None
    cost: Said | None = None
    missed: int = 0
    last: datetime | None = None  # when it was done last, of what is done again and again
    action: ActionOut | None = None
    link: str | None = None
    shown_from_s: float = 0.0  # before that [s] it stands in the calendar alone


def tags_of(tags: Sequence[str]) -> dict[str, Value]:
    """A few tags, and how many more, as values of a sentence."""
    return {"tags": ", ".join(tags[:TAGS_SHOWN]), "more": max(len(tags) - TAGS_SHOWN, 0)}
