"""The Salt's records: what lies in salt, what was done to it, and what the rules need to know of it."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from sqlalchemy import func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from zymon.core.curing import Geometry
from zymon.core.drying.climate import Log
from zymon.core.errors import OutOfRangeError
from zymon.core.ledger.batch import Cure
from zymon.core.salting.bag import Bag, Cold, Step
from zymon.core.salting.ways import CareKind

from .bench import add_piece as add_made_piece
from .bench_models import MadePiece, Making
from .climate import hourly_log
from .models import Place
from .once import sent_before
from .places import ClashError, NotFoundError, flush_or_clash, place, setpoint_at
from .salt_models import SaltEvent, SaltPiece

USUAL_COLD_C = 3.0  # of a place that neither logs nor has a set point
HABIT_S = 2 * 86_400  # the place stays what it was on the last days
CARE: tuple[CareKind, ...] = ("turn", "drain", "rub", "check")
WHILE_IN = ("move", "way", "press", *CARE)
ONCE_OUT = ("rinse", "blot", "soak", "coat", "wrap", "rest")
LATE_S = 60  # how far a clock may be ahead

_LOADED = (
    joinedload(SaltPiece.making).joinedload(Making.batch),
    selectinload(SaltPiece.events).joinedload(SaltEvent.place),
)

_IN_SALT = (
    SaltPiece.made_piece_id.is_(None),
    ~SaltPiece.events.any((SaltEvent.kind == "discard") & SaltEvent.struck_s.is_(None)),
)


def pieces_in_salt(session: Session) -> list[SaltPiece]:
    """Everything put in salt that is neither tagged for the hook nor thrown away, the oldest batch first."""
    return list(session.scalars(select(SaltPiece).options(*_LOADED).where(*_IN_SALT).order_by(SaltPiece.id)).unique())


def count_in_salt(session: Session) -> int:
    """How many pieces lie in salt or wait to be tagged."""
    return session.scalar(select(func.count()).select_from(SaltPiece).where(*_IN_SALT)) or 0


def pieces_of_batch(session: Session, batch_id: int) -> list[SaltPiece]:
    """Everything of a batch that was ever put in salt."""
    return list(session.scalars(select(SaltPiece).options(*_LOADED).where(SaltPiece.batch_id == batch_id)).unique())


def batches_in_salt(session: Session) -> set[int]:
    """The batches of which something was put in salt."""
    return set(session.scalars(select(SaltPiece.batch_id).distinct()))


def salt_piece(session: Session, piece_id: int) -> SaltPiece:
    """One piece. Raises NotFoundError."""
    found = session.get(SaltPiece, piece_id)
    if found is None:
        raise NotFoundError("this piece was not put in salt")
    return found


def events(of: SaltPiece, *kinds: str) -> list[SaltEvent]:
    """What counts of the events of these kinds, in time order; all kinds when none is named."""
    found = [e for e in of.events if e.struck_s is None and (not kinds or e.kind in kinds)]
    return sorted(found, key=lambda e: (e.at_s, e.id or 2**62))


def put_in(of: SaltPiece) -> SaltEvent:
    """Its putting in."""
    return events(of, "in")[0]


def out_at(of: SaltPiece) -> SaltEvent | None:
    """Its taking out, if it is out."""
    return next(iter(events(of, "out")), None)


def ended(of: SaltPiece) -> bool:
    """Whether it was thrown away."""
    return bool(events(of, "discard"))


@dataclass(frozen=True)
class NewSaltPiece:
    """A muscle to put in salt."""

    tag: str
    geometry: str
    across_mm: float
    raw_g: float
    skin_share: float
    rules: tuple[str, ...]
    margin_percent: float


def add_piece(session: Session, making: Making, new: NewSaltPiece, into: SaltEvent, now_s: int) -> SaltPiece:
    """Put a muscle in salt. Raises ClashError for a taken tag, OutOfRangeError for a time to come."""
    taken = session.scalar(select(SaltPiece.id).where(SaltPiece.tag == new.tag))
    if taken is not None or session.scalar(select(MadePiece.id).where(MadePiece.tag == new.tag)) is not None:
        raise ClashError(f"tag {new.tag} is on another piece already")
    not_ahead(into.at_s, now_s)
    made = SaltPiece(
        making=making,
        tag=new.tag,
        geometry=new.geometry,
        across_mm=new.across_mm,
        raw_g=new.raw_g,
        skin_share=new.skin_share,
        rules=",".join(new.rules),
        margin_percent=new.margin_percent,
        by=into.by,
        entered_s=now_s,
    )
    made.events.append(into)
    session.add(made)
    flush_or_clash(session, f"tag {new.tag} was given a moment ago")
    return made


def not_ahead(at_s: int, now_s: int) -> None:
    """Raises OutOfRangeError for a time to come."""
    if at_s > now_s + LATE_S:
        raise OutOfRangeError("this time is still to come: check the date")


def note(session: Session, of: SaltPiece, event: SaltEvent, now_s: int) -> bool:
    """Note what was done; sent twice it counts once. Returns whether it was new.

    Raises ClashError for what cannot be done to the piece any more or not yet, OutOfRangeError for times out of order.
    """
    if sent_before(session, SaltEvent.uid, SaltEvent.salt_piece_id, event.uid, of.id):
        return False
    not_ahead(event.at_s, now_s)
    out = out_at(of)
    if event.at_s < put_in(of).at_s:
        raise OutOfRangeError(f"{of.tag} was not in salt yet at that time: check the date")
    if of.made_piece_id is not None:
        raise ClashError(f"{of.tag} is tagged for the hook: nothing is done to it in salt any more")
    if ended(of):
        raise ClashError(f"{of.tag} was thrown away")
    if event.kind in ("out", *WHILE_IN) and out is not None and event.at_s >= out.at_s:
        raise ClashError(f"{of.tag} is out of the salt already")
    if event.kind == "out" and any(e.at_s > event.at_s for e in events(of)):
        raise OutOfRangeError(f"something was done to {of.tag} after that time: check the date")
    if event.kind in ONCE_OUT and out is None:
        raise ClashError(f"{of.tag} is still in salt: take it out first")
    of.events.append(event)
    session.flush()
    return True


def strike(session: Session, event_id: int, reason: str, by: str, now_s: int) -> SaltPiece:
    """Strike an event through; what rests on it must be struck first. Raises ClashError, NotFoundError."""
    event = session.get(SaltEvent, event_id)
    if event is None:
        raise NotFoundError("this entry is not there")
    of = event.piece
    if event.struck_s is not None:
        raise ClashError("this entry is struck through already")
    if of.made_piece_id is not None:
        raise ClashError(f"{of.tag} is tagged for the hook: its time in salt stands")
    if event.kind == "in":
        raise ClashError("the putting in stands; throw the piece away, with a reason, if it was put in by mistake")
    if event.kind == "out" and events(of, *ONCE_OUT):
        raise ClashError(f"strike first what was done to {of.tag} after it came out")
    event.struck_s, event.struck_by, event.struck_reason = now_s, by, reason
    return of


def waiting_batches(session: Session) -> list[Making]:
    """Batches of whole muscle made at the Bench of which nothing was salted or tagged yet."""
    salted = select(SaltPiece.batch_id)
    tagged = select(MadePiece.batch_id)
    query = select(Making).where(Making.batch_id.not_in(salted), Making.batch_id.not_in(tagged))
    return list(session.scalars(query.order_by(Making.made_s.desc())))


class Colds:
    """The cold of every place, read once however many pieces lie in it."""

    def __init__(self, session: Session, since_s: int, now_s: int) -> None:
        self.session, self.since_s, self.now_s = session, since_s, now_s
        self._kept: dict[int, tuple[Log, float]] = {}

    def of(self, place_id: int) -> tuple[Log, float]:
        """The log of a place, and what it is expected to be [°C]."""
        if place_id not in self._kept:
            log = hourly_log(self.session, place_id, self.since_s, self.now_s)
            recent = log.temperature_c[log.time_s > self.now_s - HABIT_S]
            setpoint = setpoint_at(place(self.session, place_id), self.now_s)
            set_c = setpoint.temperature_c if setpoint else None
            ahead_c = float(np.mean(recent)) if len(recent) else (USUAL_COLD_C if set_c is None else set_c)
            self._kept[place_id] = (log, ahead_c)
        return self._kept[place_id]


def stays(of: SaltPiece) -> list[tuple[Place, str | None, int, int | None]]:
    """Where a piece lay: place, container, from, to [s]; to is None where it lies now."""
    moved = [e for e in events(of, "in", "move") if e.place is not None]
    ends: list[int | None] = [e.at_s for e in moved[1:]]
    return [
        (e.place, e.container, e.at_s, end) for e, end in zip(moved, [*ends, None], strict=True) if e.place is not None
    ]


def cold_of(of: SaltPiece, colds: Colds) -> Cold:
    """The temperature along the piece's way through its places, after its salt too."""
    parts = []
    ahead_c = USUAL_COLD_C
    for where, _, from_s, to_s in stays(of):
        log, ahead_c = colds.of(where.id)
        end_s = colds.now_s if to_s is None else to_s
        here = (log.time_s >= from_s - 3600) & (log.time_s <= end_s)
        parts.append(Log(log.time_s[here], log.temperature_c[here], log.rh_percent[here]))
    joined = [np.concatenate([getattr(p, name) for p in parts]) for name in ("time_s", "temperature_c", "rh_percent")]
    order = np.argsort(joined[0], kind="stable")
    return Cold(Log(joined[0][order], joined[1][order], joined[2][order]), ahead_c)


