"""Measurement files: climate and weights as loggers and spreadsheets write them.

Takes comma, semicolon or tab; decimal point or comma; UTF-8 or Latin-1; ISO 8601 or day-first times;
°C or °F; header names in five languages. Nothing is guessed in silence: what was understood is said.
"""

import csv
import io
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime
from itertools import pairwise
from typing import Literal
from zoneinfo import ZoneInfo

import numpy as np

from .bulk import in_parts
from .cells import MeasurementFileError, clock, column_of, decoded, delimiter_of, number
from .tables import csv_table
from .texts import read_inert

MeasurementKind = Literal["climate", "weights"]
TemperatureUnit = Literal["C", "F"]

MAX_ERRORS_KEPT = 50
HOPELESS_AFTER = 2000  # lines; when most of them are wrong by then, reading on helps nobody

_GRAMS = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237}


@dataclass(frozen=True)
class RowError:
    """What is wrong with one line of a file."""

    line: int
    text: str


@dataclass
class Measurements:
    """What was understood of a file. Climate rows: (at [s], °C, %); weight rows: (line, tag, at [s], gross [g])."""

    kind: MeasurementKind
    understood: dict[str, str]
    climate: list[tuple[int, float, float]] = field(default_factory=list)
    weights: list[tuple[int, str, int, float]] = field(default_factory=list)
    rows: int = 0
    repeated: int = 0
    errors: list[RowError] = field(default_factory=list)
    error_count: int = 0
    asks: list[str] = field(default_factory=list)

    def fault(self, line: int, text: str) -> None:
        """Note a faulty line; the first ones are kept in words."""
        self.error_count += 1
        if len(self.errors) < MAX_ERRORS_KEPT:
            self.errors.append(RowError(line, text))


def read_measurements(
    data: bytes, zone: ZoneInfo, now_s: int, temperature_unit: TemperatureUnit | None = None
) -> Measurements:
    """Read a climate or weights file.

    Parameters: data, the file; zone for local times; now_s [s], later rows are errors; temperature_unit where the
    header does not tell. Raises MeasurementFileError when there is no reading it at all.
    """
    text, encoding = decoded(data)
    if not text.strip():
        raise MeasurementFileError("the file is empty")
    delimiter = delimiter_of(text)
    lines: Iterator[list[str]] = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    try:
        header = next(row for row in lines if any(cell.strip() for cell in row))
    except (csv.Error, StopIteration) as error:
        raise MeasurementFileError(
            "the first line cannot be read; a file starts with the names of its columns"
        ) from error
    columns: dict[str, list[int]] = {}
    units: dict[str, str] = {}
    for i, name in enumerate(header):
        found = column_of(name)
        if found:
            columns.setdefault(found[0], []).append(i)
            units.setdefault(found[0], found[1])
    kind = _kind(columns, header)
    out = Measurements(
        kind, {"encoding": encoding, "separator": {",": "comma", ";": "semicolon", "\t": "tab"}[delimiter]}
    )
    for column, places in columns.items():
        out.understood[column] = " + ".join(header[i].strip() for i in places)
    _units(out, units, temperature_unit)
    if kind == "climate":
        rows = _all_rows(lines)
        if _read_at_once(out, rows, columns, units, now_s):
            return out
        lines = iter(rows)
    reader = _climate_row if kind == "climate" else _weight_row
    _read_rows(out, lines, columns, reader(out, units, temperature_unit), clock(zone), now_s)
    if kind == "climate":
        _settle_climate(out)
    return out


def _kind(columns: dict[str, list[int]], header: list[str]) -> MeasurementKind:
    if {"at", "temperature", "humidity"} <= columns.keys():
        return "climate"
    if {"at", "tag", "weight"} <= columns.keys():
        return "weights"
    read = ", ".join(h.strip()[:20] for h in header[:6])
    raise MeasurementFileError(
        "line 1: a climate file has columns for time, temperature and humidity, a weights file for tag, time and "
        f"weight; this one reads: {read[:100]}"
    )


def _units(out: Measurements, units: dict[str, str], asked: TemperatureUnit | None) -> None:
    if out.kind == "climate":
        told = units.get("temperature", "")
        if told not in ("c", "f"):
            out.understood["temperature unit"] = f"°{asked}, as you said" if asked else "°C, not told by the header"
            if asked is None:
                out.asks.append("temperature_unit")
        else:
            out.understood["temperature unit"] = f"°{told.upper()}"
    else:
        told = units.get("weight", "")
        out.understood["weight unit"] = told if told in _GRAMS else "g"


RowReader = Callable[[list[str], dict[str, list[int]], int, int], None]


def _climate_row(out: Measurements, units: dict[str, str], asked: TemperatureUnit | None) -> RowReader:
    told = units.get("temperature", "")
    fahrenheit = told == "f" or (told != "c" and asked == "F")
    rows = out.climate

    def read(row: list[str], columns: dict[str, list[int]], line: int, at: int) -> None:
        c = number(row[columns["temperature"][0]])
        rh = number(row[columns["humidity"][0]])
        if fahrenheit:
            c = (c - 32) / 1.8
        if not -40 <= c <= 60:
            out.fault(line, f"temperature {c:.1f} °C lies outside −40 to 60 °C: wrong unit or a broken sensor?")
        elif not 0 <= rh <= 100:
            out.fault(line, f"humidity {rh:g} lies outside 0 to 100 %")
        else:
            rows.append((at, c, rh))

    return read


