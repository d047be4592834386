"""From a forecast to what a maker reads on the tag."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from strategies import DAY, history, salame, steady_log, weighed
from support import refused
from zymon.core.drying.forecast import forecast
from zymon.core.drying.geometry import body_of
from zymon.core.drying.judge import days_left, judge, outline
from zymon.standins.goods import Nature, true_loss


@pytest.mark.parametrize(
    ("remaining", "window", "said"),
    [
        (0.2, 1, (1, "d", False)),
        (9.4, 8, (9, "d", False)),
        (18.4, 12, (18, "d", True)),
        (18.4, 40, (18, "d", True)),
        (37.0, 25, (5, "wk", True)),
    ],
)
def test_days_left_are_rounded_as_the_window_allows(remaining, window, said) -> None:
    left = days_left(remaining, window)
    assert (left.value, left.unit, left.about) == said


def made(piece, now_days):
    return piece, forecast(history(piece, now_days=now_days))[0], now_days * DAY


def test_states_along_the_way() -> None:
    readings = ((6, 771), (13, 711), (20, 665), (27, 629), (34, 601), (41, 578))
    young = judge(*made(weighed(salame(), *readings[:1]), 7))
    assert young.state == "drying"
    assert "weigh" not in young.wants
    near = judge(*made(weighed(salame(target_loss_percent=33), *readings[:6]), 41.5))
    assert near.state in ("soon", "ready")
    past = judge(*made(weighed(salame(target_loss_percent=30), *readings[:6]), 41.5))
    assert past.state in ("ready", "over")
    assert past.days_left is None
    over = judge(*made(weighed(salame(target_loss_percent=25), *readings[:6]), 41.5))
    assert over.state == "over"


def test_a_piece_not_weighed_for_long_wants_to_be() -> None:
    assert "weigh" in judge(*made(salame(), 20)).wants
    assert judge(*made(salame(), 2)).wants == ()


@given(st.floats(100, 5000), st.sampled_from(["cylinder", "slab", "irregular"]), st.floats(0, 0.5))
def test_the_outline_shrinks_as_the_piece_dries(weight: float, shape: str, loss: float) -> None:
    piece = salame(shape=shape, start_weight_g=weight, tare_g=0.0, diameter_mm=None, length_mm=None)
    size = outline(piece, loss)
    assert size.length_mm > 0
    assert size.width_mm > 0
    assert 0 < size.girth_now <= 1
    drier = outline(piece, loss + 0.05)
    assert drier.girth_now < size.girth_now
    assert size.girth_target == pytest.approx(outline(piece, 0.35).girth_now)


@given(st.floats(150, 6000), st.sampled_from(["salame", "whole_muscle", "belly", "ham", "breast"]))
def test_a_missing_measure_is_inferred_and_widens(weight: float, kind: str) -> None:
    shape = "slab" if kind in ("belly", "breast") else "irregular"
    guessed = body_of(kind, shape, weight)
    heavier = body_of(kind, shape, weight * 2)
    measured = body_of(kind, shape, weight, diameter_mm=80, thickness_mm=40)
    assert heavier.half_thickness_m > guessed.half_thickness_m
    assert guessed.size_sd > measured.size_sd
    assert 0 <= guessed.curvature <= 2


def test_a_length_alone_tells_the_thickness() -> None:
    by_length = body_of("salame", "cylinder", 850, length_mm=300)
    assert by_length.half_thickness_m * 2000 == pytest.approx(58.6, abs=1.0)
    with refused("length must be between 10 and 2500 mm, got 0"):
        body_of("salame", "cylinder", 850, length_mm=0)


def test_weighings_narrow_the_window() -> None:
    piece = salame()
    time_s, loss = true_loss(piece, Nature(0.15, -0.1), steady_log(60), 60)
    readings = [(d, round(piece.gross_at(float(np.interp(d * DAY, time_s, loss))))) for d in (5, 11, 18, 25, 31)]
    widths = []
    for k in (0, 1, 3, 5):
        found = forecast(history(weighed(piece, *readings[:k]), now_days=31.1))[0]
        assert found.ready_p10_s is not None
        assert found.ready_p90_s is not None
        widths.append(found.ready_p90_s - found.ready_p10_s)
    assert widths == sorted(widths, reverse=True)
    assert widths[-1] < 0.4 * widths[0]


def test_the_pace_is_the_slope_of_the_curve() -> None:
    piece = weighed(salame(), (6, 771), (13, 711))
    found = forecast(history(piece, now_days=14))[0]
    _, before, _ = found.loss_at(13.5 * DAY)
    _, after, _ = found.loss_at(14.5 * DAY)
    assert found.rate_percent_per_day == pytest.approx(100 * (after - before), rel=1e-6)
    assert replace(piece, tag="other").gross_at(found.loss_percent / 100) == pytest.approx(705, abs=8)
