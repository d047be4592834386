"""What is to be said, as a code and its values: the sentence stands in a catalogue, one for each language."""

from collections.abc import Mapping
from dataclasses import dataclass, field

Value = str | int | float


@dataclass(frozen=True)
class Said:
    """A sentence by its code, with the values that it names.

    Times are in seconds since 1970, in names ending in `_s`; of those ending in `_day_s` the day alone is told.
    """

    code: str
    values: Mapping[str, Value] = field(default_factory=dict)


def said(code: str, **values: Value) -> Said:
    """A sentence by code. Parameters: code; values, by name.

    >>> said("today.weigh", tag="J-14-03").values["tag"]
    'J-14-03'
    """
    return Said(code, values)