def _weight_row(out: Measurements, units: dict[str, str], _asked: TemperatureUnit | None) -> RowReader:
    factor = _GRAMS.get(units.get("weight", ""), 1.0)

    def read(row: list[str], columns: dict[str, list[int]], line: int, at: int) -> None:
        tag = read_inert(row[columns["tag"][0]].strip())
        gross_g = number(row[columns["weight"][0]]) * factor
        if not tag:
            out.fault(line, "no tag")
        elif not 0 < gross_g <= 200_000:
            out.fault(line, f"weight must be above 0 g and below 200 kg, got {gross_g:g} g")
        else:
            out.weights.append((line, tag, at, round(gross_g, 3)))

    return read


def _all_rows(lines: Iterator[list[str]]) -> list[list[str]]:
    try:
        return list(lines)
    except csv.Error as error:
        raise MeasurementFileError(f"the file cannot be read as a table ({error})") from error


def _read_at_once(
    out: Measurements, rows: list[list[str]], columns: dict[str, list[int]], units: dict[str, str], now_s: int
) -> bool:
    """Read a faultless climate log in one go; False, and nothing read, where anything asks for a closer look.

    Loggers write a million rows in UTC with points for decimals: numpy reads these several times faster than a loop.
    """
    if units.get("temperature") != "c" or len(columns["at"]) != 1 or not rows:
        return False
    at_column, c_column, rh_column = columns["at"][0], columns["temperature"][0], columns["humidity"][0]
    try:
        stamps = [row[at_column] for row in rows]
        if not all(stamp[-1:] == "Z" and stamp[4:5] == "-" for stamp in stamps):
            return False
        at = np.array([stamp[:-1] for stamp in stamps], dtype="datetime64[s]").astype(np.int64)
        c = np.array([row[c_column] for row in rows], dtype=np.float64)
        rh = np.array([row[rh_column] for row in rows], dtype=np.float64)
    except (ValueError, IndexError):
        return False
    oldest = datetime(2000, 1, 1, tzinfo=UTC).timestamp()
    good = (at <= now_s + 60) & (at >= oldest) & (c >= -40) & (c <= 60) & (rh >= 0) & (rh <= 100)
    if not good.all() or (np.diff(at) <= 0).any():
        return False
    out.rows = len(rows)
    out.climate = list(zip(at.tolist(), c.tolist(), rh.tolist(), strict=True))
    return True


def _read_rows(
    out: Measurements,
    lines: Iterator[list[str]],
    columns: dict[str, list[int]],
    reader: RowReader,
    read_time: Callable[[str], float],
    now_s: int,
) -> None:
    at_columns = columns["at"]
    widest = max(i for places in columns.values() for i in places)
    line = 1
    latest = now_s + 60
    oldest = datetime(2000, 1, 1, tzinfo=UTC).timestamp()
    try:
        for line, row in enumerate(lines, start=2):
            if len(row) <= widest:
                if any(cell.strip() for cell in row):
                    out.rows += 1
                    out.fault(line, f"{len(row)} columns where {widest + 1} are needed")
                continue
            if out.error_count > HOPELESS_AFTER and out.error_count * 2 > out.rows:
                raise MeasurementFileError(
                    f"more than half of the first {out.rows} lines cannot be read; the first fault: "
                    f"line {out.errors[0].line}: {out.errors[0].text}"
                )
            out.rows += 1
            when = row[at_columns[0]] if len(at_columns) == 1 else " ".join(row[i] for i in at_columns)
            try:
                at = read_time(when.strip())
            except ValueError:
                out.fault(line, f"time '{when[:40]}' is neither ISO 8601 nor day-first")
                continue
            if at > latest:
                out.fault(line, f"time {when[:40]} lies in the future")
            elif at < oldest:
                out.fault(line, f"time {when[:40]} lies before the year 2000")
            else:
                try:
                    reader(row, columns, line, round(at))
                except ValueError:
                    out.fault(line, "not a number: " + " / ".join(cell.strip()[:20] for cell in row)[:80])
    except csv.Error as error:
        raise MeasurementFileError(f"line {line + 1}: cannot be read ({error})") from error


def _settle_climate(out: Measurements) -> None:
    """Bring readings into time order; equal ones are counted once, two different at one time are a fault."""
    rows = out.climate
    if any(a[0] >= b[0] for a, b in pairwise(rows)):
        kept: dict[int, tuple[int, float, float]] = {}
        for row in rows:
            before = kept.setdefault(row[0], row)
            if before is row:
                continue
            if before == row:
                out.repeated += 1
            else:
                at = datetime.fromtimestamp(row[0], UTC).strftime("%Y-%m-%d %H:%M UTC")
                out.fault(
                    0,
                    f"two different readings at {at}: {before[1]:g} °C {before[2]:g} % and {row[1]:g} °C {row[2]:g} %",
                )
        out.climate = sorted(kept.values())


def climate_csv(rows: Iterable[tuple[int, float, float]]) -> Iterator[str]:
    """Readings as CSV in the columns every reader takes, a part at a time: at, temperature_c, rh_percent."""
    yield "at,temperature_c,rh_percent\n"
    for some in in_parts(rows):
        yield "".join(f"{datetime.fromtimestamp(at, UTC):%Y-%m-%dT%H:%M:%SZ},{c:g},{rh:g}\n" for at, c, rh in some)


def weights_csv(rows: list[tuple[str, int, float]]) -> str:
    """Weighings as CSV: tag, at, gross_g."""
    shown = ((tag, f"{datetime.fromtimestamp(at, UTC):%Y-%m-%dT%H:%M:%SZ}", f"{g:g}") for tag, at, g in rows)
    return csv_table(("tag", "at", "gross_g"), shown)
