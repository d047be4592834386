"""Errors of the core. Each inherits a builtin too, so that callers need not know this module."""


class ZymonError(Exception):
    """Base of every error the core raises; its text is meant for the maker's eyes."""


class OutOfRangeError(ZymonError, ValueError):
    """A quantity lies outside the range in which the rule holds."""


def require(name: str, value: float, low: float, high: float, unit: str, *, open_low: bool = False) -> float:
    """Give `value` back if it lies in range, else raise in words.

    Parameters: name [-]; value, low, high [unit]; unit [-]; open_low [-] (the low end itself is refused).
    Raises OutOfRangeError. NaN is refused.

    >>> require("humidity", 80.0, 0, 100, "%")
    80.0
    """
    of = f" {unit}" if unit else ""
    if open_low and not value > low:
        raise OutOfRangeError(f"{name} must be above {low:g}{of}, got {value:g}")
    if not low <= value <= high:
        raise OutOfRangeError(f"{name} must be between {low:g} and {high:g}{of}, got {value:g}")
    return value
