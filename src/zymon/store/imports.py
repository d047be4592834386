"""Imports: what a file would bring, and bringing it, all or nothing."""

from collections.abc import Callable
from dataclasses import dataclass, field
from itertools import pairwise

from sqlalchemy import select, text
from sqlalchemy.orm import Session, selectinload

from zymon.core.errors import OutOfRangeError
from zymon.formats.hang_file import HangBatch, HangFile, HangPiece
from zymon.formats.measurements import Measurements, RowError
from zymon.words import told

from .climate import (
    Row,
    Source,
    add_readings,
    reading_strikes,
    restore_readings,
    stored_readings,
    strike_readings,
)
from .hang import NewPiece, hang_piece
from .models import Hanging, ImportReport, Piece, ReadingStrike, Weighing
from .places import ClashError, place, setpoint_at, there
from .weighings import NewWeighing, add_weighing, check_weight, restore_weighing, strike_weighing

GAP_TOLD_FROM_S = 2 * 3600
AHEAD_S = 300  # how far a clock may be ahead


class UnusableFileError(ClashError):
    """A file that was understood but cannot be brought in as it is."""


@dataclass
class Plan:
    """What a file would bring to this workshop."""

    new: int = 0
    same: int = 0
    conflict: int = 0
    errors: list[RowError] = field(default_factory=list)
    error_count: int = 0
    notes: list[str] = field(default_factory=list)
    apply: Callable[[Session, int], None] = lambda _session, _report: None


def plan_climate(session: Session, place_id: int, file: Measurements) -> Plan:
    """Compare climate rows with what is stored; stored readings are kept where a row differs."""
    place(session, place_id)
    plan = Plan(errors=list(file.errors), error_count=file.error_count, same=file.repeated)
    rows = file.climate
    if not rows:
        return plan
    stored = stored_readings(session, place_id, rows[0][0], rows[-1][0])
    new: list[Row] = rows
    if stored:
        new = []
        for row in rows:
            there = stored.get(row[0])
            if there is None:
                new.append(row)
            elif abs(there[0] - row[1]) < 0.005 and abs(there[1] - row[2]) < 0.005:
                plan.same += 1
            else:
                plan.conflict += 1
    plan.new = len(new)
    gaps = [b[0] - a[0] for a, b in pairwise(rows) if b[0] - a[0] > GAP_TOLD_FROM_S]
    if gaps:
        longest = max(gaps) / 3600
        many = "1 gap" if len(gaps) == 1 else f"{len(gaps)} gaps, the longest"
        plan.notes.append(f"{many} of {longest:.0f} hours: the forecast bridges it with the habit of the place")
    plan.apply = lambda s, report: add_readings(s, place_id, new, Source(import_id=report))
    return plan


def plan_weights(session: Session, file: Measurements, by: str, now_s: int) -> Plan:
    """Compare weighings with what is stored; each must belong to a piece that hangs or hung here."""
    plan = Plan(errors=list(file.errors), error_count=file.error_count)
    tags = {tag for _, tag, _, _ in file.weights}
    found = session.scalars(select(Piece).where(Piece.tag.in_(tags)).options(selectinload(Piece.weighings)))
    pieces = {p.tag: p for p in found}
    new: list[tuple[int, int, float]] = []
    seen: set[tuple[str, int]] = set()
    for line, tag, at_s, gross_g in file.weights:
        piece = pieces.get(tag)
        fault = None
        if piece is None:
            fault = f"no piece carries the tag {tag}"
        else:
            try:
                if at_s > now_s + AHEAD_S:
                    raise OutOfRangeError("refused.weighed_in_future")
                check_weight(piece, gross_g, at_s)
            except (OutOfRangeError, ClashError) as error:
                fault = f"{tag}: {told(error)}"
        if fault is not None or piece is None:
            plan.error_count += 1
            plan.errors.append(RowError(line, fault or ""))
            continue
        there = [w for w in piece.weighings if w.at_s == at_s]
        if any(abs(w.gross_g - gross_g) < 0.005 for w in there):
            plan.same += 1
        elif any(w.struck_s is None for w in there) or (tag, at_s) in seen:
            plan.conflict += 1
        else:
            new.append((piece.id, at_s, gross_g))
        seen.add((tag, at_s))
    plan.new = len(new)

    def apply(s: Session, report: int) -> None:
        for piece_id, at_s, gross_g in new:
            weighing = NewWeighing(gross_g, at_s, "file", import_id=report)
            add_weighing(s, s.get_one(Piece, piece_id), weighing, by, now_s)

    plan.apply = apply
    return plan


