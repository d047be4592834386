"""How a file is to be read: what its columns hold, and a question with its choices for everything that is not plain."""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import timedelta, timezone, tzinfo
from itertools import islice
from typing import Literal
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from zymon.core.say import Said, said

from . import numbers, times
from .faults import CellError, MeasurementFileError
from .heads import Column, Holds, column_of
from .numbers import GRAMS, Mark
from .table import Table, unknown_columns

MeasurementKind = Literal["climate", "weights", "ph"]
Asked = Literal[
    "sheet", "at", "temperature", "humidity", "weight", "tag", "ph", "batch",
    "order", "zone", "mark", "unit_temperature", "unit_humidity", "unit_weight",
]  # fmt: skip

LOOKED_AT = 20_000  # lines from which is learned how numbers are written
SHOWN_CELLS = 3
HOTTEST_C, HEAVIEST_G = 60.0, 200_000.0
SHARE = "share"  # humidity as a part of one
SEPARATORS = {",": "comma", ";": "semicolon", "\t": "tab", "|": "bar"}


@dataclass(frozen=True)
class Question:
    """Something that is not plain. `choices` are values with what the file shows of them; `offered` is one or None.

    `answer` is what was said before of a file with the same head; a question with an answer is not open.
    """

    asked: Asked
    choices: tuple[tuple[str, str], ...]
    offered: str | None
    answer: str | None = None
    values: Mapping[str, str] = field(default_factory=dict)

    @property
    def taken(self) -> str | None:
        """What the file is read with."""
        return self.answer if self.answer is not None else self.offered


@dataclass(frozen=True)
class Known:
    """What the workshop knows: its zone, the present [s], the tags of its pieces and the codes of its batches."""

    zone: ZoneInfo
    now_s: int
    tags: Collection[str] = ()


@dataclass
class Understanding:
    """How a file is read. Columns are indexes; `wide` are the columns of a table of weights that name a tag each."""

    kind: MeasurementKind
    columns: dict[Holds, int]
    at: tuple[int, ...]
    wide: dict[int, str]
    units: dict[Holds, str]
    zone: tzinfo
    order: times.Order | None
    mark: Mark | None
    questions: list[Question]
    said: list[Said]
    head_key: str  # files of the same head are read the same way

    @property
    def open(self) -> list[Question]:
        """The questions that nobody answered yet."""
        return [question for question in self.questions if question.answer is None]


class _Asking:
    """The questions of a file and what was answered."""

    def __init__(self, answers: Mapping[str, str]) -> None:
        self.answers = answers
        self.questions: list[Question] = []

    def ask(
        self, asked: Asked, choices: Mapping[str, str], offered: str | None, free: bool = False, **values: str
    ) -> str | None:
        """Put a question; what is taken meanwhile. An answer that is no choice counts as none."""
        answer = self.answers.get(asked)
        if answer is not None and answer not in choices and not free:
            answer = None
        question = Question(asked, tuple(choices.items()), offered, answer, values)
        self.questions.append(question)
        return question.taken


def understand(table: Table, known: Known, answers: Mapping[str, str]) -> Understanding:
    """How a table is to be read. Parameters: table; known; answers to earlier questions, by what was asked.

    Raises MeasurementFileError for a file whose columns hold nothing that can be brought in.
    """
    asking = _Asking(answers)
    if len(table.sheets) > 1:
        asking.ask("sheet", {name: name for name in table.sheets}, table.sheet)
    named: dict[Holds, list[tuple[int, Column]]] = {}
    for i, name in enumerate(table.head):
        column = column_of(name)
        if column is not None:
            named.setdefault(column.holds, []).append((i, column))
    wide = _wide(table, named, known)
    kind = _kind(table, named, wide)
    needs: dict[MeasurementKind, tuple[Holds, ...]] = {
        "climate": ("temperature", "humidity"),
        "weights": () if wide else ("tag", "weight"),
        "ph": ("batch", "ph", "sample_temperature", "meter"),
    }
    columns: dict[Holds, int] = {}
    for holds in needs[kind]:
        places = named.get(holds, [])
        if len(places) > 1:
            choices = {str(i): _seen(table, i) for i, _ in places}
            taken = asking.ask(holds, choices, None) if holds in _ASKED else None  # type: ignore[arg-type]
            columns[holds] = int(taken) if taken is not None else places[0][0]
        elif places:
            columns[holds] = places[0][0]
    at = _at_columns(table, named, asking)
    found = Understanding(kind, columns, at, wide, {}, known.zone, None, None, asking.questions, [], head_key(table))
    heads = {i: column for places in named.values() for i, column in places}
    _say_table(found, table)
    _settle_time(found, table, heads, known, asking)
    _settle_numbers(found, table, heads, asking)
    used = {*columns.values(), *at, *wide}
    unused = [name for i, name in enumerate(table.head) if name and i not in used]
    if unused:
        found.said.append(said("understood.unused", columns=", ".join(name[:30] for name in unused[:8])))
    return found


