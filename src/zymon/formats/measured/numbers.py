"""Numbers as loggers and spreadsheets write them: a unit behind, a decimal point or comma, thousands marks."""

import math
import re
from collections.abc import Iterable
from typing import Literal

from .faults import CellError
from .heads import unit_of

Mark = Literal["point", "comma"]
GRAMS = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237}

_CELL = re.compile(r"([+\-−]?)\s*([\d.,'’\u00a0\u202f ]*\d[.,]?)\s*([^\d\s].*)?")
_DOUBTFUL = re.compile(r"[1-9]\d{0,2}[.,]\d{3}")  # 1.750: one and three quarters, or one thousand seven hundred fifty
_GROUPED = {"point": re.compile(r"\d{1,3}(,\d{3})+(\.\d*)?"), "comma": re.compile(r"\d{1,3}(\.\d{3})+(,\d*)?")}
_SPACES = str.maketrans("", "", "'’\u00a0\u202f ")


def parts(text: str) -> tuple[str, str, str]:
    """Sign, digits with their marks, and unit as written. Raises CellError for what is no number."""
    found = _CELL.fullmatch(text.strip())
    if found is None:
        raise CellError("row.no_number", text=text.strip()[:40])
    sign, digits, unit = found.groups()
    return ("-" if sign in ("-", "−") else ""), digits.translate(_SPACES), (unit or "").strip()


def number(text: str, mark: Mark | None = None) -> tuple[float, str]:
    """A number and the unit behind it, '' for none. Parameters: text; mark, what stands before the decimals.

    Where the number itself leaves no doubt the mark is not asked. Raises CellError.

    >>> number("1.750,5 g"), number("55,4 °F"), number("1.750", "comma")
    ((1750.5, 'g'), (55.4, 'F'), (1750.0, ''))
    """
    try:
        value, unit = float(text), ""
    except ValueError:
        sign, digits, told = parts(text)
        unit = unit_of(told) if told else ""
        if told and not unit:
            raise CellError("row.unknown_unit", text=text.strip()[:40]) from None
        value = float(sign + _with_point(digits, mark, text))
    else:
        if mark == "comma" and _DOUBTFUL.fullmatch(text.strip()):
            value *= 1000
    if not math.isfinite(value):
        raise CellError("row.no_number", text=text.strip()[:40])
    return value, unit


def _with_point(digits: str, mark: Mark | None, text: str) -> str:
    """Digits as Python reads them."""
    points, commas = digits.count("."), digits.count(",")
    if points + commas == 0:
        return digits
    if points + commas == 1:
        if _DOUBTFUL.fullmatch(digits) and mark is not None and ("." in digits) != (mark == "point"):
            return digits.replace(".", "").replace(",", "")
        return digits.replace(",", ".")
    for way, thousands in (("point", ","), ("comma", ".")):
        if _GROUPED[way].fullmatch(digits):
            return digits.replace(thousands, "").replace(",", ".")
    raise CellError("row.no_number", text=text.strip()[:40])


def doubtful(text: str) -> bool:
    """Whether a number can be read in two ways, a thousand times apart."""
    try:
        return _DOUBTFUL.fullmatch(parts(text)[1]) is not None
    except CellError:
        return False


def marks_used(cells: Iterable[str]) -> set[Mark]:
    """Which decimal marks the numbers of a file show plainly."""
    shown: set[Mark] = set()
    for cell in cells:
        try:
            digits = parts(cell)[1]
        except CellError:
            continue
        points, commas = digits.count("."), digits.count(",")
        if points + commas == 1 and not _DOUBTFUL.fullmatch(digits):
            shown.add("point" if points else "comma")
        elif points + commas > 1:
            shown |= {way for way in _GROUPED if _GROUPED[way].fullmatch(digits)}  # type: ignore[misc]
    return shown
