"""What dried the rim of a piece ahead of its middle: the stages it went through, weighed on its own records."""

import math

import numpy as np

from ..constants import SECONDS_PER_DAY
from ..say import Said, said
from .climate import Log
from .forecast import Fitted

FIRST_WEEKS_DAYS = 14.0
WARM_DRY_RH = 80.0  # a warm stage under this dries the skin before anything has soured; usual practice is 85–95 %
HURRIED = 1.5  # times as fast as gentle air in its first weeks, from which they are to blame
OFF_POINTS = 3.0  # points of humidity off the set point that are worth saying
STRONG_HOOK = 1.1  # times the usual air, from which a hook is worth saying


def pull_of_air(rh_percent: float, set_percent: float) -> float:
    """How much harder drier air pulls at a piece than the air that was set (ln).

    Parameters: rh_percent, set_percent [%].

    >>> round(pull_of_air(60, 80), 2)
    0.69
    """
    return math.log(max(100 - rh_percent, 1.0) / max(100 - set_percent, 1.0))


def mean_rh(log: Log, from_s: float, to_s: float) -> float | None:
    """Mean humidity of a log between two moments [%], None without readings. Parameters: log; from_s, to_s [s]."""
    there = log.rh_percent[(log.time_s >= from_s) & (log.time_s <= to_s)]
    return float(there.mean()) if len(there) else None


def dried_by(of: Fitted, index: int, warm_rh_percent: float | None, warm_hours: float) -> tuple[Said, ...] | None:
    """What dried the rim ahead of the middle, the likeliest first; None where nothing was recorded that could tell.

    Parameters: of, the fitted place; index, of the piece; warm_rh_percent [%], the mean of its warm stage, None where
    it had none or nobody logged it; warm_hours [h], how long that took.
    """
    piece, now_s = of.arrays.pieces[index], of.arrays.now_s
    found: list[tuple[float, Said]] = []
    if warm_rh_percent is not None and warm_rh_percent < WARM_DRY_RH:
        weight = pull_of_air(warm_rh_percent, WARM_DRY_RH) * min(warm_hours / 24, 2.0)
        found.append((weight, said("because.warm_dry", rh_percent=round(warm_rh_percent), hours=round(warm_hours))))
    until_s = min(now_s, piece.hung_at_s + FIRST_WEEKS_DAYS * SECONDS_PER_DAY)
    weighed = any(w.at_s <= now_s for w in piece.weighings)
    rh = mean_rh(of.history.log, piece.hung_at_s, until_s)
    if weighed or rh is not None:
        found += _first_weeks(of, index, until_s)
    setpoint = of.history.setpoint_rh_percent
    if rh is not None and setpoint is not None and setpoint - rh > OFF_POINTS:
        found.append((pull_of_air(rh, setpoint), said("because.air_under", points=round(setpoint - rh))))
    air = of.air_at(piece.stays[0].hook) if piece.stays else 1.0
    if air > STRONG_HOOK:
        found.append((math.log(air), said("because.hook_strong", air=round(air, 1))))
    if not found and rh is None and not weighed and warm_rh_percent is None:
        return None
    return tuple(reason for _, reason in sorted(found, key=lambda one: -one[0]))


def _first_weeks(of: Fitted, index: int, until_s: float) -> list[tuple[float, Said]]:
    """That its first weeks went faster than gentle air would have gone."""
    c = of.arrays
    days = (until_s - c.pieces[index].hung_at_s) / SECONDS_PER_DAY
    lost = of.forecasts[index].loss_at(until_s)[1]
    gentle_days = float(np.interp(lost, c.gentle[:, index], c.time_s[:, index])) / SECONDS_PER_DAY
    if days < 1 or gentle_days < HURRIED * days:
        return []
    values = {"loss_percent": round(100 * lost), "days": round(days), "gentle_days": round(gentle_days)}
    return [(math.log(gentle_days / days), said("because.first_weeks", **values))]
