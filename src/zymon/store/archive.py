"""The tables of a workshop out into open files and in again: none of it lost, nothing secret let out."""

import csv
import hashlib
import io
import secrets
from collections.abc import Iterator, Sequence
from datetime import UTC, datetime
from itertools import islice
from typing import Any
from zipfile import BadZipFile, ZipFile

import orjson
from pydantic import BaseModel, ValidationError
from sqlalchemy import Connection, MetaData, Table, select

from zymon.core.errors import ZymonError

from .copies import editions
from .dictionary import archived_columns, archived_tables, type_of
from .hang_models import Photo

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


def write_tables(connection: Connection, to: ZipFile) -> dict[str, TableTold]:
    """Write every table; gives what the manifest says of them."""
    told = {}
    for table in archived_tables():
        columns = archived_columns(table)
        kinds = {column.name: type_of(column) for column in columns}
        query = select(*columns).order_by(*table.primary_key.columns)
        if "file" in kinds.values():  # pictures are written by themselves; here stands where
            query = query.with_only_columns(*(c if kinds[c.name] != "file" else table.c.id for c in columns))
        fingerprint, rows = hashlib.sha256(), 0
        with to.open(file_of(table.name), "w", force_zip64=True) as out:
            answer = iter(connection.execution_options(yield_per=A_PART).execute(query))
            head = list(kinds) if table.name == AS_CSV else None
            while (part := list(islice(answer, A_PART))) or head:
                shown = [[_shown(kind, value) for kind, value in zip(kinds.values(), row, strict=True)] for row in part]
                data = _csv(shown, head) if table.name == AS_CSV else _lines(list(kinds), shown)
                head = None
                fingerprint.update(data)
                out.write(data)
                rows += len(part)
        told[table.name] = TableTold(rows=rows, sha256=fingerprint.hexdigest(), columns=dict(kinds))
    return told


def _shown(kind: str, value: Any) -> Any:
    if value is None:
        return None
    if kind == "moment":
        return datetime.fromtimestamp(value, UTC).isoformat().replace("+00:00", "Z")
    return photo_file(value) if kind == "file" else value


def _lines(names: list[str], rows: Sequence[Sequence[Any]]) -> bytes:
    return b"".join(orjson.dumps(dict(zip(names, row, strict=True))) + b"\n" for row in rows)


def _csv(rows: Sequence[Sequence[Any]], head: Sequence[str] | None) -> bytes:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    if head is not None:
        writer.writerow(head)
    writer.writerows(["" if value is None else value for value in row] for row in rows)
    return out.getvalue().encode()


def write_photos(connection: Connection, to: ZipFile) -> int:
    """Write the pictures, one at a time; how many there are."""
    numbers = connection.execute(select(Photo.id).order_by(Photo.id)).scalars().all()
    for number in numbers:
        to.writestr(photo_file(number), connection.execute(select(Photo.jpeg).where(Photo.id == number)).scalar_one())
    return len(numbers)


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


def check_tables(archive: ZipFile, told: Manifest) -> None:
    """Look through an archive before anything of it is brought in. Raises ArchiveError for what is not as it says."""
    if any(info.file_size > PACKED_BY_AT_MOST * max(info.compress_size, 1000) for info in archive.infolist()):
        raise ArchiveError("refused.archive_too_packed")
    try:
        for name, table in told.tables.items():
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
    if pictures != told.photos:
        raise ArchiveError("refused.archive_altered", file="photos")


def read_tables(connection: Connection, archive: ZipFile, told: Manifest) -> None:
    """Put the rows of an archive into empty tables of its edition. Raises ArchiveError."""
    known = MetaData()
    known.reflect(connection)
    connection.exec_driver_sql("PRAGMA defer_foreign_keys = ON")  # rows that point to later ones of their own table
    for name, table in told.tables.items():
        into = known.tables.get(name)
        if into is None or not set(table.columns) <= set(into.columns.keys()):
            raise ArchiveError("refused.archive_altered", file=file_of(name))
        rows = _rows(archive, name, table)
        while part := list(islice(rows, A_PART)):
            connection.execute(into.insert(), [_filled(into, row) for row in part])
    if connection.exec_driver_sql("PRAGMA foreign_key_check").fetchone() is not None:
        raise ArchiveError("refused.archive_damaged")


def _rows(archive: ZipFile, name: str, told: TableTold) -> Iterator[dict[str, Any]]:
    try:
        with archive.open(file_of(name)) as file:
            lines: Iterator[dict[str, Any]]
            if name == AS_CSV:
                lines = csv.DictReader(io.TextIOWrapper(file, "utf-8", newline=""))
            else:
                lines = (orjson.loads(line) for line in file)
            for row in lines:
                yield {column: _read(kind, row[column], archive) for column, kind in told.columns.items()}
    except (KeyError, ValueError, TypeError, AttributeError, BadZipFile) as error:
        raise ArchiveError("refused.archive_altered", file=file_of(name)) from error


def _read(kind: str, value: Any, archive: ZipFile) -> Any:
    if value is None or (value == "" and kind != "text"):  # in a table of figures what is empty was null
        return None
    if kind == "moment":
        return int(datetime.fromisoformat(value).timestamp())
    if kind == "file":
        return archive.read(value)
    return {"whole": int, "decimal": float}.get(kind, lambda same: same)(value)


def _filled(into: Table, row: dict[str, Any]) -> dict[str, Any]:
    """A row with a token nobody has where it needs one: devices are given new ones."""
    if "token_sha256" in into.columns:
        row["token_sha256"] = secrets.token_hex(32)
    return row
