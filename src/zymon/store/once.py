"""What is sent twice counts once: a weight over a weak line, a tap that was repeated."""

from dataclasses import dataclass

import orjson
from sqlalchemy import select, text
from sqlalchemy.orm import InstrumentedAttribute, Session

from .models import Sent
from .places import ClashError


@dataclass(frozen=True)
class Made:
    """What came of an entry: of what kind, and its id."""

    what: str
    id: int


def made_before(session: Session, uid: str, what: str) -> list[Made] | None:
    """What came of an entry that arrived before, or None. Raises ClashError when its identity is another entry's."""
    known = session.get(Sent, uid)
    if known is None:
        return None
    if known.what != what:
        raise ClashError("refused.identity_used")
    return [Made(**one) for one in orjson.loads(known.made)]


def last_entry_s(session: Session) -> int | None:
    """When the last entry was made, by the clock of its time [s]; None before any."""
    return session.scalar(select(Sent.at_s).order_by(text("rowid DESC")).limit(1))


def remember(session: Session, uid: str, what: str, made: list[Made], now_s: int) -> None:
    """Keep what came of an entry under its identity."""
    session.add(Sent(uid=uid, what=what, made=orjson.dumps(made).decode(), at_s=now_s))
    session.flush()


def sent_before(
    session: Session, uid: InstrumentedAttribute[str], owner: InstrumentedAttribute[int], sent: str, of: int
) -> bool:
    """Whether an entry is stored already. Raises ClashError when its identity is that of another's entry.

    Parameters: uid, owner: the columns of its table; sent, its identity; of, whose it is.
    """
    known = session.scalar(select(owner).where(uid == sent))
    if known is not None and known != of:
        raise ClashError("refused.identity_used")
    return known is not None
