"""What was told of each piece: kept right after its hanging and after each weighing, never altered."""

from collections.abc import Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session

from zymon.core.drying.forecast import PieceForecast

from .hang import pieces_hanging, standing
from .models import ForecastRecord, Weighing


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


def tell_what_is_new(session: Session, place_id: int, made: Mapping[str, PieceForecast], now_s: int) -> None:
    """Keep a forecast for each hanging piece of a place whose latest weighing, or hanging, was not told of yet."""
    hanging = pieces_hanging(session, place_id)
    told_of = {
        (piece_id, weighing_id)
        for piece_id, weighing_id in session.execute(
            select(ForecastRecord.piece_id, ForecastRecord.weighing_id).where(
                ForecastRecord.piece_id.in_([p.id for p in hanging])
            )
        )
    }
    for piece in hanging:
        stand = standing(piece)
        latest = stand[-1].id if stand else None
        if piece.tag in made and (piece.id, latest) not in told_of:
            record(session, piece.id, made[piece.tag], latest, now_s)


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
