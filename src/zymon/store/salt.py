"""The Salt's records: what lies in salt, what was done to it, and what it weighed."""

from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from zymon.core.errors import OutOfRangeError
from zymon.core.salting.ways import CareKind
from zymon.core.say import said

from .bench import add_piece as add_made_piece
from .bench_models import MadePiece, Making
from .models import Batch, Place
from .once import sent_before
from .places import ClashError, flush_or_clash, there
from .salt_models import SaltEvent, SaltPiece
from .struck import strike as strike_entry

CARE: tuple[CareKind, ...] = ("turn", "drain", "rub", "check")
WHILE_IN = ("way", "press", *CARE)
ONCE_OUT = ("rinse", "blot", "soak", "trim", "coat", "wrap", "rest")

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


def pieces_ever(session: Session) -> list[SaltPiece]:
    """Everything that was ever put in salt."""
    return list(session.scalars(select(SaltPiece).options(*_LOADED)).unique())


def batches_in_salt(session: Session) -> set[int]:
    """The batches of which something was put in salt."""
    return set(session.scalars(select(SaltPiece.batch_id).distinct()))


def salt_piece(session: Session, piece_id: int) -> SaltPiece:
    """One piece. Raises NotFoundError."""
    return there(session, SaltPiece, piece_id, "refused.not_in_salt_book")


def piece_of_tag(session: Session, tag: str) -> SaltPiece | None:
    """The piece that was put in salt under a tag."""
    return session.scalar(select(SaltPiece).where(SaltPiece.tag == tag))


def events(piece: SaltPiece, *kinds: str) -> list[SaltEvent]:
    """What counts of the events of these kinds, in time order; all kinds when none is named."""
    found = [e for e in piece.events if e.struck_s is None and (not kinds or e.kind in kinds)]
    return sorted(found, key=lambda e: (e.at_s, e.id or 2**62))


def put_in(piece: SaltPiece) -> SaltEvent:
    """Its putting in."""
    return events(piece, "in")[0]


def out_at(piece: SaltPiece) -> SaltEvent | None:
    """Its taking out, if it is out."""
    return next(iter(events(piece, "out")), None)


def ended(piece: SaltPiece) -> bool:
    """Whether it was thrown away."""
    return bool(events(piece, "discard"))


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
    pierced: bool = False


def add_piece(session: Session, making: Making, new: NewSaltPiece, into: SaltEvent, now_s: int) -> SaltPiece:
    """Put a muscle in salt. Raises ClashError for a taken tag."""
    taken = session.scalar(select(SaltPiece.id).where(SaltPiece.tag == new.tag))
    if taken is not None or session.scalar(select(MadePiece.id).where(MadePiece.tag == new.tag)) is not None:
        raise ClashError("refused.tag_taken", tag=new.tag)
    made = SaltPiece(
        making=making,
        tag=new.tag,
        geometry=new.geometry,
        across_mm=new.across_mm,
        raw_g=new.raw_g,
        skin_share=new.skin_share,
        rules=",".join(new.rules),
        margin_percent=new.margin_percent,
        pierced=new.pierced,
        by=into.by,
        entered_s=now_s,
    )
    made.events.append(into)
    session.add(made)
    flush_or_clash(session, said("refused.tag_given_meanwhile", tag=new.tag))
    return made


def note(session: Session, piece: SaltPiece, event: SaltEvent) -> bool:
    """Note what was done; sent twice it counts once. Returns whether it was new.

    Raises ClashError for what cannot be done to the piece any more or not yet, OutOfRangeError for times out of order.
    """
    if sent_before(session, SaltEvent.uid, SaltEvent.salt_piece_id, event.uid, piece.id):
        return False
    out = out_at(piece)
    if event.at_s < put_in(piece).at_s:
        raise OutOfRangeError("refused.not_in_salt_yet", tag=piece.tag)
    if piece.made_piece_id is not None and (out is None or event.at_s >= out.at_s):
        raise ClashError("refused.tagged_for_hook", tag=piece.tag)
    if ended(piece):
        raise ClashError("refused.thrown_away", tag=piece.tag)
    if event.kind in ("out", *WHILE_IN) and out is not None and event.at_s >= out.at_s:
        raise ClashError("refused.out_of_salt_already", tag=piece.tag)
    if event.kind == "out" and any(e.at_s > event.at_s for e in events(piece)):
        raise OutOfRangeError("refused.something_after", tag=piece.tag)
    if event.kind in ONCE_OUT and out is None:
        raise ClashError("refused.still_in_salt", tag=piece.tag)
    if event.kind == "trim":
        check_trim(piece, event)
    piece.events.append(event)
    session.flush()
    return True


