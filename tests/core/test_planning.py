"""What must be started, and when: the laws that a plan keeps, whatever hangs and whatever is wanted."""

import itertools
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, history, salame, weighed
from support import refused
from zymon.core.drying.forecast import Fitted, fitted
from zymon.core.planning.drying import MOST_PIECES, hanging_times
from zymon.core.planning.start import LEAST_CHANCE, MOST_CHANCE, Starts, together

NOW = 30 * DAY


def wanted(many: int, **changes: object) -> list:
    return [salame(tag=f"W-{i}", **changes) for i in range(many)]


@pytest.fixture(scope="module")
def place() -> Fitted:
    """A cellar in which one piece hangs that nobody weighed."""
    return fitted(history(salame(tag="here", batch="H"), now_days=30.0))


def times(place: Fitted, pieces: list, batch: int = 0) -> np.ndarray:
    return hanging_times(place, pieces, [NOW], batch).takes_s[0]


def quantiles_days(times: np.ndarray) -> np.ndarray:
    return np.quantile(times / DAY, [0.1, 0.5, 0.9])


# -- how long they hang


def test_one_piece_takes_as_long_as_its_forecast_says(place: Fitted) -> None:
    told = fitted(
        replace(place.history, pieces=(*place.history.pieces, salame(tag="new", batch="N", hung_at_s=NOW)))
    ).forecasts[-1]
    assert told.ready_p50_s is not None
    by_forecast = (np.array([told.ready_p10_s, told.ready_p50_s, told.ready_p90_s], dtype=float) - NOW) / DAY
    assert quantiles_days(times(place, wanted(1))[:, 0]) == pytest.approx(by_forecast, rel=0.12)


def test_of_twelve_the_slowest_counts_and_each_is_of_its_own_meat(place: Fitted) -> None:
    each = times(place, wanted(12))
    alone, all_of_them = np.median(each[:, 0]), np.median(each.max(axis=1))
    assert 1.05 * alone < all_of_them < 2 * alone
    assert len(np.unique(each[0].round())) == 12
    # workshop, batch and air are theirs in common: a slow future is slow for all
    together_ = np.corrcoef(each.T)[np.triu_indices(12, 1)]
    assert 0.3 < together_.mean() < 0.95


def test_a_piece_more_changes_nothing_of_the_others(place: Fitted) -> None:
    few, many = times(place, wanted(3)), times(place, wanted(8))
    np.testing.assert_allclose(few, many[:, :3], rtol=1e-9)


def test_what_a_workshop_learned_counts_for_what_is_planned() -> None:
    """Four that dried in half the usual time: the next are expected sooner, and more surely so."""
    slow = fitted(history(*(salame(tag=f"S-{i}", batch=f"S{i}") for i in range(4)), now_days=30.0))
    fast = fitted(
        history(
            *(
                weighed(salame(tag=f"F-{i}", batch=f"F{i}"), (5, 735), (10, 660), (15, 612), (20, 577))
                for i in range(4)
            ),
            now_days=30.0,
        )
    )
    before, after = (quantiles_days(times(one, wanted(1))[:, 0]) for one in (slow, fast))
    assert after[1] < 0.8 * before[1]
    assert after[2] / after[0] < before[2] / before[0]


def test_thicker_takes_longer_and_drier_takes_longer(place: Fitted) -> None:
    usual = np.median(times(place, wanted(4)).max(axis=1))
    assert np.median(times(place, wanted(4, diameter_mm=80.0)).max(axis=1)) > 1.3 * usual
    assert np.median(times(place, wanted(4, target_loss_percent=40.0)).max(axis=1)) > 1.1 * usual


def test_what_cannot_be_reached_never_is() -> None:
    wet = fitted(history(salame(), now_days=1.0, rh_percent=92.0))
    assert np.isinf(hanging_times(wet, wanted(2, target_loss_percent=60.0), [DAY]).takes_s).mean() > 0.9


@pytest.mark.parametrize(
    ("many", "at", "said"), [(0, NOW, "pieces"), (MOST_PIECES + 1, NOW, "pieces"), (1, NOW - 1, "gone by")]
)
def test_none_too_many_and_yesterday_are_refused(place: Fitted, many: int, at: float, said: str) -> None:
    with refused(said):
        hanging_times(place, wanted(many), [at])


