"""What failed stays failed: a hurdle that a change of something entered turned becomes a correction by itself.

Judged before and after every entry, in its one transaction: before by what is committed, after by what is about to be.
A weight, a pH or a move of the moment can make no fail vanish; what is entered late, struck, restored, declared anew or
judged by other limits can.
"""

from sqlalchemy import select

from zymon.core.ledger.judge import judge
from zymon.store.bench_models import Making
from zymon.store.cut_models import NextTimeNote, SeenFace
from zymon.store.database import Session
from zymon.store.evidence_models import DeviationStep, HurdleCorrection, HurdleSignature, LabResult
from zymon.store.hang_models import HangEvent
from zymon.store.journal import AIR_CHANGED, batches_of, changed_rows
from zymon.store.models import Batch, Hanging, Piece, PieceCut, PieceState, Weighing
from zymon.store.salt_models import SaltEvent, SaltPiece
from zymon.store.warm_models import MeterCalibration, PhReading, WarmStage

from ..course import course_of
from .assemble import Ahead, judged_of

LATE_S = 3600  # an entry that is not older than this is of the moment
# entries that add to the course; what is declared anew, a stage, what went in, changes the past however new it is
OF_THE_MOMENT = (Weighing, PhReading, SaltEvent, Hanging, PieceState, PieceCut)
# a laboratory's value, a later look and what was done answer a fail: that is no correction
ANSWERS = (LabResult, HangEvent, DeviationStep, HurdleSignature, SeenFace, NextTimeNote)


def keep_what_failed(before: Session, session: Session, by: str, reason: str, now_s: int) -> None:
    """Note each hurdle that fails before this session's changes and not after them.

    Parameters: before, a session that sees what is committed; session, which changes it; by, reason, of the change.
    """
    for batch_id in sorted(_touched(session, now_s)):
        failed = _failing(before, batch_id, now_s)
        if not failed:
            continue
        for hurdle in sorted(failed - _failing(session, batch_id, now_s)):
            session.add(
                HurdleCorrection(batch_id=batch_id, hurdle=hurdle, was="fail", reason=reason[:300], by=by, at_s=now_s)
            )
    session.flush()


def _failing(session: Session, batch_id: int, now_s: int) -> set[str]:
    if session.get(Batch, batch_id) is None:
        return set()
    course = course_of(session, batch_id, now_s)
    return {h.name for h in judge(judged_of(session, course, Ahead(), now_s)).hurdles if h.state == "fail"}


def _touched(session: Session, now_s: int) -> set[int]:
    """The batches whose past this session's changes can have moved."""
    rows = [row for row, new in changed_rows(session).items() if not (new and _answers(row, now_s))]
    meters = {row.meter_id for row in rows if isinstance(row, MeterCalibration)}
    read = session.scalars(select(PhReading.batch_id).where(PhReading.meter_id.in_(meters))) if meters else ()
    return batches_of(session, rows) | set(read) | _of_air(session, now_s)


def _answers(row: object, now_s: int) -> bool:
    """Whether a new entry answers a fail, or is of the moment, rather than changing what made it."""
    if isinstance(row, ANSWERS):
        return True
    moment_s = row.from_s if isinstance(row, Hanging | PieceState) else getattr(row, "at_s", now_s)
    return isinstance(row, OF_THE_MOMENT) and bool(moment_s >= now_s - LATE_S)


def _of_air(session: Session, now_s: int) -> set[int]:
    """The batches that lay, warmed or hung where the log of the past was changed."""
    spans = [(place_id, low, high) for place_id, low, high in session.info.get(AIR_CHANGED, ()) if low < now_s - LATE_S]
    found: set[int] = set()
    for place_id, low, high in spans:
        hung = select(Piece.batch_id).join(Hanging, Hanging.piece_id == Piece.id)
        found |= set(
            session.scalars(
                hung.where(
                    Hanging.place_id == place_id,
                    Hanging.struck_s.is_(None),
                    Hanging.from_s <= high,
                    (Hanging.to_s.is_(None)) | (Hanging.to_s >= low),
                )
            )
        )
        laid = select(SaltPiece.batch_id).join(SaltEvent, SaltEvent.salt_piece_id == SaltPiece.id)
        found |= set(session.scalars(laid.where(SaltEvent.place_id == place_id, SaltEvent.at_s <= high)))
        warm = select(WarmStage.batch_id).where(WarmStage.place_id == place_id, WarmStage.stuffed_s <= high)
        found |= set(session.scalars(warm.join(Making, Making.batch_id == WarmStage.batch_id)))
    return found
