"""Taking back what an entry made: everything that came of it is struck through, in one go, and stays on record."""

from collections.abc import Callable
from typing import Annotated

from pydantic import Field

from zymon.store import cuts, hang_events, keep, plans, salt, stays, warm, weighings
from zymon.store.database import Session
from zymon.store.hang import strike_state
from zymon.store.models import Hanging
from zymon.store.places import ClashError
from zymon.store.struck import strike

from .premises import Premises
from .schemas import MadeOut, StrikeIn


class UndoIn(StrikeIn):
    """What is taken back, as the answer to the entry named it."""

    made: Annotated[list[MadeOut], Field(min_length=1, max_length=200)]


Striking = Callable[[Session, int, str, str, int], object]


def _reading(session: Session, row_id: int, reason: str, by: str, now_s: int) -> None:
    strike(warm.reading(session, row_id), reason, by, now_s)


def _of_the_warm(session: Session, row_id: int, reason: str, by: str, now_s: int) -> None:
    strike(warm.event(session, row_id), reason, by, now_s)


def _state(session: Session, row_id: int, reason: str, by: str, now_s: int) -> None:
    found = stays.state(session, row_id)
    if found.struck_s is not None or found.to_s is not None:
        raise ClashError("refused.moved_since", tag=found.piece.tag)
    strike_state(session, found.piece, reason, by, now_s)


STRIKING: dict[str, Striking] = {
    "weighing": weighings.strike_weighing,
    "cut": weighings.strike_cut,
    "state": _state,
    "hang_event": hang_events.strike_event,
    "cut_face": cuts.strike_face,
    "next_time": cuts.strike_note,
    "pack": keep.strike_pack,
    "pack_event": keep.strike_event,
    "batch_cost": keep.strike_cost,
    "allergen_word": keep.strike_word,
    "salt_event": salt.strike,
    "batch_event": _of_the_warm,
    "ph_reading": _reading,
    "plan_setting": plans.strike_setting,
}


def undo(shop: Premises, body: UndoIn) -> list[MadeOut]:
    """Strike everything that came of an entry, or nothing. Gives it back. Raises ClashError, NotFoundError."""
    with shop.changing(body.by, body.reason) as session:
        moved: list[Hanging] = []
        for one in reversed(body.made):
            if one.what == "hanging":
                moved.append(stays.stay(session, one.id))
            elif one.what in STRIKING:
                STRIKING[one.what](session, one.id, body.reason, body.by, shop.now_s)
            else:
                raise ClashError("refused.not_undone")
        if moved:
            stays.strike_stays(session, moved, body.reason, body.by, shop.now_s)
    return body.made