def test_hung_at_several_times_each_is_as_if_hung_then_alone(place: Fitted) -> None:
    """In air that is always the same the same meat takes as long whenever it is hung."""
    later = [NOW, NOW + 20 * DAY, NOW + 50 * DAY]
    together_ = hanging_times(place, wanted(3), later)
    assert together_.takes_s.shape == (3, 64, 3)
    for row, at in zip(together_.takes_s, later, strict=True):
        np.testing.assert_allclose(row, hanging_times(place, wanted(3), [at]).takes_s[0], rtol=1e-9)
    np.testing.assert_allclose(together_.takes_s[0], together_.takes_s[2], rtol=0.02)


def test_another_batch_is_another_making_of_the_same_kind(place: Fitted) -> None:
    one, other = (times(place, wanted(6), batch) for batch in (0, 3))
    assert not np.allclose(one, other)
    assert quantiles_days(one.max(axis=1)) == pytest.approx(quantiles_days(other.max(axis=1)), rel=0.12)


def test_water_lost_rises_to_what_the_targets_take(place: Fitted) -> None:
    found = hanging_times(place, wanted(4), [NOW])
    assert (np.diff(found.lost_g[0]) >= -1e-9).all()
    assert found.lost_g[0][0] == pytest.approx(0.0, abs=1e-9)
    assert found.lost_g[0][-1] == pytest.approx(4 * 0.35 * 831, rel=0.01)  # no piece loses more than it is to
    assert (np.diff(found.since_s[0]) > 0).all()


def test_as_many_as_a_plan_may_have_are_drawn(place: Fitted) -> None:
    assert hanging_times(place, wanted(MOST_PIECES), [NOW]).takes_s.shape == (1, 64, MOST_PIECES)


# -- when to start

durations = st.lists(st.floats(1.0, 90.0), min_size=5, max_size=40)


def starts(days: list[float], weeks: int = 30) -> Starts:
    begin = np.arange(weeks) * 7 * DAY
    # in summer, half a year on, everything takes a fifth longer
    season = 1 + 0.1 * (1 - np.cos(2 * np.pi * begin / (365 * DAY)))
    return Starts(begin, season[:, None] * np.array(days)[None, :] * DAY)


@settings(max_examples=60, deadline=None)
@given(durations, st.floats(LEAST_CHANCE, MOST_CHANCE), st.floats(LEAST_CHANCE, MOST_CHANCE), st.floats(20, 200))
def test_a_higher_chance_never_starts_later(days: list[float], one: float, other: float, by_days: float) -> None:
    low, high = sorted((one, other))
    found = starts(days)
    early, late = found.latest(by_days * DAY, high), found.latest(by_days * DAY, low)
    if early is not None:
        assert late is not None
        assert early <= late
        assert found.chance(early, by_days * DAY) >= high
    if late is not None:
        assert late <= by_days * DAY
        assert late == min(by_days * DAY, found.begin_s[-1]) or found.chance(late + DAY, by_days * DAY) < low


@settings(max_examples=40, deadline=None)
@given(durations, st.floats(20, 200))
def test_a_later_date_and_a_quicker_way_never_lessen_the_chance(days: list[float], by_days: float) -> None:
    found, quicker = starts(days), starts([0.9 * d for d in days])
    for start in (0.0, 10.5 * DAY, 100 * DAY):
        chance = found.chance(start, by_days * DAY)
        assert found.chance(start, (by_days + 3) * DAY) >= chance
        assert quicker.chance(start, by_days * DAY) >= chance


