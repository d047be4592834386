"""How good the dates were, and what differed between batches: the rules of the Book, at their limits."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zymon.core.book.accuracy import (
    BIASED_SHARE,
    FEW,
    NARROW,
    STAGES,
    WIDE,
    Checked,
    Figures,
    Finished,
    Told,
    by_group,
    by_stage,
    check,
    figures,
    lesson,
    reached,
    stage_of,
)
from zymon.core.book.compare import SHARES, TELLS, Compared, Fact, differences

DAY = 86_400.0


def finished(tag: str = "J-1", told: tuple[Told, ...] = (), **more) -> Finished:
    return Finished(tag, 0.0, 40 * DAY, 0.36, told, **more)


def told(day: float, p10: float, p50: float, p90: float, loss: float = 0.0, live: bool = True) -> Told:
    return Told(day * DAY, p10 * DAY, p50 * DAY, p90 * DAY, loss, live)


def test_the_day_is_that_of_the_scale_between_two_weighings() -> None:
    assert reached([(0, 0.0), (10, 0.2), (20, 0.4)], 0.36) == pytest.approx(18)
    assert reached([(0, 0.0), (10, 0.36)], 0.36) == pytest.approx(10)
    assert reached([(0, 0.0), (10, 0.35)], 0.36) is None
    assert reached([(5, 0.5)], 0.36) == 5  # weighed once, past it: no more is known
    assert reached([], 0.36) is None


@given(st.lists(st.floats(0.01, 0.2), min_size=1, max_size=8), st.floats(0.05, 0.5))
def test_it_lies_between_the_weighings_around_it(steps: list[float], target: float) -> None:
    losses = [0.0]
    for step in steps:
        losses.append(losses[-1] + step)
    weighed = [(i * DAY, loss) for i, loss in enumerate(losses)]
    at = reached(weighed, target)
    if at is None:
        assert losses[-1] < target
    else:
        after = next(i for i, loss in enumerate(losses) if loss >= target)
        assert (after - 1) * DAY <= at <= after * DAY


def test_a_told_date_is_checked_against_the_day_and_its_window() -> None:
    early, late = told(0, 20, 30, 39.9), told(14, 35, 41, 50, 0.18, live=False)
    first, second = check(finished(told=(early, late)))
    assert (first.stage, first.days, first.share, first.inside) == ("hanging", 10, 0.25, False)
    assert (second.stage, round(second.days, 6), second.inside, second.live) == ("third", -1, True, False)
    # told when it was there already, or told no date: neither is a hit nor a miss
    assert check(finished(told=(told(41, 40, 41, 42), Told(DAY, None, None, None, 0.1)))) == []
    edge = check(finished(told=(told(0, 40, 45, 50), told(1, 30, 35, 40, 0.02))))
    assert [one.inside for one in edge] == [True, True]  # the ends belong to the window


def test_how_far_it_was_is_counted_in_fifths_of_its_way() -> None:
    assert [stage_of(done) for done in (0, 0.01, 0.2, 0.4, 0.6, 0.8, 0.81, 1.5)] == [
        "hanging", "first", "first", "second", "third", "fourth", "last", "last",
    ]  # fmt: skip
    assert [stage_of(done) for done in (0.21, 0.41, 0.61)] == ["second", "third", "fourth"]
    assert STAGES[-1] == (1.0, "last")  # all of it, and what went on beyond it


def test_figures_count_pieces_and_dates_apart_and_lean_to_a_side() -> None:
    dates = [Checked("a", "first", 4.0, 0.1, True, True), Checked("a", "last", -1.0, -0.02, True, True),
             Checked("b", "last", 2.0, 0.05, False, True)]  # fmt: skip
    found = figures(dates)
    assert found is not None
    assert (found.pieces, found.told, found.error_days, found.bias_days) == (2, 3, 2.0, 2.0)
    assert found.inside == pytest.approx(2 / 3)
    assert figures([]) is None
    assert [(stage, some.told) for stage, some in by_stage(dates)] == [("first", 1), ("last", 2)]
    pieces = [finished("a", groups=(("place", "Pit"),)), finished("b", groups=(("place", "Loft"),))]
    assert [(name, some.told) for name, some in by_group(pieces, dates, "place")] == [("Loft", 1), ("Pit", 2)]
    assert by_group(pieces, dates, "family") == []


def test_what_figures_teach_changes_at_its_limits() -> None:
    fine = Figures(pieces=5, told=9, error_days=2, error_share=0.05, bias_days=0, bias_share=0, inside=0.8)
    assert (FEW, BIASED_SHARE, NARROW, WIDE) == (5, 0.1, 0.6, 0.95)
    assert lesson(fine) == "well"
    assert lesson(replace(fine, pieces=4)) == "too_few"
    assert (lesson(replace(fine, bias_share=0.1)), lesson(replace(fine, bias_share=0.099))) == ("late", "well")
    assert lesson(replace(fine, bias_share=-0.1)) == "early"
    assert (lesson(replace(fine, inside=0.59)), lesson(replace(fine, inside=0.6))) == ("narrow", "well")
    assert (lesson(replace(fine, inside=0.96)), lesson(replace(fine, inside=0.95))) == ("wide", "well")


MARKS: dict[Fact, float] = {
    "salt_percent": 0.15, "fat_percent": 3, "dextrose_percent": 0.1, "across_mm": 4, "target_percent": 1.5, "mix_c": 2,
    "warm_c": 1.5, "warm_rh_percent": 5, "lowest_ph": 0.1, "hours_to_mark": 4, "first_c": 1, "first_rh_percent": 3,
    "hang_c": 1, "hang_rh_percent": 3, "loss_percent": 1.5,
}  # fmt: skip


def test_every_fact_that_is_a_number_has_its_mark() -> None:
    assert TELLS == MARKS
    assert SHARES == {"start_g": 0.15, "days_to_target": 0.12, "cost_per_kg": 0.1}


@pytest.mark.parametrize(("fact", "mark"), [*MARKS.items()])
def test_a_difference_is_told_from_its_mark_on(fact: Fact, mark: float) -> None:
    def two(apart: float) -> list:
        return differences([Compared("J-1", {fact: 10.0}), Compared("J-2", {fact: 10.0 + apart})])

    (told_of,) = two(mark * 1.01)
    assert (told_of.code, told_of.values["low_batch"], told_of.values["high_batch"]) == (
        f"differs.{fact}",
        "J-1",
        "J-2",
    )
    assert two(mark * 0.99) == []


@pytest.mark.parametrize(("fact", "share"), [*SHARES.items()])
def test_a_share_is_of_the_larger_one(fact: Fact, share: float) -> None:
    low = 100 * (1 - share)
    assert differences([Compared("a", {fact: low - 0.1}), Compared("b", {fact: 100.0})]) != []
    assert differences([Compared("a", {fact: low + 0.1}), Compared("b", {fact: 100.0})]) == []


def test_words_differ_when_they_are_not_the_same_and_what_is_not_known_differs_from_nothing() -> None:
    (found,) = differences([Compared("a", {"place": "Pit"}), Compared("b", {"place": "Loft"}), Compared("c", {})])
    assert (found.code, found.values["low"], found.values["high"]) == ("differs.place", "Pit", "Loft")
    assert differences([Compared("a", {"place": "Pit", "salt_percent": None}), Compared("b", {"place": "Pit"})]) == []
    assert differences([Compared("a", {"salt_percent": 2.0})]) == []
