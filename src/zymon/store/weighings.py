"""What the scale said of a hanging piece, what was cut off it, what was declared of it: entered, struck, corrected."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from zymon.core.errors import OutOfRangeError
from zymon.core.pieces import sliced

from .hang import gone, hanging_now, last_hanging, refuse_gone
from .journal import besides
from .models import Correction, Piece, PieceCut, Weighing
from .places import ClashError, place, there, touch
from .struck import strike

WEIGHED_AT_REST = "weighing at rest"  # what is weighed off its hook, told apart from the many that hang


def check_weight(piece: Piece, gross_g: float, at_s: int) -> None:
    """Refuse what no scale can have shown. Raises OutOfRangeError in words, ClashError for a piece that is gone."""
    if not gross_g > 0:
        raise OutOfRangeError("refused.no_weight", gross_g=gross_g)
    if gross_g <= piece.tare_g:
        raise OutOfRangeError("refused.no_more_than_tare", gross_g=gross_g, tare_g=piece.tare_g)
    if at_s < piece.hung_s:
        raise OutOfRangeError("refused.weighed_before_hung", tag=piece.tag)
    last = gone(piece)
    if last is not None and at_s > last.from_s:
        raise ClashError("refused.gone_by_then", tag=piece.tag, how=last.how)


@dataclass(frozen=True)
class NewWeighing:
    """A reading of the scale on its way into the record, whatever brought it: hand, round or file."""

    gross_g: float
    at_s: int
    source: str = "hand"
    kept: bool = False
    uid: str | None = None
    import_id: int | None = None
    restores_id: int | None = None


def add_weighing(session: Session, piece: Piece, new: NewWeighing, by: str, now_s: int) -> Weighing:
    """Store a weighing: the one path by which one comes into being. Raises OutOfRangeError, ClashError."""
    check_weight(piece, new.gross_g, new.at_s)
    entry = Weighing(by=by, entered_s=now_s, **vars(new))
    piece.weighings.append(entry)
    if hanging_now(piece) is None:
        besides(session, WEIGHED_AT_REST)
    touch(place(session, last_hanging(piece).place_id))
    session.flush()
    return entry


def weighing_of_uid(session: Session, uid: str) -> Weighing | None:
    """The weighing that was sent under an identity, if it arrived."""
    return session.scalar(select(Weighing).where(Weighing.uid == uid))


def standing(piece: Piece) -> list[Weighing]:
    """The weighings of a piece that stand, in time order."""
    return sorted((w for w in piece.weighings if w.struck_s is None), key=lambda w: (w.at_s, w.id))


def strike_weighing(session: Session, weighing_id: int, reason: str, by: str, now_s: int) -> Weighing:
    """Strike a weighing through, with reason and who. Raises ClashError when it is struck already."""
    entry = _weighing(session, weighing_id)
    if entry.struck_s is not None:
        raise ClashError("refused.struck_already")
    strike(entry, reason, by, now_s)
    touch(place(session, last_hanging(entry.piece).place_id))
    session.flush()
    return entry


def restore_weighing(session: Session, weighing_id: int, by: str, now_s: int) -> Weighing:
    """Undo a strike: the same weighing is entered again beside the struck one; a second time changes nothing."""
    entry = _weighing(session, weighing_id)
    if entry.struck_s is None:
        raise ClashError("refused.not_struck")
    again = session.scalar(select(Weighing).where(Weighing.restores_id == entry.id))
    if again is not None:
        return again if again.struck_s is None else restore_weighing(session, again.id, by, now_s)
    new = NewWeighing(
        entry.gross_g, entry.at_s, entry.source, entry.kept, import_id=entry.import_id, restores_id=entry.id
    )
    return add_weighing(session, entry.piece, new, by, now_s)


def slice_off(
    session: Session, piece: Piece, before_g: float, after_g: float, at_s: int, note: str, by: str, now_s: int
) -> PieceCut:
    """A slice was cut off a piece that goes on; its start is taken as so much less. Raises OutOfRangeError."""
    refuse_gone(piece)
    if at_s < piece.hung_s:
        raise OutOfRangeError("refused.cut_before_hung", tag=piece.tag)
    if piece.start_weight_g is None:
        raise OutOfRangeError("refused.slice_without_start", tag=piece.tag)
    sliced(piece.start_weight_g, piece.tare_g, before_g, after_g)  # refuses what no slice can be
    made = PieceCut(at_s=at_s, before_g=before_g, after_g=after_g, note=note, by=by, entered_s=now_s)
    piece.cuts.append(made)
    touch(place(session, last_hanging(piece).place_id))
    session.flush()
    return made


def strike_cut(session: Session, cut_id: int, reason: str, by: str, now_s: int) -> PieceCut:
    """Strike a cut through, and the weight that was noted with it. Raises ClashError, NotFoundError."""
    found = there(session, PieceCut, cut_id, "refused.no_cut")
    strike(found, reason, by, now_s)
    for weighing in standing(found.piece):
        if (weighing.at_s, weighing.gross_g) == (found.at_s, found.after_g):
            strike_weighing(session, weighing.id, reason, by, now_s)
    touch(place(session, last_hanging(found.piece).place_id))
    session.flush()
    return found


MAY_BE_UNKNOWN = {"diameter_mm", "thickness_mm", "length_mm", "skin", "bone"}


def _check_done_by(piece: Piece, done_by: str) -> None:
    """What says that a piece is done must be there. Raises OutOfRangeError."""
    if done_by == "weight" and (piece.start_weight_g is None or piece.target_loss_percent is None):
        raise OutOfRangeError("refused.weight_needs_scale", tag=piece.tag)
    if done_by == "days" and piece.done_days is None:
        raise OutOfRangeError("refused.days_needs_days", tag=piece.tag)


def correct_piece(
    session: Session, piece: Piece, field: str, value: float | bool | str | None, reason: str, by: str, now_s: int
) -> Piece:
    """Correct a declared value of a piece; the wrong one stays on record. Raises ClashError, OutOfRangeError."""
    was = getattr(piece, field)
    by_weight = (piece.done_by or piece.batch.done_by) == "weight"
    if value is None and field not in (MAY_BE_UNKNOWN if by_weight else MAY_BE_UNKNOWN | {"start_weight_g"}):
        raise OutOfRangeError("refused.cannot_be_unknown")
    if field == "done_by":
        _check_done_by(piece, str(value))
    if was == value:
        raise ClashError("refused.says_so_already")
    setattr(piece, field, value)
    if field == "done_days":
        piece.done_by = "days"
    if field == "target_loss_percent":
        piece.done_by = "weight"
    for weighing in standing(piece):
        if weighing.gross_g <= piece.tare_g:
            raise OutOfRangeError("refused.tare_over_weighed", gross_g=weighing.gross_g)
    piece.corrections.append(
        Correction(field=field, was=_text(was), now=_text(value), reason=reason, by=by, at_s=now_s)
    )
    touch(place(session, last_hanging(piece).place_id))
    session.flush()
    return piece


def _text(value: float | bool | str | None) -> str | None:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return None if value is None else f"{value:.12g}" if isinstance(value, float | int) else value


def _weighing(session: Session, weighing_id: int) -> Weighing:
    return there(session, Weighing, weighing_id, "refused.no_weighing")
