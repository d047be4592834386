"""Rights, secrets and copies: each at its boundary."""

from datetime import datetime, timedelta
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zymon.core.errors import OutOfRangeError
from zymon.core.house.copies import KEPT_DAYS, KEPT_WEEKS, due, kept, old
from zymon.core.house.people import (
    CONFIRMED_FOR_S,
    PIN_SESSION_S,
    RIGHTS,
    SESSION_S,
    check_passphrase,
    check_pin,
    may,
    wait_s,
)
from zymon.core.house.thinning import SPAN_S, SPANS_AN_HOUR, WORTH_READINGS, full_since

DAY = 86_400


def test_each_role_may_what_the_one_below_it_may_and_more() -> None:
    steps = ["inspector", "helper", "maker", "owner"]
    for less, more in pairwise(steps):
        assert RIGHTS[less] < RIGHTS[more]
    assert not may("maker", "keep_house")
    assert not may("helper", "write")
    assert not may("inspector", "note")


@pytest.mark.parametrize("good", ["x" * 10, "x" * 200, "drei Wörter lang"])
def test_a_passphrase_that_is_long_enough(good: str) -> None:
    check_passphrase(good)


@pytest.mark.parametrize("bad", ["", "x" * 9, "x" * 201])
def test_a_passphrase_that_is_not(bad: str) -> None:
    with pytest.raises(OutOfRangeError):
        check_passphrase(bad)


@pytest.mark.parametrize("good", ["4931", "00000001", "1357"])
def test_a_pin(good: str) -> None:
    check_pin(good)


@pytest.mark.parametrize("bad", ["493", "493149314", "49a1", "١٢٣٤", "0000", "1234", "9876", "8901", ""])
def test_no_pin_or_one_that_everybody_tries(bad: str) -> None:
    with pytest.raises(OutOfRangeError):
        check_pin(bad)


def test_wrong_tries_wait_longer_each_time_and_never_for_good() -> None:
    waits = [wait_s(n) for n in range(60)]
    assert waits[:6] == [0, 0, 0, 0, 0, 30]
    assert waits == sorted(waits)
    assert max(waits) == 900


def test_a_year_of_nights_keeps_a_week_of_days_and_eight_weeks() -> None:
    there: set[int] = set()
    for night in range(365):
        there = kept(there | {night * DAY + 3 * 3600})
        assert len(there) <= KEPT_DAYS + KEPT_WEEKS
    ages = sorted((364 * DAY + 3 * 3600 - s) // DAY for s in there)
    assert ages[:7] == [0, 1, 2, 3, 4, 5, 6]
    assert len(ages) - 7 >= KEPT_WEEKS - 2  # the week that goes on, and its day, are among the first seven
    assert 7 * (KEPT_WEEKS - 2) <= ages[-1] < 7 * KEPT_WEEKS  # this week is one of the eight
    assert all(b - a <= 7 for a, b in pairwise(ages))


@given(st.sets(st.integers(0, 400 * DAY), min_size=1, max_size=60))
def test_the_newest_copy_always_stays_and_thinning_twice_changes_nothing(copies: set[int]) -> None:
    stays = kept(copies)
    assert max(copies) in stays <= copies
    assert kept(stays) == stays


def test_a_copy_is_due_once_a_night_or_when_the_machine_is_on_again() -> None:
    night = datetime(2026, 3, 2, 3, 0)
    assert due(None, night - timedelta(hours=2))
    assert due(night - timedelta(minutes=1), night)
    assert not due(night, night + timedelta(hours=23, minutes=59))
    assert due(night, night + timedelta(hours=24))
    assert due(night - timedelta(days=20), night + timedelta(hours=6))


def test_an_old_copy_is_said_after_two_days_and_a_new_workshop_has_time() -> None:
    assert not old(0, 0, 2 * DAY)
    assert old(0, 0, 2 * DAY + 1)
    assert not old(None, 10 * DAY, 12 * DAY)
    assert old(None, 10 * DAY, 12 * DAY + 1)


def test_whoever_signed_in_stays_so_for_a_month_on_a_device_of_theirs_and_for_half_a_shift_on_a_shared_one() -> None:
    assert timedelta(seconds=SESSION_S) == timedelta(days=30)
    assert timedelta(seconds=PIN_SESSION_S) == timedelta(hours=4)
    assert timedelta(seconds=CONFIRMED_FOR_S) == timedelta(minutes=2)


@pytest.mark.parametrize(
    ("failures", "waits"),
    [(0, 0), (4, 0), (5, 30), (6, 60), (7, 120), (8, 240), (9, 480), (10, 900), (11, 900), (10_000, 900)],
)
def test_how_long_a_name_waits_after_wrong_tries(failures: int, waits: int) -> None:
    assert wait_s(failures) == waits


@pytest.mark.parametrize(
    ("now", "since"),
    [
        (datetime(2026, 11, 29, 23, 59), datetime(2024, 11, 29)),
        (datetime(2026, 11, 29, 0, 0), datetime(2024, 11, 29)),
        (datetime(2026, 2, 28, 12), datetime(2024, 2, 28)),
        (datetime(2024, 2, 29, 12), datetime(2022, 2, 28)),  # a day that other years have not
        (datetime(2026, 1, 1), datetime(2024, 1, 1)),
    ],
)
def test_readings_stay_as_they_came_for_two_years_by_the_calendar(now: datetime, since: datetime) -> None:
    assert full_since(now) == since


def test_what_is_thinned_becomes_a_reading_every_five_minutes_and_little_is_not_worth_asking_about() -> None:
    assert SPAN_S == 5 * 60
    assert SPANS_AN_HOUR == 12
    assert WORTH_READINGS == 10_000
