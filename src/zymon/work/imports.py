"""Bringing files in: read, compared, previewed; then brought in whole, and taken back whole."""

import hashlib
import time
from dataclasses import dataclass
from pathlib import Path
from typing import Literal
from zoneinfo import ZoneInfo

from pydantic import BaseModel

from zymon.core.drying.forecast import forecast
from zymon.core.errors import ZymonError
from zymon.formats.bulk import many_objects
from zymon.formats.hang_file import HangFile, history_of, read_hang_file
from zymon.formats.measurements import Measurements, TemperatureUnit, read_measurements
from zymon.store import imports as store
from zymon.store.database import Session
from zymon.store.models import ImportReport
from zymon.store.places import NotFoundError
from zymon.words import sentence

from . import import_schemas as s
from .places import ready_out
from .premises import Premises, moment
from .schemas import StrikeIn

KEEP_STAGED_S = 3600
MOST_STAGED = 12  # previews of one workshop that wait at a time; each is two files


class NeedsAnswerError(ZymonError, ValueError):
    """A file that cannot be brought in before a question is answered or its faults are dealt with."""


class Staged(BaseModel):
    """How a previewed file is to be read again when it is confirmed."""

    file_name: str
    place_id: int
    time_zone: str
    temperature_unit: TemperatureUnit | None


@dataclass
class Read:
    """A file as it was read."""

    kind: Literal["climate", "weights", "hang"]
    measurements: Measurements | None = None
    hang: HangFile | None = None


def _read(data: bytes, staged: Staged, now_s: int) -> Read:
    if data.lstrip()[:1] in (b"{", b"["):
        return Read("hang", hang=read_hang_file(data))
    found = read_measurements(data, ZoneInfo(staged.time_zone), now_s, staged.temperature_unit)
    return Read(found.kind, measurements=found)


def _plan(session: Session, read: Read, staged: Staged, by: str, now_s: int) -> store.Plan:
    if read.hang is not None:
        return store.plan_hang_file(session, staged.place_id, read.hang, by, now_s)
    assert read.measurements is not None
    if read.kind == "climate":
        return store.plan_climate(session, staged.place_id, read.measurements)
    return store.plan_weights(session, read.measurements, by, now_s)


def _preview_out(token: str, staged: Staged, read: Read, plan: store.Plan) -> s.ImportPreview:
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
                target_weight_g=None if f.target_weight_g is None else round(f.target_weight_g, 1),
                status=f.status,
                ready=ready_out(f),
                doubts=[f"{d.gross_g:g} g: {sentence(d.reason)}" for d in f.doubts],
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


def sweep(folder: Path, leave: int = MOST_STAGED) -> None:
    """Let go of previews that nobody confirmed: those of an hour ago, and all but the newest few."""
    if not folder.is_dir():
        return
    newest_first = sorted(folder.iterdir(), key=lambda file: file.stat().st_mtime, reverse=True)
    for i, old in enumerate(newest_first):
        if i >= 2 * leave or time.time() - old.stat().st_mtime > KEEP_STAGED_S:
            old.unlink(missing_ok=True)


def _stage(folder: Path, data: bytes, staged: Staged) -> str:
    folder.mkdir(parents=True, exist_ok=True)
    sweep(folder, MOST_STAGED - 1)  # there will be one more
    token = hashlib.sha256(data + staged.model_dump_json().encode()).hexdigest()[:40]
    (folder / token).write_bytes(data)
    (folder / f"{token}.json").write_text(staged.model_dump_json())
    return token


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
        taken_back=None if report.taken_back_reason is None else f"{report.taken_back_by}: {report.taken_back_reason}",
    )


def preview(shop: Premises, folder: Path, data: bytes, staged: Staged) -> tuple[s.ImportPreview, tuple[str, Read]]:
    """What a file would bring; nothing is stored before it is confirmed. Gives the file as read back beside it."""
    with many_objects(), shop.db.reading() as session:
        found = _read(data, staged, shop.now_s)
        plan = _plan(session, found, staged, "preview", shop.now_s)
    token = _stage(folder, data, staged)
    return _preview_out(token, staged, found, plan), (token, found)


def confirm(
    shop: Premises, folder: Path, token: str, body: s.ImportConfirm, latest: tuple[str, object] | None
) -> s.ImportDone:
    """Bring a previewed file in, all or nothing; sent again, it is told what it brought."""
    with many_objects(), shop.recording(body, f"import {token[:40]}") as entry:
        if entry.new:
            file = folder / token
            if not file.exists():
                raise NotFoundError("refused.preview_gone")
            data = file.read_bytes()
            staged = Staged.model_validate_json(file.with_suffix(".json").read_bytes())
            kept = latest[1] if latest is not None and latest[0] == token else None
            found = kept if isinstance(kept, Read) else _read(data, staged, entry.now_s)
            entry.came("import", _bring_in(entry.session, found, data, staged, body, entry.now_s).id)
    file = folder / token
    file.unlink(missing_ok=True)
    file.with_suffix(".json").unlink(missing_ok=True)
    with shop.db.reading() as session:
        return _done(store.report(session, entry.made[0].id))


def _bring_in(
    session: Session, found: Read, data: bytes, staged: Staged, body: s.ImportConfirm, now_s: int
) -> ImportReport:
    plan = _plan(session, found, staged, body.by, now_s)
    if found.measurements is not None and found.measurements.asks:
        raise NeedsAnswerError("refused.which_unit")
    if plan.error_count and not body.leave_out_faults:
        raise NeedsAnswerError(
            "refused.line_faulty" if plan.error_count == 1 else "refused.lines_faulty", lines=plan.error_count
        )
    if plan.new == 0:
        raise NeedsAnswerError("refused.nothing_new")
    report = ImportReport(
        at_s=now_s,
        by=body.by,
        kind=found.kind,
        file_name=staged.file_name,
        sha256=hashlib.sha256(data).hexdigest(),
        place_id=staged.place_id,
    )
    return store.bring_in(session, plan, report)


def reports(shop: Premises) -> list[s.ImportDone]:
    """What was brought in, newest first."""
    with shop.db.reading() as session:
        return [_done(r) for r in store.reports(session)]


def take_back(shop: Premises, report_id: int, body: StrikeIn) -> s.ImportDone:
    """Take back whole what a file brought: its weights are struck through, its climate does not count."""
    with shop.changing(body.by, body.reason) as session:
        return _done(store.take_back(session, store.report(session, report_id), body.reason, body.by, shop.now_s))


def bring_back(shop: Premises, report_id: int, body: StrikeIn) -> s.ImportDone:
    """Let a file that was taken back count again."""
    with shop.changing(body.by, body.reason) as session:
        return _done(store.bring_back(session, store.report(session, report_id), body.reason, body.by, shop.now_s))
