"""Old readings thinned: what charts, forecasts and strikes read stays what it was, and no minute comes back."""

from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest
from sqlalchemy import text

from support import NOW
from zymon.store import places
from zymon.store.climate import (
    Row,
    Source,
    add_readings,
    all_readings,
    hourly_log,
    restore_readings,
    series,
    strike_readings,
    thinned_spans,
)
from zymon.store.database import Database, Session
from zymon.store.models import ImportReport, ReadingStrike
from zymon.store.thinned_models import Thinning
from zymon.store.thinning import readings_kept, stretches, thin, would_go

DAY = 86_400
BEGIN = NOW // 3600 * 3600 - 40 * DAY
BEFORE = BEGIN + 30 * DAY


def minutes(seed: int, from_s: int, to_s: int, wet: bool = True) -> list[Row]:
    """A logger's minutes, with a gap now and then; without humidity where it is a thermometer."""
    rng = np.random.default_rng(seed)
    at = np.arange(from_s, to_s, 60)
    at = at[rng.random(len(at)) > 0.1]
    c = np.round(13 + rng.normal(0, 0.5, len(at)), 2)
    rh = np.round(78 + rng.normal(0, 3, len(at)), 1)
    return [(int(a), float(t), float(h) if wet else None) for a, t, h in zip(at, c, rh, strict=True)]


def thinned(db: Database, before_s: int, stop_after: int | None = None, go_on: Thinning | None = None) -> Thinning:
    """Thin all that is older, or so many stretches of it, or go on with what was broken off."""
    with db.writing("Ida", NOW) as session:
        act = go_on or Thinning(before_s=before_s, by="Ida", entered_s=NOW, readings_before=0, readings_after=0)
        if go_on is None:
            session.add(act)
        session.flush()
        parts = stretches(session, before_s)
    for part in parts[:stop_after]:
        with db.writing("Ida", NOW) as session:
            thin(session, session.get_one(Thinning, act.id), part)
    with db.reading() as session:
        return session.get_one(Thinning, act.id)


@pytest.fixture
def cellar(tmp_path: Path) -> Iterator[tuple[Database, int]]:
    db = Database(tmp_path / "w.db")
    with db.writing("Ida", NOW) as session:
        place = places.make_place(session, "Cellar", "chamber", [1], None, (13.0, 78.0), "Ida", NOW).id
        session.add(
            ImportReport(
                at_s=NOW, by="Ida", kind="climate", file_name="log.csv", sha256="", place_id=place, rows_new=0,
                rows_same=0, rows_conflict=0, rows_left_out=0,
            )
        )  # fmt: skip
        session.flush()
        add_readings(session, place, minutes(1, BEGIN, BEGIN + 25 * DAY), Source(import_id=1))
        add_readings(session, place, minutes(2, BEGIN + 25 * DAY, BEGIN + 28 * DAY, wet=False), Source())
        add_readings(session, place, minutes(3, BEGIN + 28 * DAY, BEGIN + 40 * DAY), Source())
    yield db, place
    db.close()


def seen(session: Session, place: int) -> list[np.ndarray]:
    """What a forecast and the charts of a month and of a day read of the log."""
    log = hourly_log(session, place, BEGIN, BEGIN + 40 * DAY)
    month = series(session, place, BEGIN, BEGIN + 40 * DAY, 300)
    day = series(session, place, BEGIN + 2 * DAY, BEGIN + 3 * DAY - 1, 288)
    assert day.bucket_s == 300
    charts = [
        np.array([getattr(chart, name) for name in ("at_s", "temperature_c", "temperature_min_c", "temperature_max_c",
                                                     "rh_percent", "rh_min_percent", "rh_max_percent")], dtype=float)
        for chart in (month, day)
    ]  # fmt: skip
    return [log.time_s, log.temperature_c, log.rh_percent, *charts]


def same(one: list[np.ndarray], other: list[np.ndarray]) -> None:
    for a, b in zip(one, other, strict=True):
        np.testing.assert_allclose(a, b, atol=0.0011)  # charts are told to a thousandth


