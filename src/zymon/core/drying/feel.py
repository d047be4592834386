"""How meat of a water content feels between the fingers, and what a feel says of the water in a piece."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Literal

import numpy as np
import numpy.typing as npt

from .transport import shell_fractions

Array = npt.NDArray[np.float64]
Firmness = Literal["raw", "yielding", "firm", "hard"]
RingSeen = Literal["even", "some", "strong"]

RIM_SHARE, CORE_SHARE = 0.3, 0.3  # shares of the volume that are felt as rim and as core
# water per fat-free dry matter from which a piece feels so; estimate from what makers say of 30, 35 and 40 % loss
FEELS: tuple[tuple[float, Firmness], ...] = ((2.3, "raw"), (1.45, "yielding"), (0.75, "firm"))
RAW_WORDS = ("soft", "wet")  # what a hand says of meat that feels as when it was hung
FEEL_SD = 0.22  # so far beyond where a word is used (ln of the water) it is believed a third as much; estimate


@dataclass(frozen=True)
class Feel:
    """A piece between the fingers [s]; None where rim or core was not felt. Words: soft, yielding, firm, hard, wet."""

    at_s: float
    rim: str | None
    core: str | None

    @property
    def firm(self) -> bool:
        """Whether it felt firm to the middle."""
        return self.core in ("firm", "hard") and self.rim not in RAW_WORDS

    @property
    def soft_core(self) -> bool:
        """Whether its middle felt soft or wet."""
        return self.core in RAW_WORDS


def feels(x: float) -> Firmness:
    """How meat of a water content feels.

    Parameters: x [kg water/kg fat-free dry matter] above 0.

    >>> feels(3.0), feels(1.0)
    ('raw', 'firm')
    """
    return next((word for least, word in FEELS if x >= least), "hard")


def ring_seen(rim: float, core: float) -> RingSeen:
    """The ring that is there: how many words of fingers rim and core lie apart; two are a hard rim round a soft middle.

    Parameters: rim, core [kg water/kg fat-free dry matter] above 0.

    >>> ring_seen(0.7, 1.6), ring_seen(0.7, 1.4), ring_seen(1.2, 1.3)
    ('strong', 'some', 'even')
    """
    words: list[str] = [*(name for _, name in FEELS), "hard"]
    apart = words.index(feels(rim)) - words.index(feels(core))
    return "strong" if apart >= 2 else "some" if apart == 1 else "even"


def how_believable(word: str | None, x: Array) -> Array:
    """How believable water contents are, given how they felt; shape as x, all 1 where nobody felt.

    Parameters: word, of the fingers; x [kg water/kg fat-free dry matter] above 0.

    >>> firm = how_believable("firm", np.array([3.0, 1.1]))
    >>> bool(firm[1] > 5 * firm[0])
    True
    """
    if word is None:
        return np.ones_like(x)
    words: list[str] = [*(name for _, name in FEELS), "hard"]
    bounds = [math.inf, *(least for least, _ in FEELS), 0.0]
    k = words.index("raw" if word in RAW_WORDS else word)
    # by how much water contents lie beyond where the word is used, in ln: none is ruled out, and all pull alike
    beyond = np.maximum(np.log(x / bounds[k]), 0.0) if k else np.zeros_like(x)
    short = np.maximum(np.log(bounds[k + 1] / x), 0.0) if bounds[k + 1] else np.zeros_like(x)
    return np.asarray(np.exp(-(beyond + short) / FEEL_SD))


def rim_and_core(x: Array) -> tuple[Array, Array]:
    """Water per dry matter where a hand feels rim and core, each of the shape of x without its first axis.

    Parameters: x [kg/kg] (shells, …), from centre to rim.
    """
    return _mean_over(x, 1 - RIM_SHARE, 1.0), _mean_over(x, 0.0, CORE_SHARE)


def _mean_over(x: Array, low: float, high: float) -> Array:
    """Mean of x over the part of the volume between two shares, counted from the centre."""
    part = _part(low, high)
    return np.asarray(np.tensordot(part, x, axes=1) / part.sum())


@cache
def _part(low: float, high: float) -> Array:
    """How much each shell counts in the part of the volume between two shares."""
    edge = np.concatenate([[0.0], np.cumsum(shell_fractions())])
    return np.asarray(np.clip(np.minimum(edge[1:], high) - np.maximum(edge[:-1], low), 0.0, None))
