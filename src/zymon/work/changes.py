"""What was changed: the journal as it is read, by batch and by day."""

from datetime import date, datetime, time, timedelta

import orjson
from pydantic import BaseModel

from zymon.store import bench, hang, journal
from zymon.store.database import Session
from zymon.store.models import JournalLine, Weighing
from zymon.store.places import NotFoundError, place

from .premises import Premises, moment

# Where one state ends because the next began, nothing was changed: that is told by the life of the piece
ENDS = {
    "hanging": {"to_s", "ended_as", "ended_by"},
    "piece_state": {"to_s"},
    "weigh_out": {"ended_s", "end"},
    "made_piece": {"piece_id"},
}


Stored = str | float | int | bool | None


class FieldChanged(BaseModel):
    """A field that was changed, before and after, as it is stored; a place, a batch and a piece by their names."""

    field: str
    before: Stored
    after: Stored


class ChangeOut(BaseModel):
    """A line of the journal: who changed what of which batch, piece or place, when and why."""

    id: int
    at: datetime
    by: str
    what: str
    batch_id: int | None
    batch: str | None
    tag: str | None
    place: str | None
    weighed_g: float | None  # of a weighing: the reading that was changed or struck
    fields: list[FieldChanged]
    reason: str


class Changes(BaseModel):
    """Lines of the journal, the latest first; the days on which something was changed, and who did."""

    lines: list[ChangeOut]
    days: list[date]
    people: list[str]


def changes(shop: Premises, batch_id: int | None, day: date | None, by: str | None = None) -> Changes:
    """What was changed of a batch, on a day, by somebody, or lately. Raises NotFoundError."""
    zone = shop.zone
    with shop.db.reading() as session:
        if batch_id is not None:
            bench.batch(session, batch_id)
        low, high = 0, 2**40
        if day is not None:
            begin = datetime.combine(day, time(), zone)
            low, high = int(begin.timestamp()), int((begin + timedelta(days=1)).timestamp()) - 1
        found = journal.lines(session, batch_id, low, high, by)
        days = list(dict.fromkeys(moment(at).astimezone(zone).date() for at in journal.days(session)))
        told = [_line_out(session, line) for line in found if not _only_ends(line)]
        return Changes(lines=told, days=days, people=list(journal.names(session)))


def _only_ends(line: JournalLine) -> bool:
    """Whether something that was under way ended for the first time, and nothing else."""
    before, after = orjson.loads(line.before), orjson.loads(line.after)
    return set(after) <= ENDS.get(line.what, set()) and all(before.get(name) is None for name in after)


def _line_out(session: Session, line: JournalLine) -> ChangeOut:
    before, after = orjson.loads(line.before), orjson.loads(line.after)
    return ChangeOut(
        id=line.id,
        at=moment(line.at_s),
        by=line.by,
        what=line.what,
        batch_id=line.batch_id,
        batch=None if line.batch_id is None else bench.batch(session, line.batch_id).code,
        tag=_tag(session, line.piece_id),
        weighed_g=_weighed(session, line),
        place=None if line.place_id is None else place(session, line.place_id).name,
        fields=[
            FieldChanged(field=name, before=_named(session, name, before.get(name)), after=_named(session, name, value))
            for name, value in after.items()
        ],
        reason=line.reason,
    )


def _named(session: Session, field: str, value: Stored) -> Stored:
    """What a field holds; what it points to by its name."""
    if not isinstance(value, int):
        return value
    if field.endswith("place_id"):
        return place(session, value).name
    if field == "batch_id":
        return bench.batch(session, value).code
    return _tag(session, value) if field == "piece_id" else value


def _weighed(session: Session, line: JournalLine) -> float | None:
    found = session.get(Weighing, int(line.row)) if line.what == "weighing" else None
    return None if found is None else found.gross_g


def _tag(session: Session, piece_id: int | None) -> str | None:
    if piece_id is None:
        return None
    try:
        return hang.piece(session, piece_id).tag
    except NotFoundError:
        return None
