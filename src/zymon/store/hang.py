"""Hanging pieces: hang, move, take down and hang again, and which hang or hung where."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from zymon.core.errors import OutOfRangeError
from zymon.core.say import said

from .bench_models import MadePiece
from .kinds import EndedAs
from .models import Batch, Hanging, Piece, PieceState, Rod
from .places import ClashError, flush_or_clash, free_hook, place, there, touch
from .struck import strike
from .warm import refuse_discarded


@dataclass(frozen=True)
class NewPiece:
    """A piece as declared when it is hung; product, kind, fat and salt count when its batch is new."""

    tag: str
    batch_code: str
    product: str
    kind: str
    shape: str
    casing: str
    fat_percent: float | None
    salt_percent: float | None
    diameter_mm: float | None
    thickness_mm: float | None
    length_mm: float | None
    start_weight_g: float | None
    tare_g: float
    target_loss_percent: float | None
    hung_s: int
    done_by: str | None = None  # None: as its batch
    done_days: int | None = None
    skin: bool | None = None
    bone: bool | None = None
    use: str | None = None  # of a new batch


def batch_for(session: Session, new: NewPiece, now_s: int) -> Batch:
    """The batch of that code, made when it is new. Raises ClashError when it is of another kind of goods.

    Its pieces may differ in shape, casing and size: a flat and a rolled belly, two casings of one mince.
    """
    batch = session.scalar(select(Batch).where(Batch.code == new.batch_code))
    if batch is None:
        batch = Batch(
            code=new.batch_code,
            product=new.product,
            kind=new.kind,
            shape=new.shape,
            casing=new.casing,
            fat_percent=new.fat_percent,
            salt_percent=new.salt_percent,
            created_s=now_s,
            done_by=new.done_by or "weight",
            use=new.use or "raw",
        )
        session.add(batch)
    elif batch.kind != new.kind:
        raise ClashError("refused.batch_of_other_kind", batch=batch.code, product=batch.product)
    return batch


def hang_piece(session: Session, new: NewPiece, rod_id: int, hook: int, by: str, now_s: int) -> Piece:
    """Hang a new piece on a free hook. Raises ClashError, NotFoundError."""
    rod = free_hook(session, rod_id, hook)
    known = session.scalar(select(Piece).where(Piece.tag == new.tag))
    if known is not None:
        hangs = hanging_now(known) is not None
        raise ClashError("refused.tag_taken" if hangs else "refused.tag_of_taken_down", tag=new.tag)
    piece = Piece(
        batch=batch_for(session, new, now_s),
        tag=new.tag,
        shape=new.shape,
        casing=new.casing,
        diameter_mm=new.diameter_mm,
        thickness_mm=new.thickness_mm,
        length_mm=new.length_mm,
        start_weight_g=new.start_weight_g,
        tare_g=new.tare_g,
        target_loss_percent=new.target_loss_percent,
        done_by=new.done_by,
        done_days=new.done_days,
        skin=new.skin,
        bone=new.bone,
        hung_s=new.hung_s,
        by=by,
    )
    piece.hangings = [_hanging(rod, hook, new.hung_s, by, now_s)]
    session.add(piece)
    session.flush()
    refuse_discarded(session, piece.batch.id)
    made = session.scalar(select(MadePiece).where(MadePiece.tag == new.tag))
    if made is not None:
        made.piece_id = piece.id
    touch(rod.place)
    flush_or_clash(session, said("refused.hook_or_tag_meanwhile", rod=rod.number, hook=hook, tag=new.tag))
    return piece


def _hanging(rod: Rod, hook: int, from_s: int, by: str, now_s: int) -> Hanging:
    return Hanging(place_id=rod.place_id, rod_id=rod.id, hook=hook, from_s=from_s, by=by, entered_s=now_s)


def piece(session: Session, piece_id: int) -> Piece:
    """One piece with all that hangs on it. Raises NotFoundError."""
    return there(session, Piece, piece_id, "refused.no_piece")


def piece_of_tag(session: Session, tag: str) -> Piece | None:
    """The piece that hangs or hung under a tag."""
    return session.scalar(select(Piece).where(Piece.tag == tag))


def hanging_now(piece: Piece) -> Hanging | None:
    """Where the piece hangs now, or None when it was taken down."""
    return next((h for h in piece.hangings if h.to_s is None), None)


def last_hanging(piece: Piece) -> Hanging:
    """Where the piece hangs, or hung last."""
    return hanging_now(piece) or piece.hangings[-1]


def state_now(piece: Piece) -> PieceState | None:
    """What a piece is since it came off its hook, or None while it hangs."""
    return next((s for s in piece.states if s.to_s is None and s.struck_s is None), None)


def gone(piece: Piece) -> PieceState | None:
    """That a piece was eaten, sold or thrown away, if it was."""
    now = state_now(piece)
    return now if now is not None and now.kind == "gone" else None


def refuse_gone(piece: Piece) -> None:
    """Raises ClashError for a piece that is not there any more."""
    last = gone(piece)
    if last is not None:
        raise ClashError("refused.is_gone", tag=piece.tag, how=last.how, by=last.by)


def move_piece(session: Session, piece: Piece, rod_id: int, hook: int, at_s: int, by: str, now_s: int) -> Piece:
    """Move a hanging piece to a free hook; where it hung stays on record. Raises ClashError, OutOfRangeError."""
    old = hanging_now(piece)
    if old is None:
        raise ClashError("refused.down_not_moved", tag=piece.tag)
    if (old.rod_id, old.hook) == (rod_id, hook):
        return piece
    rod = free_hook(session, rod_id, hook)
    end_hanging(old, at_s, "moved", by)
    session.flush()
    piece.hangings.append(_hanging(rod, hook, at_s, by, now_s))
    touch(place(session, old.place_id))
    touch(rod.place)
    flush_or_clash(session, said("refused.hook_meanwhile", rod=rod.number, hook=hook))
    return piece


def end_hanging(hanging: Hanging, at_s: int, ended_as: EndedAs, by: str) -> None:
    """End a piece's time at a hook. Raises OutOfRangeError for an end before its beginning."""
    if at_s < hanging.from_s:
        raise OutOfRangeError("refused.not_there_yet", tag=hanging.piece.tag)
    hanging.to_s, hanging.ended_as, hanging.ended_by = at_s, ended_as, by


