"""What is wrong with a field of an entry, as a sentence of the catalogue in the reader's language and units."""

from collections.abc import Mapping
from typing import Any

from zymon.core.errors import ZymonError
from zymon.core.say import Said, Value

# the unit that a name ends with, so that limits are told in the reader's own
UNITS = {"g": " g", "mm": " mm", "c": " °C", "percent": " %"}
LONGEST_SHOWN = 60
NEVER_SHOWN = frozenset({"passphrase", "pin", "secret"})

# the sentence for each kind of fault that Pydantic reports, and what of it the sentence names
FAULTS: dict[str, tuple[str, dict[str, str]]] = {
    "missing": ("refused.field.missing", {}),
    "greater_than": ("refused.field.above", {"gt": "low"}),
    "greater_than_equal": ("refused.field.least", {"ge": "low"}),
    "less_than": ("refused.field.below", {"lt": "high"}),
    "less_than_equal": ("refused.field.most", {"le": "high"}),
    "finite_number": ("refused.field.number", {}),
    "float_type": ("refused.field.number", {}),
    "float_parsing": ("refused.field.number", {}),
    "int_type": ("refused.field.whole", {}),
    "int_parsing": ("refused.field.whole", {}),
    "int_from_float": ("refused.field.whole", {}),
    "string_type": ("refused.field.text", {}),
    "string_too_short": ("refused.field.short", {}),
    "string_too_long": ("refused.field.long", {"max_length": "n"}),
    "too_short": ("refused.field.few", {"min_length": "n"}),
    "too_long": ("refused.field.many", {"max_length": "n"}),
    "extra_forbidden": ("refused.field.strange", {}),
    "datetime_parsing": ("refused.field.moment", {}),
    "datetime_from_date_parsing": ("refused.field.moment", {}),
    "timezone_aware": ("refused.field.zone", {}),
    "one_line": ("refused.field.one_line", {}),
    "characters": ("refused.field.characters", {}),
    "time_zone": ("refused.field.time_zone", {}),
    "json_invalid": ("refused.field.json", {}),
}
OTHER = "refused.field.other"
GIVEN = frozenset(  # what is quoted in them
    {f"refused.field.{name}" for name in ("moment", "number", "other", "time_zone", "whole")}
)


def rule_of(fault: Mapping[str, Any]) -> ZymonError | None:
    """The rule of the job that was met while the entry was read: it says all there is to say. Parameters: fault."""
    rule = fault.get("ctx", {}).get("error")
    return rule if isinstance(rule, ZymonError) else None


def fault_said(fault: Mapping[str, Any], location: tuple[int | str, ...]) -> Said:
    """A fault as a sentence.

    Parameters: fault, as Pydantic reports it; location, of the field within the entry: names and, in lists, places.
    """
    rule = rule_of(fault)
    if rule is not None:
        return rule.said
    field = next((part for part in reversed(location) if isinstance(part, str)), "")
    row = next((part + 1 for part in location if isinstance(part, int)), None)
    code, named = FAULTS.get(fault["type"], (OTHER, {}))
    given = None if field in NEVER_SHOWN else fault.get("input")
    values: dict[str, Value] = {"row": "" if row is None else f"{row}: ", "field": field}
    values |= {ours: fault["ctx"][theirs] for theirs, ours in named.items()}
    if "low" in values or "high" in values:
        number = given if isinstance(given, int | float) else _quoted(given)
        values |= {"value": number, "unit": UNITS.get(field.rsplit("_", 1)[-1], "")}
    elif code in GIVEN:
        values["given"] = _quoted(given)
    return Said(code, values)


def _quoted(given: Any) -> str:
    short = isinstance(given, int | float | str) and len(str(given)) < LONGEST_SHOWN
    return repr(given) if short else "…"
