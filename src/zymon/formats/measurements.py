"""Measurement files: climate and weights as loggers and spreadsheets write them.

Takes comma, semicolon or tab; decimal point or comma; UTF-8 or Latin-1; ISO 8601 or day-first times;
°C or °F; header names in five languages. Nothing is guessed in silence: what was understood is said.
"""

import csv
import io
import math
import re
import unicodedata
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime
from itertools import pairwise
from typing import Literal
from zoneinfo import ZoneInfo

import numpy as np

MeasurementKind = Literal["climate", "weights"]
TemperatureUnit = Literal["C", "F"]

MAX_ERRORS_KEPT = 50
HOPELESS_AFTER = 2000  # lines; when most of them are wrong by then, reading on helps nobody

# how a column may be called, accents and case aside: English, Italian, German, French, Spanish
_NAMES: dict[str, tuple[str, ...]] = {
    "at": (
        *("at", "time", "date", "datetime", "timestamp", "date time", "date/time", "recorded"),
        *("ora", "data", "data ora", "zeit", "datum", "zeitpunkt", "datum zeit", "uhrzeit"),
        *("heure", "date heure", "horodatage", "fecha", "hora", "fecha hora"),
    ),
    "temperature": ("temperature", "temp", "t", "temperatura", "temperatur", "temperature c", "temperature f"),
    "humidity": (
        *("humidity", "rh", "rel humidity", "relative humidity", "umidita", "umidita relativa", "ur"),
        *("feuchte", "luftfeuchte", "luftfeuchtigkeit", "relative feuchte", "rel feuchte"),
        *("humidite", "humidite relative", "hr", "humedad", "humedad relativa"),
    ),
    "tag": (
        *("tag", "piece", "piece no", "etichetta", "cartellino", "pezzo"),
        *("etikett", "anhanger", "stuck", "etiquette", "etiqueta", "pieza"),
    ),
    "weight": (
        *("weight", "gross", "gross weight", "peso", "peso lordo", "gewicht", "bruttogewicht"),
        *("poids", "poids brut", "peso bruto"),
    ),
}
_GRAMS = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237}


class MeasurementFileError(ValueError):
    """A file that cannot be read as measurements at all; the text says what to do."""


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


def _plain(text: str) -> str:
    bare = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode().lower()
    return " ".join(re.sub(r"[^a-z/ ]+", " ", bare.replace("_", " ")).split())


def _match(header: str) -> tuple[str, str] | None:
    """What a column holds and the unit its header tells, or None."""
    spaced = header.replace("_", " ")
    inside = re.search(r"[\[(]\s*([^\])]*?)\s*[\])]", spaced)
    unit = _plain(inside.group(1).replace("°", "").replace("º", "")) if inside else ""
    name = _plain(re.sub(r"[\[(].*?[\])]", " ", spaced).replace("°", " "))
    tail = re.fullmatch(r"(.+?) (c|f|g|kg|oz|lb|percent|utc|celsius|fahrenheit)", name)
    if tail and not unit:
        name, unit = tail.group(1), tail.group(2)
    for column, names in _NAMES.items():
        if name in names:
            return column, {"celsius": "c", "fahrenheit": "f"}.get(unit, unit)
    return None


def _decode(data: bytes) -> tuple[str, str]:
    if b"\x00" in data[:65536]:
        raise MeasurementFileError("this is not a text file; export the readings as CSV and bring that")
    try:
        return data.decode("utf-8-sig"), "UTF-8"
    except UnicodeDecodeError:
        return data.decode("latin-1"), "Latin-1"


def _delimiter(text: str) -> str:
    head = [line for line in text[:8192].splitlines() if line.strip()][:20]
    try:
        return csv.Sniffer().sniff("\n".join(head[:1]), delimiters=",;\t").delimiter
    except csv.Error:
        return max(",;\t", key=lambda d: head[0].count(d) if head else 0)


