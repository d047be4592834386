"""Salt on its way inwards: against Crank's series, conserved to the last digit, and windows that make sense."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from support import refused
from zymon.core.curing import uptake
from zymon.core.drying.climate import Log
from zymon.core.ledger.batch import Stage
from zymon.core.ledger.cold import cold_along
from zymon.core.salting.bag import DIFFUSIVITY_SPREAD, Bag, Cold, Step
from zymon.core.salting.clock import SaltClock, salt_clocks
from zymon.core.salting.front import GEOMETRIES, Outside, take_up

DAY = 86_400.0
NO_LOG = Log(np.zeros(0), np.zeros(0), np.zeros(0))


def steady(temperature_c: float) -> Cold:
    return Cold(NO_LOG, temperature_c)


def bag(way: str = "measured", percent: float = 2.8, temperature_c: float = 3.0, **changes: object) -> Bag:
    values: dict = {
        "geometry": "cylinder", "across_mm": 85.0, "weight_g": 1800.0, "fat_percent": 10.0,
        "steps": (Step(0.0, "lay", way, percent),), "cold": steady(temperature_c),
    }  # fmt: skip
    return Bag(**{**values, **changes})


def clock(of: Bag, day: float = 3.0) -> SaltClock:
    return salt_clocks([of], day * DAY)[0]


def outside(steps: int, n: int, **changes: np.ndarray) -> Outside:
    flags, zero = np.zeros((steps, n), bool), np.zeros((steps, n))
    values = {"ceiling": zero + 18, "brine": zero + 0.06, "added": zero.copy(), "free": flags, "washed": flags}
    return Outside(**{**values, **changes})


def test_a_held_rim_is_cranks_series() -> None:
    fourier = np.repeat(np.array([0, 0.02, 0.05, 0.1, 0.2, 0.3, 0.5, 0.8, 1.0])[:, None], 3, axis=1)
    held = outside(8, 3, ceiling=np.ones((8, 3)), free=np.ones((8, 3), bool))
    found = take_up(np.arange(3), fourier, held)
    for i, geometry in enumerate(GEOMETRIES):
        for k in range(1, 9):
            crank = uptake(geometry, fourier[k, i])
            assert found.centre[k, i] == pytest.approx(crank.centre, abs=0.002)
            assert found.mean[k, i] == pytest.approx(crank.mean, abs=0.002)


@given(
    dose=st.floats(0.5, 8),
    steps=st.lists(st.floats(1e-5, 0.3), min_size=3, max_size=30),
    brine=st.floats(0.01, 0.2),
)
@settings(max_examples=60)
def test_a_finite_dose_is_conserved_and_only_moves_inwards(dose: float, steps: list[float], brine: float) -> None:
    fourier = np.repeat(np.concatenate([[0.0], np.cumsum(steps)])[:, None], 3, axis=1)
    m = len(steps)
    added = np.zeros((m, 3))
    added[0] = dose
    found = take_up(np.arange(3), fourier, outside(m, 3, added=added, brine=np.full((m, 3), brine)))
    assert found.mean[1:] + found.outside[1:] == pytest.approx(dose)
    assert (np.diff(found.mean, axis=0) >= -1e-9).all()
    assert (np.diff(found.centre, axis=0) >= -1e-9).all()


def test_the_days_makers_report_come_out_of_it() -> None:
    """Neck 7–14 and round 14–38 days, boned leg 40–45, flat belly 5–7, breast 15–24 h, tenderloin 48–72 h at most."""

    def days(of: Bag) -> tuple[float, float]:
        found = clock(of)
        assert found.earliest_s is not None
        assert found.best_s is not None
        return found.earliest_s / DAY, found.best_s / DAY

    assert 9 < days(bag())[0] < 14
    assert 14 < days(bag(percent=2.6, fat_percent=4.0))[1] < 38
    assert 30 < days(bag(percent=2.0, across_mm=120.0, weight_g=4500.0))[1] < 45
    assert 4 < days(bag(percent=3.0, geometry="slab", across_mm=35.0, weight_g=1400.0, fat_percent=43.0))[1] < 8
    breast = bag("buried", 3.0, geometry="slab", across_mm=25.0, weight_g=380.0, fat_percent=25.0)
    assert 15 / 24 <= days(breast)[0] < days(breast)[1] <= 24 / 24
    assert clock(bag("buried", 3.0, across_mm=50.0, weight_g=400.0)).latest_s == pytest.approx(1.7 * DAY, rel=0.3)
    leg = bag("buried", 4.0, geometry="sphere", across_mm=160.0, weight_g=9500.0, fat_percent=18.0, skin_share=0.4)
    assert 20 < days(leg)[1] < 40


@given(st.floats(0, 7), st.floats(0.2, 6), st.sampled_from(["measured", "buried", "rub_and_drain"]))
@settings(max_examples=25)
def test_warmer_is_never_later_and_thicker_never_sooner(temperature_c: float, more: float, way: str) -> None:
    usual, warm = clock(bag(way, 3.0, temperature_c)), clock(bag(way, 3.0, temperature_c + more))
    thick = clock(bag(way, 3.0, temperature_c, across_mm=85.0 + 10 * more))
    for earlier, later in ((warm, usual), (usual, thick)):
        assert (earlier.earliest_s or 0) <= (later.earliest_s or 1e12) + 60
        assert (earlier.best_s or 0) <= (later.best_s or 1e12) + 60
    assert (np.diff(usual.mean) >= -1e-6).all()


def test_measured_may_wait_and_free_salt_may_not() -> None:
    measured, buried = clock(bag(), day=80.0), clock(bag("buried"), day=80.0)
    assert (measured.kind, measured.latest_s) == ("elastic", None)
    assert measured.mean_percent == pytest.approx(2.8, abs=0.02)  # it cannot oversalt
    assert buried.kind == "firm"
    assert buried.mean_percent > 6
    assert buried.earliest_s is not None
    assert buried.latest_s is not None
    assert buried.earliest_s < (buried.best_s or 0) < buried.latest_s < 80 * DAY


def test_the_longest_rule_that_counts_sets_the_day() -> None:
    found = clock(bag(rules=("square",)))
    by_name = {r.name: r for r in found.rules}
    assert found.leads == "square"
    assert found.best_s == by_name["square"].at_s
    assert [r.name for r in found.rules if r.chosen] == ["square"]
    all_four = clock(bag(rules=("linear", "square", "by_weight", "diffusion"), margin_percent=20.0))
    assert all_four.best_s == max(r.at_s or 0 for r in all_four.rules)
    assert {r.name: r.days for r in all_four.rules}["linear"] == pytest.approx(1.5 * 8.5 * 1.2)


def test_a_soak_takes_salt_out_and_a_rest_evens_it() -> None:
    steps = (Step(0.0, "lay", "buried", 3.0), Step(3 * DAY, "out"))
    dry = clock(bag(steps=steps), day=20.0)
    soaked = clock(bag(steps=(*steps, Step(3 * DAY, "soak", hours=3.0))), day=20.0)
    assert soaked.mean_percent < dry.mean_percent - 0.15
    assert dry.at(20 * DAY)[0] == pytest.approx(dry.at(3.1 * DAY)[0], abs=0.01)  # nothing leaves it any more
    assert dry.core_percent > dry.at(3 * DAY)[1] + 0.5


def test_a_way_changed_midway_keeps_what_was_taken_up() -> None:
    before = clock(bag("buried", 3.0), day=1.0).mean_percent
    changed = bag(steps=(Step(0.0, "lay", "buried", 3.0), Step(1 * DAY, "lay", "measured", 1.0)))
    assert clock(changed, day=60.0).mean_percent == pytest.approx(
        (before + 1.06) / 1.06, abs=0.02
    )  # shared with its brine


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"across_mm": 0.0}, "thickness must be between 3 and 400 mm, got 0"),
        ({"across_mm": 4000.0}, "thickness must be between 3 and 400 mm, got 4000"),
        ({"weight_g": -2.0}, "weight must be above 0 g"),
        ({"steps": (Step(5.0, "lay", "measured", 2.8), Step(1.0, "out"))}, "before the piece was put in salt"),
    ],
)
def test_what_no_piece_can_be_is_refused(change: dict, says: str) -> None:
    with refused(says):
        bag(**change)


def test_a_year_of_a_fridge_with_an_outage_gives_the_right_hurdle() -> None:
    hours = np.arange(0, 365 * 24.0)
    rng = np.random.default_rng(5)
    c = 3 + rng.normal(0, 0.4, len(hours))
    c[2000:2007] = [4.6, 5.8, 6.9, 7.5, 7.1, 6.0, 4.7]  # an outage of six hours above 5 °C
    c[6000:6003] = [5.6, 5.9, 5.2]  # a short one
    points = tuple(zip((hours * 3600).tolist(), c.tolist(), strict=True))
    silent = tuple(p for p in points if not 7000 * 3600 < p[0] < 7010 * 3600)

    def state(from_hour: float, to_hour: float | None, log: tuple = points) -> str:
        end = 8000 * 3600.0
        own = tuple(p for p in log if p[0] >= from_hour * 3600 and p[0] <= (to_hour or 8000) * 3600)
        return cold_along(
            [Stage("cure", from_hour * 3600, None if to_hour is None else to_hour * 3600, own)], end
        ).state

    assert state(1700, 2200) == "fail"
    assert state(2100, 2500) == "pass"
    assert state(5900, 6300) == "pass"
    assert state(6900, 7200, silent) == "pass"  # ten hours, both ends at 3 °C: as a household reads its thermometer
    assert state(6900, 7200, tuple(p for p in points if not 7000 * 3600 < p[0] < 7040 * 3600)) == "unknown"
    assert state(7500, None) == "pending"


# salt that nobody weighed


def free_bag(temperature_c: float = 3.0, **changes: object) -> Bag:
    return bag(
        temperature_c=temperature_c,
        steps=(Step(0.0, "lay", "pressed", 3.0, free_salt=True),),
        geometry="slab",
        across_mm=60.0,
        **changes,
    )


def test_a_weighed_dose_has_no_range_and_what_nobody_weighed_has_one() -> None:
    weighed, sticks, free = (clock(b) for b in (bag(), bag("rub_and_drain", 3.5), free_bag()))
    assert weighed.mean_low_percent == weighed.mean_percent == weighed.mean_high_percent
    assert sticks.mean_high_percent / sticks.mean_percent == pytest.approx(1.35, rel=0.05)
    assert sticks.mean_percent / sticks.mean_low_percent == pytest.approx(1.35, rel=0.05)
    # free salt: how fast it goes in, and how wet the rim lies
    assert free.mean_low_percent < free.mean_percent < free.mean_high_percent
    by_speed = (DIFFUSIVITY_SPREAD) ** 0.5
    assert free.mean_high_percent / free.mean_percent == pytest.approx(by_speed * 1.15, rel=0.08)
    assert not bag("rub_and_drain", 3.5).dose_is_known
    assert not bag("buried").dose_is_known
    assert bag().dose_is_known


@settings(max_examples=10)
@given(day=st.floats(0.3, 4), c=st.floats(0, 8))
def test_holes_let_the_salt_in_sooner_and_never_more_than_there_is(day: float, c: float) -> None:
    whole, pierced = (clock(free_bag(c, pierced=one), day) for one in (False, True))
    assert pierced.mean_percent > whole.mean_percent
    assert pierced.mean_percent < 9.2
    # about as in two and a half times as long
    longer = clock(free_bag(c), day * 2.5)
    assert pierced.mean_percent == pytest.approx(longer.mean_percent, rel=0.12)
