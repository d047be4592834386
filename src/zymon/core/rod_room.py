"""Whether pieces on a rod touch, or there are too many of them: air must reach every side."""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise

from .errors import require

AIR_BETWEEN_MM = 20.0  # that two neighbours want between them; practice


@dataclass(frozen=True)
class RodRoom:
    """Neighbours that hang too close, by hook, and how much longer the rod would have to be [mm], 0 where it is not."""

    close: tuple[tuple[int, int], ...]
    short_mm: float


def rod_room(width_mm: Mapping[int, float], hooks: int, spacing_mm: float) -> RodRoom:
    """Look along a rod.

    Parameters: width_mm [mm] of what hangs, by hook from 1; hooks [-], how many there are; spacing_mm [mm] between two.

    >>> rod_room({1: 90, 2: 90, 4: 60}, 4, 100).close
    ((1, 2),)
    """
    require("distance between hooks", spacing_mm, 20.0, 2000.0, "mm")
    taken = sorted(width_mm)
    close = tuple(
        (a, b) for a, b in pairwise(taken) if (width_mm[a] + width_mm[b]) / 2 + AIR_BETWEEN_MM > (b - a) * spacing_mm
    )
    needed = sum(width_mm.values()) + AIR_BETWEEN_MM * len(taken)
    return RodRoom(close, max(needed - hooks * spacing_mm, 0.0))
