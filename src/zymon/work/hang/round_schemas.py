"""What a weigh round sends and receives; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zymon.core.drying.judge import State, Want
from zymon.core.drying.sentinels import Why

from ..schemas import Grams, Moment, Name, Ready, RowId, SaidOut, Uid, Who

Outcome = Literal["stored", "same", "again", "conflict", "refused"]


class RoundPiece(BaseModel):
    """A piece on the round: what is expected of it, and between which weights it is not asked about [g]."""

    id: int
    tag: str
    batch: str
    product: str
    rod: int
    hook: int
    start_weight_g: float
    tare_g: float
    tag_g: int | None  # null where it is not done by weight
    last_g: float | None
    last_at: datetime | None
    expected_low_g: float
    expected_high_g: float
    ask_low_g: float
    ask_high_g: float
    why: Why | None


class RoundOut(BaseModel):
    """All pieces of a place in hook order; those worth weighing say why."""

    place_id: int
    place: str
    at: datetime
    pieces: list[RoundPiece]


class RoundEntry(BaseModel):
    """A weight of the round, with an identity of its own made where it was typed."""

    uid: Uid
    piece_id: RowId
    gross_g: Grams
    at: Moment
    confirmed: bool = False  # it was asked about and is kept


class RoundIn(BaseModel):
    """Weights of a round, each stored or answered for itself."""

    entries: Annotated[list[RoundEntry], Field(min_length=1, max_length=500)]
    sent_at: Moment | None = None  # by the clock on which the entries were timed: how far that is off is allowed for
    by: Who
    typed_by: Name | None = None  # who typed them, where that may have been without a connection


class EntryAnswer(BaseModel):
    """What became of a weight: stored, known already, weighed again by somebody, in conflict with that, or refused."""

    uid: str
    piece_id: int
    tag: str
    outcome: Outcome
    says: SaidOut | None
    weighing_id: int | None
    loss_percent: float | None
    ready: Ready | None
    state: State | None
    wants: list[Want]


class RoundAnswer(BaseModel):
    """The answers to all weights sent."""

    answers: list[EntryAnswer]
