"""The sentences of the server by code, one catalogue for each language: for shell, calendar, PDF, files and the page.

May import the core. The page takes the same catalogues from the lists that `scripts/formats.py` writes, and gives the
values units and its own way of writing numbers and times, as is done here for what the server writes itself.
"""

import re
from collections.abc import Mapping
from datetime import UTC, tzinfo
from importlib import import_module
from typing import Final, get_args

from zymon.core.errors import ZymonError
from zymon.core.say import Said, Value

from .shows import USUAL, Language, Shows, showing, shown_as
from .written import plural_form, written

__all__ = [
    "LANGUAGES", "USUAL", "Shows", "filled", "name_of", "names", "on_paper", "sentence", "sentences", "showing",
    "shown_as", "told",
]  # fmt: skip

WAY_OF_UNIT: Final = {"g": "g", "kg": "kg", "mm": "mm", "°C": "c"}
LIMITS: Final = frozenset({"low", "high", "value"})
LANGUAGES: Final[tuple[Language, ...]] = get_args(Language)
# a value; a value written in a given way; or a word that goes with a number, for one and for others
_GAP = re.compile(r"\{(-?[\w.]+)(?::(\w+)|\|([^|{}]*)\|([^|{}]*))?\}")


def sentences(language: Language = "en") -> Mapping[str, str]:
    """The sentences of a language by code."""
    found: Mapping[str, str] = import_module(f"{__name__}.{language}").SENTENCES
    return found


def names(language: Language = "en") -> Mapping[str, Mapping[str, str]]:
    """What is named by a code of its own: quantities, states, hurdles; by the name of the value."""
    found: Mapping[str, Mapping[str, str]] = import_module(f"{__name__}.{language}").NAMES
    return found


def name_of(kind: str, code: str, shows: Shows | None = None) -> str:
    """The name of what has a code of its own; the code where nothing names it."""
    shows = shows or showing()
    return filled(names(shows.language).get(kind, {}).get(code, code), {}, shows)


def sentence(of: Said, zone: tzinfo = UTC, shows: Shows | None = None) -> str:
    """A sentence in words.

    Parameters: of; zone, in which its times are told; shows, in which language and units: those of whoever is answered
    where they are not given. Raises KeyError for an unknown code.
    """
    shows = shows or showing()
    return filled(sentences(shows.language)[of.code], of.values, shows, zone)


def on_paper(code: str, **values: Value) -> str:
    """What stands on paper, by its code without `paper.`; times are given as they are to be read."""
    return sentence(Said(f"paper.{code}", values))


def told(error: ZymonError, zone: tzinfo = UTC, shows: Shows | None = None) -> str:
    """What an error says, in words. Parameters: error; zone, in which its times are told; shows as of a sentence."""
    return sentence(error.said, zone, shows)


def filled(text: str, values: Mapping[str, Value], shows: Shows, zone: tzinfo = UTC) -> str:
    """A text with its values; a number in the place of a name stands for itself, and words go with a number's plural.

    >>> filled("under {5:c}", {}, Shows(temperature="F"))
    'under 41 °F'
    >>> filled("{n} {n|piece|pieces}", {"n": 1}, Shows())
    '1 piece'
    """

    named = names(shows.language)
    # the unit of a limit, where the reader has another one for it
    way_of_limits = WAY_OF_UNIT.get(str(values.get("unit", "")).strip()) if not shows.metric else None
    if way_of_limits is not None:
        values = {**values, "unit": ""}

    def value(gap: re.Match[str]) -> str:
        name, way = gap[1], gap[2]
        given = values[name] if name in values else float(name)
        if gap[3] is not None:
            return gap[3] if plural_form(float(given), shows) == "one" else gap[4]
        if not isinstance(given, str):
            way = way or (way_of_limits if name in LIMITS else None)
            return written(name, way, given, shows, zone)
        more = values.get("more")
        if name == "tags" and more:
            return filled(sentences(shows.language)["and_more"], {"tags_shown": given, "more": more}, shows, zone)
        code = named.get(name, {}).get(given)
        return given if code is None else filled(code, {}, shows, zone)

    return _GAP.sub(value, text)
