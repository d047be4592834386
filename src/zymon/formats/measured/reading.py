"""The rows of a measurement file, read as it was understood; what is faulty is named by its line."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime
from itertools import pairwise

import numpy as np

from zymon.core.devices import REGISTRY
from zymon.core.say import Said, said

from ..texts import read_inert
from .faults import CellError, MeasurementFileError, RowError
from .numbers import GRAMS, number
from .table import Table, read_table
from .times import OLDEST, clock
from .understanding import HEAVIEST_G, SHARE, Known, MeasurementKind, Understanding, head_key, understand, when_of

MAX_ERRORS_KEPT = 50
HOPELESS_AFTER = 2000  # lines; when most of them are wrong by then, reading on helps nobody
SHOWN_ROWS = 6
AHEAD_S = 60

ClimateRow = tuple[int, float, float | None]  # at [s], temperature [°C], humidity [%] where it was logged


@dataclass(frozen=True)
class WeightRow:
    """A weighing of a file."""

    line: int
    tag: str
    at_s: int
    gross_g: float


@dataclass(frozen=True)
class PhRow:
    """A pH reading of a file; the temperature of its sample and its meter where they are told."""

    line: int
    batch: str
    at_s: int
    ph: float
    sample_temperature_c: float | None
    meter: str


@dataclass
class Measurements:
    """What was understood of a file and read from it, in the order of its kind."""

    kind: MeasurementKind
    understood: Understanding
    sample: list[tuple[int, list[str]]]
    climate: list[ClimateRow] = field(default_factory=list)
    weights: list[WeightRow] = field(default_factory=list)
    ph: list[PhRow] = field(default_factory=list)
    rows: int = 0
    repeated: int = 0
    errors: list[RowError] = field(default_factory=list)
    error_count: int = 0

    def fault(self, line: int, text: Said) -> None:
        """Note a faulty line; the first ones are kept in words."""
        self.error_count += 1
        if len(self.errors) < MAX_ERRORS_KEPT:
            self.errors.append(RowError(line, text))


RowReader = Callable[[list[str], int, int], None]  # its cells, line and moment [s]; raises CellError


def read_measurements(
    data: bytes,
    known: Known,
    answers: Mapping[str, str] | None = None,
    remembered: Callable[[str], Mapping[str, str]] = lambda _head: {},
) -> Measurements:
    """Read a climate, weights or pH file.

    Parameters: data, the file; known, what the workshop knows; answers to what was asked of this file, by what was
    asked; remembered, what was answered of files with a head, which counts where nothing is said of this one.
    Raises MeasurementFileError when there is no reading it at all.
    """
    answers = answers or {}
    table = read_table(data, answers.get("sheet"))
    understood = understand(table, known, {**remembered(head_key(table)), **answers})
    out = Measurements(understood.kind, understood, table.body[:SHOWN_ROWS])
    if understood.kind == "climate" and _read_at_once(out, table, known.now_s):
        return out
    reader = {"climate": _climate, "weights": _wide_weights if understood.wide else _weights, "ph": _ph}
    _read_rows(out, table, reader[understood.kind](out), known.now_s)
    if out.kind == "climate":
        _settle_climate(out)
    return out


def _number(out: Measurements, cell: str, unit: str) -> tuple[float, str]:
    """A cell's number with the unit that holds for it. Raises CellError where the cell contradicts the column."""
    value, told = number(cell, out.understood.mark)
    if told and unit and told != unit and unit != SHARE:
        raise CellError("row.other_unit", text=cell.strip()[:40], unit_read=unit)
    return value, told or unit


def _celsius(out: Measurements, cell: str, unit: str) -> float:
    value, told = _number(out, cell, unit)
    if not told:
        raise CellError("row.no_unit", text=cell.strip()[:40])
    celsius = (value - 32) / 1.8 if told == "F" else value - 273.15 if told == "K" else value
    low, high = REGISTRY["climate"].quantities[0].lowest, REGISTRY["climate"].quantities[0].highest
    if not low <= celsius <= high:
        raise CellError("row.temperature", c=round(celsius, 1), low=low, high=high)
    return celsius


