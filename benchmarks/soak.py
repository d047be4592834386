"""Sixty days of a live simulated chamber with forty pieces, all through the interface: nothing lost, windows that hold.

The chamber feels the water of its pieces; each piece has a nature of its own; half are weighed weekly, half never.
"""

import tempfile
import time
from datetime import UTC, datetime
from pathlib import Path

import numpy as np
from fastapi.testclient import TestClient

from zymon.app import make_app
from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import Piece
from zymon.settings import Settings
from zymon.standins.goods import Nature, scale_reading, true_loss
from zymon.standins.live import STEP_S, LiveChamber
from zymon.store.hang import piece as stored_piece
from zymon.work.as_forecast import core_piece
from zymon.work.dates import history_of

from .maker import Maker

START = 1_791_000_000
DAY = 86_400
DAYS, PIECES, WEEK = 60, 40, 7
EVERY_STEPS = 15
LOOKED_BACK_DAY = 21
GOODS = (
    ("salame", "cylinder", "natural", 58, 840, 34),
    ("salame", "cylinder", "natural", 45, 480, 33),
    ("belly", "slab", "none", 35, 1300, 25),
    ("breast", "slab", "cloth", 25, 380, 30),
)


def iso(at_s: float) -> str:
    """A moment as the interface wants it."""
    return datetime.fromtimestamp(at_s, UTC).isoformat()


