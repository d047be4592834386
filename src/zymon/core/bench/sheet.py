"""The sheet: meat block and lines as a maker fills them in, worked to grams line by line.

A sheet is worked while it is being typed: what is wrong with one field is told at that field and disturbs no other.
"""

from dataclasses import dataclass, field, replace
from typing import Literal

from ..errors import OutOfRangeError, require
from ..formulation import (
    MAX_MEAT_G,
    TOO_COARSE_PERCENT,
    Formulation,
    LineBasis,
    Part,
    SaltBasis,
    blend,
    formulate,
    line_amount,
    line_grams,
    scale_needed,
    worst_rounding_error,
)
from ..say import Said, said

# salted: an ingredient that brings common salt with it, garlic salt, a seasoned blend, something brined
Role = Literal["spice", "sugar", "culture", "wine", "antioxidant", "salted", "other"]

MOST_PRICE = 10_000.0  # a kilogram, in whatever money; a slip of the hand beyond it
CLOSELY, CLOSE_PERCENT = ("salt", "curing"), 2.0  # what safety hangs on is weighed closer than a spice


@dataclass(frozen=True)
class MeatPart:
    """A part of the meat block as trimmed; `bought_g` is what was paid for, where it was more."""

    name: str
    weight_g: float
    fat_percent: float
    price_per_kg: float | None = None
    bought_g: float | None = None
    lot: str = ""
    species: str | None = None  # None: that of the plan


@dataclass(frozen=True)
class Line:
    """A line of the sheet besides salt and curing salt; `amount` stands in its basis."""

    name: str
    role: Role
    basis: LineBasis
    amount: float
    price_per_kg: float | None = None
    note: str = ""
    salt_percent: float = 0.0  # common salt in it: garlic salt, seasoned blends, brined things


@dataclass(frozen=True)
class CuringChoice:
    """The curing salt on the sheet; fractions of 1; a dose by spoon is never exact enough."""

    name: str
    percent: float
    nitrite_fraction: float
    nitrate_fraction: float
    by_spoon: bool = False


@dataclass(frozen=True)
class Sheet:
    """Everything on the sheet."""

    parts: tuple[MeatPart, ...]
    salt_percent: float
    salt_basis: SaltBasis
    curing: CuringChoice | None
    lines: tuple[Line, ...] = field(default=())


@dataclass(frozen=True)
class Problem:
    """What is wrong at one field, named as in the sheet: parts.0.weight_g, lines.2.amount, salt_percent."""

    where: str
    said: Said


@dataclass(frozen=True)
class WorkedLine:
    """One thing to weigh. `key` names it for good: meat-0, salt, curing, line-2."""

    key: str
    name: str
    grams: float
    percent_of_meat: float
    basis: LineBasis
    amount: float
    scale_g: float
    worst_error_percent: float


@dataclass(frozen=True)
class Worked:
    """A sheet worked out. `formulation` is None while meat, salt or curing salt are in trouble."""

    meat_g: float
    fat_percent: float
    total_g: float
    lines: tuple[WorkedLine, ...]
    formulation: Formulation | None
    problems: tuple[Problem, ...]
    other_salt_g: float = 0.0  # common salt in the lines

    @property
    def grams(self) -> dict[str, float]:
        """What each line weighs [g], by its key."""
        return {line.key: line.grams for line in self.lines}

    @property
    def sodium_chloride_percent(self) -> float:
        """Sodium chloride of all lines [% of the meat]; 0 while meat, salt or curing salt are in trouble."""
        if self.formulation is None:
            return 0.0
        return self.formulation.sodium_chloride_percent_of_meat + 100 * self.other_salt_g / self.meat_g


class _Faults:
    def __init__(self) -> None:
        self.found: list[Problem] = []

    def ok(self, where: str, name: str, value: float, low: float, high: float, unit: str) -> bool:
        try:
            require(name, value, low, high, unit)
        except OutOfRangeError as error:
            self.found.append(Problem(where, error.said))
            return False
        return True


