"""What a file would bring: its rows compared with what is stored, before anything is."""

from collections.abc import Callable, Collection
from dataclasses import dataclass, field, replace
from functools import partial
from itertools import pairwise

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from zymon.core.errors import OutOfRangeError, ZymonError
from zymon.core.house.thinning import SPAN_S
from zymon.core.say import Said, said
from zymon.formats.hang_file import HangBatch, HangFile, HangPiece
from zymon.formats.measured.faults import RowError
from zymon.formats.measured.reading import ClimateRow, Measurements, PhRow, WeightRow

from .climate import Source, add_readings, stored_readings, thinned_spans
from .hang import NewPiece, hang_piece
from .models import Batch, Hanging, Piece
from .places import ClashError, place, setpoint_at
from .warm import add_reading, meters, readings, stage
from .warm_models import PhReading
from .weighings import NewWeighing, add_weighing, check_weight

GAP_TOLD_FROM_S = 2 * 3600
AHEAD_S = 300  # how far a clock may be ahead
SAME_C, SAME_RH, SAME_G, SAME_PH = 0.005, 0.005, 0.005, 0.0005  # closer than this is the same reading


class UnusableFileError(ClashError):
    """A file that was understood but cannot be brought in as it is."""


@dataclass(frozen=True)
class Doubtful:
    """A row that is asked about before it counts, as it would be when typed."""

    line: int
    shown: str
    at_s: int
    question: Said | None = None


@dataclass
class Plan:
    """What a file would bring to this workshop. Nothing doubtful is among what is new until it is kept."""

    new: int = 0
    same: int = 0
    conflict: int = 0
    errors: list[RowError] = field(default_factory=list)
    error_count: int = 0
    notes: list[Said] = field(default_factory=list)
    doubtful: list[Doubtful] = field(default_factory=list)
    apply: Callable[[Session, int], None] = lambda _session, _report: None
    _moments: set[tuple[str, int]] = field(default_factory=set)

    def compare(
        self,
        row: Doubtful,
        moment: tuple[str, int],
        same: bool,
        other: bool,
        question: Callable[[], Said | None],
        kept: Collection[int],
    ) -> bool | None:
        """Count a row as stored, in conflict, doubtful or new: whether it was asked about, None where it stays out.

        Parameters: row, as it is shown; moment, whose and when; same, whether it is stored already; other, whether
        another one is stored of the same moment; question, what would be asked when typed; kept, the lines that count.
        """
        twice = moment in self._moments
        self._moments.add(moment)
        if same:
            self.same += 1
            return None
        if other or twice:
            self.conflict += 1
            return None
        asked = question()
        if asked is not None:
            self.doubtful.append(replace(row, question=asked))
        return None if asked is not None and row.line not in kept else asked is not None

    def fault(self, line: int, error: ZymonError) -> None:
        """Note a row that cannot be."""
        self.error_count += 1
        self.errors.append(RowError(line, error.said))


def tags_known(session: Session) -> frozenset[str]:
    """Every tag that a piece carries or carried."""
    return frozenset(session.scalars(select(Piece.tag)))


def plan_climate(session: Session, place_id: int, file: Measurements) -> Plan:
    """Compare climate rows with what is stored; stored readings are kept where a row differs."""
    place(session, place_id)
    plan = Plan(errors=list(file.errors), error_count=file.error_count, same=file.repeated)
    rows = file.climate
    if not rows:
        return plan
    stored = stored_readings(session, place_id, rows[0][0], rows[-1][0])
    thinned = thinned_spans(session, place_id, rows[0][0], rows[-1][0])
    new: list[ClimateRow] = rows
    if stored:
        new = []
        for row in rows:
            there = stored.get(row[0])
            if row[0] // SPAN_S in thinned:
                plan.same += 1
            elif there is None:
                new.append(row)
            elif _same_air(there, row[1:]):
                plan.same += 1
            else:
                plan.conflict += 1
    plan.new = len(new)
    gaps = [b[0] - a[0] for a, b in pairwise(rows) if b[0] - a[0] > GAP_TOLD_FROM_S]
    if gaps:
        plan.notes.append(
            said("brings.gap" if len(gaps) == 1 else "brings.gaps", gaps=len(gaps), hours=round(max(gaps) / 3600))
        )
    plan.apply = lambda s, report: add_readings(s, place_id, new, Source(import_id=report))
    return plan


def _same_air(one: tuple[float, float | None], other: tuple[float, float | None]) -> bool:
    if abs(one[0] - other[0]) >= SAME_C:
        return False
    if one[1] is None or other[1] is None:
        return one[1] is other[1]
    return abs(one[1] - other[1]) < SAME_RH


