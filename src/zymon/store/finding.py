"""Finding batches by what stands on them: code, product, tags, lots, people, notes."""

from collections.abc import Sequence

from sqlalchemy import ColumnElement, or_, select
from sqlalchemy.orm import Session, selectinload

from .bench_models import Lot, MadePiece, Making, WeighEntry, WeighOut
from .models import Batch, Piece, PieceState, Weighing
from .salt_models import SaltPiece


def batches_by_words(session: Session, words: str) -> list[Batch]:
    """Batches that hold every one of the words somewhere, the latest first; all of them for no words."""
    what_they_are = (selectinload(Piece.hangings), selectinload(Piece.states))
    query = select(Batch).options(selectinload(Batch.pieces).options(*what_they_are))
    for word in words.split()[:8]:
        query = query.where(or_(*_holds(word)))
    return list(session.scalars(query.order_by(Batch.created_s.desc(), Batch.id.desc())))


def load_weights(session: Session, batches: Sequence[Batch]) -> None:
    """Have the weights of the pieces of these batches at hand, by two queries instead of two a piece."""
    of_these = select(Piece).where(Piece.batch_id.in_([batch.id for batch in batches]))
    session.scalars(of_these.options(selectinload(Piece.weighings), selectinload(Piece.cuts))).all()


def _holds(word: str) -> list[ColumnElement[bool]]:
    like = "%" + word.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%"

    def fits(column: ColumnElement[str]) -> ColumnElement[bool]:
        return column.like(like, escape="\\")

    of_lots = (
        select(Making.batch_id)
        .join(WeighOut, Making.weigh_out_id == WeighOut.id)
        .join(WeighEntry, WeighEntry.weigh_out_id == WeighOut.id)
        .join(Lot, WeighEntry.lot_id == Lot.id)
        .where(fits(Lot.code) | fits(Lot.what))  # type: ignore[arg-type] # mapped columns
    )
    return [
        fits(Batch.code),  # type: ignore[arg-type]
        fits(Batch.product),  # type: ignore[arg-type]
        Batch.id.in_(select(Piece.batch_id).where(fits(Piece.tag) | fits(Piece.by))),  # type: ignore[arg-type]
        Batch.id.in_(select(MadePiece.batch_id).where(fits(MadePiece.tag))),  # type: ignore[arg-type]
        Batch.id.in_(select(SaltPiece.batch_id).where(fits(SaltPiece.tag))),  # type: ignore[arg-type]
        Batch.id.in_(select(Making.batch_id).where(fits(Making.by))),  # type: ignore[arg-type]
        Batch.id.in_(of_lots),
        Batch.id.in_(
            select(Piece.batch_id).join(PieceState).where(fits(PieceState.note) | fits(PieceState.by))  # type: ignore[arg-type]
        ),
        Batch.id.in_(select(Piece.batch_id).join(Weighing).where(fits(Weighing.by))),  # type: ignore[arg-type]
    ]


def every_batch(session: Session) -> Sequence[Batch]:
    """Every batch, in the order in which they were put on record."""
    return session.scalars(select(Batch).order_by(Batch.id)).all()
