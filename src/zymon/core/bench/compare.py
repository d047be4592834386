"""Two versions of a recipe, line by line."""

from collections.abc import Iterator
from dataclasses import dataclass

from ..say import Said, Value, said
from .families import SCHOOLS
from .sheet import Sheet


@dataclass(frozen=True)
class Difference:
    """One thing that differs; None where it is not on the sheet."""

    what: Said
    was: Said | None
    now: Said | None


def compare(before: Sheet, after: Sheet) -> list[Difference]:
    """What changed from one sheet to another, in the order of the later one, then what was dropped.

    Parameters: before, after.
    """
    old, new = dict(_rows(before)), dict(_rows(after))
    named = {key: what for rows in (old, new) for key, (what, _) in rows.items()}
    held = {key: (old[key][1] if key in old else None, new[key][1] if key in new else None) for key in (*new, *old)}
    return [Difference(named[key], was, now) for key, (was, now) in held.items() if was != now]


def _rows(sheet: Sheet) -> Iterator[tuple[tuple[str, str], tuple[Said, Said]]]:
    """What stands on a sheet: by its kind and name, how it is called and how much of it there is."""
    for part in sheet.parts:
        amount = said("version.part", weight_g=part.weight_g, percent=part.fat_percent)
        yield ("part", part.name), (said("version.meat", name=part.name), amount)
    school = next(one.name for one in SCHOOLS["salt_basis"] if one.id == sheet.salt_basis)
    yield ("salt", ""), (said("version.salt"), said("version.share_of", percent=sheet.salt_percent, text=school))
    if sheet.curing is not None:
        curing = said("version.share_of", percent=sheet.curing.percent, text=sheet.curing.name)
        yield ("curing", ""), (said("version.curing"), curing)
    for line in sheet.lines:
        name = "amount" if line.basis in ("percent", "per_kg") else "amount_g"
        values: dict[str, Value] = {name: line.amount, "note": f" ({line.note})" if line.note else ""}
        yield ("line", line.name), (said("version.line", name=line.name), Said(f"version.{line.basis}", values))
