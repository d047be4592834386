"""What Today sends; the TypeScript types are made from it."""

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from zymon.core.schedule import Elasticity, When

from ..schemas import SaidOut

Station = Literal["bench", "salt", "warm", "hang", "rest", "book"]


class ActionOut(BaseModel):
    """How a line is done in place: what is noted, in which of several ways, for which pieces or which batch."""

    station: Station
    kinds: list[str]
    pieces: list[int] = []
    batch_id: int | None = None
    takes_grams: bool = False


class ChoreOut(BaseModel):
    """A line of the round. `latest` null: it may wait; `cost`: what putting it off does."""

    id: str
    station: Station
    place: str | None
    title: SaidOut
    detail: SaidOut | None
    elasticity: Elasticity
    when: When
    due_from: datetime
    best: datetime
    latest: datetime | None
    cost: SaidOut | None
    missed: int
    last: datetime | None
    action: ActionOut | None
    link: str | None


class TodayOut(BaseModel):
    """What is due, in walking order; what comes in the next days, in time order."""

    now: datetime
    due: list[ChoreOut]
    later: list[ChoreOut]
