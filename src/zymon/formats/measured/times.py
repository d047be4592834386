"""Moments as files write them: ISO 8601, day, month or year first, names of months, 12-hour clocks, epochs."""

import math
import re
from collections.abc import Callable, Iterable
from datetime import UTC, datetime, timedelta, timezone, tzinfo
from typing import Literal

from dateutil import parser as dates

from .faults import CellError

Order = Literal["day", "month", "year"]
ORDERS: tuple[Order, ...] = ("day", "month", "year")
OLDEST = datetime(2000, 1, 1, tzinfo=UTC)
NOON = "12:00"  # the time of a day that is given without one; said beside it

_CLOCK = r"(\d{1,2})[:.](\d{2})(?:[:.](\d{2})(?:[.,]\d+)?)?\s*(?:([AaPp])\.?\s?[Mm]\.?)?"
_NUMERIC = re.compile(rf"(\d{{1,4}})\s?([./-])\s?(\d{{1,2}})\s?\2\s?(\d{{1,4}})(?:[T ,]+{_CLOCK})?")
_CLOCK_ALONE = re.compile(_CLOCK)
_EPOCH = re.compile(r"\d{9,10}(?:\.\d+)?|\d{12,13}")
_NAMED = re.compile(r"(?:\d{1,2}[. -]+)?([^\W\d_]{3,10})\.?[ ,.-]+\d{1,4}\b.*")
_ZONE_BEHIND = re.compile(r"(.*\d|.*[AaPp]\.?[Mm]\.?)\s*(?:Z|(?:UTC|GMT)?([+-]\d{2}):?(\d{2})|UTC|GMT)")


class _Months(dates.parserinfo):  # type: ignore[misc] # the library tells no types
    """Months in five languages."""

    MONTHS = [  # noqa: RUF012 -- as the library declares it
        ("jan", "january", "gen", "gennaio", "januar", "janv", "janvier", "ene", "enero"),
        ("feb", "february", "febbraio", "februar", "fevr", "févr", "fevrier", "février", "febrero"),
        ("mar", "march", "marzo", "mär", "märz", "mars"),
        ("apr", "april", "aprile", "avr", "avril", "abr", "abril"),
        ("may", "mag", "maggio", "mai", "mayo"),
        ("jun", "june", "giu", "giugno", "juni", "juin", "junio"),
        ("jul", "july", "lug", "luglio", "juli", "juil", "juillet", "julio"),
        ("aug", "august", "ago", "agosto", "août", "aout"),
        ("sep", "sept", "september", "set", "settembre", "septembre", "septiembre"),
        ("oct", "october", "ott", "ottobre", "okt", "oktober", "octobre", "octubre"),
        ("nov", "november", "novembre", "noviembre"),
        ("dec", "december", "dic", "dicembre", "dez", "dezember", "déc", "decembre", "décembre", "diciembre"),
    ]


_MONTHS = _Months()
_MONTH_NAMES = {name for names in _Months.MONTHS for name in names}


def has_day(text: str) -> bool:
    """Whether a cell tells of a day, not of a time of day alone."""
    return bool(_NUMERIC.match(text) or _EPOCH.fullmatch(text) or _NAMED.fullmatch(text))


def has_clock(text: str) -> bool:
    """Whether a cell tells of a time of day."""
    return bool(_EPOCH.fullmatch(text) or re.search(r"\d{1,2}[:.]\d{2}\s*(?:$|[:.AaPpZ+-])", text[5:] or text))


def is_clock(text: str) -> bool:
    """Whether a cell tells of a time of day and of nothing else."""
    return bool(_CLOCK_ALONE.fullmatch(text))


def orders(cells: Iterable[str]) -> tuple[Order, ...]:
    """In which orders the days of a file can be meant; one where a day above 12 tells, or the year stands in full.

    Parameters: cells. None at all where no cell leaves a doubt (ISO 8601, epochs, names of months).

    >>> orders(["11/03/2026 18:00"]), orders(["11/03/2026", "25/03/2026"]), orders(["2026-11-03"])
    (('day', 'month'), ('day',), ())
    """
    possible: set[Order] | None = None
    for cell in cells:
        found = _NUMERIC.match(cell)
        if found is None or len(found[1]) > 2:
            continue
        here = {order for order in ORDERS if _day(order, found[1], found[3], found[4]) is not None}
        if not here:
            continue
        possible = here if possible is None else (possible & here or possible)
        if len(possible) == 1:
            break
    return tuple(order for order in ORDERS if possible and order in possible)


