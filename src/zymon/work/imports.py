"""Bringing files in: read, what is not plain asked, previewed; then brought in whole, and taken back whole."""

import hashlib
import time
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from pydantic import BaseModel

from zymon.core.drying.forecast import forecast
from zymon.core.drying.judge import ask_about
from zymon.core.errors import ZymonError
from zymon.core.say import Said
from zymon.formats.bulk import many_objects
from zymon.formats.hang_file import HangFile, history_of, read_hang_file
from zymon.formats.measured.faults import RowError
from zymon.formats.measured.reading import Measurements, first_rows, read_measurements
from zymon.formats.measured.understanding import Known
from zymon.store import file_heads
from zymon.store import import_plans as plans
from zymon.store import imports as store
from zymon.store.database import Session
from zymon.store.kinds import ImportKind
from zymon.store.models import Batch, ImportReport, Piece
from zymon.store.places import NotFoundError
from zymon.words import sentence

from . import import_schemas as s
from .as_forecast import core_piece
from .places import ready_out
from .premises import Premises, moment
from .schemas import StrikeIn
from .warm.views import asked_of_batch

KEEP_STAGED_S = 3600
MOST_STAGED = 12  # previews of one workshop that wait at a time; each is two files


class NeedsAnswerError(ZymonError, ValueError):
    """A file that cannot be brought in before a question is answered or its faults are dealt with."""


class Staged(BaseModel):
    """How a previewed file is to be read again when it is confirmed."""

    file_name: str
    place_id: int
    answers: dict[str, str]


@dataclass
class Read:
    """A file as it was read; `before`, what was said of files with the same head, where nothing is said of this one."""

    kind: ImportKind
    measurements: Measurements | None = None
    hang: HangFile | None = None
    before: file_heads.FileHead | None = None


def _read(shop: Premises, session: Session, data: bytes, staged: Staged, now_s: int) -> Read:
    if data.lstrip()[:1] in (b"{", b"["):
        return Read("hang", hang=read_hang_file(data))
    known = Known(shop.zone, now_s, plans.tags_known(session))
    before: list[file_heads.FileHead] = []

    def remembered(head: str) -> dict[str, str]:
        answers, said_by = file_heads.remembered(session, head)
        before.extend([] if said_by is None else [said_by])
        return answers

    made = read_measurements(data, known, staged.answers, remembered)
    return Read(made.kind, measurements=made, before=before[0] if before and not staged.answers else None)


def _plan(
    shop: Premises, session: Session, read: Read, staged: Staged, by: str, now_s: int, kept: set[int]
) -> plans.Plan:
    if read.hang is not None:
        return plans.plan_hang_file(session, staged.place_id, read.hang, by, now_s)
    assert read.measurements is not None
    if read.kind == "climate":
        return plans.plan_climate(session, staged.place_id, read.measurements)
    if read.kind == "ph":
        return plans.plan_ph(session, read.measurements, by, now_s, _ph_question(session, now_s), kept)
    return plans.plan_weights(session, read.measurements, by, now_s, _weight_question(shop, session, now_s), kept)


def _weight_question(shop: Premises, session: Session, now_s: int) -> Callable[[Piece, float, int], Said | None]:
    """What would be asked of a weight if it was typed at the piece."""

    def ask(piece: Piece, gross_g: float, at_s: int) -> Said | None:
        return ask_about(core_piece(piece), shop.dates.of_piece(session, piece, now_s), gross_g, at_s)

    return ask


def _ph_question(session: Session, now_s: int) -> Callable[[Batch, float, int], Said | None]:
    """What would be asked of a pH if it was typed at the Warm."""

    def ask(batch: Batch, ph: float, at_s: int) -> Said | None:
        return asked_of_batch(session, batch.id, ph, at_s, now_s)

    return ask


def _shown_errors(errors: list[RowError]) -> list[s.RowFault]:
    return [s.RowFault(line=e.line, text=sentence(e.text)) for e in errors[:50]]


