"""Pieces by what they are since they came off their hooks."""

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from .models import Piece, PieceState


def pieces_that_are(session: Session, kind: str) -> list[tuple[Piece, PieceState]]:
    """Pieces that are something now, with since when, the longest first."""
    query = (
        select(PieceState)
        .where(PieceState.kind == kind, PieceState.to_s.is_(None), PieceState.struck_s.is_(None))
        .options(joinedload(PieceState.piece).joinedload(Piece.batch), joinedload(PieceState.place))
        .order_by(PieceState.from_s, PieceState.id)
    )
    return [(state.piece, state) for state in session.scalars(query)]
