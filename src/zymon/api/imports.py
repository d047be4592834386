"""Bringing files in: preview, confirmation, report."""

import hashlib
import re
import time
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Annotated, Literal
from zoneinfo import ZoneInfo

from fastapi import APIRouter, File, Form, UploadFile
from fastapi import Path as PathParam
from pydantic import BaseModel
from sqlalchemy.orm import Session

from zymon.core.drying.forecast import forecast
from zymon.formats.bulk import many_objects
from zymon.formats.cells import MeasurementFileError
from zymon.formats.hang_file import HangFile, history_of, read_hang_file
from zymon.formats.measurements import Measurements, TemperatureUnit, read_measurements
from zymon.store import imports as store
from zymon.store.models import ImportReport
from zymon.store.places import NotFoundError, workshop

from . import import_schemas as s
from . import views
from .context import Context, Ctx, moment
from .errors import NeedsAnswerError
from .schemas import TimeZone

router = APIRouter(prefix="/api/imports", tags=["imports"])

KEEP_STAGED_S = 24 * 3600
Token = Annotated[str, PathParam(pattern=r"^[0-9a-f]{40}$")]


class Staged(BaseModel):
    """How a previewed file is to be read again when it is confirmed."""

    file_name: str
    place_id: int
    time_zone: str
    temperature_unit: TemperatureUnit | None


@dataclass
class _Read:
    kind: Literal["climate", "weights", "hang"]
    measurements: Measurements | None = None
    hang: HangFile | None = None


def _read(data: bytes, staged: Staged, now_s: int) -> _Read:
    if data.lstrip()[:1] in (b"{", b"["):
        return _Read("hang", hang=read_hang_file(data))
    found = read_measurements(data, ZoneInfo(staged.time_zone), now_s, staged.temperature_unit)
    return _Read(found.kind, measurements=found)


def _plan(session: Session, read: _Read, staged: Staged, by: str, now_s: int) -> store.Plan:
    if read.hang is not None:
        return store.plan_hang_file(session, staged.place_id, read.hang, by, now_s)
    assert read.measurements is not None
    if read.kind == "climate":
        return store.plan_climate(session, staged.place_id, read.measurements)
    return store.plan_weights(session, read.measurements, by, now_s)


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
    with ctx.db.reading() as session:
        shop = workshop(session)
    staged = Staged(
        file_name=Path(file.filename or "file").name[:200],
        place_id=place_id,
        time_zone=time_zone or (shop.time_zone if shop else "UTC"),
        temperature_unit=temperature_unit,
    )
    with many_objects(), ctx.db.reading() as session:
        read = _read(data, staged, ctx.now_s)
        plan = _plan(session, read, staged, "preview", ctx.now_s)
    token = _stage(ctx, data, staged)
    ctx.latest_preview = (token, read)
    return _preview_out(token, staged, read, plan)


def _preview_out(token: str, staged: Staged, read: _Read, plan: store.Plan) -> s.ImportPreview:
    at: list[float] = []
    forecasts: list[s.FileForecast] = []
    found = read.measurements
    if found is not None:
        at = [r[0] for r in found.climate] or sorted(w[2] for w in found.weights)
    if read.hang is not None:
        at = sorted(t.timestamp() for t, _, _ in read.hang.climate)
        forecasts = [
            s.FileForecast(
                tag=f.tag,
                loss_percent=round(f.loss_percent, 1),
                target_weight_g=round(f.target_weight_g, 1),
                status=f.status,
                ready=views.ready_out(f),
                doubts=[f"{d.gross_g:g} g: {d.reason}" for d in f.doubts],
            )
            for f in forecast(history_of(read.hang))
        ]
    pieces = sum(len(b.pieces) for b in read.hang.batches) if read.hang else 0
    return s.ImportPreview(
        token=token,
        kind=read.kind,
        file_name=staged.file_name,
        understood={**found.understood, "time zone": staged.time_zone} if found else {"pieces": str(pieces)},
        rows=found.rows if found else pieces,
        new=plan.new,
        same=plan.same,
        conflict=plan.conflict,
        error_count=plan.error_count,
        errors=[s.RowFault(line=e.line, text=e.text) for e in plan.errors[:50]],
        notes=plan.notes,
        asks=found.asks if found else [],
        first_at=moment(at[0]) if at else None,
        last_at=moment(at[-1]) if at else None,
        file_now=read.hang.now if read.hang else None,
        forecasts=forecasts,
    )


def _stage(ctx: Context, data: bytes, staged: Staged) -> str:
    folder = ctx.settings.staging
    folder.mkdir(parents=True, exist_ok=True)
    for old in folder.iterdir():
        if time.time() - old.stat().st_mtime > KEEP_STAGED_S:
            old.unlink(missing_ok=True)
    token = hashlib.sha256(data + staged.model_dump_json().encode()).hexdigest()[:40]
    (folder / token).write_bytes(data)
    (folder / f"{token}.json").write_text(staged.model_dump_json())
    return token


@router.post("/{token}", status_code=201)
def confirm(ctx: Ctx, token: Token, body: s.ImportConfirm) -> s.ImportDone:
    """Bring a previewed file in, all or nothing."""
    file = ctx.settings.staging / token
    if not file.exists():
        raise NotFoundError("this preview is gone; bring the file again")
    data = file.read_bytes()
    staged = Staged.model_validate_json(file.with_suffix(".json").read_bytes())
    with many_objects(), ctx.db.writing() as session:
        latest, kept = ctx.latest_preview or ("", None)
        read = kept if latest == token and isinstance(kept, _Read) else _read(data, staged, ctx.now_s)
        plan = _plan(session, read, staged, body.by, ctx.now_s)
        if read.measurements is not None and read.measurements.asks:
            raise NeedsAnswerError("say first whether the temperatures are °C or °F")
        if plan.error_count and not body.leave_out_faults:
            many = "1 line is" if plan.error_count == 1 else f"{plan.error_count} lines are"
            raise NeedsAnswerError(f"{many} faulty: mend the file, or say that they are left out")
        if plan.new == 0:
            raise NeedsAnswerError("there is nothing new in this file")
        report = ImportReport(
            at_s=ctx.now_s,
            by=body.by,
            kind=read.kind,
            file_name=staged.file_name,
            sha256=hashlib.sha256(data).hexdigest(),
            place_id=staged.place_id,
        )
        done = _done(store.bring_in(session, plan, report))
    ctx.latest_preview = None
    file.unlink(missing_ok=True)
    file.with_suffix(".json").unlink(missing_ok=True)
    return done


def _done(report: ImportReport) -> s.ImportDone:
    return s.ImportDone(
        id=report.id,
        at=moment(report.at_s),
        by=report.by,
        kind=report.kind,
        file_name=report.file_name,
        rows_new=report.rows_new,
        rows_same=report.rows_same,
        rows_conflict=report.rows_conflict,
        rows_left_out=report.rows_left_out,
    )


@router.get("")
def reports(ctx: Ctx) -> list[s.ImportDone]:
    """What was brought in, newest first."""
    with ctx.db.reading() as session:
        return [_done(r) for r in store.reports(session)]


def file_stem(name: str, at: datetime) -> str:
    """A file name for an export: the place and the day."""
    return f"{re.sub(r'[^a-z0-9]+', '-', name.lower()).strip('-') or 'place'}-{at:%Y-%m-%d}"
