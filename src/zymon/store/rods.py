"""The rods of a place: their hooks, how far apart, and who changes places with whom."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zymon.core.say import said

from .hang import end_hanging, hanging_now, piece
from .models import Hanging, Piece, Place, Rod
from .places import ClashError, flush_or_clash, place, there, touch


def rod(session: Session, rod_id: int) -> Rod:
    """One rod. Raises NotFoundError."""
    return there(session, Rod, rod_id, "refused.no_rod")


def change_rod(session: Session, rod_id: int, hooks: int, hook_spacing_mm: float | None) -> Rod:
    """Give a rod more or fewer hooks. Raises ClashError while something hangs on one that would go."""
    changed = rod(session, rod_id)
    query = select(Hanging).where(Hanging.rod_id == rod_id, Hanging.hook > hooks, Hanging.to_s.is_(None))
    left = session.scalars(query.order_by(Hanging.hook)).all()
    if left:
        tags = ", ".join(f"{h.piece.tag} on hook {h.hook}" for h in left)
        raise ClashError("refused.rod_in_use", rod=changed.number, tags=tags)
    changed.hooks, changed.hook_spacing_mm = hooks, hook_spacing_mm
    session.flush()
    return changed


def add_rod(session: Session, place_id: int, hooks: int, hook_spacing_mm: float | None) -> Rod:
    """Put another rod up in a place, after the last."""
    of = place(session, place_id)
    number = (session.scalar(select(func.max(Rod.number)).where(Rod.place_id == place_id)) or 0) + 1
    made = Rod(place_id=of.id, number=number, hooks=hooks, hook_spacing_mm=hook_spacing_mm)
    session.add(made)
    session.flush()
    session.refresh(of)
    return made


def swap(session: Session, one_id: int, other_id: int, at_s: int, by: str, now_s: int) -> tuple[Piece, Piece]:
    """Two hanging pieces change places; where they hung stays on record. Raises ClashError."""
    both = piece(session, one_id), piece(session, other_id)
    if one_id == other_id:
        raise ClashError("refused.swap_with_itself")
    were: list[Hanging] = []
    for of in both:
        at = hanging_now(of)
        if at is None:
            raise ClashError("refused.down_not_swapped", tag=of.tag)
        were.append(at)
    for old in were:
        end_hanging(old, at_s, "moved", by)
    session.flush()
    touched: dict[int, Place] = {}
    for of, to in zip(both, reversed(were), strict=True):
        of.hangings.append(
            Hanging(place_id=to.place_id, rod_id=to.rod_id, hook=to.hook, from_s=at_s, by=by, entered_s=now_s)
        )
        touched[to.place_id] = to.rod.place
    for home in touched.values():
        touch(home)
    flush_or_clash(session, said("refused.one_hook_meanwhile"))
    return both
