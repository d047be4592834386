"""Laws of the record: lives, courses, what the scale says, in which order things can be, each limit at its boundary."""

from contextlib import nullcontext
from dataclasses import replace
from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from strategies import DAY, history, salame, weighed
from support import refused
from zymon.core import order, scale
from zymon.core.course import HANDLING_S, Course, Individual, Stage
from zymon.core.devices import REGISTRY, impossible
from zymon.core.drying.forecast import forecast
from zymon.core.drying.judge import judge
from zymon.core.errors import OutOfRangeError
from zymon.core.fermentation.meter import ask_about_ph
from zymon.core.life import AFTER_THE_HOOK, Life, State, in_order
from zymon.core.pieces import at_target, loss_percent, sliced, tag_grams, target_weight
from zymon.core.rotation import wants_turning
from zymon.core.salting.care import care_due, runs_dry
from zymon.core.salting.ways import out_is_early
from zymon.words import sentence

HOUR = 3600.0


@st.composite
def lives(draw: st.DrawFn) -> Life:
    """A life one state after the other, the last of which may go on."""
    at, states = draw(st.integers(0, 10)) * DAY, []
    for kind in draw(
        st.lists(st.sampled_from(["in_salt", "out", "hanging", "resting", "cut"]), min_size=1, max_size=6)
    ):
        until = at + draw(st.integers(1, 30)) * DAY
        states.append(State(kind, at, until))
        at = until + draw(st.integers(0, 2)) * DAY
    if draw(st.booleans()):
        states[-1] = replace(states[-1], to_s=None)
    return in_order(draw(st.permutations(states)))


@given(lives(), st.floats(-5, 250), st.floats(0, 400))
def test_one_state_at_a_time_and_the_past_does_not_move_with_now(life: Life, day: float, later: float) -> None:
    at_s = day * DAY
    there = [s for s in life.states if s.from_s <= at_s and (s.to_s is None or at_s < s.to_s)]
    assert life.at(at_s) == (there[0] if there else None)
    assert len(there) <= 1
    hung = [s for s in life.states if s.kind == "hanging" and s.from_s <= at_s]
    if hung and hung[-1].to_s is not None and at_s >= hung[-1].to_s:
        after = max(h.to_s for h in life.states if h.kind == "hanging" and h.from_s <= at_s)
        assert life.moves_until(at_s) == after
        none_since = not any(s.kind == "hanging" and at_s < s.from_s <= at_s + later * DAY for s in life.states)
        if none_since:
            assert life.moves_until(at_s + later * DAY) == after
    assert all(b > a for a, b in life.paused())


@given(lives(), st.integers(0, 5))
def test_two_states_at_once_are_refused(life: Life, which: int) -> None:
    state = life.states[which % len(life.states)]
    inside = State("kept", state.from_s + DAY / 2, None if state.to_s is None else state.to_s + DAY)
    with refused("check the times"):
        in_order([*life.states, inside, replace(inside, kind="gone")])
    with refused("would end before it begins"):
        State("hanging", 2.0, 1.0)


def course(*stages: Stage, life: Life | None = None) -> Course:
    piece = Individual("N-1", life or Life((State("hanging", 0.0, None),)))
    return Course("N", "Neck", False, 0.0, None, stages, (piece,))


@given(st.lists(st.tuples(st.integers(0, 60), st.integers(1, 20)), min_size=1, max_size=6), st.floats(0, 1))
def test_a_course_covers_its_span_or_says_what_is_unknown(spans: list[tuple[int, int]], share: float) -> None:
    stages = [Stage("hang", low * DAY, (low + days) * DAY) for low, days in spans]
    made = course(*stages)
    first, last = min(s.from_s for s in stages), max(s.to_s or 0.0 for s in stages)
    at_s = first + share * (last - first)
    covered = any(s.from_s <= at_s <= (s.to_s or 0.0) for s in stages)
    unknown = any(low < at_s < high for low, high in made.unknown("N-1", 90 * DAY))
    assert covered or unknown
    assert not (unknown and any(s.from_s < at_s < (s.to_s or 0.0) for s in stages))


