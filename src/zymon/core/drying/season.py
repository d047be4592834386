"""The seasons of a place that nobody controls: what the same weeks were like a year ago."""

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY

Array = npt.NDArray[np.float64]

YEAR_S, WEEK_S = 365.25 * SECONDS_PER_DAY, 7 * SECONDS_PER_DAY
WEEKS_AHEAD, LEAST_WEEKS = 26, 6
LEAST_DAYS_LOGGED = 3  # of a week, for its mean to stand for it
COMPARED_WEEKS = 3  # that this year is compared with the last one by


def season_ahead(time_s: Array, temperature_c: Array, rh_percent: Array, now_s: float) -> Array | None:
    """The weeks ahead as they were a year ago, moved by what this year differs now; None without a log of then.

    Parameters: time_s [s], temperature_c [°C], rh_percent [%]: the log (k,), none of it after now_s [s].
    Returns (3, weeks): middle of the week [s], °C, %; from now on without a gap, 6 to 26 weeks.
    """
    rows = np.stack([temperature_c, rh_percent])

    def mean(from_s: float, to_s: float) -> Array | None:
        chosen = (time_s >= from_s) & (time_s < to_s)
        days = len(np.unique((time_s[chosen] // SECONDS_PER_DAY).astype(np.int64)))
        return rows[:, chosen].mean(axis=1) if days >= LEAST_DAYS_LOGGED else None

    then = now_s - YEAR_S
    lately = mean(now_s - COMPARED_WEEKS * WEEK_S, now_s + 1)
    lately_then = mean(then - COMPARED_WEEKS * WEEK_S, then)
    if lately is None or lately_then is None:
        return None
    weeks = []
    for week in range(WEEKS_AHEAD):
        was = mean(then + week * WEEK_S, then + (week + 1) * WEEK_S)
        if was is None:
            break
        c, rh = was + lately - lately_then
        weeks.append((now_s + (week + 0.5) * WEEK_S, c, np.clip(rh, 1.0, 99.0)))
    return np.array(weeks, dtype=np.float64).T if len(weeks) >= LEAST_WEEKS else None
