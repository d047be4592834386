"""Engine, sessions and migrations of one workshop's SQLite file."""

import sqlite3
import threading
from collections import Counter
from collections.abc import Iterable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Any, Literal

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session

from .copies import MIGRATIONS, CopyError, editions, revision_of, take_copy
from .journal import changed_tables, keep_journal

__all__ = [
    "Database",
    "Session",
    "StoreError",
    "Trouble",
    "migrate",
    "trouble_of",
]  # the session type is the store's to hand on


StoreError = OperationalError  # what the file or its disk refuses
Trouble = Literal["disk_full", "read_only", "busy"]
_TROUBLES: tuple[tuple[str, Trouble], ...] = (
    ("disk is full", "disk_full"),
    ("readonly", "read_only"),
    ("database is locked", "busy"),
)


def trouble_of(error: OperationalError) -> Trouble | None:
    """What is wrong with the file or its disk, None where the fault is ours."""
    text = str(error.orig)
    return next((trouble for words, trouble in _TROUBLES if words in text), None)


class Database:
    """Opens the file, brings its tables up to date, and hands out sessions."""

    def __init__(self, file: Path, copies: Path | None = None, edition: str = "head") -> None:
        """Open a file.

        Parameters: copies, the folder for the copy that is taken before its tables are changed; edition, of its tables.

        Raises CopyError for a file of a newer program, for one that is no workshop's, and when no copy can be taken.
        """
        file.parent.mkdir(parents=True, exist_ok=True)
        newest = keep_before_change(file, copies or file.parent / f"{file.stem}-backups")
        self.file = file
        self.engine: Engine = create_engine(
            f"sqlite:///{file}", connect_args={"timeout": 30, "check_same_thread": False}
        )
        event.listen(self.engine, "connect", _prepare)
        event.listen(self.engine, "begin", _begin)
        self._changes: Counter[str] = Counter()
        self._counting = threading.Lock()
        self.writer = self.engine.execution_options(zymon_write=True)
        if not newest or edition != "head":
            migrate(self.engine, edition)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session that sees one consistent state and changes nothing."""
        with Session(self.engine, expire_on_commit=False) as session:
            yield session

    @contextmanager
    def writing(self, by: str | None = None, now_s: int | None = None) -> Iterator[Session]:
        """A session that commits at its end, all or nothing; holds the write lock from its start.

        Parameters: by, who writes, and now_s, when [s]; without them nothing that was entered can be changed.
        """
        with Session(self.writer, expire_on_commit=False) as session, session.begin():
            session.info.update(by=by, now_s=now_s)
            keep_journal(session)
            yield session
        self._count(changed_tables(session))

    def _count(self, tables: Iterable[str]) -> None:
        with self._counting:
            self._changes.update(tables)

    def version(self, besides: frozenset[str] = frozenset()) -> int:
        """A number that grows with whatever was entered or changed, tables `besides` left out.

        What is derived or counted by the program itself does not move it. Read it before reading what it stands for.
        """
        with self._counting:
            return sum(many for table, many in self._changes.items() if table not in besides)

    def replaced(self) -> None:
        """The record was replaced as a whole: nothing that was read of it holds."""
        self._count(["all"])

    @contextmanager
    def plain(self) -> Iterator[sqlite3.Connection]:
        """The file without mapped rows, for whole tables at once."""
        with closing(sqlite3.connect(self.file)) as connection:
            connection.isolation_level = None
            yield connection

    def close(self) -> None:
        """Give the file back."""
        self.engine.dispose()


def _prepare(connection: sqlite3.Connection, _record: Any) -> None:
    connection.isolation_level = None  # we begin transactions ourselves, see _begin
    run = connection.execute
    run("PRAGMA foreign_keys = ON")  # SQLite forgets it with each connection
    run("PRAGMA journal_mode = WAL")  # charts are read while weights are written
    run("PRAGMA synchronous = FULL")  # what was acknowledged survives a power cut, not only a kill
    run("PRAGMA cache_size = -65536")  # 64 MB: a year of one-minute climate fits
    run("PRAGMA temp_store = MEMORY")


def _begin(connection: Connection) -> None:
    # a writer takes the lock at once: read-then-write can then never be overtaken by another writer
    write = connection.get_execution_options().get("zymon_write", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if write else "BEGIN")


def keep_before_change(file: Path, folder: Path) -> bool:
    """Take a copy of a file whose tables are about to change; gives whether they are the newest. Raises CopyError."""
    if not file.exists() or not file.stat().st_size:
        return False
    revision, known = revision_of(file), editions()
    if revision is not None and revision not in known:
        raise CopyError("refused.newer_workshop", file=str(file))
    kept = folder / f"{file.stem}-tables-{revision}{file.suffix}"
    if revision is not None and revision != known[0] and not kept.exists():
        take_copy(file, kept)
    return revision == known[0]


def migrate(engine: Engine, edition: str = "head") -> None:
    """Bring the tables up to date, or to an older edition; data stays."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.execution_options(zymon_write=True).connect() as connection, connection.begin():
        config.attributes["connection"] = connection
        command.upgrade(config, edition)
