"""What a hook does is learned from its pieces, and moves the dates of those that hang there next."""

from dataclasses import replace

import numpy as np
import pytest

from strategies import DAY, salame, steady_log
from zymon.core.drying.forecast import fitted
from zymon.core.drying.history import History, Piece, Stay, Weighing
from zymon.standins.goods import Nature, true_loss


def dried(tag: str, batch: str, hook: str, hung_day: float, air: float) -> Piece:
    """A piece that dried with so much air at its hook, weighed five times."""
    log = steady_log(120)
    piece = salame(tag, batch=batch, hung_at_s=hung_day * DAY, stays=(Stay(hung_day * DAY, hook),))
    at, loss = true_loss(piece, Nature(hook_air=air), log, 40)
    weighings = tuple(
        Weighing(piece.hung_at_s + d * DAY, round(piece.gross_at(float(np.interp(d * DAY, at, loss)))))
        for d in (5, 10, 15, 20, 25)
    )
    return replace(piece, weighings=weighings)


@pytest.fixture(scope="module")
def place() -> History:
    batches = [
        dried(f"{b}-{i}", b, f"h{i}", 25.0 * k, 1.8 if i == 2 else 1.0) for k, b in enumerate("ABC") for i in range(4)
    ]
    new = [salame(f"D-{i}", batch="D", hung_at_s=79 * DAY, stays=(Stay(79 * DAY, f"h{i}"),)) for i in range(4)]
    return History((*batches, *new), steady_log(80), 13.0, 78.0, 80 * DAY)


def test_a_draughty_hook_is_found_and_moves_the_next_dates(place: History) -> None:
    found = fitted(place)
    airy, usual = found.hooks["h2"], found.hooks["h1"]
    assert 1.3 < np.exp(airy.ln_air) < 2.1
    assert abs(usual.ln_air) < 0.2
    assert airy.pieces == 3
    dates = {f.tag: f.ready_p50_s or np.inf for f in found.forecasts}
    assert dates["D-2"] < dates["D-1"] - 0.5 * DAY  # never weighed: the hook alone makes it sooner
    assert found.air_at("h2") > found.air_at("never seen") == 1.0


def test_hooks_that_are_not_known_change_nothing(place: History) -> None:
    plain = replace(place, pieces=tuple(replace(p, stays=()) for p in place.pieces))
    assert fitted(plain).hooks == {}
    one = replace(plain, pieces=plain.pieces[:1])
    assert fitted(one).forecasts[0].ready_p50_s is not None


def test_a_piece_that_moved_keeps_what_it_lost(place: History) -> None:
    moved = replace(place.pieces[-2], stays=(Stay(79 * DAY, "h2"), Stay(79.9 * DAY, "h1")))
    pieces = (*place.pieces[:-2], moved, place.pieces[-1])
    before, after = fitted(place), fitted(replace(place, pieces=pieces))
    i = len(place.pieces) - 2
    assert (after.forecasts[i].ready_p50_s or 0) > (before.forecasts[i].ready_p50_s or 0)
