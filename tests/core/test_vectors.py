"""The core against reference numbers, worked by others."""

import json
from itertools import pairwise

import numpy as np
import psychrolib
import pytest
from hypothesis import given
from hypothesis import strategies as st

from support import DATA
from zymon.core.air import air_state, saturation_pressure
from zymon.core.drying.transport import Bodies, Drivers, dry
from zymon.core.errors import OutOfRangeError
from zymon.core.pieces import composition, loss_percent, net_weight, target_weight
from zymon.formats.calc import calculate
from zymon.words import told

KINDS = ("pieces", "air", "formulation", "acid", "cure-time-rules", "diffusion", "degree-hours", "water-activity")
NOT_GIVEN_BACK = "osmotic_coefficient_robinson_stokes"


def same(got: object, want: object) -> bool:
    if isinstance(want, dict):
        return isinstance(got, dict) and all(same(got.get(k), v) for k, v in want.items() if k != NOT_GIVEN_BACK)
    exact = isinstance(want, bool | str | list)
    return got == want if exact else got == pytest.approx(want, rel=2e-3, abs=0.006)


@pytest.mark.parametrize("kind", KINDS)
def test_every_case_of_the_vectors(kind: str) -> None:
    document = json.loads((DATA / "vectors" / f"{kind.replace('-', '_')}.json").read_text())
    sections = {k: s for k, s in document.items() if k != "about"}
    asked = {k: [{i: v for i, v in c.items() if not i.startswith("expect")} for c in s] for k, s in sections.items()}
    worked, good = calculate(kind, asked)
    assert good
    for section, cases in sections.items():
        for got, want in zip(worked[section], cases, strict=True):
            assert same(got, want), (got, want)


@given(st.floats(0.5, 59), st.floats(1, 100))
def test_air_agrees_with_a_psychrometrics_package_over_water(temperature_c: float, rh_percent: float) -> None:
    psychrolib.SetUnitSystem(psychrolib.SI)
    mine = air_state(temperature_c, rh_percent)
    assert mine.saturation_pressure_pa == pytest.approx(psychrolib.GetSatVapPres(temperature_c), rel=2e-4)
    assert mine.dew_point_c <= temperature_c + 1e-6
    at_dew = float(saturation_pressure(np.array(mine.dew_point_c)))
    assert at_dew == pytest.approx(mine.saturation_pressure_pa * rh_percent / 100, rel=1e-4)


@given(st.floats(50, 9000), st.floats(0, 0.3), st.floats(1, 79))
def test_target_and_loss_are_each_others_inverse(start_g: float, tare_share: float, loss: float) -> None:
    tare_g = start_g * tare_share
    target = target_weight(start_g, tare_g, loss)
    assert loss_percent(start_g, tare_g, target.target_gross_g) == pytest.approx(loss, abs=1e-6)


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (lambda: net_weight(0, 0), "weight must be above 0 g, got 0"),
        (lambda: net_weight(100, 120), "tare must be below the weight of 100 g, got 120 g"),
        (lambda: net_weight(float("nan"), 0), "weight must be above 0 g, got nan"),
        (lambda: target_weight(900, 10, 0), "target loss must be above 0 %, got 0"),
        (lambda: target_weight(900, 10, 81), "target loss must be between 0 and 80 %, got 81"),
        (lambda: composition(40, 60), "loss must be below the 45 % of water that the piece holds, got 60"),
        (lambda: air_state(13, 0), "humidity must be above 0 %, got 0"),
    ],
)
def test_refusals_say_what_is_wrong(call, words: str) -> None:
    with pytest.raises(OutOfRangeError) as error:
        call()
    assert told(error.value) == words


def _bodies(curvature: float, n: int = 1) -> Bodies:
    one = np.ones(n)
    # a flat isotherm far from dry, an open rim and a diffusivity that never falls: constant coefficients
    return Bodies(
        0.02 * one, curvature * one, 0.5 * one, 0.2 * one, 1050.0 * one, 1e-10 * one, 1e-3 * one, 0.3 * one, 1e-6 * one
    )


@pytest.mark.parametrize(("shape", "curvature"), [("slab", 0.0), ("cylinder", 1.0), ("sphere", 2.0)])
def test_transport_follows_the_analytic_series(shape: str, curvature: float) -> None:
    """Nine shells agree with Crank's series to two hundredths of the final loss, from a Fourier number of 0.1 on."""
    body = _bodies(curvature)
    end = 1.0 * 0.02**2 / 1e-10
    time_s = (np.linspace(0, 1, 801) ** 1.5 * end)[:, None]
    still = np.ones((800, 1))
    air = Drivers(time_s, 1500 * still, 900 * still, still, still)
    run = dry(body, air)
    fresh = float(body.fresh_x[0])
    rim = 0.3 * (0.6 / 0.4) ** (1 / 1.34)  # Oswin, at the air's 60 %
    final = (fresh - rim) * 0.2
    for case in json.loads((DATA / "vectors" / "diffusion.json").read_text())["cases"]:
        if case["fourier_number"] >= 0.1:
            got = np.interp(case["fourier_number"] * 0.02**2 / 1e-10, time_s[:, 0], run.loss[:, 0]) / final
            assert got == pytest.approx(case["expect"][shape]["mean"], abs=0.02)


@given(st.floats(0, 2), st.floats(60, 95), st.floats(0.005, 0.06))
def test_water_is_neither_made_nor_lost_inside(curvature: float, rh_percent: float, half_m: float) -> None:
    body = _bodies(curvature)
    body = Bodies(**{**vars(body), "half_thickness_m": np.array([half_m]), "permeance_kg_m2_s_pa": np.zeros(1)})
    from zymon.core.drying.transport import SHELLS, shell_fractions

    start = np.linspace(2.4, 1.2, SHELLS)[:, None]
    still = np.ones((40, 1))
    air = Drivers(np.linspace(0, 60 * 86_400, 41)[:, None], 1500 * still, 15 * rh_percent * still, still, still)
    run = dry(body, air, x_start=start)
    assert shell_fractions() @ run.x == pytest.approx(shell_fractions() @ start, rel=1e-9)
    spread = run.x.max() - run.x.min()
    assert spread <= start.max() - start.min()
    assert all(a >= b - 1e-12 for a, b in pairwise(run.x[:, 0]))
