"""Packs of a finished piece: how many are left, until when they keep, what to use first."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..constants import SECONDS_PER_DAY
from ..errors import OutOfRangeError, require
from ..water import KeepClass

Form = Literal["whole", "piece", "sliced"]
Wrap = Literal["vacuum", "paper", "jar", "none"]
KeepAt = Literal["fridge", "freezer", "cellar"]
Went = Literal["eaten", "given", "sold", "discarded"]

OPENED_DAYS = 14.0  # an opened piece in the fridge; practice
SOON_DAYS = 7.0  # before its best-before day, from which it is told
SCALE_SHARE = 0.01  # by which packs together may weigh more than the piece: casing, scale
COLDEST_C: dict[KeepAt, float] = {"fridge": 5.0, "freezer": -18.0, "cellar": 15.0}  # as they usually are at the warmest
# how warm a class of keeping may be kept; 99: however it is
CLASS_C: dict[KeepClass, float] = {"no_chill": 99.0, "max_10_c": 10.0, "max_5_c": 5.0}


@dataclass(frozen=True)
class Some:
    """So many packs at a time [s]: opened then, or gone."""

    at_s: float
    number: int


@dataclass(frozen=True)
class Pack:
    """Packs alike of one piece: how many, what went since, which are open. Times [s], net weight of one [g]."""

    number: int
    net_g: float
    packed_s: float
    keep_at: KeepAt
    period_days: float | None  # the maker's own; None: none was given
    went: tuple[Some, ...] = ()
    opened: tuple[Some, ...] = ()

    def __post_init__(self) -> None:
        require("number of packs", self.number, 1, 500, "")
        require("net weight", self.net_g, 0.0, 100_000.0, "g", open_low=True)
        if self.period_days is not None:
            require("period", self.period_days, 1, 3650, "days")
        if self.left < 0:
            raise OutOfRangeError("refused.not_so_many", many=self.number)

    @property
    def left(self) -> int:
        """How many are left, opened ones too."""
        return self.number - sum(one.number for one in self.went)

    @property
    def best_before_s(self) -> float | None:
        """By the maker's own period [s]; None where none was given."""
        return None if self.period_days is None else self.packed_s + self.period_days * SECONDS_PER_DAY

    @property
    def open_now(self) -> tuple[Some, ...]:
        """The opened packs that are left: whatever went, went from those that were open then, the first first."""
        happened = sorted([(one.at_s, 0, one) for one in self.opened] + [(one.at_s, 1, one) for one in self.went],
                          key=lambda h: h[:2])  # fmt: skip
        found: list[Some] = []
        for _, went, one in happened:
            if not went:
                found.append(one)
                continue
            left = one.number
            for i, open_one in enumerate(found):
                taken = min(left, open_one.number)
                left -= taken
                found[i] = Some(open_one.at_s, open_one.number - taken)
        return tuple(one for one in found if one.number > 0)

    @property
    def closed_left(self) -> int:
        """How many are left that nobody opened."""
        return self.left - sum(one.number for one in self.open_now)

    @property
    def use_by_s(self) -> float | None:
        """Until when it is to be used first [s]: the opened one's clock, else its best-before day; None without any."""
        opened = [one.at_s + OPENED_DAYS * SECONDS_PER_DAY for one in self.open_now]
        days = [*opened, *([] if self.best_before_s is None else [self.best_before_s])]
        return min(days, default=None)


def use_first(packs: Sequence[Pack]) -> list[int]:
    """In which order packs are to be used: the first clock first, then the oldest. Parameters: packs. Gives indices."""
    far = float("inf")
    order = [(far if p.use_by_s is None else p.use_by_s, p.packed_s, i) for i, p in enumerate(packs) if p.left > 0]
    return [i for _, _, i in sorted(order)]


def check_fits(packed_g: float, new_g: float, usable_g: float | None) -> None:
    """Refuse packs that together weigh more than the piece. Parameters: packed_g, new_g, usable_g [g], None unweighed.

    Raises OutOfRangeError.
    """
    if usable_g is not None and packed_g + new_g > usable_g * (1 + SCALE_SHARE):
        left_g = max(usable_g - packed_g, 0.0)
        raise OutOfRangeError("refused.packs_too_heavy", new_g=round(new_g, 1), left_g=round(left_g, 1))


def too_warm(keep_at: KeepAt, keeps: KeepClass | None) -> bool:
    """Whether goods of a keep class are kept warmer than it allows. Parameters: keep_at; keeps, None unknown: as raw.

    >>> too_warm("cellar", "no_chill"), too_warm("cellar", "max_10_c"), too_warm("fridge", None)
    (False, True, False)
    """
    return COLDEST_C[keep_at] > CLASS_C[keeps or "max_5_c"]
