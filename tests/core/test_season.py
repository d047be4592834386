"""A cellar that goes with the weather: its weeks ahead are those of a year ago, moved by what this year differs."""

import numpy as np
import pytest

from zymon.core.drying.climate import Log, expected_air
from zymon.core.drying.forecast import Change, fitted
from zymon.core.drying.history import History, Piece
from zymon.core.drying.season import WEEK_S, YEAR_S, season_ahead

DAY = 86_400.0
AUTUMN = 290 * DAY  # in a year that begins in January


def cellar(from_s: float, to_s: float, warmer_c: float = 0.0) -> Log:
    """Hours of a cellar between 6 °C in winter and 18 °C in summer, damper in winter."""
    at = np.arange(from_s, to_s, 3600.0)
    summer = -np.cos(2 * np.pi * at / YEAR_S)
    return Log(at, 12 + 6 * summer + warmer_c, 78 - 4 * summer)


def joined(one: Log, other: Log) -> Log:
    return Log(*(np.concatenate([getattr(one, k), getattr(other, k)]) for k in vars(one)))


def neck(hung_at_s: float) -> Piece:
    return Piece(
        tag="N-1", batch="N", kind="whole_muscle", shape="irregular", casing="natural", fat_percent=12,
        salt_percent=2.8, diameter_mm=95, thickness_mm=None, length_mm=None, start_weight_g=2600, tare_g=14,
        hung_at_s=hung_at_s, target_loss_percent=36,
    )  # fmt: skip


def test_the_weeks_ahead_are_those_of_a_year_ago() -> None:
    log = cellar(AUTUMN - YEAR_S - 30 * DAY, AUTUMN)
    at, c, rh = season_ahead(log.time_s, log.temperature_c, log.rh_percent, AUTUMN)
    assert len(at) == 26
    assert np.all(np.diff(at) == WEEK_S)
    true = cellar(AUTUMN, AUTUMN + 26 * WEEK_S)
    assert np.interp(at, true.time_s, true.temperature_c) == pytest.approx(c, abs=0.2)
    assert np.interp(at, true.time_s, true.rh_percent) == pytest.approx(rh, abs=0.2)


def test_a_warmer_year_moves_them_all() -> None:
    last, now = cellar(AUTUMN - YEAR_S - 30 * DAY, AUTUMN - 40 * DAY), cellar(AUTUMN - 40 * DAY, AUTUMN, warmer_c=1.5)
    log = joined(last, now)
    plain = cellar(AUTUMN - YEAR_S - 30 * DAY, AUTUMN)
    warm = season_ahead(log.time_s, log.temperature_c, log.rh_percent, AUTUMN)
    usual = season_ahead(plain.time_s, plain.temperature_c, plain.rh_percent, AUTUMN)
    assert warm[1] - usual[1] == pytest.approx(1.5, abs=0.01)


@pytest.mark.parametrize("days", [2, 40, 300])
def test_without_a_log_of_then_there_is_no_season_and_less_is_sure(days: int) -> None:
    log = cellar(AUTUMN - days * DAY, AUTUMN)
    assert season_ahead(log.time_s, log.temperature_c, log.rh_percent, AUTUMN) is None
    free, held = expected_air(log, None, None, AUTUMN), expected_air(log, 13, 78, AUTUMN)
    assert free.sd_c > 1.5 * held.sd_c
    assert free.sd_rh_percent > held.sd_rh_percent


def test_a_winter_to_come_makes_the_date_later_and_a_controlled_chamber_knows_no_winter() -> None:
    hung = AUTUMN - 20 * DAY
    year, weeks = cellar(AUTUMN - YEAR_S - 30 * DAY, AUTUMN), cellar(AUTUMN - 40 * DAY, AUTUMN)

    def date(log: Log, setpoint: tuple[float | None, float | None] = (None, None)) -> float:
        found = fitted(History((neck(hung),), log, *setpoint, AUTUMN)).forecasts[0].ready_p50_s
        assert found is not None
        return found

    assert date(year) > date(weeks) + 5 * DAY
    assert date(year, (13.0, 78.0)) == pytest.approx(date(weeks, (13.0, 78.0)), abs=0.5 * DAY)


def test_a_set_point_asked_about_takes_the_place_of_the_season() -> None:
    log = cellar(AUTUMN - YEAR_S - 30 * DAY, AUTUMN)
    place = fitted(History((neck(AUTUMN - 20 * DAY),), log, None, None, AUTUMN))
    as_it_is, held = place.forecasts[0], place.what_if(0, Change(temperature_c=13, rh_percent=76))
    assert as_it_is.ready_p50_s is not None
    assert held.ready_p50_s is not None
    assert held.ready_p50_s < as_it_is.ready_p50_s - 5 * DAY
