"""The Book's beginning: every batch in whatever state, and what was changed."""

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Query

from zymon.work import changes as changes_of
from zymon.work import finding
from zymon.work.schemas import MadeOut
from zymon.work.undo import UndoIn
from zymon.work.undo import undo as take_back

from .context import Ctx

router = APIRouter(prefix="/api", tags=["book"])


@router.get("/book")
def book(
    ctx: Ctx, words: Annotated[str, Query(max_length=100)] = "", drawer: finding.Filter = "all"
) -> finding.BatchesFound:
    """Batches whose code, product, tags, lots, people or notes hold the words, in whatever state."""
    return finding.find(ctx, words, drawer)


@router.get("/changes")
def changes(
    ctx: Ctx, batch_id: Annotated[int | None, Query(ge=1, le=2**31 - 1)] = None, day: date | None = None
) -> changes_of.Changes:
    """What was changed of what had been entered: of a batch, on a day, or lately."""
    return changes_of.changes(ctx, batch_id, day)


@router.post("/undo")
def undo(ctx: Ctx, body: UndoIn) -> list[MadeOut]:
    """Take back everything that came of an entry, as entered by mistake; it stays on record, struck through."""
    return take_back(ctx, body)
