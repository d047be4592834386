"""Hanging pieces: hang, move, take down, weigh, strike through."""

from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from zymon.core.errors import OutOfRangeError

from .bench_models import MadePiece
from .models import Batch, Correction, Hanging, Piece, Rod, Weighing
from .places import ClashError, NotFoundError, flush_or_clash, free_hook, place, touch
from .warm import refuse_discarded


@dataclass(frozen=True)
class NewPiece:
    """A piece as declared when it is hung; batch fields count when the batch is new."""

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
    start_weight_g: float
    tare_g: float
    target_loss_percent: float
    hung_s: int


def batch_for(session: Session, new: NewPiece, now_s: int) -> Batch:
    """The batch of that code, made when it is new. Raises ClashError when it is of other goods."""
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
        )
        session.add(batch)
    elif (batch.kind, batch.shape, batch.casing) != (new.kind, new.shape, new.casing):
        raise ClashError(
            f"batch {batch.code} is {batch.product}, of another kind, shape or casing: give a new batch code"
        )
    return batch


def hang_piece(session: Session, new: NewPiece, rod_id: int, hook: int, by: str, now_s: int) -> Piece:
    """Hang a new piece on a free hook. Raises ClashError, NotFoundError, OutOfRangeError."""
    if new.hung_s > now_s + 60:
        raise OutOfRangeError("hung in the future: give the day it was hung, or hang it when it hangs")
    rod = free_hook(session, rod_id, hook)
    if session.scalar(select(Piece.id).where(Piece.tag == new.tag)) is not None:
        raise ClashError(f"tag {new.tag} is on another piece already")
    piece = Piece(
        batch=batch_for(session, new, now_s),
        tag=new.tag,
        diameter_mm=new.diameter_mm,
        thickness_mm=new.thickness_mm,
        length_mm=new.length_mm,
        start_weight_g=new.start_weight_g,
        tare_g=new.tare_g,
        target_loss_percent=new.target_loss_percent,
        hung_s=new.hung_s,
        by=by,
    )
    piece.hangings = [Hanging(place_id=rod.place_id, rod_id=rod.id, hook=hook, from_s=new.hung_s, by=by)]
    session.add(piece)
    refuse_discarded(session, piece.batch.id)
    made = session.scalar(select(MadePiece).where(MadePiece.tag == new.tag))
    if made is not None:
        session.flush()
        made.piece_id = piece.id
    touch(rod.place)
    flush_or_clash(session, f"rod {rod.number} hook {hook} or tag {new.tag} was taken a moment ago")
    return piece


def piece(session: Session, piece_id: int) -> Piece:
    """One piece with all that hangs on it. Raises NotFoundError."""
    found = session.get(Piece, piece_id)
    if found is None:
        raise NotFoundError("this piece is not there")
    return found


def hanging_now(of: Piece) -> Hanging | None:
    """Where the piece hangs now, or None when it was taken down."""
    return next((h for h in of.hangings if h.to_s is None), None)


def last_hanging(of: Piece) -> Hanging:
    """Where the piece hangs, or hung last."""
    return hanging_now(of) or of.hangings[-1]


def move_piece(session: Session, piece_id: int, rod_id: int, hook: int, by: str, now_s: int) -> Piece:
    """Move a hanging piece to a free hook; where it hung stays on record."""
    moved = piece(session, piece_id)
    old = hanging_now(moved)
    if old is None:
        raise NotFoundError(f"{moved.tag} was taken down, it cannot be moved")
    if (old.rod_id, old.hook) == (rod_id, hook):
        return moved
    rod = free_hook(session, rod_id, hook)
    touch(place(session, old.place_id))
    away = "" if rod.place_id == old.place_id else f" of {rod.place.name}"
    old.to_s, old.end_reason = now_s, f"moved to rod {rod.number} hook {hook}{away}"
    session.flush()
    moved.hangings.append(Hanging(place_id=rod.place_id, rod_id=rod.id, hook=hook, from_s=now_s, by=by))
    touch(rod.place)
    flush_or_clash(session, f"rod {rod.number} hook {hook} was taken a moment ago")
    return moved


def take_down(session: Session, piece_id: int, reason: str, now_s: int) -> Piece:
    """Take a piece off its hook; its story stays."""
    taken = piece(session, piece_id)
    old = hanging_now(taken)
    if old is None:
        raise ClashError(f"{taken.tag} was taken down already")
    old.to_s, old.end_reason = now_s, reason
    touch(place(session, old.place_id))
    session.flush()
    return taken


def put_back(session: Session, piece_id: int, by: str, now_s: int) -> Piece:
    """Hang a piece that was taken down on its hook again; that it was down stays on record. Raises ClashError."""
    taken = piece(session, piece_id)
    if hanging_now(taken) is not None:
        raise ClashError(f"{taken.tag} hangs already")
    last = taken.hangings[-1]
    rod = free_hook(session, last.rod_id, last.hook)
    taken.hangings.append(Hanging(place_id=rod.place_id, rod_id=rod.id, hook=last.hook, from_s=now_s, by=by))
    touch(rod.place)
    flush_or_clash(session, f"rod {rod.number} hook {last.hook} was taken a moment ago")
    return taken


