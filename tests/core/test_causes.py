"""Causes of what a cut face shows, weighed on this batch's own records; what to do now, and next time."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zymon.core.causes.face import CutFace, Mark, ring_of, signs
from zymon.core.causes.next_time import LINES, Known, next_time
from zymon.core.causes.ranking import FAR_BEHIND, Likely, rank, speaks_for
from zymon.core.causes.records import Measured, of_acid, of_packing, of_salt, of_warm_stage, plain
from zymon.core.causes.table import CAUSES, MARKS, Sign, clue
from zymon.core.causes.with_it_now import Standing, with_it_now
from zymon.core.drying.judge import BIG_LOSS_PERCENT
from zymon.core.errors import OutOfRangeError
from zymon.words import sentence, sentences

# a batch of which everything was recorded, and all of it speaks against every cause
SOUND = (
    {
        "hurry": Measured(0.05, {"loss_percent": 12, "days": 14, "gentle_days": 15}),
        "air_under": Measured(0.0, {"points": 0, "rh_percent": 78}),
        "hook_air": Measured(1.0, {"air": 1.0}),
        "ring_left": Measured(0.8, {"days": 40}),
    }
    | of_warm_stage(90.0, 40.0)
    | of_packing(905.0, 60.0, 300.0)
    | of_acid(5.05, 0.3, True)
    | of_salt(2.6, 38.0, 1.0, 0.95)
    | plain(over_target=0.5, mix_c=2.0, nitrite=120.0, hang_c=12.0, age_days=60.0, antioxidant=1.0, cold_c=3.0)
    | plain(damp_hours=4.0)
)
# what makes each cause the first: the only record that differs, and the sign it is asked by
FAULTY: dict[str, tuple[Sign, dict[str, Measured]]] = {
    "dried_fast": ("ring", {"hurry": Measured(0.9, {"loss_percent": 25, "days": 14, "gentle_days": 34})}),
    "warm_dry": ("ring", of_warm_stage(60.0, 40.0)),
    "cut_early": ("ring", {"ring_left": Measured(4.0, {"days": 5})}),
    "overdried": ("hard_through", plain(over_target=9.0)),
    "mixed_warm": ("smear", plain(mix_c=9.0)),
    "packed_loose": ("holes", of_packing(740.0, 60.0, 300.0)),
    "wild": ("holes", of_acid(5.05, 0.3, False)),
    "acid_low": ("sour", of_acid(4.5, 1.2, True)),
    "acid_short": ("loose", of_acid(5.7, 0.3, True)),
    "salted_much": ("salt_high", of_salt(3.9, 38.0, 1.0, 0.95)),
    "salted_long": ("salt_high", of_salt(2.6, 38.0, 1.7, 0.95)),
    "salted_little": ("salt_low", of_salt(1.7, 38.0, 1.0, 0.95)),
    "salted_short": ("salt_low", of_salt(2.6, 38.0, 1.0, 0.4)),
    "uncured": ("grey", plain(nitrite=0.0)),
    "old_fat": ("rancid", plain(hang_c=21.0, age_days=320.0)),
    "kept_warm": ("smell_off", plain(cold_c=14.0)),
    "damp": ("sharp", plain(damp_hours=240.0)),
}


def test_there_is_a_case_for_every_cause_of_the_table() -> None:
    assert FAULTY.keys() == CAUSES.keys()


@pytest.mark.parametrize("name", CAUSES)
def test_of_two_batches_that_differ_only_in_it_a_cause_comes_first_in_one_and_not_in_the_other(name: str) -> None:
    sign, differs = FAULTY[name]
    faulty, sound = rank([sign], SOUND | differs), rank([sign], SOUND)
    assert faulty[0].name == name
    assert faulty[0].speaks > 0
    assert faulty[0].stage == CAUSES[name].stage
    told = [sentence(t.says) for t in faulty[0].evidence if t.strength > 0]
    assert told
    # in the sound one nothing speaks for it: what comes first there is no more than a sign without a record behind it
    same = next((c for c in sound if c.name == name), None)
    assert same is None or all(t.strength <= 0 for t in same.evidence)
    assert same is None or same.score < faulty[0].score - 1.0


@pytest.mark.parametrize("name", CAUSES)
def test_without_a_record_nothing_speaks_for_or_against(name: str) -> None:
    sign, _ = FAULTY[name]
    found = {c.name: c for c in rank([sign], {})}
    assert name in found or CAUSES[name].signs[sign] < max(c.signs.get(sign, 0) for c in CAUSES.values())
    for likely in found.values():
        assert not likely.recorded
        assert likely.speaks == 0
        assert set(likely.unrecorded) == {c.measure for c in CAUSES[likely.name].clues}


@pytest.mark.parametrize(("cause", "one"), [(c.name, one) for c in CAUSES.values() for one in c.clues])
def test_a_clue_speaks_from_where_it_begins_and_against_from_its_other_mark(cause: str, one) -> None:
    towards = 1 if one.full > one.against else -1
    step = 1e-6 * towards
    assert one.speaks(one.begins) > 0
    assert one.speaks(one.begins - step) <= 0
    assert one.speaks(one.against) < 0
    assert one.speaks(one.full + towards) == 1.0
    assert -1.0 <= one.speaks(one.against - 1e6 * towards) <= -0.3
    assert f"clue.{one.measure}_for" in sentences()
    assert f"clue.{one.measure}_against" in sentences()


@given(
    st.sampled_from([(c.name, one) for c in CAUSES.values() for one in c.clues]), st.floats(-50, 400), st.floats(0, 50)
)
def test_more_of_it_never_speaks_less(which, value: float, more: float) -> None:
    _, one = which
    towards = 1 if one.full > one.against else -1
    assert one.speaks(value + towards * more) >= one.speaks(value)


@pytest.mark.parametrize(
    ("cause", "measure", "begins", "against"),
    [
        ("dried_fast", "hurry", 0.405, 0.1), ("dried_fast", "air_under", 3.0, 1.0),
        ("dried_fast", "hook_air", 1.1, 1.0),
        ("cut_early", "ring_left", 1.3, 1.0), ("overdried", "over_target", 3.0, 1.0), ("mixed_warm", "mix_c", 5.0, 4.0),
        ("packed_loose", "packed", 0.95, 1.0), ("acid_low", "lowest_ph", 4.8, 5.0), ("acid_low", "dextrose", 0.6, 0.4),
        ("acid_short", "acid_gap", 0.05, 0.0), ("salted_much", "salt_finished", 4.8, 4.5),
        ("salted_long", "salt_taken", 1.2, 1.05), ("salted_little", "salt_finished", 3.6, 4.0),
        ("salted_short", "core_share", 0.7, 0.9), ("uncured", "nitrite", 60.0, 100.0),
        ("old_fat", "hang_c", 16.0, 14.0),
        ("old_fat", "age_days", 150.0, 90.0), ("kept_warm", "cold_c", 6.0, 5.0), ("damp", "damp_hours", 48.0, 12.0),
    ],
)  # fmt: skip
def test_the_marks_of_the_table(cause: str, measure: str, begins: float, against: float) -> None:
    found = clue(cause, measure)
    assert (found.begins, found.against) == (begins, against)


def test_marks_that_the_hook_reads_too() -> None:
    assert MARKS == {
        "damp_rh_percent": 85, "many_damp_hours": 24, "coat_days": 3, "ring_risk": 0.5, "off_points": 3,
        "first_weeks_days": 14, "warm_dry_rh_percent": 80,
    }  # fmt: skip


def test_what_speaks_against_is_told_too_and_the_weightiest_first() -> None:
    first = rank(["ring"], SOUND | FAULTY["dried_fast"][1])[0]
    assert [t.strength > 0 for t in first.evidence] == sorted((t.strength > 0 for t in first.evidence), reverse=True)
    assert any(t.strength < 0 for t in first.evidence)
    warm = next(c for c in rank(["ring"], FAULTY["dried_fast"][1]) if c.name == "warm_dry")
    assert warm.unrecorded == ("warm_pull",)
    assert speaks_for(["warm_dry"], {}) is None
    assert speaks_for(["warm_dry"], of_warm_stage(90.0, 40.0)) == ()


def test_what_lies_far_behind_is_not_told() -> None:
    found = rank(["ring", "soft_core"], SOUND | FAULTY["dried_fast"][1] | of_warm_stage(95.0, 48.0))
    assert found[0].name == "dried_fast"
    assert "warm_dry" not in [c.name for c in found if c.score < found[0].score - FAR_BEHIND]
    assert len(found) <= 5
    assert rank([], SOUND) == []


# the face


def test_signs_follow_from_taps_and_from_marks_on_the_face() -> None:
    assert signs(CutFace(ring="none", colour="even", firm_rim="firm", firm_core="firm", smell="clean")) == ()
    assert signs(CutFace(firm_rim="hard", firm_core="soft")) == ("ring", "soft_core")
    assert signs(CutFace(firm_rim="hard", firm_core="hard")) == ("hard_through",)
    assert signs(CutFace(smell="rancid", salt="low", taste=("sharp",))) == ("sharp", "rancid", "salt_low")
    spots = tuple(
        Mark(what, 0.1, 0.2) for what in ("holes", "smear", "loose", "yellow", "mould", "grey", "brown", "soft")
    )
    assert set(signs(CutFace(marks=spots))) == {
        "holes", "smear", "loose", "yellow_fat", "mould_inside", "grey", "brown", "soft_core",
    }  # fmt: skip


@pytest.mark.parametrize(
    "taps",
    [
        {},
        {"ring_mm": 4.0},
        {"ring": "none", "ring_mm": 4.0},
        {"ring": "thin", "ring_mm": 0.0},
        {"ring": "thin", "ring_mm": 151.0},
        {"taste": ("clean", "sour")},
        {"marks": tuple(Mark("holes", 0, 0) for _ in range(61))},
    ],
)
def test_a_face_that_cannot_be_is_refused_in_words(taps: dict) -> None:
    with pytest.raises(OutOfRangeError) as caught:
        CutFace(**taps)
    assert caught.value.said.code in sentences()


def test_a_mark_lies_on_the_face_and_a_wide_ring_is_a_seventh_of_the_way_in() -> None:
    with pytest.raises(OutOfRangeError):
        Mark("holes", 1.3, 0)
    assert [ring_of(mm, 30) for mm in (4.5, 4.49)] == ["wide", "thin"]


# what to do with it now


def acts(seen: tuple[Sign, ...], **how) -> list[str]:
    standing = {"loss_percent": 38.0, "minced": True, "rest_weeks": 5.0, "fails": (), "open": ()} | how
    return [a.act for a in with_it_now(seen, Standing(**standing))]


def test_eat_is_only_said_where_nothing_stands_against_it() -> None:
    assert acts(()) == ["eat"]
    assert acts((), open=("dry_enough",)) == ["look"]
    assert acts((), fails=("acid",)) == ["hold"]
    assert acts(("ring",)) == ["rest", "eat"]
    assert acts(("salt_high", "yellow_fat")) == ["soak", "eat_soon", "eat"]
    assert acts(("mould_inside", "ring")) == ["hold", "rest"]


def test_a_foul_smell_ends_it_and_a_soft_middle_after_a_big_loss_is_held_not_tasted() -> None:
    assert acts(("smell_off", "ring"), open=("acid",)) == ["discard"]
    late, early, unknown = (
        with_it_now(("soft_core",), Standing(loss, True, None, (), ()))[0]
        for loss in (BIG_LOSS_PERCENT, BIG_LOSS_PERCENT - 0.1, None)
    )
    assert (late.says.code, unknown.says.code) == ("now.hold_soft", "now.hold_soft")
    assert early.says.code == "now.hang_on_soft"
    assert "eat" not in acts(("soft_core",), loss_percent=20.0)


@pytest.mark.parametrize(
    ("weeks", "code"), [(0.2, "now.rest"), (26.0, "now.rest"), (26.1, "now.rest_usual"), (None, "now.rest_usual")]
)
def test_weeks_of_a_rest_are_the_models_where_it_has_some(weeks: float | None, code: str) -> None:
    says = with_it_now(("ring",), Standing(38, True, weeks, (), ()))[0].says
    assert says.code == code
    assert int(says.values.get("weeks", 4)) >= 1


# next time


def lines(name: str, known: Known) -> dict[str, str]:
    sign, differs = FAULTY[name]
    likely: Likely = rank([sign], SOUND | differs)[0]
    return {n.says.code: sentence(n.says) for n in next_time(likely, SOUND | differs, known)}


@pytest.mark.parametrize("name", CAUSES)
def test_every_cause_has_a_line_with_its_sentence_for_next_time(name: str) -> None:
    assert set(CAUSES[name].next_time) <= LINES.keys()
    assert lines(name, Known(salt_percent=2.6, rh_percent=60, target_loss_percent=36, hook="2/4"))


def test_lines_carry_numbers_of_this_batch() -> None:
    known = Known(salt_percent=2.6, rh_percent=68.0, rest_weeks=5.2, target_loss_percent=36.0, hook="2/4")
    assert lines("dried_fast", known)["next.humidity"] == "humidity 10 points more in the first 14 days"
    assert "next.hook" not in lines("dried_fast", known)  # its hook was as others
    assert lines("cut_early", known)["next.rest_longer"] == "rest it 5 weeks longer before it is cut"
    assert lines("overdried", known)["next.take_down_earlier"] == "take it down at 36 % of loss"
    assert lines("salted_much", Known(salt_percent=3.9))["next.salt"] == "salt 3.9 → 3.7 % of the meat"
    assert lines("salted_little", Known(salt_percent=1.7))["next.salt"] == "salt 1.7 → 2 % of the meat"
    assert lines("acid_low", known)["next.less_sugar"] == "sugar 1.2 → 0.8 % as dextrose"
    assert lines("salted_long", known)["next.out_earlier"] == "out of the salt after 65 % less time"


@pytest.mark.parametrize(
    ("salt", "cause", "said"), [(4.3, "salted_much", 4.0), (2.0, "salted_much", None), (4.0, "salted_little", None)]
)
def test_salt_is_changed_in_steps_and_within_what_is_usual(salt: float, cause: str, said: float | None) -> None:
    sign, differs = FAULTY[cause]
    likely = rank([sign], SOUND | differs)[0]
    found = [n for n in next_time(likely, SOUND | differs, Known(salt_percent=salt)) if n.field == "salt_percent"]
    assert [n.says.values["percent"] for n in found] == ([] if said is None else [said])
    assert all(abs((n.change or 0) - (float(n.says.values["percent"]) - salt)) < 1e-9 for n in found)


@given(st.floats(0, 3), st.floats(5, 99))
def test_humidity_is_raised_by_three_to_ten_points_whatever_the_pace(hurry: float, rh: float) -> None:
    records = SOUND | {"hurry": Measured(hurry, {"loss_percent": 20, "days": 14, "gentle_days": 30})}
    likely = Likely("dried_fast", "hang", ("ring",), 0.0, (), ())
    points = next_time(likely, records, Known(rh_percent=rh))[0].says.values["points"]
    assert 3 <= float(points) <= 10


def test_measures_that_nobody_took_are_not_there() -> None:
    assert of_warm_stage(None, 20.0) == {}
    assert of_packing(800.0, None, 300.0) == {}
    assert of_acid(None, None, None) == {}
    assert of_salt(2.6, None, None, None) == {}
    assert plain(mix_c=None) == {}
    assert of_warm_stage(60.0, 96.0)["warm_pull"].value == of_warm_stage(60.0, 48.0)["warm_pull"].value


def test_every_sign_has_a_cause_told_however_far_behind() -> None:
    found = rank(["smear", "salt_high"], SOUND | FAULTY["mixed_warm"][1])
    assert found[0].name == "mixed_warm"
    assert {sign for c in found for sign in c.signs} >= {"smear", "salt_high"}


@pytest.mark.parametrize(("minced", "told"), [(True, {"salted_much"}), (False, {"salted_much", "salted_long"}),
                                              (None, {"salted_much", "salted_long"})])  # fmt: skip
def test_goods_have_only_what_they_can_have(minced: bool | None, told: set[str]) -> None:
    assert {c.name for c in rank(["salt_high"], {}, minced)} >= told
    assert ("salted_long" in {c.name for c in rank(["salt_high"], {}, minced)}) == ("salted_long" in told)
