"""The fall of pH: laws that hold whatever the readings, and what is said of a batch that goes wrong."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from support import refused
from zymon.core.fermentation.curve import CULTURES, Fermentation, Reading, culture_clock, goods_temperature
from zymon.core.fermentation.forecast import forecast_fermentation
from zymon.core.fermentation.particles import QUICK_BEGINS, QUICK_SHARE
from zymon.limits import shipped

TABLE = shipped()["us"].degree_hours


def steady(level_c: float, hours: float) -> tuple[tuple[float, float], ...]:
    return tuple((float(h), level_c) for h in np.arange(0, hours + 0.5, 0.5))


def batch(now: float = 0.0, level_c: float = 25.0, *readings: tuple[float, float], **changes) -> Fermentation:
    good = Fermentation(
        culture="medium", dextrose_percent=0.4, salt_percent=2.7, start_ph=5.8, target_ph=5.1, setpoint_c=level_c,
        temperature=steady(level_c, now), readings=tuple(Reading(*r) for r in readings), now_hour=now,
    )  # fmt: skip
    return replace(good, **changes)


def told(of: Fermentation):
    return forecast_fermentation(of, TABLE)


FALLING = ((14.0, 5.62), (18.0, 5.45))


@settings(max_examples=12)
@given(st.sampled_from(["slow", "medium", "fast", "wild", "none"]), st.floats(16, 25), st.floats(0.5, 2))
def test_warmer_within_its_range_is_never_later(culture, level_c, more) -> None:
    cold, warm = (told(batch(0.0, c, culture=culture)).crosses.p50 or 999 for c in (level_c, level_c + more))
    assert warm <= cold + 1e-9


@settings(max_examples=12)
@given(st.floats(0.05, 0.7), st.floats(0.02, 0.2))
def test_more_dextrose_never_ends_higher(dextrose, more) -> None:
    less, much = (told(batch(dextrose_percent=d)).curve_p50[-1] for d in (dextrose, dextrose + more))
    assert much <= less + 0.01


def test_readings_narrow_the_window_and_bring_it_to_the_truth() -> None:
    before, after = told(batch()).crosses, told(batch(19.0, 25.0, *FALLING)).crosses
    assert before.p10 is not None
    assert after.p10 is not None
    assert after.p90 - after.p10 < 0.5 * (before.p90 - before.p10)
    assert 19 < after.p50 < 24


@pytest.mark.parametrize("slip", [54.5, 0.545, 4.55])
def test_a_slip_hardly_moves_the_crossing(slip: float) -> None:
    right = told(batch(23.0, 25.0, *FALLING, (22.0, 5.31))).crosses
    slipped = told(batch(23.0, 25.0, *FALLING, (20.0, slip), (22.0, 5.31)))
    assert slipped.crosses.p50 == pytest.approx(right.p50, abs=1.0)


def test_the_states_of_a_batch() -> None:
    assert told(batch()).state == "waiting"
    assert told(batch(19.0, 25.0, *FALLING)).state == "falling"
    assert told(batch(30.0, 25.0, *FALLING, (26.0, 5.2), (30.0, 5.08))).state == "reached"
    assert told(batch(30.0, 25.0, *FALLING, (30.0, 4.8), (30.0, 4.82))).state == "too_low"
    flat = tuple((float(h), 5.79) for h in (14, 20, 26, 32))
    dead = told(batch(32.0, 25.0, *flat))
    assert dead.state in ("slow", "stalled")
    assert dead.causes
    assert told(batch(44.0, 32.0, *flat, (44.0, 5.78))).state == "over_allowance"


def test_a_cold_box_is_named_before_the_culture_is_blamed() -> None:
    flat = tuple((float(h), 5.79) for h in (14, 20, 26, 32))
    found = told(batch(32.0, 25.0, *flat, temperature=(*steady(25.0, 2.0), (3.0, 9.0), (32.0, 8.0))))
    assert found.state in ("slow", "stalled")
    assert found.causes[0].code == "cause.box_cold"


def test_a_box_that_fell_is_taken_to_be_mended_sooner_than_one_that_never_came_up() -> None:
    fell = (*steady(25.0, 14.0), (15.0, 14.0), (19.0, 10.0))
    never = ((0.0, 10.0), (14.0, 10.0), (19.0, 10.0))
    first = (14.0, 5.74)
    down, cold, well = (told(batch(19.0, 25.0, first, temperature=box)) for box in (fell, never, steady(25.0, 19.0)))
    assert down.state == "slow"
    assert well.state in ("waiting", "falling")
    assert well.crosses.p50 < down.crosses.p50
    assert cold.crosses_share < down.crosses_share


def test_degree_hours_stop_at_the_first_measured_hurdle() -> None:
    at_26 = told(batch(40.0, 25.0, *FALLING, (26.0, 5.28), (40.0, 5.0)))
    assert at_26.used is not None
    assert at_26.used.used == pytest.approx(26 * (25 * 1.8 + 32 - 60))
    assert at_26.runs_out_hour is None
    open_ = told(batch(20.0, 25.0, *FALLING))
    assert open_.runs_out_hour == pytest.approx(1200 / 17)
    assert told(batch(temperature=())).used is None


@pytest.mark.parametrize("culture", ["fast", "medium", "slow"])
@pytest.mark.parametrize("c", [20.0, 24.0, 28.0, 32.0, 36.0])
def test_the_first_reading_is_never_asked_for_after_the_earliest_likely_crossing(culture: str, c: float) -> None:
    made = told(replace(batch(0.0, c), culture=culture))
    assert made.measure_next_hour <= (6 if culture == "fast" else 12)
    if made.crosses.p10 is not None:
        assert made.measure_next_hour <= made.crosses.p10


def test_the_next_reading_is_asked_for_while_it_can_still_tell() -> None:
    assert told(batch()).measure_next_hour == 12
    assert told(batch(now_hour=13.0)).measure_next_hour == 13  # it is late: now
    soon = told(batch(19.0, 25.0, *FALLING))
    assert 19 < soon.measure_next_hour <= 32
    assert told(batch(30.0, 25.0, *FALLING, (26.0, 5.2), (30.0, 5.08))).measure_next_hour is None


@pytest.mark.parametrize("c", [10.0, 14.0, 18.0])
def test_however_slow_it_is_the_next_reading_is_asked_for_within_twelve_hours(c: float) -> None:
    assert told(batch(6.0, c, (5.0, 5.79))).measure_next_hour == 18


@pytest.mark.parametrize("readings", [(), FALLING])
def test_what_is_likely_sour_enough_and_was_never_measured_so_is_to_be_measured_now(readings: tuple) -> None:
    likely = told(batch(60.0, 25.0, *readings))
    assert likely.state == "reached"
    assert likely.measure_next_hour == 60


def test_the_clock_runs_with_the_goods_and_stands_still_in_the_cold() -> None:
    warm, cold = (culture_clock("medium", goods_temperature(np.array(steady(c, 10)), c, 10.0)) for c in (25.0, 4.0))
    assert warm.at(100) == pytest.approx(100, rel=0.1)
    assert cold.at(100) < 2


@pytest.mark.parametrize("culture", ["slow", "medium", "fast", None])
@pytest.mark.parametrize(
    ("level_c", "readings"),
    [
        (27.0, ((14.0, 4.8), (14.5, 4.8))),
        (24.0, ((19.0, 5.03), (19.2, 5.06))),
        (24.0, ((8.0, 5.0), (8.5, 5.02))),  # quicker than anybody would believe
    ],
)
def test_a_repeated_reading_is_taken_however_early(culture, level_c: float, readings: tuple) -> None:
    made = told(batch(readings[-1][0], level_c, *readings, culture=culture))
    assert made.ph_now == pytest.approx(readings[-1][1], abs=0.08)
    assert made.state in ("reached", "too_low")
    assert made.crosses.p90 <= readings[0][0] + 0.5


def test_a_confirmed_reading_counts_as_a_repeated_one_does_and_a_lone_odd_one_does_not() -> None:
    def now(*readings: Reading) -> float:
        return told(replace(batch(8.5), readings=readings)).ph_now

    lone, kept = now(Reading(8.0, 4.95)), now(Reading(8.0, 4.95, confirmed=True))
    assert lone > 5.5
    assert kept == pytest.approx(4.95, abs=0.1)


@pytest.mark.parametrize(
    ("hours", "apart", "sure"), [(2.0, 0.119, True), (2.01, 0.119, False), (2.0, 0.121, False), (0.5, 0.0, True)]
)
def test_two_readings_confirm_each_other_within_two_hours_and_an_eighth(hours, apart, sure) -> None:
    readings = ((10.0, 5.4), (10.0 + hours, round(5.4 - apart, 3)))
    assert batch(13.0, 25.0, *readings).sure == (sure, sure)


@pytest.mark.parametrize("culture", ["slow", "medium", "fast"])
def test_cultures_bought_today_may_be_a_third_quicker_and_that_is_within_the_window(culture) -> None:
    made = told(replace(batch(0.0, CULTURES[culture].reference_c), culture=culture)).crosses
    assert made.p10 < 0.75 * made.p50
    assert (pytest.approx(0.17, abs=0.03), pytest.approx(0.52, abs=0.08)) == (QUICK_SHARE, QUICK_BEGINS)


def test_heat_kills_a_culture_and_what_is_dead_stays_dead() -> None:
    def clock(culture, *spans: tuple[float, float]) -> float:
        goods = np.concatenate([np.full(int(hours * 4), c) for hours, c in spans])
        return culture_clock(culture, goods).at(len(goods) / 4 - 0.25)

    for culture, prior in CULTURES.items():
        held = clock(culture, (10, prior.best_c))
        assert clock(culture, (10, prior.most_c - 3.0)) == pytest.approx(held, rel=0.01)  # it bears so much
        assert clock(culture, (10, prior.most_c - 1.5)) == pytest.approx(held / 2, rel=0.01)
        assert clock(culture, (10, prior.most_c)) < 0.01
        after = clock(culture, (2, prior.most_c + 5), (20, prior.reference_c))
        alive = clock(culture, (2, prior.least_c), (20, prior.reference_c))
        assert after == pytest.approx(alive * np.exp(-10 / 3), rel=0.1)  # 5 °C for two hours leave a thirtieth
    hot = tuple((h / 2, 60.0 if h < 16 else 25.0) for h in range(61))  # eight hours far too hot
    assert told(batch(30.0, 25.0, temperature=hot)).ph_now > told(batch(30.0)).ph_now + 0.15


def test_at_hour_nought_the_set_point_is_what_is_ahead() -> None:
    def crosses(setpoint_c: float | None, *log: tuple[float, float]) -> float:
        made = told(batch(0.0, temperature=log, setpoint_c=setpoint_c)).crosses.p50
        assert made is not None
        return made

    assert crosses(28.0) < crosses(20.0) - 3
    assert crosses(28.0, (0.0, 8.0)) == pytest.approx(crosses(28.0), abs=1.0)  # it is only now switched on
    assert crosses(None) > crosses(28.0)


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"now_hour": -1.0}, "now lies before it was stuffed"),
        ({"start_ph": 58.0}, "start pH must be between 4.5 and 7.5"),
        ({"target_ph": 3.0}, "target pH must be between 4 and 6"),
        ({"dextrose_percent": 40.0}, "dextrose must be between 0 and 5 %"),
    ],
)
def test_refusals(changes, words) -> None:
    with refused(words):
        batch(**changes)
