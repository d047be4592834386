"""What is done to a piece in salt day by day and what it weighs meanwhile: every figure at its boundary."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from support import refused
from zymon.core.salting.care import CareDue, care_due, missed, runs_dry
from zymon.core.salting.shed import could_have_gained, expected_weight, judge_weight
from zymon.core.salting.ways import REGISTRY, WAYS, Way, is_free, kind_of, out_is_early

HOUR, DAY = 3600.0, 86_400.0


def due(way: Way, kind: str, *done_hours: float, now: float = 1.0, over: frozenset = frozenset()) -> CareDue | None:
    """The next time of a care, of a piece put in at 0 and looked at so many hours later."""
    found = care_due(way, 0.0, [(kind, at * HOUR) for at in done_hours], now * HOUR, over)
    return next((one for one in found if one.kind == kind), None)


@pytest.mark.parametrize(
    ("way", "kind", "first", "every", "waits"),
    [
        ("measured", "turn", 36, 36, 36),
        ("buried", "check", 24, 24, 12),
        ("buried", "drain", 12, 24, 24),  # half a day after it went in there is brine to pour off
        ("rub_and_drain", "drain", 18, 18, 12),
        ("rub_and_drain", "rub", 24, 24, 24),
        ("rub_and_drain", "turn", 36, 36, 36),
        ("pressed", "turn", 24, 24, 12),
        ("by_thickness", "turn", 24, 24, 24),
        ("by_thickness", "drain", 48, 48, 24),
    ],
)
def test_each_way_asks_for_its_care_in_time(way: Way, kind: str, first: float, every: float, waits: float) -> None:
    one = due(way, kind)
    assert one is not None
    assert (one.best_s, one.latest_s) == (pytest.approx(first * HOUR), pytest.approx((first + waits) * HOUR))
    assert (one.done, one.missed, one.number, one.last_s) == (0, 0, 1, None)
    again = due(way, kind, first + 1, now=first + 2)
    assert again is not None
    assert again.best_s == pytest.approx((first + 1 + every) * HOUR)
    assert again.from_s == pytest.approx((first + 1 + 0.75 * every) * HOUR)  # from three quarters on it may be done
    assert (again.done, again.number, again.last_s) == (1, 2, (first + 1) * HOUR)


def test_after_three_days_it_is_rubbed_no_more() -> None:
    last = due("rub_and_drain", "rub", 24, 48, now=50)
    assert last is not None
    assert last.best_s == 72 * HOUR
    assert due("rub_and_drain", "rub", 24, 48.1, now=50) is None
    assert due("rub_and_drain", "rub", now=72 + 24) is not None
    assert due("rub_and_drain", "rub", now=72 + 24.1) is None


def test_whatever_is_done_counts_as_a_look() -> None:
    poured = care_due("buried", 0.0, [("drain", 20 * HOUR)], 21 * HOUR)
    assert next(one for one in poured if one.kind == "check").best_s == 44 * HOUR
    assert due("buried", "drain", now=1, over=frozenset({"drain"})) is None
    later = care_due("buried", 0.0, [("drain", 30 * HOUR)], 21 * HOUR)  # what is still to come was not done yet
    assert next(one for one in later if one.kind == "check").best_s == 24 * HOUR


@pytest.mark.parametrize(
    ("days", "times", "count"),
    [
        (3.0, (), 0),  # one span and as long as it may wait: nothing was left out
        (3.1, (), 1),
        (4.5, (), 2),
        (4.5, (1.5,), 0),
        (4.6, (1.5,), 1),
        (11.0, (1.5, 3.0), 4),  # a week away
        (9.0, (1.5, 3.0, 4.5, 6.0, 7.5), 0),
    ],
)
def test_what_was_left_out_is_counted_in_its_own_spans(days: float, times: tuple[float, ...], count: int) -> None:
    turn = REGISTRY["measured"].care[0]
    assert missed(turn, 0.0, [t * DAY for t in times], days * DAY) == count


@pytest.mark.parametrize(
    ("poured", "dry"),
    [
        (((0.0, 60.0),), False),  # one look is not enough
        (((0.0, 1.0), (1.0, 0.6)), True),  # a thousandth of 1,600 g
        (((0.0, 1.0), (1.0, 0.61)), False),
        (((0.0, 60.0), (2.0, 0.0), (1.0, 1.0)), True),  # in the order of time, whatever the order of entry
    ],
)
def test_where_no_liquid_comes_none_is_asked_for(poured: tuple, dry: bool) -> None:
    assert runs_dry(poured, 1600.0) == (frozenset({"drain"}) if dry else frozenset())


@pytest.mark.parametrize(
    ("way", "low", "high"),
    [("measured", 2, 10), ("buried", 4, 15), ("rub_and_drain", 5, 14), ("pressed", 4, 14), ("by_thickness", 3, 10)],
)
def test_each_way_sheds_what_makers_report(way: Way, low: float, high: float) -> None:
    done = expected_weight(way, 2000.0, 3.0, 1.0)
    assert (done.shed_low_percent, done.shed_high_percent) == (pytest.approx(0.9 * low), pytest.approx(high))
    # half a percent is what a scale, a wet face and a crumb of spice make of it
    assert done.low_g == pytest.approx(2000 * (1 - (high + 0.5) / 100))
    assert done.high_g == pytest.approx(2000 * (1 + (3.0 - 0.9 * low + 0.5) / 100))
    soaked = expected_weight(way, 2000.0, 3.0, 1.0, soaked=True)
    assert soaked.high_g - done.high_g == pytest.approx(2000 * 0.03)
    assert soaked.low_g == done.low_g


@given(st.sampled_from(WAYS), st.floats(0, 1), st.floats(0, 0.2))
def test_the_longer_it_lay_the_more_it_shed_most_of_it_in_the_first_third(way, progress: float, more: float) -> None:
    here, later = (expected_weight(way, 2000.0, 2.8, min(p, 1.0)) for p in (progress, progress + more))
    assert later.shed_high_percent >= here.shed_high_percent
    assert expected_weight(way, 2000.0, 2.8, 1 / 3) == expected_weight(way, 2000.0, 2.8, 1.0)
    assert expected_weight(way, 2000.0, 2.8, 0.0).shed_high_percent == 0


@pytest.mark.parametrize(("raw_g", "progress"), [(0.0, 0.5), (50_001.0, 0.5), (2000.0, 1.1), (2000.0, -0.1)])
def test_no_piece_and_no_progress_is_refused(raw_g: float, progress: float) -> None:
    with refused("weight" if progress == 0.5 else "progress"):
        expected_weight("measured", raw_g, 2.8, progress)


def test_a_weight_out_of_what_is_expected_has_a_name() -> None:
    expected = expected_weight("measured", 2000.0, 2.8, 1.0)
    assert (
        judge_weight(2000, expected.low_g, expected) == "as_expected" == judge_weight(2000, expected.high_g, expected)
    )
    assert judge_weight(2000, expected.low_g - 0.1, expected) == "too_light"
    assert judge_weight(2000, expected.high_g + 0.1, expected) == "gained"
    wet = expected_weight("buried", 2000.0, 1.0, 1.0)
    assert judge_weight(2000, wet.high_g + 1, wet) == "too_heavy"  # lighter than it was, though less than it should be


@pytest.mark.parametrize(
    ("now_g", "could"), [(2905.0, False), (2906.0, True), (2995.0, True), (2996.0, False), (2800.0, False)]
)
def test_a_piece_gains_at_most_what_went_into_its_bag(now_g: float, could: bool) -> None:
    assert could_have_gained(2905.0, now_g, 90.0) == could


def test_what_may_wait_and_what_may_not() -> None:
    latest = {way: REGISTRY[way].latest_days_more for way in REGISTRY}
    assert latest == {"measured": None, "buried": 0.0, "rub_and_drain": 4.0, "pressed": 3.0, "by_thickness": 5.0}
    assert [way for way in REGISTRY if kind_of(way, False) == "firm"] == ["buried"]
    assert all(kind_of(way, True) == "firm" for way in REGISTRY)
    assert [way for way in REGISTRY if is_free(way, True)] == ["buried", "pressed"]
    assert [out_is_early("measured", False, share) for share in (0.49, 0.5)] == [True, False]
    assert not out_is_early("pressed", True, 0.1)
