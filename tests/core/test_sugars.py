"""What sugars are worth to a culture, and a pH that no culture can reach."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zymon.core.bench.consequences import LOWEST_POSSIBLE_PH, AcidBound, Plan, consequences
from zymon.core.bench.sheet import CuringChoice, Line, MeatPart, Sheet, work
from zymon.core.bench.sugars import WORTH, dextrose_percent, dextrose_worth, not_dextrose
from zymon.limits import shipped
from zymon.words import sentence


@pytest.mark.parametrize(
    ("name", "worth"),
    [("Dextrose", 1.0), ("Skim milk powder", 0.25), ("LACTOSE", 0.5), ("Milk  powder, lactose", 0.25), ("Honey", 0.8),
     ("Cane sugar", 1.05), ("Maltodextrin", 0.15), ("Fine sugar", 1.0), ("", 1.0)],
)  # fmt: skip
def test_a_sugar_is_known_by_its_name(name: str, worth: float) -> None:
    assert dextrose_worth(name) == worth
    assert [one.dextrose_g_per_g for one in not_dextrose((Line(name, "sugar", "percent", 1),))] == (
        [] if worth == 1.0 else [worth]
    )


def test_only_sugars_count_and_nothing_is_worth_more_than_its_molar_mass_allows() -> None:
    lines = (Line("Honey", "spice", "percent", 1), Line("Lactose", "sugar", "percent", 1))
    assert dextrose_percent(lines, {"line-0": 40.0, "line-1": 20.0}, 2000.0) == 0.5
    assert dextrose_percent(lines, {}, 0.0) == 0.0
    assert all(0 < worth <= 360.31 / 342.3 for _, worth in WORTH)  # a mole of table sugar is two of dextrose


@given(st.floats(0.05, 6.0))
def test_no_ph_is_printed_that_no_culture_can_reach(percent: float) -> None:
    bound = consequences_of("Dextrose", percent)
    assert bound is not None
    assert LOWEST_POSSIBLE_PH <= bound.figure.value <= 5.8
    assert (bound.instead is not None) == (5.8 - 111.015 * percent / 55 < LOWEST_POSSIBLE_PH)


def test_milk_powder_is_no_dextrose_and_that_is_said() -> None:
    milk, plain = consequences_of("Milk powder", 2.4), consequences_of("Dextrose", 0.6)
    assert milk is not None
    assert plain is not None
    assert milk.figure.value == pytest.approx(plain.figure.value)
    assert [sentence(note) for note in milk.notes] == [
        "A gram of Milk powder is taken as 0.25 g of dextrose: an estimate, ask who sells it."
    ]
    assert plain.notes == ()
    much = consequences_of("Dextrose", 2.4)
    assert much is not None
    assert much.instead is not None
    assert sentence(much.instead) == "more sugar than acid can use: it stops at about 4.3, and stays sweet"
    assert pytest.approx(4.3) == LOWEST_POSSIBLE_PH


def consequences_of(sugar: str, percent: float) -> AcidBound | None:
    curing = CuringChoice("Short type", 0.25, 0.0625, 0.0)
    sheet = Sheet((MeatPart("Pork", 5000, 25),), 2.7, "exact", curing, (Line(sugar, "sugar", "percent", percent),))
    found = consequences(sheet, work(sheet), Plan("minced", "culture", 35, 60, 900, cased=True), shipped()["us"])
    assert found is not None
    return found.acid