@dataclass(frozen=True)
class NewState:
    """What a piece becomes: down, resting, cut, kept or gone; how, where, and what stood against it."""

    kind: str
    how: str = ""
    place_id: int | None = None
    note: str = ""
    against: str = ""


def take_down(session: Session, piece: Piece, new: NewState, at_s: int, by: str, now_s: int) -> Piece:
    """Take a piece off its hook; its story stays. Raises ClashError, OutOfRangeError."""
    old = hanging_now(piece)
    if old is None:
        raise ClashError("refused.down_already", tag=piece.tag)
    end_hanging(old, at_s, "down", by)
    touch(place(session, old.place_id))
    return become(session, piece, new, at_s, by, now_s)


def become(session: Session, piece: Piece, new: NewState, at_s: int, by: str, now_s: int) -> Piece:
    """A piece off its hook becomes something else from a time on. Raises ClashError, OutOfRangeError, NotFoundError."""
    if new.place_id is not None:
        place(session, new.place_id)
    _end_state(piece, at_s)
    session.flush()
    piece.states.append(
        PieceState(
            kind=new.kind,
            how=new.how,
            from_s=at_s,
            to_s=None,
            place_id=new.place_id,
            note=new.note,
            against=new.against,
            by=by,
            entered_s=now_s,
        )
    )
    flush_or_clash(session, said("refused.became_meanwhile", tag=piece.tag))
    return piece


def _end_state(piece: Piece, at_s: int) -> None:
    refuse_gone(piece)
    now = state_now(piece)
    if now is not None:
        if at_s < now.from_s:
            raise OutOfRangeError("refused.not_in_state_yet", tag=piece.tag, became=now.kind)
        now.to_s = at_s


def strike_state(session: Session, piece: Piece, reason: str, by: str, now_s: int) -> Piece:
    """Take back what a piece became last, as entered by mistake; it is again what it was before. Raises ClashError."""
    now = state_now(piece)
    if now is None:
        raise ClashError("refused.nothing_to_take_back", tag=piece.tag)
    strike(now, reason, by, now_s)
    session.flush()
    before = [s for s in piece.states if s.struck_s is None and s.to_s == now.from_s]
    if before:
        before[-1].to_s = None
        session.flush()
        return piece
    last = piece.hangings[-1]
    if last.to_s != now.from_s:
        raise ClashError("refused.something_in_between", tag=piece.tag)
    rod = free_hook(session, last.rod_id, last.hook)
    last.to_s, last.ended_as, last.ended_by = None, None, None
    touch(rod.place)
    flush_or_clash(session, said("refused.hook_meanwhile", rod=rod.number, hook=last.hook))
    return piece


def hang_again(session: Session, piece: Piece, rod_id: int, hook: int, at_s: int, by: str, now_s: int) -> Piece:
    """Hang a piece again under its own tag; that it was off its hook stays on record. Raises ClashError."""
    if hanging_now(piece) is not None:
        raise ClashError("refused.hangs_already", tag=piece.tag)
    rod = free_hook(session, rod_id, hook)
    _end_state(piece, at_s)
    piece.hangings.append(_hanging(rod, hook, at_s, by, now_s))
    touch(rod.place)
    flush_or_clash(session, said("refused.hook_meanwhile", rod=rod.number, hook=hook))
    return piece


