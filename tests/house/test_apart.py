"""Dates made in a process of their own are the same dates; they are made here when it is gone."""

import os
import pickle
import signal
from collections.abc import Iterator
from dataclasses import replace

import numpy as np
import pytest

from strategies import history, salame
from zymon.core.drying.forecast import fitted
from zymon.core.drying.inside import inside
from zymon.work.apart import Apart

DAY = 86_400.0


@pytest.fixture(scope="module")
def apart() -> Iterator[Apart]:
    one = Apart()
    yield one
    one.end()


def test_the_dates_are_those_that_are_made_here(apart: Apart) -> None:
    asked = history(salame(), salame(diameter_mm=75.0), now_days=12.0)
    there, here = apart.fitted(asked), fitted(asked)
    assert "forecasts" in vars(there)  # made there, not when somebody asks
    for far, near in zip(there.forecasts, here.forecasts, strict=True):
        assert (far.tag, far.ready_p10_s, far.ready_p50_s, far.ready_p90_s) == (
            near.tag, near.ready_p10_s, near.ready_p50_s, near.ready_p90_s,
        )  # fmt: skip
        np.testing.assert_array_equal(far.curve_p50, near.curve_p50)
    assert inside(there, 1, 10 * DAY) == inside(here, 1, 10 * DAY)


def test_a_fault_there_is_a_fault_here_and_the_next_is_made(apart: Apart) -> None:
    none = replace(history(salame()), pieces=())
    with pytest.raises((ValueError, IndexError)):
        apart.fitted(none)
    assert len(apart.fitted(history(salame())).forecasts) == 1


def test_a_process_that_was_killed_is_begun_anew(apart: Apart, caplog: pytest.LogCaptureFixture) -> None:
    apart.fitted(history(salame()))
    first = apart._process
    assert first is not None
    os.kill(first.pid, signal.SIGKILL)
    first.wait()
    assert len(apart.fitted(history(salame())).forecasts) == 1
    assert "made here" in caplog.text
    apart.fitted(history(salame()))
    assert apart._process is not None
    assert apart._process.pid != first.pid


def test_it_ends_with_whoever_began_it() -> None:
    one = Apart()
    one.fitted(history(salame()))
    assert one._process is not None
    process = one._process
    assert os.getpgid(process.pid) != os.getpgid(0)  # Ctrl-C in a terminal goes to the server alone
    assert process.stdin is not None
    process.stdin.close()  # as when the server was killed
    assert process.wait(timeout=20) == 0
    one.end()


def test_what_is_asked_and_answered_can_be_sent() -> None:
    asked = history(salame(), now_days=3.0)
    assert pickle.loads(pickle.dumps(asked)).pieces == asked.pieces
