"""The tables of a workshop out into open files and in again: none of it lost, nothing secret let out."""

import csv
import hashlib
import io
import secrets
import sqlite3
from collections.abc import Callable, Iterator, Sequence
from datetime import datetime
from itertools import islice
from typing import Any
from zipfile import BadZipFile, ZipFile

import orjson
from pydantic import BaseModel, ValidationError

from zymon.core.errors import ZymonError

from .copies import editions
from .dictionary import SECRETS, STAYS, archived_columns, archived_tables, type_of

FORMAT = "zymon-archive/1"
AS_CSV = "reading"  # readings by the million are a table of figures
A_PART = 2000  # rows that are held at once
MANIFEST = "manifest.json"
MOST_MANIFEST = 4_000_000
PACKED_BY_AT_MOST = 400  # times: text packs by ten or twenty, a bomb by a thousand


class ArchiveError(ZymonError, ValueError):
    """An archive cannot be brought in; says why. Nothing of it was."""


class TableTold(BaseModel):
    """A table as the manifest tells it."""

    rows: int
    sha256: str
    columns: dict[str, str]


class Manifest(BaseModel):
    """What an archive says it holds; `edition`, of the tables it was written from."""

    format: str
    made: datetime
    zymon: str
    edition: str
    tables: dict[str, TableTold]
    photos: int


def file_of(table: str) -> str:
    """Where a table stands in an archive."""
    return f"tables/{table}.csv" if table == AS_CSV else f"tables/{table}.jsonl"


def photo_file(photo_id: int) -> str:
    """Where a picture stands in an archive."""
    return f"photos/{photo_id}.jpg"


def write_tables(connection: sqlite3.Connection, to: ZipFile) -> dict[str, TableTold]:
    """Write every table; gives what the manifest says of them."""
    told = {}
    for table in archived_tables():
        kinds = {column.name: type_of(column) for column in archived_columns(table)}
        keys = ", ".join(_named(column.name) for column in table.primary_key.columns)
        asked = ", ".join(_SHOWN.get(kind, "{}").format(_named(name)) for name, kind in kinds.items())
        answer = connection.execute(f"SELECT {asked} FROM {_named(table.name)} ORDER BY {keys}")
        flags = [i for i, kind in enumerate(kinds.values()) if kind == "yes or no"]
        fingerprint, rows = hashlib.sha256(), 0
        with to.open(file_of(table.name), "w", force_zip64=True) as out:
            head = list(kinds) if table.name == AS_CSV else None
            while (part := answer.fetchmany(A_PART)) or head:
                data = _csv(part, head) if table.name == AS_CSV else _lines(list(kinds), _flagged(part, flags))
                head = None
                fingerprint.update(data)
                out.write(data)
                rows += len(part)
        told[table.name] = TableTold(rows=rows, sha256=fingerprint.hexdigest(), columns=dict(kinds))
    return told


# as each kind of column is asked for: moments in words, of a picture where it stands
_SHOWN = {"moment": "strftime('%Y-%m-%dT%H:%M:%SZ', {}, 'unixepoch')", "file": "'photos/' || id || '.jpg'"}


def _named(name: str) -> str:
    return f'"{name}"'


def _flagged(rows: list[tuple[Any, ...]], flags: list[int]) -> list[tuple[Any, ...]]:
    """Rows whose flags are told as such: the file keeps them as numbers."""
    if not flags:
        return rows
    return [tuple(bool(v) if i in flags and v is not None else v for i, v in enumerate(row)) for row in rows]


def _lines(names: list[str], rows: Sequence[Sequence[Any]]) -> bytes:
    return b"".join(orjson.dumps(dict(zip(names, row, strict=True))) + b"\n" for row in rows)


def _csv(rows: Sequence[Sequence[Any]], head: Sequence[str] | None) -> bytes:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    if head is not None:
        writer.writerow(head)
    writer.writerows(rows)  # what is empty stays empty
    return out.getvalue().encode()


def write_photos(connection: sqlite3.Connection, to: ZipFile) -> int:
    """Write the pictures, one at a time; how many there are."""
    many = 0
    for number, jpeg in connection.execute("SELECT id, jpeg FROM photo ORDER BY id"):
        to.writestr(photo_file(number), jpeg)
        many += 1
    return many


def read_manifest(archive: ZipFile) -> Manifest:
    """What an archive holds. Raises ArchiveError for what is none, or is of a newer program."""
    try:
        if archive.getinfo(MANIFEST).file_size > MOST_MANIFEST:
            raise ArchiveError("refused.no_archive")
        told = Manifest.model_validate_json(archive.read(MANIFEST))
    except (KeyError, ValidationError, BadZipFile) as error:
        raise ArchiveError("refused.no_archive") from error
    if told.format != FORMAT or told.edition not in editions():
        raise ArchiveError("refused.newer_archive", zymon=told.zymon)
    return told


