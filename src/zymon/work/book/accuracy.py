"""How good the dates were: of every finished piece what was told against what happened; of pH and rings too."""

import time
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime

import orjson
from pydantic import BaseModel

from zymon.core.book import accuracy as core
from zymon.core.drying.forecast import PieceForecast, forecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.rest import EVEN_AT_RING_INDEX
from zymon.store import cuts
from zymon.store import told as store
from zymon.store.database import Session
from zymon.store.models import ForecastRecord, Piece
from zymon.store.weighings import standing

from ..as_forecast import core_piece, lost_at
from ..dates import history_of
from ..premises import Premises, moment
from .ph_accuracy import PhChecked, ph_checked

FILE = "file"  # the source of a weighing that came by one
GROUPS = ("family", "place", "year")
MOST_TELLINGS = 6  # of one piece that are worked out afterwards: the hanging, and weighings spread over the way
A_WHILE_S = 2.0  # in which some are worked out; then it is said how many wait


Told = tuple[int, int | None, int, PieceForecast]  # of which piece, after which weighing, when [s], what


class FiguresOut(BaseModel):
    """Figures of some told dates; `few` where they rest on under five pieces. Positive: it took longer than told."""

    pieces: int
    told: int
    error_days: float
    error_share: float
    bias_days: float
    bias_share: float
    inside: float
    few: bool


class StageFigures(BaseModel):
    """Figures by how far the piece was."""

    stage: core.Stage
    figures: FiguresOut


class GroupFigures(BaseModel):
    """Figures by family, place or year."""

    name: str
    figures: FiguresOut


class SideOut(BaseModel):
    """Everything of the dates that were told then, or of those that were worked out afterwards."""

    overall: FiguresOut
    lesson: core.Lesson
    along: list[StageFigures]
    groups: dict[str, list[GroupFigures]]


class PieceChecked(BaseModel):
    """A finished piece: what was told first, when it got there, how many of its windows held that day."""

    piece_id: int
    batch_id: int
    tag: str
    product: str
    place: str
    hung_at: datetime
    reached_at: datetime
    told_first: datetime | None
    error_days: float | None  # of what was told first
    inside: int
    told: int
    live: bool


class RingChecked(BaseModel):
    """A cut face: what ring was seen, what was predicted."""

    piece_id: int
    tag: str
    at: datetime
    seen: str
    seen_mm: float | None
    predicted: str
    predicted_mm: float
    agrees: bool


class AccuracyOut(BaseModel):
    """How good the dates were; bad figures too."""

    pieces: int
    left_out: int
    waiting: int
    live: SideOut | None
    afterwards: SideOut | None
    each: list[PieceChecked]
    ph: list[PhChecked]
    ph_inside: float | None
    rings: list[RingChecked]


@dataclass(frozen=True)
class _Known:
    row: Piece
    core: core.Finished
    told: list[ForecastRecord]


def accuracy(shop: Premises) -> AccuracyOut:
    """Told against happened, as far as it is known now."""
    with shop.db.reading() as session:
        known, left_out = _finished(session)
        waiting = sum(len(_waiting(one)) for one in known)
        checked = [c for one in known for c in core.check(one.core)]
        ph = ph_checked(session, shop.now_s)
        return AccuracyOut(
            pieces=len(known),
            left_out=left_out,
            waiting=waiting,
            live=_side(known, [c for c in checked if c.live]),
            afterwards=_side(known, [c for c in checked if not c.live]),
            each=[_each(one) for one in reversed(known)],
            ph=ph,
            ph_inside=sum(one.inside for one in ph) / len(ph) if ph else None,
            rings=list(_rings(session)),
        )


def work_out(shop: Premises) -> AccuracyOut:
    """Work some dates out afterwards, with what was known then, for a while; what waits still is said."""
    until = time.monotonic() + A_WHILE_S
    with shop.db.reading() as session:
        known, _ = _finished(session)
        found: list[Told] = []
        for batch in _by_batch(known):
            for at_s, events in _moments(batch).items():
                if time.monotonic() > until and found:
                    break
                found += _then(session, batch, at_s, events)
    with shop.db.writing("Zymon", shop.now_s) as session:
        for piece_id, weighing_id, at_s, made in found:
            store.record(session, piece_id, made, weighing_id, at_s, afterwards=True)
    return accuracy(shop)


def _finished(session: Session) -> tuple[list[_Known], int]:
    """The pieces that got to their target by the scale, and how many came down before."""
    rows = store.pieces_finished_by_weight(session)
    told = store.told_of(session, [row.id for row in rows])
    found: list[_Known] = []
    for row in rows:
        target = (row.target_loss_percent or 0.0) / 100
        weighed = [(float(w.at_s), (lost_at(row, w) or 0.0) / 100) for w in standing(row)]
        at_s = core.reached([(float(row.hung_s), 0.0), *weighed], target) if weighed else None
        if at_s is None or target <= 0:
            continue
        records = told.get(row.id, [])
        found.append(_Known(row, _core(row, at_s, target, records), records))
    return found, len(rows) - len(found)