def _day(order: Order, first: str, second: str, third: str) -> tuple[int, int, int] | None:
    """Year, month, day of three numbers, or None where the order cannot be."""
    if order == "year":
        year, month, day = first, second, third
    else:
        year, (day, month) = third, (first, second) if order == "day" else (second, first)
    if len(day) > 2 or len(month) > 2 or len(year) not in (2, 4):
        return None
    full = int(year) if len(year) == 4 else 2000 + int(year)
    if not (1 <= int(month) <= 12 and 1 <= int(day) <= 31):
        return None
    return full, int(month), int(day)


def clock(zone: tzinfo, order: Order | None = None) -> Callable[[str], float]:
    """A reader of moments to seconds since 1970, called with the cells in the order of the file.

    Local times are of `zone`; the hour that autumn repeats is told by the order, the one that spring leaves out is
    refused. Zones change on whole hours, so an hour is worked out once and its minutes are added: a million rows take
    a second. The reader raises CellError.
    """
    last = -math.inf
    hours: dict[str, tuple[float, bool]] = {}

    def start_of(text: str, fold: int) -> tuple[float, bool]:
        moment = _moment(text, order)
        local = moment.tzinfo is None
        if local:
            moment = moment.replace(tzinfo=zone, fold=fold)
            there = moment.astimezone(UTC).astimezone(zone)
            if there.replace(tzinfo=None) != moment.replace(tzinfo=None):
                raise CellError("row.missing_hour", text=text[:40], zone=str(zone))
        return moment.timestamp(), local

    def read(text: str) -> float:
        nonlocal last
        zulu = text[-1:] == "Z"
        bare = text[:-1] if zulu else text
        minute, second = bare[14:16], bare[17:]
        if (
            bare[4:5] == "-"
            and bare[13:14] == ":"
            and minute.isdigit()
            and (len(bare) == 16 or (len(bare) == 19 and second.isdigit()))
        ):
            key = bare[:13] + text[-1:] if zulu else bare[:13]
            known = hours.get(key)
            if known is None:
                try:
                    known = hours[key] = start_of(bare[:13] + ":00:00" + ("Z" if zulu else ""), 0)
                except CellError:
                    start_of(text, 0)  # says so of the moment itself
                    raise
            extra = int(minute) * 60 + int(second or 0)
            if extra >= 3600 or int(second or 0) > 59:
                raise CellError("row.no_time", text=text[:40])
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


def _moment(text: str, order: Order | None) -> datetime:
    """The moment of a cell, without zone where it tells none. Raises CellError."""
    try:
        if _EPOCH.fullmatch(text):
            return datetime.fromtimestamp(float(text) / (1000 if len(text.split(".")[0]) > 10 else 1), UTC)
        if len(text) > 10 and text[4:5] == "-" and text[7:8] == "-":
            try:
                return datetime.fromisoformat(text.replace(" UTC", "Z").replace(" GMT", "Z"))
            except ValueError:
                pass  # a zone apart, or a 12-hour clock: read below
        offset: tzinfo | None = None
        behind = _ZONE_BEHIND.fullmatch(text)
        if behind:
            text, sign_hours, minutes = behind.groups()
            hours = int(sign_hours or 0)
            offset = timezone(timedelta(hours=hours, minutes=math.copysign(int(minutes or 0), hours)))
        return _local(text.strip(), order).replace(tzinfo=offset)
    except (ValueError, OverflowError, OSError) as error:
        raise CellError("row.no_time", text=text[:40]) from error


def _local(text: str, order: Order | None) -> datetime:
    found = _NUMERIC.fullmatch(text)
    if found is None:
        named = _NAMED.fullmatch(text)
        if named is None or named[1].lower() not in _MONTH_NAMES:
            raise ValueError(text)
        named_day: datetime = dates.parse(text, parserinfo=_MONTHS, dayfirst=True, default=datetime(2000, 1, 1, 12))
        return named_day
    first, _, second, third, hour, minute, sec, half = found.groups()
    day = _day("year" if len(first) == 4 else order or "day", first, second, third)
    if day is None:
        raise ValueError(text)
    if hour is None:
        return datetime(*day, 12)
    h = int(hour)
    if half:
        if not 1 <= h <= 12:
            raise ValueError(text)
        h = h % 12 + (12 if half in "Pp" else 0)
    return datetime(*day, h, int(minute), int(sec or 0))


def shown(text: str, order: Order) -> str:
    """The day of a cell in one order, as ISO 8601; empty where it cannot be."""
    try:
        return _local(text, order).date().isoformat()
    except ValueError:
        return ""


def is_local(text: str) -> bool:
    """Whether a cell is a moment that does not say of which zone it is."""
    if text[-1:] == "Z":
        return False
    try:
        return _moment(text, None).tzinfo is None
    except CellError:
        return bool(_NUMERIC.fullmatch(text))  # in another order of day and month
