"""Evening out at rest: the water in a piece goes from its middle to its rim, and none leaves a bag that is tight.

What a piece is when it is sealed is kept as a few likely profiles, so that a shelf of resting pieces is worked out
without fitting any of them again.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from .climate import Air
from .feel import Feel, Firmness, feels, how_believable, rim_and_core
from .forecast import Change, Fitted, weighted_quantiles
from .inside import ring_index
from .rest import EVEN_AT_RING_INDEX
from .transport import Bodies, Drivers, dry, shell_fractions

Array = npt.NDArray[np.float64]
Bag = Literal["vacuum", "paper", "none", "unknown"]
RestState = Literal["evening", "likely", "even", "soft", "leaks"]

PROFILES = 12  # likely ones that are kept of a piece
LONGEST_DAYS = 365.0  # days; a year in the bag is no usual rest
STEPS = 44
# Share of the water that a bag lets through of what the bare piece would lose in that air; estimates
LETS_THROUGH: dict[Bag, float] = {"vacuum": 0.0, "paper": 0.3, "none": 1.0, "unknown": 0.3}
NOTHING: Array = np.zeros((3, 0))
LEAK_PERCENT, LEAK_G = 0.6, 2.0  # a sealed bag that lost more than both leaks; a scale and a wet bag make less of it
WARM_C = 5.0  # over it a bag without air is no place for raw meat: botulism


@dataclass(frozen=True)
class Sealed:
    """A piece as it begins to rest: its body, and some likely parameters and profiles of it, d side by side."""

    half_thickness_m: float
    curvature: float
    density_kg_m3: float
    water_fraction: tuple[float, ...]
    dry_matter_fraction: tuple[float, ...]
    diffusivity_m2_s: tuple[float, ...]
    permeance_kg_m2_s_pa: tuple[float, ...]
    sorption_x: float
    half_diffusion_x: tuple[float, ...]
    x: tuple[tuple[float, ...], ...]  # (shells, d), water per dry matter from centre to rim


@dataclass(frozen=True)
class Resting:
    """A piece at rest: what it was when it was sealed, in which bag, and what was seen since [s, g]."""

    sealed: Sealed
    from_s: float
    bag: Bag
    air: Air
    feels: tuple[Feel, ...] = ()
    sealed_g: float | None = None
    weighed: tuple[tuple[float, float], ...] = ()  # (moment, gross g) since it was sealed


@dataclass(frozen=True)
class Evening:
    """How far a piece has evened out. Dates [s] are None where it does not within a year; shells from centre to rim."""

    state: RestState
    earliest_s: float | None
    best_s: float | None
    late_s: float | None
    rim_x: float
    core_x: float
    rim_feels: Firmness
    core_feels: Firmness
    x: tuple[float, ...]
    gone_share: float  # of the ring that it had when it was sealed
    lost_g: float | None  # since it was sealed, by the scale
    warm: bool  # the place is too warm for a bag without air
    curve_s: Array
    rim: Array  # (3, steps): low, middle, high water per dry matter; (3, 0) where nobody asked for curves
    core: Array


def seal(place: Fitted, index: int, at_s: float, loss_percent: float | None = None) -> Sealed:
    """What a piece is when it is sealed, as the fit has it.

    Parameters: place, the fitted place; index, of the piece in its history; at_s [s]; loss_percent [%], what the scale
    said when it came down, None where nobody weighed it. The profiles are brought to that loss.
    """
    piece = place.arrays.pieces[index]
    upto = np.cumsum(place.weight[:, index])
    pick = np.searchsorted(upto, (np.arange(PROFILES) + 0.5) / PROFILES * upto[-1])
    theta = place.sampled[np.minimum(pick, len(upto) - 1), index : index + 1]
    alone = place.changed([index], Change())
    profiles = alone.run(theta, keep=True).profiles
    assert profiles is not None
    time_s = alone.time_s[:, 0]
    elapsed = float(np.clip(at_s - piece.hung_at_s, 0.0, time_s[-1]))
    j = int(np.clip(np.searchsorted(time_s, elapsed) - 1, 0, len(time_s) - 2))
    share = (elapsed - time_s[j]) / (time_s[j + 1] - time_s[j])
    x = profiles[j] * (1 - share) + profiles[j + 1] * share
    bodies = alone.bodies(theta.reshape(-1, theta.shape[-1]))
    if loss_percent is not None:
        wanted = np.maximum(bodies.water_fraction - loss_percent / 100, 0.02) / bodies.dry_matter_fraction
        x = x * (wanted / (shell_fractions() @ x))
    return Sealed(
        half_thickness_m=float(bodies.half_thickness_m[0]),
        curvature=float(bodies.curvature[0]),
        density_kg_m3=float(bodies.density_kg_m3[0]),
        water_fraction=tuple(bodies.water_fraction.tolist()),
        dry_matter_fraction=tuple(bodies.dry_matter_fraction.tolist()),
        diffusivity_m2_s=tuple(bodies.diffusivity_m2_s.tolist()),
        permeance_kg_m2_s_pa=tuple(bodies.permeance_kg_m2_s_pa.tolist()),
        sorption_x=float(bodies.sorption_x[0]),
        half_diffusion_x=tuple(bodies.half_diffusion_x.tolist()),
        x=tuple(tuple(row) for row in x.tolist()),
    )


def _bodies(sealed: Sealed, bag: Bag) -> Bodies:
    d = len(sealed.water_fraction)
    return Bodies(
        np.full(d, sealed.half_thickness_m), np.full(d, sealed.curvature), np.array(sealed.water_fraction),
        np.array(sealed.dry_matter_fraction), np.full(d, sealed.density_kg_m3), np.array(sealed.diffusivity_m2_s),
        np.array(sealed.permeance_kg_m2_s_pa) * LETS_THROUGH[bag], np.full(d, sealed.sorption_x),
        np.array(sealed.half_diffusion_x),
    )  # fmt: skip


def even_out(shelf: Sequence[Resting], now_s: float, curves: bool = True) -> list[Evening]:
    """How far every piece of a shelf has evened out, all of them at once.

    Parameters: shelf, pieces at rest in any place; now_s [s]; curves, whether their windows along time are wanted.
    """
    if not shelf:
        return []
    days = np.concatenate([[0.0], np.geomspace(0.4, LONGEST_DAYS, STEPS)])
    each = [len(one.sealed.water_fraction) for one in shelf]
    ends = np.cumsum(each)
    bodies = [_bodies(one.sealed, one.bag) for one in shelf]
    joined = Bodies(**{name: np.concatenate([getattr(b, name) for b in bodies]) for name in vars(bodies[0])})
    since = np.array([one.from_s for one in shelf])
    # one point of the grid lies at now, so that nothing is told from a step that lies ahead in part
    grid = np.sort(np.concatenate([np.repeat(days[:, None], len(shelf), axis=1) * SECONDS_PER_DAY,
                                   np.maximum(now_s - since, 0.0)[None]]), axis=0)  # fmt: skip
    grid = grid + np.arange(len(grid))[:, None] * 1e-3  # never two points at once
    air = [one.air.means(grid[:, i : i + 1] + one.from_s) for i, one in enumerate(shelf)]
    spread = np.repeat(np.arange(len(shelf)), each)
    saturation, vapour, arrhenius = (np.concatenate([a[k] for a in air], axis=1)[:, spread] for k in range(3))
    start = np.concatenate([np.array(one.sealed.x) for one in shelf], axis=1)
    drivers = Drivers(grid[:, spread], saturation, vapour, arrhenius, np.ones_like(saturation))
    profiles = dry(joined, drivers, start, keep=True).profiles
    assert profiles is not None
    return [
        _evening(one, grid[:, i], profiles[:, :, ends[i] - each[i] : ends[i]], now_s, curves)
        for i, one in enumerate(shelf)
    ]


def _evening(resting: Resting, since_s: Array, profiles: Array, now_s: float, curves: bool) -> Evening:
    """One piece, from its profiles (times, shells, d)."""
    at = since_s + resting.from_s
    rim, core = rim_and_core(np.moveaxis(profiles, 1, 0))  # (times, d) each
    weight = np.ones(profiles.shape[2])
    seen = [f for f in resting.feels if resting.from_s <= f.at_s <= now_s]
    for feel in seen[-1:]:
        j = int(np.clip(np.searchsorted(at, feel.at_s), 0, len(at) - 1))
        weight *= how_believable(feel.rim, rim[j]) * how_believable(feel.core, core[j])
    now = int(np.abs(at - now_s).argmin())
    ring = np.clip(1 - rim / core, 0.0, 1.0)
    dates = weighted_quantiles(_even_from(at, ring)[:, None], weight[:, None])[:, 0]
    earliest, best, late = (float(d) if np.isfinite(d) else None for d in dates)
    middle = profiles @ weight / weight.sum()  # (times, shells)
    rim_now, core_now = (float(v) for v in rim_and_core(middle[now]))
    begun = ring_index(middle[0])
    lost_g = None if resting.sealed_g is None or not resting.weighed else resting.sealed_g - resting.weighed[-1][1]
    return Evening(
        state=_state(seen[-1] if seen else None, _leaks(resting, lost_g), best, now_s),
        earliest_s=earliest,
        best_s=best,
        late_s=late,
        rim_x=rim_now,
        core_x=core_now,
        rim_feels=feels(rim_now),
        core_feels=feels(core_now),
        x=tuple(middle[now].tolist()),
        gone_share=1.0 if begun <= 0 else float(np.clip(1 - ring_index(middle[now]) / begun, 0.0, 1.0)),
        lost_g=lost_g,
        warm=resting.bag == "vacuum" and resting.air.ahead_temperature_c > WARM_C,
        curve_s=at,
        rim=_bands(rim, weight) if curves else NOTHING,
        core=_bands(core, weight) if curves else NOTHING,
    )


def _even_from(at: Array, ring: Array) -> Array:
    """From when on rim and core differ by no more than a hand can tell [s], (d,); inf where not within the times.

    Parameters: at [s] (times,); ring index (times, d).
    """
    even = ring <= EVEN_AT_RING_INDEX
    j = np.argmax(even, axis=0)
    before = np.maximum(j - 1, 0)
    column = np.arange(ring.shape[1])
    high, low = ring[before, column], ring[j, column]
    share = np.where(high > low, (high - EVEN_AT_RING_INDEX) / np.maximum(high - low, 1e-12), 1.0)
    first = at[before] + np.clip(share, 0.0, 1.0) * (at[j] - at[before])
    return np.where(even.any(axis=0), first, np.inf)


def _bands(values: Array, weight: Array) -> Array:
    """10, 50 and 90 % over the draws at each time, (3, times). Parameters: values (times, d); weight (d,)."""
    return weighted_quantiles(values[:, :, None], np.broadcast_to(weight[None, :, None], (*values.shape, 1)))[:, :, 0]


def _leaks(resting: Resting, lost_g: float | None) -> bool:
    """Whether a bag that should be tight lost weight."""
    if resting.bag != "vacuum" or lost_g is None or resting.sealed_g is None:
        return False
    return lost_g > max(LEAK_G, LEAK_PERCENT / 100 * resting.sealed_g)


def _state(last: Feel | None, leaks: bool, best_s: float | None, now_s: float) -> RestState:
    if leaks:
        return "leaks"
    if last is not None and last.soft_core:
        return "soft"
    if last is not None and last.core is not None and last.rim == last.core:
        return "even"
    return "likely" if best_s is not None and best_s <= now_s else "evening"