class Soak:
    """The workshop, its live chamber and what was kept for judging."""

    def __init__(self, client: TestClient) -> None:
        self.client, self.now = client, float(START)
        self.rng = np.random.default_rng(11)
        self.live = LiveChamber(13.0, 78.0, 13.0, 78.0, seed=4)
        self.rows: list[tuple[float, float, float]] = []
        self.ids: list[int] = []
        self.natures = [Nature(float(self.rng.normal(0, 0.12)), float(self.rng.normal(0, 0.1))) for _ in range(PIECES)]
        self.windows: list[tuple[int, float, float, float]] = []  # piece, p10, p90, when said
        self.sent = 0

    def set_up(self) -> None:
        """Forty pieces of four kinds on four rods, and a device."""
        self.client.put("/api/workshop", json={"name": "Soak", "time_zone": "UTC"}).raise_for_status()
        body = {"name": "Pit", "hooks_per_rod": [10] * 4, "setpoint": {"temperature_c": 13, "rh_percent": 78}}
        self.place = self.client.post("/api/places", json={**body, "by": "Ida"}).json()["id"]
        rods = self.client.get(f"/api/places/{self.place}/room").json()["rods"]
        known = {"name": "logger", "kind": "climate", "place_id": self.place, "by": "Ida"}
        self.token = self.client.post("/api/devices", json=known).json()["token"]
        for i in range(PIECES):
            kind, shape, casing, across, grams, target = GOODS[i // 10]
            answer = self.client.post(
                "/api/pieces",
                json={
                    "tag": f"S-{i:02d}", "batch_code": f"S-{i // 10}", "product": kind, "kind": kind, "shape": shape,
                    "casing": casing, "fat_percent": 26, "salt_percent": 2.7, "start_weight_g": grams + 7 * (i % 10),
                    ("thickness_mm" if shape == "slab" else "diameter_mm"): across, "tare_g": 8,
                    "target_loss_percent": target, "rod_id": rods[i // 10]["id"], "hook": i % 10 + 1, "by": "Ida",
                },
            )  # fmt: skip
            answer.raise_for_status()
            self.ids.append(answer.json()["card"]["id"])

    def day(self) -> None:
        """A day of the chamber, sent in one call."""
        room = self.client.get(f"/api/places/{self.place}/room").json()
        self.live.load_g_per_hour = room["water_g_per_day"] / 24
        readings = []
        for n in range(1, DAY // int(STEP_S) + 1):
            at = self.now + n * STEP_S
            self.live.step(at)
            if n % EVERY_STEPS == 0:
                c, rh = self.live.reading()
                self.rows.append((at, c, rh))
                readings.append({"at": iso(at), "temperature_c": c, "rh_percent": rh})
        self.now += DAY
        self.sent += len(readings)
        head = {"Authorization": f"Bearer {self.token}"}
        body = {"readings": [*readings[::2], *readings[1::2]]}  # out of order, as a poor connection leaves them
        self.client.post("/device/v1/readings", json=body, headers=head).raise_for_status()

    def truth(self, piece: Piece, nature: Nature, days: float) -> tuple[np.ndarray, np.ndarray]:
        """How a piece truly dried so far, times since hanging [s] and loss [share]."""
        return true_loss(piece, nature, Log(*np.array(self.rows).T), days)

    def weigh(self, pieces: list[Piece]) -> None:
        """Weigh every other piece; keep what is then said of all that still dry."""
        days = (self.now - START) / DAY
        for i in range(0, PIECES, 2):
            lost = float(self.truth(pieces[i], self.natures[i], days)[1][-1])
            gross = scale_reading(pieces[i].gross_at(lost), self.rng)
            body = {"gross_g": gross, "sure": True, "by": "Ida"}
            self.client.post(f"/api/pieces/{self.ids[i]}/weighings", json=body).raise_for_status()
        for card in self.client.get(f"/api/places/{self.place}/room").json()["pieces"]:
            p10, p90 = card["ready"]["p10"], card["ready"]["p90"]
            if card["state"] in ("drying", "soon") and p10 and p90:
                low, high = (datetime.fromisoformat(t).timestamp() for t in (p10, p90))
                self.windows.append((self.ids.index(card["id"]), low, high, self.now))


def measure() -> str:
    """Run it; the table."""
    began = time.perf_counter()
    with tempfile.TemporaryDirectory() as folder:
        app = make_app(Settings(db=Path(folder) / "soak.db"), lambda: soak.now, behind_the_scenes=False)
        with Maker(app) as client:
            soak = Soak(client)
            soak.set_up()
            with app.state.context.db.reading() as session:
                pieces = [core_piece(stored_piece(session, i)) for i in soak.ids]
            said = None
            for day in range(1, DAYS + 1):
                soak.day()
                if day % WEEK == 0:
                    soak.weigh(pieces)
                if day == LOOKED_BACK_DAY:
                    with app.state.context.db.reading() as session:
                        said = forecast(history_of(session, soak.place, int(soak.now)))
            with app.state.context.db.reading() as session:
                again = forecast(history_of(session, soak.place, START + LOOKED_BACK_DAY * DAY))
            gone = [client.get("/api/devices").json()[0][key] for key in ("taken", "repeated", "impossible")]
        app.state.context.close()
    ends = [soak.truth(p, n, DAYS) for p, n in zip(pieces, soak.natures, strict=True)]
    held, asked = {0: 0, 1: 0}, {0: 0, 1: 0}
    for i, low, high, at in soak.windows:
        t, loss = ends[i]
        target = pieces[i].aim_percent / 100
        if loss[-1] < target:
            if low > soak.now:  # not there yet, and not said to be
                held[i % 2], asked[i % 2] = held[i % 2] + 1, asked[i % 2] + 1
            continue
        true_s = START + float(np.interp(target, loss, t))
        if true_s > at:
            asked[i % 2] += 1
            held[i % 2] += low <= true_s <= high
    assert said is not None
    same = all(a.ready_p50_s == b.ready_p50_s for a, b in zip(said, again, strict=True))
    rows = [
        ("readings sent, taken, repeated, impossible", f"{soak.sent}, {gone[0]}, {gone[1]}, {gone[2]}"),
        ("windows of weighed pieces that held the truth", f"{100 * held[0] / asked[0]:.0f} % of {asked[0]}"),
        ("windows of unweighed mates that held the truth", f"{100 * held[1] / asked[1]:.0f} % of {asked[1]}"),
        (f"dates of day {LOOKED_BACK_DAY}, asked again on day {DAYS}", "the same" if same else "NOT the same"),
        ("time it took", f"{time.perf_counter() - began:.0f} s"),
    ]
    head = f"{DAYS} days, {PIECES} pieces, half of them weighed weekly, through the interface."
    return "\n".join([head, "", "| what | measured |", "|---|---|", *(f"| {what} | {got} |" for what, got in rows), ""])
