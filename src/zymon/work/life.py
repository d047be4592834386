"""The life of a piece, read from everything the stations recorded: the one place where its states are put together."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from sqlalchemy import select

from zymon.core.life import Life, State, in_order
from zymon.store import salt, warm
from zymon.store.bench_models import MadePiece
from zymon.store.database import Session
from zymon.store.hang import state_now
from zymon.store.models import Piece, PieceState
from zymon.store.salt_models import SaltPiece
from zymon.store.struck import counted


@dataclass(frozen=True)
class Thrown:
    """That it was thrown away before it ever hung: when [s], by whom."""

    at_s: int
    by: str


@dataclass(frozen=True)
class Before:
    """What is known of a piece before it hung: its salting, its tag, its batch's warm stage [s], the bin."""

    salted: SaltPiece | None = None
    tagged: MadePiece | None = None
    warm_place: str | None = None
    stuffed_s: int | None = None
    warm_until_s: int | None = None
    thrown: Thrown | None = None


def before_the_hook(session: Session, tag: str, batch_id: int | None) -> Before:
    """What is known of a piece before it hung. Parameters: tag; batch_id, None where no batch of that code is there."""
    tagged = session.scalar(select(MadePiece).where(MadePiece.tag == tag))
    salted = session.scalar(select(SaltPiece).where(SaltPiece.tag == tag))
    if batch_id is None and tagged is not None:
        batch_id = tagged.batch_id
    return of_piece(batch_before(session, batch_id), salted, tagged)


def all_before_the_hook(session: Session, tags: Iterable[str], batch_id: int) -> dict[str, Before]:
    """What is known of pieces of one batch before they hung, by tag."""
    known, named = batch_before(session, batch_id), sorted(tags)
    tagged = {one.tag: one for one in session.scalars(select(MadePiece).where(MadePiece.tag.in_(named)))}
    salted = {one.tag: one for one in session.scalars(select(SaltPiece).where(SaltPiece.tag.in_(named)))}
    return {tag: of_piece(known, salted.get(tag), tagged.get(tag)) for tag in named}


def batch_before(session: Session, batch_id: int | None) -> Before:
    """What is known of all pieces of a batch before they hung."""
    if batch_id is None:
        return Before()
    bin_ = warm.discarded(session, batch_id)
    known = Before(thrown=None if bin_ is None else Thrown(bin_.at_s, bin_.by))
    stage = warm.stage(session, batch_id)
    if stage is None:
        return known
    until_s = warm.end_of(warm.events(session, stage.batch_id))
    return replace(known, warm_place=stage.place.name, stuffed_s=stage.stuffed_s, warm_until_s=until_s)


def of_piece(batch: Before, salted: SaltPiece | None, tagged: MadePiece | None) -> Before:
    """What is known of one piece, beside what is known of its batch."""
    alone = [] if salted is None else salt.events(salted, "discard")
    thrown = Thrown(alone[-1].at_s, alone[-1].by) if alone else batch.thrown
    return replace(batch, salted=salted, tagged=tagged, thrown=thrown)


def life_of(piece: Piece, before: Before, now_s: int) -> Life:
    """The states of a piece that hangs or hung, in time order. Parameters: piece; before, its hook; now_s [s]."""
    off = [_off(one) for one in counted(piece.states) if one.from_s <= now_s]
    return in_order([*_before(before, piece.hung_s), *_hanging(piece), *off])


def state_of(piece: Piece) -> State:
    """What a piece that hangs or hung is now."""
    now = state_now(piece)
    return _hanging(piece)[-1] if now is None else _off(now)


def _off(piece_state: PieceState) -> State:
    place = None if piece_state.place is None else piece_state.place.name
    return State(piece_state.kind, piece_state.from_s, piece_state.to_s, place, piece_state.by, piece_state.how)


def life_before(before: Before, now_s: int) -> Life:
    """The states of a piece that does not hang yet. Parameters: before; now_s [s]."""
    states = _before(before, now_s + 1)  # what began this second has begun
    if not states:
        return Life(())
    last = states[-1]
    return in_order([*states[:-1], State(last.kind, last.from_s, None, last.place, last.by, last.how)])


def _hanging(piece: Piece) -> list[State]:
    return [State("hanging", h.from_s, h.to_s, h.rod.place.name, h.by) for h in piece.hangings]


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
    return found if before.thrown is None else _until_the_bin(found, before.thrown, hung_s)


def _until_the_bin(states: list[State], thrown: Thrown, hung_s: int) -> list[State]:
    if thrown.at_s >= hung_s:
        return states
    kept = [replace(s, to_s=min(s.to_s or hung_s, thrown.at_s)) for s in states if s.from_s <= thrown.at_s]
    return [*kept, State("gone", thrown.at_s, hung_s, None, thrown.by, "discarded")]
