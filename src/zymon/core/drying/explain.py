"""What a date rests on, how much is still open, and what would narrow it most.

The date is taken as linear in what is unknown, near the fitted values: then variances add, and each source has a
share of its own. Shares say how much the date leans on a source, not how good the source is.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from .arrays import Arrays, Future, crossing
from .climate import FUTURE_SD_C, FUTURE_SD_RH
from .fit import STEPS
from .forecast import Fitted, drift_sd
from .geometry import SIZE_SD_MEASURED
from .priors import DECLARED_FAT_SD, KINDS, SIZE, WATER_IN_LEAN

Array = npt.NDArray[np.float64]
Help = Literal["weigh", "log_air", "measure", "fat"]

AIR_STEPS = np.array([0.5, 1.0, 0.04])  # finite differences of the air ahead [°C, %] and of the drift of the pace (ln)
WORTH_SAYING = 0.93  # a help that leaves more of the window than this is not worth the walk
WORTH_DAYS, WORTH_DAYS_SHORT, SHORT_DAYS = 1.0, 0.25, 3.0  # nor is one that spares less than this, of a short window


@dataclass(frozen=True)
class Narrowing:
    """Something the maker can do, and how wide the 80 % window would be expected to be after it [days]."""

    by: Help
    window_days: float


@dataclass(frozen=True)
class Explained:
    """What the date of a piece rests on. The first three shares sum to 1; air_share is of what is still open."""

    prior_share: float
    own_share: float
    mates_share: float
    air_share: float
    own_weighings: int
    mates_weighed: int
    window_days: float | None  # None when the target is out of reach
    narrowing: tuple[Narrowing, ...]  # what helps most comes first


def explain(place: Fitted, index: int) -> Explained:
    """Tell what the date of a piece rests on and what would narrow it.

    Parameters: place, the fitted place; index, of the piece in its history.
    Returns Explained; where the date does not exist, shares are told of the loss in a month's time.
    """
    c = place.arrays
    piece = c.pieces[index]
    date, seen, falling = _slopes(place, index)
    on_date, on_air = date[: len(STEPS)], date[len(STEPS) :]
    tree = c.tree
    prior = tree.workshop_cov + tree.batch_cov[tree.batch_of[index]] + tree.piece_cov[index]
    own = np.linalg.solve(np.eye(len(prior)) + prior @ place.information[index], prior)
    now = tree.covariance(place.information, place.vector, index)
    v_prior, v_own, v_now = (max(float(on_date @ cov @ on_date), 1e-12) for cov in (prior, own, now))
    v_own, v_now = min(v_own, v_prior), min(v_now, v_own, v_prior)
    air_sd = np.array([c.air.sd_c, c.air.sd_rh_percent])
    v_air = float(((on_air[:2] * air_sd) ** 2).sum())
    v_open = v_now + v_air + float((on_air[2] * drift_sd(c)[index]) ** 2)
    made = place.forecasts[index]
    window = None
    helps: list[Narrowing] = []
    if made.ready_p10_s is not None and made.ready_p90_s is not None:
        window = (made.ready_p90_s - made.ready_p10_s) / SECONDS_PER_DAY
        left = {
            "weigh": _weighed(on_date, now, seen, c, index),
            "log_air": 0.0 if c.air.logged else v_air - _logged(on_air),
            "measure": _known(on_date, SIZE * np.sqrt(_gained(c.size_sd[index], SIZE_SD_MEASURED)), v_prior, v_now),
            "fat": _known(on_date, _fat(piece.fat_percent is None, c, index), v_prior, v_now),
        }
        helps = [
            Narrowing(by, window * float(np.sqrt(max(v_open - less, 0.0) / v_open)))  # type: ignore[arg-type]
            for by, less in left.items()
        ]
    mates = [i for i in np.flatnonzero(tree.batch_of == tree.batch_of[index]) if i != index and c.used[i]]
    worth = [h for h in helps if window is not None and falling and _worth(window, h.window_days)]
    return Explained(
        prior_share=v_now / v_prior,
        own_share=1 - v_own / v_prior,
        mates_share=(v_own - v_now) / v_prior,
        air_share=v_air / v_open,
        own_weighings=int((place.good[: len(c.used[index]), index] >= 0.5).sum()),  # those believed
        mates_weighed=len(mates),
        window_days=window,
        narrowing=tuple(sorted(worth, key=lambda h: h.window_days)),
    )


def _worth(window_days: float, after_days: float) -> bool:
    least = WORTH_DAYS_SHORT if window_days < SHORT_DAYS else WORTH_DAYS
    return after_days < WORTH_SAYING * window_days and window_days - after_days >= least


def _slopes(place: Fitted, index: int) -> tuple[Array, Array, bool]:
    """Slope of ln date by the five parameters and the three of the air, of the loss now by the five; whether dry."""
    c = place.arrays
    alone = Arrays((c.pieces[index],), c.air, c.now_s, hook_air=c.hook_air)
    p = len(STEPS)
    steps = np.concatenate([STEPS, AIR_STEPS])
    moves = np.concatenate([np.zeros((1, p + 3)), np.diag(steps), -np.diag(steps)])
    theta = place.theta[index] + moves[:, None, :p]
    loss = alone.run(theta, Future(*moves[:, p:].T)).loss  # (m+1, 2(p+3)+1)
    time_s = np.repeat(alone.time_s, len(moves), axis=1)
    elapsed = max(c.now_s - c.pieces[index].hung_at_s, 0.0)
    day = np.array([np.interp(elapsed, alone.time_s[:, 0], column) for column in loss.T])
    cross = crossing(time_s, loss, np.full(len(moves), alone.target[0]))
    reached = bool(np.isfinite(cross[0]))
    month = np.array([np.interp(elapsed + 30 * SECONDS_PER_DAY, alone.time_s[:, 0], column) for column in loss.T])
    told = np.log(cross) if reached else np.log(np.maximum(month, 1e-6))
    k = len(steps)
    up, down = told[1 : k + 1], told[k + 1 :]
    up, down = np.where(np.isfinite(up), up, told[0]), np.where(np.isfinite(down), down, told[0])
    half = 1 + (up != told[0]) * (down != told[0])
    seen = (day[1 : p + 1] - day[k + 1 : k + 1 + p]) / (2 * STEPS)
    return (up - down) / (half * steps), seen, reached


def _weighed(on_date: Array, cov: Array, seen: Array, c: Arrays, index: int) -> float:
    """Variance of ln date that a weighing now would take away."""
    sd = float(c.w_sd_new[index])
    with_loss = float(on_date @ cov @ seen)
    return with_loss**2 / (float(seen @ cov @ seen) + sd**2)


def _logged(on_air: Array) -> float:
    return float((on_air[0] * FUTURE_SD_C) ** 2 + (on_air[1] * FUTURE_SD_RH) ** 2)


def _gained(sd: float, sd_after: float) -> float:
    return float(max(sd**2 - sd_after**2, 0.0))


def _fat(unknown: bool, c: Arrays, index: int) -> Array:
    direction = np.zeros(len(STEPS))
    if unknown:
        gained = _gained(KINDS[c.pieces[index].kind].fat_sd, DECLARED_FAT_SD)
        direction[2] = WATER_IN_LEAN / 100 * np.sqrt(gained)
    return direction


def _known(on_date: Array, direction: Array, v_prior: float, v_now: float) -> float:
    """Variance of ln date that knowing a declared value would take away, as far as weighings have not yet done so."""
    return float(on_date @ direction) ** 2 * (v_now / v_prior) ** 2
