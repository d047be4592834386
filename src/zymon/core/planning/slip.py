"""When reality slips: what is still in time, and what the customer should be told."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY

Array = npt.NDArray[np.float64]
Slip = Literal["not_begun", "slow", "lost"]

NOTICED = 0.1  # by so much the chance has to fall short of what was asked before anything is said
NEXT_TO_NONE = 0.02  # chance beneath which a day is not promised


@dataclass(frozen=True)
class Outlook:
    """How a planned batch stands: the chance that all of it is in time, how many pieces are with the chance asked,
    and by when all are with that chance [s], inf for never."""

    chance: float
    in_time: int
    all_by_s: float


def outlook(table_s: Array, by_s: float, asked: float) -> Outlook:
    """How a batch stands against its date.

    Parameters: table_s [s], when each piece is at the table in each future (draws, pieces); by_s [s], when it is
    wanted; asked [-], the chance that was asked for.
    """
    ranked = np.sort(table_s, axis=1)
    shares = (ranked <= by_s).mean(axis=0)  # that one piece, two pieces, … are in time
    slowest = np.sort(ranked[:, -1])
    at = int(np.ceil(asked * len(slowest) - 1e-9)) - 1
    return Outlook(float(shares[-1]), int((shares >= asked).sum()), float(slowest[at]))


def slip(now: Outlook, asked: float, start_s: float, begun: bool, now_s: float) -> Slip | None:
    """What has slipped; None while all goes as planned.

    Parameters: now, how it stands; asked [-], the chance asked for; start_s [s], when it was to be started; begun,
    whether it was; now_s [s]. A start later in the day is no slip.
    """
    if not begun:
        return "not_begun" if now_s > start_s + SECONDS_PER_DAY / 2 else None
    if now.chance <= NEXT_TO_NONE and not np.isfinite(now.all_by_s):
        return "lost"
    return "slow" if now.chance + NOTICED < asked - 1e-9 else None