def strike(session: Session, event_id: int, reason: str, by: str, now_s: int) -> SaltPiece:
    """Strike an event through; what rests on it must be struck first. Raises ClashError, NotFoundError."""
    event = there(session, SaltEvent, event_id, "refused.no_entry")
    of = event.piece
    if of.made_piece_id is not None:
        raise ClashError("refused.time_in_salt_stands", tag=of.tag)
    if event.kind == "in":
        raise ClashError("refused.putting_in_stands")
    if event.kind == "out" and events(of, *ONCE_OUT):
        raise ClashError("refused.strike_later_first", tag=of.tag)
    strike_entry(event, reason, by, now_s)
    return of


def waiting_batches(session: Session) -> list[Making]:
    """Batches of whole muscle made at the Bench of which nothing was salted or tagged yet."""
    salted = select(SaltPiece.batch_id)
    tagged = select(MadePiece.batch_id)
    query = select(Making).where(Making.batch_id.not_in(salted), Making.batch_id.not_in(tagged))
    return list(session.scalars(query.order_by(Making.made_s.desc())))


def batches_begun(session: Session) -> list[Making]:
    """Batches of which a piece lies in salt now, the latest first."""
    lying = {one.batch_id for one in pieces_in_salt(session) if out_at(one) is None and not ended(one)}
    query = select(Making).where(Making.batch_id.in_(lying)).order_by(Making.made_s.desc())
    return list(session.scalars(query))


def stays(piece: SaltPiece) -> list[tuple[Place, str | None, int, int | None]]:
    """Where a piece lay: place, container, from, to [s]; to is None where it lies now."""
    moved = [e for e in events(piece, "in", "move") if e.place is not None]
    ends: list[int | None] = [e.at_s for e in moved[1:]]
    return [
        (e.place, e.container, e.at_s, end) for e, end in zip(moved, [*ends, None], strict=True) if e.place is not None
    ]


def next_tags(session: Session, making: Making, many: int) -> list[str]:
    """Tags for the next pieces of a batch: its code and running numbers."""
    batch = making.batch
    salted = session.scalars(select(SaltPiece.tag).where(SaltPiece.batch_id == making.batch_id))
    taken = [*salted, *(p.tag for p in making.pieces), *(p.tag for p in batch.pieces)]
    numbers = [int(t.rpartition("-")[2]) for t in taken if t.rpartition("-")[2].isdigit()]
    first = max(numbers, default=0) + 1
    return [f"{batch.code}-{first + i:02d}" for i in range(many)]


def typed_temperatures(session: Session, code: str) -> list[tuple[str, float, float]]:
    """What a thermometer in the meat showed of a batch's pieces in salt: tag, moment [s], °C."""
    query = (
        select(SaltPiece.tag, SaltEvent.at_s, SaltEvent.value)
        .join(SaltEvent.piece)
        .join(Batch, Batch.id == SaltPiece.batch_id)
        .where(
            Batch.code == code, SaltEvent.kind == "check", SaltEvent.value.is_not(None), SaltEvent.struck_s.is_(None)
        )
    )
    return [(tag, float(at_s), c) for tag, at_s, c in session.execute(query) if c is not None]


@dataclass(frozen=True)
class Bases:
    """What a piece's loss can be counted from [g]: raw and as it came out of the salt, less what was trimmed since."""

    raw_g: float
    cured_g: float | None


def bases(piece: SaltPiece) -> Bases:
    """The weights a loss counts from. What was trimmed off after the salt takes its share of each with it."""
    out = out_at(piece)
    raw_g, cured_g = piece.raw_g, None
    for e in events(piece, "out", "weigh", "trim"):
        if out is None or e.value is None or e.at_s < out.at_s:
            continue
        if e.kind == "trim" and cured_g:
            raw_g *= e.value / cured_g
        cured_g = e.value
    return Bases(raw_g, cured_g)


def check_trim(piece: SaltPiece, event: SaltEvent) -> None:
    """Refuse a trim that takes nothing off, or all. Raises OutOfRangeError."""
    before_g = next(
        (
            e.value
            for e in reversed(events(piece, "out", "weigh", "trim"))
            if e.value is not None and e.at_s <= event.at_s
        ),
        piece.raw_g,
    )
    if event.value is None or not 0 < event.value < before_g:
        raise OutOfRangeError("refused.trimmed_weighs_more", tag=piece.tag, before_g=before_g)


def cured_weight(piece: SaltPiece) -> float | None:
    """What it weighed last since it came out of the salt [g], None where nobody did. Raises ClashError in salt."""
    if out_at(piece) is None:
        raise ClashError("refused.still_in_salt", tag=piece.tag)
    return bases(piece).cured_g


def tag_for_hook(session: Session, piece: SaltPiece, made: MadePiece) -> None:
    """Make the piece that hangs out of the piece that was salted. Raises ClashError, OutOfRangeError."""
    if piece.made_piece_id is not None:
        raise ClashError("refused.tagged_already", tag=piece.tag)
    if ended(piece):
        raise ClashError("refused.thrown_away", tag=piece.tag)
    add_made_piece(session, piece.making, made)
    piece.made_piece_id = made.id
    session.flush()
