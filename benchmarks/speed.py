"""How fast: charts, imports, weighings, forecasts."""

import asyncio
import json
import queue
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from statistics import median

import numpy as np
from fastapi.testclient import TestClient

from zymon.app import make_app, settle
from zymon.core.drying.climate import Log
from zymon.core.fermentation.curve import Fermentation, Reading
from zymon.core.fermentation.forecast import forecast_fermentation
from zymon.core.salting.bag import Bag, Cold, Step
from zymon.core.salting.clock import salt_clocks
from zymon.core.salting.front import GEOMETRIES
from zymon.limits import shipped
from zymon.settings import Settings
from zymon.standins.chamber import SimulatedChamber

from .maker import Maker

NOW = 1_791_000_000
DAY = 86_400
ZYMON = Path(sys.executable).with_name("zymon")


@contextmanager
def workshop(hooks: list[int]) -> Iterator[tuple[TestClient, int]]:
    """An empty workshop with one chamber."""
    with tempfile.TemporaryDirectory() as folder:
        app = make_app(Settings(db=Path(folder) / "bench.db"), lambda: NOW)
        settle()
        with Maker(app) as client:
            client.put("/api/workshop", json={"name": "Bench", "time_zone": "UTC"})
            place = client.post("/api/places", json={"name": "Cellar", "hooks_per_rod": hooks, "by": "Ida"}).json()
            yield client, place["id"]
        app.state.context.close()


def best(times: int, call: Callable[[], object]) -> float:
    """Shortest of several runs [s]."""
    took = []
    for _ in range(times):
        began = time.perf_counter()
        call()
        took.append(time.perf_counter() - began)
    return min(took)


def climate_csv(rows: int, step_s: int) -> bytes:
    """A logger's file ending now."""
    at = np.arange(NOW - (rows - 1) * step_s, NOW + 1, step_s, dtype=np.float64)
    c, rh = SimulatedChamber(13, 78).log(at, 5)
    stamps = np.datetime_as_string(at.astype("datetime64[s]"))
    body = "".join(f"{t}Z,{a:.1f},{b:.1f}\n" for t, a, b in zip(stamps, c, rh, strict=True))
    return ("time,temperature (C),humidity\n" + body).encode()


