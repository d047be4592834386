"""The air as the forecast sees it: averaged from the log, expected after it."""

import numpy as np
import pytest

from strategies import DAY, steady_log
from zymon.core.air import saturation_pressure
from zymon.core.drying.climate import Log, expected_air, rates
from zymon.core.drying.habit import habit_of


def test_means_over_the_log_are_its_integral() -> None:
    rng = np.random.default_rng(1)
    at = np.arange(0, 10 * DAY, 3600.0)
    log = Log(at, 13 + rng.normal(0, 1, len(at)), 78 + rng.normal(0, 3, len(at)))
    air = expected_air(log, 13, 78, at[-1])
    edges = np.array([[0.0], [2.5 * DAY], [at[-1]]])
    saturation, vapour, _ = air.means(edges)
    p, v, _, _ = rates(log.temperature_c, log.rh_percent)
    half = at <= 2.5 * DAY
    assert saturation[0, 0] == pytest.approx(np.trapezoid(p[half], at[half]) / (2.5 * DAY), rel=1e-6)
    whole = np.trapezoid(v, at) / at[-1]
    assert (vapour[:, 0] * np.diff(edges[:, 0])).sum() / at[-1] == pytest.approx(whole, rel=1e-6)


def test_after_the_log_the_set_point_and_the_habit_of_the_place() -> None:
    beside = steady_log(30, 13.6, 82.0)
    assert expected_air(beside, 13, 78, 30 * DAY).ahead_rh_percent == pytest.approx(82, abs=0.5)
    fresh = steady_log(0.5, 13.6, 82.0)
    assert 78 < expected_air(fresh, 13, 78, 0.5 * DAY).ahead_rh_percent < 80.1
    changed = expected_air(steady_log(30, 18.0, 55.0), 13, 78, 30 * DAY)  # the knob was turned a moment ago
    assert (changed.ahead_temperature_c, changed.ahead_rh_percent) == (13, 78)


def kept(*spans: tuple[float, float, float]) -> Log:
    """An hourly log of spans of (days, °C, %)."""
    at = np.arange(0, sum(days for days, _, _ in spans) * DAY, 3600.0)
    ends = np.cumsum([days * DAY for days, _, _ in spans])
    of = np.searchsorted(ends, at, side="right")
    return Log(at, *(np.array([span[i] for span in spans])[of] for i in (1, 2)))


@pytest.mark.parametrize(
    ("spans", "days", "c", "rh"),
    [
        ([(10, 16, 84), (4, 12.2, 77)], 4, 12.2, 77),  # the knob was turned four days ago
        ([(10, 13.5, 80), (2, 16, 88)], 10, 13.5, 80),  # it has not cooled for two days
        ([(6, 13.5, 80), (1, 16, 88), (6, 13.5, 80)], 12, 13.5, 80),  # one day it did not
        ([(14, 11, 70)], 14, 11, 70),  # it always runs beside its set point
    ],
)
def test_the_habit_of_a_place_is_how_it_is_kept_now(spans: list, days: int, c: float, rh: float) -> None:
    log = kept(*spans)
    habit = habit_of(log.time_s, log.temperature_c, log.rh_percent, float(log.time_s[-1]), 12.5, 78.0)
    assert habit.days == pytest.approx(days, abs=1)
    assert (habit.temperature_c, habit.rh_percent) == (pytest.approx(c, abs=0.2), pytest.approx(rh, abs=0.5))


def test_a_warm_damp_set_point_is_stepped_down_unless_it_was_kept() -> None:
    young = expected_air(steady_log(3, 18.0, 86.0), 18, 86, 3 * DAY)
    assert young.ahead_rh_percent < 80
    assert expected_air(steady_log(30, 18.0, 86.0), 18, 86, 30 * DAY).ahead_rh_percent == pytest.approx(86, abs=0.5)


def test_what_is_not_known_is_wider() -> None:
    nothing = Log(np.zeros(0), np.zeros(0), np.zeros(0))
    known = expected_air(steady_log(30), 13, 78, 30 * DAY)
    set_only = expected_air(nothing, 13, 78, 0.0)
    blind = expected_air(nothing, None, None, 0.0)
    assert known.sd_rh_percent < set_only.sd_rh_percent < blind.sd_rh_percent
    assert (blind.ahead_temperature_c, blind.ahead_rh_percent) == (13.0, 78.0)


def test_a_long_silence_is_filled_with_the_habit_not_a_straight_line() -> None:
    log = steady_log(40, 13.0, 78.0)
    keep = (log.time_s < 10 * DAY) | (log.time_s > 30 * DAY)
    c = log.temperature_c.copy()
    c[np.argmax(log.time_s > 30 * DAY)] = 25.0  # the first reading after the silence is a door left open
    air = expected_air(Log(log.time_s[keep], c[keep], log.rh_percent[keep]), 13, 78, 40 * DAY)
    saturation, _, _ = air.means(np.array([[12 * DAY], [28 * DAY]]))
    assert saturation[0, 0] == pytest.approx(float(saturation_pressure(np.array(13.0))), rel=0.01)
