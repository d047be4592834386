"""Stays on a hook that were entered by mistake: taking them back, and the true moment a piece was hung."""

from collections.abc import Sequence
from datetime import UTC, datetime

from sqlalchemy.orm import Session

from zymon.core.errors import OutOfRangeError
from zymon.core.say import said

from .hang import last_hanging, state_now
from .models import Correction, Hanging, Piece, PieceState
from .places import ClashError, flush_or_clash, free_hook, place, there, touch
from .struck import counted, strike


def stay(session: Session, hanging_id: int) -> Hanging:
    """One stay on a hook. Raises NotFoundError."""
    return there(session, Hanging, hanging_id, "refused.no_stay")


def state(session: Session, state_id: int) -> PieceState:
    """One state of a piece off its hook. Raises NotFoundError."""
    return there(session, PieceState, state_id, "refused.no_entry")


def strike_stays(session: Session, stays: Sequence[Hanging], reason: str, by: str, now_s: int) -> list[Piece]:
    """Strike stays through, each the last of its piece: each piece is again where and what it was before.

    Parameters: session; stays; reason, by; now_s [s].
    Raises ClashError where something came after, or another piece hangs where it hung.
    """
    for one in stays:
        _close(one, reason, by, now_s)
    session.flush()
    for one in stays:
        session.refresh(one.piece, ["hangings"])
        _back(session, one)
        touch(place(session, one.place_id))
    flush_or_clash(session, said("refused.one_hook_meanwhile"))
    return [one.piece for one in stays]


def _close(hanging: Hanging, reason: str, by: str, now_s: int) -> None:
    if hanging.struck_s is None and (hanging.to_s is not None or last_hanging(hanging.piece) is not hanging):
        raise ClashError("refused.moved_since", tag=hanging.piece.tag)
    strike(hanging, reason, by, now_s)
    hanging.to_s = hanging.from_s


def _back(session: Session, struck: Hanging) -> None:
    """What the piece was before the stay that was struck: on its hook of before, or off it."""
    of = struck.piece
    before = [h for h in of.hangings if h.to_s == struck.from_s and h.ended_as == "moved"]
    if before:
        last = before[-1]
        free_hook(session, last.rod_id, last.hook)
        last.to_s, last.ended_as, last.ended_by = None, None, None
        touch(last.rod.place)
        session.flush()
        return
    off = [s for s in counted(of.states) if s.to_s == struck.from_s]
    if not off:
        raise ClashError("refused.first_stay", tag=of.tag)
    off[-1].to_s = None


def correct_hung_at(session: Session, piece: Piece, hung_s: int, reason: str, by: str, now_s: int) -> None:
    """Correct when a piece was hung; the wrong moment stays on record. Raises ClashError, OutOfRangeError."""
    if hung_s == piece.hung_s:
        raise ClashError("refused.says_so_already")
    first = piece.hangings[0]
    ends = [first.to_s, *(w.at_s for w in counted(piece.weighings)), *(c.at_s for c in counted(piece.cuts))]
    now = state_now(piece)
    ends += [] if now is None else [now.from_s]
    if any(end is not None and end < hung_s for end in ends):
        raise OutOfRangeError("refused.noted_before_hung", tag=piece.tag)
    was = datetime.fromtimestamp(piece.hung_s, UTC).isoformat()
    is_now = datetime.fromtimestamp(hung_s, UTC).isoformat()
    piece.hung_s = first.from_s = hung_s
    piece.corrections.append(Correction(field="hung_at", was=was, now=is_now, reason=reason, by=by, at_s=now_s))
    touch(place(session, first.place_id))
    session.flush()
