"""Ten years of one-minute readings in six places: charts, files, a copy, and thinning them while entries go on."""

import threading
import time
import uuid
from datetime import UTC, datetime
from functools import partial
from http.client import HTTPConnection
from itertools import count
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory

from sqlalchemy import text

from zymon.store.copies import take_copy
from zymon.store.database import Database

from .book import MINUTES, YEARS, ten_years
from .crowd import call, get, running
from .speed import DAY, NOW, best

SPANS = {"a day": 1, "a month": 30, "a year": 365, "ten years": YEARS * 365}
POINTS = 900
_seconds = count(60, 7)  # no two readings are of one second


def fill_minutes(file: Path, places: list[int]) -> int:
    """Fill ten years of minutes into a file, rolled up by hours; how many there are."""
    db = Database(file)
    for place in places:
        for year in range(YEARS):
            low = NOW - (YEARS - year) * 365 * DAY
            with db.writing("Ida", NOW) as session:
                session.execute(text(MINUTES), {"place": place, "low": low, "high": low + 365 * DAY - 60})
    with db.reading() as session:
        many = session.execute(text("SELECT count(*) FROM reading")).scalar_one()
    db.close()
    return int(many)


def charts(port: int, place: int) -> dict[str, float]:
    """Seconds until the chart of each span is there, the worst of five."""
    took = {}
    for name, days in SPANS.items():
        path = f"/api/places/{place}/climate?from_s={NOW - days * DAY}&to_s={NOW}&points={POINTS}"
        took[f"chart of {name}"] = max(best(1, partial(get, port, path)) for _ in range(5))
    took["where the readings came from"] = max(best(1, lambda: get(port, f"/api/places/{place}/log")) for _ in range(3))
    took["room on the disk"] = best(1, lambda: get(port, "/api/disk"))
    return took


def streamed(port: int, path: str) -> tuple[float, float, float]:
    """Seconds until the first part of a file, until its last, and its size [MB]."""
    began = time.perf_counter()
    line = HTTPConnection("127.0.0.1", port, timeout=600)
    line.request("GET", path)
    answer = line.getresponse()
    many = len(answer.read(4096))
    first = time.perf_counter() - began
    while part := answer.read(1 << 20):
        many += len(part)
    return first, time.perf_counter() - began, many / 1e6


def _enter(port: int, place: int) -> float:
    at = datetime.fromtimestamp(int(time.time()) - next(_seconds), UTC).isoformat()
    body = {"uid": uuid.uuid4().hex, "by": "Ida", "temperature_c": 12.5, "rh_percent": 78, "at": at, "sure": True}
    return best(1, lambda: call(port, "POST", f"/api/places/{place}/readings", body))


def _thinned(port: int, place: int) -> tuple[float, list[float]]:
    """Seconds that thinning took, and how long each entry took that was made meanwhile."""
    waits: list[float] = []
    done = threading.Event()

    def enter() -> None:
        while not done.wait(1.1):
            waits.append(_enter(port, place))

    began = time.perf_counter()
    call(port, "POST", "/api/disk/thinning", {"uid": uuid.uuid4().hex, "by": "Ida", "sure": True})
    writer = threading.Thread(target=enter)
    writer.start()
    while get(port, "/api/disk")["share_done"] is not None:
        time.sleep(2)
    took = time.perf_counter() - began
    done.set()
    writer.join()
    return took, waits


def measure() -> str:
    """The table of ten years of minutes."""

    with TemporaryDirectory() as folder:
        with ten_years(folder) as (_, file, rods):
            places = [place for place, _ in rods]
        many = fill_minutes(file, places)
        size = file.stat().st_size / 1e9
        copying = best(1, lambda: take_copy(file, Path(folder) / "copy.db"))
        (Path(folder) / "copy.db").unlink()
        with running(file, "serve") as port:
            time.sleep(60)  # the first nightly copy is taken
            before = charts(port, places[0])
            hang = streamed(port, f"/api/places/{places[0]}/hang-file?finished=true")
            log = streamed(port, f"/api/places/{places[0]}/climate.csv")
            fridge = {"uid": uuid.uuid4().hex, "by": "Ida", "name": "Fridge", "hooks_per_rod": [5]}
            no_logger = call(port, "POST", "/api/places", fridge)["id"]
            alone = median(_enter(port, no_logger) for _ in range(5))
            told = get(port, "/api/disk")
            took, waits = _thinned(port, no_logger)
            after = charts(port, places[0])
            left = get(port, "/api/disk")
    rows = "".join(f"| {name} | {before[name]:.2f} s | {after[name]:.2f} s |\n" for name in before)
    return (
        f"{many:,} readings in {len(places)} places, {size:.2f} GB; a server of its own, asked over the wire.\n\n"
        f"| what | as they came | thinned |\n|---|---|---|\n{rows}\n"
        "Asked: charts under 0.3 s.\n\n"
        f"- A hang file of one place, ten years of minutes: first part after {hang[0]:.2f} s, the last of "
        f"{hang[2]:.0f} MB after {hang[1]:.0f} s; its log as CSV: {log[0]:.2f} s, {log[2]:.0f} MB in {log[1]:.0f} s.\n"
        f"- A copy, looked through: {copying:.0f} s.\n"
        f"- Thinning what is older than two years, on the page's wish: {told['would_go']:,} readings went in "
        f"{took:.0f} s; told beforehand that about {told['would_free_bytes'] / 1e6:.0f} MB would become empty, and "
        f"{(left['unused_bytes'] - told['unused_bytes']) / 1e6:.0f} MB were.\n"
        f"- An entry meanwhile: median {1000 * median(waits):.0f} ms, longest {1000 * max(waits):.0f} ms of "
        f"{len(waits)}; alone {1000 * alone:.0f} ms.\n"
    )
