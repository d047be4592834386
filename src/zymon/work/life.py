"""The life of a piece, read from everything the stations recorded: the one place where its states are put together."""

from dataclasses import dataclass

from sqlalchemy import select

from zymon.core.life import Life, State, in_order
from zymon.store import salt, warm
from zymon.store.bench_models import MadePiece
from zymon.store.database import Session
from zymon.store.models import Piece
from zymon.store.salt_models import SaltPiece
from zymon.store.struck import counted


@dataclass(frozen=True)
class Before:
    """What is known of a piece before it hung: its salting, its tag, its batch's warm stage [s]."""

    salted: SaltPiece | None = None
    tagged: MadePiece | None = None
    warm_place: str | None = None
    stuffed_s: int | None = None
    warm_until_s: int | None = None


def before_the_hook(session: Session, tag: str, batch_id: int | None) -> Before:
    """What is known of a piece before it hung. Parameters: tag; batch_id, None where no batch of that code is there."""
    tagged = session.scalar(select(MadePiece).where(MadePiece.tag == tag))
    salted = session.scalar(select(SaltPiece).where(SaltPiece.tag == tag))
    if batch_id is None and tagged is not None:
        batch_id = tagged.batch_id
    stage = None if batch_id is None else warm.stage(session, batch_id)
    if stage is None:
        return Before(salted, tagged)
    until_s = warm.end_of(warm.events(session, stage.batch_id))
    return Before(salted, tagged, stage.place.name, stage.stuffed_s, until_s)


def life_of(of: Piece, before: Before, now_s: int) -> Life:
    """The states of a piece that hangs or hung, in time order. Parameters: of; before, its hook; now_s [s]."""
    states = [*_before(before, of.hung_s), *_hanging(of)]
    states += [
        State(s.kind, s.from_s, s.to_s, None if s.place is None else s.place.name, s.by, s.how)  # type: ignore[arg-type] # checked on entry
        for s in counted(of.states)
        if s.from_s <= now_s
    ]
    return in_order(states)


def life_before(before: Before, now_s: int) -> Life:
    """The states of a piece that does not hang yet. Parameters: before; now_s [s]."""
    states = _before(before, now_s)
    if not states:
        return Life(())
    last = states[-1]
    return in_order([*states[:-1], State(last.kind, last.from_s, None, last.place, last.by, last.how)])


def _hanging(of: Piece) -> list[State]:
    return [State("hanging", h.from_s, h.to_s, h.rod.place.name, h.by) for h in of.hangings]


def _before(before: Before, hung_s: int) -> list[State]:
    """In salt, out of it, in the warm, waiting; each up to the next, the last up to the hook."""
    found: list[State] = []
    salted = before.salted
    if salted is not None:
        into, out = salt.put_in(salted), salt.out_at(salted)
        place = None if into.place is None else into.place.name
        found.append(State("in_salt", into.at_s, min(out.at_s, hung_s) if out else hung_s, place, into.by))
        if out is not None and out.at_s < hung_s:
            found.append(State("out", out.at_s, hung_s, None, out.by))
    elif before.stuffed_s is not None and before.stuffed_s <= hung_s:
        ends = min(before.warm_until_s or hung_s, hung_s)
        found.append(State("warm", before.stuffed_s, ends, before.warm_place))
        if ends < hung_s:
            found.append(State("waiting", ends, hung_s))
    elif before.tagged is not None and before.tagged.made_s < hung_s:
        found.append(State("waiting", before.tagged.made_s, hung_s, None, before.tagged.by))
    return found
