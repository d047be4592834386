"""Packs, their clocks and what to use first; allergens and ingredients of a label; yield and cost."""

from dataclasses import replace
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from support import sheet_body
from zymon.core.bench.sheet import work
from zymon.core.errors import OutOfRangeError
from zymon.core.stock.allergens import WORDS, Allergen, allergens_in
from zymon.core.stock.label import ingredients
from zymon.core.stock.packs import (
    CLASS_C,
    COLDEST_C,
    OPENED_DAYS,
    SCALE_SHARE,
    SOON_DAYS,
    Pack,
    Some,
    check_fits,
    too_warm,
    use_first,
)
from zymon.core.stock.yields import yielded
from zymon.formats.recipe_file import SheetModel

DAY = 86_400.0


def pack(**changes) -> Pack:
    return Pack(**({"number": 4, "net_g": 120.0, "packed_s": 0.0, "keep_at": "fridge", "period_days": 60.0} | changes))


def gone(number: int, at_s: float = 30 * DAY) -> tuple[Some, ...]:
    return (Some(at_s, number),)


def test_a_pack_keeps_by_the_makers_own_period_and_an_opened_one_two_weeks() -> None:
    assert pack().best_before_s == 60 * DAY
    assert pack().use_by_s == 60 * DAY
    assert pack(period_days=None).use_by_s is None
    assert pack(opened=(Some(10 * DAY, 1),)).use_by_s == 24 * DAY
    assert pack(opened=(Some(50 * DAY, 1),)).use_by_s == 60 * DAY
    assert (OPENED_DAYS, SOON_DAYS, SCALE_SHARE) == (14, 7, 0.01)


def test_what_goes_goes_from_the_opened_ones_first() -> None:
    two = (Some(1 * DAY, 1), Some(5 * DAY, 2))
    assert pack(opened=two).open_now == two
    assert pack(opened=two, went=gone(1)).open_now == (two[1],)
    assert pack(opened=two, went=gone(2)).open_now == (Some(5 * DAY, 1),)
    assert pack(opened=two, went=gone(4)).open_now == ()
    assert pack(opened=two, went=gone(2, 4 * DAY)).open_now == two[1:]  # what went before it was opened, went closed
    assert pack(opened=(Some(0, 3),), went=gone(2), number=3).open_now == (Some(0, 1),)


@given(st.integers(1, 20), st.lists(st.tuples(st.booleans(), st.integers(1, 3)), max_size=8))
def test_never_more_is_open_than_is_left(number: int, happened: list[tuple[bool, int]]) -> None:
    one = pack(number=number)
    for day, (opens, many) in enumerate(happened):
        new = (Some(day * DAY, many),)
        if opens and many <= one.closed_left:
            one = replace(one, opened=one.opened + new)
        elif not opens and many <= one.left:
            one = replace(one, went=one.went + new)
        open_now = sum(o.number for o in one.open_now)
        assert one.left == open_now + one.closed_left
        assert 0 <= open_now <= one.left


@pytest.mark.parametrize(
    "changes",
    [{"number": 0}, {"number": 501}, {"net_g": 0}, {"net_g": -5}, {"net_g": 100_001}, {"period_days": 0},
     {"period_days": 3651}, {"went": gone(5)}],
)  # fmt: skip
def test_packs_that_cannot_be_are_refused(changes: dict) -> None:
    with pytest.raises(OutOfRangeError):
        pack(**changes)


def test_the_first_clock_is_used_first_then_the_oldest_and_what_is_gone_not_at_all() -> None:
    packs = [
        pack(period_days=None, packed_s=5 * DAY), pack(period_days=None), pack(period_days=30), pack(went=gone(4)),
        pack(period_days=90, opened=(Some(0, 1),)),
    ]  # fmt: skip
    assert use_first(packs) == [4, 2, 1, 0]


def test_packs_weigh_no_more_than_the_piece() -> None:
    check_fits(300, 240, 540)
    check_fits(300, 245, 540)  # a scale, a casing: one in a hundred
    check_fits(300, 9000, None)  # nobody weighed the piece
    for new_g in (246.0, 9000.0):
        with pytest.raises(OutOfRangeError) as caught:
            check_fits(300, new_g, 540)
        assert caught.value.said.values["left_g"] == 240


def test_a_cellar_is_for_what_keeps_without_chill_and_what_is_not_known_is_kept_cold() -> None:
    assert [too_warm("cellar", keeps) for keeps in ("no_chill", "max_10_c", "max_5_c", None)] == [
        False,
        True,
        True,
        True,
    ]
    assert not any(too_warm("fridge", keeps) for keeps in (*CLASS_C, None))
    assert COLDEST_C == {"fridge": 5, "freezer": -18, "cellar": 15}
    assert CLASS_C == {"no_chill": 99, "max_10_c": 10, "max_5_c": 5}


