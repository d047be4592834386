"""The Rest station: what evens out, and one piece of it."""

from fastapi import APIRouter

from zymon.work.rest import outside, views
from zymon.work.rest import schemas as s

from ..context import Ctx, Id

router = APIRouter(prefix="/api/rest", tags=["rest"])


@router.get("")
def rest(ctx: Ctx) -> s.RestOut:
    """Everything that rests."""
    return views.at_rest(ctx)


@router.get("/{piece_id}")
def piece(ctx: Ctx, piece_id: Id) -> s.RestDetail:
    """One piece at rest with its curve."""
    return views.detail(ctx, piece_id)


@router.post("/outside", status_code=201)
def take_in(ctx: Ctx, body: outside.OutsideIn) -> s.RestDetail:
    """Take a piece into the rest that dried elsewhere."""
    return outside.take_in(ctx, body)
