"""A server that is killed at any moment and started again, and a maker who sends again what was not answered."""

import random
import signal
import socket
import subprocess
import sys
import threading
import time
from pathlib import Path
from typing import Any

import httpx2

from support import Clock

SERVE = """
import sys, uvicorn
from pathlib import Path
from zymon.app import make_app
from zymon.settings import Settings
db, port, clock = Path(sys.argv[1]), int(sys.argv[2]), Path(sys.argv[3])
app = make_app(Settings(db=db), lambda: float(clock.read_text()), behind_the_scenes=False)
uvicorn.run(app, port=port, log_level="critical", access_log=False)
"""
LONGEST_S = 0.06  # after which a kill comes: some before the entry is kept, some after, some after the answer


class Killed:
    """Stands in for a client of the interface; every so often the server is killed −9 while an entry is on its way."""

    def __init__(self, db: Path, clock: Clock, kills: int, seed: int) -> None:
        self.db, self.clock, self.kills = db, clock, 0
        self.most, self.random = kills, random.Random(seed)
        self.clock_file = db.with_name("clock")
        with socket.create_server(("127.0.0.1", 0)) as free:
            self.port = free.getsockname()[1]
        self.http = httpx2.Client(base_url=f"http://127.0.0.1:{self.port}", timeout=60)
        self.sent = 0
        self.start()

    def start(self) -> None:
        """Start the server and wait until it answers."""
        self._tell_time()
        self.process = subprocess.Popen([sys.executable, "-c", SERVE, self.db, str(self.port), self.clock_file])
        for _ in range(600):
            try:
                self.http.get("/health")
                return
            except httpx2.TransportError:
                time.sleep(0.05)
        raise TimeoutError("the server does not start again")

    def stop(self) -> None:
        """Stop the server."""
        self.process.kill()
        self.process.wait()
        self.http.close()

    def _tell_time(self) -> None:
        new = self.clock_file.with_suffix(".new")
        new.write_text(str(self.clock.now))
        new.replace(self.clock_file)

    def request(self, method: str, url: str, **given: Any) -> httpx2.Response:
        """Send, and send again whatever got no answer: with the same identity it counts once."""
        self._tell_time()
        body = given.get("json")
        if method in ("POST", "PUT") and isinstance(body, dict) and "uid" not in body:
            self.sent += 1
            given["json"] = {"uid": f"entry-{self.sent:05}", **body}
        killer = None
        if method != "GET" and self.kills < self.most and self.random.random() < 0.3:
            self.kills += 1
            killer = threading.Timer(self.random.random() * LONGEST_S, self.process.send_signal, [signal.SIGKILL])
            killer.start()
        try:
            answer = self.http.request(method, url, **given)
        except httpx2.TransportError:
            answer = None
        if killer is not None:
            killer.join()
            self.process.wait()
            self.start()
        return self.http.request(method, url, **given) if answer is None else answer

    def get(self, url: str, **given: Any) -> httpx2.Response:
        """Ask."""
        return self.request("GET", url, **given)

    def post(self, url: str, **given: Any) -> httpx2.Response:
        """Enter."""
        return self.request("POST", url, **given)

    def put(self, url: str, **given: Any) -> httpx2.Response:
        """Set."""
        return self.request("PUT", url, **given)
