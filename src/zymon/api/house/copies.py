"""The nightly copies of the record: which there are, and one more just now."""

from fastapi import APIRouter

from zymon.store.copies import CopyError
from zymon.work.house import copies as work

from ..context import Ctx

router = APIRouter(prefix="/api", tags=["house"])


@router.get("/copies")
def copies(ctx: Ctx) -> work.CopiesOut:
    """What copies there are, and whether the last good one is old."""
    return work.copies(ctx, ctx.settings.backup_folder)


@router.post("/copies", status_code=201)
def take(ctx: Ctx) -> work.CopiesOut:
    """Take one now."""
    keeper = ctx.copies or work.Nightly(ctx, ctx.settings.backup_folder)
    if not keeper.take():
        raise CopyError("refused.copy_failed", why=keeper.failed or "")
    return work.copies(ctx, ctx.settings.backup_folder)
