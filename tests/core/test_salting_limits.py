"""Every figure of the salting at its mark: what a fifth more or less of it would change."""

import math

import numpy as np
import pytest

from support import refused
from zymon.core.drying.climate import Log
from zymon.core.salting.bag import DIFFUSIVITY_M2_S, Bag, Cold, Step, diffusivity
from zymon.core.salting.care import care_due, runs_dry
from zymon.core.salting.clock import SaltClock, salt_clocks
from zymon.core.salting.shed import expected_weight, judge_weight
from zymon.core.salting.ways import REGISTRY, Way, out_is_early

DAY = 86_400.0
HOUR = 3600.0
NO_LOG = Log(np.zeros(0), np.zeros(0), np.zeros(0))


def bag(way: Way = "measured", percent: float = 2.8, *more: Step, **changes: object) -> Bag:
    values: dict = {
        "geometry": "cylinder", "across_mm": 80.0, "weight_g": 1500.0, "fat_percent": 0.0,
        "steps": (Step(0.0, "lay", way, percent), *more), "cold": Cold(NO_LOG, 3.0), "rules": ("diffusion",),
    }  # fmt: skip
    return Bag(**{**values, **changes})


def clock(laid: Bag, day: float) -> SaltClock:
    return salt_clocks([laid], day * DAY)[0]


def speed(c: float, fat: float = 0.0) -> float:
    return float(diffusivity(np.array(c), fat)) / DIFFUSIVITY_M2_S


# -- how fast salt goes


@pytest.mark.parametrize(("c", "times"), [(0.0, 0.887), (3.0, 1.0), (8.0, 1.214), (13.0, 1.463)])
def test_ten_degrees_more_move_salt_half_as_fast_again(c: float, times: float) -> None:
    """Arrhenius with 25 kJ/mol about 3 °C."""
    assert speed(c) == pytest.approx(times, abs=0.004)


def test_frozen_meat_takes_no_salt() -> None:
    assert speed(-2.0) > 0.7
    assert speed(-2.01) == 0.0


def test_no_salt_goes_through_fat() -> None:
    assert speed(3.0, 30.0) == pytest.approx(0.7)
    with refused("fat must be between 0 and 80 %"):
        speed(3.0, 80.1)


def test_through_holes_it_goes_two_and_a_half_times_as_fast() -> None:
    assert clock(bag(pierced=True), 2.0).core_percent == pytest.approx(clock(bag(), 5.0).core_percent, rel=0.02)


def test_the_windows_of_the_core_are_that_of_a_muscle_that_much_slower_and_faster() -> None:
    """Four in five muscles lie within 1.45 times either way of the usual one."""
    usual = clock(bag(), 6.0)
    at_four = float(np.interp(4.0 * DAY, usual.curve_s, usual.core))
    assert np.interp(4.0 * 1.45 * DAY, usual.curve_s, usual.core_low) == pytest.approx(at_four, rel=0.02)
    assert np.interp(4.0 / 1.45 * DAY, usual.curve_s, usual.core_high) == pytest.approx(at_four, rel=0.03)


def test_skin_keeps_salt_out_as_a_longer_way_in() -> None:
    half = clock(bag(skin_share=0.5), 8.0)
    assert half.core_percent == pytest.approx(clock(bag(across_mm=160.0), 8.0).core_percent, rel=0.02)


# -- how much there is outside


def test_under_free_salt_half_of_the_rim_is_wet() -> None:
    """Strong brine is 26 % salt; meat that holds 70 % water holds 18.2 % of it, and half of that where it is wet."""
    free = clock(bag("buried", 4.0), 3.0)
    assert free.profile[-1] == pytest.approx(9.1, abs=0.6)
    assert free.profile.max() <= 9.1 + 1e-6


@pytest.mark.parametrize(("day", "most"), [(0.05, 18.2), (0.5, 18.2)])
def test_no_rim_holds_more_than_strong_brine_however_much_was_weighed(day: float, most: float) -> None:
    heavy = clock(bag("measured", 12.0), day)
    assert heavy.profile.max() == pytest.approx(most, rel=0.06)


def test_a_weighed_dose_settles_at_what_was_weighed() -> None:
    long = clock(bag("measured", 2.8), 60.0)
    assert long.mean_percent == pytest.approx(2.8, rel=0.01)
    assert long.core_percent == pytest.approx(2.8, rel=0.02)
    assert (long.mean_low_percent, long.mean_high_percent) == (long.mean_percent, long.mean_percent)


