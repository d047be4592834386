"""What a printed record holds."""

from dataclasses import dataclass
from datetime import datetime

from .drawing import TimeLine


@dataclass(frozen=True)
class Table:
    """A part of the record: its title, the heads and widths [mm] of its columns, its rows, a note under it."""

    title: str
    heads: tuple[str, ...]
    widths: tuple[float, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str = ""


@dataclass(frozen=True)
class Record:
    """Everything that is printed, in order; `printed` in the workshop's own time."""

    workshop: str
    title: str
    lines: tuple[str, ...]
    printed: datetime
    time_line: TimeLine | None
    tables: tuple[Table, ...]
    caution: str
