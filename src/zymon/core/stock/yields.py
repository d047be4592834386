"""What came of what was bought: weights from the shop to the plate, and what a finished kilogram cost."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Step = Literal["bought", "trimmed", "bowl", "hung", "finished", "usable"]
CostKind = Literal["casing", "work", "energy", "other"]


@dataclass(frozen=True)
class Yielded:
    """A step on the way, what was there then [g], and the share of what was bought; None where nobody weighed it."""

    step: Step
    grams: float | None
    share: float | None


@dataclass(frozen=True)
class Yield:
    """The steps of a batch, its costs, and what a finished and a usable kilogram cost; None where it is not known."""

    steps: tuple[Yielded, ...]
    ingredients_cost: float | None
    other_cost: float
    cost_per_finished_kg: float | None
    cost_per_usable_kg: float | None
    thrown_g: float


def yielded(
    grams: Sequence[tuple[Step, float | None]], ingredients_cost: float | None, other_cost: float, thrown_g: float
) -> Yield:
    """Yield and cost of a batch.

    Parameters: grams, of each step [g], None where nobody weighed it; ingredients_cost, other_cost [money];
    thrown_g [g], in no total after it was thrown away.
    """
    known = [g for _, g in grams if g is not None and g > 0]
    first = known[0] if known else None
    steps = tuple(Yielded(step, g, None if g is None or first is None else g / first) for step, g in grams)
    by_step = {one.step: one.grams for one in steps}
    total = None if ingredients_cost is None else ingredients_cost + other_cost
    return Yield(
        steps=steps,
        ingredients_cost=ingredients_cost,
        other_cost=other_cost,
        cost_per_finished_kg=_per_kg(total, by_step.get("finished")),
        cost_per_usable_kg=_per_kg(total, by_step.get("usable")),
        thrown_g=thrown_g,
    )


def _per_kg(cost: float | None, grams: float | None) -> float | None:
    return None if cost is None or not grams else cost / grams * 1000
