"""Weighings that cannot be right: told from those that merely surprise, and named in words."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..say import Said, said
from .history import Piece, Weighing

DOUBTFUL_BELOW = 0.25  # share of belief in a weighing under which it is named
SURELY_OFF = 0.025  # loss fraction under which a weighing may surprise, but is not called wrong
UNEXPLAINED = ("slip.more", "slip.less")  # no slip of the digits comes near
CLOSE = 0.02  # a slip is named when mending it comes this close to the expected weight


@dataclass(frozen=True)
class Doubt:
    """A weighing held back from the forecast, with the likely slip."""

    at_s: float
    gross_g: float
    reason: Said


def likely_slip(gross_g: float, expected_g: float) -> Said:
    """What probably went wrong with a weight, given what was expected.

    Parameters: gross_g, expected_g [g] above 0.

    >>> likely_slip(471, 740)
    Said(code='slip.swapped', values={'expected_g': 740, 'meant_g': 741.0})
    >>> likely_slip(74, 740).code, likely_slip(7400, 740).code
    ('slip.missing', 'slip.extra')
    >>> likely_slip(1200, 740)
    Said(code='slip.more', values={'expected_g': 740, 'percent': 62})
    """
    text = f"{gross_g:.0f}"
    for i in range(len(text)):
        for j in range(i + 1, len(text)):
            swapped = list(text)
            swapped[i], swapped[j] = swapped[j], swapped[i]
            candidate = float("".join(swapped))
            if candidate != gross_g and abs(candidate - expected_g) < CLOSE * expected_g:
                return said("slip.swapped", expected_g=round(expected_g), meant_g=candidate)
    if any(abs(gross_g * 10 + d - expected_g) < CLOSE * expected_g for d in range(10)) or any(
        abs(float(text[:i] + str(d) + text[i:]) - expected_g) < CLOSE * expected_g
        for i in range(len(text) + 1)
        for d in range(10)
    ):
        return said("slip.missing", expected_g=round(expected_g))
    if any(abs(float(text[:i] + text[i + 1 :] or "0") - expected_g) < CLOSE * expected_g for i in range(len(text))):
        return said("slip.extra", expected_g=round(expected_g))
    off = (gross_g / expected_g - 1) * 100
    return said("slip.more" if off > 0 else "slip.less", expected_g=round(expected_g), percent=round(abs(off)))


def name_doubts(
    piece: Piece, weighings: Sequence[Weighing], good: npt.NDArray[np.float64], expected_loss: Sequence[float]
) -> tuple[Doubt, ...]:
    """Name the weighings the fit did not believe.

    Parameters: piece; its weighings (k,); good [share of belief] (k,); expected_loss [share] (k,).
    """
    return tuple(
        Doubt(w.at_s, w.gross_g, likely_slip(w.gross_g, piece.gross_at(loss)))
        for w, belief, loss in zip(weighings, good, expected_loss, strict=True)
        if not w.confirmed and belief < DOUBTFUL_BELOW and abs(piece.loss_fraction(w.gross_g) - loss) > SURELY_OFF
    )
