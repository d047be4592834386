"""What keeping the record safe costs after ten years, and what is left of it when the server is killed."""

import random
import sys
import threading
import time
from datetime import UTC, datetime
from importlib import import_module
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory

from fastapi.testclient import TestClient
from sqlalchemy import text

from zymon.store.copies import put_back, take_copy
from zymon.store.database import Database
from zymon.work.house.archive import read_archive, write_archive

from .book import MINUTES, ten_years
from .speed import DAY, NOW, best

TESTS = Path(__file__).resolve().parents[1] / "tests"
KILLS = 40


def _enter(client: TestClient, place: int) -> float:
    """Seconds until a reading that somebody typed is acknowledged, stored for good."""
    began = time.perf_counter()
    at = datetime.fromtimestamp(NOW - random.randrange(10_000_000), UTC).isoformat()
    body = {"temperature_c": 12.5, "rh_percent": 78, "by": "Ida", "at": at, "sure": True}
    client.post(f"/api/places/{place}/readings", json=body).raise_for_status()
    return time.perf_counter() - began


def _copied_meanwhile(client: TestClient, place: int, file: Path, target: Path) -> tuple[float, list[float]]:
    """Seconds that a copy took, and how long each entry waited that was made meanwhile."""
    waits: list[float] = []
    done = threading.Event()

    def enter() -> None:
        while not done.is_set():
            waits.append(_enter(client, place))

    writer = threading.Thread(target=enter)
    writer.start()
    began = time.perf_counter()
    take_copy(file, target)
    took = time.perf_counter() - began
    done.set()
    writer.join()
    return took, waits


def _killed() -> tuple[int, int, int]:
    """A salame's course, the server killed −9 with entries on their way: kills, tables, tables that differ."""
    sys.path[:0] = [str(TESTS)]
    minced, drills = import_module("courses.test_minced"), import_module("house.test_drills")

    with TemporaryDirectory() as folder:
        empty = Path(folder) / "empty.db"
        Database(empty).close()
        calm, _ = drills.run(minced.test_hunter_style_salame, Path(folder) / "calm", empty, 0)
        killed, kills = drills.run(minced.test_hunter_style_salame, Path(folder) / "killed", empty, KILLS)
    return kills, len(calm), sum(calm[name] != killed[name] for name in calm)


def measure() -> str:
    """The table of safety."""
    with TemporaryDirectory() as name, ten_years(name) as (client, file, rods):
        folder = Path(name)
        db = Database(file)
        with db.writing("Ida", NOW) as session:
            minutes = {"place": rods[0][0], "low": NOW - 365 * DAY, "high": NOW - 1}
            session.execute(text(MINUTES), minutes)
        db.close()
        size = file.stat().st_size / 1e6
        alone = median(_enter(client, rods[1][0]) for _ in range(9))
        took, waits = _copied_meanwhile(client, rods[1][0], file, folder / "copy.db")
        began = time.perf_counter()
        put_back(folder / "copy.db", folder / "back.db", NOW)
        back = time.perf_counter() - began
        began = time.perf_counter()
        told = write_archive(file, folder / "all.zip", NOW)
        out = time.perf_counter() - began
        rows = sum(table.rows for table in told.tables.values())
        packed = (folder / "all.zip").stat().st_size / 1e6
        began = time.perf_counter()
        read_archive(folder / "all.zip", folder / "in.db", "all.zip", NOW)
        into = time.perf_counter() - began
        looked = best(20, lambda: client.get("/api/door"))
    kills, tables, differ = _killed()
    return (
        f"| what, after ten years, 3,000 pieces and a year of minutes ({size:.0f} MB, {rows:,} rows) | measured |\n"
        "|---|---|\n"
        f"| a copy while entries go on, looked through | {took:.1f} s |\n"
        f"| an entry meanwhile: median and longest of {len(waits)}, against alone | {1000 * median(waits):.0f} ms, "
        f"{1000 * max(waits):.0f} ms, {1000 * alone:.0f} ms |\n"
        f"| a copy put back | {back:.1f} s |\n"
        f"| everything out as an archive ({packed:.0f} MB) | {out:.0f} s |\n"
        f"| and in again | {into:.0f} s |\n"
        f"| the door asked who is there | {1000 * looked:.1f} ms |\n"
        f"| a course, killed −9 with {kills} of its entries on their way: of {tables} tables differ | {differ} |\n\n"
        "`make drills` does the last for nine courses and more kills, brings up a file of each edition, and fuzzes "
        "every route signed in.\n"
    )