def test_charts_and_forecasts_read_what_they_read_before(cellar: tuple[Database, int]) -> None:
    db, place = cellar
    with db.reading() as session:
        before, young = seen(session, place), list(all_readings(session, place, BEFORE))
        many, go = readings_kept(session), would_go(session, BEFORE)
    act = thinned(db, BEFORE)
    with db.reading() as session:
        same(before, seen(session, place))
        assert list(all_readings(session, place, BEFORE)) == young
        old = list(all_readings(session, place, 0, BEFORE - 1))
        assert readings_kept(session) == len(old) + len(young)
        assert would_go(session, BEFORE) == 0
    spans = [at // 300 for at, _, _ in old]
    assert len(spans) == len(set(spans)) == 30 * 288
    assert act.readings_before - act.readings_after == many - len(young) - len(old)
    assert act.readings_after == pytest.approx(len(old), rel=0.002)  # but for a lone minute here and there
    assert act.readings_before - act.readings_after == pytest.approx(go, rel=0.01)
    assert [rh for at, _, rh in old if BEGIN + 25 * DAY <= at < BEGIN + 28 * DAY] == [None] * 3 * 288


def test_a_second_time_changes_nothing_and_a_broken_off_one_is_gone_on_with(cellar: tuple[Database, int]) -> None:
    db, place = cellar
    part = thinned(db, BEFORE, stop_after=1)
    whole = thinned(db, BEFORE, go_on=part)
    assert 0 < part.readings_after < whole.readings_after
    assert whole.readings_before == pytest.approx(30 * 1440 * 0.9, rel=0.01)  # each reading is counted once
    with db.reading() as session:
        once, was = list(all_readings(session, place)), seen(session, place)
    again = thinned(db, BEFORE)
    with db.reading() as session:
        assert list(all_readings(session, place)) == once
        same(was, seen(session, place))
    assert (again.readings_before, again.readings_after) == (0, 0)


def test_a_struck_stretch_comes_back_with_its_extremes(cellar: tuple[Database, int]) -> None:
    db, place = cellar
    thinned(db, BEFORE)
    with db.reading() as session:
        before, all_of_it = seen(session, place), list(all_readings(session, place))
    with db.writing("Ida", NOW) as session:
        strike = strike_readings(session, a_strike(place))
    with db.reading() as session:
        assert not list(all_readings(session, place, BEGIN + 2 * DAY, BEGIN + 3 * DAY - 1))
        assert thinned_spans(session, place, BEGIN + 2 * DAY, BEGIN + 3 * DAY - 1) == set()
    with db.writing("Ida", NOW) as session:
        restore_readings(session, session.get_one(ReadingStrike, strike.id), "it was right", "Ida", NOW)
    with db.reading() as session:
        assert list(all_readings(session, place)) == all_of_it
        same(before, seen(session, place))


def a_strike(place: int, file: int | None = None) -> ReadingStrike:
    return ReadingStrike(
        place_id=place, from_s=BEGIN + 2 * DAY, to_s=BEGIN + 3 * DAY - 1, import_id=file, reason="sun", readings=0,
        by="Ida", entered_s=NOW,
    )  # fmt: skip


def test_what_took_the_place_of_a_struck_stretch_is_not_drawn_with_its_extremes(cellar: tuple[Database, int]) -> None:
    db, place = cellar
    thinned(db, BEFORE)
    better = [(at, 9.0, 70.0) for at in range(BEGIN + 2 * DAY, BEGIN + 3 * DAY, 60)]
    with db.writing("Ida", NOW) as session:
        strike = strike_readings(session, a_strike(place))
        add_readings(session, place, better, Source())
    with db.writing("Ida", NOW) as session:
        restore_readings(session, session.get_one(ReadingStrike, strike.id), "after all", "Ida", NOW)
    with db.reading() as session:
        day = series(session, place, BEGIN + 2 * DAY + 300, BEGIN + 3 * DAY - 300, 286)
    assert set(day.temperature_min_c) == set(day.temperature_max_c) == {9.0}


def test_a_reading_that_comes_late_leaves_the_extremes_of_its_hour(cellar: tuple[Database, int]) -> None:
    db, place = cellar
    hour = BEGIN + 5 * DAY
    with db.writing("Ida", NOW) as session:  # a gap of a whole span in that hour
        session.execute(text("DELETE FROM reading WHERE at_s >= :a AND at_s < :b"), {"a": hour + 600, "b": hour + 900})
        add_readings(session, place, [(hour + 1799, 25.0, 55.0)], Source())
    thinned(db, BEFORE)
    with db.writing("Ida", NOW) as session:
        add_readings(session, place, [(hour + 700, 13.0, 78.0)], Source())
    with db.reading() as session:
        told = series(session, place, hour, hour + 3599, 1)
    assert (max(told.temperature_max_c), min(told.rh_min_percent)) == (25.0, 55.0)


@pytest.mark.parametrize(("pace_s", "many"), [(17, 400), (60, 1), (240, 333), (300, 300), (301, 400), (3600, 50)])
def test_the_mean_of_a_log_stays_whatever_its_pace(tmp_path: Path, pace_s: int, many: int) -> None:
    db = Database(tmp_path / "w.db")
    rng = np.random.default_rng(many)
    rows: list[Row] = [(BEGIN + i * pace_s, float(c), None) for i, c in enumerate(rng.normal(13, 2, many))]
    with db.writing("Ida", NOW) as session:
        place = places.make_place(session, "Cellar", "chamber", [1], None, (13.0, 78.0), "Ida", NOW).id
        add_readings(session, place, rows, Source())
    thinned(db, NOW)
    with db.reading() as session:
        left = list(all_readings(session, place))
        hours = series(session, place, BEGIN, BEGIN + many * pace_s, 1000)
    db.close()
    temperatures = np.array([c for _, c, _ in rows])
    assert len(left) == len({at // 300 for at, _, _ in rows})
    assert min(hours.temperature_min_c) == pytest.approx(temperatures.min(), abs=0.001)
    assert max(hours.temperature_max_c) == pytest.approx(temperatures.max(), abs=0.001)
    # the mean of the means, each by what it stands for
    many_in = np.array([sum(at // 300 == span for at, _, _ in rows) for span in [at // 300 for at, _, _ in left]])
    assert np.average([c for _, c, _ in left], weights=many_in) == pytest.approx(temperatures.mean(), abs=1e-9)