def hang_file(pieces: int, hourly_days: int) -> bytes:
    """Pieces in batches of ten, weighed weekly, under an hourly log."""
    at = np.arange(NOW - hourly_days * DAY, NOW + 1, 3600, dtype=np.float64)
    c, rh = SimulatedChamber(13, 78).log(at, 5)
    stamps = np.datetime_as_string(at.astype("datetime64[s]"))
    hung = NOW - 35 * DAY

    def iso(s: float) -> str:
        return f"{np.datetime64(int(s), 's')}Z"

    batches = [
        {
            "id": f"B{b}",
            "kind": "salame",
            "shape": "cylinder",
            "casing": "natural",
            "fat_percent": 26,
            "salt_percent": 2.7,
            "pieces": [
                {
                    "tag": f"B{b}-{i}",
                    "diameter_mm": 58,
                    "length_mm": 300,
                    "start_weight_g": 840 + i,
                    "tare_g": 11,
                    "hung_at": iso(hung),
                    "target_loss_percent": 36,
                    "weights": [
                        [iso(hung + w * 7 * DAY), round((840 + i) * (1 - 0.11 * w**0.75))] for w in range(1, 5)
                    ],
                }
                for i in range(10)
            ],
        }
        for b in range(pieces // 10)
    ]
    return json.dumps(
        {
            "format": "zymon-hang/1",
            "chamber": {"name": "C", "setpoint": {"temperature_c": 13, "rh_percent": 78}},
            "climate": [[f"{t}Z", float(a), float(b)] for t, a, b in zip(stamps, c, rh, strict=True)],
            "batches": batches,
            "now": iso(NOW),
        }
    ).encode()


def in_salt(pieces: int) -> list[Bag]:
    """Pieces of three shapes, measured and buried, under a month of hourly log."""
    at = np.arange(0.0, 30 * DAY, 3600)
    cold = Cold(Log(at, 3 + np.sin(at / 9000), np.full_like(at, 75.0)), 3.0)
    ways = (("measured", 2.8), ("buried", 3.0), ("rub_and_drain", 3.2))
    return [
        Bag(GEOMETRIES[i % 3], 40 + i / 5, 900 + 8 * i, 10.0, (Step(0.0, "lay", *ways[i // 3 % 3]),), cold)  # type: ignore[arg-type]
        for i in range(pieces)
    ]


def fermenting(batches: int) -> list[Fermentation]:
    """Batches at hour 72 with three readings and a one-minute log of their box."""
    box = tuple((i / 60, 24 + float(np.sin(i / 50))) for i in range(3 * 1440))
    return [
        Fermentation(
            culture="medium", dextrose_percent=0.4, salt_percent=2.7, start_ph=5.8, target_ph=5.1, setpoint_c=25.0,
            temperature=box, now_hour=72.0,
            readings=tuple(Reading(12.0 + 4 * n, 5.6 - 0.08 * n - 0.001 * i) for n in range(3)),
        )
        for i in range(batches)
    ]  # fmt: skip


def bring_in(client: TestClient, place: int, name: str, data: bytes) -> tuple[float, float]:
    """Preview and confirm a file; seconds of each."""
    began = time.perf_counter()
    seen = client.post("/api/imports/preview", files={"file": (name, data)}, data={"place_id": place})
    read = time.perf_counter() - began
    seen.raise_for_status()
    began = time.perf_counter()
    client.post(f"/api/imports/{seen.json()['token']}", json={"by": "Ida"}).raise_for_status()
    return read, time.perf_counter() - began


def follow(client: TestClient) -> "queue.Queue[int]":
    """The places whose dates were made, as they are made: what a page hears."""
    followers, heard = client.app.state.context.followers, queue.Queue[int]()  # type: ignore[attr-defined]
    joined = threading.Event()

    async def listen() -> None:
        mine = followers.join()
        joined.set()
        while (happening := await mine.queue.get()) is not None:
            if happening.what == "made":
                heard.put(happening.number)

    threading.Thread(target=lambda: asyncio.run(listen()), daemon=True).start()
    joined.wait()
    return heard


def weigh(client: TestClient, place: int, piece: int, weight_g: float) -> tuple[float, float]:
    """Seconds until a weight is acknowledged (slowest of five), and until all dates are made and sent (median)."""
    acknowledged, renewed = [], []
    told = follow(client)
    for turn in range(5):
        body = {"gross_g": weight_g - turn, "by": "Ida", "sure": True}
        began = time.perf_counter()
        client.post(f"/api/pieces/{piece}/weighings", json=body).raise_for_status()
        acknowledged.append(time.perf_counter() - began)
        told.get(timeout=60)  # as a page is: that the dates are made
        client.get(f"/api/places/{place}/room").raise_for_status()
        renewed.append(time.perf_counter() - began)
    return max(acknowledged), median(renewed)


def measure() -> str:
    """The table of speeds."""
    rows: list[tuple[str, str, str]] = []
    with workshop([1]) as (client, place):
        million = climate_csv(1_000_000, 30)
        read, stored = bring_in(client, place, "million.csv", million)
        rate = 1_000_000 / (read + stored)
        rows.append(
            ("import of 1,000,000 climate rows, preview and storing together", f"{rate:,.0f} rows/s", "100,000")
        )
    with workshop([1]) as (client, place):
        bring_in(client, place, "year.csv", climate_csv(525_600, 60))
        for title, days in (("year", 365), ("week", 7)):
            url = f"/api/places/{place}/climate?from_s={NOW - days * DAY}&to_s={NOW}&points=1200"
            took = best(5, partial(client.get, url))
            rows.append((f"chart of a {title} of one-minute climate, answered", f"{took * 1000:.0f} ms", "150 ms"))
    with workshop([20] * 10) as (client, place):
        bring_in(client, place, "room.json", hang_file(200, 40))
        room = client.get(f"/api/places/{place}/room").json()
        piece = room["pieces"][7]["id"]
        weight = room["pieces"][7]["weight_now_g"]

        acknowledged, renewed = weigh(client, place, piece, weight)
        rows.append(
            ("weight acknowledged in a 200-piece chamber, stored for good", f"{acknowledged * 1000:.0f} ms", "100 ms")
        )
        rows.append(("from that weight until all its dates are renewed and sent", f"{renewed:.2f} s", "1 s"))
    with workshop([50] * 10) as (client, place):
        bring_in(client, place, "room.json", hang_file(500, 40))
        room = client.get(f"/api/places/{place}/room").json()
        piece = room["pieces"][7]["id"]
        weight = room["pieces"][7]["weight_now_g"]

        acknowledged, renewed = weigh(client, place, piece, weight)
        rows.append(("the same with 500 pieces", f"{acknowledged * 1000:.0f} ms, {renewed:.2f} s", "100 ms, 3 s"))
    bags = in_salt(300)
    rows.append(
        (
            "cross-sections and windows of 300 pieces in salt",
            f"{best(3, lambda: salt_clocks(bags, 5 * DAY)) * 1000:.0f} ms",
            "300 ms",
        )
    )
    allowed = shipped()["us"].degree_hours
    batches = fermenting(50)

    def ferment() -> None:
        for batch in batches:
            forecast_fermentation(batch, allowed)

    rows.append(
        ("pH curve and window of 50 batches with three days of one-minute log", f"{best(3, ferment):.2f} s", "0.5 s")
    )
    with tempfile.NamedTemporaryFile(suffix=".json") as file:
        file.write(hang_file(100, 100))
        file.flush()
        took = best(3, lambda: subprocess.run([ZYMON, "forecast", file.name], check=True, capture_output=True))
        rows.append(
            ("`zymon forecast` of 100 pieces with 100 days of hourly log, start-up included", f"{took:.2f} s", "3 s")
        )
    table = "\n".join(f"| {what} | {got} | {asked} |" for what, got, asked in rows)
    return f"| what | measured | asked |\n|---|---|---|\n{table}\n"
