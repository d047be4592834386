"""Laws of the bowl: scaling, round trips, what the bases of salt have in common, and refusals in words."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from support import refused
from zymon.core.curing import cure_days, uptake
from zymon.core.degree_hours import degree_hours, longest_hours
from zymon.core.formulation import (
    Part,
    acid_ceiling,
    blend,
    blend_to_fat,
    cost_per_kg,
    formulate,
    line_amount,
    line_grams,
    pieces_from,
    scale_needed,
    two_part_blend,
    worst_rounding_error,
)
from zymon.core.water import (
    DRY_IN_LEAN,
    WATER_IN_LEAN,
    brine_in_meat,
    brine_water_activity,
    keep_class,
    meat_water_activity,
)
from zymon.limits import shipped

MEAT = st.floats(100, 40_000)
SHARE = st.floats(0, 0.3)
BASES = ("inclusive", "exact", "on_top")


@given(MEAT, st.floats(1.5, 4.5), st.floats(0, 0.4), SHARE, SHARE, st.sampled_from(BASES), st.floats(0.1, 20))
def test_scaling_by_k_scales_all_grams_by_k_and_no_share(meat, salt, curing, nitrite, nitrate, basis, k) -> None:
    one = formulate(meat, salt, curing, nitrite, nitrate, basis)
    many = formulate(meat * k, salt, curing, nitrite, nitrate, basis)
    assert many.plain_salt_g == pytest.approx(k * one.plain_salt_g, rel=1e-9, abs=1e-6)
    assert many.curing_salt_g == pytest.approx(k * one.curing_salt_g, rel=1e-9, abs=1e-6)
    assert many.nitrite_mg_per_kg_meat == pytest.approx(one.nitrite_mg_per_kg_meat)
    assert many.sodium_chloride_percent_of_meat == pytest.approx(one.sodium_chloride_percent_of_meat, abs=1e-9)


@given(MEAT, st.floats(0, 8), st.sampled_from(BASES))
def test_without_curing_salt_the_three_bases_are_one(meat, salt, basis) -> None:
    made = formulate(meat, salt, 0, 0.0625, 0, basis)
    assert made.plain_salt_g == pytest.approx(meat * salt / 100)
    assert made.nitrite_mg_per_kg_meat == 0


@given(st.floats(0, 50), st.sampled_from(["percent", "per_kg", "absolute", "fixed"]), MEAT)
def test_amounts_and_grams_round_trip(amount, basis, meat) -> None:
    assert line_amount(line_grams(amount, basis, meat), basis, meat) == pytest.approx(amount)


@given(st.lists(st.tuples(st.floats(100, 9000), st.floats(0, 100)), min_size=2, max_size=6), st.floats(0, 1))
def test_a_blend_keeps_its_weight_and_gets_its_fat(rows, where) -> None:
    parts = [Part(*row) for row in rows]
    fattest = max(range(len(parts)), key=lambda i: parts[i].fat_percent)
    rest = blend([p for i, p in enumerate(parts) if i != fattest]).fat_percent
    if parts[fattest].fat_percent - rest < 1:
        return
    wanted = min(rest + where * (parts[fattest].fat_percent - rest), parts[fattest].fat_percent)
    made = blend_to_fat(parts, wanted)
    assert blend(made).fat_percent == pytest.approx(wanted)
    assert blend(made).meat_g == pytest.approx(blend(parts).meat_g)
    assert all(p.weight_g >= 0 for p in made)


@given(st.floats(0, 20), st.floats(0, 20))
def test_more_sugar_never_ends_higher(some, more) -> None:
    assert acid_ceiling(some + more, 5.8).end_ph_if_all_used <= acid_ceiling(some, 5.8).end_ph_if_all_used


@given(st.floats(0.1, 6), st.floats(0.001, 0.1))
def test_more_salt_never_raises_water_activity(molality, more) -> None:
    assert brine_water_activity(molality + more) < brine_water_activity(molality)
    assert 0 < brine_water_activity(molality) < 1


# Robinson & Stokes, Electrolyte Solutions (1959): water activity of sodium chloride in water at 25 °C, by molality
PUBLISHED_BRINE = {1.0: 0.9669, 2.0: 0.9316, 3.0: 0.8932, 4.0: 0.8515, 5.0: 0.8068, 6.0: 0.7598}


@pytest.mark.parametrize(("molality", "published"), PUBLISHED_BRINE.items())
def test_the_brine_is_that_of_the_published_table(molality: float, published: float) -> None:
    assert brine_water_activity(molality) == pytest.approx(published, abs=0.0006)


@pytest.mark.parametrize(
    ("fat_percent", "salt_percent", "loss_percent", "low", "high"),
    [
        (27, 2.7, 25, 0.93, 0.96),  # salame, still soft
        (27, 2.7, 35, 0.89, 0.92),  # salame, as it is cut
        (27, 2.7, 42, 0.80, 0.88),  # salame, hard
        (12, 2.8, 35, 0.91, 0.94),  # neck
        (4, 2.6, 40, 0.91, 0.94),  # lean beef
        (18, 4.0, 25, 0.92, 0.95),  # ham, buried in salt, young
        (18, 4.0, 33, 0.89, 0.92),  # ham, ready
    ],
)
def test_goods_lie_where_practice_finds_them(fat_percent, salt_percent, loss_percent, low, high) -> None:
    """An estimate: bands as laboratories usually report them of such goods, no one table's."""
    lean = 100 - fat_percent
    made = meat_water_activity(salt_percent, WATER_IN_LEAN * lean - loss_percent, DRY_IN_LEAN * lean)
    assert low <= made.value <= high