def _core(row: Piece, at_s: float, target: float, records: Sequence[ForecastRecord]) -> core.Finished:
    place = row.hangings[0].rod.place.name
    year = str(moment(at_s).year)
    return core.Finished(
        tag=row.tag,
        hung_s=float(row.hung_s),
        reached_s=at_s,
        target=target,
        told=tuple(
            core.Told(r.made_s, r.p10_s, r.p50_s, r.p90_s, r.loss_percent / 100, not r.afterwards) for r in records
        ),
        groups=(("family", row.batch.kind), ("place", place), ("year", year)),
    )


def _waiting(one: _Known) -> list[tuple[int | None, int]]:
    """The moments of which nothing was told, spread over the way to its target.

    Weighings that came by file; of a piece of which nothing ever was told its hanging and all its weighings.
    """
    have = {record.weighing_id for record in one.told}
    live = any(not record.afterwards for record in one.told)
    before = [w for w in standing(one.row) if w.at_s < one.core.reached_s and (not live or w.source == FILE)]
    step = max(1, -(-len(before) // (MOST_TELLINGS - 1)))
    wanted: list[tuple[int | None, int]] = [] if live else [(None, one.row.hung_s)]
    wanted += [(w.id, w.at_s) for w in before[::step]]
    return [(weighing_id, at_s) for weighing_id, at_s in wanted if weighing_id not in have]


def _by_batch(known: Iterable[_Known]) -> Iterable[list[_Known]]:
    batches: dict[tuple[int, int], list[_Known]] = defaultdict(list)
    for one in known:
        batches[one.row.batch_id, one.row.hangings[0].place_id].append(one)
    return batches.values()


def _moments(batch: Sequence[_Known]) -> dict[int, list[tuple[_Known, int | None]]]:
    """What is to be told, by the end of the day it is of: mates that were weighed on one day are told together."""
    days: dict[int, list[tuple[_Known, int | None, int]]] = defaultdict(list)
    for one in batch:
        for weighing_id, at_s in _waiting(one):
            days[at_s // 86_400].append((one, weighing_id, at_s))
    return {
        max(at_s for _, _, at_s in events): [(one, weighing_id) for one, weighing_id, _ in events]
        for events in days.values()
    }


def _then(
    session: Session, batch: Sequence[_Known], at_s: int, events: Sequence[tuple[_Known, int | None]]
) -> Iterable[Told]:
    """What would have been told at a moment of the pieces of a batch, from what was known of the batch by then."""
    place_id = batch[0].row.hangings[0].place_id
    history = history_of(session, place_id, at_s, alone=batch[0].row, since_s=min(one.row.hung_s for one in batch))
    pieces = tuple(_as_of(core_piece(one.row), at_s) for one in batch if one.row.hung_s <= at_s)
    made = {answer.tag: answer for answer in forecast(replace(history, pieces=pieces))}
    return [(one.row.id, weighing_id, at_s, made[one.row.tag]) for one, weighing_id in events if one.row.tag in made]


def _as_of(piece: CorePiece, at_s: int) -> CorePiece:
    """A piece as it was known at a moment: nothing of it that came later."""
    return replace(
        piece,
        weighings=tuple(w for w in piece.weighings if w.at_s <= at_s),
        stays=tuple(stay for stay in piece.stays if stay.from_s <= at_s),
        feels=tuple(feel for feel in piece.feels if feel.at_s <= at_s),
    )


def _side(known: Sequence[_Known], checked: Sequence[core.Checked]) -> SideOut | None:
    overall = core.figures(checked)
    if overall is None:
        return None
    pieces = [one.core for one in known]
    return SideOut(
        overall=_out(overall),
        lesson=core.lesson(overall),
        along=[StageFigures(stage=stage, figures=_out(some)) for stage, some in core.by_stage(checked)],
        groups={
            group: [GroupFigures(name=name, figures=_out(some)) for name, some in core.by_group(pieces, checked, group)]
            for group in GROUPS
        },
    )


def _out(figures: core.Figures) -> FiguresOut:
    return FiguresOut(**asdict(figures), few=figures.few)


def _each(one: _Known) -> PieceChecked:
    checked = core.check(one.core)
    first = next((t for t in one.core.told if t.p50_s is not None), None)
    return PieceChecked(
        piece_id=one.row.id,
        batch_id=one.row.batch_id,
        tag=one.row.tag,
        product=one.row.batch.product,
        place=one.row.hangings[0].rod.place.name,
        hung_at=moment(one.core.hung_s),
        reached_at=moment(one.core.reached_s),
        told_first=None if first is None or first.p50_s is None else moment(first.p50_s),
        error_days=round(checked[0].days, 1) if checked else None,
        inside=sum(c.inside for c in checked),
        told=len(checked),
        live=all(c.live for c in checked),
    )


def _rings(session: Session) -> Iterable[RingChecked]:
    for face in cuts.faces_lately(session, 400):
        seen, predicted = orjson.loads(face.seen), orjson.loads(face.predicted)
        if seen.get("ring") is None:
            continue
        even = predicted["ring_index"] <= EVEN_AT_RING_INDEX
        ring = "none" if even else "wide" if predicted["ring"] == "strong" else "thin"
        yield RingChecked(
            piece_id=face.piece_id,
            tag=face.piece.tag,
            at=moment(face.at_s),
            seen=seen["ring"],
            seen_mm=seen.get("ring_mm"),
            predicted=ring,
            predicted_mm=predicted["ring_mm"],
            agrees=(seen["ring"] == "none") == (ring == "none"),
        )
