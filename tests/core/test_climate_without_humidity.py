"""A thermometer alone: humidity between its readings, as set, or as usual; and never surer than that."""

import math

import numpy as np
import pytest

from zymon.core.drying.climate import FUTURE_SD_RH_UNLOGGED, GAP_S, Log, expected_air, or_none
from zymon.core.drying.dried_by import mean_rh
from zymon.core.drying.habit import HABIT_DAYS
from zymon.core.drying.history import History
from zymon.core.drying.surroundings import Surroundings
from zymon.core.place_fit import shift, suits

SORT = "household_fridge"
HOUR, DAY = 3600.0, 86_400.0
NAN = math.nan


def hours(rh: list[float], step_s: float = HOUR) -> Log:
    at = np.arange(len(rh)) * step_s
    return Log(at, np.full(len(rh), 13.0), np.array(rh))


def test_humidity_goes_straight_between_readings_of_it() -> None:
    log = hours([70.0, NAN, NAN, NAN, 78.0])
    assert log.with_humidity(50.0).rh_percent.tolist() == [70.0, 72.0, 74.0, 76.0, 78.0]
    assert log.of_humidity.rh_percent.tolist() == [70.0, 78.0]


def test_further_than_a_gap_from_any_it_is_as_usual() -> None:
    at = np.array([0.0, GAP_S, GAP_S + 1, 10 * DAY])
    log = Log(at, np.full(4, 13.0), np.array([70.0, NAN, NAN, NAN]))
    assert log.with_humidity(50.0).rh_percent.tolist() == [70.0, 70.0, 50.0, 50.0]


def test_a_log_with_both_is_left_as_it_is() -> None:
    log = hours([70.0, 71.0])
    assert log.with_humidity(50.0) is log
    assert hours([NAN, NAN]).with_humidity(50.0).rh_percent.tolist() == [50.0, 50.0]


def test_the_air_to_come_is_as_set_and_no_surer_than_without_a_log() -> None:
    blind, seeing = hours([NAN] * 24 * 10), hours([76.0] * 24 * 10)
    now_s = float(blind.time_s[-1])
    dim, clear = (expected_air(log, 13.0, 76.0, now_s) for log in (blind, seeing))
    assert dim.ahead_rh_percent == pytest.approx(76.0)
    assert dim.sd_rh_percent == FUTURE_SD_RH_UNLOGGED
    assert clear.sd_rh_percent < dim.sd_rh_percent
    assert dim.sd_c == clear.sd_c
    usual = Surroundings(SORT).usual
    free = expected_air(blind, None, None, now_s, usual)
    assert (free.ahead_rh_percent, free.sd_rh_percent >= usual.sd_rh) == (pytest.approx(usual.rh_percent), True)


@pytest.mark.parametrize(("days_ago", "told"), [(HABIT_DAYS - 1, True), (HABIT_DAYS + 1, False)])
def test_a_hygrometer_of_long_ago_tells_nothing_of_now(days_ago: float, told: bool) -> None:
    days = 40
    rh = [76.0 if (days - i / 24) >= days_ago else NAN for i in range(24 * days + 1)]
    log = hours(rh)
    air = expected_air(log, 13.0, 76.0, float(log.time_s[-1]))
    assert (air.sd_rh_percent < FUTURE_SD_RH_UNLOGGED) == told


@pytest.mark.parametrize(("setpoint_rh", "code"), [(76.0, ["assumed.humidity_as_set"]), (None, ["assumed.humidity"])])
def test_what_is_taken_of_the_humidity_is_said(setpoint_rh: float | None, code: list[str]) -> None:
    log = hours([NAN] * 48)
    history = History((), log, 13.0, setpoint_rh, float(log.time_s[-1]), surroundings=Surroundings(SORT))
    assert [one.code for one in history.assumed] == code
    with_both = History((), hours([70.0] * 48), 13.0, setpoint_rh, float(log.time_s[-1]))
    assert with_both.assumed == ()


def test_what_asks_for_humidity_leaves_the_rest_out() -> None:
    log = hours([NAN] * 24 * 5 + [76.0] * 24 * 5)
    assert mean_rh(log, 0, 10 * DAY) == 76.0
    assert mean_rh(log, 0, 4 * DAY) is None
    assert suits(hours([NAN] * 48)) == []
    assert suits(log)[0].share > 0
    assert shift(hours([NAN] * 24 * 16), 16 * DAY) is None
    assert or_none(np.array([1.26, NAN])) == [1.3, None]
