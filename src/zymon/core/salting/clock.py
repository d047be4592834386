"""When a piece comes out of the salt: the rules of thumb beside what diffusion says, and the window they make.

Measured salt is a finite reservoir that levels off at its dose; free salt holds the rim at strong brine, so that the
mean rises without end. Both come out of one calculation, under the temperature the place really had.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from ..curing import RULES, cure_days
from .bag import DIFFUSIVITY_M2_S, DIFFUSIVITY_SPREAD, PIERCED, Bag
from .front import GEOMETRIES, Outside, TakenUp, modes_of, take_up
from .ways import REGISTRY, Kind, is_free, kind_of

Array = npt.NDArray[np.float64]

BRINE = 0.26  # salt in strong brine, by weight
MEAT_WATER = 0.70  # mass fraction; usual of whole muscle with its fat
RIM_PERCENT = 100 * BRINE * MEAT_WATER  # most that a wetted rim can hold
# Under free salt only part of the rim is wet: brine drains off and the rim dries. Estimate, set so that the hours and
# days that makers report give the saltiness they report: small cuts two to three days, a leg a month.
CONTACT = 0.5
CONTACT_SPREAD = 1.15  # factor either way that holds four in five of how wet a rim lies; estimate
STICKS_SPREAD = 1.35  # the same of what sticks to a rubbed piece; estimate
LIQUID = 0.06  # brine in the bag, by volume of meat
WASH_VOLUMES = 8.0  # water of a soak, by volume of meat
CORE_REACHED, CORE_HALF = 0.8, 0.5  # share of the final level at the centre
LITTLE, MUCH = 0.85, 1.35  # of the aim: under it too mild, over it too salty
DAYS_PER_CM2 = 0.62  # in which the slowest core of a slab has its salt
POINTS = 52
SPREAD = np.array([1 / DIFFUSIVITY_SPREAD, 1.0, DIFFUSIVITY_SPREAD])  # slow, usual, fast


@dataclass(frozen=True)
class RuleDay:
    """What one rule says: days from the putting in, and the moment."""

    name: str
    says: str
    days: float | None
    at_s: float | None
    chosen: bool


@dataclass(frozen=True)
class SaltClock:
    """Where the salt of a piece is, and when it comes out. Levels in % of the meat; curves from the putting in."""

    kind: Kind
    mean_percent: float
    mean_low_percent: float  # four in five times it is more; the mean itself where the dose was weighed
    mean_high_percent: float  # four in five times it is less
    core_percent: float
    core_share: float  # of the level it will settle at
    final_percent: float
    earliest_s: float | None
    best_s: float | None
    latest_s: float | None  # None: it may wait
    core_reached_s: tuple[float | None, float | None, float | None]  # fast, usual, slow
    rules: tuple[RuleDay, ...]
    leads: str  # the rule the day comes from; "aim" with free salt
    curve_s: Array
    mean: Array
    core: Array
    core_low: Array
    core_high: Array
    radius: Array  # of the shells, 0 in the middle
    profile: Array  # salt of the shells now [%]

    def at(self, at_s: float) -> tuple[float, float]:
        """Mean and core salt at a time [%]. Parameters: at_s [s]."""
        return float(np.interp(at_s, self.curve_s, self.mean)), float(np.interp(at_s, self.curve_s, self.core))


def salt_clocks(bags: Sequence[Bag], now_s: float) -> list[SaltClock]:
    """The clock of every piece in salt.

    Parameters: bags, of any geometry and place; now_s [s]. Source: see the module; rules of thumb of `curing`.
    """
    if not bags:
        return []
    marks = 1 + max(len(_own_times(bag)) for bag in bags)
    times = np.array([_times(bag, now_s, marks) for bag in bags]).T  # (m+1, n)
    warmth = np.stack([bag.cold.warmth(times[:, i]) for i, bag in enumerate(bags)], axis=1)
    half_m = np.array([bag.across_mm for bag in bags]) / 2000
    lean = np.array([1 - bag.fat_percent / 100 for bag in bags])
    bare = np.array([1 - bag.skin_share for bag in bags])
    pierced = np.array([PIERCED if bag.pierced else 1.0 for bag in bags])
    fourier = (warmth - warmth[0]) * DIFFUSIVITY_M2_S * pierced * lean * (bare / half_m) ** 2
    geometry = np.array([GEOMETRIES.index(bag.geometry) for bag in bags], dtype=np.int64)
    outside = _outside(bags, times)
    spread = (fourier[:, None, :] * SPREAD[:, None]).reshape(len(fourier), -1)  # slow, usual and fast side by side
    found = take_up(np.tile(geometry, 3), spread, outside.repeated(3))
    return [_clock(bag, i, len(bags), times[:, i], found, now_s) for i, bag in enumerate(bags)]


def _own_times(bag: Bag) -> list[float]:
    """The moments at which something changed for the salt."""
    return [s.at_s for s in bag.steps[1:]] + [s.at_s + s.hours * 3600 for s in bag.steps if s.kind == "soak"]


def _times(bag: Bag, now_s: float, marks: int) -> Array:
    """The moments looked at: dense at first; among them, filled up to `marks`, now and every step."""
    from_s = bag.in_s
    core_slow = DAYS_PER_CM2 * (bag.across_mm / 10 / (1 - bag.skin_share)) ** 2 / (1 - bag.fat_percent / 100)
    days = max(1.35 * max(_rule_days(bag, name) for name in RULES), core_slow, 2.0)
    if bag.out_s is not None:
        days = max((bag.out_s - from_s) / SECONDS_PER_DAY + 1, 1.0)
    days = max(days, (now_s - from_s) / SECONDS_PER_DAY * 1.2)
    grid = from_s + np.linspace(0, 1, POINTS) ** 2 * days * SECONDS_PER_DAY
    own = _own_times(bag)
    return np.sort(np.concatenate([grid, own, np.full(marks - len(own), max(now_s, from_s))]))


def _outside(bags: Sequence[Bag], times: Array) -> Outside:
    steps, n = len(times) - 1, len(bags)
    ceiling = np.full((steps, n), RIM_PERCENT)
    brine = np.full((steps, n), LIQUID)
    added = np.zeros((steps, n))
    free = np.zeros((steps, n), dtype=bool)
    washed = np.zeros((steps, n), dtype=bool)
    for i, bag in enumerate(bags):
        begin = times[:-1, i]
        for step in bag.steps:
            first = min(int(np.searchsorted(begin, step.at_s - 0.5)), steps - 1)
            washed[first, i] = washed[first, i] or first > 0
            free[first:, i] = False
            if step.kind == "lay":
                loose = is_free(step.way, step.free_salt)
                ceiling[first:, i] = RIM_PERCENT * (CONTACT if loose else 1.0)
                brine[first:, i] = LIQUID
                free[first:, i] = loose
                added[first, i] = 0.0 if loose else step.percent * (1 + LIQUID)
            elif step.kind == "soak":
                last = int(np.searchsorted(begin, step.at_s + step.hours * 3600 - 0.5))
                brine[first:last, i] = WASH_VOLUMES
                if last < steps:
                    washed[last, i] = True
                    brine[last:, i] = 0.0
            else:
                brine[first:, i] = 0.0
    return Outside(ceiling, brine, added, free, washed)


def _rule_days(bag: Bag, name: str) -> float:
    return cure_days(name, bag.across_mm, bag.weight_g / 1000, bag.margin_percent, bag.geometry)


def _when(times: Array, values: Array, level: float) -> float | None:
    """First time at which values reach a level, or None."""
    past = values >= level
    if not past.any():
        return None
    j = int(np.argmax(past))
    if j == 0:
        return float(times[0])
    share = (level - values[j - 1]) / max(values[j] - values[j - 1], 1e-12)
    return float(times[j - 1] + share * (times[j] - times[j - 1]))


@dataclass(frozen=True)
class _Window:
    earliest_s: float | None
    best_s: float | None
    latest_s: float | None
    rules: tuple[RuleDay, ...]
    leads: str


def _free_window(bag: Bag, times: Array, mean: Array) -> _Window:
    early, best, late = (_when(times, mean, share * bag.laid.percent) for share in (LITTLE, 1.0, MUCH))
    return _Window(early, best, late, tuple(_rule(bag, name, chosen=False) for name in RULES), "aim")


def _dose_window(bag: Bag, times: Array, core: Array, reached_s: float | None) -> _Window:
    says = f"core at {100 * CORE_REACHED:.0f} % of the level it settles at"
    days = None if reached_s is None else (reached_s - bag.in_s) / SECONDS_PER_DAY
    rules = (
        *(_rule(bag, name, name in bag.rules) for name in RULES),
        RuleDay("diffusion", says, days, reached_s, "diffusion" in bag.rules),
    )
    dated = [r for r in rules if r.at_s is not None]
    leads = max([r for r in dated if r.chosen] or dated, key=lambda r: r.at_s or 0.0)
    best_s = leads.at_s or bag.in_s
    half_s = _when(times, core, CORE_HALF * bag.laid.percent)
    more = REGISTRY[bag.laid.way].latest_days_more
    latest_s = None if more is None else best_s + more * SECONDS_PER_DAY
    return _Window(min(half_s or best_s, best_s), best_s, latest_s, rules, leads.name)


def _clock(bag: Bag, i: int, n: int, times: Array, found: TakenUp, now_s: float) -> SaltClock:
    slow, usual, fast = i, n + i, 2 * n + i
    mean, core = found.mean[:, usual], np.maximum(found.centre[:, usual], 0.0)
    now = int(np.searchsorted(times, min(max(now_s, times[0]), times[-1]) - 0.5))
    settled_s = now_s if bag.out_s is None else bag.out_s
    settles = bag.free or bag.out_s is not None  # at what it has taken up by then, else at its dose
    final = max(float(np.interp(settled_s, times, mean)), 1e-9) if settles else bag.laid.percent
    reached = [_when(times, found.centre[:, k], CORE_REACHED * bag.laid.percent) for k in (fast, usual, slow)]
    low, high = _mean_range(bag, found.mean[now, slow], mean[now], found.mean[now, fast])
    window = _free_window(bag, times, mean) if bag.free else _dose_window(bag, times, core, reached[1])
    return SaltClock(
        kind=kind_of(bag.laid.way, bag.laid.free_salt),
        mean_percent=float(mean[now]),
        mean_low_percent=low,
        mean_high_percent=high,
        core_percent=float(core[now]),
        core_share=float(np.clip(core[now] / final, 0.0, 2.0)),
        final_percent=final,
        earliest_s=window.earliest_s,
        best_s=window.best_s,
        latest_s=window.latest_s,
        core_reached_s=(reached[0], reached[1], reached[2]),
        rules=window.rules,
        leads=window.leads,
        curve_s=times,
        mean=mean,
        core=core,
        core_low=np.maximum(found.centre[:, slow], 0.0),
        core_high=np.maximum(found.centre[:, fast], 0.0),
        radius=modes_of(bag.geometry).radius,
        profile=np.maximum(found.shells(now, usual, bag.geometry), 0.0),
    )


def _mean_range(bag: Bag, slow: float, usual: float, fast: float) -> tuple[float, float]:
    """Between which means of salt a piece lies four times in five [%]: as far as nobody weighed what it took up."""
    if bag.dose_is_known:
        return float(usual), float(usual)
    if bag.free:
        return float(slow) / CONTACT_SPREAD, float(fast) * CONTACT_SPREAD
    return float(usual) / STICKS_SPREAD, float(usual) * STICKS_SPREAD


def _rule(bag: Bag, name: str, chosen: bool) -> RuleDay:
    days = _rule_days(bag, name)
    return RuleDay(name, RULES[name].says, days, bag.in_s + days * SECONDS_PER_DAY, chosen)
