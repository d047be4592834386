"""The table of faults: signs, causes, and which records speak for or against each. The figures are data."""

import tomllib
from dataclasses import dataclass
from importlib.resources import files
from typing import Literal, get_args

CauseStage = Literal["bowl", "cold", "salt", "warm", "hang", "rest"]
Goods = Literal["minced", "muscle"]
Sign = Literal[
    "ring", "soft_core", "hard_through", "grey", "brown", "holes", "smear", "loose", "yellow_fat", "mould_inside",
    "salt_spots", "smell_off", "sour", "sharp", "rancid", "salt_high", "salt_low",
]  # fmt: skip


@dataclass(frozen=True)
class Clue:
    """One measure that speaks for a cause from `begins` on, fully at `full`, and against it from `against` on."""

    measure: str
    begins: float
    full: float
    against: float
    weight: float

    def speaks(self, value: float) -> float:
        """How strongly a value speaks for the cause, −1 against … 0 … 1 for. Parameters: value, in the measure's unit.

        >>> Clue("mix_c", begins=5, full=9, against=4, weight=1).speaks(9)
        1.0
        """
        span = self.full - self.against
        share = (value - self.against) / span
        if share <= 0:
            return max(-1.0, share - 0.3)
        return min(share, 1.0) if share >= (self.begins - self.against) / span else 0.0


@dataclass(frozen=True)
class Cause:
    """Something that goes wrong: in which stage, by which signs it shows (0…1), by which clues it is told.

    `goods`: minced or muscle where only those can have it; None of all.
    """

    name: str
    stage: CauseStage
    source: str
    signs: dict[Sign, float]
    clues: tuple[Clue, ...]
    next_time: tuple[str, ...]
    goods: Goods | None = None

    def may_be(self, minced: bool | None) -> bool:
        """Whether goods can have it; of what nobody said, all can. Parameters: minced."""
        return minced is None or self.goods is None or (self.goods == "minced") == minced


def _read() -> tuple[dict[str, Cause], dict[str, float]]:
    data = tomllib.loads((files("zymon.core.causes") / "table.toml").read_text("utf-8"))
    found = {
        name: Cause(
            name,
            one["stage"],
            one["source"],
            one["signs"],
            tuple(Clue(**c) for c in one["clue"]),
            tuple(one["next"]),
            one.get("goods"),
        )
        for name, one in data["cause"].items()
    }
    known = set(get_args(Sign))
    for cause in found.values():
        assert cause.stage in get_args(CauseStage), cause.name
        assert set(cause.signs) <= known, cause.name
    return found, data["marks"]


CAUSES, MARKS = _read()


def clue(cause: str, measure: str) -> Clue:
    """A clue of a cause. Parameters: cause, by name; measure. Raises KeyError.

    >>> clue("mixed_warm", "mix_c").against
    4.0
    """
    return {c.measure: c for c in CAUSES[cause].clues}[measure]
