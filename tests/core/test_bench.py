"""The Bench's rules: sheets that scale, consequences that follow, pours that add up."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from support import refused
from zymon.core.bench.compare import compare
from zymon.core.bench.consequences import Plan, consequences
from zymon.core.bench.families import CURING_SALTS, FAMILIES, SCHOOLS, family
from zymon.core.bench.sheet import CuringChoice, Line, MeatPart, Sheet, scaled, work
from zymon.core.bench.weighing import Pour, as_made, rescale_to, things
from zymon.limits import shipped
from zymon.words import sentence

US, EU = shipped()["us"], shipped()["eu"]
SHEET = Sheet(
    parts=(MeatPart("Shoulder", 3800, 8, 9.5, 4000), MeatPart("Back fat", 1200, 85, 4.0)),
    salt_percent=2.7,
    salt_basis="exact",
    curing=CuringChoice("Short type", 0.25, 0.0625, 0.0),
    lines=(
        Line("Dextrose", "sugar", "percent", 0.3),
        Line("Culture", "culture", "per_kg", 0.25),
        Line("Bay, one leaf", "spice", "fixed", 0.4),
        Line("Red wine", "wine", "absolute", 75, 6.0),
    ),
)
PLAN = Plan("minced", "culture", 35, 60, 900, cased=True)


def follow(sheet: Sheet = SHEET, plan: Plan = PLAN, profile=US):
    found = consequences(sheet, work(sheet), plan, profile)
    assert found is not None
    return found


def test_the_bowl_is_the_sum_of_its_lines() -> None:
    worked = work(SHEET)
    assert worked.total_g == pytest.approx(sum(line.grams for line in worked.lines))
    assert [line.key for line in worked.lines] == [
        *("meat-0", "meat-1", "salt", "curing", "line-0", "line-1", "line-2", "line-3"),
    ]
    assert worked.problems == ()


@settings(max_examples=40)
@given(st.floats(0.05, 40))
def test_a_scaled_sheet_means_the_same_but_for_fixed_lines(factor: float) -> None:
    sheet = replace(SHEET, lines=tuple(line for line in SHEET.lines if line.basis != "fixed"))
    one, many = follow(sheet), follow(scaled(sheet, factor))
    assert many.nitrite.figure.value == pytest.approx(one.nitrite.figure.value)
    assert many.salt.figure.value == pytest.approx(one.salt.figure.value)
    assert [o.water_activity for o in many.outlooks] == pytest.approx([o.water_activity for o in one.outlooks])
    assert many.cost == pytest.approx(factor * one.cost)
    assert many.cost_per_finished_kg == pytest.approx(one.cost_per_finished_kg)
    fixed = [line.grams for line in work(scaled(SHEET, factor)).lines if line.key == "line-2"]
    assert fixed == [0.4]


@settings(max_examples=40)
@given(st.floats(2, 4), st.floats(0.05, 1), st.floats(4, 25), st.floats(1, 10))
def test_saltier_or_leaner_goods_are_never_wetter(salt, more, fat, less) -> None:
    def driest(salt_percent: float, fat_percent: float) -> float:
        sheet = replace(SHEET, parts=(MeatPart("Meat", 5000, fat_percent),), salt_percent=salt_percent)
        return follow(sheet).outlooks[0].water_activity

    assert driest(salt + more, fat) < driest(salt, fat)
    # the same loss takes a bigger share of the water that fat meat holds
    assert driest(salt, fat + less) < driest(salt, fat)


def test_drying_on_lowers_water_activity_and_hardens() -> None:
    outlooks = follow(plan=replace(PLAN, target_loss_percent=45)).outlooks
    assert [o.loss_percent for o in outlooks] == [30, 35, 40, 45]
    values = [o.water_activity for o in outlooks]
    assert values == sorted(values, reverse=True)
    order = ["raw", "yielding", "firm", "hard"]
    felt = [order.index(o.firmness) for o in outlooks]
    assert felt == sorted(felt)
    # a loss of more water than there is has no outlook
    fat = replace(SHEET, parts=(MeatPart("Belly", 5000, 42),))
    assert max(o.loss_percent for o in follow(fat).outlooks) < 40


@pytest.mark.parametrize(
    ("sheet", "plan", "words", "hold"),
    [
        (replace(SHEET, curing=None), PLAN, "No nitrite in minced goods", True),
        (replace(SHEET, curing=replace(SHEET.curing, percent=0.4)), PLAN, "over the limit of 156", True),
        (replace(SHEET, curing=replace(SHEET.curing, percent=0.1)), PLAN, "little protection", False),
        (replace(SHEET, salt_percent=1.5), PLAN, "too little to hold", True),
        (replace(SHEET, salt_percent=2.3), PLAN, "little for minced goods", False),
        (replace(SHEET, salt_percent=5.5), PLAN, "very salty", False),
        (replace(SHEET, curing=replace(SHEET.curing, by_spoon=True)), PLAN, "weigh curing salt in grams", False),
        (
            replace(SHEET, curing=CuringChoice("Saltpetre", 0.05, 0.0, 1.0)),
            replace(PLAN, goods="intact"),
            "acts slowly",
            False,
        ),
        (replace(SHEET, curing=None), replace(PLAN, goods="intact"), "a choice for intact muscle only", False),
        (
            replace(SHEET, curing=CuringChoice("Long type", 0.2, 0.0625, 0.04)),
            replace(PLAN, goods="belly"),
            "of nitrate, as sodium salt, is over the limit of 0",
            True,
        ),
    ],
)
def test_cautions_stand_where_they_belong(sheet: Sheet, plan: Plan, words: str, hold: bool) -> None:
    said = [c for c in follow(sheet, plan).cautions if words in sentence(c.says)]
    assert [c.hold for c in said] == [hold]


def test_a_good_sheet_has_nothing_to_say_and_europe_counts_the_ion() -> None:
    assert follow().cautions == ()
    ours, theirs = follow().nitrite, follow(profile=EU).nitrite
    assert theirs.figure.value == pytest.approx(ours.figure.value * 0.6668)
    assert (ours.standing, theirs.standing) == ("pass", "fail")


def test_casing_and_pieces() -> None:
    found = follow()
    assert found.pieces == 6
    assert found.casing_mm == pytest.approx((5170.4 / 1.05 * 1000 / (3.14159 * 900) + 6 * 80) * 1.1, rel=0.01)
    assert follow(plan=replace(PLAN, cased=False)).casing_mm is None
    assert follow().cost == pytest.approx(4 * 9.5 + 1.2 * 4 + 0.075 * 6)


def test_every_family_starts_from_a_sheet_that_stands() -> None:
    for one in FAMILIES:
        salt = next((c for c in CURING_SALTS if c.id == one.curing_salt), None)
        curing = salt and CuringChoice(salt.name, one.curing_salt_percent, salt.nitrite_fraction, salt.nitrate_fraction)
        sheet = Sheet((MeatPart(one.name, 5000, one.fat_percent),), one.salt_percent, "exact", curing)
        goods = "minced" if one.minced else "belly" if one.belly else "intact"
        found = follow(sheet, Plan(goods, one.warm, one.target_loss_percent, one.across_mm, one.piece_g, cased=True))
        assert not any(c.hold for c in found.cautions), (one.id, found.cautions)
        assert any(o.loss_percent == one.target_loss_percent for o in found.outlooks), one.id
        assert one.warm in {s.id for s in SCHOOLS["warm"]}
    assert family("salame").minced


def test_two_versions_are_compared_line_by_line() -> None:
    after = replace(
        SHEET,
        salt_percent=2.5,
        lines=(replace(SHEET.lines[0], amount=0.4), *SHEET.lines[2:], Line("Juniper", "spice", "percent", 0.1)),
    )
    exact = "salt covers its sodium chloride"
    told = [
        tuple("" if one is None else sentence(one) for one in (d.what, d.was, d.now)) for d in compare(SHEET, after)
    ]
    assert told == [
        ("salt", f"2.7 %, {exact}", f"2.5 %, {exact}"),
        ("Dextrose", "0.3 %", "0.4 %"),
        ("Juniper", "", "0.1 %"),
        ("Culture", "0.25 g/kg", ""),
    ]
    assert compare(SHEET, SHEET) == []


def test_a_line_that_is_called_as_the_salt_is_told_beside_it() -> None:
    """Rows are told apart by what they are, not by how they are called."""
    after = replace(
        SHEET, salt_percent=2.5, lines=(*SHEET.lines, Line("salt", "spice", "absolute", 12.0, note="coarse"))
    )
    told = [(sentence(row.what), "" if row.now is None else sentence(row.now)) for row in compare(SHEET, after)]
    assert told == [("salt", "2.5 %, salt covers its sodium chloride"), ("salt", "12 g (coarse)")]


def test_pours_add_up_and_a_rescaled_sheet_keeps_its_shares() -> None:
    poured = [Pour("meat-0", 3800), Pour("salt", 130), Pour("salt", -2)]
    salt = next(t for t in things(SHEET, poured) if t.key == "salt")
    assert (salt.weighed_g, salt.state) == (128, "over")
    factor = rescale_to(salt, 1.0)
    again = {t.key: t for t in things(SHEET, poured, factor)}
    assert again["salt"].state == "right"
    assert again["meat-0"].state == "under"  # the rest must follow, the meat too
    assert again["line-2"].target_g == 0.4  # but a fixed line does not
    shares = {k: t.target_g / again["meat-0"].target_g for k, t in again.items() if k != "line-2"}
    before = {t.key: t.target_g for t in things(SHEET, [])}
    assert shares == pytest.approx({k: before[k] / before["meat-0"] for k in shares}, rel=0.01)


@pytest.mark.parametrize("key", ["meat-0", "curing"])
def test_what_is_not_weighed_or_far_off_is_not_rescaled_to(key: str) -> None:
    unweighed = next(t for t in things(SHEET, []) if t.key == key)
    with refused("nothing to rescale to"):
        rescale_to(unweighed, 1.0)
    far = next(t for t in things(SHEET, [Pour(key, 20 * unweighed.target_g)]) if t.key == key)
    with refused("look at the scale"):
        rescale_to(far, 1.0)


def test_the_batch_is_what_really_went_in() -> None:
    poured = {t.key: t.target_g for t in things(SHEET, [])}
    same = follow(as_made(SHEET, poured))
    # curing salt is rounded down to what its scale shows, never up over a limit
    assert 0.98 < same.nitrite.figure.value / follow().nitrite.figure.value <= 1
    assert same.salt.figure.value == pytest.approx(follow().salt.figure.value, rel=0.01)
    heavy = follow(as_made(SHEET, {**poured, "curing": 20.0}))
    assert heavy.nitrite.standing == "fail"


def test_safety_is_weighed_closer_than_taste() -> None:
    found = {t.key: t for t in things(SHEET, [])}
    assert found["curing"].scale_g == 0.1
    assert found["curing"].tolerance_g <= 0.02 * found["curing"].target_g
    assert found["line-1"].worst_error_percent <= 2
    assert found["line-0"].scale_g == 1.0


@pytest.mark.parametrize(
    ("goods", "meat_g", "piece_g", "pieces"),
    [
        ("intact", 2000, 2000, 1),  # one muscle, however much salt lies in its bowl
        ("intact", 3960, 2000, 2),
        ("minced", 850, 900, 1),  # a bowl of one salame
        ("minced", 5000, 900, 6),
    ],
)
def test_a_muscle_is_one_piece_and_a_small_rest_joins_the_others(goods, meat_g, piece_g, pieces) -> None:
    sheet = replace(SHEET, parts=(MeatPart("Meat", meat_g, 20),))
    plan = replace(PLAN, goods=goods, piece_g=piece_g)
    assert follow(sheet, plan).pieces == pieces


@pytest.mark.parametrize(("rest", "pieces"), [(0.19, 5), (0.21, 6)])
def test_a_rest_of_a_fifth_makes_a_piece_of_its_own(rest: float, pieces: int) -> None:
    sheet = replace(SHEET, parts=(MeatPart("Meat", 900 * (5 + rest), 20),))
    assert follow(sheet, replace(PLAN, goods="intact", piece_g=900)).pieces == pieces
