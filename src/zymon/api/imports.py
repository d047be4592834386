"""Bringing files in: preview, confirmation, report; and taking one back whole."""

from pathlib import Path
from typing import Annotated

from fastapi import APIRouter, File, Form, UploadFile
from fastapi import Path as PathParam

from zymon.formats.cells import MeasurementFileError
from zymon.formats.measurements import TemperatureUnit
from zymon.work import import_schemas as s
from zymon.work import imports as work
from zymon.work.schemas import StrikeIn, TimeZone

from .context import Ctx, Id

router = APIRouter(prefix="/api/imports", tags=["imports"])
Token = Annotated[str, PathParam(pattern=r"^[0-9a-f]{40}$")]


@router.post("/preview")
def preview(
    ctx: Ctx,
    file: Annotated[UploadFile, File()],
    place_id: Annotated[int, Form(ge=1, le=2**31 - 1)],
    time_zone: Annotated[TimeZone | None, Form()] = None,
    temperature_unit: Annotated[TemperatureUnit | None, Form()] = None,
) -> s.ImportPreview:
    """Read a file and say what it would bring; nothing is stored before it is confirmed."""
    limit = ctx.settings.max_upload_mb * 1_000_000
    data = file.file.read(limit + 1)
    if len(data) > limit:
        raise MeasurementFileError(f"the file is larger than {ctx.settings.max_upload_mb} MB; bring it in parts")
    staged = work.Staged(
        file_name=Path(file.filename or "file").name[:200],
        place_id=place_id,
        time_zone=time_zone or ctx.zone.key,
        temperature_unit=temperature_unit,
    )
    shown, ctx.latest_preview = work.preview(ctx, ctx.settings.staging, data, staged)
    return shown


@router.post("/{token}", status_code=201)
def confirm(ctx: Ctx, token: Token, body: s.ImportConfirm) -> s.ImportDone:
    """Bring a previewed file in, all or nothing."""
    done = work.confirm(ctx, ctx.settings.staging, token, body, ctx.latest_preview)
    ctx.latest_preview = None
    return done


@router.get("")
def reports(ctx: Ctx) -> list[s.ImportDone]:
    """What was brought in, newest first."""
    return work.reports(ctx)


@router.post("/{report_id}/take-back")
def take_back(ctx: Ctx, report_id: Id, body: StrikeIn) -> s.ImportDone:
    """Take back whole what a file brought: its weights are struck through, its climate does not count."""
    return work.take_back(ctx, report_id, body)


@router.post("/{report_id}/bring-back")
def bring_back(ctx: Ctx, report_id: Id, body: StrikeIn) -> s.ImportDone:
    """Let a file that was taken back count again."""
    return work.bring_back(ctx, report_id, body)
