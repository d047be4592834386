"""The rods of a place, and pieces that change places."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from zymon.store import rods as store

from ..context import Ctx, Id
from ..schemas import RowId, Who
from . import schemas as s
from .views import room

router = APIRouter(prefix="/api", tags=["hang"])


class RodIn(BaseModel):
    """A rod: its hooks, and how far apart they are; null where nobody measured it."""

    hooks: Annotated[int, Field(ge=1, le=60)]
    hook_spacing_mm: Annotated[float, Field(ge=20, le=2000, allow_inf_nan=False)] | None = None
    by: Who


class SwapIn(BaseModel):
    """Two pieces that change places."""

    other_id: RowId
    by: Who


@router.put("/rods/{rod_id}")
def change(ctx: Ctx, rod_id: Id, body: RodIn) -> s.Room:
    """Give a rod more or fewer hooks, or say how far apart they are; a hook in use is not taken away."""
    with ctx.db.writing() as session:
        place_id = store.change_rod(session, rod_id, body.hooks, body.hook_spacing_mm).place_id
    with ctx.db.reading() as session:
        return room(ctx, session, place_id)


@router.post("/places/{place_id}/rods", status_code=201)
def add(ctx: Ctx, place_id: Id, body: RodIn) -> s.Room:
    """Put another rod up."""
    with ctx.db.writing() as session:
        store.add_rod(session, place_id, body.hooks, body.hook_spacing_mm)
    with ctx.db.reading() as session:
        return room(ctx, session, place_id)


@router.post("/pieces/{piece_id}/swap")
def swap(ctx: Ctx, piece_id: Id, body: SwapIn) -> s.Room:
    """Two pieces change places; the answer is the place of the first."""
    with ctx.db.writing() as session:
        first, _ = store.swap(session, piece_id, body.other_id, body.by, ctx.now_s)
        place_id = first.hangings[-1].place_id
    with ctx.db.reading() as session:
        return room(ctx, session, place_id)
