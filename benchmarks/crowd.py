"""Twenty people at once on the demo: looking and weighing mixed, for half a minute, on a real server."""

import json
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from collections import defaultdict
from collections.abc import Iterator
from contextlib import contextmanager
from http.client import HTTPConnection
from pathlib import Path
from typing import Any

import numpy as np

from zymon.app import next_free
from zymon.settings import Settings

PEOPLE = 20
SECONDS = 30.0
PAUSE_S = 0.15  # between two looks of one person; without it the machine is measured, not the program
MIX = ("line", "line", "room", "room", "today", "piece", "piece", "piece", "weigh", "weigh")


class Person:
    """Somebody at a tablet: looks and weighs, and notes how long each took [s]."""

    def __init__(self, port: int, pieces: list[tuple[int, float]], places: list[int], seed: int) -> None:
        self.port, self.pieces, self.places = port, pieces, places
        self.random = random.Random(seed)
        self.took: dict[str, list[float]] = defaultdict(list)
        self.errors: list[str] = []

    def work(self, until: float, pause_s: float) -> None:
        """Look and weigh until it is time."""
        line = HTTPConnection("127.0.0.1", self.port, timeout=60)
        while time.monotonic() < until:
            what = self.random.choice(MIX)
            method, path, body = self._call(what)
            began = time.perf_counter()
            line.request(method, path, body, {"Content-Type": "application/json", "Accept-Encoding": "gzip"})
            answer = line.getresponse()
            answer.read()
            self.took[what].append(time.perf_counter() - began)
            if answer.status not in (200, 201, 409):  # a weight that is asked about is an answer
                self.errors.append(f"{what} {answer.status}")
            time.sleep(pause_s)
        line.close()

    def _call(self, what: str) -> tuple[str, str, str | None]:
        piece, gross_g = self.random.choice(self.pieces)
        if what == "room":
            return "GET", f"/api/places/{self.random.choice(self.places)}/room", None
        if what == "piece":
            return "GET", f"/api/pieces/{piece}", None
        if what == "weigh":
            body = {"uid": uuid.uuid4().hex, "by": "Ida", "gross_g": round(gross_g * self.random.uniform(0.99, 1.0), 1)}
            return "POST", f"/api/pieces/{piece}/weighings", json.dumps({**body, "sure": True})
        return "GET", f"/api/{what}", None


@contextmanager
def running(db: Path, command: str = "demo") -> Iterator[int]:
    """A server of its own process on a record; its port. Parameters: command, serve or demo."""
    listener = next_free(Settings(port=8600))
    port = listener.getsockname()[1]
    listener.close()
    run = [str(Path(sys.executable).parent / "zymon"), command, "--db", str(db), "--port", str(port)]
    with subprocess.Popen(run, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, env={**os.environ}) as server:
        try:
            _until_up(port)
            yield port
        finally:
            server.send_signal(signal.SIGINT)
            server.wait(timeout=20)


def _until_up(port: int) -> None:
    for _ in range(600):
        try:
            get(port, "/health")
            return
        except OSError:
            time.sleep(0.2)
    raise TimeoutError("the server did not come up")


def get(port: int, path: str) -> Any:
    """An answer of a server."""
    return call(port, "GET", path)


def call(port: int, method: str, path: str, body: dict[str, Any] | None = None) -> Any:
    """An answer of a server. Raises RuntimeError where it is refused."""
    line = HTTPConnection("127.0.0.1", port, timeout=120)
    sent = None if body is None else json.dumps(body)
    line.request(method, path, sent, {} if sent is None else {"Content-Type": "application/json"})
    answer = line.getresponse()
    told = answer.read()
    line.close()
    if answer.status >= 400:
        raise RuntimeError(f"{method} {path}: {answer.status} {told[:200]!r}")
    return json.loads(told)


def crowd(port: int, seconds: float = SECONDS, pause_s: float = PAUSE_S) -> tuple[dict[str, list[float]], list[str]]:
    """How long each kind of call took [s], and what went wrong."""
    places = [place["id"] for place in get(port, "/api/line")["places"] if place["kind"] == "chamber"]
    rooms = [get(port, f"/api/places/{place}/room") for place in places]
    pieces = [(c["id"], c["weight_now_g"] or 500.0) for room in rooms for c in room["pieces"]]
    people = [Person(port, pieces, places, seed) for seed in range(PEOPLE)]
    until = time.monotonic() + seconds
    threads = [threading.Thread(target=one.work, args=(until, pause_s)) for one in people]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    took: dict[str, list[float]] = defaultdict(list)
    for one in people:
        for what, times in one.took.items():
            took[what] += times
    return took, [error for one in people for error in one.errors]


def measure() -> str:
    """The table of this benchmark."""
    with tempfile.TemporaryDirectory() as folder:
        db = Path(folder) / "demo.db"
        given = os.environ.get("ZYMON_BENCH_DEMO")
        if given:
            for file in Path(given).iterdir():
                if file.is_file():
                    shutil.copy(file, folder)
        with running(db) as port:
            get(port, "/api/today")
            took, errors = crowd(port)
    many = sum(len(times) for times in took.values())
    rows = "".join(
        f"| {what} | {len(times)} | {np.median(times):.2f} s | {np.quantile(times, 0.95):.2f} s |\n"
        for what, times in sorted(took.items())
    )
    asked = "Asked: 30 calls a second, p95 of a weighing 0.5 s (at most 1 s), of room and Today 1 s, no error."
    return (
        f"{PEOPLE} people on the demo for {SECONDS:.0f} s, each with {PAUSE_S:.2f} s between two calls; server and"
        f" callers share {os.cpu_count()} cores.\n\n| call | times | median | p95 |\n|---|---|---|---|\n{rows}\n"
        f"{many / SECONDS:.0f} calls a second; {len(errors)} errors{': ' + ', '.join(errors[:5]) if errors else ''}."
        f" {asked}"
    )
