"""Two versions of a recipe, line by line."""

from dataclasses import dataclass

from .sheet import Sheet

UNITS = {"percent": "%", "per_kg": "g/kg", "absolute": "g", "fixed": "g, fixed"}


@dataclass(frozen=True)
class Difference:
    """One thing that differs; None where it is not on the sheet."""

    what: str
    was: str | None
    now: str | None


def compare(before: Sheet, after: Sheet) -> list[Difference]:
    """What changed from one sheet to another, in the order of the later one, then what was dropped.

    Parameters: before, after.
    """
    old, new = _rows(before), _rows(after)
    changed = [Difference(what, old.get(what), now) for what, now in new.items() if old.get(what) != now]
    return changed + [Difference(what, was, None) for what, was in old.items() if what not in new]


def _rows(sheet: Sheet) -> dict[str, str]:
    rows = {f"{part.name}, meat": f"{part.weight_g:g} g, {part.fat_percent:g} % fat" for part in sheet.parts}
    rows["Salt"] = f"{sheet.salt_percent:g} %, {sheet.salt_basis.replace('_', ' ')}"
    if sheet.curing is not None:
        rows["Curing salt"] = f"{sheet.curing.percent:g} % {sheet.curing.name}"
    for line in sheet.lines:
        rows[line.name] = f"{line.amount:g} {UNITS[line.basis]}" + (f" ({line.note})" if line.note else "")
    return rows