def check_weight(of: Piece, gross_g: float, at_s: int, now_s: int) -> None:
    """Refuse what no scale can have shown. Raises OutOfRangeError in words."""
    if not gross_g > 0:
        raise OutOfRangeError(f"weight must be above 0 g, got {gross_g:g}")
    if gross_g <= of.tare_g:
        raise OutOfRangeError(f"{gross_g:g} g is no more than the tare of {of.tare_g:g} g: weigh again")
    if at_s > now_s + 60:
        raise OutOfRangeError("weighed in the future: check the date")
    if at_s < of.hung_s:
        raise OutOfRangeError(f"weighed before {of.tag} was hung: check the date")


def add_weighing(
    session: Session,
    piece_id: int,
    gross_g: float,
    at_s: int,
    by: str,
    now_s: int,
    confirmed: bool,
    uid: str | None = None,
) -> Weighing:
    """Store a weighing. Raises OutOfRangeError, NotFoundError."""
    weighed = piece(session, piece_id)
    check_weight(weighed, gross_g, at_s, now_s)
    entry = Weighing(uid=uid, gross_g=gross_g, at_s=at_s, by=by, entered_s=now_s, confirmed=confirmed)
    weighed.weighings.append(entry)
    touch(place(session, last_hanging(weighed).place_id))
    session.flush()
    return entry


def weighing_of_uid(session: Session, uid: str) -> Weighing | None:
    """The weighing that was sent under an identity, if it arrived."""
    return session.scalar(select(Weighing).where(Weighing.uid == uid))


def taken_down_at(of: Piece) -> int | None:
    """When a piece was taken down [s], or None while it hangs."""
    return None if hanging_now(of) is not None else of.hangings[-1].to_s


def strike_weighing(session: Session, weighing_id: int, reason: str, by: str, now_s: int) -> Weighing:
    """Strike a weighing through, with reason and who. Raises ClashError when it is struck already."""
    entry = _weighing(session, weighing_id)
    if entry.struck_s is not None:
        raise ClashError("this weighing is struck through already")
    entry.struck_s, entry.struck_by, entry.struck_reason = now_s, by, reason
    touch(place(session, last_hanging(entry.piece).place_id))
    session.flush()
    return entry


def restore_weighing(session: Session, weighing_id: int, by: str, now_s: int) -> Weighing:
    """Undo a strike: the same weighing is entered again beside the struck one, which stays on record."""
    entry = _weighing(session, weighing_id)
    if entry.struck_s is None:
        raise ClashError("this weighing is not struck through")
    return add_weighing(session, entry.piece_id, entry.gross_g, entry.at_s, by, now_s, confirmed=True)


def correct_piece(
    session: Session, piece_id: int, field: str, value: float | None, reason: str, by: str, now_s: int
) -> Piece:
    """Correct a declared value of a piece; the wrong one stays on record. Raises ClashError, NotFoundError."""
    corrected = piece(session, piece_id)
    was = getattr(corrected, field)
    if value is None and not field.endswith("_mm"):
        raise OutOfRangeError("a weight or target cannot be unknown")
    if was == value:
        raise ClashError("it says so already")
    setattr(corrected, field, value)
    for weighing in corrected.weighings:
        if weighing.struck_s is None and weighing.gross_g <= corrected.tare_g:
            raise OutOfRangeError(f"the tare would be more than the {weighing.gross_g:g} g weighed")
    corrected.corrections.append(Correction(field=field, was=was, now=value, reason=reason, by=by, at_s=now_s))
    touch(place(session, last_hanging(corrected).place_id))
    session.flush()
    return corrected


def _weighing(session: Session, weighing_id: int) -> Weighing:
    entry = session.get(Weighing, weighing_id)
    if entry is None:
        raise NotFoundError("this weighing is not there")
    return entry


LEARN_FROM_S = 400 * 86_400  # how long a finished piece teaches the forecasts of its place
LEARN_FROM_PIECES = 60


_LOADED = (
    joinedload(Hanging.piece).joinedload(Piece.batch),
    joinedload(Hanging.rod),
    selectinload(Hanging.piece, Piece.weighings),
    selectinload(Hanging.piece, Piece.hangings),
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


def pieces_finished(session: Session, place_id: int, now_s: int) -> list[Piece]:
    """The latest pieces that hung in a place and were taken down, for its forecasts to learn from."""
    ended = session.scalars(
        select(Hanging)
        .where(Hanging.place_id == place_id, Hanging.to_s.is_not(None), Hanging.from_s > now_s - LEARN_FROM_S)
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
