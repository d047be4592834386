"""The journal: a line for every change of what a person or a setting had entered, written in this one place.

A session that writes says who and when (`Database.writing`); before its changes go out, each changed column of each row
becomes part of a line. What is derived or counted is named in `KEPT_BY_ZYMON`; all else is somebody's entry.
"""

from collections.abc import Iterable, Sequence
from typing import Any

import orjson
from sqlalchemy import event, inspect, select
from sqlalchemy.orm import ORMExecuteState, Session

from .models import Base, JournalLine, Piece

# Columns that no person enters: counters, marks that dates must be made anew, what a device was heard to say
KEPT_BY_ZYMON: dict[str, frozenset[str]] = {
    "place": frozenset({"revision"}),
    "device": frozenset({"last_s", "taken", "repeated", "late", "impossible", "value", "value_s"}),
    "person": frozenset({"failures", "failed_s"}),
    "sign_in": frozenset({"last_s", "confirmed_s"}),
    "sent": frozenset({"made"}),
    "alarm_event": frozenset({"seen_s", "ended_s", "worst"}),
    "reading_strike": frozenset({"readings"}),
    "thinning": frozenset({"readings_before", "readings_after", "ended_s"}),
    "import_report": frozenset({"rows_new", "rows_same", "rows_conflict", "rows_left_out"}),
}
AIR_CHANGED = "air changed"  # in a session: of which places and times the log was changed
BESIDES = "besides"  # in a session: changes that are told apart from the rest of their table
CHANGED = "changed"  # in a session: the rows that were entered (true) or changed
# what follows from an entry
ASIDE = frozenset({"journal_line", "sent", "forecast_record", "hurdle_correction", "rest_profile", "alarm_message"})
SECRET = frozenset(
    {"secret", "token_sha256", "passphrase_hash", "pin_hash", "jpeg"}
)  # that it changed is told, not what it was


class SilentChangeError(RuntimeError):
    """Something entered would be changed or deleted by nobody, or past the journal."""


def keep_journal(session: Session) -> None:
    """Write a line for every change that this session makes."""
    event.listen(session, "before_flush", _before_flush)
    event.listen(session, "do_orm_execute", _refuse_bulk)


def besides(session: Session, what: str) -> None:
    """Note that a session changes something that is told apart from the rest of its table."""
    session.info.setdefault(BESIDES, set()).add(what)


def changed_tables(session: Session) -> set[str]:
    """The tables in which somebody's entries were made or changed by a session, readings among them."""
    tables = {row.__tablename__ for row in session.info.get(CHANGED, {})}
    told_apart: set[str] = session.info.get(BESIDES, set())
    return tables | told_apart | ({"reading"} if session.info.get(AIR_CHANGED) else set())


def because(session: Session, reason: str) -> None:
    """Give the reason for the changes that follow in this session."""
    session.info["reason"] = reason


def _refuse_bulk(state: ORMExecuteState) -> None:
    if state.is_update or state.is_delete:
        raise SilentChangeError("rows are changed one by one, so that the journal sees them")


def _before_flush(session: Session, _context: Any, _instances: Any) -> None:
    for row in session.deleted:
        raise SilentChangeError(f"{row.__tablename__} is struck through, never deleted")
    changed: dict[Any, bool] = session.info.setdefault(CHANGED, {})
    changed.update({row: True for row in session.new if row.__tablename__ not in ASIDE})
    for row in session.dirty:
        line = _line(session, row)
        if line is not None:
            session.add(line)
            changed.setdefault(row, False)


