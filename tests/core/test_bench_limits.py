"""Every mark of the Bench from both sides: salt, nitrite, sugar, wine, casing and small rests."""

from dataclasses import replace
from math import pi

import pytest

from zymon.core.bench.consequences import LOSSES, Consequences, Plan, casing_length, consequences
from zymon.core.bench.sheet import CuringChoice, Line, MeatPart, Sheet, work
from zymon.limits import shipped

US = shipped()["us"]
SHEET = Sheet(
    parts=(MeatPart("Shoulder", 4000, 10),),
    salt_percent=2.7,
    salt_basis="exact",
    curing=CuringChoice("Short type", 0.25, 0.0625, 0.0),
    lines=(),
)
MINCED = Plan("minced", "culture", 35, 60, 900, cased=True)
INTACT = replace(MINCED, goods="intact", warm="none")


def follow(sheet: Sheet = SHEET, plan: Plan = MINCED) -> Consequences:
    found = consequences(sheet, work(sheet), plan, US)
    assert found is not None
    return found


def codes(found: Consequences) -> set[str]:
    return {c.says.code for c in found.cautions}


def salted(percent: float, plan: Plan = MINCED) -> tuple[str, str]:
    """How salt of so many percent of the meat stands, all of it sodium chloride."""
    gauge = follow(replace(SHEET, salt_percent=percent, curing=None), plan).salt
    assert gauge.figure.value == pytest.approx(percent)
    assert gauge.limit == 2.0
    return gauge.standing, gauge.says.code.removeprefix("gauge.")


@pytest.mark.parametrize(
    ("percent", "plan", "stands"),
    [
        (1.99, MINCED, ("fail", "salt_too_little")),
        (2.0, MINCED, ("caution", "salt_little")),
        (2.49, MINCED, ("caution", "salt_little")),
        (2.5, MINCED, ("pass", "usual")),
        (4.5, MINCED, ("pass", "usual")),
        (4.51, MINCED, ("caution", "salt_much")),
        (1.99, INTACT, ("fail", "salt_too_little")),
        (2.0, INTACT, ("pass", "usual")),  # a muscle is not sour: what little there is goes to its rim first
        (4.51, INTACT, ("caution", "salt_much")),
    ],
)
def test_salt_stands_by_its_marks(percent: float, plan: Plan, stands: tuple[str, str]) -> None:
    assert salted(percent, plan) == stands


def test_too_little_salt_holds_the_batch_and_much_only_warns() -> None:
    little = next(
        c for c in follow(replace(SHEET, salt_percent=1.5)).cautions if c.says.code == "bench.salt_too_little"
    )
    much = next(c for c in follow(replace(SHEET, salt_percent=5.0)).cautions if c.says.code == "bench.salt_much")
    assert (little.hold, much.hold) == (True, False)


@pytest.mark.parametrize(("mg_per_kg", "warned"), [(98.0, True), (101.0, False)])
def test_little_nitrite_is_warned_of_beneath_a_hundred_milligrams(mg_per_kg: float, warned: bool) -> None:
    percent = mg_per_kg / 625  # of the meat: a salt with 6.25 % nitrite gives 625 mg/kg for each percent
    found = follow(replace(SHEET, curing=CuringChoice("Short type", percent, 0.0625, 0.0)))
    assert found.nitrite.figure.value == pytest.approx(mg_per_kg, abs=0.01)
    assert ("bench.little_nitrite" in codes(found)) is warned
    assert found.nitrite.standing == ("caution" if warned else "pass")
    intact = follow(replace(SHEET, curing=CuringChoice("Short type", percent, 0.0625, 0.0)), INTACT)
    assert "bench.little_nitrite" not in codes(intact)


@pytest.mark.parametrize(("percent", "standing"), [(156 / 625, "pass"), (157 / 625, "fail")])
def test_nitrite_stands_by_the_limit_of_the_profile(percent: float, standing: str) -> None:
    assert follow(replace(SHEET, curing=CuringChoice("Short type", percent, 0.0625, 0.0))).nitrite.standing == standing


def lowest_ph(sugar_percent: float) -> float:
    acid = follow(replace(SHEET, lines=(Line("Dextrose", "sugar", "percent", sugar_percent),))).acid
    assert acid is not None
    return acid.figure.value


def test_sugar_sours_by_its_acid_and_no_further_than_acid_lets_it() -> None:
    # 3 g/kg are 33.3 mmol of lactic acid, and 55 mmol take a kilogram of meat down by one
    assert lowest_ph(0.3) == pytest.approx(5.8 - 3 / 180.16 * 2 * 1000 / 55, abs=0.01)
    assert lowest_ph(5.0) == 4.3
    much = follow(replace(SHEET, lines=(Line("Dextrose", "sugar", "percent", 5.0),))).acid
    assert much is not None
    assert much.instead is not None
    assert much.instead.values["ph"] == 4.3


def test_of_sugar_beyond_a_tenth_of_the_meat_no_sum_is_made() -> None:
    tenth, more, less = (_acid_mmol(percent) for percent in (10.0, 20.0, 9.0))
    assert more == tenth
    assert less == pytest.approx(0.9 * tenth, rel=0.01)


def _acid_mmol(percent: float) -> float:
    acid = follow(replace(SHEET, lines=(Line("Dextrose", "sugar", "percent", percent),))).acid
    assert acid is not None
    return float(acid.figure.inputs.values["acid_mmol"])


def test_wine_brings_its_water_but_no_protein() -> None:
    """At no loss: water over protein of the lean grows by the water of the wine, which is 87 % of it."""
    dry = follow(plan=replace(MINCED, target_loss_percent=0.001)).outlooks
    wine = replace(SHEET, lines=(Line("Red wine", "wine", "absolute", 400.0),))  # a tenth of the meat
    wet = follow(wine, replace(MINCED, target_loss_percent=0.001)).outlooks
    lean_g, protein = 4000 * 0.9, 0.21
    first, second = dry[0], wet[0]
    assert (first.loss_percent, second.loss_percent) == (0.001, 0.001)
    grown = second.moisture_protein_ratio - first.moisture_protein_ratio
    assert grown == pytest.approx(400 * 0.87 / (protein * lean_g), rel=0.02)


def test_the_usual_losses_are_told_and_the_target_among_them() -> None:
    assert LOSSES == (30.0, 35.0, 40.0)
    assert [o.loss_percent for o in follow(plan=replace(MINCED, target_loss_percent=38)).outlooks] == [30, 35, 38, 40]
    assert [o.loss_percent for o in follow().outlooks] == [30, 35, 40]


def test_casing_has_eight_centimetres_for_each_piece_and_a_tenth_to_spare() -> None:
    filled_mm = 5000 / 1.05 * 1000 / (pi * 30**2)
    assert casing_length(5000, 60, 0) == pytest.approx(1.1 * filled_mm)
    assert casing_length(5000, 60, 6) - casing_length(5000, 60, 0) == pytest.approx(1.1 * 6 * 80)
