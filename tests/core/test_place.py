"""What a log says of its place, and what would suit what hangs there."""

import numpy as np
import pytest

from zymon.core.drying.climate import Log
from zymon.core.place import Wish, extremes, place_facts, setpoint_advice, wished_humidity
from zymon.standins.live import STEP_S, LiveChamber

HOUR = 3600.0


def log(days: float = 20, step_s: float = 300) -> Log:
    at = np.arange(0, days * 86_400, step_s)
    return Log(at, 13 + 0.5 * np.sin(at / 86_400 * 2 * np.pi), np.full_like(at, 78.0))


def test_a_place_that_keeps_is_said_to_keep() -> None:
    found = place_facts(log(), 13.0, 78.0)
    assert found.in_band == pytest.approx(1.0)
    assert (found.outages, found.gaps, found.doors_a_day) == ((), (), 0.0)
    assert found.swing_c == pytest.approx(1.0, abs=0.01)
    assert place_facts(log(), None, None).in_band is None
    assert place_facts(Log(np.zeros(0), np.zeros(0), np.zeros(0)), 13.0, 78.0).hours == 0


def test_outages_gaps_and_doors_are_found() -> None:
    usual = log()
    c, rh = usual.temperature_c.copy(), usual.rh_percent.copy()
    c[1000:1108] += 5.0  # nine hours too warm
    rh[2000:2012] += 20  # one hour: no outage yet
    for k in (3000, 3500, 4000):
        c[k : k + 2] += 1.5
        rh[k : k + 2] -= 8
    keep = np.ones(len(c), bool)
    keep[4500:4600] = False  # eight hours of silence
    found = place_facts(Log(usual.time_s[keep], c[keep], rh[keep]), 13.0, 78.0)
    assert [(s.what, round((s.to_s - s.from_s) / HOUR)) for s in found.outages] == [("warm", 9)]
    assert [round(s.worst) for s in found.gaps] == [8]
    assert found.doors_a_day == pytest.approx(3 / 19.7, rel=0.1)


def test_one_humidity_for_all_says_whom_it_hurts() -> None:
    assert wished_humidity(0.95) == 84  # the gentlest there is
    advice = setpoint_advice([Wish("a", 84), Wish("b", 83), Wish("c", 82), Wish("dry", 72)])
    assert advice is not None
    assert (advice.rh_percent, advice.too_damp_for, advice.too_dry_for) == (82, ("dry",), ())
    assert setpoint_advice([]) is None


def test_the_simulated_chamber_keeps_its_set_point_and_feels_its_load() -> None:
    light = LiveChamber(13.0, 78.0, 18.0, 60.0, seed=3)
    heavy = LiveChamber(13.0, 78.0, 18.0, 60.0, load_g_per_hour=400.0, seed=3)
    shown: list[tuple[float, float]] = []
    worked = [0, 0]
    for k in range(int(4 * 86_400 / STEP_S)):
        for i, chamber in enumerate((light, heavy)):
            chamber.step(k * STEP_S)
            worked[i] += chamber.drying
        shown.append(light.reading())
    late = np.array(shown[len(shown) // 2 :])
    assert late[:, 0].mean() == pytest.approx(13, abs=0.6)
    assert late[:, 1].mean() == pytest.approx(78, abs=3)
    assert worked[1] > worked[0]


@pytest.mark.parametrize(
    ("c", "hours", "told"),
    [
        (-0.1, 1, [("frost", -0.1)]),
        (0.0, 48, []),
        (13.0, 48, []),
        (22.0, 48, []),
        (22.1, 3, []),  # a warm noon
        (22.1, 5, [("heat", 22.1)]),
    ],
)
def test_frost_and_heat_are_told_whatever_a_place_is_set_to(c: float, hours: int, told: list) -> None:
    at = np.arange(0, 48 * 3600.0, 3600.0)
    air = np.where(at < hours * 3600.0, c, 12.0)
    found = extremes(Log(at, air, np.full_like(at, 75.0)))
    assert [(one.what, one.worst_c) for one in found] == told
    assert all(one.hours == pytest.approx(hours) for one in found)


@pytest.mark.parametrize(("minutes", "told"), [(231, False), (249, True)])
def test_heat_is_told_from_four_hours_on(minutes: int, told: bool) -> None:
    at = np.arange(0, 86_400.0, 60.0)
    air = np.where(at < minutes * 60.0, 24.0, 15.0)
    assert [one.what for one in extremes(Log(at, air, np.full_like(at, 75.0)))] == (["heat"] if told else [])


def test_of_a_place_without_readings_no_frost_is_told() -> None:
    assert extremes(Log(np.zeros(0), np.zeros(0), np.zeros(0))) == []
