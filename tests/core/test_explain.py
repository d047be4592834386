"""What a date rests on, what a vacuum rest does, and which air would bring a stalled piece home."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, as_foretold, history, neck, salame, weighed
from support import refused
from zymon.core.drying.explain import explain
from zymon.core.drying.forecast import Change, Fitted, fitted
from zymon.core.drying.inside import inside, profile_at
from zymon.core.drying.reach import reaching
from zymon.core.drying.rest import vacuum_rest

READINGS = ((6.0, 771.0), (13.0, 711.0), (20.0, 665.0), (27.0, 629.0))


@pytest.fixture(scope="module")
def mates() -> Fitted:
    own, unweighed = weighed(salame(), *READINGS), salame("A-02", diameter_mm=None, length_mm=None)
    return fitted(history(own, unweighed, now_days=28))


def test_a_new_piece_rests_on_its_kind_a_weighed_one_on_itself_a_mate_on_both(mates: Fitted) -> None:
    new = explain(fitted(history(salame())), 0)
    weighed_, mate = explain(mates, 0), explain(mates, 1)
    assert (round(new.prior_share, 9), new.own_weighings, new.mates_weighed) == (1, 0, 0)
    assert weighed_.own_share > 0.6
    assert weighed_.own_weighings == 4
    assert mate.own_share == pytest.approx(0, abs=1e-9)
    assert mate.mates_share > 0.3
    assert mate.mates_weighed == 1
    for found in (new, weighed_, mate):
        assert found.prior_share + found.own_share + found.mates_share == pytest.approx(1)
        assert 0 <= found.air_share <= 1


def test_what_narrows_a_date_is_what_is_missing(mates: Fitted) -> None:
    mate = explain(mates, 1)
    assert [n.by for n in mate.narrowing] == ["weigh", "measure"]
    assert mate.window_days is not None
    assert all(0 < n.window_days < mate.window_days for n in mate.narrowing)
    bare = history(weighed(salame(fat_percent=None), (7.0, 760.0)), now_days=8)
    unlogged = fitted(type(bare)(bare.pieces, bare.log.until(-1.0), None, None, bare.now_s))
    assert "log_air" in [n.by for n in explain(unlogged, 0).narrowing]
    assert "log_air" not in [n.by for n in explain(fitted(bare), 0).narrowing]


def test_what_would_spare_next_to_nothing_is_not_said() -> None:
    readings = (*READINGS, (34.0, 597.0), (41.0, 572.0), (46.0, 557.0))
    told = {}
    for day in (20.0, 42.0, 47.0, 49.0):
        piece = weighed(salame(), *((d, w) for d, w in readings if d < day))
        told[day] = explain(fitted(history(piece, now_days=day)), 0)
    assert [n.by for n in told[20.0].narrowing] == ["weigh"]  # two days of twelve and a half
    assert told[42.0].narrowing == ()  # just weighed
    assert [n.by for n in told[47.0].narrowing] == ["weigh"]  # seven hours of two days: shortly before, hours count
    assert told[49.0].narrowing == ()  # an hour or two of one


def test_a_weighing_narrows_about_as_much_as_was_said(mates: Fitted) -> None:
    said = next(n.window_days for n in explain(mates, 1).narrowing if n.by == "weigh")
    own, mate = mates.history.pieces
    expected_g = mate.gross_at(mates.forecasts[1].loss_at(28 * DAY)[1])
    after = fitted(history(own, weighed(mate, (28.0, expected_g)), now_days=28)).forecasts[1]
    assert after.ready_p10_s is not None
    assert after.ready_p90_s is not None
    assert (after.ready_p90_s - after.ready_p10_s) / DAY == pytest.approx(said, rel=0.5)


@pytest.mark.parametrize("way", [0.5, 0.7, 0.85])
@pytest.mark.parametrize("shape", ["cylinder", "irregular"])
def test_no_more_is_promised_of_a_weighing_than_it_gives(shape: str, way: float) -> None:
    """The last weeks of an irregular muscle stay open whatever its mates weighed: that is no weighing's to narrow."""
    own, now = as_foretold(neck(shape), way)
    mate = neck(shape, "N-02")
    before = fitted(history(own, mate, now_days=now))
    said = next(n.window_days for n in explain(before, 1).narrowing if n.by == "weigh")
    there = mate.gross_at(before.forecasts[1].loss_at(now * DAY)[1])
    after = fitted(history(own, weighed(mate, (now, there)), now_days=now)).forecasts[1]
    assert after.ready_p10_s is not None
    assert after.ready_p90_s is not None
    assert (after.ready_p90_s - after.ready_p10_s) / DAY == pytest.approx(said, rel=0.3)


