"""Weighing out: what is to go into the bowl, what is in it, and what to do about a pour that went wrong."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ..errors import OutOfRangeError, require
from ..say import said
from .sheet import CuringChoice, MeatPart, Sheet, WorkedLine, work

State = Literal["to_weigh", "right", "under", "over"]

# share of the amount within which a weighing is right: what matters for safety closely, a spice by taste
CLOSE, LOOSE = 0.01, 0.05
CLOSELY_WEIGHED = ("meat", "salt", "curing")


@dataclass(frozen=True)
class Pour:
    """Grams put into the bowl of one thing; below 0 when something was taken out again."""

    key: str
    grams: float


@dataclass(frozen=True)
class Thing:
    """One thing to weigh out, and how it stands."""

    key: str
    name: str
    target_g: float
    tolerance_g: float
    weighed_g: float | None
    state: State
    scale_g: float
    worst_error_percent: float

    @property
    def missing_g(self) -> float:
        """What is still to be added; below 0 what is to be taken out [g]."""
        return self.target_g - (self.weighed_g or 0.0)


def things(sheet: Sheet, pours: Sequence[Pour], rescale: float = 1.0) -> tuple[Thing, ...]:
    """What is to be weighed out of a sheet, in the order of the work.

    Parameters: sheet; pours, so far; rescale [-] above 0, of the whole sheet to what was really put in.
    Raises OutOfRangeError for a sheet that cannot be weighed out.
    """
    require("rescaling", rescale, 0.0, 100.0, "", open_low=True)
    worked = work(sheet)
    if worked.problems or worked.formulation is None:
        raise OutOfRangeError(worked.problems[0].said if worked.problems else said("refused.not_complete"))
    total: dict[str, float] = {}
    for pour in pours:
        total[pour.key] = total.get(pour.key, 0.0) + pour.grams
    return tuple(
        _thing(line, _target(line, sheet, rescale), total.get(line.key)) for line in worked.lines if line.grams > 0
    )


def _target(line: WorkedLine, sheet: Sheet, rescale: float) -> float:
    kind, _, number = line.key.partition("-")
    if kind == "line" and sheet.lines[int(number)].basis == "fixed":
        return line.grams
    if line.key == "curing":
        # rounded down to what the scale shows: a recipe at the limit must not be carried over it by rounding
        return round(math.floor(line.grams * rescale / line.scale_g + 1e-9) * line.scale_g, 6)
    return line.grams * rescale


def _thing(line: WorkedLine, target_g: float, weighed_g: float | None) -> Thing:
    share = CLOSE if line.key.split("-")[0] in CLOSELY_WEIGHED else LOOSE
    # curing salt is to be met on the scale: what is poured over it may be over the limit
    tolerance_g = line.scale_g / 2 if line.key == "curing" else max(line.scale_g, share * target_g)
    state: State = "to_weigh"
    if weighed_g is not None:
        off = weighed_g - target_g
        state = "right" if abs(off) <= tolerance_g + 1e-9 else "over" if off > 0 else "under"
    return Thing(line.key, line.name, target_g, tolerance_g, weighed_g, state, line.scale_g, line.worst_error_percent)


def rescale_to(thing: Thing, rescale: float) -> float:
    """The rescaling of the whole sheet that makes what was poured of a thing right.

    Parameters: thing, weighed already; rescale [-] so far. Raises OutOfRangeError.
    """
    if not thing.weighed_g or thing.target_g <= 0:
        raise OutOfRangeError("refused.not_weighed_yet", thing=thing.name)
    factor = rescale * thing.weighed_g / thing.target_g
    if not 0.2 <= factor <= 5:
        raise OutOfRangeError("refused.too_far_to_rescale", weighed_g=thing.weighed_g, thing=thing.name)
    return factor


def as_made(sheet: Sheet, poured: Mapping[str, float]) -> Sheet:
    """The sheet with what really went in.

    Parameters: sheet; poured [g] by key, every thing of the sheet.
    """
    parts = tuple(
        replace(part, weight_g=poured[f"meat-{i}"], bought_g=_at_least(part, poured[f"meat-{i}"]))
        for i, part in enumerate(sheet.parts)
        if f"meat-{i}" in poured
    )
    meat_g = sum(part.weight_g for part in parts)
    curing: CuringChoice | None = None
    if sheet.curing is not None:
        curing = replace(sheet.curing, percent=100 * poured.get("curing", 0.0) / meat_g)
    lines = tuple(
        replace(line, basis="absolute", amount=poured[f"line-{i}"])
        for i, line in enumerate(sheet.lines)
        if f"line-{i}" in poured
    )
    return Sheet(parts, 100 * poured.get("salt", 0.0) / meat_g, "on_top", curing, lines)


def _at_least(part: MeatPart, weight_g: float) -> float | None:
    return None if part.bought_g is None else max(part.bought_g, weight_g)