# allergens and labels


def test_every_allergen_of_the_list_is_one_that_labels_know() -> None:
    assert set(WORDS) == set(get_args(Allergen))
    assert all(words for words in WORDS.values())


@pytest.mark.parametrize(
    ("name", "found"),
    [
        ("Skim milk powder", ("milk",)), ("Red wine", ("sulphites",)), ("Mustard seeds", ("mustard",)),
        ("Coconut milk", ()), ("Black pepper", ()), ("Walnuts", ("nuts",)), ("Pistachios, chopped", ("nuts",)),
        ("Beer", ("gluten",)), ("Ginger", ()), ("Eggplant", ()), ("Whole-wheat breadcrumbs", ("gluten",)),
        ("Anchovies", ("fish",)), ("Sesame & celery", ("celery", "sesame")), ("Malt vinegar", ("gluten",)),
        ("Cream of tartar", ()), ("Veggie salt", ()), ("Oyster mushroom", ()), ("Buckwheat flour", ()),
        ("Latte in polvere", ("milk",)), ("Lattosio", ("milk",)), ("Lattuga", ()), ("Latte di cocco", ()),
        ("Burro di arachidi", ("peanut",)), ("Vino rosso", ("sulphites",)), ("Aceto", ()), ("Uova", ("egg",)),
        ("Noci tritate", ("nuts",)), ("Noce moscata", ()), ("Nocciole", ("nuts",)), ("Semi di sedano", ("celery",)),
        ("Senape in grani", ("mustard",)), ("Pepe in grani", ()), ("Pangrattato", ("gluten",)), ("Farina di riso", ()),
        ("Farina", ("gluten",)), ("Granoturco", ()), ("Salsa di soia", ("gluten", "soy")), ("Sale", ()),
        ("Acciughe", ("fish",)), ("Gamberi", ("crustaceans",)), ("Cozze", ("molluscs",)), ("Pannage pork", ()),
        ("Farina di riso e di frumento", ("gluten",)), ("Noci e noce moscata", ("nuts",)),
        ("Coconut milk and milk powder", ("milk",)), ("Buckwheat and rye flour", ("gluten",)),
        ("Pistacchi", ("nuts",)), ("Lupini", ("lupin",)), ("Sesamo", ("sesame",)),
    ],
)  # fmt: skip
def test_words_mean_allergens_and_in_doubt_rather_one_too_many(name: str, found: tuple) -> None:
    assert allergens_in(name, {}) == found


def test_a_maker_adds_words() -> None:
    own = {"House blend": ("mustard", "celery")}
    assert allergens_in("house blend no 2", own) == ("celery", "mustard")
    assert allergens_in("Skim milk in house blend", own) == ("milk", "celery", "mustard")


def test_ingredients_stand_by_falling_weight_meat_by_its_animal_salts_by_their_agents() -> None:
    sheet = SheetModel.model_validate(sheet_body()).to_core()
    found = ingredients([(sheet, work(sheet), "pork")], {})
    names = [one.name for one in found]
    assert names[:2] == ["pork", "salt"]
    assert found[0].grams == 5000
    assert "curing salt (salt, sodium nitrite (E 250))" in names
    assert [one.grams for one in found] == sorted((one.grams for one in found), reverse=True)
    assert next(one for one in found if one.name == "red wine").allergens == ("sulphites",)
    twice = ingredients([(sheet, work(sheet), "pork"), (sheet, work(sheet), "beef")], {})
    assert {one.name: one.grams for one in twice}["beef"] == 5000
    assert next(one for one in twice if one.name == "salt").grams == pytest.approx(2 * found[1].grams)


# yield and cost


def test_yield_is_a_share_of_what_was_bought_and_cost_is_of_what_is_finished() -> None:
    steps = [("bought", 6000.0), ("trimmed", 5000.0), ("hung", None), ("finished", 3000.0), ("usable", 2800.0)]
    found = yielded(steps, 60.0, 24.0, 200.0)
    assert [one.share for one in found.steps] == [1.0, pytest.approx(5 / 6), None, 0.5, pytest.approx(2.8 / 6)]
    assert found.cost_per_finished_kg == pytest.approx(28.0)
    assert found.cost_per_usable_kg == pytest.approx(30.0)
    assert found.thrown_g == 200
    unknown = yielded([("bought", None), ("finished", None)], None, 5.0, 0.0)
    assert (unknown.cost_per_finished_kg, [s.share for s in unknown.steps]) == (None, [None, None])