def test_between_two_stages_handling_is_no_gap_and_more_is() -> None:
    def gap(hours: float) -> Course:
        return course(Stage("cure", 0.0, DAY), Stage("hang", DAY + hours * HOUR, None))

    assert HANDLING_S == 6 * HOUR
    assert gap(6).unknown("N-1", 9 * DAY) == ()
    assert gap(6.1).unknown("N-1", 9 * DAY) == ((DAY, DAY + 6.1 * HOUR),)
    assert course().unknown("N-1", 9 * DAY) == ()
    own = course(Stage("cure", 0.0, DAY, tags=("N-2",)), Stage("hang", 5 * DAY, None))
    assert [s.kind for s in own.stages_of("N-1")] == ["hang"]  # what belongs to another piece is not its own
    assert own.stage("cure") is own.stages[0]
    with refused("check the times"):
        Stage("warm", 5.0, 4.0)


@pytest.mark.parametrize("kind", AFTER_THE_HOOK)
def test_a_course_ends_with_its_last_piece(kind) -> None:
    down = Life((State("hanging", 0.0, 9 * DAY), State(kind, 9 * DAY, None)))
    assert course(Stage("hang", 0.0, 9 * DAY), life=down).ends_s(50 * DAY) == 9 * DAY
    assert course(Stage("hang", 0.0, None)).ends_s(50 * DAY) == 50 * DAY
    resting = course(Stage("hang", 0.0, 9 * DAY), Stage("rest", 9 * DAY, None), life=down)
    assert resting.ends_s(50 * DAY) == 50 * DAY  # a rest goes on, and its place is still looked at


@pytest.mark.parametrize(
    ("apart_g", "hours", "gross_g", "agrees"),
    [
        (2.0, 0, 100, True),
        (2.1, 0, 100, False),
        (5.0, 0, 1000, True),
        (5.1, 0, 1000, False),
        (0.0, 6, 1000, True),
        (0.0, 6.1, 1000, False),
    ],
)
def test_two_readings_agree_up_to_their_limits(apart_g, hours, gross_g, agrees) -> None:
    one, other = scale.Reading(0, gross_g, kept=True), scale.Reading(hours * HOUR, gross_g + apart_g)
    assert scale.agree(one, other) is scale.agree(other, one) is agrees
    assert scale.confirmed([one, other]) == (agrees, agrees)
    assert scale.confirmed([one]) == (False,)  # that it was kept when asked confirms nothing


@pytest.mark.parametrize(
    ("ahead_s", "counts_as", "asked"), [(1, 0, None), (300, 0, None), (301, 301, "ask.ahead"), (-60, -60, None)]
)
def test_a_tablets_clock_is_now_up_to_five_minutes_and_asked_beyond(ahead_s, counts_as, asked) -> None:
    now = 1e9
    at_s = order.moment_of(now + ahead_s, now)
    assert at_s == now + counts_as
    question = order.odd_moment(at_s, now)
    assert (question.code if question else None) == asked
    assert order.moment_of(None, now) == now
    off = order.clock_off_s(now + ahead_s, now)
    assert off == (ahead_s if asked else 0.0)
    assert order.clock_off_s(now - 301, now) == -301


def test_years_back_are_rather_a_slip_and_asked() -> None:
    now = 1e9
    back = 3 * 366 * DAY
    assert order.odd_moment(now - back, now) is None
    assert order.odd_moment(now - back - 1, now).code == "ask.long_ago"


@pytest.mark.parametrize(("at_s", "meant"), [(-1, False), (0, True), (7_258_118_399, True), (7_258_118_400, False)])
def test_a_year_that_cannot_be_meant_is_refused(at_s: float, meant: bool) -> None:
    assert datetime.fromtimestamp(order.LATEST_S, UTC).isoformat() == "2200-01-01T00:00:00+00:00"
    with nullcontext() if meant else refused("before 1970 or after 2199: check the year"):
        order.check_our_time(at_s)


def test_what_cannot_come_before_is_refused_and_what_is_odd_is_asked() -> None:
    with refused("still in salt"):
        order.check_hanging("N-1", 99.0, 100.0, None)
    with refused("not stuffed yet"):
        order.check_hanging("J-1", 99.0, None, 100.0)
    order.check_hanging("N-1", 100.0, 100.0, 100.0)
    assert order.odd_hanging("N-1", 99.0, 400.0, None).code == "ask.hung_before_made"
    assert order.odd_hanging("N-1", 100.0, 400.0, 400.0) is None  # within what a clock may be ahead
    assert order.odd_hanging("N-1", 99.0, None, 400.0).code == "ask.hung_in_the_warm"
    assert order.odd_taking_down("N-1", 99.0, 100.0).code == "ask.weighed_after_down"
    assert order.odd_taking_down("N-1", 100.0, 100.0) is None
    assert order.odd_taking_down("N-1", 100.0, None) is None