def plan_hang_file(session: Session, place_id: int, file: HangFile, by: str, now_s: int) -> Plan:
    """Compare a hang file with what is stored: new pieces go to free hooks, known tags get their new weighings."""
    target = place(session, place_id)
    plan = Plan()
    tags = [p.tag for b in file.batches for p in b.pieces]
    stored = {
        p.tag: p
        for p in session.scalars(select(Piece).where(Piece.tag.in_(tags)).options(selectinload(Piece.weighings)))
    }
    taken = {
        (h.rod_id, h.hook)
        for h in session.scalars(select(Hanging).where(Hanging.place_id == place_id, Hanging.to_s.is_(None)))
    }
    free = [(r.id, h) for r in target.rods for h in range(1, r.hooks + 1) if (r.id, h) not in taken]
    fresh: list[tuple[HangBatch, HangPiece]] = []
    weights: list[tuple[str, int, float]] = []
    for batch in file.batches:
        for piece in batch.pieces:
            known = stored.get(piece.tag)
            there = {(w.at_s, w.gross_g) for w in known.weighings} if known else set()
            if known is None:
                fresh.append((batch, piece))
            elif (known.batch.code, known.start_weight_g, known.hung_s) == (
                batch.id,
                piece.start_weight_g,
                round(piece.hung_at.timestamp()),
            ):
                plan.same += 1
            else:
                raise UnusableFileError("refused.file_tag_taken", tag=piece.tag)
            for at, gross_g, *_ in piece.weights:
                if round(at.timestamp()) > now_s + AHEAD_S:
                    raise UnusableFileError("refused.file_in_future", tag=piece.tag, at_s=at.timestamp())
                if (round(at.timestamp()), gross_g) not in there:
                    weights.append((piece.tag, round(at.timestamp()), gross_g))
    if len(fresh) > len(free):
        raise UnusableFileError("refused.no_room_for_file", place=target.name, free=len(free), pieces=len(fresh))
    readings = {
        round(at.timestamp()): (c, rh) for at, c, rh in file.climate if round(at.timestamp()) <= now_s + AHEAD_S
    }
    have = stored_readings(session, place_id, min(readings), max(readings)) if readings else {}
    rows = sorted((at, c, rh) for at, (c, rh) in readings.items() if at not in have)
    plan.conflict = sum(1 for at in readings if at in have and have[at] != readings[at])
    plan.new = len(fresh) + len(weights) + len(rows)
    plan.notes.append(f"{len(fresh)} new pieces, {len(weights)} weighings, {len(rows)} climate readings")
    setpoint = file.chamber.setpoint
    current = setpoint_at(target, now_s)
    if (
        setpoint
        and current
        and (setpoint.temperature_c, setpoint.rh_percent) != (current.temperature_c, current.rh_percent)
    ):
        plan.notes.append(f"the set point of {target.name} stays as it is; change it by hand if the file's is right")

    def apply(s: Session, report: int) -> None:
        for (batch, piece), (rod_id, hook) in zip(fresh, free, strict=False):
            hang_piece(s, _declared(batch, piece), rod_id, hook, by, now_s)
        there = {p.tag: p for p in s.scalars(select(Piece).where(Piece.tag.in_(tags)))}
        for tag, at_s, gross_g in weights:
            add_weighing(s, there[tag], NewWeighing(gross_g, at_s, "file", import_id=report), by, now_s)
        add_readings(s, place_id, rows, Source(import_id=report))

    plan.apply = apply
    return plan


