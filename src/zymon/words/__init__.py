"""The sentences of shell, calendar, PDF, files and error bodies, one catalogue for each language.

May import the core. The page has a catalogue of its own for the same codes; `scripts/formats.py` writes the list of
codes, and a test of the page holds both together.
"""

from datetime import UTC, datetime, tzinfo

from zymon.core.say import Said, Value

from .en import SENTENCES as EVERYWHERE
from .en_ledger import LEDGER

__all__ = ["CODES", "LEDGER", "sentence"]

SENTENCES = EVERYWHERE | LEDGER
CODES = tuple(sorted(SENTENCES))


def sentence(of: Said, zone: tzinfo = UTC) -> str:
    """A sentence in words. Parameters: of; zone, in which its times are told. Raises KeyError for an unknown code."""
    shown = {name: _shown(name, value, zone) for name, value in of.values.items()}
    if "tags" in shown and of.values.get("more"):
        shown["tags"] = f"{shown['tags']} and {shown['more']} more"
    return SENTENCES[of.code].format_map(shown)


def _shown(name: str, value: Value, zone: tzinfo) -> str:
    """A value as it is read: its unit follows from its name."""
    if isinstance(value, str):
        return value
    if name.endswith("_s"):
        return f"{datetime.fromtimestamp(value, UTC).astimezone(zone):%a %-d %b %Y %H:%M}"
    if name.endswith("_g"):
        return f"{value:g} g" if value != round(value) else f"{value:.0f} g"
    return f"{value:g}"