@settings(max_examples=40, deadline=None)
@given(durations, st.floats(20, 200))
def test_every_day_has_the_chance_of_a_start_on_it(days: list[float], by_days: float) -> None:
    found = starts(days)
    listed = found.days(by_days * DAY)
    assert listed[0][0] == 0.0
    assert all(b[1] <= a[1] + 1e-9 for a, b in itertools.pairwise(listed[1:]))
    for start_s, chance in listed[:: max(len(listed) // 7, 1)]:
        # counted one future at a time, at the starts beside it
        j = int(min(start_s // (7 * DAY), len(found.begin_s) - 2))
        share = (start_s - found.begin_s[j]) / (7 * DAY)
        near = [sum(start_s + t <= by_days * DAY for t in found.takes_s[k]) / len(days) for k in (j, j + 1)]
        assert chance == pytest.approx(near[0] * (1 - share) + near[1] * share)
        assert found.chance(start_s, by_days * DAY) == pytest.approx(chance)


@settings(max_examples=40, deadline=None)
@given(durations, st.floats(LEAST_CHANCE, MOST_CHANCE), st.integers(0, 29))
def test_the_day_by_which_it_is_done_is_the_first_with_that_chance(days: list[float], chance: float, week: int) -> None:
    found = starts(days)
    start = float(found.begin_s[week])
    by = found.done_by(start, chance)
    assert found.chance(start, by + 1) >= chance - 1e-9
    assert found.chance(start, by - 1) < chance
    assert found.done_by(start, min(chance + 0.1, MOST_CHANCE)) >= by


@settings(max_examples=40, deadline=None)
@given(durations, st.floats(20, 200))
def test_the_window_of_a_start_goes_from_nearly_sure_to_every_other_time(days: list[float], by_days: float) -> None:
    found = starts(days)
    early, late = found.between(by_days * DAY)
    assert found.begin_s[0] <= early <= late <= by_days * DAY
    if late > found.begin_s[0]:
        assert found.chance(late, by_days * DAY) >= 0.5
    if early > found.begin_s[0]:
        assert found.chance(early, by_days * DAY) >= 0.95
        usual = found.latest(by_days * DAY, 0.8)
        assert usual is not None
        assert early <= usual <= late


def test_what_never_gets_there_has_no_day() -> None:
    never = Starts(np.array([0.0]), np.array([[10.0, np.inf, np.inf, np.inf]]) * DAY)
    assert never.done_by(0.0, 0.25) == 10 * DAY
    assert never.done_by(0.0, 0.5) == np.inf
    assert never.latest(400 * DAY, 0.5) is None
    assert np.isinf(never.takes_at(0.0)).sum() == 3


def test_between_two_starts_looked_at_the_chance_lies_between_theirs() -> None:
    found = Starts(np.array([0.0, 7 * DAY]), np.array([[10.0, 20.0], [10.0, 10.0]]) * DAY)
    assert [found.chance(day * DAY, 18 * DAY) for day in (0, 7)] == [0.5, 1.0]
    assert found.chance(3.5 * DAY, 18 * DAY) == pytest.approx(0.75)
    assert found.chance(3.5 * DAY, 13.4 * DAY) == 0.0  # a day later is a day later, whichever future is near
    assert found.latest(18 * DAY, 0.9) == 7 * DAY
    assert found.latest(20 * DAY, 0.5) == 7 * DAY
    only = Starts(np.array([0.0]), np.array([[10.0, 20.0]]) * DAY)
    assert (only.chance(0.0, 12 * DAY), only.latest(12 * DAY, 0.5)) == (0.5, 0.0)


@pytest.mark.parametrize("chance", [LEAST_CHANCE - 0.001, MOST_CHANCE + 0.001])
def test_a_chance_that_no_forecast_can_tell_is_refused(chance: float) -> None:
    with refused("between 5 and 95"):
        starts([10.0] * 5).latest(100 * DAY, chance)


def test_a_start_outside_of_what_was_looked_at_is_refused() -> None:
    with refused("start"):
        starts([10.0] * 5).chance(-1.0, 100 * DAY)


def test_steps_are_added_future_by_future_not_quantile_by_quantile() -> None:
    salt, hang = np.array([1.0, 9.0]), np.array([[8.0, 2.0], [1.0, 1.0]])
    np.testing.assert_array_equal(together([salt, hang]), [9.0, 10.0])


def test_what_nobody_asked_for_is_eight_times_in_ten_and_beside_it_nearly_sure_and_every_other_time() -> None:
    """A hundred futures that take 1 to 100 days: so many of them are done by that day."""
    days = np.arange(1.0, 101.0) * DAY
    starts = Starts(np.array([0.0, 200 * DAY]), np.array([days, days]))
    assert starts.done_by(0.0) == 80 * DAY
    by_s = 200 * DAY
    assert starts.latest(by_s) == by_s - 80 * DAY
    sure, even = starts.between(by_s)
    assert (by_s - sure, by_s - even) == (95 * DAY, 50 * DAY)
