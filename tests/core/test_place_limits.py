"""Every figure by which a log is read, at its boundary."""

import numpy as np
import pytest

from zymon.core.drying.climate import Log
from zymon.core.place import Extreme, Span, Wish, extremes, place_facts, setpoint_advice, wished_humidity

HOUR = 3600.0
SET_C, SET_RH = 13.0, 78.0


def logged(*rows: tuple[float, float, float]) -> Log:
    """Readings of (hour, °C, %)."""
    at, c, rh = np.array(rows).T
    return Log(at * HOUR, c, rh)


def half_off(c: float, rh: float) -> Log:
    """Ten hours as set, ten hours off it, a reading every half hour."""
    return logged(*((i / 2, SET_C, SET_RH) for i in range(20)), *((10 + i / 2, c, rh) for i in range(21)))


@pytest.mark.parametrize(
    ("c", "rh", "kept"),
    [
        (SET_C + 1.5, SET_RH, 1.0),
        (SET_C - 1.5, SET_RH, 1.0),
        (SET_C + 1.51, SET_RH, 0.5),
        (SET_C, SET_RH + 5, 1.0),
        (SET_C, SET_RH - 5, 1.0),
        (SET_C, SET_RH + 5.1, 0.5),
        (SET_C - 1.4, SET_RH - 5.1, 0.5),
    ],
)
def test_good_keeping_is_within_a_degree_and_a_half_and_five_points(c: float, rh: float, kept: float) -> None:
    assert place_facts(half_off(c, rh), SET_C, SET_RH).in_band == pytest.approx(kept)


def test_what_nobody_set_is_measured_against_what_is_usual_there() -> None:
    assert place_facts(half_off(SET_C, 60.0), SET_C, None).in_band == pytest.approx(0.5)
    assert place_facts(half_off(SET_C, 60.0), None, None).in_band is None
    assert place_facts(half_off(25.0, 60.0), None, None).outages == ()


@pytest.mark.parametrize(
    ("c", "rh", "what", "worst"),
    [
        (SET_C + 2.5, SET_RH, None, 0.0),
        (SET_C + 2.6, SET_RH, "warm", 2.6),
        (SET_C - 2.6, SET_RH, "cold", 2.6),
        (SET_C, SET_RH + 9, None, 0.0),
        (SET_C, SET_RH + 9.2, "damp", 9.2),
        (SET_C, SET_RH - 9.2, "dry", 9.2),
    ],
)
def test_a_fault_is_what_no_controller_does(c: float, rh: float, what: str | None, worst: float) -> None:
    found = place_facts(half_off(c, rh), SET_C, SET_RH).outages
    assert found == (() if what is None else (Span(10 * HOUR, 20 * HOUR, what, pytest.approx(worst)),))


@pytest.mark.parametrize(("minutes", "counts"), [(119, False), (120, True)])
def test_a_fault_counts_after_two_hours(minutes: int, counts: bool) -> None:
    warm = [(1 + m / 60, SET_C + 6, SET_RH) for m in (0, 30, 60, 90, minutes)]
    found = place_facts(logged((0, SET_C, SET_RH), *warm, (4, SET_C, SET_RH)), SET_C, SET_RH)
    assert bool(found.outages) == counts


@pytest.mark.parametrize(("hours", "silent"), [(3.0, False), (3.1, True)])
def test_a_reading_stands_for_three_hours_and_then_nobody_knows(hours: float, silent: bool) -> None:
    found = place_facts(logged((0, SET_C, SET_RH), (1, SET_C, SET_RH), (1 + hours, SET_C, SET_RH)), SET_C, SET_RH)
    assert [gap.worst for gap in found.gaps] == ([pytest.approx(hours)] if silent else [])
    assert found.hours == pytest.approx(4.0)


@pytest.mark.parametrize(
    ("rh", "damp", "dew"), [(89.9, 0, 0), (90.0, 10, 0), (95.9, 10, 0), (96.0, 10, 10)],
)  # fmt: skip
def test_damp_hours_are_those_in_which_mould_thrives_and_dew_those_in_which_water_settles(
    rh: float, damp: float, dew: float
) -> None:
    found = place_facts(half_off(SET_C, rh), SET_C, SET_RH)
    assert (found.damp_hours, found.dew_hours) == (pytest.approx(damp), pytest.approx(dew))


def with_jumps(*minutes: float, c: float = 1.0, rh: float = -6.0, within: float = 5.0) -> float:
    """Doors a day in a log of a day, with the air away for a while at some minutes."""
    rows = {0.0: (SET_C, SET_RH), 24.0: (SET_C, SET_RH)}
    for start in minutes:
        rows[(start - within) / 60] = rows[(start + within) / 60] = (SET_C, SET_RH)
        rows[start / 60] = (SET_C + c, SET_RH + rh)
    for hour in range(24):
        rows.setdefault(hour, (SET_C, SET_RH))
    return place_facts(logged(*((at, *air) for at, air in sorted(rows.items()))), SET_C, SET_RH).doors_a_day


@pytest.mark.parametrize(
    ("found", "doors"),
    [
        (with_jumps(630), 1),  # away and back is one opening
        (with_jumps(630, 660), 1),  # within the hour it is the same one
        (with_jumps(630, 695), 1),  # an hour after it was shut
        (with_jumps(630, 696), 2),
        (with_jumps(630, c=0.81), 1),
        (with_jumps(630, c=0.79), 0),
        (with_jumps(630, rh=-4.01), 1),
        (with_jumps(630, rh=-3.9), 0),
        (with_jumps(630, within=17), 1),
        (with_jumps(630, within=19), 0),
    ],
)
def test_a_door_is_a_jump_of_both_within_minutes(found: float, doors: int) -> None:
    assert found == pytest.approx(doors)


@pytest.mark.parametrize(
    ("activity", "rh"), [(0.90, 84.0), (0.885, 84.0), (0.87, 82.5), (0.80, 75.5), (0.665, 62.0), (0.60, 62.0)],
)  # fmt: skip
def test_a_skin_dries_gently_a_little_under_its_own_water_activity(activity: float, rh: float) -> None:
    assert wished_humidity(activity) == pytest.approx(rh)


def test_a_compromise_hurts_from_four_points_on() -> None:
    advice = setpoint_advice([Wish("a", 76), Wish("b", 76), Wish("c", 80), Wish("d", 80.1), Wish("e", 71.9)])
    assert advice is not None
    assert (advice.rh_percent, advice.too_dry_for, advice.too_damp_for) == (76, ("d",), ("e",))


@pytest.mark.parametrize(
    ("c", "told"), [(-0.1, ["frost"]), (0.0, []), (22.0, []), (22.1, ["heat"])],
)  # fmt: skip
def test_frost_is_below_nothing_and_heat_above_twenty_two(c: float, told: list[str]) -> None:
    assert [one.what for one in extremes(logged(*((h, c, 70.0) for h in range(6))))] == told


def test_one_reading_tells_of_six_hours_at_most() -> None:
    assert extremes(logged((0, 30.0, 60.0), (20, 13.0, 60.0))) == [Extreme("heat", 0.0, 6.0, 30.0)]
    assert extremes(logged((0, 13.0, 60.0), (20, 30.0, 60.0))) == []  # the last one of an hour