@given(st.floats(1.5, 4.5), st.floats(20, 70))
def test_meat_lies_below_its_brine_and_drier_is_lower(salt, water) -> None:
    dry = meat_water_activity(salt, water, 20)
    assert dry.value <= brine_in_meat(salt, water).water_activity_of_brine
    assert dry.value < meat_water_activity(salt, water + 5, 20).value


@given(st.sampled_from(["slab", "cylinder", "sphere"]), st.floats(0, 3), st.floats(1e-5, 1))
def test_salt_only_moves_inwards(shape, fourier, more) -> None:
    early, late = uptake(shape, fourier), uptake(shape, fourier + more)
    assert late.mean >= early.mean - 1e-9
    assert late.centre >= early.centre - 1e-9
    assert early.centre <= early.mean + 1e-9


@given(st.lists(st.floats(5, 40), min_size=2, max_size=30), st.floats(0.5, 12))
def test_warmer_never_uses_fewer_degree_hours_and_gaps_count_at_the_worse_end(levels, step) -> None:
    points = [(i * step, c) for i, c in enumerate(levels)]
    for profile in shipped().values():
        table = profile.degree_hours
        one = degree_hours(points, points[-1][0], table)
        warmer = degree_hours([(h, c + 1) for h, c in points], points[-1][0], table)
        worse = degree_hours(points, points[-1][0], table, gap_hours=0.1)
        assert warmer.used >= one.used
        assert worse.used >= one.used - 1e-9
        assert worse.limit == one.limit


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (lambda: formulate(0, 2.7, 0.25, 0.0625, 0, "exact"), "meat must be above 0 g, got 0"),
        (lambda: formulate(5000, 100, 0, 0, 0, "exact"), "salt must be between 0 and 15 %, got 100"),
        (lambda: formulate(5000, 2, 3, 0.006, 0, "inclusive"), "more than the 2 % of salt"),
        (lambda: formulate(5000, 2, 0.2, 0.0625, 0, "sideways"), "salt basis must be"),
        (lambda: blend([]), "meat must be above 0 g, got 0"),
        (lambda: two_part_blend(8, 85, 90, 6000), "fat wanted must lie between the parts' 8 and 85 %, got 90"),
        (lambda: two_part_blend(30, 30, 30, 6000), "fat wanted must lie between"),
        (lambda: blend_to_fat([Part(4000, 8)], 20), "a blend needs a second part"),
        (lambda: worst_rounding_error(0, 1), "weight must be above 0 g"),
        (lambda: acid_ceiling(3, 53), "start pH must be between 4 and 8, got 53"),
        (lambda: cost_per_kg(-3, 100), "cost must be between 0"),
        (lambda: pieces_from(100, 0), "weight of a piece must be above 0 g"),
        (lambda: brine_in_meat(50, 20), "50 g of salt do not dissolve in 20 g of water"),
        (lambda: keep_class(1.2, None), "water activity must be between 0 and 1"),
        (lambda: cure_days("linear", 4000, 2), "thickness must be between 0 and 400 mm, got 4000"),
        (lambda: degree_hours([], 5, shipped()["us"].degree_hours), "no temperature is logged"),
        (lambda: degree_hours([(5, 20), (2, 20)], 6, shipped()["us"].degree_hours), "in time order"),
        (lambda: degree_hours([(5, 20)], 2, shipped()["us"].degree_hours), "lies before the log"),
        (lambda: longest_hours(55, shipped()["us"].degree_hours), "temperature must be above 60 °F, got 55"),
    ],
)
def test_refusals_in_words(call, words: str) -> None:
    with refused(words):
        call()


