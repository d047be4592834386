"""The benchmarks measure what they say: physics that could be, hands that are right where they can be, no peeking."""

import numpy as np
import pytest
from benchmarks import hand_methods
from benchmarks.accuracy import CUTS, cut_history, rows_of, zymon
from benchmarks.physics import PHYSICS, Batch, driven
from benchmarks.simulator import DAY, simulate

HOURS = 40 * 24


def body(pace: float = 0.08, uneven: float = 0.0) -> Batch:
    return Batch(np.array([pace, 1.5 * pace]), np.full(2, 0.55), 0.03, True, uneven, (0.3, -0.2, 0.1))


@pytest.mark.parametrize("uneven", [0.0, 1.0])
@pytest.mark.parametrize("name", PHYSICS)
def test_a_physics_only_ever_loses_water_and_sooner_where_it_is_faster_or_drier(name: str, uneven: float) -> None:
    pace = 1.0 if name == "layers" else 0.08
    damp, dry = (
        PHYSICS[name](body(pace, uneven), *driven(np.full(HOURS, 13.0), np.full(HOURS, rh))) for rh in (80.0, 70.0)
    )
    for loss in (damp, dry):
        assert loss.shape == (HOURS + 1, 2)
        assert (loss[0] == 0).all()
        assert (np.diff(loss, axis=0) >= -1e-12).all()
        assert (loss < 0.55).all()
        assert (loss[24:, 1] > loss[24:, 0]).all()
    assert (dry[24:] > damp[24:]).all()
    assert damp[-1, 0] > 0.05


def test_hands_are_right_where_their_curve_is_the_truth() -> None:
    days = np.array([0.0, 6, 13, 20, 27, 34])
    straight, bent = 0.01 * days, 0.5 * (1 - np.exp(-0.03 * days))
    assert hand_methods.last_two(days, straight, 0.4) == pytest.approx(40)
    assert hand_methods.line(days, straight, 0.4) == pytest.approx(40)
    assert hand_methods.exponential(days, bent, 0.4) == pytest.approx(-np.log(0.2) / 0.03, rel=0.03)
    assert hand_methods.last_two(days[:1], straight[:1], 0.4) is None
    assert hand_methods.exponential(days, bent, 0.6) is None  # over its plateau


@pytest.mark.parametrize("physics", PHYSICS)
def test_a_cut_history_holds_nothing_of_the_future_and_asks_only_what_is_still_ahead(physics: str) -> None:
    truth = simulate(physics, 9)
    days = dict(zip((p.tag for p in truth.history.pieces), truth.days, strict=True))
    shown = []
    for cut in CUTS:
        history, asked = cut_history(truth, "B0", cut) or pytest.fail("no such batch")
        now = history.now_s
        assert history.log.time_s[-1] <= now
        assert all(w.at_s <= now for p in history.pieces for w in p.weighings)
        assert all(p.hung_at_s <= now for p in history.pieces)
        assert all(history.pieces[i].hung_at_s + days[history.pieces[i].tag] * DAY > now for i in asked)
        shown.append(sum(len(p.weighings) for p in history.pieces if p.batch == "B0"))
        for answer in zymon(history):
            assert answer is None or answer[0] <= answer[1] <= answer[2]
    assert shown == sorted(shown)
    assert shown[0] == 0 < shown[-1]


@pytest.mark.drill
@pytest.mark.parametrize("physics", PHYSICS)
def test_the_truth_lies_inside_as_often_as_it_is_said_to(physics: str) -> None:
    rows = rows_of(zymon, physics)
    assert 0.75 <= np.mean([row.inside for row in rows]) <= 0.88
    late = [row for row in rows if row.cut == 0.8]
    assert np.median([row.error for row in late]) < np.median([row.error for row in rows if row.cut == 0.0]) / 2
