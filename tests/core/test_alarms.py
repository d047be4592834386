"""Alarms at their boundaries: bands, frost, doors, silence, quiet hours, storms."""

import pytest

from zymon.core import alarms
from zymon.core.alarms import Band, Kind, Row, again, held, may_send, quiet, troubles, try_again_s

NOW = 1_000_000.0
BAND = Band(low_c=10, high_c=15, low_rh=70, high_rh=85, for_s=3600, silent_s=1800)


def steady(c: float, rh: float | None, minutes: int = 61, every: int = 5) -> list[Row]:
    """Readings up to now."""
    return [(NOW - 60 * m, c, rh) for m in range(minutes - minutes % every, -1, -every)]


def kinds(rows: list[Row], band: Band = BAND, last_s: float | None = None, now_s: float = NOW) -> list[Kind]:
    return [one.kind for one in troubles(band, rows, now_s, last_s)]


@pytest.mark.parametrize(
    ("c", "rh", "told"),
    [
        (15.0, 85.0, []),
        (15.1, 78.0, ["too_warm"]),
        (9.9, 78.0, ["too_cold"]),
        (10.0, 70.0, []),
        (13.0, 85.1, ["too_damp"]),
        (13.0, 69.9, ["too_dry"]),
        (16.0, 60.0, ["too_warm", "too_dry"]),
        (16.0, None, ["too_warm"]),
        (-0.1, 78.0, ["frost"]),  # frost says it, too cold would say it twice
        (0.0, 78.0, ["too_cold"]),
    ],
)
def test_a_band_is_left_beyond_its_limit_not_at_it(c: float, rh: float | None, told: list[Kind]) -> None:
    assert kinds(steady(c, rh)) == told


@pytest.mark.parametrize(("minutes", "told"), [(59, []), (60, ["too_warm"])])
def test_it_is_told_after_its_time_not_before(minutes: int, told: list[Kind]) -> None:
    rows = [(NOW - 60 * m, 13.0 if m > minutes else 16.0, 78.0) for m in range(90, -1, -1)]
    assert kinds(rows) == told
    one = troubles(Band(high_c=15, for_s=0), rows, NOW, None)
    assert [(t.kind, t.since_s) for t in one] == [("too_warm", NOW - 60 * minutes)]


def test_one_reading_within_begins_the_count_anew_and_the_worst_is_kept() -> None:
    rows = steady(16, 78)
    rows[4] = (rows[4][0], 15.0, 78.0)
    assert kinds(rows) == []
    rows = steady(16, 78)
    rows[4] = (rows[4][0], 21.5, 78.0)
    assert troubles(BAND, rows, NOW, None)[0].worst == 21.5
    cold = [(at, 4.0 if i == 2 else 8.0, rh) for i, (at, _, rh) in enumerate(steady(8, 78))]
    assert troubles(BAND, cold, NOW, None)[0].worst == 4.0


