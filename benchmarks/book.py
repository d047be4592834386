"""How fast the Book answers after ten years of a small workshop: found, told, printed, compared, exported."""

import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory

from fastapi.testclient import TestClient
from sqlalchemy import insert, text

from zymon.app import make_app, settle
from zymon.settings import Settings
from zymon.store.database import Database
from zymon.store.hang_models import HangEvent
from zymon.store.models import Batch, Hanging, Piece, PieceState, Weighing

from .maker import Maker
from .speed import DAY, NOW, best

ZYMON = Path(sys.executable).with_name("zymon")
YEARS, PIECES, A_BATCH, PLACES = 10, 3000, 20, 6
HERBS = ("fennel", "juniper", "savory", "bay", "hay", "plum", "thyme", "garlic")
WEEKS = 6


def _pieces() -> Iterator[tuple[int, int, int]]:
    """Pieces by their number: batch, when hung [s]."""
    for i in range(PIECES):
        batch = i // A_BATCH
        yield i, batch, NOW - int((YEARS * 365 - 60) * DAY * (1 - batch / (PIECES / A_BATCH))) - 60 * DAY


def fill(file: Path, rods: list[tuple[int, int]]) -> None:
    """Ten years in a database, straight into its tables: pieces with weights, notes and lives, hours of climate."""
    db = Database(file)
    with db.writing("Ida", NOW) as session:
        begun = {batch: hung for _, batch, hung in _pieces()}
        session.execute(insert(Batch), [
            {"id": b + 1, "code": f"B-{b:03d}", "product": f"{HERBS[b % 8].title()} salame", "kind": "salame",
             "shape": "cylinder", "casing": "natural", "fat_percent": 26.0, "salt_percent": 2.7, "created_s": hung,
             "profile": "us", "use": "raw", "done_by": "weight"}
            for b, hung in begun.items()
        ])  # fmt: skip
        session.execute(insert(Piece), [
            {"id": i + 1, "batch_id": b + 1, "tag": f"B-{b:03d}-{i % A_BATCH + 1:02d}", "shape": "cylinder",
             "casing": "natural", "diameter_mm": 58.0, "length_mm": 300.0, "start_weight_g": 840.0, "tare_g": 11.0,
             "target_loss_percent": 36.0, "hung_s": hung, "by": "Ida"}
            for i, b, hung in _pieces()
        ])  # fmt: skip
        session.execute(insert(Hanging), [
            {"piece_id": i + 1, "place_id": rods[b % PLACES][0], "rod_id": rods[b % PLACES][1], "hook": i % A_BATCH + 1,
             "from_s": hung, "to_s": hung + WEEKS * 7 * DAY, "ended_as": "down", "by": "Ida", "entered_s": hung}
            for i, b, hung in _pieces()
        ])  # fmt: skip
        session.execute(insert(Weighing), [
            {"piece_id": i + 1, "at_s": hung + w * 7 * DAY, "gross_g": round(840 * (1 - 0.095 * w**0.78)), "by": "Ida",
             "entered_s": hung, "kept": False, "source": "hand"}
            for i, b, hung in _pieces() for w in range(1, WEEKS + 1)
        ])  # fmt: skip
        session.execute(insert(PieceState), [
            {"piece_id": i + 1, "kind": "gone", "how": "eaten", "from_s": hung + WEEKS * 7 * DAY, "note": "",
             "against": "", "by": "Odile", "entered_s": hung}
            for i, b, hung in _pieces()
        ])  # fmt: skip
        session.execute(insert(HangEvent), [
            {"uid": f"note-{i}", "piece_id": i + 1, "kind": "inspect", "at_s": hung + 20 * DAY, "by": "Ida",
             "note": f"smells of {HERBS[(i * 7) % 8]} and a little of {HERBS[(i * 3) % 8]}, week {i % 52}",
             "entered_s": hung}
            for i, b, hung in _pieces()
        ])  # fmt: skip
        for place, _ in rods:
            hours = {"place": place, "low": (NOW - YEARS * 365 * DAY) // 3600 * 3600, "high": NOW}
            session.execute(text(_HOURS), hours)
    db.close()


_HOURS = """
WITH RECURSIVE h(at) AS (SELECT :low UNION ALL SELECT at + 3600 FROM h WHERE at < :high)
INSERT INTO reading_hour
SELECT :place, at, 60, 13 + (at / 3600 % 7) * 0.1, 12.5, 14, 78 + (at / 3600 % 11) * 0.2, 76, 82 FROM h
"""
MINUTES = """
WITH RECURSIVE m(at) AS (SELECT :low UNION ALL SELECT at + 60 FROM m WHERE at < :high)
INSERT INTO reading(place_id, at_s, temperature_c, rh_percent)
SELECT :place, at, round(13 + (at / 60 % 17) * 0.1, 1), round(78 + (at / 60 % 13) * 0.2, 1) FROM m
"""


@contextmanager
def ten_years(folder: str) -> Iterator[tuple[TestClient, Path, list[tuple[int, int]]]]:
    """A workshop after ten years: its client, its file, its places with a rod each."""
    file = Path(folder) / "ten.db"
    app = make_app(Settings(db=file), lambda: NOW)
    settle()
    with Maker(app) as client:
        client.put("/api/workshop", json={"name": "Bench", "time_zone": "UTC"})
        rods = []
        for i in range(PLACES):
            body = {"name": f"Cellar {i + 1}", "hooks_per_rod": [20], "by": "Ida"}
            place = client.post("/api/places", json=body).json()["id"]
            rods.append((place, client.get(f"/api/places/{place}/room").json()["rods"][0]["id"]))
        fill(file, rods)
        yield client, file, rods
    app.state.context.close()


def _first_byte(file: Path, place: int) -> tuple[float, float]:
    """Seconds until the first reading of a hang file of ten years of minutes, and until its last."""
    db = Database(file)
    with db.writing("Ida", NOW) as session:
        low = NOW - YEARS * 365 * DAY
        session.execute(text(MINUTES), {"place": place, "low": low, "high": NOW - 1})
        session.execute(text("UPDATE piece SET hung_s = :low WHERE id = 1"), {"low": low + DAY})
    db.close()
    server = subprocess.Popen(
        [ZYMON, "serve", "--db", file, "--port", "8701"], stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
    )
    assert server.stdout is not None
    url = next(word for word in server.stdout.readline().split() if word.startswith("http"))
    time.sleep(2)
    began = time.perf_counter()
    with urllib.request.urlopen(f"{url}api/places/{place}/hang-file?finished=true") as answer:
        answer.read(4096)
        first = time.perf_counter() - began
        while answer.read(1 << 20):
            pass
    last = time.perf_counter() - began
    server.terminate()
    server.wait()
    server.stdout.close()
    return first, last


def measure() -> str:
    """The table of the Book."""
    with TemporaryDirectory() as folder, ten_years(folder) as (client, file, rods):
        asked = ("fen", "B-123", "ida", "week 17", "sav hay", "2021-05", "B-4", "juniper salame")
        found = [best(3, partial(client.get, "/api/find", params={"words": words})) for words in asked]
        story = best(3, partial(client.get, "/api/batches/75/story"))
        printed = best(3, partial(client.get, "/api/batches/75/record.pdf"))
        six = {"batches": [1, 30, 60, 90, 120, 150]}
        compared = best(3, partial(client.get, "/api/book/compare", params=six))
        began = time.perf_counter()
        assert client.get("/api/workshop.xlsx").status_code == 200
        sheet = time.perf_counter() - began
        began = time.perf_counter()
        client.get("/api/book/accuracy").raise_for_status()
        owned = time.perf_counter() - began
        book = best(3, partial(client.get, "/api/book", params={"words": "B-123"}))
        first, last = _first_byte(file, rods[0][0])
    return (
        "| what, after ten years and 3,000 pieces in six places | measured | asked |\n|---|---|---|\n"
        f"| found by words, tags, people, days: median and slowest of eight | {1000 * median(found):.0f} ms, "
        f"{1000 * max(found):.0f} ms | 50 ms |\n"
        f"| the Book's list by a word | {book:.2f} s | |\n"
        f"| story of a batch of twenty | {story:.2f} s | |\n"
        f"| its record as PDF | {printed:.2f} s | 3 s |\n"
        f"| six batches compared | {compared:.2f} s | |\n"
        f"| how good the dates were | {owned:.1f} s | |\n"
        f"| the whole workshop as a spreadsheet, 525,600 hours of climate in it | {sheet:.0f} s | |\n"
        f"| hang file of ten years of minutes: first readings, last | {first:.2f} s, {last:.0f} s | 1 s, |\n"
    )