_DAY_FIRST = re.compile(r"(\d{1,2})[./-](\d{1,2})[./-](\d{4})(?:[ T]+(\d{1,2}):(\d{2})(?::(\d{2}))?)?$")


def _clock(zone: ZoneInfo) -> Callable[[str], float]:
    """A reader of times to seconds since 1970; local times are of `zone`, the repeated autumn hour is told by order.

    Zones change on whole hours, so an hour is worked out once and its minutes are added: a million rows take a second.
    """
    last = -math.inf
    hours: dict[str, tuple[float, bool]] = {}

    def start_of(text: str, fold: int) -> tuple[float, bool]:
        found = _DAY_FIRST.match(text)
        if found:
            d, m, y, hh, mm, ss = found.groups()
            at = datetime(int(y), int(m), int(d), int(hh or 0), int(mm or 0), int(ss or 0))
        else:
            at = datetime.fromisoformat(text)
        local = at.tzinfo is None
        return (at.replace(tzinfo=zone, fold=fold) if local else at).timestamp(), local

    def read(text: str) -> float:
        nonlocal last
        zulu = text[-1:] == "Z"
        bare = text[:-1] if zulu else text
        minute, second = bare[14:16], bare[17:]
        if bare[13:14] == ":" and minute.isdigit() and (len(bare) == 16 or (len(bare) == 19 and second.isdigit())):
            key = bare[:13] + text[-1:] if zulu else bare[:13]
            known = hours.get(key)
            if known is None:
                known = hours[key] = start_of(bare[:13] + ":00:00" + ("Z" if zulu else ""), 0)
            extra = int(minute) * 60 + int(second or 0)
            if extra >= 3600 or int(second or 0) > 59:
                raise ValueError(text)
            seconds, local = known[0] + extra, known[1]
        else:
            seconds, local = start_of(text, 0)
        if local and seconds <= last < seconds + 3600:
            later = start_of(text, 1)[0]
            if later > last:
                seconds = later
        last = seconds
        return seconds

    return read


def _number(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = float(text.replace(",", ".").replace("\u2212", "-").rstrip(" %°CFgk"))
    if not math.isfinite(value):
        raise ValueError(text)
    return value


def read_measurements(
    data: bytes, zone: ZoneInfo, now_s: int, temperature_unit: TemperatureUnit | None = None
) -> Measurements:
    """Read a climate or weights file.

    Parameters: data, the file; zone for local times; now_s [s], later rows are errors; temperature_unit where the
    header does not tell. Raises MeasurementFileError when there is no reading it at all.
    """
    text, encoding = _decode(data)
    if not text.strip():
        raise MeasurementFileError("the file is empty")
    delimiter = _delimiter(text)
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
        found = _match(name)
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
    _read_rows(out, lines, columns, reader(out, units, temperature_unit), _clock(zone), now_s)
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
        c = _number(row[columns["temperature"][0]])
        rh = _number(row[columns["humidity"][0]])
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
        tag = row[columns["tag"][0]].strip()
        gross_g = _number(row[columns["weight"][0]]) * factor
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
    clock: Callable[[str], float],
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
                at = clock(when.strip())
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


def climate_csv(rows: list[tuple[int, float, float]]) -> str:
    """Readings as CSV in the columns every reader takes: at, temperature_c, rh_percent."""
    body = "".join(f"{datetime.fromtimestamp(at, UTC):%Y-%m-%dT%H:%M:%SZ},{c:g},{rh:g}\n" for at, c, rh in rows)
    return "at,temperature_c,rh_percent\n" + body


def weights_csv(rows: list[tuple[str, int, float]]) -> str:
    """Weighings as CSV: tag, at, gross_g."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["tag", "at", "gross_g"])
    writer.writerows([tag, f"{datetime.fromtimestamp(at, UTC):%Y-%m-%dT%H:%M:%SZ}", f"{g:g}"] for tag, at, g in rows)
    return out.getvalue()
