"""For which goods a place suits, by its own log; and whether its air has changed for everything that hangs there."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from .bench.families import FAMILIES, Family
from .constants import SECONDS_PER_DAY
from .drying.climate import Log

Array = npt.NDArray[np.float64]
Verdict = Literal["fit", "with_care", "unfit"]
Fault = Literal["warm", "cold", "damp", "dry"]

AROUND_C, AROUND_RH = 4.0, 9.0  # of the usual climate of a family, within which it dries well
SPOILS_C, SPOILS_SHARE = 5.0, 0.03  # over the usual, and for how much of the time, from which it is no place for it
FIT_SHARE, CARE_SHARE = 0.75, 0.4  # shares of the time within what the goods want; estimates
LONGEST_GAP_S = 3 * 3600.0  # seconds; a longer silence is not counted as either
LATELY_S, BEFORE_S = 2 * SECONDS_PER_DAY, 14 * SECONDS_PER_DAY
SHIFT_LOOK_S = LATELY_S + BEFORE_S  # how much of the log `shift` looks at
SHIFT_C, SHIFT_RH = 1.5, 4.0  # changes of the mean that goods notice; estimates


@dataclass(frozen=True)
class Suits:
    """How a place suits a family: share of its hours that do, and what mostly does not (None: nothing)."""

    family: str
    verdict: Verdict
    share: float
    mostly: Fault | None
    mostly_share: float


def suits(log: Log) -> list[Suits]:
    """For every family how a place would suit, the best first; empty without a log of a day.

    Parameters: log, of the place. Source: usual climates of the families, estimate of practice.
    """
    log = log.of_humidity
    if len(log.time_s) < 2:
        return []
    hours = np.append(np.minimum(np.diff(log.time_s), LONGEST_GAP_S), 0.0) / 3600
    if hours.sum() < 24:
        return []
    weight = hours / hours.sum()
    found = [_suits(f, weight, log.temperature_c, log.rh_percent) for f in FAMILIES]
    return sorted(found, key=lambda s: (("fit", "with_care", "unfit").index(s.verdict), -s.share))


def _suits(family: Family, weight: Array, c: Array, rh: Array) -> Suits:
    off_c, off_rh = c - family.temperature_c, rh - family.rh_percent
    off: dict[Fault, float] = {
        "warm": float(weight[off_c > AROUND_C].sum()),
        "cold": float(weight[off_c < -AROUND_C].sum()),
        "damp": float(weight[off_rh > AROUND_RH].sum()),
        "dry": float(weight[off_rh < -AROUND_RH].sum()),
    }
    share = float(weight[(np.abs(off_c) <= AROUND_C) & (np.abs(off_rh) <= AROUND_RH)].sum())
    mostly = max(off, key=lambda fault: off[fault])
    spoils = float(weight[off_c > SPOILS_C].sum()) > SPOILS_SHARE
    verdict: Verdict = "unfit" if spoils or share < CARE_SHARE else "fit" if share >= FIT_SHARE else "with_care"
    return Suits(family.id, verdict, share, mostly if off[mostly] > 0.02 else None, off[mostly])


@dataclass(frozen=True)
class Shift:
    """That the air of a place has changed, the last two days against two weeks before; None where it has not."""

    by_c: float | None
    by_rh_percent: float | None


def shift(log: Log, now_s: float) -> Shift | None:
    """Whether the air changed for everything that hangs there; None when it did not, or nobody can tell.

    Parameters: log, of the place; now_s [s]. A single piece that dries otherwise is no change of the air.
    """
    lately = (log.time_s > now_s - LATELY_S) & (log.time_s <= now_s)
    before = (log.time_s > now_s - LATELY_S - BEFORE_S) & (log.time_s <= now_s - LATELY_S)
    if lately.sum() < 24 or before.sum() < 72:
        return None
    by_c = float(log.temperature_c[lately].mean() - np.median(log.temperature_c[before]))
    humid = np.isfinite(log.rh_percent)
    told = (lately & humid).any() and (before & humid).any()
    by_rh = float(log.rh_percent[lately & humid].mean() - np.median(log.rh_percent[before & humid])) if told else 0.0
    c, rh = abs(by_c) >= SHIFT_C, abs(by_rh) >= SHIFT_RH
    return Shift(by_c if c else None, by_rh if rh else None) if c or rh else None