@pytest.mark.parametrize(("gap_s", "told"), [(alarms.GAP_S, ["too_warm"]), (alarms.GAP_S + 1, [])])
def test_over_a_silence_nobody_knows_that_a_band_was_left(gap_s: float, told: list[Kind]) -> None:
    rows: list[Row] = [(NOW - 3600 - i * 300, 16.0, 78.0) for i in range(10, -1, -1)]
    rows.append((rows[-1][0] + gap_s, 16.0, 78.0))
    rows += [(rows[-1][0] + 300 * i, 16.0, 78.0) for i in range(1, int((NOW - rows[-1][0]) // 300) + 1)]
    assert kinds(rows, Band(high_c=15, for_s=3600, silent_s=None)) == told


@pytest.mark.parametrize(("may_be_silent_s", "told"), [(3600, ["too_warm"]), (3599, [])])
def test_a_logger_that_sends_by_the_hour_is_watched_once_it_may_be_silent_so_long(
    may_be_silent_s: float, told: list[Kind]
) -> None:
    hourly: list[Row] = [(NOW - 3600 * i, 16.0, 78.0) for i in range(5, -1, -1)]
    assert kinds(hourly, Band(high_c=15, for_s=3600, silent_s=may_be_silent_s)) == told


def test_frost_is_told_at_once_or_not_where_nobody_wants_it() -> None:
    assert kinds([(NOW, -0.5, None)]) == ["frost"]
    assert kinds([(NOW, -0.5, None)], Band(frost=False)) == []


@pytest.mark.parametrize(("ago_s", "told"), [(1800, []), (1801, ["silence"])])
def test_silence_is_told_of_what_was_heard(ago_s: float, told: list[Kind]) -> None:
    assert kinds([], last_s=NOW - ago_s) == told
    assert kinds([], Band(silent_s=None), last_s=NOW - ago_s) == []
    assert kinds([], last_s=None) == []


def door(minutes: int, c: float = 13.0, rh: float = 70.0) -> list[Row]:
    """Two quiet hours, then a door that has stood open for so long."""
    return [(NOW - 60 * m, 13.0 if m > minutes else c, 78.0 if m > minutes else rh) for m in range(120, -1, -1)]


@pytest.mark.parametrize(
    ("rows", "told"),
    [
        (door(15), ["door"]),
        (door(14), []),
        (door(15, rh=70.1), []),  # eight points are a step, less is a breath
        (door(15, c=14.5, rh=78), ["door"]),
        (door(15, c=14.4, rh=78), []),
        ([*door(15)[:-1], (NOW, 13.0, 78.0)], []),  # it was shut again
    ],
)
def test_a_door_that_stands_open(rows: list[Row], told: list[Kind]) -> None:
    assert kinds(rows, Band(frost=False, silent_s=None, door_s=900)) == told
    assert kinds(rows, Band(frost=False, silent_s=None)) == []


@pytest.mark.parametrize(("minutes", "told"), [(15, ["door"]), (15.1, [])])
def test_a_door_steps_within_a_quarter_of_an_hour_what_drifts_is_no_door(minutes: float, told: list[Kind]) -> None:
    before = [(NOW - 60 * m, 13.0, 78.0) for m in (80, 70, 60, 50, 40)]
    after = [(NOW - 60 * (40 - minutes - m), 13.0, 60.0) for m in (0, 10, 20, 24)]
    assert kinds([*before, *after], Band(frost=False, silent_s=None, door_s=900)) == told


@pytest.mark.parametrize(("ago", "told"), [((74, 72, 70), ["door"]), ((78, 77, 76), [])])
def test_the_air_of_the_last_hour_is_what_a_door_changes(ago: tuple[int, ...], told: list[Kind]) -> None:
    """Three readings within the hour before it say what was usual; the last of them is of just before."""
    before = [(NOW - 60 * m, 13.0, 78.0) for m in ago]
    rows = [*before, (NOW - 16.5 * 60, 13.0, 78.0), *((NOW - 60 * m, 13.0, 60.0) for m in (16, 8, 0))]
    assert kinds(rows, Band(frost=False, silent_s=None, door_s=900)) == told


@pytest.mark.parametrize(("after_s", "same"), [(7199.0, True), (7200.0, False)])
def test_what_begins_again_soon_is_the_same(after_s: float, same: bool) -> None:
    assert again(NOW, NOW + after_s) == same
    assert again(None, NOW)
    assert alarms.STORM_S == 7200


@pytest.mark.parametrize(
    ("minute", "from_", "to", "is_quiet"),
    [
        (22 * 60, 22 * 60, 6 * 60, True),
        (22 * 60 - 1, 22 * 60, 6 * 60, False),
        (6 * 60 - 1, 22 * 60, 6 * 60, True),
        (6 * 60, 22 * 60, 6 * 60, False),
        (13 * 60, 12 * 60, 14 * 60, True),
        (14 * 60, 12 * 60, 14 * 60, False),
        (3 * 60, None, 6 * 60, False),
        (3 * 60, 60, 60, False),
    ],
)
def test_quiet_hours(minute: int, from_: int | None, to: int | None, is_quiet: bool) -> None:
    assert quiet(minute, from_, to) == is_quiet


def test_what_spoils_goods_in_a_night_wakes_who_wants_to_be_woken() -> None:
    night = (2 * 60, 22 * 60, 6 * 60)
    assert {kind for kind in alarms.KINDS if not held(kind, *night, woken=True)} == {
        "frost", "too_warm", "allowance", "silence",
    }  # fmt: skip
    assert all(held(kind, *night, woken=False) for kind in alarms.KINDS)
    assert not any(held(kind, 12 * 60, *night[1:], woken=False) for kind in alarms.KINDS)


def test_six_messages_an_hour_and_no_more() -> None:
    assert may_send([NOW - 10] * 5, NOW)
    assert not may_send([NOW - 10] * 6, NOW)
    assert may_send([NOW - 3600] * 6, NOW)
    assert not may_send([NOW - 3599] * 6, NOW)


def test_it_is_tried_again_ever_later_and_then_given_up() -> None:
    waits = [try_again_s(n) for n in range(1, 6)]
    assert waits == [60, 300, 900, 3600, None]
    assert alarms.SECOND_AFTER_S == 1800
