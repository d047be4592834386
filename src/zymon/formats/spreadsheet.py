"""The workshop as a spreadsheet: pieces, weights, pH, climate and stock, a sheet each, and what the columns mean."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, tzinfo
from pathlib import Path

Cell = str | float | int | datetime | None
MOST_ROWS = 1_048_576 - 1  # of a sheet, without its head: a limit of the format
WIDTH = 16


@dataclass(frozen=True)
class Column:
    """A column: its name, its unit, what it means."""

    name: str
    unit: str
    meaning: str


@dataclass(frozen=True)
class Sheet:
    """A sheet: its name, its columns, its rows as they come."""

    name: str
    columns: tuple[Column, ...]
    rows: Iterable[tuple[Cell, ...]]


PIECES = (
    Column("batch", "", "code of the batch"),
    Column("product", "", "what it is"),
    Column("tag", "", "tag of the piece"),
    Column("kind", "", "family of goods"),
    Column("state", "", "what it is now"),
    Column("hung_at", "", "when it was hung"),
    Column("off_at", "", "when it came off its hook; empty while it hangs"),
    Column("start_g", "g", "gross weight when hung; empty where nobody weighed it"),
    Column("tare_g", "g", "net, string, casing"),
    Column("target_percent", "%", "loss that it is dried to"),
    Column("last_g", "g", "gross weight at the last weighing"),
    Column("loss_percent", "%", "net loss at the last weighing"),
)
WEIGHTS = (
    Column("tag", "", "tag of the piece"),
    Column("at", "", "when it was weighed"),
    Column("gross_g", "g", "on the scale"),
    Column("loss_percent", "%", "net loss; empty where nobody weighed it when hung"),
    Column("by", "", "who weighed"),
    Column("struck", "", "why it was struck through; empty where it counts"),
)
PH = (
    Column("batch", "", "code of the batch"),
    Column("at", "", "when it was read"),
    Column("ph", "", "reading"),
    Column("by", "", "who read it"),
    Column("struck", "", "why it was struck through; empty where it counts"),
)
CLIMATE = (
    Column("place", "", "name of the place"),
    Column("hour", "", "its beginning"),
    Column("temperature_c", "°C", "mean of the hour"),
    Column("rh_percent", "%", "mean relative humidity of the hour"),
)
STOCK = (
    Column("tag", "", "tag of the piece"),
    Column("packed_at", "", "when it was packed"),
    Column("number", "", "packs"),
    Column("net_g", "g", "net weight of one"),
    Column("form", "", "whole, piece, sliced"),
    Column("wrap", "", "what it is in"),
    Column("keep_at", "", "fridge, freezer, cellar"),
    Column("left", "", "packs that are left"),
    Column("best_before", "", "by the maker's own period; empty where none was given"),
)


def write_spreadsheet(file: Path, sheets: Iterable[Sheet], zone: tzinfo) -> None:
    """Write sheets a row at a time: the file is never whole in memory. Parameters: file; sheets; zone, of its times."""
    import xlsxwriter  # not at the start of Zymon: few ask for a spreadsheet

    book = xlsxwriter.Workbook(str(file), {"constant_memory": True})
    head, day = book.add_format({"bold": True}), book.add_format({"num_format": "yyyy-mm-dd hh:mm"})
    meanings: list[tuple[str, str, str, str]] = []
    for sheet in sheets:
        page = book.add_worksheet(sheet.name)
        page.freeze_panes(1, 0)
        page.set_column(0, len(sheet.columns) - 1, WIDTH)
        for i, column in enumerate(sheet.columns):
            page.write_string(0, i, column.name, head)
            meanings.append((sheet.name, column.name, column.unit, column.meaning))
        for at, row in enumerate(sheet.rows, 1):
            if at > MOST_ROWS:
                break
            for i, value in enumerate(row):
                if isinstance(value, str):
                    page.write_string(at, i, value)  # never a formula, whatever it begins with
                elif isinstance(value, datetime):
                    page.write_datetime(at, i, value.astimezone(zone).replace(tzinfo=None), day)
                elif value is not None:
                    page.write_number(at, i, value)
    page = book.add_worksheet("columns")
    page.set_column(0, 3, 2 * WIDTH)
    for i, row in enumerate([("sheet", "column", "unit", "meaning"), *meanings]):
        for k, text in enumerate(row):
            page.write_string(i, k, text, head if i == 0 else None)
    book.close()
