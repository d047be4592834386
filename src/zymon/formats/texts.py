"""What people type: which characters a text may hold, so that it can be shown, printed and logged as it is."""

import re

from pydantic import AfterValidator
from pydantic_core import PydanticCustomError

CONTROLS = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff]")  # all but tab and line ends


def check_line(text: str) -> str:
    """Refuse control characters and line ends. Raises ValueError.

    >>> check_line("Coppa di Parma")
    'Coppa di Parma'
    """
    if "\n" in text or "\r" in text or "\t" in text:
        raise PydanticCustomError("one_line", "is one line: leave out what breaks it")
    return check_lines(text)


def check_lines(text: str) -> str:
    """Refuse control characters. Raises ValueError."""
    if CONTROLS.search(text):
        raise PydanticCustomError("characters", "holds a character that cannot be shown: type it anew")
    return text


RUNS = ("=", "+", "-", "@", "\t", "\r")  # what a spreadsheet that opens a CSV takes for a formula


def inert(text: str) -> str:
    """A text for a cell of a CSV that no spreadsheet runs as a formula: an apostrophe before it says that it is text.

    >>> inert("=1+1"), inert("J-14-03"), read_inert(inert("=1+1"))
    ("'=1+1", 'J-14-03', '=1+1')
    """
    return f"'{text}" if text.startswith(RUNS) else text


def read_inert(cell: str) -> str:
    """The text of such a cell."""
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(RUNS) else cell


ONE_LINE = AfterValidator(check_line)
LINES = AfterValidator(check_lines)
