"""Air and brine against tables that others measured, and the edges of what the equations were made for."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from support import refused
from zymon.core.air import air_state, saturation_pressure
from zymon.core.water import (
    SATURATED_MOLALITY,
    WATER_KG_MOL,
    WaterActivity,
    brine_in_meat,
    brine_water_activity,
    sorption_x,
)


@pytest.mark.parametrize(
    ("molality", "osmotic"),
    [(0.1, 0.9324), (0.5, 0.9209), (1.0, 0.9355), (2.0, 0.9833), (3.0, 1.0453), (4.0, 1.1158), (6.0, 1.2706)],
)
def test_brine_is_as_robinson_and_stokes_measured_it(molality: float, osmotic: float) -> None:
    """Osmotic coefficients of sodium chloride at 25 °C, Robinson and Stokes (1959)."""
    found = -math.log(brine_water_activity(molality)) / (2 * molality * WATER_KG_MOL)
    assert found == pytest.approx(osmotic, rel=0.003)


def test_the_air_over_saturated_brine_is_that_of_a_jar_of_wet_salt() -> None:
    """75.3 % at 25 °C (Greenspan 1977), by which sensors are tested."""
    assert 100 * brine_water_activity(SATURATED_MOLALITY) == pytest.approx(75.3, abs=0.3)


def test_what_does_not_dissolve_is_no_brine() -> None:
    assert brine_in_meat(35.9, 100.0).molality < SATURATED_MOLALITY
    with refused("do not dissolve in"):
        brine_in_meat(36.0, 100.0)
    with refused("molality must be between 0 and 6.15"):
        brine_water_activity(6.16)
    with refused("water must be above 0 g"):
        brine_in_meat(2.0, 0.0)


@given(salt_g=st.floats(0, 20), more=st.floats(0.01, 5), water_g=st.floats(80, 200))
def test_more_salt_or_less_water_is_never_wetter(salt_g: float, more: float, water_g: float) -> None:
    brine = brine_in_meat(salt_g, water_g)
    saltier, drier = brine_in_meat(salt_g + more, water_g), brine_in_meat(salt_g, water_g * 0.98)
    assert saltier.water_activity_of_brine < brine.water_activity_of_brine
    assert drier.water_activity_of_brine <= brine.water_activity_of_brine
    assert brine.water_phase_salt_percent == pytest.approx(100 * salt_g / (salt_g + water_g))


def test_an_estimate_is_held_to_be_two_deviations_wetter_and_never_wetter_than_water() -> None:
    assert WaterActivity(0.90, 0.015).upper == pytest.approx(0.93)
    assert WaterActivity(0.99, 0.015).upper == 1.0


@pytest.mark.parametrize(
    ("salt_percent", "x"),
    [(0.0, 0.18 * math.sqrt(0.5 / 2.8)), (0.5, 0.18 * math.sqrt(0.5 / 2.8)), (2.8, 0.18), (5.6, 0.18 * math.sqrt(2))],
)
def test_salt_holds_water_from_half_a_percent_on(salt_percent: float, x: float) -> None:
    assert float(sorption_x(np.array(salt_percent))) == pytest.approx(x)


@pytest.mark.parametrize(
    ("temperature_c", "pascal"),
    [(0.0, 611.2), (5.0, 872.5), (13.0, 1497.8), (20.0, 2338.8), (25.0, 3169.0), (40.0, 7383.0), (60.0, 19_944.0)],
)
def test_saturated_air_holds_what_the_steam_tables_say(temperature_c: float, pascal: float) -> None:
    assert float(saturation_pressure(np.array(temperature_c))) == pytest.approx(pascal, rel=0.0005)


def test_air_is_told_of_from_forty_below_to_sixty_above() -> None:
    for within in (-40.0, 60.0):
        assert air_state(within, 50.0).dew_point_c < within
    for beyond in (-40.1, 60.1):
        with refused("temperature must be between -40 and 60 °C"):
            air_state(beyond, 50.0)
    assert air_state(13.0, 100.0).dew_point_c == pytest.approx(13.0, abs=1e-4)
    with refused("humidity must be above 0 %"):
        air_state(13.0, 0.0)
    with refused("humidity must be"):
        air_state(13.0, 100.1)


@given(temperature_c=st.floats(-30, 55), rh_percent=st.floats(2, 99))
def test_the_dew_point_is_where_this_air_is_saturated(temperature_c: float, rh_percent: float) -> None:
    air = air_state(temperature_c, rh_percent)
    held = air.saturation_pressure_pa - air.vapour_pressure_deficit_pa
    assert held == pytest.approx(air.saturation_pressure_pa * rh_percent / 100)
    assert float(saturation_pressure(np.array(air.dew_point_c))) == pytest.approx(held, rel=1e-4)