def steps_of(of: SaltPiece) -> tuple[Step, ...]:
    """What moves the salt, in time order."""
    found = []
    for e in events(of, "in", "way", "soak", "out"):
        if e.kind in ("in", "way"):
            found.append(Step(e.at_s, "lay", e.way or "measured", e.percent or 0.0, bool(e.free_salt)))  # type: ignore[arg-type] # checked on entry
        elif e.kind == "soak":
            found.append(Step(e.at_s, "soak", hours=e.value or 0.0))
        else:
            found.append(Step(e.at_s, "out"))
    return tuple(found)


def bag_of(of: SaltPiece, colds: Colds) -> Bag:
    """A piece as the rules see it."""
    geometry: Geometry = of.geometry  # type: ignore[assignment] # checked on entry
    return Bag(
        geometry=geometry,
        across_mm=of.across_mm,
        weight_g=of.raw_g,
        fat_percent=min(of.making.batch.fat_percent or 0.0, 80.0),
        steps=steps_of(of),
        cold=cold_of(of, colds),
        rules=tuple(of.rules.split(",")),
        margin_percent=of.margin_percent,
        skin_share=of.skin_share,
    )


def colds_for(session: Session, pieces: Sequence[SaltPiece], now_s: int) -> Colds:
    """The cold from the oldest of the pieces on."""
    return Colds(session, min((put_in(p).at_s for p in pieces), default=now_s), now_s)


