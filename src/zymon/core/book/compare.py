"""What differed between batches: facts side by side, and which of them differ by more than they usually do."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from ..say import Said, said

Fact = Literal[
    "recipe", "casing", "salt_percent", "fat_percent", "dextrose_percent", "across_mm", "start_g", "target_percent",
    "mix_c", "warm_c", "warm_rh_percent", "lowest_ph", "hours_to_mark", "place", "first_c", "first_rh_percent",
    "hang_c", "hang_rh_percent", "days_to_target", "loss_percent", "cost_per_kg",
]  # fmt: skip
FACTS: tuple[Fact, ...] = get_args(Fact)
Value = float | str | None

# from which difference on it is told, in the fact's own unit, or as a share of the larger one; estimates
TELLS: dict[Fact, float] = {
    "salt_percent": 0.15, "fat_percent": 3.0, "dextrose_percent": 0.1, "across_mm": 4.0, "target_percent": 1.5,
    "mix_c": 2.0, "warm_c": 1.5, "warm_rh_percent": 5.0, "lowest_ph": 0.1, "hours_to_mark": 4.0, "first_c": 1.0,
    "first_rh_percent": 3.0, "hang_c": 1.0, "hang_rh_percent": 3.0, "loss_percent": 1.5,
}  # fmt: skip
SHARES: dict[Fact, float] = {"start_g": 0.15, "days_to_target": 0.12, "cost_per_kg": 0.1}


@dataclass(frozen=True)
class Compared:
    """A batch by its code, with what is known of it; what nobody recorded is None or not there."""

    code: str
    facts: Mapping[Fact, Value]


def differences(batches: Sequence[Compared]) -> list[Said]:
    """What differs by more than it usually does, in the order of the work. Parameters: batches.

    >>> one, other = Compared("J-1", {"salt_percent": 2.5}), Compared("J-2", {"salt_percent": 2.8})
    >>> differences([one, other])[0].values["low"]
    2.5
    """
    found = [_differs(fact, batches) for fact in FACTS]
    return [one for one in found if one is not None]


def _differs(fact: Fact, batches: Sequence[Compared]) -> Said | None:
    known = [(one.code, one.facts.get(fact)) for one in batches]
    words = {value: code for code, value in known if isinstance(value, str) and value}
    if len(words) > 1:
        (one, a), (other, b) = list(words.items())[:2]
        return said(f"differs.{fact}", low=one, low_batch=a, high=other, high_batch=b)
    numbers = sorted((value, code) for code, value in known if isinstance(value, (int, float)))
    if len(numbers) < 2:
        return None
    (low, a), (high, b) = numbers[0], numbers[-1]
    least = TELLS[fact] if fact in TELLS else SHARES[fact] * abs(high)
    if high - low < least or high == low:
        return None
    return said(f"differs.{fact}", low=_tidy(low), low_batch=a, high=_tidy(high), high_batch=b)


def _tidy(value: float) -> float:
    return float(f"{value:.3g}")