def test_what_sticks_and_what_lies_free_was_never_weighed() -> None:
    rubbed = clock(bag("rub_and_drain", 3.0), 4.0)
    assert rubbed.mean_low_percent == pytest.approx(rubbed.mean_percent / 1.35)
    assert rubbed.mean_high_percent == pytest.approx(rubbed.mean_percent * 1.35)
    free = clock(bag("buried", 4.0), 4.0)
    longer, shorter = clock(bag("buried", 4.0), 4.0 * 1.45), clock(bag("buried", 4.0), 4.0 / 1.45)
    assert free.mean_high_percent == pytest.approx(longer.mean_percent * 1.15, rel=0.02)
    assert free.mean_low_percent == pytest.approx(shorter.mean_percent / 1.15, rel=0.02)


def test_a_soak_washes_into_eight_times_its_volume() -> None:
    """Left in it for four days, a small piece has given all but a ninth of its salt to the water."""
    soaked = bag("measured", 2.8, Step(30 * DAY, "soak", hours=96.0), across_mm=12.0, weight_g=40.0)
    assert clock(soaked, 34.5).mean_percent == pytest.approx(2.8 / 9, rel=0.05)


# -- the window


def test_free_salt_comes_out_between_too_mild_and_too_salty() -> None:
    free = clock(bag("buried", 4.0), 1.0)
    assert free.earliest_s is not None
    assert free.best_s is not None
    assert free.latest_s is not None
    means = [free.at(at)[0] for at in (free.earliest_s, free.best_s, free.latest_s)]
    assert means == pytest.approx([0.85 * 4.0, 4.0, 1.35 * 4.0], rel=1e-6)
    assert free.leads == "aim"


def test_a_dose_is_done_when_its_core_has_four_fifths_of_it_and_may_come_out_at_half() -> None:
    dose = clock(bag("measured", 3.0), 1.0)
    assert dose.earliest_s is not None
    assert dose.best_s is not None
    assert dose.at(dose.best_s)[1] == pytest.approx(0.8 * 3.0, rel=1e-6)
    assert dose.at(dose.earliest_s)[1] == pytest.approx(0.5 * 3.0, rel=1e-6)
    assert dose.core_reached_s[1] == dose.best_s


@pytest.mark.parametrize(
    ("way", "days"), [("measured", None), ("rub_and_drain", 4.0), ("pressed", 3.0), ("by_thickness", 5.0)]
)
def test_how_long_each_way_may_wait(way: Way, days: float | None) -> None:
    found = clock(bag(way, 3.0), 1.0)
    assert found.best_s is not None
    if days is None:
        assert found.latest_s is None
    else:
        assert found.latest_s == pytest.approx(found.best_s + days * DAY)


def test_out_is_early_under_half_of_the_level() -> None:
    assert out_is_early("pressed", False, 0.4999)
    assert not out_is_early("pressed", False, 0.5)
    assert not out_is_early("pressed", True, 0.1)  # free salt is taken out by its aim


# -- what no piece can be


@pytest.mark.parametrize(
    ("within", "beyond", "words"),
    [
        ({"across_mm": 3.0}, {"across_mm": 2.9}, "thickness"),
        ({"across_mm": 400.0}, {"across_mm": 401.0}, "thickness"),
        ({"weight_g": 50_000.0}, {"weight_g": 50_001.0}, "weight"),
        ({"fat_percent": 80.0}, {"fat_percent": 80.5}, "fat"),
        ({"skin_share": 0.8}, {"skin_share": 0.81}, "share under skin"),
        ({"steps": (Step(0, "lay", percent=0.3),)}, {"steps": (Step(0, "lay", percent=0.29),)}, "salt"),
        ({"steps": (Step(0, "lay", percent=12.0),)}, {"steps": (Step(0, "lay", percent=12.1),)}, "salt"),
    ],
)
def test_the_last_piece_that_can_be_and_the_first_that_cannot(within: dict, beyond: dict, words: str) -> None:
    bag(**within)
    with refused(f"{words} must be"):
        bag(**beyond)


def test_a_soak_is_four_days_at_most_and_longer_than_none() -> None:
    bag("measured", 2.8, Step(DAY, "soak", hours=96.0))
    for hours in (96.1, 0.0):
        with refused("soak must be"):
            bag("measured", 2.8, Step(DAY, "soak", hours=hours))


