"""What was told of each piece: kept right after its hanging and after each weighing, never altered."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload, selectinload

from zymon.core.drying.forecast import PieceForecast

from .models import ForecastRecord, Hanging, Piece, Rod, Weighing


def record(
    session: Session, piece_id: int, made: PieceForecast, weighing_id: int | None, now_s: int, afterwards: bool = False
) -> None:
    """Keep what was forecast right after a weighing; or what is forecast afterwards with what was known then."""

    def whole(seconds: float | None) -> int | None:
        return None if seconds is None else round(seconds)

    session.add(
        ForecastRecord(
            piece_id=piece_id,
            weighing_id=weighing_id,
            made_s=now_s,
            p10_s=whole(made.ready_p10_s),
            p50_s=whole(made.ready_p50_s),
            p90_s=whole(made.ready_p90_s),
            loss_percent=made.loss_percent,
            status=made.status,
            afterwards=afterwards,
        )
    )


@dataclass(frozen=True)
class Untold:
    """A hanging piece of whose latest weighing, or whose hanging, no forecast was kept yet."""

    tag: str
    piece_id: int
    weighing_id: int | None


def not_told_yet(session: Session, place_id: int) -> list[Untold]:
    """The hanging pieces of a place of which a forecast is still to be kept."""
    latest = (
        select(Weighing.id)
        .where(Weighing.piece_id == Piece.id, Weighing.struck_s.is_(None))
        .order_by(Weighing.at_s.desc(), Weighing.id.desc())
        .limit(1)
        .correlate(Piece)
        .scalar_subquery()
    )
    hanging = (
        select(Piece.tag, Piece.id, latest).join(Hanging).where(Hanging.place_id == place_id, Hanging.to_s.is_(None))
    )
    found = [Untold(tag, piece_id, weighing_id) for tag, piece_id, weighing_id in session.execute(hanging)]
    kept = select(ForecastRecord.piece_id, ForecastRecord.weighing_id).where(
        ForecastRecord.piece_id.in_([one.piece_id for one in found])
    )
    told_of = {(piece_id, weighing_id) for piece_id, weighing_id in session.execute(kept)}
    return [one for one in found if (one.piece_id, one.weighing_id) not in told_of]


def told(session: Session, piece_id: int, afterwards: bool = False) -> list[ForecastRecord]:
    """What was forecast for a piece at its hanging and after each weighing that still counts, oldest first.

    Parameters: afterwards, what was worked out later too.
    """
    return told_of(session, [piece_id], afterwards).get(piece_id, [])


def told_of(session: Session, piece_ids: Sequence[int], afterwards: bool = True) -> dict[int, list[ForecastRecord]]:
    """The same of several pieces at once."""
    query = (
        select(ForecastRecord)
        .outerjoin(Weighing, ForecastRecord.weighing_id == Weighing.id)
        .where(ForecastRecord.piece_id.in_(piece_ids), Weighing.struck_s.is_(None))
        .order_by(ForecastRecord.made_s, ForecastRecord.id)
    )
    found: dict[int, list[ForecastRecord]] = defaultdict(list)
    for one in session.scalars(query if afterwards else query.where(ForecastRecord.afterwards.is_(False))):
        found[one.piece_id].append(one)
    return found


def pieces_finished_by_weight(session: Session) -> list[Piece]:
    """Pieces off their first hook that had a start weight and a target, by when they were hung."""
    off = select(Hanging.piece_id).where(Hanging.to_s.is_(None), Hanging.struck_s.is_(None))
    query = (
        select(Piece)
        .where(Piece.start_weight_g.is_not(None), Piece.target_loss_percent.is_not(None), Piece.id.not_in(off))
        .options(
            joinedload(Piece.batch), selectinload(Piece.weighings), selectinload(Piece.cuts),
            selectinload(Piece.states), selectinload(Piece.hangings).joinedload(Hanging.rod).joinedload(Rod.place),
        )
    )  # fmt: skip
    return list(session.scalars(query.order_by(Piece.hung_s, Piece.tag)).unique())
