"""How a place is kept lately: the mean of the days like its last ones, not of those before a knob was turned."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY

Array = npt.NDArray[np.float64]

HABIT_DAYS = 21.0  # how far back the habit of the place is looked for
NEAR_C, NEAR_RH = 4.0, 12.0  # readings further off the set point are a door, an outage or another set point
# A day whose mean differs by this much from those after it was kept otherwise; knobs are turned by more, and the mean
# of a day strays by less; estimate from logs of chambers
JUMP_C, JUMP_RH = 1.5, 6.0


@dataclass(frozen=True)
class Habit:
    """Days that tell how a place is kept now, and their mean [°C, %]; the mean means nothing where there are none."""

    days: int
    temperature_c: float
    rh_percent: float
    readings: int = 0


def habit_of(
    time_s: Array,
    temperature_c: Array,
    rh_percent: Array,
    now_s: float,
    setpoint_c: float | None,
    setpoint_rh_percent: float | None,
) -> Habit:
    """The habit of a place.

    Parameters: time_s [s], temperature_c [°C], rh_percent [%]: the log (k,), none of it after now_s [s];
    setpoint_c [°C] and setpoint_rh_percent [%], None when not known: then all of the last weeks count.
    """
    setpoint = None
    if setpoint_c is not None and setpoint_rh_percent is not None:
        setpoint = np.array([setpoint_c, setpoint_rh_percent])
    use = time_s >= now_s - HABIT_DAYS * SECONDS_PER_DAY
    if setpoint is not None:
        use &= (np.abs(temperature_c - setpoint[0]) < NEAR_C) & (np.abs(rh_percent - setpoint[1]) < NEAR_RH)
    ago = ((now_s - time_s) // SECONDS_PER_DAY).astype(np.int64)
    days = [int(day) for day in np.unique(ago[use])]
    if setpoint is not None and len(days) > 1:
        each = np.array([[a[use & (ago == day)].mean() for a in (temperature_c, rh_percent)] for day in days])
        days = [days[i] for i in _kept_alike(each, setpoint)]
        use &= np.isin(ago, days)
    if not days:
        return Habit(0, 0.0, 0.0)
    return Habit(len(days), float(temperature_c[use].mean()), float(rh_percent[use].mean()), int(use.sum()))


def _kept_alike(each: Array, setpoint: Array) -> list[int]:
    """Which days, newest first, were kept as the last ones were; each (days, 2) holds their means [°C, %].

    One odd day is left out. Of two ways of keeping the one nearer the set point is the present one: what came before
    it was another set point, what came after it an outage.
    """
    unit = np.array([JUMP_C, JUMP_RH])
    kept: list[int] = []
    for i in range(len(each)):
        if kept:
            centre = each[kept].mean(axis=0)
            if _differ(each[i], centre):
                if not _differ(each[min(i + 1, len(each) - 1)], centre):
                    continue
                if np.linalg.norm((centre - setpoint) / unit) <= np.linalg.norm((each[i] - setpoint) / unit):
                    break
                kept = []
        kept.append(i)
    return kept


def _differ(day: Array, centre: Array) -> bool:
    return bool(np.any(np.abs(day - centre) > (JUMP_C, JUMP_RH)))
