"""Pieces at rest: which there are, since when and where they lay, and what they were when they were sealed."""

from collections.abc import Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from .hang_models import RestProfile
from .models import Piece, PieceState

_RESTING = (PieceState.kind == "resting", PieceState.to_s.is_(None), PieceState.struck_s.is_(None))


def count_at_rest(session: Session) -> int:
    """How many pieces rest now."""
    return session.scalar(select(func.count()).select_from(PieceState).where(*_RESTING)) or 0


def pieces_at_rest(session: Session) -> list[Piece]:
    """Every piece that rests now, by tag."""
    resting = select(PieceState.piece_id).where(*_RESTING)
    query = select(Piece).where(Piece.id.in_(resting)).options(
        joinedload(Piece.batch),
        selectinload(Piece.states),
        selectinload(Piece.weighings),
        selectinload(Piece.hangings),
        selectinload(Piece.cuts),
        selectinload(Piece.felt),
    )  # fmt: skip
    return list(session.scalars(query.order_by(Piece.tag)).unique())


def rests_of(piece: Piece) -> list[PieceState]:
    """The stretches of the rest that a piece is in, one after the other: carried elsewhere, or into another bag."""
    states = sorted((s for s in piece.states if s.struck_s is None), key=lambda s: (s.from_s, s.id))
    found: list[PieceState] = []
    if not states or states[-1].to_s is not None:
        return found  # it hangs again
    for state in reversed(states):
        if state.kind != "resting":
            break
        found.insert(0, state)
    return found


def profiles(session: Session, state_ids: Sequence[int]) -> dict[int, str]:
    """What pieces were when rests of theirs began, by the state; those that were not worked out yet are not there."""
    query = select(RestProfile.state_id, RestProfile.sealed).where(RestProfile.state_id.in_(state_ids))
    return {row.state_id: row.sealed for row in session.execute(query)}


def keep_profile(session: Session, state_id: int, sealed: str, now_s: int) -> None:
    """Keep what a piece was when a rest of it began."""
    session.merge(RestProfile(state_id=state_id, made_s=now_s, sealed=sealed))
    session.flush()