@given(st.floats(50, 20_000), st.floats(0, 40), st.floats(1, 79), st.floats(0, 60), st.floats(0.05, 0.95))
def test_a_slice_keeps_the_loss_and_the_target_true(start, tare, target, lost, rest) -> None:
    before_g = tare + (start - tare) * (1 - lost / 100)
    after_g = tare + (before_g - tare) * rest
    smaller = sliced(start, tare, before_g, after_g)
    assert loss_percent(smaller, tare, after_g) == pytest.approx(loss_percent(start, tare, before_g), abs=1e-6)
    whole = target_weight(start, tare, target).target_gross_g
    part = target_weight(smaller, tare, target).target_gross_g
    assert part - tare == pytest.approx((whole - tare) * rest)
    assert at_target(tag_grams(whole), whole)
    assert not at_target(tag_grams(whole) + 1, whole)


def test_what_cannot_be_a_slice_is_refused() -> None:
    for before, after in ((600, 600), (600, 700), (600, 10)):
        with pytest.raises(OutOfRangeError):
            sliced(800, 12, before, after)


def judged(piece, now_days: float = 41.5):
    return judge(piece, forecast(history(piece, now_days=now_days))[0], now_days * DAY)


READINGS = ((6, 771), (13, 711), (20, 665), (27, 629), (34, 601))


def test_ready_needs_the_scale_at_the_tags_gram() -> None:
    tag = tag_grams(target_weight(salame().start_weight_g, salame().tare_g, 33).target_gross_g)
    at = weighed(salame(target_loss_percent=33), *READINGS, (41, tag))
    assert judged(at).state == "ready"
    above = weighed(salame(target_loss_percent=33), *READINGS, (41, tag + 1))
    assert judged(above).state in ("soon", "likely")
    never = judged(salame(target_loss_percent=20), 200)
    assert never.state == "likely"
    assert "weigh" in never.wants
    assert never.days_left is None


def test_a_weight_kept_when_asked_meets_no_target_before_it_is_confirmed() -> None:
    tag = tag_grams(target_weight(salame().start_weight_g, salame().tare_g, 33).target_gross_g)
    piece = weighed(salame(target_loss_percent=33), *READINGS, (41, tag - 3))
    last = piece.weighings[-1]
    kept = replace(piece, weighings=(*piece.weighings[:-1], replace(last, kept=True)))
    assert judged(kept).state not in ("ready", "over")
    assert "doubtful" in judged(kept).wants
    sure = replace(piece, weighings=(*piece.weighings[:-1], replace(last, kept=True, confirmed=True)))
    assert judged(sure).state in ("ready", "over")
    assert "doubtful" not in judged(sure).wants


def test_a_confirmed_weight_counts_fully_however_far_it_is() -> None:
    piece = weighed(salame(), *READINGS)
    far = replace(piece.weighings[-1], at_s=41 * DAY, gross_g=480.0)
    doubted = forecast(history(replace(piece, weighings=(*piece.weighings, far)), now_days=41.5))[0]
    sure = replace(far, confirmed=True)
    believed = forecast(history(replace(piece, weighings=(*piece.weighings, sure)), now_days=41.5))[0]
    assert [d.gross_g for d in doubted.doubts] == [480.0]
    assert 480.0 not in [d.gross_g for d in believed.doubts]
    assert believed.loss_percent > doubted.loss_percent + 3


@pytest.mark.parametrize(("last", "weight_g", "over"), [((1.0, 0.6), 1600, True), ((1.0, 0.61), 1600, False)])
def test_pouring_off_ends_when_nothing_more_comes(last, weight_g, over) -> None:
    poured = [(0.0, 60.0), *((DAY * (i + 1), g) for i, g in enumerate(last))]
    assert runs_dry(poured, weight_g) == ({"drain"} if over else frozenset())
    assert runs_dry([(0.0, 0.0)], weight_g) == frozenset()  # once is not yet for good
    now = 3.5 * DAY
    asked = {care.kind for care in care_due("rub_and_drain", 0.0, [], now, runs_dry(poured, weight_g))}
    assert ("drain" in asked) is not over


