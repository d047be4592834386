"""For which goods a place suits, and whether its air has changed: every figure at its boundary."""

import numpy as np
import pytest

from zymon.core.bench.families import FAMILIES
from zymon.core.drying.climate import Log
from zymon.core.place_fit import SHIFT_LOOK_S, Suits, shift, suits

HOUR, DAY = 3600.0, 86_400.0
SALAME = FAMILIES[0]
HOURS = 1000


def of_salame(off_c: float = 0.0, off_rh: float = 0.0, hours: int = HOURS) -> Suits:
    """How a place suits that is off the usual air for so many of a thousand hours."""
    at = np.arange(HOURS + 1) * HOUR
    off = np.arange(HOURS + 1) < hours
    log = Log(at, SALAME.temperature_c + off_c * off, SALAME.rh_percent + off_rh * off)
    return next(one for one in suits(log) if one.family == SALAME.id)


@pytest.mark.parametrize(
    ("off_c", "off_rh", "share", "mostly"),
    [
        (0.0, 0.0, 1.0, None),
        (4.0, 9.0, 1.0, None),
        (4.1, 0.0, 0.8, "warm"),
        (-4.0, -9.0, 1.0, None),
        (-4.1, 0.0, 0.8, "cold"),
        (0.0, 9.1, 0.8, "damp"),
        (0.0, -9.1, 0.8, "dry"),
    ],
)
def test_goods_dry_well_within_four_degrees_and_nine_points(
    off_c: float, off_rh: float, share: float, mostly: str | None
) -> None:
    found = of_salame(off_c, off_rh, hours=200)
    assert (found.share, found.mostly) == (pytest.approx(share), mostly)
    assert found.mostly_share == pytest.approx(1 - share)
    assert found.verdict == "fit"


@pytest.mark.parametrize(
    ("hours", "verdict"), [(250, "fit"), (251, "with_care"), (600, "with_care"), (601, "unfit")]
)  # fmt: skip
def test_three_quarters_of_the_time_fit_and_two_fifths_are_too_few(hours: int, verdict: str) -> None:
    assert of_salame(off_rh=-12.0, hours=hours).verdict == verdict


@pytest.mark.parametrize(
    ("off_c", "hours", "verdict"), [(5.0, 40, "fit"), (5.1, 29, "fit"), (5.1, 31, "unfit"), (-9.0, 40, "fit")]
)  # fmt: skip
def test_what_is_much_too_warm_spoils_it_however_seldom(off_c: float, hours: int, verdict: str) -> None:
    assert of_salame(off_c=off_c, hours=hours).verdict == verdict


@pytest.mark.parametrize(("hours", "told"), [(19, None), (21, "dry")])
def test_what_is_seldom_so_is_no_fault_worth_a_word(hours: int, told: str | None) -> None:
    assert of_salame(off_rh=-12.0, hours=hours).mostly == told


@pytest.mark.parametrize(("gap_hours", "share"), [(3, 0.94), (30, 0.94), (2, 0.96)])
def test_a_silence_tells_of_three_hours_and_no_more(gap_hours: int, share: float) -> None:
    at = np.concatenate([np.arange(48), [47 + gap_hours, 48 + gap_hours]]) * HOUR
    dry = at == 47 * HOUR  # what was read before the silence
    found = suits(Log(at, np.full(50, SALAME.temperature_c), SALAME.rh_percent - 20.0 * dry))
    of_it = next(one for one in found if one.family == SALAME.id).share
    assert of_it == pytest.approx(share, abs=0.003)


def test_of_less_than_a_day_nothing_is_told_and_the_best_come_first() -> None:
    def usual(hours: int) -> Log:
        return Log(np.arange(hours + 1) * HOUR, np.full(hours + 1, 13.0), np.full(hours + 1, 78.0))

    assert suits(usual(23)) == []
    assert suits(Log(np.zeros(0), np.zeros(0), np.zeros(0))) == []
    found = suits(usual(24))
    assert [one.family for one in found].index(SALAME.id) < len(found) / 2
    order = [("fit", "with_care", "unfit").index(one.verdict) for one in found]
    assert order == sorted(order)


def stepped(by_c: float = 0.0, by_rh: float = 0.0, hours: float = 48.0, before_days: float = 14.0) -> Log:
    """An hourly log up to a moment 0 that stepped so many hours ago."""
    at = np.arange(-before_days * DAY - 48 * HOUR, 1, HOUR)
    new = at > -hours * HOUR
    return Log(at, 13.0 + by_c * new, 78.0 + by_rh * new)


@pytest.mark.parametrize(
    ("log", "by_c", "by_rh"),
    [
        (stepped(1.5), 1.5, None),
        (stepped(1.49), None, None),
        (stepped(-1.5), -1.5, None),
        (stepped(by_rh=4.0), None, 4.0),
        (stepped(by_rh=-3.9), None, None),
        (stepped(2.0, -6.0), 2.0, -6.0),
        (stepped(2.0, hours=24), None, None),  # half of the two days is a change of one degree
        (stepped(4.0, hours=24), 2.0, None),
        (stepped(2.0, hours=60), 2.0, None),  # the two weeks before are told by their middle
    ],
)
def test_the_air_has_changed_by_what_goods_notice(log: Log, by_c: float | None, by_rh: float | None) -> None:
    found = shift(log, 0.0)
    if by_c is None and by_rh is None:
        assert found is None
    else:
        assert found is not None
        assert (found.by_c, found.by_rh_percent) == (
            None if by_c is None else pytest.approx(by_c),
            None if by_rh is None else pytest.approx(by_rh),
        )


def test_two_weeks_before_are_looked_at_and_what_was_longer_ago_is_not() -> None:
    assert SHIFT_LOOK_S == 16 * DAY
    usual = stepped(2.0)
    long_ago = np.arange(-60 * DAY, -16 * DAY, HOUR)
    log = Log(
        np.concatenate([long_ago, usual.time_s]),
        np.concatenate([np.full(len(long_ago), 15.0), usual.temperature_c]),
        np.concatenate([np.full(len(long_ago), 78.0), usual.rh_percent]),
    )
    assert shift(log, 0.0) == shift(usual, 0.0)
    # seven days in ten of those two weeks as warm as now: nothing has changed
    assert shift(stepped(2.0, hours=48 + 10 * 24), 0.0) is None


@pytest.mark.parametrize(("before_days", "told"), [(2.9, False), (3.0, True)])
def test_three_days_before_are_enough_to_tell(before_days: float, told: bool) -> None:
    assert (shift(stepped(2.0, before_days=before_days), 0.0) is not None) == told
