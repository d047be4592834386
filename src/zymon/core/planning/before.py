"""What comes between the start of a batch and its hook: in salt, resting cold, in the warm; each as what it is.

An elastic step may be stretched and does no harm, a firm one takes what it takes. What is not known of them is drawn.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from ..drying.draws import even_normals
from ..drying.forecast import DRAWS
from ..fermentation.curve import Fermentation
from ..fermentation.particles import weigh_falls
from ..salting.bag import Bag
from ..salting.clock import salt_clocks
from ..salting.ways import kind_of
from ..schedule import Elasticity

Array = npt.NDArray[np.float64]
PartKind = Literal["salt", "cold", "warm"]

LONGEST_WARM_H = 72.0  # nobody waits longer for a pH that does not come; estimate of practice
LEAST_WARM_H = 12.0  # nobody takes goods out of the warm sooner; estimate of practice
NORMAL_P90 = 1.2816  # standard deviations to the ninth tenth of a normal
# grams of a block that thaw a day in a fridge, and the longest in days; estimates
THAWED_A_DAY_G, LONGEST_THAW_DAYS = 2500.0, 5
HOUR_S = 3600.0
SALT_COLUMN, WARM_SEED = 0, 4


@dataclass(frozen=True)
class Part:
    """A step between the start and the hook, with how long it takes in each future [s] (draws,)."""

    kind: PartKind
    elasticity: Elasticity
    takes_s: Array

    @property
    def usual_s(self) -> float:
        """How long it takes in the middle [s]."""
        return float(np.median(self.takes_s))


def in_salt(bag: Bag, draws: int = DRAWS) -> Part:
    """Its time in salt: with a dose until its rule and its core are there, with free salt until its aim.

    Parameters: bag, as it would be salted; draws [-], even. With a dose the core is as quick or slow as salt in such
    meat is; a piece in free salt comes out on its day, whatever its core does.
    """
    clock = salt_clocks([bag], bag.in_s)[0]
    best_s = (clock.best_s or bag.in_s) - bag.in_s
    kind = kind_of(bag.laid.way, bag.laid.free_salt)
    takes = np.full(draws, best_s)
    _, usual, slow = clock.core_reached_s
    if kind == "elastic" and usual is not None and slow is not None and "diffusion" in bag.rules:
        usual_s, slow_s = usual - bag.in_s, slow - bag.in_s
        spread = np.log(max(slow_s / usual_s, 1.0)) / NORMAL_P90
        takes = np.maximum(takes, usual_s * np.exp(spread * _normals(draws, SALT_COLUMN)))
    return Part("salt", kind, np.ceil(takes / SECONDS_PER_DAY) * SECONDS_PER_DAY)  # it is looked at day by day


def resting_cold(hours: float, draws: int = DRAWS) -> Part:
    """A rest in the cold before the hook, which may last longer. Parameters: hours [h]; draws [-]."""
    return Part("cold", "elastic", np.full(draws, hours * HOUR_S))


def in_the_warm(batch: Fermentation, draws: int = DRAWS) -> tuple[Part, bool]:
    """Its time in the warm until the target pH, among the futures that get there; and whether any does.

    Parameters: batch, as it would be put into the warm, nothing measured; draws [-]. What can get there in no future,
    for want of sugar or warmth, is taken out after three days.
    """
    falls = weigh_falls(batch)
    hours = falls.hour_of(batch.target_ph)
    there = np.isfinite(hours)
    if not there.any():
        return Part("warm", "firm", np.full(draws, LONGEST_WARM_H * HOUR_S)), False
    order = np.argsort(hours[there])
    share = np.cumsum(falls.weight[there][order])
    at = np.searchsorted(share, (np.arange(draws) + 0.5) / draws * share[-1])
    found = np.maximum(hours[there][order][np.minimum(at, there.sum() - 1)], LEAST_WARM_H)
    return Part("warm", "firm", np.random.default_rng(WARM_SEED).permutation(found) * HOUR_S), True


def thaw_days(heaviest_g: float) -> int:
    """Days in the fridge until frozen meat can be cut. Parameters: heaviest_g [g] above 0, of the heaviest piece.

    Estimate of practice: a day for every 2.5 kg that freeze together, never less than one, and five for the heaviest.

    >>> thaw_days(2500), thaw_days(2600)
    (1, 2)
    """
    return int(np.clip(np.ceil(heaviest_g / THAWED_A_DAY_G), 1, LONGEST_THAW_DAYS))


def hook_after(parts: Sequence[Part], at_least_s: float = 0.0, draws: int = DRAWS) -> Array:
    """How long after the start a batch is hung in each future [s] (draws,): its steps one after the other.

    Parameters: parts; at_least_s [s], to which an elastic step is stretched; draws [-].
    """
    takes = sum((part.takes_s for part in parts), np.zeros(draws))
    return np.asarray(np.maximum(takes, at_least_s) if stretches(parts) else takes)


def stretches(parts: Sequence[Part]) -> bool:
    """Whether a batch may wait before its hook: one of its steps is elastic. Parameters: parts."""
    return any(part.elasticity == "elastic" for part in parts)


def _normals(draws: int, column: int) -> Array:
    """Normals that go with no other of a plan, always the same (draws,)."""
    return np.asarray(np.random.default_rng((column, 5)).permutation(even_normals(draws, 1)[:, 0]))
