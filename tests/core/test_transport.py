"""What water in a body must obey, whatever the numbers are."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY
from zymon.core.air import saturation_pressure
from zymon.core.drying.transport import FEW, WORTH_TWO_CORES, Bodies, Drivers, dry, shell_fractions
from zymon.core.water import isotherm

HALVES = st.floats(0.008, 0.08)
CURVATURES = st.floats(0, 2)
HUMIDITIES = st.floats(45, 92)


def bodies(n: int = 1, **changes: float) -> Bodies:
    values = {
        "half_thickness_m": 0.03, "curvature": 1.0, "water_fraction": 0.57, "dry_matter_fraction": 0.22,
        "density_kg_m3": 1050.0, "diffusivity_m2_s": 1.3e-10, "permeance_kg_m2_s_pa": 7e-9, "sorption_x": 0.18,
        "half_diffusion_x": 0.45, **changes,
    }  # fmt: skip
    return Bodies(**{name: np.full(n, value) for name, value in values.items()})


def steady(days: float, rh_percent: float, n: int = 1, steps: int = 80, temperature_c: float = 13.0) -> Drivers:
    time_s = np.repeat((np.linspace(0, 1, steps + 1) ** 1.4 * days * DAY)[:, None], n, axis=1)
    one = np.ones((steps, n))
    p_sat = float(saturation_pressure(np.array(temperature_c))) * one
    return Drivers(time_s, p_sat, p_sat * rh_percent / 100, one, one, one)


@given(HALVES, CURVATURES, HUMIDITIES)
def test_it_only_ever_loses_water_and_never_more_than_the_air_can_take(half: float, curve: float, rh: float) -> None:
    body = bodies(half_thickness_m=half, curvature=curve)
    run = dry(body, steady(300, rh), keep=True)
    assert np.all(np.diff(run.loss[:, 0]) >= -1e-12)
    assert run.profiles is not None
    assert np.all(np.diff(run.profiles[1:, :, 0], axis=1) <= 1e-9)  # drier towards the rim
    # the rim cannot get drier than the air: its water activity stays at or over the humidity
    assert isotherm(run.x[-1], body.sorption_x)[0] >= rh / 100 - 1e-3


@settings(max_examples=25)  # each is years of drying
@given(CURVATURES, HUMIDITIES)
def test_after_years_it_lies_in_balance_with_the_air(curve: float, rh: float) -> None:
    thin = bodies(half_thickness_m=0.008, curvature=curve, diffusivity_m2_s=3e-10)
    run = dry(thin, steady(3000, rh, steps=300))
    assert isotherm(run.x[:, 0], thin.sorption_x) == pytest.approx(rh / 100, abs=0.01)


@given(HALVES, CURVATURES, HUMIDITIES)
def test_what_left_the_shells_is_what_was_lost(half: float, curve: float, rh: float) -> None:
    body = bodies(half_thickness_m=half, curvature=curve)
    run = dry(body, steady(60, rh), keep=True)
    assert run.profiles is not None
    held = np.einsum("k,mkn->mn", shell_fractions(), run.profiles) * body.dry_matter_fraction
    assert run.loss == pytest.approx(body.water_fraction - held, abs=1e-12)


@settings(max_examples=30)
@given(HALVES, HUMIDITIES, st.floats(1.05, 4))
def test_more_air_at_it_is_never_slower_and_a_leakier_casing_is_the_same_as_more_air(
    half: float, rh: float, more: float
) -> None:
    body, air = bodies(half_thickness_m=half), steady(40, rh)
    usual = dry(body, air).loss
    assert air.draught is not None
    windy = dry(body, replace(air, draught=air.draught * more)).loss
    leaky = dry(replace(body, permeance_kg_m2_s_pa=body.permeance_kg_m2_s_pa * more), air).loss
    assert np.all(windy >= usual - 1e-12)
    assert leaky == pytest.approx(windy, abs=1e-9)


@settings(max_examples=20)
@given(HALVES, CURVATURES, HUMIDITIES)
def test_finer_steps_tell_the_same_story(half: float, curve: float, rh: float) -> None:
    body = bodies(half_thickness_m=half, curvature=curve)
    coarse, fine = dry(body, steady(50, rh)).loss[-1, 0], dry(body, steady(50, rh, steps=640)).loss[-1, 0]
    assert coarse == pytest.approx(fine, abs=0.006)


def test_two_cores_tell_the_same_as_one() -> None:
    n = WORTH_TWO_CORES
    body = replace(bodies(n), half_thickness_m=np.linspace(0.01, 0.06, n))
    air = steady(30, 76, n, steps=20)
    one, two = dry(body, air), dry(body, air, cores=2)
    assert np.array_equal(one.loss, two.loss)
    assert np.array_equal(one.x, two.x)


def test_few_bodies_dry_as_they_do_among_many() -> None:
    """Few are solved as one system, many side by side: what a body does does not hang on its company."""
    few, many = FEW, FEW + 1
    halves = np.linspace(0.01, 0.06, many)
    crowd = dry(replace(bodies(many), half_thickness_m=halves), steady(60, 75, many), keep=True)
    some = dry(replace(bodies(few), half_thickness_m=halves[:few]), steady(60, 75, few), keep=True)
    assert crowd.profiles is not None
    assert some.profiles is not None
    np.testing.assert_allclose(some.loss, crowd.loss[:, :few], rtol=1e-9, atol=1e-12)
    np.testing.assert_allclose(some.profiles, crowd.profiles[:, :, :few], rtol=1e-9)
    alone = dry(replace(bodies(1), half_thickness_m=halves[5:6]), steady(60, 75, 1))
    np.testing.assert_allclose(alone.loss[:, 0], crowd.loss[:, 5], rtol=1e-9, atol=1e-12)
