"""A file as rows of cells with the numbers of their lines: text in whatever encoding, or a sheet of a workbook."""

import csv
import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from python_calamine import CalamineError, CalamineWorkbook

from .faults import MeasurementFileError
from .heads import column_of

DELIMITERS = ",;\t|"
HEAD_WITHIN = 60  # lines before the head that loggers put there: serial number, interval, name of the site
_BINARY = (b"PK\x03\x04", b"\xd0\xcf\x11\xe0")  # how workbooks begin: zipped ones and those of old


@dataclass(frozen=True)
class Table:
    """A file as rows of cells. `body` may be long: a line's number and its cells, empty lines left out."""

    head: list[str]
    head_line: int
    body: list[tuple[int, list[str]]]
    encoding: str  # empty of a workbook
    delimiter: str
    sheets: tuple[str, ...] = ()
    sheet: str = ""


def read_table(data: bytes, sheet: str | None = None) -> Table:
    """The rows of a file. Parameters: data; sheet of a workbook, the first one when None.

    Raises MeasurementFileError for what is no table.
    """
    if data.startswith(_BINARY):
        return _workbook(data, sheet)
    text, encoding = decoded(data)
    if not text.strip():
        raise MeasurementFileError("file.empty")
    said = ""
    if text[:4].lower() == "sep=" and len(text) > 4:
        said = text[4]
        # the line is kept as an empty one, so that lines are counted as an editor counts them
        text = text[5:]
    first = text[:60_000].splitlines()[:HEAD_WITHIN]
    delimiter, at = max(
        ((d, _head_at(_split(first, d))) for d in ([said] if said in DELIMITERS and said else DELIMITERS)),
        key=lambda way: (way[1][1], way[1][2]),
    )
    if at[1] == 0:  # said before millions of lines are taken apart for nothing
        raise unknown_columns(at[0] + 1, _split(first, delimiter)[at[0]])
    lines = text.splitlines() if '"' not in text else None
    try:
        if lines is None:
            reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
            rows = [(reader.line_num, row) for row in reader]
        else:
            rows = [(i, line.split(delimiter)) for i, line in enumerate(lines, 1)]
    except csv.Error as error:
        raise MeasurementFileError("file.no_table") from error
    return _table(rows, at[0], encoding, delimiter)


def unknown_columns(line: int, head: Sequence[str]) -> MeasurementFileError:
    """What is said of a file whose columns hold nothing that can be brought in. Parameters: line of the head; head."""
    read = ", ".join(name.strip()[:20] for name in head[:6])
    return MeasurementFileError("file.unknown_columns", line=line, read=read[:100])


def _split(lines: list[str], delimiter: str) -> list[list[str]]:
    try:
        return list(csv.reader(lines, delimiter=delimiter))
    except csv.Error:
        return [line.split(delimiter) for line in lines]


def _head_at(rows: list[list[str]]) -> tuple[int, int, int]:
    """The likeliest head among first rows: its index, how many of its columns are known, how many it has."""
    best = (0, 0, 0)
    for i, row in enumerate(rows):
        named = [cell for cell in row if cell.strip()]
        known = sum(column_of(cell) is not None for cell in named)
        if (known, min(len(named), 2)) > best[1:]:  # a first line of one long title is no head
            best = (i, known, min(len(named), 2))
    index, known, _ = best
    return index, known, len(rows[index]) if rows else 0


def _table(
    rows: list[tuple[int, list[str]]],
    head_index: int,
    encoding: str,
    delimiter: str,
    sheets: tuple[str, ...] = (),
    sheet: str = "",
) -> Table:
    head_line, head = rows[head_index]
    body = [(line, row) for line, row in rows[head_index + 1 :] if any(row) and any(cell.strip() for cell in row)]
    return Table([cell.strip() for cell in head], head_line, body, encoding, delimiter, sheets, sheet)


def decoded(data: bytes) -> tuple[str, str]:
    """The text of a file and the encoding it was read in. Raises MeasurementFileError for what is no text."""
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        try:
            return data.decode("utf-16"), "UTF-16"
        except UnicodeDecodeError as error:
            raise MeasurementFileError("file.no_text") from error
    if b"\x00" in data[:65536]:
        raise MeasurementFileError("file.no_text")
    for encoding, name in (("utf-8-sig", "UTF-8"), ("cp1252", "CP1252")):
        try:
            return data.decode(encoding), name
        except UnicodeDecodeError:
            continue
    return data.decode("latin-1"), "Latin-1"


def _workbook(data: bytes, wanted: str | None) -> Table:
    try:
        book = CalamineWorkbook.from_filelike(io.BytesIO(data))
        sheets = tuple(book.sheet_names)
        if not sheets:
            raise MeasurementFileError("file.empty")
        if wanted is not None and wanted not in sheets:
            raise MeasurementFileError("file.no_sheet", sheet=wanted[:60])
        name = wanted or sheets[0]
        cells = book.get_sheet_by_name(name).to_python(skip_empty_area=False)
    except (CalamineError, OSError, ValueError, KeyError) as error:
        if isinstance(error, MeasurementFileError):
            raise
        raise MeasurementFileError("file.no_workbook") from error
    rows = [(i, [_shown(cell) for cell in row]) for i, row in enumerate(cells, 1)]
    if not any(any(row) for _, row in rows):
        raise MeasurementFileError("file.empty_sheet", sheet=name)
    return _table(rows, _head_at([row for _, row in rows[:HEAD_WITHIN]])[0], "", "", sheets, name)


def _shown(cell: object) -> str:
    """A cell of a workbook as text: numbers with a point for decimals, times as ISO 8601."""
    if isinstance(cell, datetime):
        return cell.isoformat(" ", "seconds")
    if isinstance(cell, date | time):
        return cell.isoformat()
    if isinstance(cell, timedelta):
        return str(cell)
    if isinstance(cell, bool) or not isinstance(cell, float):
        return str(cell)
    return repr(int(cell)) if cell.is_integer() and abs(cell) < 1e15 else repr(cell)
