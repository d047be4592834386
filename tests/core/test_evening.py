"""Evening out at rest: a tight bag loses nothing, rim and middle come together, bigger is slower, warmer quicker."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, history, salame, steady_log
from zymon.core.drying.climate import Air, expected_air
from zymon.core.drying.evening import (
    LEAK_G,
    LEAK_PERCENT,
    PROFILES,
    WARM_C,
    Evening,
    Resting,
    Sealed,
    even_out,
    seal,
)
from zymon.core.drying.feel import Feel
from zymon.core.drying.forecast import fitted
from zymon.core.drying.transport import shell_fractions

SEALED_S = 30 * DAY


def sealed(day: float = 30, loss: float | None = None, **changes: object) -> Sealed:
    fit = fitted(history(salame(**changes), now_days=day, temperature_c=14, rh_percent=65))
    return seal(fit, 0, day * DAY, loss)


def cold(c: float = 4.0, days: float = 10.0, rh: float = 50.0) -> Air:
    log = steady_log(days, c, rh)
    shifted = replace(log, time_s=log.time_s + SEALED_S)
    return expected_air(shifted, c, rh, SEALED_S + days * DAY)


def rest(days: float, of: Sealed | None = None, c: float = 4.0, **more: object) -> Evening:
    return even_out([Resting(of or sealed(), SEALED_S, more.pop("bag", "vacuum"), cold(c), **more)],
                    SEALED_S + days * DAY)[0]  # fmt: skip


def water(x: tuple[float, ...]) -> float:
    return float(shell_fractions() @ np.array(x))


def test_a_sealed_piece_is_kept_as_a_few_likely_ones_brought_to_what_the_scale_said() -> None:
    kept = sealed(loss=33.0)
    x = np.array(kept.x)
    assert x.shape == (9, PROFILES)
    lost = np.array(kept.water_fraction) - shell_fractions() @ x * np.array(kept.dry_matter_fraction)
    assert lost == pytest.approx(np.full(PROFILES, 0.33))
    free = np.array(sealed().x)
    assert np.ptp(shell_fractions() @ free) > np.ptp(shell_fractions() @ x)  # unweighed they differ in what they lost


@settings(max_examples=8)
@given(days=st.floats(0.5, 40), c=st.floats(0.5, 12))
def test_a_tight_bag_loses_no_water_and_any_other_does(days: float, c: float) -> None:
    of = sealed()
    begun = water(rest(0, of, c).x)
    assert water(rest(9 * days, of, c).x) == pytest.approx(begun, rel=1e-6)
    paper, bare = (water(rest(days, of, c, bag=bag).x) for bag in ("paper", "none"))
    assert bare < paper < begun


@settings(max_examples=6)
@given(first=st.floats(0.5, 60), more=st.floats(1, 60))
def test_rim_and_middle_only_come_nearer(first: float, more: float) -> None:
    of = sealed()
    early, later = rest(first, of), rest(first + more, of)
    assert later.core_x - later.rim_x <= early.core_x - early.rim_x + 1e-9
    assert later.gone_share >= early.gone_share - 1e-9
    assert 0 <= early.gone_share <= 1


def test_bigger_is_slower_and_warmer_is_quicker_and_the_window_holds_the_middle() -> None:
    slim, thick = (rest(1, sealed(diameter_mm=mm, start_weight_g=g)) for mm, g in ((45, 500.0), (75, 1400.0)))
    assert slim.best_s < thick.best_s
    chilly, mild = (rest(1, c=c) for c in (2.0, 8.0))
    assert mild.best_s < chilly.best_s
    assert chilly.earliest_s <= chilly.best_s <= chilly.late_s
    assert mild.earliest_s > SEALED_S


def test_the_date_does_not_move_with_now_alone() -> None:
    of = sealed()
    assert rest(1, of).best_s == pytest.approx(rest(9, of).best_s, abs=0.7 * DAY)


def test_many_at_once_are_worked_out_as_each_alone() -> None:
    shelf = [Resting(sealed(diameter_mm=mm), SEALED_S, bag, cold()) for mm, bag in ((50.0, "vacuum"), (70.0, "paper"))]
    together = even_out(shelf, SEALED_S + 6 * DAY)
    for one, found in zip(shelf, together, strict=True):
        alone = even_out([one], SEALED_S + 6 * DAY)[0]
        assert found.x == pytest.approx(alone.x)
        assert found.best_s == alone.best_s
    assert even_out([], SEALED_S) == []


@pytest.mark.parametrize(
    ("rim", "core", "state"),
    [("firm", "firm", "even"), ("yielding", "yielding", "even"), ("firm", "yielding", "evening"),
     ("hard", "soft", "soft"), ("firm", "wet", "soft"), ("firm", None, "evening")],
)  # fmt: skip
def test_only_fingers_say_that_it_is_even(rim: str, core: str | None, state: str) -> None:
    assert rest(3, feels=(Feel(SEALED_S + 2 * DAY, rim, core),)).state == state


def test_by_the_model_it_is_at_most_likely_even() -> None:
    assert rest(1).state == "evening"
    assert rest(300).state == "likely"


def test_a_squeeze_moves_the_dates_and_one_before_it_was_sealed_does_not() -> None:
    def best(*feels: Feel) -> float:
        found = rest(4, feels=feels).best_s
        assert found is not None
        return found

    plain = best()
    assert best(Feel(SEALED_S - DAY, "hard", "yielding")) == plain
    apart, near = best(Feel(SEALED_S + 3 * DAY, "hard", "yielding")), best(Feel(SEALED_S + 3 * DAY, "firm", "firm"))
    assert near <= apart


@pytest.mark.parametrize(
    ("sealed_g", "lost_g", "bag", "leaks"),
    [(600.0, 3.7, "vacuum", True), (600.0, 3.5, "vacuum", False), (200.0, 2.1, "vacuum", True),
     (200.0, 1.9, "vacuum", False), (600.0, 30.0, "paper", False), (600.0, -2.0, "vacuum", False)],
)  # fmt: skip
def test_a_bag_that_lost_more_than_a_scale_makes_of_it_leaks(sealed_g, lost_g, bag, leaks) -> None:
    found = rest(5, bag=bag, sealed_g=sealed_g, weighed=((SEALED_S + 4 * DAY, sealed_g - lost_g),))
    assert (found.state == "leaks") is leaks
    assert found.lost_g == pytest.approx(lost_g)
    assert (LEAK_PERCENT, LEAK_G) == (0.6, 2.0)


@pytest.mark.parametrize(("c", "bag", "warm"), [(5.3, "vacuum", True), (4.7, "vacuum", False), (9.0, "paper", False)])
def test_a_bag_without_air_in_the_warm_carries_its_caution(c: float, bag: str, warm: bool) -> None:
    assert rest(1, c=c, bag=bag).warm is warm
    assert WARM_C == 5