def _line(session: Session, row: Base) -> JournalLine | None:
    state = inspect(row)
    table = row.__tablename__
    aside = KEPT_BY_ZYMON.get(table, frozenset())
    before, after = {}, {}
    for column in state.mapper.column_attrs:
        changed = state.attrs[column.key].history
        if column.key in aside or not changed.has_changes():
            continue
        if not changed.deleted:
            # the old value was never loaded: it is asked for, so that the line can say it
            with session.no_autoflush:
                was = session.execute(select(column.expression).where(*_is(row))).scalar_one()
        else:
            was = changed.deleted[0]
        now = changed.added[0] if changed.added else None
        if was == now:
            continue
        before[column.key], after[column.key] = _shown(column.key, was), _shown(column.key, now)
    if not after:
        return None
    by, now_s = session.info.get("by"), session.info.get("now_s")
    if by is None or now_s is None:
        raise SilentChangeError(f"{table} is changed by nobody: say who writes")
    batch_id, piece_id, place_id = _belongs(row)
    return JournalLine(
        at_s=now_s,
        by=by,
        what=table,
        row=",".join(str(key) for key in state.identity or ()),
        batch_id=batch_id,
        piece_id=piece_id,
        place_id=place_id,
        before=orjson.dumps(before).decode(),
        after=orjson.dumps(after).decode(),
        reason=str(after.get("struck_reason") or session.info.get("reason") or "")[:300],
    )


def _is(row: Base) -> list[Any]:
    state = inspect(row)
    return [key == value for key, value in zip(state.mapper.primary_key, state.identity or (), strict=True)]


def _shown(key: str, value: Any) -> Any:
    if value is None:
        return None
    return "…" if key in SECRET or isinstance(value, bytes) else value


# by which way a row leads to its batch, its piece, its place
_OWNERS = ("piece", "weigh_out", "making", "salt_piece")


def _belongs(row: Any) -> tuple[int | None, int | None, int | None]:
    table = row.__tablename__
    batch_id = row.id if table == "batch" else getattr(row, "batch_id", None)
    piece_id = row.id if table == "piece" else getattr(row, "piece_id", None)
    place_id = row.id if table == "place" else getattr(row, "place_id", None)
    owner = next(
        (o for name in _OWNERS if (o := getattr(row, name, None)) is not None and hasattr(o, "batch_id")), None
    )
    if batch_id is None and owner is not None:
        batch_id = owner.batch_id
    if batch_id is None:
        making = getattr(getattr(row, "weigh_out", row), "making", None)
        batch_id = None if making is None else making.batch_id
    return batch_id, piece_id if table != "made_piece" else None, place_id


def changed_rows(session: Session) -> dict[Any, bool]:
    """What this session entered (true) or changed."""
    session.flush()
    return dict(session.info.get(CHANGED, {}))


def batches_of(session: Session, rows: Iterable[Any]) -> set[int]:
    """The batches that some rows belong to."""
    rows = list(rows)
    found = {batch_id for row in rows for batch_id in [_belongs(row)[0]] if batch_id is not None}
    pieces = {row.piece_id for row in rows if isinstance(getattr(row, "piece_id", None), int)}
    found |= set(session.scalars(select(Piece.batch_id).where(Piece.id.in_(pieces)))) if pieces else set()
    return found


def lines(
    session: Session, batch_id: int | None = None, from_s: int = 0, to_s: int = 2**40, by: str | None = None
) -> Sequence[JournalLine]:
    """Lines of a batch or of all, between two times [s], of one person or of everybody, the latest first."""
    query = select(JournalLine).where(JournalLine.at_s.between(from_s, to_s))
    if batch_id is not None:
        query = query.where(JournalLine.batch_id == batch_id)
    if by is not None:
        query = query.where(JournalLine.by == by)
    return session.scalars(query.order_by(JournalLine.id.desc()).limit(1000)).all()


def days(session: Session) -> Sequence[int]:
    """The moments [s] at which something was changed, the latest first."""
    return session.scalars(select(JournalLine.at_s).order_by(JournalLine.id.desc()).limit(5000)).all()


def names(session: Session) -> Sequence[str]:
    """Who changed anything, by name."""
    return session.scalars(select(JournalLine.by).distinct().order_by(JournalLine.by)).all()