@settings(max_examples=12)
@given(st.floats(40, 110), st.floats(5, 40), st.floats(0, 12))
def test_a_vacuum_rest_evens_out_and_loses_nothing(diameter_mm: float, at_days: float, rest_c: float) -> None:
    fit = fitted(history(salame(diameter_mm=diameter_mm)))
    rest = vacuum_rest(fit, 0, at_days * DAY, rest_c)
    falls = np.diff(rest.ring_index)
    assert (falls <= 1e-9).all()
    assert rest.ring_index[0] == pytest.approx(inside(fit, 0, at_days * DAY).ring_index)
    warmer = vacuum_rest(fit, 0, at_days * DAY, rest_c + 5)
    if rest.weeks is not None:
        assert warmer.weeks is not None
        assert warmer.weeks <= rest.weeks


def test_a_thicker_piece_rests_longer_as_makers_say() -> None:
    thin, thick = (fitted(history(salame(diameter_mm=d))) for d in (58.0, 115.0))
    a, b = (vacuum_rest(f, 0, f.forecasts[0].ready_p50_s or 0.0).weeks for f in (thin, thick))
    assert a is not None
    assert b is not None
    assert 1 < a < 4
    assert 5 < b < 20


def test_a_rest_in_an_oven_is_refused(mates: Fitted) -> None:
    with refused("temperature of the rest"):
        vacuum_rest(mates, 0, 28 * DAY, 60.0)


def test_the_profile_holds_the_water_that_was_not_lost(mates: Fitted) -> None:
    bodies, start = profile_at(mates, 0, 0.0)
    assert start == pytest.approx(np.full(len(start), float(bodies.fresh_x[0])))


def test_the_inside_of_a_piece_is_its_own_whatever_hangs_beside_it() -> None:
    thin, thick = salame(tag="thin", diameter_mm=45.0), salame(tag="thick", diameter_mm=90.0)
    both, alone = fitted(history(thin, thick, now_days=14.0)), fitted(history(thick, now_days=14.0))
    for at_s in (0.0, 14 * DAY, 60 * DAY):
        bodies, beside = profile_at(both, 1, at_s)
        own, by_itself = profile_at(alone, 0, at_s)
        assert beside == pytest.approx(by_itself, rel=1e-6)
        assert bodies.half_thickness_m == pytest.approx(own.half_thickness_m)
    assert profile_at(both, 0, 14 * DAY)[1][0] < profile_at(both, 1, 14 * DAY)[1][0]  # the thin one is drier at heart


def test_the_air_that_brings_a_stalled_piece_home_does() -> None:
    stuck = fitted(history(salame(target_loss_percent=50.0), rh_percent=86.0))
    assert stuck.forecasts[0].status == "stalled"
    found = reaching(stuck, 0)
    assert found.rh_percent is not None
    assert 50 <= found.rh_percent < 86
    assert stuck.what_if(0, Change(rh_percent=found.rh_percent)).status == "drying"
    hopeless = fitted(history(salame(target_loss_percent=72.0)))
    none = reaching(hopeless, 0)
    assert none.rh_percent is None
    assert none.most_loss_percent < 72
    assert explain(hopeless, 0).window_days is None
