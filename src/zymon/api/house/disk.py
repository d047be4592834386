"""The room that the record takes on the disk, and the log of the air thinned."""

from fastapi import APIRouter

from zymon.work.house import disk as work
from zymon.work.schemas import RecordIn

from ..context import Ctx

router = APIRouter(prefix="/api", tags=["house"])


@router.get("/disk")
def disk(ctx: Ctx) -> work.DiskOut:
    """The room that the record and its copies take, and what thinning the log of the air would bring."""
    return work.disk(ctx, ctx.settings.backup_folder, ctx.thinner)


@router.post("/disk/thinning", status_code=202)
def thin(ctx: Ctx, body: RecordIn) -> work.DiskOut:
    """Thin readings of long ago, or go on where it stopped; asked about first (409 doubtful)."""
    work.thin(ctx, body, ctx.thinner)
    return work.disk(ctx, ctx.settings.backup_folder, ctx.thinner)
