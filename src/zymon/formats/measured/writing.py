"""Measurement files of our own: the columns that every reader takes."""

from collections.abc import Iterable, Iterator
from datetime import UTC, datetime

from ..bulk import in_parts
from ..tables import csv_table


def _iso(at_s: int) -> str:
    return f"{datetime.fromtimestamp(at_s, UTC):%Y-%m-%dT%H:%M:%SZ}"


def climate_csv(rows: Iterable[tuple[int, float, float | None]]) -> Iterator[str]:
    """Readings as CSV, a part at a time: at, temperature_c, rh_percent; humidity is empty where none was logged."""
    yield "at,temperature_c,rh_percent\n"
    for some in in_parts(rows):
        yield "".join(f"{_iso(at)},{c:g},{'' if rh is None else format(rh, 'g')}\n" for at, c, rh in some)


def weights_csv(rows: list[tuple[str, int, float]]) -> str:
    """Weighings as CSV: tag, at, gross_g."""
    return csv_table(("tag", "at", "gross_g"), ((tag, _iso(at), f"{g:g}") for tag, at, g in rows))
