"""Inside a piece: water by depth as the model has it, how uneven it is, and how it would feel between the fingers."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from .arrays import Future
from .feel import Firmness, RingSeen, feels, rim_and_core, ring_seen
from .forecast import Change, Fitted
from .transport import Bodies, shell_fractions

Array = npt.NDArray[np.float64]


@dataclass(frozen=True)
class Inside:
    """Water through one piece at one time. Depth as share of the half thickness, 0 at the rim; from rim to core."""

    depth_share: tuple[float, ...]
    water_percent: tuple[float, ...]  # of the fat-free substance at that depth
    rim_water_percent: float
    core_water_percent: float
    rim_feels: Firmness
    core_feels: Firmness
    ring: RingSeen
    ring_index: float  # 0 even … 1 a rim with no water round a wet core


def inside(place: Fitted, index: int, at_s: float) -> Inside:
    """Water by depth of one piece at any time past or ahead, by its most likely parameters.

    Parameters: place, the fitted place; index, of the piece in its history; at_s [s].
    """
    bodies, x = profile_at(place, index, at_s)
    rim, core = (float(water) for water in rim_and_core(x))
    return Inside(
        depth_share=tuple(depth_shares(float(bodies.curvature[0]))),
        water_percent=tuple(water_percent(float(v)) for v in x[::-1]),
        rim_water_percent=water_percent(rim),
        core_water_percent=water_percent(core),
        rim_feels=feels(rim),
        core_feels=feels(core),
        ring=ring_seen(rim, core),
        ring_index=ring_index(x),
    )


def ring_depth_share(x: Array, curvature: float) -> float:
    """How deep a ring goes [share of the half thickness]: to where the water has come half way to that of the core.

    0 where no hand would tell rim and core apart. Parameters: x [kg/kg] (shells,), from centre to rim; curvature [-].
    """
    rim, core = (float(water) for water in rim_and_core(x))
    if ring_seen(rim, core) == "even":
        return 0.0
    return float(np.interp(0.5 * (float(x[-1]) + core), x[::-1], depth_shares(curvature)))


def profile_at(place: Fitted, index: int, at_s: float) -> tuple[Bodies, Array]:
    """The body of a piece, and its water per dry matter (shells,) from centre to rim at a time.

    Parameters: place, the fitted place; index, of the piece in its history; at_s [s].
    """
    time_s = place.arrays.time_s[:, index]
    elapsed = float(np.clip(at_s - place.arrays.hung[index], 0.0, time_s[-1]))
    j = int(np.clip(np.searchsorted(time_s, elapsed) - 1, 0, len(time_s) - 2))
    share = (elapsed - time_s[j]) / (time_s[j + 1] - time_s[j])
    profile = place.profiles[j, :, index] * (1 - share) + place.profiles[j + 1, :, index] * share
    return place.arrays.bodies(place.theta).one(index), profile


def ring_ahead(place: Fitted, index: int, change: Change) -> float:
    """The strongest ring index a piece still comes to, from a day from now to its target, if something changed now.

    Parameters: place, the fitted place; index, of the piece in its history; change, an empty one for as it is.
    """
    return rings_ahead(place, [index], change)[0]


def rings_ahead(place: Fitted, pick: Sequence[int], change: Change) -> list[float]:
    """The same of several pieces at once. Parameters: place; pick, their indices in its history; change."""
    some = place.changed(pick, change)
    still = np.zeros(len(pick))
    future = Future(still, still, still, ln_draught=float(np.log(change.air)))
    run = some.run(place.theta[list(pick)], future, keep=True)
    assert run.profiles is not None
    found = []
    for i, piece in enumerate(some.pieces):
        since_hung = some.time_s[:, i]
        begins = max(some.now_s - piece.hung_at_s, 0.0) + SECONDS_PER_DAY
        ends = np.searchsorted(run.loss[:, i], some.target[i])
        still_to_come = np.flatnonzero(since_hung[: ends + 1] >= begins)
        last = min(int(ends), len(since_hung) - 1)
        seen = still_to_come if len(still_to_come) else np.array([last])
        found.append(max(ring_index(run.profiles[int(k), :, i]) for k in seen))
    return found


def ring_index(x: Array) -> float:
    """How uneven a piece is: 0 even … 1 a rim with no water round a wet core.

    Parameters: x [kg/kg] (shells,), from centre to rim.

    >>> ring_index(np.full(9, 1.2))
    0.0
    """
    rim, core = rim_and_core(x)
    return float(np.clip(1 - rim / core, 0.0, 1.0))


def depth_shares(curvature: float) -> list[float]:
    """How deep each shell lies, from rim to core, as shares of the half thickness. Parameters: curvature [-] 0…2."""
    v = shell_fractions()
    return [float(1 - r) for r in (np.cumsum(v) - v / 2)[::-1] ** (1 / (curvature + 1))]


def water_percent(x: float) -> float:
    """Water of the fat-free substance [%]. Parameters: x [kg water/kg fat-free dry matter] above 0.

    >>> water_percent(1.0)
    50.0
    """
    return 100 * x / (1 + x)
