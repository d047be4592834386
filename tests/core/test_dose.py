"""Salt that nobody weighed: what it took up, and how long the core takes to catch up in the cold."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from zymon.core.drying.geometry import body_of
from zymon.core.ledger.batch import Stage
from zymon.core.ledger.dose import core_share_after, hours_until_core, taken_up_percent
from zymon.core.salting.bag import DIFFUSIVITY_SPREAD, diffusivity

HOUR, DAY = 3600.0, 86_400.0


def cure(way: str = "buried", days: float = 2.0, c: float = 3.0, open_end: bool = False) -> Stage:
    readings = tuple((h * HOUR, c) for h in np.arange(0, days * 24 + 1, 1.0))
    return Stage("cure", 0.0, None if open_end else days * DAY, readings, way=way)


def taken(grams: float = 1800.0, fat: float | None = 8.0, end_days: float = 30.0, **changes: object) -> float:
    share = taken_up_percent([cure(**changes)], grams, fat, end_days * DAY)
    assert share is not None
    return share


def test_two_days_buried_salt_a_leg_piece_as_makers_taste_it() -> None:
    assert 2.0 < taken() < 4.0


@pytest.mark.parametrize("way", ["rub_and_drain", "measured", "brine"])
def test_of_salt_that_ran_off_or_was_weighed_nothing_is_told(way: str) -> None:
    assert taken_up_percent([cure(way)], 1800.0, 8.0, 30 * DAY) is None


def test_without_a_reading_of_the_cold_nothing_is_told_nor_of_what_is_no_piece() -> None:
    assert taken_up_percent([Stage("cure", 0.0, DAY, (), way="buried")], 1800.0, 8.0, DAY) is None
    assert taken_up_percent([], 1800.0, 8.0, DAY) is None
    assert taken_up_percent([cure()], 0.5, 8.0, DAY) is None


@given(st.floats(0.5, 6), st.floats(0.2, 3), st.floats(300, 5000), st.floats(1, 6))
def test_longer_warmer_smaller_and_leaner_takes_up_more(days: float, more: float, grams: float, c: float) -> None:
    here = taken(grams, days=days, c=c)
    assert taken(grams, days=days + more, c=c) >= here
    assert taken(grams, days=days, c=c + 1) >= here
    assert taken(grams * 1.5, days=days, c=c) <= here
    assert taken(grams, fat=28.0, days=days, c=c) <= here


def test_what_nobody_said_of_its_fat_is_as_usual_of_a_muscle_and_no_more_than_a_back_has() -> None:
    assert taken(fat=None) == pytest.approx(taken(fat=8.0))
    assert taken(fat=95.0) == pytest.approx(taken(fat=80.0))


def test_it_lay_in_the_salt_until_it_was_taken_out_or_until_now() -> None:
    assert taken(end_days=30.0) == pytest.approx(taken(end_days=2.0))
    assert taken(end_days=1.0) == pytest.approx(taken(days=1.0))
    assert taken(open_end=True, end_days=2.0) == pytest.approx(taken())
    assert taken_up_percent([cure(days=1.0), cure()], 1800.0, 8.0, 2 * DAY) is not None  # two stages, one time


@pytest.mark.parametrize(("grams", "c", "fat"), [(2000.0, 3.0, 10.0), (400.0, 1.0, 0.0), (6000.0, 4.0, None)])
def test_a_core_catches_up_by_the_first_root_of_the_equation(grams: float, c: float, fat: float | None) -> None:
    """Between a cylinder, whose root is 3.832, and a sphere with 4.493: 16.3, at the slow end of diffusion."""
    half_m = body_of("whole_muscle", "irregular", grams).half_thickness_m
    slow = float(diffusivity(np.array(c), 8.0 if fat is None else fat)) / DIFFUSIVITY_SPREAD
    assert 3.832**2 < 16.3 < 4.493**2
    left = np.exp(-16.3 * slow * 100 * HOUR / half_m**2)
    assert core_share_after(0.4, 100.0, c, grams, fat) == pytest.approx(1 - 0.6 * left)


@given(st.floats(0, 0.79), st.floats(-1, 6), st.floats(200, 8000), st.one_of(st.none(), st.floats(0, 30)))
def test_after_the_hours_it_needs_a_core_has_its_share(share: float, c: float, grams: float, fat: float | None) -> None:
    hours = hours_until_core(share, 0.8, c, grams, fat)
    assert hours > 0
    assert core_share_after(share, hours, c, grams, fat) == pytest.approx(0.8)
    assert hours_until_core(share, 0.8, c + 1, grams, fat) < hours < hours_until_core(share, 0.8, c, 2 * grams, fat)
    assert hours_until_core(0.8, 0.8, c, grams, fat) == 0 == hours_until_core(0.95, 0.8, c, grams, fat)