def check_tables(archive: ZipFile, manifest: Manifest) -> None:
    """Look through an archive before anything of it is brought in. Raises ArchiveError for what is not as it says."""
    if any(info.file_size > PACKED_BY_AT_MOST * max(info.compress_size, 1000) for info in archive.infolist()):
        raise ArchiveError("refused.archive_too_packed")
    try:
        for name, table in manifest.tables.items():
            fingerprint, rows = hashlib.sha256(), 0
            with archive.open(file_of(name)) as file:
                while data := file.read(1 << 20):
                    fingerprint.update(data)
                    rows += data.count(b"\n")
            if fingerprint.hexdigest() != table.sha256 or rows - (name == AS_CSV) != table.rows:
                raise ArchiveError("refused.archive_altered", file=file_of(name))
        pictures = sum(name.startswith("photos/") for name in archive.namelist())
    except (KeyError, BadZipFile, OSError) as error:
        raise ArchiveError("refused.archive_damaged") from error
    if pictures != manifest.photos:
        raise ArchiveError("refused.archive_altered", file="photos")


def read_tables(connection: sqlite3.Connection, archive: ZipFile, manifest: Manifest) -> None:
    """Put the rows of an archive into empty tables of its edition, all or nothing. Raises ArchiveError."""
    connection.execute("PRAGMA foreign_keys = OFF")  # rows point to later ones; they are looked through at the end
    connection.execute("BEGIN IMMEDIATE")
    try:
        known = _tables(connection)
        if set(manifest.tables) != set(known):
            raise ArchiveError("refused.archive_altered", file=MANIFEST)
        for name, table in manifest.tables.items():
            # an archive that brings secrets of its own would let in whoever made it
            if not table.columns or not set(table.columns) <= known[name] - SECRETS:
                raise ArchiveError("refused.archive_altered", file=file_of(name))
            _read_table(connection, archive, name, table, gives_token="token_sha256" in known[name])
        if connection.execute("PRAGMA foreign_key_check").fetchone() is not None:
            raise ArchiveError("refused.archive_damaged")
        connection.execute("COMMIT")
    except BaseException:
        connection.execute("ROLLBACK")
        raise


def _tables(connection: sqlite3.Connection) -> dict[str, set[str]]:
    """The tables of a file that an archive holds, each with its columns: those of its edition, whichever that is."""
    names = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")
    held = [name for (name,) in names if name not in STAYS | {"alembic_version"} and not name.startswith("word_index")]
    return {name: {row[1] for row in connection.execute(f"PRAGMA table_info({_named(name)})")} for name in held}


def _read_table(
    connection: sqlite3.Connection, archive: ZipFile, name: str, table_told: TableTold, gives_token: bool
) -> None:
    """Put the rows of a table in; a device gets a token that nobody has."""
    columns = [*table_told.columns, "token_sha256"] if gives_token else list(table_told.columns)
    into = f"INSERT INTO {_named(name)} ({', '.join(map(_named, columns))}) VALUES ({', '.join('?' * len(columns))})"
    rows = _rows(archive, name, table_told)
    if gives_token:
        rows = ([*row, secrets.token_hex(32)] for row in rows)
    try:
        while part := list(islice(rows, A_PART)):
            connection.executemany(into, part)
    except (KeyError, ValueError, TypeError, AttributeError, BadZipFile, sqlite3.Error) as error:
        raise ArchiveError("refused.archive_altered", file=file_of(name)) from error


def _rows(archive: ZipFile, name: str, table_told: TableTold) -> Iterator[list[Any]]:
    reads = [_reader(kind, archive) for kind in table_told.columns.values()]
    with archive.open(file_of(name)) as file:
        if name == AS_CSV:
            lines = csv.reader(io.TextIOWrapper(file, "utf-8", newline=""))
            if next(lines, None) != list(table_told.columns):
                raise ArchiveError("refused.archive_altered", file=file_of(name))
            for line in lines:
                yield [None if cell == "" else read(cell) for read, cell in zip(reads, line, strict=True)]
        else:
            names = list(table_told.columns)
            for row in map(orjson.loads, file):
                yield [None if row[n] is None else read(row[n]) for read, n in zip(reads, names, strict=True)]


def _reader(kind: str, archive: ZipFile) -> Callable[[Any], Any]:
    """How a cell of a kind is read."""
    readers: dict[str, Callable[[Any], Any]] = {
        "moment": lambda text: int(datetime.fromisoformat(text).timestamp()),
        "whole": int, "decimal": float, "file": archive.read, "yes or no": int, "text": str,
    }  # fmt: skip
    return readers[kind]
