"""Places as people have them: nothing is taken as usual in silence, and no step lies anywhere on the way."""

from dataclasses import replace

import numpy as np
import pytest
from benchmarks.courses import COURSES
from benchmarks.courses import days as days_of
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, history, salame, steady_log
from zymon.core.drying.climate import Log, expected_air
from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import History, Piece
from zymon.core.drying.surroundings import SORTS, STILL, STIRRED, STIRRINGS, USUAL, Surroundings
from zymon.words import sentence

ANYWHERE = Surroundings()
NOTHING = Log(np.zeros(0), np.zeros(0), np.zeros(0))


def days(*pieces: Piece, c: float | None = None, rh: float | None = None, said: Surroundings = ANYWHERE) -> float:
    """The median of the days from hanging to the target of the first, nothing weighed or logged; inf where none."""
    made = forecast(History(pieces, NOTHING, c, rh, 0.0, surroundings=said))[0]
    return float("inf") if made.ready_p50_s is None else made.ready_p50_s / DAY


def muscle(**changes: object) -> Piece:
    values = {"kind": "whole_muscle", "shape": "irregular", "start_weight_g": 1760.0, "diameter_mm": 90.0,
              "fat_percent": 8.0, "salt_percent": 3.0, "length_mm": None, "casing": "membrane"}  # fmt: skip
    return salame(**{**values, **changes})


@pytest.mark.parametrize("sort", SORTS)
def test_what_nobody_set_is_what_is_usual_there_and_is_said(sort) -> None:
    usual = USUAL[sort]
    air = expected_air(NOTHING, None, None, 0.0, usual)
    assert (air.ahead_temperature_c, air.ahead_rh_percent) == (usual.temperature_c, usual.rh_percent)
    assert (air.sd_c, air.sd_rh_percent) == (usual.sd_c, usual.sd_rh)
    assumed = Surroundings(sort).assumed(False, None, None)
    told = [sentence(one) for one in assumed]
    before = Surroundings(sort).usual_said.values
    assert {**before, "sort": sort} == {**assumed[0].values, **assumed[1].values}
    assert [text.split(" ")[0] for text in told] == ["temperature", "humidity"]
    assert f"humidity {usual.rh_percent:g} % ± {usual.sd_rh:g}: usual in a" in told[1]


def test_a_household_fridge_is_dry_and_still_as_told_and_never_seventy_eight_percent() -> None:
    fridge = USUAL["household_fridge"]
    assert 1 <= fridge.temperature_c - fridge.sd_c <= fridge.temperature_c + fridge.sd_c <= 4.5
    assert 35 <= fridge.rh_percent - fridge.sd_rh <= fridge.rh_percent + fridge.sd_rh <= 60
    assert fridge.air == STILL
    assert 49 <= days(muscle(), said=Surroundings("household_fridge")) <= 70  # told: seven to nine weeks


def test_what_is_set_or_logged_is_not_taken_as_usual() -> None:
    kind = Surroundings("cellar")
    assert [one.code for one in kind.assumed(False, 12.0, None)] == ["assumed.humidity", "assumed.as_set"]
    assert [one.code for one in kind.assumed(False, 12.0, 75.0)] == ["assumed.as_set"]
    assert kind.assumed(True, None, None) == ()
    assert history(salame(), now_days=3).assumed == ()


def test_the_first_readings_mend_the_assumption_and_a_log_settles_it() -> None:
    usual = USUAL["household_fridge"]

    def ahead(log: Log) -> float:
        return expected_air(log, None, None, 5 * DAY, usual).ahead_rh_percent

    one = Log(np.array([4.5 * DAY]), np.array([4.0]), np.array([66.0]))
    few = Log(np.arange(1, 5) * DAY, np.full(4, 4.0), np.full(4, 66.0))
    assert usual.rh_percent < ahead(one) < ahead(few) < 66
    assert ahead(few) == pytest.approx(48 + 18 * 9**2 / (9**2 + 7**2 / 4))  # as far as four spot readings tell
    assert ahead(steady_log(5, 4.0, 66.0)) == pytest.approx(66, abs=0.2)
    spreads = [expected_air(log, None, None, 5 * DAY, usual).sd_rh_percent for log in (NOTHING, one, few)]
    assert spreads[0] > spreads[1] > spreads[2]


@given(st.floats(0, 34), st.sampled_from([None, *SORTS]), st.sampled_from([None, *STIRRINGS]))
def test_air_is_a_property_of_the_place_without_a_step_at_any_temperature(c, sort, stirring) -> None:
    said = Surroundings(sort, stirring)
    assert said.ln_air(c) <= said.ln_air(c + 0.1) <= said.ln_air(c) + 0.08
    if stirring is not None:
        assert said.ln_air(c) == pytest.approx(np.log(STIRRED[stirring]))


def test_still_gentle_and_strong_air_dry_in_that_order() -> None:
    still, gentle, strong = (days(salame(), c=13, rh=78, said=Surroundings("cellar", s)) for s in STIRRINGS)
    assert strong < gentle < still