def test_a_coat_is_not_moved_and_a_dehydrator_not_turned() -> None:
    assert wants_turning(False, 3, 13)
    assert not wants_turning(True, 3, 13)
    assert not wants_turning(False, 3, 60)


@pytest.mark.parametrize(
    ("kind", "name", "edge", "beyond"),
    [
        ("climate", "temperature_c", -40, -40.1),
        ("climate", "temperature_c", 60, 60.1),
        ("climate", "rh_percent", 0, -0.1),
        ("climate", "rh_percent", 100, 100.1),
        ("ph", "ph", 14, 14.1),
        ("ph", "ph", 0.1, 0),
        ("scale", "gross_g", 1e6, 1.1e6),
        ("scale", "gross_g", 0.1, 0),
    ],
)
def test_what_a_device_cannot_have_measured(kind, name, edge, beyond) -> None:
    usual = {"temperature_c": 13.0, "rh_percent": 78.0, "gross_g": 500.0, "ph": 5.3}
    own = {q.name: usual[q.name] for q in REGISTRY[kind].quantities}
    assert impossible(kind, {**own, name: edge}) is None
    for sent, words in (({**own, name: beyond}, "cannot be"), ({}, "sends")):
        fault = impossible(kind, sent)
        assert fault is not None
        assert words in sentence(fault)


def last_weight(loss_percent_now: float, target: float, at_days: float = 41.0):
    """A piece whose last weight, confirmed, shows a loss, and its forecast as of that moment."""
    piece = weighed(salame(target_loss_percent=target), *READINGS)
    sure = replace(
        piece.weighings[-1], at_s=at_days * DAY, gross_g=piece.gross_at(loss_percent_now / 100), confirmed=True
    )
    piece = replace(piece, weighings=(*piece.weighings, sure))
    return piece, forecast(history(piece, now_days=at_days))[0]


@pytest.mark.parametrize(("points", "state"), [(2.9, "ready"), (3.1, "over")])
def test_three_points_past_the_target_are_over(points: float, state: str) -> None:
    piece, made = last_weight(30 + points, 30)
    assert judge(piece, made, 41 * DAY).state == state


@pytest.mark.parametrize(("hours", "state"), [(11.9, "soon"), (12.1, "likely")])
def test_a_reading_above_the_target_counts_before_the_forecast_for_half_a_day(hours: float, state: str) -> None:
    piece, made = last_weight(32.5, 33)
    there = replace(made, status="ready")  # the forecast says that it is there, the scale said that it was not
    judged = judge(piece, there, 41 * DAY + hours * HOUR)
    assert (judged.state, "weigh" in judged.wants) == (state, state == "likely")


@pytest.mark.parametrize(
    ("coated", "days", "set_c", "turned"),
    [
        (False, 6.9, 13, True), (False, 7.0, 13, False), (False, 1, 27.9, True), (False, 1, 28.0, False),
        (False, 1, None, True),
    ],
)  # fmt: skip
def test_a_piece_is_turned_for_a_week_and_not_in_the_warm(coated, days, set_c, turned) -> None:
    assert wants_turning(coated, days, set_c) is turned


@pytest.mark.parametrize(
    ("way", "free", "share", "early"),
    [
        ("measured", False, 0.49, True),
        ("measured", False, 0.5, False),
        ("pressed", False, 0.4, True),
        ("pressed", True, 0.4, False),
        ("buried", False, 0.1, False),
    ],
)
def test_out_of_a_measured_dose_is_early_below_half_of_its_core(way, free, share, early) -> None:
    assert out_is_early(way, free, share) is early


@given(st.floats(4.6, 5.6), st.floats(0.0, 0.4))
def test_a_ph_is_asked_about_a_quarter_beyond_what_is_expected(mid: float, half: float) -> None:
    low, high = mid - half, mid + half
    for ph, code in ((high + 0.26, "ask.ph_high"), (low - 0.26, "ask.ph_low")):
        asked = ask_about_ph(ph, low, high)
        assert asked is not None
        assert asked.code == code
    for ph in (high + 0.24, low - 0.24):
        assert ask_about_ph(ph, low, high) is None