def cure_of(of: SaltPiece, colds: Colds, origin_s: int) -> Cure:
    """A piece's time in salt as the ledger sees it, in hours from `origin_s`."""
    bag = bag_of(of, colds)
    log = bag.cold.log
    out = out_at(of)
    return Cure(
        way="buried" if bag.free else bag.laid.way,
        from_hour=(put_in(of).at_s - origin_s) / 3600,
        to_hour=None if out is None else (out.at_s - origin_s) / 3600,
        temperature=tuple(
            ((at - origin_s) / 3600, c) for at, c in zip(log.time_s.tolist(), log.temperature_c.tolist(), strict=True)
        ),
    )


def next_tags(session: Session, making: Making, many: int) -> list[str]:
    """Tags for the next pieces of a batch: its code and running numbers."""
    batch = making.batch
    salted = session.scalars(select(SaltPiece.tag).where(SaltPiece.batch_id == making.batch_id))
    taken = [*salted, *(p.tag for p in making.pieces), *(p.tag for p in batch.pieces)]
    numbers = [int(t.rpartition("-")[2]) for t in taken if t.rpartition("-")[2].isdigit()]
    first = max(numbers, default=0) + 1
    return [f"{batch.code}-{first + i:02d}" for i in range(many)]


def cured_weight(of: SaltPiece) -> float:
    """What it weighed last after it came out of the salt [g]. Raises ClashError while it is in salt."""
    out = out_at(of)
    if out is None:
        raise ClashError(f"{of.tag} is still in salt: take it out first")
    return [e.value for e in events(of, "weigh", "out") if e.value is not None and e.at_s >= out.at_s][-1]


def tag_for_hook(session: Session, of: SaltPiece, made: MadePiece) -> None:
    """Make the piece that hangs out of the piece that was salted. Raises ClashError, OutOfRangeError."""
    if of.made_piece_id is not None:
        raise ClashError(f"{of.tag} is tagged for the hook already")
    if ended(of):
        raise ClashError(f"{of.tag} was thrown away")
    add_made_piece(session, of.making, made)
    of.made_piece_id = made.id
    session.flush()
