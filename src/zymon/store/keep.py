"""Packs and what became of them, costs, words for allergens."""

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload, selectinload

from .hang import refuse_gone, state_now
from .hang_events import held
from .keep_models import AllergenWord, BatchCost, Packed, PackEvent
from .models import Piece, PieceState
from .places import ClashError, place, there
from .struck import counted, strike


def packs(session: Session, piece_ids: Sequence[int] | None = None) -> list[Packed]:
    """The packs that count, of some pieces or of all, the oldest first."""
    query = select(Packed).where(Packed.struck_s.is_(None)).options(
        joinedload(Packed.piece).joinedload(Piece.batch), joinedload(Packed.place), selectinload(Packed.events)
    )  # fmt: skip
    if piece_ids is not None:
        query = query.where(Packed.piece_id.in_(piece_ids))
    return list(session.scalars(query.order_by(Packed.at_s, Packed.id)))


def pack(session: Session, pack_id: int) -> Packed:
    """Some packs. Raises NotFoundError, and ClashError for struck ones."""
    found = there(session, Packed, pack_id, "refused.no_pack")
    if found.struck_s is not None:
        raise ClashError("refused.pack_struck")
    return found


def kept_whole(session: Session) -> list[Piece]:
    """Pieces that are kept and of which nothing was packed, by tag."""
    kept = select(PieceState.piece_id).where(
        PieceState.kind == "kept", PieceState.to_s.is_(None), PieceState.struck_s.is_(None)
    )
    packed = select(Packed.piece_id).where(Packed.struck_s.is_(None))
    query = select(Piece).where(Piece.id.in_(kept), Piece.id.not_in(packed)).options(
        joinedload(Piece.batch), selectinload(Piece.states).joinedload(PieceState.place), selectinload(Piece.weighings),
        selectinload(Piece.cuts), selectinload(Piece.hangings),
    )  # fmt: skip
    return list(session.scalars(query.order_by(Piece.tag)).unique())


def check_packable(session: Session, piece: Piece) -> None:
    """Refuse what cannot be packed: gone, held, still hanging and never sliced. Raises ClashError."""
    refuse_gone(piece)
    if held(session, piece.id):
        raise ClashError("refused.held_not_packed", tag=piece.tag)
    now = state_now(piece)
    if now is None and not counted(piece.cuts):
        raise ClashError("refused.hangs_not_packed", tag=piece.tag)


def add_pack(session: Session, new: Packed) -> Packed:
    """Keep some packs. Raises NotFoundError for a place that is not there."""
    if new.place_id is not None:
        place(session, new.place_id)
    session.add(new)
    session.flush()
    return new


def add_event(session: Session, packed: Packed, new: PackEvent) -> PackEvent:
    """Something became of packs. Raises ClashError where there are not so many, or where it was before the packing."""
    if new.at_s < packed.at_s:
        raise ClashError("refused.before_packed", tag=packed.piece.tag)
    went = sum(e.number for e in counted(packed.events) if e.kind == "out")
    if new.kind == "out" and new.number > packed.number - went:
        raise ClashError("refused.not_so_many", many=packed.number - went)
    packed.events.append(new)
    session.flush()
    return new


def strike_pack(session: Session, pack_id: int, reason: str, by: str, now_s: int) -> Packed:
    """Strike packs through. Raises ClashError where something became of them already."""
    found = pack(session, pack_id)
    if counted(found.events):
        raise ClashError("refused.pack_went_on")
    strike(found, reason, by, now_s)
    session.flush()
    return found


def strike_event(session: Session, event_id: int, reason: str, by: str, now_s: int) -> PackEvent:
    """Strike what became of packs. Raises NotFoundError, ClashError."""
    found = there(session, PackEvent, event_id, "refused.no_entry")
    strike(found, reason, by, now_s)
    session.flush()
    return found


def costs_of(session: Session, batch_id: int) -> list[BatchCost]:
    """What a batch cost beside its ingredients, struck entries too."""
    return list(session.scalars(select(BatchCost).where(BatchCost.batch_id == batch_id).order_by(BatchCost.id)))


def strike_cost(session: Session, cost_id: int, reason: str, by: str, now_s: int) -> BatchCost:
    """Strike a cost through. Raises NotFoundError, ClashError."""
    found = there(session, BatchCost, cost_id, "refused.no_entry")
    strike(found, reason, by, now_s)
    session.flush()
    return found


def allergen_words(session: Session) -> list[AllergenWord]:
    """Words of the maker for allergens that count."""
    return list(
        session.scalars(select(AllergenWord).where(AllergenWord.struck_s.is_(None)).order_by(AllergenWord.word))
    )


def strike_word(session: Session, word_id: int, reason: str, by: str, now_s: int) -> AllergenWord:
    """Strike a word through. Raises NotFoundError, ClashError."""
    found = there(session, AllergenWord, word_id, "refused.no_entry")
    strike(found, reason, by, now_s)
    session.flush()
    return found
