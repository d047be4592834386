"""What is said for next time and for the piece now, line by line with its numbers; how far evidence moves a cause."""

import math

import pytest

from zymon.core.causes.next_time import LINES, Known, NextTime
from zymon.core.causes.ranking import rank
from zymon.core.causes.records import Measured, Records, of_salt, of_warm_stage, plain
from zymon.core.causes.table import CAUSES
from zymon.core.causes.with_it_now import Standing, with_it_now
from zymon.words import sentence

NOTHING = Known()


def line(code: str, records: Records | None = None, known: Known = NOTHING) -> NextTime:
    found = LINES[code](records or {}, known)
    assert found is not None
    return found


@pytest.mark.parametrize(
    ("code", "values", "where"),
    [
        ("humidity", {"points": 5, "days": 14}, "recipe"),
        ("weigh_early", {"first": 4, "second": 8}, "today"),
        ("warm_humidity", {"rh_percent": 90}, "warm"),
        ("rest_longer", {"weeks": 3}, "rest"),
        ("mix_colder", {"c": 2}, "recipe"),
        ("cool_sooner", {"ph": 5.0}, "warm"),
        ("sour_to_mark", {"ph": 5.3}, "warm"),
        ("curing_salt", {"percent": 0.25}, "recipe"),
        ("hang_cooler", {"c": 14}, "hanging"),
        ("antioxidant", {"percent": 0.05}, "recipe"),
        ("keep_colder", {"c": 4}, "recipe"),
    ],
)
def test_a_line_says_its_number_where_it_is_told_again(code: str, values: dict[str, float], where: str) -> None:
    found = line(code)
    assert (dict(found.says.values), found.where) == (values, where)
    assert sentence(found.says)


def test_every_line_is_tried_or_needs_a_record() -> None:
    needs = {"hook", "less_sugar", "less_salt", "more_salt", "take_down_earlier"}
    assert {code for code, make in LINES.items() if make({}, NOTHING) is None} == needs


@pytest.mark.parametrize(
    ("hurry", "rh_percent", "points"),
    [(0.0, 60.0, 3), (0.9, 68.0, 10), (0.4, 80.0, 7), (0.18, 80.0, 3), (0.25, 82.0, 4), (-0.5, 60.0, 3)],
)
def test_humidity_is_raised_by_what_brings_the_pace_down(hurry: float, rh_percent: float, points: int) -> None:
    records = {"hurry": Measured(hurry)}
    assert line("humidity", records, Known(rh_percent=rh_percent)).says.values["points"] == points
    assert line("humidity", records).says.values["points"] == 5  # where nobody knows the air


def test_a_windy_hook_is_told_from_a_tenth_more_air() -> None:
    windy, fair = {"hook_air": Measured(1.1)}, {"hook_air": Measured(1.09)}
    assert line("hook", windy, Known(hook="2/4")).says.values == {"hook": "2/4", "days": 14}
    assert LINES["hook"](fair, Known(hook="2/4")) is None
    assert LINES["hook"](windy, NOTHING) is None


def test_salt_goes_by_two_tenths_and_sugar_to_two_thirds() -> None:
    assert line("less_salt", known=Known(salt_percent=3.0)).change == -0.2
    assert line("more_salt", known=Known(salt_percent=2.6)).change == 0.2
    assert line("more_salt", known=Known(salt_percent=1.2)).says.values["percent"] == 2.0  # no less than is usual
    sugar = line("less_sugar", plain(dextrose=0.9))
    assert (sugar.says.values["percent"], sugar.change) == (0.6, pytest.approx(2 / 3))
    assert LINES["less_sugar"](plain(dextrose=0.0), NOTHING) is None


@pytest.mark.parametrize(("weeks", "said"), [(0.3, 1), (1.5, 2), (5.4, 5), (None, 3)])
def test_a_rest_is_longer_by_what_it_still_takes(weeks: float | None, said: int) -> None:
    assert line("rest_longer", known=Known(rest_weeks=weeks)).says.values["weeks"] == said


@pytest.mark.parametrize(("taken", "percent"), [(1.0, 0), (math.sqrt(2), 50), (2.0, 75)])
def test_free_salt_is_left_earlier_by_the_root_of_time(taken: float, percent: int) -> None:
    records = of_salt(2.6, 38.0, taken, 0.95)
    assert line("out_earlier", records).says.values == {"percent": percent}
    assert line("out_earlier").says.code == "next.out_by_the_clock"


def test_a_target_is_told_again_only_where_one_was_passed() -> None:
    passed = line("take_down_earlier", plain(over_target=4.0), Known(target_loss_percent=36.25))
    assert passed.says.values == {"percent": 36.2}
    assert LINES["take_down_earlier"]({}, Known(target_loss_percent=36.0)) is None
    assert LINES["take_down_earlier"](plain(over_target=4.0), NOTHING) is None


# -- the piece now


def test_a_rest_nobody_can_reckon_is_four_to_eight_weeks() -> None:
    says = with_it_now(("ring",), Standing(38, True, None, (), ()))[0].says
    assert (says.code, dict(says.values)) == ("now.rest_usual", {"first": 4, "last": 8})
    reckoned = with_it_now(("ring",), Standing(38, True, 5.4, (), ()))[0].says
    assert dict(reckoned.values) == {"weeks": 5}


# -- evidence


def scores(records: Records) -> dict[str, float]:
    return {one.name: one.score for one in rank(["salt_high"], records)}


def test_a_clue_that_speaks_fully_is_worth_seven_to_one() -> None:
    """Of weight one, e² to 1 in odds: its score moves by two, and by less where it speaks less or weighs less."""
    clue = CAUSES["salted_much"].clues[0]
    fully = next(v for v in (x / 10 for x in range(10, 400)) if clue.speaks(v) >= 1.0)
    moved = scores({clue.measure: Measured(fully, {"percent": fully})})["salted_much"] - scores({})["salted_much"]
    assert moved == pytest.approx(2.0 * clue.weight)


def test_what_is_four_behind_is_left_out_and_what_is_less_is_told() -> None:
    """A cause that explains a sign stays within four of the first; one pushed further by its records is not told."""
    found = rank(["ring"], {})
    names = {one.name for one in found}
    assert len(names) > 1
    spread = found[0].score - found[-1].score
    assert spread < 4.0
    for strength in (0.2, 0.6, 1.0, 2.0, 4.0):
        far = rank(
            ["ring"],
            {"hurry": Measured(strength, {"loss_percent": 25, "days": 14, "gentle_days": 34})} | of_warm_stage(95, 48),
        )
        assert all(one.score >= far[0].score - 4.0 for one in far)


def test_a_dry_warm_stage_pulls_no_more_after_two_days() -> None:
    def pull(hours: float) -> float:
        return of_warm_stage(60.0, hours)["warm_pull"].value

    assert pull(36) == pytest.approx(1.5 * pull(24))
    assert pull(47) < pull(48) == pull(60)
