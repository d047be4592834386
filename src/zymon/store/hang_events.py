"""What is seen on hanging pieces and done to them."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zymon.core.errors import OutOfRangeError

from .hang import gone, last_hanging, piece
from .hang_models import HangEvent
from .models import ReadingHour
from .once import sent_before
from .places import ClashError, place, there, touch
from .struck import counted, strike

HOLDS = ("hold", "release")


def events_of(session: Session, piece_id: int) -> list[HangEvent]:
    """Everything of a piece, in time order, struck entries too."""
    query = select(HangEvent).where(HangEvent.piece_id == piece_id).order_by(HangEvent.at_s, HangEvent.id)
    return list(session.scalars(query))


def held(session: Session, piece_id: int) -> bool:
    """Whether a piece is on hold."""
    last = [e for e in counted(events_of(session, piece_id)) if e.kind in HOLDS]
    return bool(last) and last[-1].kind == "hold"


ON_THE_HOOK = ("turn", "wrap", "patch")


def note(session: Session, new: HangEvent) -> bool:
    """Note something; sent twice it counts once. Raises ClashError for what cannot be done to the piece as it was."""
    if sent_before(session, HangEvent.uid, HangEvent.piece_id, new.uid, new.piece_id):
        return False
    of = piece(session, new.piece_id)
    if new.at_s < of.hung_s:
        raise OutOfRangeError("refused.not_hung_yet", tag=of.tag)
    if new.kind in ON_THE_HOOK and not any(
        h.from_s <= new.at_s and (h.to_s is None or new.at_s <= h.to_s) for h in of.hangings
    ):
        raise ClashError("refused.not_on_a_hook", tag=of.tag)
    last = gone(of)
    if last is not None and new.at_s > last.from_s:
        raise ClashError("refused.gone_by_then", tag=of.tag, how=last.how)
    session.add(new)
    _moves_dates(session, new)
    session.flush()
    return True


def _moves_dates(session: Session, event: HangEvent) -> None:
    """What fingers said of a piece moves its date: the dates of its place are made anew."""
    if event.kind == "inspect":
        touch(place(session, last_hanging(piece(session, event.piece_id)).place_id))


def strike_event(session: Session, event_id: int, reason: str, by: str, now_s: int) -> int:
    """Strike an entry through; gives the piece's id back. Raises NotFoundError, ClashError."""
    found = there(session, HangEvent, event_id, "refused.no_entry")
    strike(found, reason, by, now_s)
    _moves_dates(session, found)
    session.flush()
    return found.piece_id


def last_turned(session: Session, piece_ids: list[int]) -> dict[int, int]:
    """When each piece was turned last [s]."""
    query = (
        select(HangEvent.piece_id, func.max(HangEvent.at_s))
        .where(HangEvent.kind == "turn", HangEvent.struck_s.is_(None), HangEvent.piece_id.in_(piece_ids))
        .group_by(HangEvent.piece_id)
    )
    return {piece_id: int(at) for piece_id, at in session.execute(query)}


def damp_hours(session: Session, place_id: int, over_rh: float, from_s: int, to_s: int) -> float:
    """Hours over a humidity in a span [h]."""
    query = select(func.count()).where(
        ReadingHour.place_id == place_id,
        ReadingHour.hour_s.between(from_s, to_s),
        ReadingHour.rh_percent > over_rh,
    )
    return float(session.scalar(query) or 0)
