"""Everything out as a file, and into an empty workshop everything in."""

import tempfile
from pathlib import Path
from typing import Annotated

from fastapi import APIRouter, File, UploadFile
from fastapi.responses import FileResponse
from starlette.background import BackgroundTask

from zymon.work.house import archive as work
from zymon.work.house import schemas as s
from zymon.work.premises import moment

from ..attachment import file_stem
from ..context import Ctx

router = APIRouter(prefix="/api", tags=["house"])


@router.get("/archive.zip", response_class=FileResponse)
def take_out(ctx: Ctx) -> FileResponse:
    """The whole record in open formats, as of this moment."""
    file = Path(tempfile.mkstemp(suffix=".zip")[1])
    try:
        work.write_archive(ctx.db.file, file, ctx.now_s)
    except BaseException:
        file.unlink(missing_ok=True)
        raise
    name = f"{file_stem('zymon-archive', moment(ctx.now_s))}.zip"
    away = BackgroundTask(file.unlink, missing_ok=True)
    return FileResponse(file, media_type="application/zip", filename=name, background=away)


@router.post("/archive", status_code=201)
def bring_in(ctx: Ctx, file: Annotated[UploadFile, File()]) -> s.BroughtInOut:
    """Bring an archive into a workshop in which nothing is yet, all or nothing."""
    with tempfile.NamedTemporaryFile(suffix=".zip") as kept:
        while part := file.file.read(1 << 20):
            kept.write(part)
        kept.flush()
        told = work.bring_in(ctx, Path(kept.name), file.filename or "")
    ctx.door.forget()
    return s.BroughtInOut(
        made=told.made,
        rows=sum(table.rows for table in told.tables.values()),
        people=told.tables["person"].rows,
        photos=told.photos,
    )
