"""What dried the rim of a piece ahead of its middle: its first weeks on the hook, measured for the table of causes."""

import math

import numpy as np

from ..causes.records import Measured
from ..causes.table import MARKS
from ..constants import SECONDS_PER_DAY
from .climate import Log
from .forecast import Fitted


def mean_rh(log: Log, from_s: float, to_s: float) -> float | None:
    """Mean humidity of a log between two moments [%], None without readings. Parameters: log; from_s, to_s [s]."""
    log = log.of_humidity
    there = log.rh_percent[(log.time_s >= from_s) & (log.time_s <= to_s)]
    return float(there.mean()) if len(there) else None


def first_weeks(place: Fitted, index: int) -> dict[str, Measured]:
    """How the first weeks of a piece on its hook went; what nobody recorded is not among it.

    Parameters: place, the fitted place; index, of the piece.
    """
    piece, now_s = place.arrays.pieces[index], place.arrays.now_s
    until_s = min(now_s, piece.hung_at_s + MARKS["first_weeks_days"] * SECONDS_PER_DAY)
    found: dict[str, Measured] = {}
    rh = mean_rh(place.history.log, piece.hung_at_s, until_s)
    if rh is not None or any(w.at_s <= now_s for w in piece.weighings):
        found |= _hurry(place, index, until_s)
    setpoint = place.history.setpoint_rh_percent
    if rh is not None and setpoint is not None:
        found["air_under"] = Measured(setpoint - rh, {"points": round(setpoint - rh), "rh_percent": round(rh)})
    if piece.stays and found:
        air = place.air_at(piece.stays[0].hook)
        found["hook_air"] = Measured(air, {"air": round(air, 1)})
    return found


def _hurry(place: Fitted, index: int, until_s: float) -> dict[str, Measured]:
    """How much faster it went than gentle air would have gone (ln)."""
    c = place.arrays
    days = (until_s - c.pieces[index].hung_at_s) / SECONDS_PER_DAY
    if days < 1:
        return {}
    lost = place.forecasts[index].loss_at(until_s)[1]
    gentle_days = float(np.interp(lost, c.gentle[:, index], c.time_s[:, index])) / SECONDS_PER_DAY
    says = {"loss_percent": round(100 * lost), "days": round(days), "gentle_days": round(gentle_days)}
    return {"hurry": Measured(math.log(max(gentle_days, 0.1) / days), says)}