_ASKED = {"temperature", "humidity", "weight", "tag", "ph", "batch"}


def head_key(table: Table) -> str:
    """By what files of the same head are known again."""
    return "|".join(cell.lower().strip() for cell in table.head)[:4000]


def _seen(table: Table, column: int) -> str:
    """A column as its head and first cells show it."""
    cells = islice(_cells(table, column), SHOWN_CELLS)
    return f"{table.head[column][:40]}: {', '.join(cell[:20] for cell in cells)}"


def _wide(table: Table, named: Mapping[Holds, object], known: Known) -> dict[int, str]:
    """The columns of a table of weights that has one for each piece; none where the file has another shape."""
    if any(holds in named for holds in ("temperature", "humidity", "weight", "tag", "ph")):
        return {}
    tags = {tag.lower(): tag for tag in known.tags}
    return {i: tags[name.lower()] for i, name in enumerate(table.head) if name.lower() in tags}


def _kind(table: Table, named: Mapping[Holds, object], wide: Mapping[int, str]) -> MeasurementKind:
    if "at" in named:
        if "temperature" in named:
            return "climate"
        if wide or {"tag", "weight"} <= named.keys():
            return "weights"
        if {"batch", "ph"} <= named.keys():
            return "ph"
    raise unknown_columns(table.head_line, table.head)


def _cells(table: Table, column: int, most: int | None = None) -> Iterator[str]:
    for _, row in islice(table.body, most):
        if column < len(row):
            cell = row[column].strip()
            if cell:
                yield cell


def _at_columns(table: Table, named: Mapping[Holds, list[tuple[int, Column]]], asking: _Asking) -> tuple[int, ...]:
    """The column of the time, or those of day and time of day."""
    places = [i for i, _ in named["at"]]
    if len(places) == 1:
        return (places[0],)
    first = {i: next(_cells(table, i), "") for i in places}
    days = [i for i in places if times.has_day(first[i]) and not times.has_clock(first[i])]
    clocks = [i for i in places if times.is_clock(first[i])]
    whole = [i for i in places if i not in clocks and i not in days]
    if not whole and len(days) == 1 and len(clocks) == 1:
        return days[0], clocks[0]
    if len(whole) == 1:
        return (whole[0],)
    taken = asking.ask("at", {str(i): _seen(table, i) for i in whole or places}, None)
    return (int(taken),) if taken is not None else ((whole or places)[0],)


def when_of(row: list[str], at: tuple[int, ...]) -> str:
    """The moment of a row as its cells write it."""
    return row[at[0]].strip() if len(at) == 1 else " ".join(row[i].strip() for i in at)


def _say_table(understanding: Understanding, table: Table) -> None:
    if table.sheet:
        understanding.said.append(said("understood.sheet", sheet=table.sheet))
    else:
        understanding.said.append(
            said("understood.text", encoding=table.encoding, separator=SEPARATORS[table.delimiter])
        )
    if table.head_line > 1:
        understanding.said.append(said("understood.head_line", line=table.head_line))


def _settle_time(
    found: Understanding, table: Table, heads: Mapping[int, Column], known: Known, asking: _Asking
) -> None:
    """In which order days are written, and of which zone times without one are."""
    column = " + ".join(table.head[i] for i in found.at)
    found.said.append(said("understood.time", column=column[:80]))
    possible = times.orders(_cells(table, found.at[0]))
    sample = next((cell for cell in _cells(table, found.at[0])), "")[:30]
    if len(possible) > 1:
        shown: dict[str, str] = {order: times.shown(sample, order) for order in possible}
        found.order = asking.ask("order", shown, _likeliest(table, found.at, possible, known), sample=sample)  # type: ignore[assignment]
    elif possible:
        found.order = possible[0]
    if found.order is not None:
        found.said.append(said(f"understood.order_{found.order}"))
    first = [when_of(row, found.at) for _, row in islice(table.body, 50) if len(row) > max(found.at)]
    if first and not any(times.has_clock(when) for when in first):
        found.said.append(said("understood.noon"))
    offset_s = next((heads[i].offset_s for i in found.at if heads[i].offset_s is not None), None)
    if offset_s is not None:
        found.zone = timezone(timedelta(seconds=offset_s))
        found.said.append(said("understood.offset", column=column[:80], hours=round(offset_s / 3600, 2)))
    elif not any(times.is_local(when_of(row, found.at)) for _, row in table.body if len(row) > max(found.at)):
        found.said.append(said("understood.zone_told"))
    else:
        taken = asking.ask("zone", {known.zone.key: known.zone.key, "UTC": "UTC"}, known.zone.key, free=True)
        try:
            found.zone = ZoneInfo(taken or known.zone.key)
        except (ZoneInfoNotFoundError, ValueError, OSError) as error:
            raise MeasurementFileError("file.no_zone", zone=(taken or "")[:60]) from error
        found.said.append(said("understood.zone", zone=str(found.zone)))


