"""What was told of each piece: kept right after its hanging and after each weighing, never altered."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from zymon.core.drying.forecast import PieceForecast

from .models import ForecastRecord, Hanging, Piece, Weighing


def record(session: Session, piece_id: int, made: PieceForecast, weighing_id: int | None, now_s: int) -> None:
    """Keep what was forecast right after a weighing."""

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


def told(session: Session, piece_id: int) -> list[ForecastRecord]:
    """What was forecast for a piece at its hanging and after each weighing that still counts, oldest first."""
    return list(
        session.scalars(
            select(ForecastRecord)
            .outerjoin(Weighing, ForecastRecord.weighing_id == Weighing.id)
            .where(ForecastRecord.piece_id == piece_id, Weighing.struck_s.is_(None))
            .order_by(ForecastRecord.made_s, ForecastRecord.id)
        )
    )
