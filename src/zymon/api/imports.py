"""Bringing files in: preview, confirmation, report; and taking one back whole."""

from pathlib import Path
from typing import Annotated

from fastapi import APIRouter, File, Form, UploadFile
from fastapi import Path as PathParam
from pydantic import Field, TypeAdapter, ValidationError

from zymon.formats.measured.faults import MeasurementFileError
from zymon.work import import_schemas as s
from zymon.work import imports as work
from zymon.work.schemas import StrikeIn

from .context import Ctx, Id

router = APIRouter(prefix="/api/imports", tags=["imports"])
ANSWERS = TypeAdapter(dict[str, Annotated[str, Field(max_length=200)]])
Token = Annotated[str, PathParam(pattern=r"^[0-9a-f]{40}$")]


@router.post("/preview")
def preview(
    ctx: Ctx,
    file: Annotated[UploadFile, File()],
    place_id: Annotated[int, Form(ge=1, le=2**31 - 1)],
    answers: Annotated[str, Form(max_length=10_000)] = "{}",
) -> s.ImportPreview:
    """Read a file and say what it would bring; nothing is stored before it is confirmed.

    `answers`: what was said of questions asked before, a JSON object by what was asked.
    """
    limit = ctx.settings.max_upload_mb * 1_000_000
    data = file.file.read(limit + 1)
    if len(data) > limit:
        raise MeasurementFileError("file.too_large", mb=ctx.settings.max_upload_mb)
    staged = work.Staged(
        file_name=Path(file.filename or "file").name[:200],
        place_id=place_id,
        answers=_answers(answers),
    )
    shown, ctx.latest_preview = work.preview(ctx, ctx.settings.staging, data, staged)
    return shown


def _answers(told: str) -> dict[str, str]:
    try:
        return ANSWERS.validate_json(told)
    except ValidationError as error:
        raise MeasurementFileError("file.bad_answers") from error


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
