"""Charts of the climate: the same numbers from roll-ups as from the readings."""

from pathlib import Path

import numpy as np
import pytest

from support import NOW
from zymon.standins.chamber import SimulatedChamber
from zymon.store import places
from zymon.store.climate import Source, add_readings, all_readings, hourly_log, series, series_along
from zymon.store.database import Database


@pytest.fixture
def cellar(tmp_path: Path):
    db = Database(tmp_path / "w.db")
    at = np.arange(NOW - 20 * 86_400, NOW, 300, dtype=np.float64)
    c, rh = SimulatedChamber(13, 78, outages=((NOW - 5 * 86_400, NOW - 5 * 86_400 + 9 * 3600),)).log(at, 3)
    rows = list(zip(at.astype(int).tolist(), c.tolist(), rh.tolist(), strict=True))
    with db.writing() as session:
        place = places.make_place(session, "Cellar", "chamber", [1], None, (13.0, 78.0), "Ida", NOW).id
        # in two parts that meet inside an hour, the later one first
        add_readings(session, place, rows[3007:], Source())
        add_readings(session, place, rows[:3007], Source())
    yield db, place, rows
    db.close()


def test_roll_ups_agree_with_the_readings(cellar) -> None:
    db, place, rows = cellar
    table = np.array(rows)
    with db.reading() as session:
        coarse = series(session, place, NOW - 20 * 86_400, NOW, 80)
        fine = series(session, place, NOW - 86_400, NOW, 1000)
    assert coarse.bucket_s % 3600 == 0
    assert len(coarse.at_s) <= 82
    for i, start in enumerate(coarse.at_s):
        inside = table[(table[:, 0] >= start) & (table[:, 0] < start + coarse.bucket_s)]
        assert coarse.temperature_c[i] == pytest.approx(inside[:, 1].mean(), abs=0.002)
        assert coarse.rh_max_percent[i] == pytest.approx(inside[:, 2].max(), abs=0.002)
        assert coarse.temperature_min_c[i] == pytest.approx(inside[:, 1].min(), abs=0.002)
    assert len(fine.at_s) == 288
    assert max(coarse.rh_max_percent) > 88  # the outage is seen, however coarse the chart


def test_the_forecasts_log_never_runs_ahead_of_the_clock(cellar) -> None:
    db, place, rows = cellar
    with db.reading() as session:
        log = hourly_log(session, place, NOW - 3 * 86_400, NOW - 86_400 + 17)
        assert list(all_readings(session, place)) == rows
    assert log.time_s.max() <= NOW - 86_400 + 17
    assert np.all(np.diff(log.time_s) > 0)


def test_a_moved_piece_felt_one_place_after_the_other(cellar) -> None:
    db, pit, rows = cellar
    first_s, moved_s, last_s = rows[0][0], rows[0][0] + 10 * 86_400, rows[-1][0]
    with db.writing() as session:
        loft = places.make_place(session, "Loft", "chamber", [1], None, (6.0, 78.0), "Ida", NOW).id
        add_readings(session, loft, [(at, 6.0, 78.0) for at, _, _ in rows], Source())
        felt = series_along(session, [(pit, first_s, moved_s), (loft, moved_s, last_s)], points=300)
        alone = series(session, pit, first_s, last_s, points=300)
    assert felt.at_s == alone.at_s
    for at_s, c, before in zip(felt.at_s, felt.temperature_c, alone.temperature_c, strict=True):
        assert c == (before if at_s + felt.bucket_s <= moved_s else 6.0)