def work(sheet: Sheet) -> Worked:
    """Work a sheet to grams, telling what is wrong at which field.

    Parameters: sheet. Never raises for a bad value: a part or line that cannot be is left out and named.
    """
    faults = _Faults()
    good: list[tuple[int, MeatPart]] = []
    for i, part in enumerate(sheet.parts):
        fine = faults.ok(f"parts.{i}.weight_g", "weight", part.weight_g, 0, MAX_MEAT_G, "g")
        fine &= faults.ok(f"parts.{i}.fat_percent", "fat", part.fat_percent, 0, 100, "%")
        if part.price_per_kg is not None:
            faults.ok(f"parts.{i}.price_per_kg", "price", part.price_per_kg, 0, MOST_PRICE, "a kg")
        if part.bought_g is not None and fine and part.bought_g < part.weight_g:
            less = said("refused.bought_less", trimmed_g=part.weight_g, bought_g=part.bought_g)
            faults.found.append(Problem(f"parts.{i}.bought_g", less))
        if fine:
            good.append((i, part))
    meat_g = sum(part.weight_g for _, part in good)
    if meat_g <= 0:
        if not any(p.where.startswith("parts") for p in faults.found):
            faults.found.append(Problem("parts.0.weight_g", said("refused.no_meat")))
        return Worked(0.0, 0.0, 0.0, (), None, tuple(faults.found))
    mixed = blend([Part(part.weight_g, part.fat_percent) for _, part in good])
    lines = [_line(f"meat-{i}", part.name, part.weight_g, "absolute", part.weight_g, meat_g) for i, part in good]
    made = _salted(sheet, meat_g, faults)
    if made is not None:
        lines.append(_line("salt", "Salt", made.plain_salt_g, "percent", 100 * made.plain_salt_g / meat_g, meat_g))
        if sheet.curing is not None:
            lines.append(
                _line("curing", sheet.curing.name, made.curing_salt_g, "percent", sheet.curing.percent, meat_g)
            )
    other_salt_g = 0.0
    for i, line in enumerate(sheet.lines):
        try:
            grams = line_grams(line.amount, line.basis, meat_g)
        except OutOfRangeError as error:
            faults.found.append(Problem(f"lines.{i}.amount", error.said))
            continue
        if line.price_per_kg is not None:
            faults.ok(f"lines.{i}.price_per_kg", "price", line.price_per_kg, 0, MOST_PRICE, "a kg")
        if faults.ok(f"lines.{i}.salt_percent", "salt in it", line.salt_percent, 0, 100, "%"):
            other_salt_g += grams * line.salt_percent / 100
        lines.append(_line(f"line-{i}", line.name, grams, line.basis, line.amount, meat_g, line.role == "culture"))
    total_g = sum(line.grams for line in lines)
    return Worked(meat_g, mixed.fat_percent, total_g, tuple(lines), made, tuple(faults.found), other_salt_g)


def _salted(sheet: Sheet, meat_g: float, faults: _Faults) -> Formulation | None:
    curing = sheet.curing
    fine = faults.ok("salt_percent", "salt", sheet.salt_percent, 0, 15, "%")
    if curing is not None:
        fine &= faults.ok("curing.percent", "curing salt", curing.percent, 0, 15, "%")
        fine &= faults.ok("curing.nitrite_fraction", "nitrite", 100 * curing.nitrite_fraction, 0, 100, "%")
        room = 100 * (1 - curing.nitrite_fraction)
        fine &= faults.ok("curing.nitrate_fraction", "nitrate", 100 * curing.nitrate_fraction, 0, room, "%")
    if not fine:
        return None
    try:
        return formulate(
            meat_g,
            sheet.salt_percent,
            curing.percent if curing else 0.0,
            curing.nitrite_fraction if curing else 0.0,
            curing.nitrate_fraction if curing else 0.0,
            sheet.salt_basis,
        )
    except OutOfRangeError as error:
        faults.found.append(Problem("salt_percent", error.said))
        return None


def _line(
    key: str, name: str, grams: float, basis: LineBasis, amount: float, meat_g: float, close: bool = False
) -> WorkedLine:
    scale_g = (
        scale_needed(grams, CLOSE_PERCENT if key in CLOSELY or close else TOO_COARSE_PERCENT) if grams > 0 else 1.0
    )
    return WorkedLine(
        key=key,
        name=name,
        grams=grams,
        percent_of_meat=line_amount(grams, "percent", meat_g),
        basis=basis,
        amount=amount,
        scale_g=scale_g,
        worst_error_percent=worst_rounding_error(grams, scale_g) if grams > 0 else 0.0,
    )


def scaled(sheet: Sheet, factor: float) -> Sheet:
    """The same sheet for more or less meat: parts and absolute lines follow, shares stand, fixed lines stay.

    Parameters: sheet; factor [-] above 0…1000. Raises OutOfRangeError.
    """
    require("factor", factor, 0.0, 1000.0, "", open_low=True)
    parts = tuple(
        replace(p, weight_g=p.weight_g * factor, bought_g=None if p.bought_g is None else p.bought_g * factor)
        for p in sheet.parts
    )
    lines = tuple(
        replace(line, amount=line.amount * factor) if line.basis == "absolute" else line for line in sheet.lines
    )
    return replace(sheet, parts=parts, lines=lines)
