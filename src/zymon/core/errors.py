"""Errors of the core. Each inherits a builtin too, so that callers need not know this module."""

from .say import Said, Value


class ZymonError(Exception):
    """Base of every error meant for the maker's eyes: a sentence by its code, put into words by a catalogue.

    Parameters: reason, the sentence, or its code; values, what the sentence names.
    """

    def __init__(self, reason: Said | str, /, **values: Value) -> None:
        self.said = Said(reason, values) if isinstance(reason, str) else reason
        shown = ", ".join(f"{name}={value}" for name, value in self.said.values.items())
        super().__init__(f"{self.said.code}({shown})")


class OutOfRangeError(ZymonError, ValueError):
    """A quantity lies outside the range in which the rule holds."""


def require(name: str, value: float, low: float, high: float, unit: str, *, open_low: bool = False) -> float:
    """Give `value` back if it lies in range, else raise in words.

    Parameters: name [-], as in the catalogue of quantities; value, low, high [unit]; unit [-];
    open_low [-] (the low end itself is refused).
    Raises OutOfRangeError. NaN is refused.

    >>> require("humidity", 80.0, 0, 100, "%")
    80.0
    """
    said: dict[str, Value] = {"what": name, "value": value, "unit": f" {unit}" if unit else ""}
    if open_low and not value > low:
        raise OutOfRangeError("refused.not_above", low=low, **said)
    if not low <= value <= high:
        raise OutOfRangeError("refused.not_between", low=low, high=high, **said)
    return value