def test_nothing_is_in_salt_before_salt_was_laid_on() -> None:
    with pytest.raises(ValueError, match="not_salted_yet"):
        bag(steps=(Step(0.0, "soak", hours=5.0),))


# -- what it weighs


@pytest.mark.parametrize(
    ("way", "low", "high"),
    [("measured", 2, 10), ("buried", 4, 15), ("rub_and_drain", 5, 14), ("pressed", 4, 14), ("by_thickness", 3, 10)],
)
def test_a_piece_of_a_kilogram_at_the_end_of_each_way(way: Way, low: float, high: float) -> None:
    """Half a percent either way for scale and surface; a tenth less than usual may have been shed."""
    found = expected_weight(way, 1000.0, 3.0, 1.0)
    assert (found.shed_low_percent, found.shed_high_percent) == pytest.approx((0.9 * low, high))
    assert found.low_g == pytest.approx(1000 - 10 * high - 5)
    assert found.high_g == pytest.approx(1000 + 30 - 9 * low + 5)


def test_a_soak_may_leave_three_percent_of_water_in_it() -> None:
    dry, soaked = (expected_weight("buried", 1000.0, 3.0, 1.0, soaked) for soaked in (False, True))
    assert soaked.high_g - dry.high_g == pytest.approx(30.0)
    assert soaked.low_g == dry.low_g


@pytest.mark.parametrize(
    ("progress", "share"), [(0.0, 0.0), (1 / 12, 0.5), (0.3, math.sqrt(0.9)), (1 / 3, 1.0), (1.0, 1.0)]
)
def test_most_of_the_liquid_comes_in_the_first_third(progress: float, share: float) -> None:
    assert expected_weight("measured", 1000.0, 2.8, progress).shed_high_percent == pytest.approx(10.0 * share)


def test_a_weight_at_the_edge_is_expected_and_the_next_gram_is_not() -> None:
    wanted = expected_weight("measured", 1000.0, 2.8, 1.0)
    assert judge_weight(1000.0, wanted.low_g, wanted) == "as_expected"
    assert judge_weight(1000.0, wanted.high_g, wanted) == "as_expected"
    assert judge_weight(1000.0, wanted.low_g - 1, wanted) == "too_light"
    assert judge_weight(1000.0, wanted.high_g + 1, wanted) == "gained"
    light = expected_weight("buried", 1000.0, 0.3, 1.0)
    assert light.high_g < 1000
    assert judge_weight(1000.0, light.high_g + 1, light) == "too_heavy"


# -- what is done to it


def test_a_care_may_be_done_from_three_quarters_of_its_span() -> None:
    (turn,) = care_due("measured", 0.0, (), 10 * HOUR)
    assert turn.from_s == pytest.approx(27 * HOUR)
    assert turn.best_s == pytest.approx(36 * HOUR)
    assert turn.latest_s == pytest.approx(72 * HOUR)


@pytest.mark.parametrize(
    ("way", "kind", "best", "latest"),
    [
        ("buried", "check", 24, 36),
        ("buried", "drain", 12, 36),
        ("rub_and_drain", "drain", 18, 30),
        ("rub_and_drain", "rub", 24, 48),
        ("rub_and_drain", "turn", 36, 72),
        ("pressed", "turn", 24, 36),
        ("by_thickness", "turn", 24, 48),
        ("by_thickness", "drain", 48, 72),
    ],
)
def test_when_each_care_is_due_first_and_how_long_it_may_wait(way: Way, kind: str, best: float, latest: float) -> None:
    due = {one.kind: one for one in care_due(way, 0.0, (), HOUR)}
    assert set(due) == {care.kind for care in REGISTRY[way].care}
    assert due[kind].best_s == pytest.approx(best * HOUR)  # type: ignore[index] # of the kinds above
    assert due[kind].latest_s == pytest.approx(latest * HOUR)  # type: ignore[index]


def test_no_liquid_comes_any_more_under_a_gram_a_kilogram_twice() -> None:
    assert runs_dry([(1.0, 1.0), (2.0, 1.0)], 2000) == {"drain"}
    assert runs_dry([(1.0, 1.1), (2.0, 1.0)], 2000) == frozenset()
    assert runs_dry([(2.0, 0.0)], 2000) == frozenset()  # once is not twice
