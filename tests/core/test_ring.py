"""The ring that is there: told from the inside and not from the pace, past the target too; and what dried it."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, salame, steady_log, weighed
from zymon.core.causes.ranking import speaks_for
from zymon.core.causes.records import of_warm_stage, pull_of_air
from zymon.core.causes.table import MARKS, clue
from zymon.core.drying.climate import Log
from zymon.core.drying.dried_by import first_weeks, mean_rh
from zymon.core.drying.feel import Feel, ring_seen
from zymon.core.drying.forecast import Fitted, fitted
from zymon.core.drying.history import History, Piece, Stay
from zymon.core.drying.inside import inside
from zymon.core.drying.judge import BIG_LOSS_PERCENT, judge, runs_ahead
from zymon.core.drying.mend import mending
from zymon.core.faults import Evidence, Found, advise

MUSCLE = {"kind": "whole_muscle", "shape": "irregular", "diameter_mm": 90.0, "start_weight_g": 2000.0,
          "length_mm": None, "fat_percent": 8.0, "target_loss_percent": 36.0}  # fmt: skip


def fit(piece: Piece, day: float, rh: float = 78.0, set_rh: float | None = None, c: float = 13.0) -> Fitted:
    log = steady_log(day, c, rh)
    return fitted(History((piece,), log, c, rh if set_rh is None else set_rh, day * DAY))


@pytest.mark.parametrize(
    ("rim", "core", "ring"),
    [(0.7, 1.46, "strong"), (0.7, 1.44, "some"), (1.4, 2.31, "strong"), (1.4, 2.29, "some"), (1.5, 2.2, "even"),
     (0.5, 0.6, "even"), (2.0, 1.0, "even")],
)  # fmt: skip
def test_a_ring_is_how_many_words_of_fingers_lie_between_rim_and_middle(rim, core, ring) -> None:
    assert ring_seen(rim, core) == ring


@settings(max_examples=6)
@given(day=st.integers(2, 80), rh=st.sampled_from([60.0, 78.0]))
def test_room_and_inside_tell_the_same_ring(day: int, rh: float) -> None:
    found = fit(salame(**MUSCLE), day, rh)
    assert found.forecasts[0].ring == inside(found, 0, day * DAY).ring


def test_a_strong_ring_stays_told_past_the_target_and_a_ring_that_closed_is_no_risk_any_more() -> None:
    fast = fit(weighed(salame(), (4, 740), (8, 655), (12, 580), (16, 520)), 16, rh=50, c=18)
    made = fast.forecasts[0]
    assert made.status == "ready"
    judged = judge(fast.arrays.pieces[0], made, 16 * DAY)
    assert judged.state in ("ready", "over")
    assert runs_ahead(made) == (made.ring == "strong")
    old = fit(salame(), 90, rh=70)
    assert old.forecasts[0].ring == "even"
    assert not runs_ahead(old.forecasts[0])


def test_ready_with_a_hard_rim_round_a_softer_middle_wants_a_rest() -> None:
    piece = replace(salame(**MUSCLE), tare_g=0.0)
    found = fit(weighed(piece, (20, 1520), (40, 1320), (44, 1280)), 44)
    made = found.forecasts[0]
    assert made.ring == "strong"
    judged = judge(found.arrays.pieces[0], made, 44 * DAY)
    assert (judged.state, "ring" in judged.wants) == ("ready", True)


@pytest.mark.parametrize(("core", "state"), [("soft", "hold"), ("wet", "hold"), ("yielding", "over"), ("firm", "over")])
def test_what_felt_soft_at_half_its_weight_is_held_and_never_ready(core: str, state: str) -> None:
    piece = weighed(salame(), (5, 690), (10, 600), (20, 490), (40, 430))
    piece = replace(piece, feels=(Feel(39 * DAY, "hard", core),))
    assert judge(piece, fit(piece, 40, rh=50, c=18).forecasts[0], 40 * DAY).state == state


def test_a_soft_middle_is_a_matter_of_waiting_up_to_a_big_loss_by_the_scale() -> None:
    def state(gross_g: float) -> str:
        piece = weighed(salame(target_loss_percent=45.0), (10, 740), (20, gross_g + 40), (26, gross_g))
        piece = replace(piece, feels=(Feel(26 * DAY, "firm", "soft"),))
        return judge(piece, fit(piece, 26).forecasts[0], 26 * DAY).state

    net_g = 842.0 - 11.0
    assert state(11 + net_g * (1 - (BIG_LOSS_PERCENT + 0.3) / 100)) == "hold"
    assert state(11 + net_g * (1 - (BIG_LOSS_PERCENT - 0.3) / 100)) != "hold"
    assert BIG_LOSS_PERCENT == 30


# what dried it


def reasons(found: Fitted, warm: tuple[float | None, float] = (None, 0.0)) -> list[str] | None:
    told = dried_by(found, *warm)
    return None if told is None else [one.code for one in told]


def dried_by(found: Fitted, warm_rh: float | None = None, warm_hours: float = 0.0):
    return speaks_for(("dried_fast", "warm_dry"), first_weeks(found, 0) | of_warm_stage(warm_rh, warm_hours))


def test_the_stage_that_pulled_harder_is_named_first_on_this_piece_alone() -> None:
    assert reasons(fit(salame(), 30)) == []  # gentle all along: nothing stands out
    assert reasons(fit(salame(), 30), (60.0, 48.0)) == ["clue.warm_pull_for"]
    dry = reasons(fit(salame(), 30, rh=60, set_rh=78))
    assert dry is not None
    assert set(dry) == {"clue.hurry_for", "clue.air_under_for"}
    both = reasons(fit(salame(), 30, rh=60, set_rh=78), (79.0, 10.0))
    assert both is not None
    assert both[-1] == "clue.warm_pull_for"  # hardly dry, and short
    assert reasons(fit(salame(), 30, rh=60, set_rh=78), (40.0, 48.0))[0] == "clue.warm_pull_for"


def test_without_any_record_it_says_that_nothing_was_recorded() -> None:
    nothing = Log(np.zeros(0), np.zeros(0), np.zeros(0))
    blind = fitted(History((salame(),), nothing, 13.0, 78.0, 30 * DAY))
    assert reasons(blind) is None
    assert reasons(fitted(History((weighed(salame(), (5, 790)),), nothing, 13.0, 78.0, 30 * DAY))) is not None


@pytest.mark.parametrize(("rh", "blamed"), [(79.9, True), (80.0, False), (90.0, False)])
def test_a_warm_stage_is_dry_under_eighty_percent(rh: float, blamed: bool) -> None:
    assert (reasons(fit(salame(), 30), (rh, 30.0)) == ["clue.warm_pull_for"]) == blamed


@pytest.mark.parametrize(
    ("points", "blamed"),
    [(3.2, True), (2.8, False)],
)
def test_air_is_to_blame_from_three_points_under_its_set_point(points: float, blamed: bool) -> None:
    told = reasons(fit(salame(), 30, rh=78, set_rh=78 + points))
    assert told is not None
    assert ("clue.air_under_for" in told) == blamed


def test_marks_of_the_first_weeks_and_of_a_hook() -> None:
    hurried, strong = clue("dried_fast", "hurry").begins, clue("dried_fast", "hook_air").begins
    assert (MARKS["first_weeks_days"], MARKS["off_points"]) == (14, 3)
    assert (np.exp(hurried), strong) == (pytest.approx(1.5, abs=0.01), pytest.approx(1.1))
    assert pull_of_air(60, 80) == pytest.approx(np.log(2))
    assert pull_of_air(100, 100) == 0.0
    log = steady_log(10, 13, 70)
    assert mean_rh(log, 0, 5 * DAY) == 70
    assert mean_rh(log, 20 * DAY, 30 * DAY) is None


def draughty(rh: float) -> Fitted:
    """A batch of which one piece hangs in nearly twice the air of the others, all weighed."""
    pieces = []
    for i in range(6):
        pace = (0.015 if rh > 70 else 0.016) * (1.0 if i else 1.7)  # share of its weight a day
        weights = [(d, round(842 - 831 * pace * d * (1 - 0.012 * d))) for d in (4, 8, 12, 15)]
        pieces.append(weighed(salame(f"A-{i}", stays=(Stay(0.0, f"1/{i}"),)), *weights))
    return fitted(History(tuple(pieces), steady_log(16, 13, rh), 13.0, 78.0, 16 * DAY))


def test_mending_weighs_the_place_against_the_hook() -> None:
    by_hook, by_place = (mending(draughty(rh), 0, ["1/9"], [1, 2, 3, 4, 5]) for rh in (77.0, 61.0))
    assert by_hook is not None
    assert by_place is not None
    hook_codes, place_codes = ([e.code for e in m.evidence] for m in (by_hook, by_place))
    assert "trouble.air_under" not in hook_codes
    assert place_codes.index("trouble.air_under") < place_codes.index("trouble.hook_of_one")
    assert by_place.mends[0].way == "humidity"
    assert by_place.loss_g_per_day > 0


# advice at the hook


@pytest.mark.parametrize(
    ("found", "loss", "act", "what"),
    [
        (Found("hard", "soft"), 29.9, "mend", "advice.damper_air"),
        (Found("hard", "soft"), 30.0, "hold", "advice.vacuum_rest"),
        (Found("firm", "wet"), 30.0, "hold", "advice.cut_one"),
        (Found("firm", "soft"), 29.9, "nothing", "advice.all_well"),
        (Found("hard", "yielding"), 10.0, "watch", "advice.hard_rim"),
        (Found("hard", None), 10.0, "watch", "advice.hard_rim"),
        (Found("hard", "firm"), 36.0, "nothing", "advice.all_well"),
    ],
)
def test_a_hard_rim_and_a_soft_middle_are_mended_early_and_held_late(found, loss, act, what) -> None:
    (advice,) = advise(found, Evidence(loss, 0.1, 0.0, 20.0))
    assert (advice.act, advice.what.code) == (act, what)


def test_the_advice_names_the_stage_or_that_nothing_was_recorded() -> None:
    late = Found("hard", "soft")
    unknown = advise(late, Evidence(40, 0.1, 0, 30, dried_by=None))[0].because
    assert [b.code for b in unknown] == ["because.soft_late", "because.nothing_recorded"]
    known = dried_by(fit(salame(), 30, rh=60, set_rh=78))
    named = advise(late, Evidence(40, 0.1, 0, 30, dried_by=known))[0].because
    assert named[1:] == known
    hurried = advise(late, Evidence(40, 0.8, 0, 30))[0].because
    assert hurried[1].code == "because.over_safe_pace"


def test_what_is_held_is_not_mended_by_taking_it_down() -> None:
    piece = weighed(salame(), (5, 690), (10, 600), (20, 490), (40, 430))
    done, held = (
        mending(fit(replace(piece, feels=feels), 40, rh=50, c=18), 0, [], [])
        for feels in ((), (Feel(39 * DAY, "hard", "soft"),))
    )
    assert done is not None
    assert done.trouble == "overshooting"
    assert held is None
