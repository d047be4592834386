"""The journal: no column of any table changes without a line, and nothing of it can be taken back."""

import ast
import contextlib
import shutil
import sqlite3
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import Boolean, Column, Float, Integer, LargeBinary, delete, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, make_transient_to_detached
from sqlalchemy.orm.attributes import set_committed_value

from support import DATA, NOW
from zymon.store import journal
from zymon.store.database import Database
from zymon.store.journal import KEPT_BY_ZYMON, SilentChangeError, because, keep_journal
from zymon.store.models import Base, JournalLine, Weighing
from zymon.words import LANGUAGES, names

# what the rows of a table stand for is not somebody's entry: what was told is never changed, and no program changes it
MAPPED = [mapper.class_ for mapper in Base.registry.mappers if mapper.class_ is not JournalLine]
TABLES = sorted(MAPPED, key=lambda table: table.__tablename__)


@pytest.fixture(scope="module")
def brought_up(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An old workshop whose tables are those of today."""
    file = tmp_path_factory.mktemp("old") / "w.db"
    shutil.copy(DATA / "workshops" / "revision_0008.db", file)
    database = Database(file)
    with database.plain() as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    database.close()
    return file


@pytest.fixture
def db(tmp_path: Path, brought_up: Path) -> Iterator[Database]:
    shutil.copy(brought_up, tmp_path / "w.db")
    made = Database(tmp_path / "w.db")
    yield made
    made.close()


def value(column: Column[Any], which: int) -> object:
    kinds: dict[type, object] = {
        Boolean: bool(which), Integer: which + 41, Float: which + 0.5, LargeBinary: bytes([which]),
    }  # fmt: skip
    return next((v for kind, v in kinds.items() if isinstance(column.type, kind)), f"text {which}")


def journal_of_change(db: Database, table: type[Base], column: Column[Any]) -> list[JournalLine]:
    """The lines that a change of one column of a row writes, worked out without touching the file."""
    row = table()
    for one in table.__table__.columns:
        set_committed_value(row, one.key, value(one, 0))
    make_transient_to_detached(row)
    with Session(db.engine, autoflush=False) as session:
        session.info.update(by="Ida", now_s=NOW)
        because(session, "typing slip")
        keep_journal(session)
        session.add(row)
        setattr(row, column.key, value(column, 1))
        session.dispatch.before_flush(session, None, None)
        lines = [one for one in session.new if isinstance(one, JournalLine)]
        session.expunge_all()
    return lines


@pytest.mark.parametrize("table", TABLES, ids=lambda table: table.__tablename__)
def test_every_column_of_every_table_is_journaled(db: Database, table: type[Base]) -> None:
    name = table.__tablename__
    aside = KEPT_BY_ZYMON.get(name, frozenset())
    assert aside <= {column.key for column in table.__table__.columns}, "a column that is not there is set aside"
    silent = []
    for column in table.__table__.columns:
        if column.primary_key:
            continue
        lines = journal_of_change(db, table, column)
        told = [one for one in lines if one.what == name and column.key in one.after and column.key in one.before]
        if bool(told) == (column.key in aside):
            silent.append(column.key)
        for one in told:
            assert (one.by, one.at_s) == ("Ida", NOW)
            assert one.reason
    assert silent == []


def test_nobody_changes_and_nothing_is_deleted_past_the_journal(db: Database) -> None:
    with pytest.raises(SilentChangeError, match="never deleted"), db.writing("Ida", NOW) as session:
        session.delete(session.get(Weighing, 1))
    for bulk in (update(Weighing).values(gross_g=1), delete(Weighing)):
        with pytest.raises(SilentChangeError, match="one by one"), db.writing("Ida", NOW) as session:
            session.execute(bulk)
    with Session(db.engine) as session:
        keep_journal(session)
        session.get(Weighing, 1).gross_g += 1
        with pytest.raises(SilentChangeError, match="by nobody"):
            session.flush()
    with db.reading() as session:
        assert session.get(Weighing, 1) is not None


def test_a_line_is_written_with_the_change_and_never_changed(db: Database, tmp_path: Path) -> None:
    with db.writing("Ida", NOW) as session:
        because(session, "typing slip")
        was = session.get(Weighing, 1).gross_g
        session.get(Weighing, 1).gross_g = was + 1
    with contextlib.suppress(KeyError), db.writing("Ida", NOW) as session:
        session.get(Weighing, 1).gross_g = 5
        session.flush()
        raise KeyError  # what is not stored is not told either
    with db.reading() as session:
        (line,) = session.scalars(select(JournalLine)).all()
        assert (line.what, line.row, line.by, line.reason) == ("weighing", "1", "Ida", "typing slip")
        assert (line.before, line.after) == (f'{{"gross_g":{was}}}', f'{{"gross_g":{was + 1}}}')
        assert line.piece_id == 1
        assert line.batch_id is not None
    db.close()
    file = sqlite3.connect(tmp_path / "w.db")
    for statement in ("UPDATE journal_line SET by = 'Bo'", "DELETE FROM journal_line"):
        with pytest.raises((sqlite3.IntegrityError, IntegrityError)):
            file.execute(statement)
    file.close()


SOURCES = Path(journal.__file__).parents[1]


def assigned(file: Path) -> Iterator[str]:
    """The names of all attributes that a file sets."""
    for node in ast.walk(ast.parse(file.read_text())):
        for target in node.targets if isinstance(node, ast.Assign) else ():
            for one in target.elts if isinstance(target, ast.Tuple) else (target,):
                if isinstance(one, ast.Attribute):
                    yield one.attr


@pytest.mark.parametrize("language", LANGUAGES)
def test_every_column_that_the_program_changes_has_a_name_in_the_journal(language: Any) -> None:
    kept_by_zymon = frozenset().union(*KEPT_BY_ZYMON.values())
    columns = {column.name for table in Base.metadata.tables.values() for column in table.columns} - kept_by_zymon
    changed = {
        name for folder in ("work", "store") for file in (SOURCES / folder).rglob("*.py") for name in assigned(file)
    }
    assert len(columns & changed) > 30
    assert columns & changed <= names(language)["field"].keys()