WALKED = {
    "c": (np.linspace(1, 24, 24), -1),
    "rh": (np.linspace(45, 84, 27), 1),
    "diameter_mm": (np.linspace(30, 110, 21), 1),
    "fat_percent": (np.linspace(5, 45, 21), None),
    "target_loss_percent": (np.linspace(15, 40, 26), 1),
}


@pytest.mark.parametrize("what", WALKED)
def test_dates_move_smoothly_along_every_range(what: str) -> None:
    """No cliff: neighbours lie within a fifth of each other, and on the way that is expected where there is one."""
    values, way = WALKED[what]
    said = Surroundings("cellar")

    def at(value: float) -> float:
        piece = salame(start_weight_g=1000.0, length_mm=None, **({what: value} if what not in ("c", "rh") else {}))
        return days(piece, c=value if what == "c" else 13.0, rh=value if what == "rh" else 76.0, said=said)

    found = np.array([at(float(v)) for v in values])
    found = found[np.isfinite(found)]
    assert len(found) > 0.8 * len(values)
    steps = np.diff(np.log(found))
    assert np.abs(steps).max() < 0.25
    if way is not None:
        assert (way * steps > -0.01).all()


def test_the_window_is_of_the_futures_that_get_there_and_the_chance_stands_beside_it() -> None:
    near = salame(
        kind="thin_sausage", fat_percent=33.0, target_loss_percent=43.0, diameter_mm=24.0, start_weight_g=150.0
    )
    made = forecast(History((near,), NOTHING, 14.0, 72.0, 0.0, surroundings=Surroundings("cellar")))[0]
    assert 0.5 <= made.reaches < 1
    assert made.ready_p90_s is not None
    assert made.ready_p90_s < 700 * DAY  # no date is the end of what was reckoned
    far = replace(near, target_loss_percent=52.0)
    stalled = forecast(History((far,), NOTHING, 14.0, 72.0, 0.0, surroundings=Surroundings("cellar")))[0]
    assert (stalled.status, stalled.ready_p90_s, stalled.reaches < 0.5) == ("stalled", None, True)
    easy = forecast(history(salame(), now_days=1))[0]
    assert easy.reaches == pytest.approx(1.0)


@settings(max_examples=25, deadline=None)
@given(st.floats(2, 18), st.floats(50, 88), st.floats(20, 55))
def test_a_date_is_told_where_half_of_the_futures_get_there_and_nowhere_else(c, rh, target) -> None:
    made = forecast(
        History((salame(target_loss_percent=target),), NOTHING, c, rh, 0.0, surroundings=Surroundings("cellar"))
    )[0]
    assert 0 <= made.reaches <= 1
    assert (made.ready_p50_s is None) == (made.status == "stalled") == (made.reaches < 0.5)
    if made.ready_p50_s is not None:
        assert made.ready_p10_s <= made.ready_p50_s <= made.ready_p90_s < 730 * DAY


def test_what_lies_outside_is_marked() -> None:
    leg = salame(kind="ham", shape="irregular", start_weight_g=9500.0, diameter_mm=160.0, length_mm=None)
    place = history(leg)
    assert place.outside(leg)
    assert not place.outside(replace(leg, bone=False))
    assert not place.outside(replace(leg, start_weight_g=6000.0 + leg.tare_g))
    assert place.outside(replace(leg, start_weight_g=6001.0 + leg.tare_g))
    for c, out in ((-0.1, True), (0.0, False), (30.0, False), (30.1, True)):
        assert history(salame(), temperature_c=c).outside(salame()) == out


def test_what_is_assumed_of_a_piece_is_said() -> None:
    bare = salame(fat_percent=None, salt_percent=None, diameter_mm=None)
    assert [sentence(one) for one in bare.assumed] == [
        "fat 25 %: usual in salame", "salt 2.8 %: usual", "its measures: from weight and shape",
    ]  # fmt: skip
    assert salame().assumed == ()
    slab = salame(shape="slab", kind="belly", diameter_mm=None, thickness_mm=40.0)
    assert slab.assumed == ()


# a flat belly is told by days and feel; how it stands with it is told below and beside the table
BY_FEEL = "flat belly of 4 cm, to 15 %"


@pytest.mark.parametrize("course", [c for c in COURSES if c.name != BY_FEEL], ids=lambda c: c.name)
def test_usual_courses_end_when_makers_report_it(course) -> None:
    first, last = course.told_days
    assert first <= days_of(course.forecast().ready_p50_s) <= last


def test_a_flat_belly_has_lost_about_what_makers_feel_after_three_to_four_weeks() -> None:
    belly = next(c for c in COURSES if c.name == BY_FEEL).forecast()
    assert belly.loss_at(21 * DAY)[2] > 0.12
    assert 0.12 < belly.loss_at(24.5 * DAY)[1] < belly.loss_at(28 * DAY)[1] < 0.18


@pytest.mark.parametrize("course", COURSES, ids=lambda c: c.name)
def test_a_window_at_hanging_is_of_use(course) -> None:
    made = course.forecast()
    assert days_of(made.ready_p90_s) / days_of(made.ready_p10_s) < 3
    assert made.reaches > 0.9