def test_a_scale_is_named_that_is_fine_enough() -> None:
    assert [scale_needed(g) for g in (2000, 15, 6, 0.6, 0.05)] == [5.0, 1.0, 0.1, 0.01, 0.01]
    assert pieces_from(6301, 900) == 8
    assert cure_days("square", 60, 1, geometry="slab") == 2 * cure_days("square", 60, 1)


@pytest.mark.parametrize(
    "call",
    [
        lambda grams: scale_needed(grams),
        lambda grams: line_grams(1, "percent", grams),
        lambda grams: line_amount(1, "percent", grams),
        lambda grams: line_amount(grams, "absolute", 5000),
        lambda grams: line_grams(grams, "fixed", 5000),
    ],
)
def test_nine_hundred_kilograms_are_the_most_that_is_no_slip(call) -> None:
    call(900_000.0)
    with refused("900000"):
        call(900_001.0)


@pytest.mark.parametrize(("grams", "scale_g"), [(50.0, 5.0), (49.9, 1.0), (10.0, 1.0), (9.9, 0.1)])
def test_a_scale_is_too_coarse_from_an_error_of_five_percent(grams: float, scale_g: float) -> None:
    assert scale_needed(grams) == scale_g
    assert worst_rounding_error(grams, scale_g) <= 5.0


def test_meat_buffers_acid_as_usual_where_nobody_measured_it() -> None:
    """Two of lactic acid from each of dextrose, 55 of it a kilogram for one pH."""
    acid = acid_ceiling(4.9543, 5.8)
    assert acid.lactic_acid_mmol_per_kg == pytest.approx(55.0, abs=0.001)
    assert acid.end_ph_if_all_used == pytest.approx(4.8, abs=1e-4)


@pytest.mark.parametrize(
    ("rule", "thickness_mm", "weight_kg", "days"),
    [("linear", 80, 9, 12.0), ("square", 100, 9, 9.7), ("by_weight", 80, 4, 8.0)],
)
def test_rules_of_thumb_are_what_makers_say(rule: str, thickness_mm: float, weight_kg: float, days: float) -> None:
    assert cure_days(rule, thickness_mm, weight_kg) == pytest.approx(days)
    assert cure_days(rule, thickness_mm, weight_kg, margin_percent=25) == pytest.approx(1.25 * days)


@pytest.mark.parametrize("geometry", ["slab", "cylinder", "sphere"])
def test_so_many_terms_are_taken_that_a_short_time_is_told_rightly(geometry) -> None:
    """Near the rim, where nothing has come far, what went in grows with the root of time."""
    short = uptake(geometry, 0.001).mean
    faces = {"slab": 1, "cylinder": 2, "sphere": 3}[geometry]
    curved = {"slab": 0.0, "cylinder": 0.001, "sphere": 0.003}[geometry]
    assert short == pytest.approx(2 * faces * (0.001 / 3.141592653589793) ** 0.5 - curved, abs=2e-5)
    assert uptake(geometry, 0.001).centre == pytest.approx(0.0, abs=1e-6)
