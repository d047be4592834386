"""What people type: which characters a text may hold, so that it can be shown, printed and logged as it is."""

import re

from pydantic import AfterValidator

CONTROLS = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff]")  # all but tab and line ends


def check_line(text: str) -> str:
    """Refuse control characters and line ends. Raises ValueError.

    >>> check_line("Coppa di Parma")
    'Coppa di Parma'
    """
    if "\n" in text or "\r" in text or "\t" in text:
        raise ValueError("is one line: leave out what breaks it")
    return check_lines(text)


def check_lines(text: str) -> str:
    """Refuse control characters. Raises ValueError."""
    if CONTROLS.search(text):
        raise ValueError("holds a character that cannot be shown: type it anew")
    return text


ONE_LINE = AfterValidator(check_line)
LINES = AfterValidator(check_lines)
