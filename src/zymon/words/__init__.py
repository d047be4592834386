"""The sentences of the server by code, one catalogue for each language: for shell, calendar, PDF, files and the page.

May import the core. The page takes the same catalogue from the list that `scripts/formats.py` writes, and gives the
values its own units and its own way of writing numbers and times.
"""

from datetime import UTC, datetime, tzinfo

from zymon.core.errors import ZymonError
from zymon.core.say import Said, Value

from .en import SENTENCES as ASKED_AND_DUE
from .en_advice import ADVICE
from .en_alarms import ALARMS
from .en_cut import CUT
from .en_house import HOUSE
from .en_imports import IMPORTS
from .en_ledger import LEDGER
from .en_names import NAMES
from .en_plan import PLAN
from .en_refused import REFUSED
from .en_stock import STOCK
from .en_story import STORY

__all__ = ["NAMES", "SENTENCES", "sentence", "told"]

SENTENCES = ASKED_AND_DUE | ADVICE | ALARMS | CUT | HOUSE | IMPORTS | LEDGER | PLAN | REFUSED | STOCK | STORY


def sentence(of: Said, zone: tzinfo = UTC) -> str:
    """A sentence in words. Parameters: of; zone, in which its times are told. Raises KeyError for an unknown code."""
    shown = {name: _shown(name, value, zone) for name, value in of.values.items()}
    if "tags" in shown and of.values.get("more"):
        shown["tags"] = f"{shown['tags']} and {shown['more']} more"
    return SENTENCES[of.code].format_map(shown)


def told(error: ZymonError, zone: tzinfo = UTC) -> str:
    """What an error says, in words. Parameters: error; zone, in which its times are told."""
    return sentence(error.said, zone)


def _shown(name: str, value: Value, zone: tzinfo) -> str:
    """A value as it is read: its unit follows from its name, and a code of its own has a name."""
    if isinstance(value, str):
        return NAMES.get(name, {}).get(value, value)
    if name.endswith("_day_s"):
        return f"{datetime.fromtimestamp(value, UTC).astimezone(zone):%a %-d %b %Y}"
    if name.endswith("_s"):
        return f"{datetime.fromtimestamp(value, UTC).astimezone(zone):%a %-d %b %Y %H:%M}"
    if name.endswith("_g"):
        return f"{value:.0f} g" if float(value).is_integer() else f"{value:g} g"
    return f"{value:g}"