def taken_down_at(piece: Piece) -> int | None:
    """When a piece was taken down [s], or None while it hangs."""
    return None if hanging_now(piece) is not None else piece.hangings[-1].to_s


LEARN_FROM_S = 400 * 86_400  # how long a finished piece teaches the forecasts of its place
LEARN_FROM_PIECES = 60


_LOADED = (
    joinedload(Hanging.piece).joinedload(Piece.batch),
    joinedload(Hanging.rod),
    selectinload(Hanging.piece, Piece.weighings),
    selectinload(Hanging.piece, Piece.hangings),
    selectinload(Hanging.piece, Piece.cuts),
    selectinload(Hanging.piece, Piece.felt),
    selectinload(Hanging.piece, Piece.states),
)


def pieces_hanging(session: Session, place_id: int) -> list[Piece]:
    """Pieces hanging in a place, in hook order."""
    hanging = session.scalars(
        select(Hanging)
        .join(Rod)
        .where(Hanging.place_id == place_id, Hanging.to_s.is_(None))
        .options(*_LOADED)
        .order_by(Rod.number, Hanging.hook)
    )
    return [h.piece for h in hanging.unique()]


def pieces_of_batch(session: Session, batch_id: int) -> list[Piece]:
    """The pieces of a batch that hang or hung, by tag, with all that tells their course."""
    query = select(Piece).where(Piece.batch_id == batch_id).order_by(Piece.tag)
    return list(
        session.scalars(
            query.options(
                selectinload(Piece.hangings).joinedload(Hanging.rod).joinedload(Rod.place),
                selectinload(Piece.states).joinedload(PieceState.place),
                selectinload(Piece.weighings),
                selectinload(Piece.cuts),
            )
        )
    )


def tags_hanging(session: Session, place_id: int) -> Sequence[str]:
    """The tags that hang in a place."""
    query = select(Piece.tag).join(Hanging).where(Hanging.place_id == place_id, Hanging.to_s.is_(None))
    return session.scalars(query).all()


def pieces_finished(session: Session, place_id: int, now_s: int) -> list[Piece]:
    """The latest pieces that hung in a place and were taken down, for its forecasts to learn from."""
    ended = session.scalars(
        select(Hanging)
        .where(
            Hanging.place_id == place_id,
            Hanging.to_s.is_not(None),
            Hanging.struck_s.is_(None),
            Hanging.from_s > now_s - LEARN_FROM_S,
        )
        .options(*_LOADED)
        .order_by(Hanging.to_s.desc())
        .limit(LEARN_FROM_PIECES * 2)
    )
    found = {h.piece.id: h.piece for h in ended.unique() if hanging_now(h.piece) is None}
    return list(found.values())[:LEARN_FROM_PIECES]


def pieces_in_places(session: Session) -> dict[int, int]:
    """How many pieces hang in each place."""
    counts = session.execute(
        select(Hanging.place_id, func.count()).where(Hanging.to_s.is_(None)).group_by(Hanging.place_id)
    )
    return {place_id: int(many) for place_id, many in counts}


def hanging_count(session: Session) -> int:
    """How many pieces hang in the workshop."""
    return session.scalar(select(func.count()).select_from(Hanging).where(Hanging.to_s.is_(None))) or 0


def how_many_hung(session: Session, place_id: int) -> int:
    """How many pieces hang or ever hung in a place."""
    there = Hanging.place_id == place_id, Hanging.struck_s.is_(None)
    query = select(func.count(Hanging.piece_id.distinct())).where(*there)
    return session.scalar(query) or 0


def first_hung(session: Session, place_id: int, finished: bool) -> int | None:
    """When the first of the pieces that hang in a place, or that ever hung there, was hung [s]; None without any."""
    query = select(func.min(Piece.hung_s)).join(Hanging).where(Hanging.place_id == place_id, Hanging.struck_s.is_(None))
    return session.scalar(query if finished else query.where(Hanging.to_s.is_(None)))


def pieces_that_hung(session: Session, place_id: int) -> list[Piece]:
    """Every piece that hangs or ever hung in a place, in the order they were hung."""
    hung = select(Hanging.piece_id).where(Hanging.place_id == place_id, Hanging.struck_s.is_(None))
    query = select(Piece).where(Piece.id.in_(hung)).options(joinedload(Piece.batch), selectinload(Piece.weighings))
    return list(session.scalars(query.order_by(Piece.hung_s, Piece.tag)).unique())
