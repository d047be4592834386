"""What is sent twice counts once: a weight over a weak line, a tap that was repeated."""

from sqlalchemy import select
from sqlalchemy.orm import InstrumentedAttribute, Session

from .places import ClashError


def sent_before(
    session: Session, uid: InstrumentedAttribute[str], owner: InstrumentedAttribute[int], sent: str, of: int
) -> bool:
    """Whether an entry is stored already. Raises ClashError when its identity is that of another's entry.

    Parameters: uid, owner: the columns of its table; sent, its identity; of, whose it is.
    """
    known = session.scalar(select(owner).where(uid == sent))
    if known is not None and known != of:
        raise ClashError("this was noted for another one already")
    return known is not None
