"""What the scale says: which readings confirm each other, and the latest that stands."""

from collections.abc import Sequence
from dataclasses import dataclass

AGREE_WITHIN_S = 6 * 3600.0  # a second reading of the same weight: later it has dried on; rule of practice
AGREE_SHARE = 0.005  # of the weight, by which two readings may differ and still say the same; rule of practice
AGREE_G = 2.0  # or by this much, where the piece is small: two steps of a bench scale


@dataclass(frozen=True)
class Reading:
    """A weighing that stands: when [s], gross [g], and whether it was asked about and kept."""

    at_s: float
    gross_g: float
    kept: bool = False


def agree(one: Reading, other: Reading) -> bool:
    """Whether two readings say the same of a piece. Parameters: one, other.

    >>> agree(Reading(0, 607), Reading(600, 609)), agree(Reading(0, 607), Reading(600, 640))
    (True, False)
    """
    apart_g = abs(one.gross_g - other.gross_g)
    near = apart_g <= max(AGREE_G, AGREE_SHARE * min(one.gross_g, other.gross_g))
    return near and abs(one.at_s - other.at_s) <= AGREE_WITHIN_S


def confirmed(readings: Sequence[Reading]) -> tuple[bool, ...]:
    """Which readings a second one agrees with, one by one. Parameters: readings, those that stand, in any order.

    A reading that was merely kept when asked is not confirmed by that.

    >>> confirmed([Reading(0, 607), Reading(600, 607.5), Reading(86_400, 590)])
    (True, True, False)
    """
    return tuple(any(agree(one, other) for other in readings if other is not one) for one in readings)