def _declared(batch: HangBatch, piece: HangPiece) -> NewPiece:
    return NewPiece(
        tag=piece.tag,
        batch_code=batch.id,
        product=str((batch.model_extra or {}).get("product") or batch.kind.replace("_", " ").capitalize()),
        kind=batch.kind,
        shape=batch.shape,
        casing=batch.casing,
        fat_percent=batch.fat_percent,
        salt_percent=batch.salt_percent,
        diameter_mm=piece.diameter_mm,
        thickness_mm=piece.thickness_mm,
        length_mm=piece.length_mm,
        start_weight_g=piece.start_weight_g,
        tare_g=piece.tare_g,
        target_loss_percent=piece.target_loss_percent,
        hung_s=round(piece.hung_at.timestamp()),
        done_by=None if piece.start_weight_g and piece.target_loss_percent else "feel",
        skin=piece.skin,
        bone=piece.bone,
    )


def bring_in(session: Session, plan: Plan, report: ImportReport) -> ImportReport:
    """Carry a plan out inside the session's transaction and keep its report."""
    report.rows_new, report.rows_same, report.rows_conflict = plan.new, plan.same, plan.conflict
    report.rows_left_out = plan.error_count
    session.add(report)
    session.flush()
    plan.apply(session, report.id)
    session.flush()
    return report


def reports(session: Session) -> list[ImportReport]:
    """The latest imports, newest first."""
    return list(session.scalars(select(ImportReport).order_by(ImportReport.id.desc()).limit(50)))


def report(session: Session, report_id: int) -> ImportReport:
    """One import. Raises NotFoundError."""
    return there(session, ImportReport, report_id, "refused.no_import")


def take_back(session: Session, of: ImportReport, reason: str, by: str, now_s: int) -> ImportReport:
    """Take back whole what a file brought: its weights are struck, its climate does not count. Raises ClashError.

    Pieces that it hung stay, since they may have been moved, weighed or taken down since.
    """
    if of.taken_back_s is not None:
        raise ClashError("refused.file_taken_back")
    for weighing in _weighings(session, of):
        if weighing.struck_s is None:
            strike_weighing(session, weighing.id, reason, by, now_s)
    span = session.execute(
        text("SELECT min(at_s), max(at_s) FROM reading WHERE import_id = :i AND place_id = :p"),
        {"i": of.id, "p": of.place_id},
    ).one()
    if of.place_id is not None and span[0] is not None:
        strike_readings(
            session,
            ReadingStrike(
                place_id=of.place_id, from_s=span[0], to_s=span[1], import_id=of.id, reason=reason, readings=0,
                by=by, entered_s=now_s,
            ),
        )  # fmt: skip
    of.taken_back_s, of.taken_back_by, of.taken_back_reason = now_s, by, reason
    session.flush()
    return of


def bring_back(session: Session, of: ImportReport, reason: str, by: str, now_s: int) -> ImportReport:
    """Let a file that was taken back count again; a second time changes nothing."""
    if of.taken_back_s is None:
        return of
    for weighing in _weighings(session, of):
        if weighing.struck_s == of.taken_back_s and weighing.struck_reason == of.taken_back_reason:
            restore_weighing(session, weighing.id, by, now_s)
    if of.place_id is not None:
        for strike in reading_strikes(session, of.place_id):
            if strike.import_id == of.id and strike.struck_s is None:
                restore_readings(session, strike, reason, by, now_s)
    of.taken_back_s = of.taken_back_by = of.taken_back_reason = None
    session.flush()
    return of


def _weighings(session: Session, of: ImportReport) -> list[Weighing]:
    return list(session.scalars(select(Weighing).where(Weighing.import_id == of.id)))
