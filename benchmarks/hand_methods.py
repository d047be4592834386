"""What people do with a pencil: the methods that a forecast has to beat.

Each gives the day on which a piece reaches its target, counted from hanging, or None where the method has no answer.
"""

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]


def last_two(days: Array, loss: Array, target: float) -> float | None:
    """A straight line through the last two weights; days (k,), loss (k,) [share], both starting at 0."""
    if len(days) < 2 or loss[-1] <= loss[-2]:
        return None
    return float(days[-1] + (target - loss[-1]) * (days[-1] - days[-2]) / (loss[-1] - loss[-2]))


def line(days: Array, loss: Array, target: float) -> float | None:
    """A straight line through all weights."""
    if len(days) < 3:
        return last_two(days, loss, target)
    slope, start = np.polyfit(days, loss, 1)
    return float((target - start) / slope) if slope > 0 else None


def exponential(days: Array, loss: Array, target: float) -> float | None:
    """A curve that flattens towards a plateau, by least squares over rates."""
    if len(days) < 4:
        return line(days, loss, target)
    best: tuple[float, float, float] | None = None
    for rate in np.geomspace(0.003, 0.6, 80):
        shape = 1 - np.exp(-rate * days)
        plateau = float(shape @ loss / (shape @ shape))
        misfit = float(((loss - plateau * shape) ** 2).sum())
        if best is None or misfit < best[0]:
            best = (misfit, float(rate), plateau)
    assert best is not None
    _, rate, plateau = best
    return -float(np.log(1 - target / plateau)) / rate if plateau > target * 1.001 else None


def table_of_weeks(kind: str, across_mm: float) -> float:
    """Weeks by kind and thickness, as a card on the wall has them [days]."""
    weeks = {
        "salame": 3.5 + (across_mm - 40) * 0.16,
        "thin_sausage": 1.4,
        "belly": 4.0,
        "breast": 2.0,
        "ham": 11.0,
        "coated": 3 + (across_mm - 40) * 0.16,
    }.get(kind, 4 + max(across_mm - 55, 0) * 0.16)
    return max(weeks, 1.0) * 7