def _climate(out: Measurements) -> RowReader:
    columns, units = out.understood.columns, out.understood.units
    temperature, humidity = columns["temperature"], columns.get("humidity")
    rows = out.climate

    def read(row: list[str], _line: int, at_s: int) -> None:
        c = _celsius(out, row[temperature], units["temperature"])
        rh = None
        if humidity is not None and row[humidity].strip():
            rh, told = _number(out, row[humidity], units["humidity"])
            if told == SHARE:
                rh *= 100
            if not 0 <= rh <= 100:
                raise CellError("row.humidity", rh_percent=rh)
        rows.append((at_s, c, rh))

    return read


def _grams(out: Measurements, cell: str) -> float:
    value, told = _number(out, cell, out.understood.units["weight"])
    if told not in GRAMS:
        raise CellError("row.no_unit", text=cell.strip()[:40])
    gross_g = round(value * GRAMS[told], 3)
    if not 0 < gross_g <= HEAVIEST_G:
        raise CellError("row.weight", gross_g=gross_g, most_kg=HEAVIEST_G / 1000)
    return gross_g


def _weights(out: Measurements) -> RowReader:
    tag_column, weight_column = out.understood.columns["tag"], out.understood.columns["weight"]

    def read(row: list[str], line: int, at_s: int) -> None:
        tag = read_inert(row[tag_column].strip())
        if not tag:
            raise CellError("row.no_tag")
        out.weights.append(WeightRow(line, tag, at_s, _grams(out, row[weight_column])))

    return read


def _wide_weights(out: Measurements) -> RowReader:
    def read(row: list[str], line: int, at_s: int) -> None:
        for column, tag in out.understood.wide.items():
            cell = row[column].strip() if column < len(row) else ""
            if cell:
                out.weights.append(WeightRow(line, tag, at_s, _grams(out, cell)))

    return read


def _ph(out: Measurements) -> RowReader:
    columns, units = out.understood.columns, out.understood.units
    meter, sample = columns.get("meter"), columns.get("sample_temperature")

    def read(row: list[str], line: int, at_s: int) -> None:
        batch = read_inert(row[columns["batch"]].strip())
        if not batch:
            raise CellError("row.no_batch")
        ph, _ = _number(out, row[columns["ph"]], "pH")
        if not 0 < ph <= REGISTRY["ph"].quantities[0].highest:
            raise CellError("row.ph", ph=ph)
        told = row[sample].strip() if sample is not None else ""
        sample_c = _celsius(out, told, units["sample_temperature"]) if told else None
        out.ph.append(
            PhRow(line, batch, at_s, ph, sample_c, read_inert(row[meter].strip()) if meter is not None else "")
        )

    return read


def _read_at_once(out: Measurements, table: Table, now_s: int) -> bool:
    """Read a faultless climate log in one go; False, and nothing read, where anything asks for a closer look.

    Loggers write a million rows in UTC with points for decimals: numpy reads these several times faster than a loop.
    """
    how = out.understood
    humidity = how.columns.get("humidity")
    rows = table.body
    if how.units["temperature"] != "C" or len(how.at) != 1 or how.mark == "comma" or how.units.get("humidity") == SHARE:
        return False
    try:
        stamps = [row[how.at[0]] for _, row in rows]
        if not all(stamp[-1:] == "Z" and stamp[4:5] == "-" for stamp in stamps):
            return False
        at = np.array([stamp[:-1] for stamp in stamps], dtype="datetime64[s]").astype(np.int64)
        c = np.array([row[how.columns["temperature"]] for _, row in rows], dtype=np.float64)
        rh = None if humidity is None else np.array([row[humidity] for _, row in rows], dtype=np.float64)
    except (ValueError, IndexError):
        return False
    low, high = REGISTRY["climate"].quantities[0].lowest, REGISTRY["climate"].quantities[0].highest
    good = (at <= now_s + AHEAD_S) & (at >= OLDEST.timestamp()) & (c >= low) & (c <= high)
    if rh is not None:
        good &= (rh >= 0) & (rh <= 100)
    if not rows or not good.all() or (np.diff(at) <= 0).any():
        return False
    out.rows = len(rows)
    told = [None] * len(rows) if rh is None else rh.tolist()
    out.climate = list(zip(at.tolist(), c.tolist(), told, strict=True))
    return True


