"""What a piece weighs in salt and after it: what is to be expected, and what asks for a second weighing."""

from dataclasses import dataclass
from typing import Literal

from ..errors import require
from .ways import REGISTRY, Way

SCALE_PERCENT = 0.5  # what a scale, a wet surface and a crumb of spice make of it
SOAKED_UP_PERCENT = 3.0  # water a soak may leave in the meat
Verdict = Literal["as_expected", "gained", "too_light", "too_heavy"]


def could_have_gained(raw_g: float, now_g: float, went_in_g: float) -> bool:
    """Whether a piece that is heavier than when it was put in can have got so by what went into its bag alone.

    Parameters: raw_g, now_g [g]; went_in_g [g], salt, spice and liquid that went in with it.

    >>> could_have_gained(2905, 2938, 90), could_have_gained(2905, 3020, 90)
    (True, False)
    """
    return 0 < now_g - raw_g <= went_in_g


@dataclass(frozen=True)
class ExpectedWeight:
    """The range of weights to be expected [g], and the liquid shed that it stands for [% of the raw weight]."""

    low_g: float
    high_g: float
    shed_low_percent: float
    shed_high_percent: float


def expected_weight(
    way: Way, raw_g: float, salt_percent: float, progress: float, soaked: bool = False
) -> ExpectedWeight:
    """What a piece should weigh after some of its time in salt.

    Parameters: way; raw_g [g], as it was put in; salt_percent [%] taken up so far; progress 0…1, of its time in salt;
    soaked, whether it lay in water since. Source: liquid shed as makers report it, by way; estimate.

    >>> round(expected_weight("measured", 2000, 2.8, 1.0).high_g)
    2030
    """
    require("weight", raw_g, 0.0, 50_000.0, "g", open_low=True)
    require("progress", progress, 0.0, 1.0, "")
    low, high = REGISTRY[way].shed_percent
    # most of the liquid comes in the first third
    grown = min(1.0, (progress * 3) ** 0.5) if progress < 1 / 3 else 1.0
    shed_low, shed_high = low * grown * 0.9, high * grown
    more = SOAKED_UP_PERCENT if soaked else 0.0
    return ExpectedWeight(
        low_g=raw_g * (1 - (shed_high + SCALE_PERCENT) / 100),
        high_g=raw_g * (1 + (salt_percent - shed_low + SCALE_PERCENT + more) / 100),
        shed_low_percent=shed_low,
        shed_high_percent=shed_high,
    )


def judge_weight(raw_g: float, now_g: float, expected: ExpectedWeight) -> Verdict:
    """How a weight out of the salt compares with what is expected.

    Parameters: raw_g [g], as put in; now_g [g]; expected. Anything but `as_expected` asks for a second weighing, with
    the zero of the scale looked at first.
    """
    if expected.low_g <= now_g <= expected.high_g:
        return "as_expected"
    if now_g < expected.low_g:
        return "too_light"
    return "gained" if now_g > raw_g else "too_heavy"
