"""A table as CSV that any program reads, and that no spreadsheet runs."""

import csv
import io
from collections.abc import Iterable, Sequence

from .texts import inert


def csv_table(head: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """Parameters: head, the names of the columns; rows, None for an empty cell.

    >>> csv_table(("tag", "note"), [("J-14-03", None), ("=1", 2.5)])
    "tag,note\\nJ-14-03,\\n'=1,2.5\\n"
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(head)
    writer.writerows([_cell(value) for value in row] for row in rows)
    return out.getvalue()


def _cell(value: object) -> object:
    return "" if value is None else inert(value) if isinstance(value, str) else value