def plan_weights(
    session: Session,
    file: Measurements,
    by: str,
    now_s: int,
    question: Callable[[Piece, float, int], Said | None],
    kept: Collection[int] = (),
) -> Plan:
    """Compare weighings with what is stored; each must belong to a piece that hangs or hung here.

    Parameters: question, what would be asked of a piece's weight [g] at a time [s] when typed; kept, the lines that
    were asked about and count.
    """
    plan = Plan(errors=list(file.errors), error_count=file.error_count)
    tags = {row.tag for row in file.weights}
    there = session.scalars(select(Piece).where(Piece.tag.in_(tags)).options(selectinload(Piece.weighings)))
    pieces = {p.tag: p for p in there}
    new: list[tuple[int, WeightRow, bool]] = []
    for row in file.weights:
        piece = pieces.get(row.tag)
        try:
            if piece is None:
                raise OutOfRangeError("row.unknown_tag", tag=row.tag)
            if row.at_s > now_s + AHEAD_S:
                raise OutOfRangeError("refused.weighed_in_future")
            check_weight(piece, row.gross_g, row.at_s)
        except (OutOfRangeError, ClashError) as error:
            plan.fault(row.line, error)
            continue
        at_once = [w for w in piece.weighings if w.at_s == row.at_s]
        asked = plan.compare(
            Doubtful(row.line, f"{row.tag}: {row.gross_g:g} g", row.at_s),
            (row.tag, row.at_s),
            same=any(abs(w.gross_g - row.gross_g) < SAME_G for w in at_once),
            other=any(w.struck_s is None for w in at_once),
            question=partial(question, piece, row.gross_g, row.at_s),
            kept=kept,
        )
        if asked is not None:
            new.append((piece.id, row, asked))
    plan.new = len(new)

    def apply(s: Session, report: int) -> None:
        for piece_id, row, sure in new:
            weighing = NewWeighing(row.gross_g, row.at_s, "file", kept=sure, import_id=report)
            add_weighing(s, s.get_one(Piece, piece_id), weighing, by, now_s)

    plan.apply = apply
    return plan


def plan_ph(
    session: Session,
    file: Measurements,
    by: str,
    now_s: int,
    question: Callable[[Batch, float, int], Said | None],
    kept: Collection[int] = (),
) -> Plan:
    """Compare pH readings with what is stored; each must belong to a batch that is or was in the warm.

    Parameters: question, what would be asked of a batch's pH at a time [s] when typed; kept, the lines that count.
    """
    plan = Plan(errors=list(file.errors), error_count=file.error_count)
    codes = {row.batch for row in file.ph}
    batches = {b.code: b for b in session.scalars(select(Batch).where(Batch.code.in_(codes)))}
    known_meters = {m.name.lower(): m.id for m in meters(session)}
    warm = {code: stage(session, batch.id) for code, batch in batches.items()}
    stored = {code: readings(session, batch.id) for code, batch in batches.items()}
    new: list[tuple[int, PhRow, bool]] = []
    for row in file.ph:
        batch = batches.get(row.batch)
        try:
            if batch is None:
                raise OutOfRangeError("row.unknown_batch", batch=row.batch)
            begun = warm[row.batch]
            if begun is None:
                raise OutOfRangeError("refused.not_declared_warm")
            if row.at_s < begun.stuffed_s:
                raise OutOfRangeError("refused.measured_before_stuffed")
        except OutOfRangeError as error:
            plan.fault(row.line, error)
            continue
        at_once = [r for r in stored[row.batch] if r.at_s == row.at_s]
        asked = plan.compare(
            Doubtful(row.line, f"{row.batch}: pH {row.ph:.2f}", row.at_s),
            (row.batch, row.at_s),
            same=any(abs(r.ph - row.ph) < SAME_PH for r in at_once),
            other=any(r.struck_s is None for r in at_once),
            question=partial(question, batch, row.ph, row.at_s),
            kept=kept,
        )
        if asked is not None:
            new.append((batch.id, row, asked))
    plan.new = len(new)
    strange = sorted({row.meter for row in file.ph if row.meter and row.meter.lower() not in known_meters})
    if strange:
        plan.notes.append(said("brings.unknown_meter", meters=", ".join(name[:40] for name in strange[:5])))

    def apply(s: Session, report: int) -> None:
        for batch_id, row, sure in new:
            reading = PhReading(
                uid=f"file {report} line {row.line}", batch_id=batch_id, at_s=row.at_s, ph=row.ph,
                sample_c=row.sample_temperature_c, meter_id=known_meters.get(row.meter.lower()), confirmed=sure,
                import_id=report, by=by, entered_s=now_s,
            )  # fmt: skip
            add_reading(s, reading)

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
    thinned = thinned_spans(session, place_id, min(readings), max(readings)) if readings else set()
    readings = {at: air for at, air in readings.items() if at // SPAN_S not in thinned}
    rows = sorted((at, c, rh) for at, (c, rh) in readings.items() if at not in have)
    plan.conflict = sum(1 for at in readings if at in have and have[at] != readings[at])
    plan.new = len(fresh) + len(weights) + len(rows)
    plan.notes.append(said("brings.hang_file", pieces=len(fresh), weighings=len(weights), readings=len(rows)))
    setpoint = file.chamber.setpoint
    current = setpoint_at(target, now_s)
    if (
        setpoint
        and current
        and (setpoint.temperature_c, setpoint.rh_percent) != (current.temperature_c, current.rh_percent)
    ):
        plan.notes.append(said("brings.setpoint_stays", place=target.name))

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