def _likeliest(table: Table, at: tuple[int, ...], possible: Collection[times.Order], known: Known) -> str | None:
    """The one order in which no day of a file is still to come; offered, not taken."""
    kept = [order for order in possible if not _ahead(table, at, order, known)]
    return kept[0] if len(kept) == 1 else None


def _ahead(table: Table, at: tuple[int, ...], order: times.Order, known: Known) -> bool:
    read = times.clock(known.zone, order)
    for _, row in islice(table.body, LOOKED_AT):
        if len(row) > max(at):
            try:
                if read(when_of(row, at)) > known.now_s + 86_400:
                    return True
            except CellError:
                continue
    return False


def _settle_numbers(understanding: Understanding, table: Table, heads: Mapping[int, Column], asking: _Asking) -> None:
    """Which decimal mark the file has, and the unit of each quantity."""
    quantities: list[tuple[Holds, tuple[int, ...]]] = [
        (holds, (column,)) for holds, column in understanding.columns.items() if holds in _QUANTITIES
    ]
    if understanding.wide:
        quantities.append(("weight", tuple(understanding.wide)))
    cells = {holds: [c for i in where for c in _cells(table, i, LOOKED_AT)] for holds, where in quantities}
    understanding.mark = _mark(cells, asking)
    for holds, where in quantities:
        head = heads.get(where[0])
        unit = _unit(holds, head.unit if head else "", cells[holds], understanding.mark, asking)
        understanding.units[holds] = unit
        name = table.head[where[0]] if len(where) == 1 else ", ".join(understanding.wide.values())
        understanding.said.append(said(f"understood.{holds}", column=name[:80], unit_read=unit or "each"))
    if understanding.kind == "climate" and "humidity" not in understanding.columns:
        understanding.said.append(said("understood.no_humidity"))


_QUANTITIES: set[Holds] = {"temperature", "humidity", "weight", "ph", "sample_temperature"}
_UNITS: dict[Holds, tuple[str, ...]] = {
    "temperature": ("C", "F", "K"),
    "sample_temperature": ("C", "F", "K"),
    "humidity": ("%", SHARE),
    "weight": ("g", "kg", "lb", "oz"),
    "ph": ("pH",),
}


def _mark(cells: Mapping[Holds, list[str]], asking: _Asking) -> Mark | None:
    """The decimal mark, where a number of the file could be read in two ways."""
    in_doubt = {holds: [c for c in some if numbers.doubtful(c)] for holds, some in cells.items()}
    shown = numbers.marks_used(c for some in cells.values() for c in some)
    if len(shown) == 1 or not any(in_doubt.values()):
        return next(iter(shown)) if len(shown) == 1 else None
    weights = in_doubt.get("weight", [])
    sample = next(iter(weights or [c for some in in_doubt.values() for c in some]))[:20]
    used: Mark = "point" if "." in sample else "comma"
    if not weights:
        return used  # no temperature, humidity or pH goes into the thousands
    ways = {mark: f"{numbers.number(sample, mark)[0]:g}" for mark in ("point", "comma")}
    return asking.ask("mark", ways, None, sample=sample) or used  # type: ignore[return-value]


def _unit(holds: Holds, told: str, cells: list[str], mark: Mark | None, asking: _Asking) -> str:
    """The unit of a quantity: of the head, else of the cells, else asked where its values could be either."""
    possible = _UNITS[holds]
    if told in possible and told != "%":
        return told
    if len(possible) == 1:
        return possible[0]
    values, units, bare = [], set(), False
    for cell in cells:
        try:
            value, unit = numbers.number(cell, mark)
        except CellError:
            continue
        values.append(value)
        units.add(unit)
        bare = bare or not unit
    units.discard("")
    if holds == "humidity":
        if told == "%" or units or not values or max(values) > 1 or max(values) <= 0:
            return "%"
        return asking.ask("unit_humidity", {"%": "%", SHARE: SHARE}, SHARE, sample=cells[0][:20]) or SHARE
    if not bare:
        return next(iter(units)) if len(units) == 1 else ""  # each cell tells its own
    if holds == "weight":
        fitting = [unit for unit in possible if not values or max(values) * GRAMS[unit] <= HEAVIEST_G]
        if len(fitting) == 1:
            return fitting[0]
        offered = next(iter(units), None)  # what other cells of the column say; else nothing is put in the mouth
        return asking.ask("unit_weight", {u: u for u in fitting}, offered, sample=cells[0][:20]) or "g"
    if values and max(values) > HOTTEST_C and not units:
        return "F" if max(values) < 200 else "K"
    offered = next(iter(units), None)
    return asking.ask("unit_temperature", {"C": "°C", "F": "°F"}, offered, sample=cells[0][:20]) or "C"
