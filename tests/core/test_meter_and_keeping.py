"""The pH meter, what repeats say, what cannot be; water activity along the drying and what a laboratory makes of it."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from support import refused
from zymon.core.fermentation.meter import (
    Calibration,
    Measured,
    ask_about_ph,
    medians,
    meter_warnings,
    meters_disagree,
)
from zymon.core.keeping import LabActivity, keeping_at, losses_to
from zymon.core.water import (
    DRY_IN_LEAN,
    WATER_IN_LEAN,
    brine_in_meat,
    isotherm,
    keep_class,
    sorption_x,
)
from zymon.words import sentence


def test_a_meter_out_of_slope_or_date_is_said() -> None:
    def told_of(calibrated: Calibration, hour: float) -> list[str]:
        return [sentence(warning) for warning in meter_warnings([calibrated], hour)]

    good = Calibration(0.0, 98.0)
    assert told_of(good, 6.0) == told_of(good, 24.0) == []
    assert told_of(good, 24.1) == told_of(good, 24 * 30.0) == ["not calibrated on the day"]
    assert told_of(good, 24 * 30.5 + 1) == ["calibrated 31 days ago"]
    for slope, out in ((91.9, True), (92.0, False), (102.0, False), (102.1, True)):
        assert any("% is good" in text for text in told_of(Calibration(0.0, slope), 1.0)) == out
    assert told_of(Calibration(5.0, 98.0), 1.0) == ["never calibrated: with two buffers first"]


def test_repeats_count_as_their_median_and_meters_may_disagree() -> None:
    found = medians([Measured(9.0, 5.2), Measured(5.0, 5.41, 1), Measured(5.1, 5.9, 1), Measured(5.2, 5.43, 1)])
    assert [m.ph for m in found] == [5.43, 5.2]
    assert meters_disagree([Measured(5.0, 5.41, 1), Measured(5.2, 5.57, 2)]) == pytest.approx(0.16)
    assert meters_disagree([Measured(5.0, 5.41, 1), Measured(5.2, 5.47, 2), Measured(9.0, 5.0, 2)]) is None


@pytest.mark.parametrize(
    ("ph", "says"),
    [(53.0, "5.3?"), (0.5, "5?"), (540.0, "5.4?"), (2.0, "look at the meter"), (6.4, "far above"), (4.3, "far below")],
)
def test_what_cannot_be_is_asked_about(ph: float, says: str) -> None:
    question = ask_about_ph(ph, 5.2, 5.6)
    assert question is not None
    assert says in sentence(question)


def test_what_can_be_is_not_asked_about() -> None:
    assert ask_about_ph(5.35, 5.2, 5.6) is None
    with refused("pH must be between 0 and 1000, got -1"):
        ask_about_ph(-1.0, 5.2, 5.6)


@given(st.floats(5, 40), st.floats(2.2, 4), st.floats(0, 35), st.floats(0.5, 6))
def test_drier_and_saltier_is_never_wetter(fat: float, salt: float, loss: float, more: float) -> None:
    assume(
        0.745 * (100 - fat) - loss - more > 3 * (salt + 0.3)
    )  # further its salt would not dissolve, which is refused
    here, drier = keeping_at(fat, salt, loss, None), keeping_at(fat, salt, loss + more, None)
    assert 0.5 <= drier.water_activity <= here.water_activity <= 1
    assert keeping_at(fat, salt + 0.3, loss, None).water_activity <= here.water_activity
    assert drier.water_phase_salt_percent > here.water_phase_salt_percent


def test_a_laboratory_value_overrides_where_it_was_taken_and_shifts_the_rest() -> None:
    lab = LabActivity(30.0, 0.93)
    plain = keeping_at(25, 2.7, 30, None)
    assert keeping_at(25, 2.7, 30, None, lab).water_activity == pytest.approx(0.93)
    assert keeping_at(25, 2.7, 30, None, lab).water_activity_sd < plain.water_activity_sd / 3
    far = keeping_at(25, 2.7, 5, None, lab)
    shift, there = far.water_activity - keeping_at(25, 2.7, 5, None).water_activity, 0.93 - plain.water_activity
    assert 0 < shift / there < 1
    assert losses_to(27.0) == (0.0, 10.0, 20.0, 27.0, 32.0)
    with refused("of water there is"):
        keeping_at(45, 2.7, 45, None)


@pytest.mark.parametrize(("apart", "share"), [(0.0, 1.0), (7.5, 0.8), (15.0, 0.6), (25.0, 0.6)])
def test_what_a_laboratory_found_is_taken_for_less_the_further_off_it_was(apart: float, share: float) -> None:
    """At its own loss wholly, from fifteen points on for six tenths; and how sure it is follows."""
    lab = LabActivity(30.0, keeping_at(25, 2.7, 30, None).water_activity - 0.02)
    there, plain = keeping_at(25, 2.7, 30 - apart, None, lab), keeping_at(25, 2.7, 30 - apart, None)
    assert plain.water_activity - there.water_activity == pytest.approx(0.02 * share)
    far = min(apart / 15.0, 1.0)
    assert there.water_activity_sd == pytest.approx(0.004 + (plain.water_activity_sd - 0.004) * 0.7 * far)


@pytest.mark.parametrize(
    ("fat", "salt", "loss"), [(8, 2.7, 0), (8, 2.7, 35), (27, 2.7, 30), (27, 3.2, 38), (40, 2.5, 20)]
)
def test_what_keeps_is_what_dries_one_isotherm_for_both(fat: float, salt: float, loss: float) -> None:
    lean = 100 - fat
    water, dry = WATER_IN_LEAN * lean - loss, DRY_IN_LEAN * lean
    dries = float(isotherm(np.array(water / (dry + salt)), sorption_x(np.array(salt))))
    keeps = keeping_at(fat, salt, loss, None)
    brine = brine_in_meat(salt, water).water_activity_of_brine
    assert keeps.water_activity == pytest.approx(min(dries, brine))
    assert keeps.water_activity <= brine
    assert keeps.keeps == keep_class(min(keeps.water_activity + 2 * keeps.water_activity_sd, 1.0), None)
