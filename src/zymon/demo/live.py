"""The demo's chambers live on: every minute each sends a reading by the open interface, as a real device would."""

import json
import logging
import threading
import time
import urllib.request
from collections.abc import Callable
from datetime import UTC, datetime

from fastapi import FastAPI

from zymon.api.context import Context
from zymon.core.devices import Kind
from zymon.standins.instruments import dipped, weighed
from zymon.standins.live import STEP_S, LiveChamber
from zymon.store import devices
from zymon.store.climate import hourly_log
from zymon.store.database import Session
from zymon.store.hang import last_hanging, piece, pieces_hanging
from zymon.store.hang_models import Device
from zymon.store.places import NotFoundError, air_now, places, setpoint_at
from zymon.store.warm import stage, warm_batch
from zymon.work.as_forecast import core_piece
from zymon.work.warm.views import forecast_of

from .goods import hook_airs

log = logging.getLogger("zymon.demo")

EVERY_STEPS = 5  # a reading every five minutes when run forward, as loggers do
CALL_OF = 500


def _token(session: Session, known: dict[str, Device], name: str, kind: Kind, place_id: int | None, now_s: int) -> str:
    """A token for a stand-in, which is made known if it is not."""
    if name in known:
        return devices.another_token(session, known[name].id)
    return devices.add_device(session, name, kind, place_id, "stand-in", now_s, True)[1]


class LiveStandins:
    """The chambers of the demo and the clock they share."""

    def __init__(self, app: FastAPI, send: Callable[[str, list[dict[str, object]]], dict[str, int]]) -> None:
        """Set up; `send` brings readings to the open interface under a token and gives its receipt."""
        self.context: Context = app.state.context
        self.send = send
        self.ahead_s = self._was_ahead()
        self.context.clock = self.clock
        self.chambers: dict[str, tuple[LiveChamber, float]] = {}
        self.place_of: dict[str, int] = {}
        self.instruments: dict[str, str] = {}  # token by kind
        self.lock = threading.Lock()
        self._make_known()
        self._load()
        self.context.standins = self

    def _was_ahead(self) -> float:
        """How far it was run ahead before it was stopped [s]: it goes on from its last reading."""
        with self.context.db.reading() as session:
            last_s = max((d.last_s or 0 for d in devices.devices(session)), default=0)
        return max(0.0, last_s - time.time())

    def clock(self) -> float:
        """The simulated time: the real one, and what it was run ahead."""
        return time.time() + self.ahead_s

    def _make_known(self) -> None:
        now_s = int(self.clock())
        with self.context.db.writing("stand-in", now_s) as session:
            known = {d.name: d for d in devices.devices(session)}
            for i, place in enumerate(places(session)):
                name = f"{place.name} logger"
                token = _token(session, known, name, "climate", place.id, now_s)
                air, setpoint = air_now(session, place.id, now_s), setpoint_at(place, now_s)
                self.place_of[token] = place.id
                chamber = LiveChamber(
                    setpoint_c=setpoint.temperature_c if setpoint else None,
                    setpoint_rh_percent=setpoint.rh_percent if setpoint else None,
                    temperature_c=air.temperature_c if air else 13.0,
                    rh_percent=air.rh_percent if air and air.rh_percent is not None else 78.0,
                    seed=100 + i,
                )
                self.chambers[token] = (chamber, float(air.at_s + 3600 if air else now_s))
            carried: tuple[tuple[Kind, str], ...] = (("scale", "Hanging scale"), ("ph", "Spear meter"))
            for kind, name in carried:
                self.instruments[kind] = _token(session, known, name, kind, None, now_s)

    def _show(self, kind: str, key: str, value: float) -> None:
        at = datetime.fromtimestamp(int(self.clock()), UTC).isoformat()
        self.send(self.instruments[kind], [{"at": at, key: value}])

    def weigh(self, piece_id: int) -> None:
        """Put a piece on the simulated scale, which sends its weight."""
        now_s = int(self.clock())
        with self.context.db.reading() as session:
            of = piece(session, piece_id)
            home = last_hanging(of).rod.place
            airs = {
                f"{r.id}/{hook}": air
                for r in home.rods
                for (rod, hook), air in hook_airs(home.name).items()
                if rod == r.number
            }
            log_there = hourly_log(session, home.id, of.hung_s - 3600, now_s)
            core = core_piece(of)
        self._show("scale", "gross_g", weighed(core, log_there, now_s, airs))

    def dip(self, batch_id: int) -> None:
        """Dip the simulated meter into a batch's pinch; it sends the pH."""
        now_s = int(self.clock())
        with self.context.db.reading() as session:
            of = stage(session, batch_id)
            if of is None:
                raise NotFoundError("refused.not_in_the_warm")
            ph = forecast_of(session, warm_batch(session, of, now_s)).ph_now
        self._show("ph", "ph", dipped(ph, now_s))

    def _load(self) -> None:
        """What each chamber has to take up is what its pieces give off now."""
        now_s = int(self.clock())
        with self.context.db.reading() as session:
            for token, (chamber, _) in self.chambers.items():
                hanging = pieces_hanging(session, self.place_of[token])
                made = self.context.dates.of_place(session, self.place_of[token], now_s).by_tag()
                chamber.load_g_per_hour = sum(
                    made[p.tag].rate_percent_per_day / 100 * core_piece(p).net_start_g / 24 for p in hanging
                )

    def run_to(self, until_s: float, every_steps: int) -> int:
        """Step every chamber to a time and send what its sensor shows; how many readings were taken."""
        taken = 0
        with self.lock:
            for token, (chamber, at_s) in list(self.chambers.items()):
                readings: list[dict[str, object]] = []
                n = 0
                while at_s + STEP_S <= until_s:
                    at_s += STEP_S
                    n += 1
                    chamber.step(at_s)
                    if n % every_steps == 0:
                        c, rh = chamber.reading()
                        at = datetime.fromtimestamp(int(at_s), UTC).isoformat()
                        readings.append({"at": at, "temperature_c": c, "rh_percent": rh})
                self.chambers[token] = (chamber, at_s)
                for start in range(0, len(readings), CALL_OF):
                    taken += self.send(token, readings[start : start + CALL_OF])["taken"]
        return taken

    def forward(self, hours: float) -> int:
        """Run the simulated workshop ahead: its clock and its chambers; what people do does not happen by itself."""
        self._load()
        target = self.clock() + hours * 3600
        self.ahead_s += hours * 3600
        return self.run_to(target, EVERY_STEPS)

    def live(self, stop: threading.Event) -> None:
        """Send a reading of every chamber each minute until stopped."""
        while not stop.wait(STEP_S):
            try:
                self.run_to(self.clock(), 1)
            except OSError as error:
                log.warning("the stand-ins could not send: %s", error)


def over_http(base: str) -> Callable[[str, list[dict[str, object]]], dict[str, int]]:
    """Send to a running server, as a device does."""

    def send(token: str, readings: list[dict[str, object]]) -> dict[str, int]:
        request = urllib.request.Request(
            f"{base}/device/v1/readings",
            json.dumps({"readings": readings}).encode(),
            {"Authorization": f"Bearer {token}", "Content-Type": "application/json"},
        )
        with urllib.request.urlopen(request, timeout=60) as answer:
            found: dict[str, int] = json.load(answer)
        return found

    return send


def start(app: FastAPI, base: str) -> None:
    """Let the demo's chambers live on beside a server that is about to run."""
    standins = LiveStandins(app, over_http(base))
    threading.Thread(target=standins.live, args=(threading.Event(),), daemon=True).start()
