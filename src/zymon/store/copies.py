"""Copies of a workshop's file: taken while it is in use, looked through before they count, put back."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import UTC, datetime
from functools import cache
from pathlib import Path

from alembic.script import ScriptDirectory
from filelock import FileLock, Timeout

from zymon.core.errors import ZymonError

MIGRATIONS = Path(__file__).parent / "migrations"
STAMP = "%Y%m%dT%H%M%SZ"
PART = ".part"  # of a copy on its way; one that is not whole never has a good one's name


class CopyError(ZymonError, RuntimeError):
    """A copy could not be taken or put back; says why, and what is there instead."""


@contextmanager
def _opened(file: Path, mode: str = "ro") -> Iterator[sqlite3.Connection]:
    try:
        with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode={mode}", uri=True, timeout=30)) as connection:
            connection.isolation_level = None
            yield connection
    except sqlite3.DatabaseError as error:
        raise _why(file, error) from error


def _why(file: Path, error: Exception) -> CopyError:
    text = str(error)
    if isinstance(error, OSError):
        return CopyError("refused.copy_disk", file=str(file), why=error.strerror or text)
    if "full" in text:
        return CopyError("refused.copy_disk", file=str(file), why="the disk is full")
    if "not a database" in text or "malformed" in text:
        return CopyError("refused.not_a_workshop", file=str(file))
    return CopyError("refused.copy_disk", file=str(file), why=text)


def _counts(connection: sqlite3.Connection) -> dict[str, int]:
    names = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")
    return {
        name: connection.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0]
        for (name,) in names.fetchall()
        if not name.startswith("word_index")  # worked out from the others
    }


def look_through(file: Path) -> dict[str, int]:
    """Rows of each table of a copy that is whole. Raises CopyError for one that is not, or is no workshop's."""
    if not file.is_file():
        raise CopyError("refused.no_such_file", file=str(file))
    with _opened(file) as connection:
        found = [row[0] for row in connection.execute("PRAGMA integrity_check(1)")]
        if found != ["ok"]:
            raise CopyError("refused.copy_damaged", file=str(file))
        counts = _counts(connection)
        if connection.execute("PRAGMA foreign_key_check").fetchone() is not None:
            raise CopyError("refused.copy_damaged", file=str(file))
    if "alembic_version" not in counts or "workshop" not in counts:
        raise CopyError("refused.not_a_workshop", file=str(file))
    return counts


def revision_of(file: Path) -> str | None:
    """The edition of the tables in a file; None in a new one. Raises CopyError."""
    with _opened(file) as connection:
        known = connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'alembic_version'").fetchone()
        row = connection.execute("SELECT version_num FROM alembic_version").fetchone() if known else None
    return None if row is None else str(row[0])


@cache
def editions() -> tuple[str, ...]:
    """All editions of the tables that this program knows, the newest first."""
    return tuple(one.revision for one in ScriptDirectory(str(MIGRATIONS)).walk_revisions())


def take_copy(source: Path, target: Path) -> dict[str, int]:
    """Copy a workshop's file while it may be in use, all of it as of one moment, and look the copy through.

    Gives the rows of each table. The copy has its name only once it is good. Raises CopyError; the source is untouched.
    """
    part = target.with_name(target.name + PART)
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        part.unlink(missing_ok=True)
        with _opened(source) as original:
            original.execute("BEGIN")  # what is counted is what is copied
            counts = _counts(original)
            with closing(sqlite3.connect(part)) as copy:
                original.backup(copy)
                copy.execute("PRAGMA journal_mode = DELETE")  # one file, complete in itself
        if look_through(part) != counts:
            raise CopyError("refused.copy_damaged", file=str(target))
        with part.open("rb+") as whole:
            os.fsync(whole.fileno())
        part.replace(target)
    except (OSError, sqlite3.DatabaseError) as error:
        raise _why(target, error) from error
    finally:
        if part.parent.is_dir():
            part.unlink(missing_ok=True)
    return counts


@contextmanager
def serving(db: Path) -> Iterator[None]:
    """Hold a workshop's file as the one server that serves it. Raises CopyError when another does."""
    db.parent.mkdir(parents=True, exist_ok=True)
    lock = FileLock(db.with_name(f"{db.name}.serving"))
    try:
        lock.acquire(blocking=False)
    except Timeout:
        raise CopyError("refused.served_already", file=str(db)) from None
    except OSError as error:
        raise _why(db, error) from error
    try:
        yield
    finally:
        lock.release()


def put_back(copy: Path, db: Path, now_s: int) -> tuple[dict[str, int], Path | None]:
    """Put a copy in the place of a workshop's file, which is kept under another name.

    Gives the rows of each table, and where the file is that was there before; None where there was none.
    Raises CopyError: while a server runs on it, for a copy that is damaged or of a newer program.
    """
    if copy.resolve() == db.resolve():
        raise CopyError("refused.restore_itself", file=str(copy))
    look_through(copy)
    if revision_of(copy) not in editions():
        raise CopyError("refused.newer_workshop", file=str(copy))
    with serving(db):
        aside = None
        arriving = db.with_name(f"{db.name}.arriving")
        counts = take_copy(copy, arriving)
        if db.exists():
            aside = db.with_name(f"{db.stem}-before-{stamp(now_s)}{db.suffix}")
            _set_aside(db, aside)
        for leftover in companions(db):
            leftover.unlink(missing_ok=True)
        arriving.replace(db)
    return counts, aside


def _set_aside(db: Path, aside: Path) -> None:
    """Keep the file that was there, with what its log of writes still holds; a damaged one as it is."""
    try:
        take_copy(db, aside)
    except CopyError:
        for old, kept in zip([db, *companions(db)], [aside, *companions(aside)], strict=True):
            if old.exists():
                old.replace(kept)


def fill_from(db: Path, arrived: Path) -> None:
    """Fill a workshop's file, in use as it may be, with all that another holds. Raises CopyError."""
    with _opened(arrived) as source, _opened(db, "rw") as target:
        source.backup(target)


def companions(db: Path) -> list[Path]:
    """The files beside a workshop's file in which its latest writes may stand."""
    return [db.with_name(db.name + ending) for ending in ("-wal", "-shm")]


def stamp(at_s: int) -> str:
    """A moment as it stands in a file's name."""
    return datetime.fromtimestamp(at_s, UTC).strftime(STAMP)


def nightly_name(db: Path, at_s: int) -> str:
    """The name of a nightly copy."""
    return f"{db.stem}-{stamp(at_s)}{db.suffix}"


def nightly_copies(folder: Path, db: Path) -> dict[int, Path]:
    """The nightly copies of a workshop's file that are whole, by when they were taken [s]."""
    found = {}
    for file in folder.glob(f"{db.stem}-*{db.suffix}"):
        try:
            taken = datetime.strptime(file.stem.removeprefix(f"{db.stem}-"), STAMP)
        except ValueError:
            continue
        found[int(taken.replace(tzinfo=UTC).timestamp())] = file
    return dict(sorted(found.items()))
