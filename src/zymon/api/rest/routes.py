"""The Rest station: what evens out, and one piece of it."""

from fastapi import APIRouter

from zymon.work.rest import schemas as s
from zymon.work.rest import views

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
