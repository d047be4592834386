"""Pieces without a scale or a target: what is told of them, what fingers change, and that nothing calls them ready."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, history, salame, weighed
from zymon.core.drying.feel import FEELS, Feel, feels, how_believable, rim_and_core
from zymon.core.drying.forecast import PieceForecast, fitted, forecast
from zymon.core.drying.geometry import SKIN_ON_OTHER, SKIN_ON_SLAB, one_faced, usual_weight_g
from zymon.core.drying.history import Piece, Weighing
from zymon.core.drying.inside import inside
from zymon.core.drying.judge import ask_about, felt_firm, judge, worth_feeling_s
from zymon.core.drying.mend import passes_over_s
from zymon.core.drying.priors import KINDS
from zymon.core.drying.sentinels import sentinels
from zymon.core.drying.transport import SHELLS


def unweighed(**changes: object) -> Piece:
    return salame(**{"start_weight_g": None, "target_loss_percent": None, **changes})


def told(piece: Piece, day: float) -> PieceForecast:
    return forecast(history(piece, now_days=day))[0]


@pytest.mark.parametrize("lacks", [{"start_weight_g": None}, {"target_loss_percent": None}])
def test_without_start_or_target_shares_are_told_and_no_date_of_a_target(lacks: dict) -> None:
    made = told(salame(**lacks), 20)
    assert (made.target_weight_g, made.reaches) == (None, None)
    assert (made.ready_p10_s, made.ready_p50_s, made.ready_p90_s) == (None, None, None)
    assert made.loss_p10_percent < made.loss_percent < made.loss_p90_percent
    assert made.rate_p10_percent_per_day < made.rate_percent_per_day < made.rate_p90_percent_per_day
    known = told(salame(), 20)
    assert made.loss_percent == pytest.approx(known.loss_percent, abs=1.5)  # its measures say as much as its weight
    assert known.usual_s is None


@pytest.mark.parametrize("day", [3, 60, 700, 1500])
def test_nothing_calls_it_ready_or_stalled_however_long_it_hangs(day: int) -> None:
    piece = unweighed()
    made = told(piece, day)
    assert made.status == "drying"
    assert judge(piece, made, day * DAY).state in ("drying", "feel")
    assert passes_over_s(piece, made) is None
    assert sentinels([piece], [made], day * DAY) == []  # the scale would tell nothing


def test_what_is_taken_as_usual_is_said() -> None:
    assert [one.code for one in unweighed().assumed] == ["assumed.weight", "assumed.target"]
    assert unweighed(fat_percent=None).assumed[0].values["start_g"] == 830
    assert unweighed().assumed[1].values["percent"] == KINDS["salame"].target_loss_percent
    assert salame().assumed == ()


def test_a_weight_without_a_start_is_neither_asked_about_nor_learned_from() -> None:
    piece = unweighed()
    before = told(piece, 20)
    assert ask_about(piece, before, 60_000.0, 20 * DAY) is None
    after = told(replace(piece, weighings=(Weighing(15 * DAY, 400.0),)), 20)
    assert after.loss_percent == before.loss_percent


def test_with_a_start_and_no_target_weighings_still_bend_the_loss() -> None:
    piece = salame(target_loss_percent=None)
    fast = told(weighed(piece, (5, 740), (10, 690)), 15)
    assert fast.loss_percent > told(piece, 15).loss_percent + 2


@given(diameter=st.floats(30, 120), length=st.floats(100, 500))
def test_what_nobody_weighed_is_taken_from_its_measures(diameter: float, length: float) -> None:
    weight_g = usual_weight_g("salame", "cylinder", diameter, None, length)
    assert weight_g == pytest.approx(math.pi / 4 * diameter**2 * length * 1.05e-3)
    longer = usual_weight_g("salame", "cylinder", diameter, None, length * 1.1)
    assert longer > weight_g
    assert usual_weight_g("belly", "slab", None, diameter, None) < usual_weight_g("belly", "slab", None, 121, None)
    assert usual_weight_g("salame", "cylinder", diameter, None, None) < usual_weight_g(
        "salame", "cylinder", 121, None, None
    )
    assert usual_weight_g("breast", "slab", None, None, None) == 400


def test_days_are_told_to_the_day_and_then_it_is_worth_feeling_never_ready() -> None:
    piece = unweighed(done_days=21)
    for day, state, left in ((0, "drying", 21), (20, "drying", 1), (21, "feel", None), (40, "feel", None)):
        judged = judge(piece, told(piece, day), day * DAY)
        assert judged.state == state
        assert (judged.days_left and judged.days_left.value) == left
        assert not (judged.days_left and judged.days_left.about)


def test_by_feel_it_is_worth_feeling_when_such_goods_usually_are_there() -> None:
    piece = unweighed()
    at_hanging = told(piece, 0)
    worth = worth_feeling_s(piece, at_hanging)
    with_target = told(salame(target_loss_percent=KINDS["salame"].target_loss_percent), 0)
    assert worth is not None
    assert with_target.ready_p10_s is not None
    assert worth[0] == pytest.approx(with_target.ready_p10_s, rel=0.12)
    assert judge(piece, at_hanging, 0).state == "drying"
    day = math.ceil(worth[0] / DAY) + 1
    assert judge(piece, told(piece, day), day * DAY).state == "feel"


@pytest.mark.parametrize(
    ("rim", "core", "firm"),
    [("firm", "firm", True), ("hard", "hard", True), (None, "firm", True), ("firm", "yielding", False),
     ("firm", "soft", False), ("firm", "wet", False), ("soft", "firm", False), ("firm", None, False)],
)  # fmt: skip
def test_firm_is_firm_to_the_middle(rim: str | None, core: str | None, firm: bool) -> None:
    piece = unweighed(feels=(Feel(30 * DAY, rim, core),))
    assert felt_firm(piece, 31 * DAY) is firm
    assert not felt_firm(piece, 29 * DAY)  # not before it was felt
    assert (judge(piece, told(piece, 31), 31 * DAY).state == "felt") is firm


def test_the_last_feel_counts() -> None:
    piece = unweighed(feels=(Feel(20 * DAY, "firm", "firm"), Feel(25 * DAY, "firm", "soft")))
    assert not felt_firm(piece, 26 * DAY)
    assert felt_firm(piece, 24 * DAY)


@settings(max_examples=8, deadline=None)
@given(day=st.integers(12, 60), other=st.sampled_from(["irregular", "cylinder"]))
def test_a_softer_feel_never_means_that_more_is_lost(day: int, other: str) -> None:
    def lost(word: str) -> float:
        piece = unweighed(shape=other, feels=(Feel(day * DAY, word, word),))
        return told(piece, day + 1).loss_percent

    soft, yielding, firm, hard = (lost(word) for word in ("soft", "yielding", "firm", "hard"))
    assert soft <= yielding + 0.2 <= firm + 0.4 <= hard + 0.6
    assert hard > soft + 0.5


def test_a_feel_moves_the_date_and_the_inside_of_a_piece_that_has_a_target_too() -> None:
    def of(word: str) -> tuple[float, float]:
        fit = fitted(history(salame(feels=(Feel(25 * DAY, word, word),)), now_days=26))
        ready = fit.forecasts[0].ready_p50_s
        assert ready is not None
        return ready / DAY, inside(fit, 0, 26 * DAY).core_water_percent

    (soft_day, soft_core), (hard_day, hard_core) = of("soft"), of("hard")
    assert hard_day < soft_day - 2
    assert hard_core < soft_core - 1


def test_a_feel_before_it_was_hung_or_of_nothing_changes_nothing() -> None:
    plain = told(unweighed(), 20).loss_percent
    for feel in (Feel(-DAY, "hard", "hard"), Feel(10 * DAY, None, None), Feel(30 * DAY, "hard", "hard")):
        assert told(unweighed(feels=(feel,)), 20).loss_percent == plain


def test_weighings_say_more_than_fingers() -> None:
    piece = weighed(salame(), (10, 735), (20, 665), (30, 612))
    plain = told(piece, 31).loss_percent
    felt = told(replace(piece, feels=(Feel(30 * DAY, "soft", "soft"),)), 31).loss_percent
    assert felt == pytest.approx(plain, abs=0.6)


def test_words_of_fingers_end_where_they_say() -> None:
    assert [feels(x) for x in (2.3, 2.29, 1.45, 1.44, 0.75, 0.74)] == [
        "raw", "yielding", "yielding", "firm", "firm", "hard",
    ]  # fmt: skip
    for (least, word), next_word in zip(FEELS, ("yielding", "firm", "hard"), strict=True):
        at = np.array([least])
        assert how_believable("soft" if word == "raw" else word, at) == how_believable(next_word, at) == 1.0
        over, under = how_believable("soft" if word == "raw" else word, np.array([least * 1.01, least / 1.01]))
        assert (over, under < 1.0) == (1.0, True)
    assert how_believable("wet", np.array([2.5])) == 1.0
    assert how_believable(None, np.array([1.0, 9.0])).tolist() == [1.0, 1.0]


def test_fingers_differ_by_about_a_fifth() -> None:
    off = how_believable("soft", np.array([FEELS[0][0] * math.exp(-0.22)]))
    assert off == pytest.approx(math.exp(-1), rel=0.1)


def test_rim_and_core_are_the_outer_and_inner_three_tenths() -> None:
    x = np.linspace(3.0, 0.5, SHELLS)
    rim, core = rim_and_core(x)
    assert rim < x.mean() < core
    both = rim_and_core(np.stack([x, 2 * x], axis=1))
    assert both[0].tolist() == pytest.approx([float(rim), 2 * float(rim)])


def test_skin_on_one_face_makes_it_dry_from_the_other() -> None:
    belly = {"kind": "belly", "shape": "slab", "casing": "none", "diameter_mm": None, "thickness_mm": 40.0,
             "length_mm": None, "start_weight_g": 1600.0, "fat_percent": 43.0, "target_loss_percent": 20.0}  # fmt: skip
    bare, said_off, skin = (told(salame(**belly, skin=one), 0).ready_p50_s for one in (None, False, True))
    assert bare == said_off
    assert bare is not None
    assert skin is not None
    assert 2.2 < skin / bare < 3.3  # "far longer"
    assert (one_faced("slab", True), one_faced("cylinder", True)) == (SKIN_ON_SLAB, SKIN_ON_OTHER)
    assert (pytest.approx(1.8, abs=0.1), pytest.approx(1.25, abs=0.1)) == (SKIN_ON_SLAB, SKIN_ON_OTHER)
