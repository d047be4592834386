"""The Cut: what waits for the knife, a face and what it says, lines for next time."""

from fastapi import APIRouter

from zymon.work.cut import doing, views
from zymon.work.cut import schemas as s
from zymon.work.schemas import StrikeIn

from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["cut"])


@router.get("/cut")
def waiting(ctx: Ctx) -> s.CutList:
    """What waits for the knife, and what was looked into last."""
    return views.cut_list(ctx)


@router.get("/pieces/{piece_id}/cut")
def piece(ctx: Ctx, piece_id: Id) -> s.UnderTheKnife:
    """A piece to be cut or that was cut: its inside as predicted, its faces, what the latest says."""
    return views.cut_out(ctx, piece_id)


@router.post("/pieces/{piece_id}/cut", status_code=201)
def cut(ctx: Ctx, piece_id: Id, body: s.CutIn) -> s.UnderTheKnife:
    """Enter a cut face, and what becomes of the piece with it."""
    return doing.cut(ctx, piece_id, body)


@router.post("/cut-faces/{face_id}/strike")
def strike(ctx: Ctx, face_id: Id, body: StrikeIn) -> s.UnderTheKnife:
    """Strike a cut face through; it stays on record."""
    return doing.strike(ctx, face_id, body)


@router.post("/cut-faces/{face_id}/next-time", status_code=201)
def take(ctx: Ctx, face_id: Id, body: s.TakeIn) -> s.UnderTheKnife:
    """Take a line for next time over: into the recipe's notes, or as a new version of it."""
    return doing.take(ctx, face_id, body)


@router.get("/recipes/{recipe_id}/next-time")
def recipe_notes(ctx: Ctx, recipe_id: Id) -> list[s.NextTimeOut]:
    """What is to be done otherwise when a recipe is made next."""
    return doing.recipe_notes(ctx, recipe_id)


@router.post("/next-time/{note_id}/strike", status_code=204)
def strike_note(ctx: Ctx, note_id: Id, body: StrikeIn) -> None:
    """A line for next time was dealt with, or is wrong."""
    doing.strike_note(ctx, note_id, body)