def _question_out(read: Measurements) -> list[s.QuestionOut]:
    return [
        s.QuestionOut(
            asked=q.asked,
            text=sentence(Said(f"asks.{q.asked}", {"sample": "", **q.values})),
            choices=[s.ChoiceOut(value=value, shows=shows) for value, shows in q.choices],
            free=q.asked == "zone",
            offered=q.offered,
            answer=q.answer,
        )
        for q in read.understood.questions
    ]


def _preview_out(token: str, staged: Staged, read: Read, plan: plans.Plan) -> s.ImportPreview:
    at: list[float] = []
    forecasts: list[s.FileForecast] = []
    made = read.measurements
    if made is not None:
        at = [r[0] for r in made.climate] or sorted([*(w.at_s for w in made.weights), *(r.at_s for r in made.ph)])
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
    before = read.before
    return s.ImportPreview(
        token=token,
        kind=read.kind,
        file_name=staged.file_name,
        understood=[sentence(one) for one in made.understood.said] if made else [],
        questions=_question_out(made) if made else [],
        first_rows=[_row_out(row) for row in first_rows(made)] if made else [],
        said_before=None if before is None else s.SaidBefore(by=before.by, at=moment(before.at_s)),
        rows=made.rows if made else pieces,
        new=plan.new,
        same=plan.same,
        conflict=plan.conflict,
        error_count=plan.error_count,
        errors=_shown_errors(plan.errors),
        doubtful=[
            s.DoubtfulRow(line=d.line, shown=d.shown, at=moment(d.at_s), question=sentence(d.question))
            for d in plan.doubtful
            if d.question is not None
        ],
        notes=[sentence(note) for note in plan.notes],
        first_at=moment(at[0]) if at else None,
        last_at=moment(at[-1]) if at else None,
        file_now=read.hang.now if read.hang else None,
        forecasts=forecasts,
    )


def _row_out(row: tuple[int, list[str], datetime | None, tuple[str, ...]]) -> s.FirstRow:
    line, cells, at, values = row
    return s.FirstRow(line=line, cells=[cell[:40] for cell in cells[:12]], at=at, values=list(values))


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
        found = _read(shop, session, data, staged, shop.now_s)
        plan = _plan(shop, session, found, staged, "preview", shop.now_s, set())
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
            found = kept if isinstance(kept, Read) else _read(shop, entry.session, data, staged, entry.now_s)
            entry.came("import", _bring_in(shop, entry.session, found, data, staged, body, entry.now_s).id)
    file = folder / token
    file.unlink(missing_ok=True)
    file.with_suffix(".json").unlink(missing_ok=True)
    with shop.db.reading() as session:
        return _done(store.report(session, entry.made[0].id))


def _bring_in(
    shop: Premises, session: Session, read: Read, data: bytes, staged: Staged, body: s.ImportConfirm, now_s: int
) -> ImportReport:
    made = read.measurements
    if made is not None and made.understood.open:
        raise NeedsAnswerError("refused.file_asks", open=len(made.understood.open))
    plan = _plan(shop, session, read, staged, body.by, now_s, set(body.keep))
    unanswered = {d.line for d in plan.doubtful} - set(body.keep) - set(body.leave)
    if unanswered:
        raise NeedsAnswerError("refused.rows_in_doubt", lines=len(unanswered), line=min(unanswered))
    if plan.error_count and not body.leave_out_faults:
        raise NeedsAnswerError(
            "refused.line_faulty" if plan.error_count == 1 else "refused.lines_faulty", lines=plan.error_count
        )
    if plan.new == 0:
        raise NeedsAnswerError("refused.nothing_new")
    if made is not None and made.understood.questions:
        answers: dict[str, str] = {
            q.asked: q.answer for q in made.understood.questions if q.answer is not None and q.asked != "sheet"
        }
        file_heads.remember(session, made.understood.head_key, answers, body.by, now_s)
    report = ImportReport(
        at_s=now_s,
        by=body.by,
        kind=read.kind,
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