def _read_rows(out: Measurements, table: Table, read: RowReader, now_s: int) -> None:
    how = out.understood
    read_time = clock(how.zone, how.order)
    # what stands in no column that must be filled may be missing at the end of a row
    widest = max(
        [*how.at, *(how.columns[h] for h in ("temperature", "tag", "weight", "batch", "ph") if h in how.columns)]
    )
    need = max([widest, *how.columns.values()]) + 1
    for line, row in table.body:
        out.rows += 1
        if out.error_count > HOPELESS_AFTER and out.error_count * 2 > out.rows:
            raise MeasurementFileError("file.mostly_faulty", rows=out.rows, line=out.errors[0].line)
        if len(row) <= widest:
            out.fault(line, said("row.short", columns=len(row), need=widest + 1))
            continue
        cells = row if len(row) >= need else row + [""] * (need - len(row))
        when = when_of(cells, how.at)
        try:
            at_s = read_time(when)
            if at_s > now_s + AHEAD_S:
                raise CellError("row.in_future", text=when[:40])
            if at_s < OLDEST.timestamp():
                raise CellError("row.too_old", text=when[:40])
            read(cells, line, round(at_s))
        except CellError as error:
            out.fault(line, error.said)


def _settle_climate(out: Measurements) -> None:
    """Bring readings into time order; equal ones are counted once, two different at one time are a fault."""
    rows = out.climate
    if any(a[0] >= b[0] for a, b in pairwise(rows)):
        kept: dict[int, ClimateRow] = {}
        for row in rows:
            before = kept.setdefault(row[0], row)
            if before is row:
                continue
            if before == row:
                out.repeated += 1
            else:
                out.fault(0, said("row.two_readings", at_s=row[0], first=_reading(before), second=_reading(row)))
        out.climate = sorted(kept.values())


def _reading(row: ClimateRow) -> str:
    return f"{row[1]:g} °C" if row[2] is None else f"{row[1]:g} °C {row[2]:g} %"


def first_rows(measurements: Measurements) -> list[tuple[int, list[str], datetime | None, tuple[str, ...]]]:
    """The first rows as understood: line, cells, moment and what was read of them; nothing of a faulty one."""
    shown: list[tuple[int, list[str], datetime | None, tuple[str, ...]]] = []
    climate = {row[0]: row for row in measurements.climate[: 4 * SHOWN_ROWS]}
    read_time = clock(measurements.understood.zone, measurements.understood.order)
    for line, cells in measurements.sample:
        try:
            at_s = round(read_time(when_of(cells, measurements.understood.at)))
        except (CellError, IndexError):
            shown.append((line, cells, None, ()))
            continue
        values: tuple[str, ...] = ()
        if measurements.kind == "climate" and at_s in climate:
            _, c, rh = climate[at_s]
            values = (f"{c:.1f} °C", "–" if rh is None else f"{rh:.0f} %")
        elif measurements.kind == "weights":
            values = tuple(f"{w.tag}: {w.gross_g:g} g" for w in measurements.weights if w.line == line)
        elif measurements.kind == "ph":
            values = tuple(f"{r.batch}: pH {r.ph:.2f}" for r in measurements.ph if r.line == line)
        shown.append((line, cells, datetime.fromtimestamp(at_s, UTC), values))
    return shown
