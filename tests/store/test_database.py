"""The file on disk: migrations, pragmas, and that nothing acknowledged is lost to a kill."""

import json
import os
import signal
import socket
import sqlite3
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.config import Config
from alembic.migration import MigrationContext
from sqlalchemy import create_engine, event

from support import piece_body
from zymon.store import database
from zymon.store.database import Database
from zymon.store.models import Base

ZYMON = Path(sys.executable).with_name("zymon")


def test_migrations_make_exactly_the_models(tmp_path: Path) -> None:
    db = Database(tmp_path / "w.db")
    with db.engine.connect() as connection:
        # the index of words is no table of ours: the full-text search keeps its own
        ours = {"include_name": lambda name, kind, _: kind != "table" or not str(name).startswith("word_index")}
        assert compare_metadata(MigrationContext.configure(connection, opts=ours), Base.metadata) == []
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA synchronous").scalar() == 2
    db.close()
    Database(tmp_path / "w.db").close()  # a second start finds its tables


def test_an_older_workshop_keeps_its_data(tmp_path: Path) -> None:
    """A file as it was before Salt, Warm and rounds: every row is there after the tables were brought up to date."""
    file = tmp_path / "old.db"
    engine = create_engine(f"sqlite:///{file}")
    event.listen(engine, "connect", database._prepare)
    event.listen(engine, "begin", database._begin)
    config = Config()
    config.set_main_option("script_location", str(Path(database.__file__).parent / "migrations"))
    with engine.execution_options(zymon_write=True).connect() as connection, connection.begin():
        config.attributes["connection"] = connection
        command.upgrade(config, "0004")
    rows = (
        "batch (id, code, product, kind, shape, casing, created_s)"
        " VALUES (1, 'J', 'S', 'salame', 'cylinder', 'none', 1)",
        "piece (id, batch_id, tag, start_weight_g, tare_g, target_loss_percent, hung_s, by)"
        " VALUES (1, 1, 'J-1', 800, 10, 35, 1, 'Ida')",
        "weighing (id, piece_id, at_s, gross_g, by, entered_s, confirmed) VALUES (7, 1, 5, 700, 'Ida', 5, 0)",
        "forecast_record (id, piece_id, weighing_id, made_s, loss_percent, status) VALUES (1, 1, 7, 5, 10, 'drying')",
    )
    with sqlite3.connect(file) as old:
        for row in rows:
            old.execute(f"INSERT INTO {row}")
    old.close()
    db = Database(file)
    with db.engine.connect() as connection:
        assert connection.exec_driver_sql("SELECT id, uid, gross_g FROM weighing").fetchall() == [(7, None, 700.0)]
        assert connection.exec_driver_sql("SELECT weighing_id FROM forecast_record").fetchall() == [(7,)]
        assert connection.exec_driver_sql("PRAGMA foreign_key_check").fetchall() == []
    db.close()


def _call(base: str, path: str, body: dict, method: str = "POST") -> dict:
    body = {"uid": f"entry-{time.monotonic_ns()}", **body}
    request = urllib.request.Request(
        base + path, json.dumps(body).encode(), {"Content-Type": "application/json"}, method=method
    )
    with urllib.request.urlopen(request, timeout=10) as answer:
        return json.load(answer)


@pytest.mark.drill
def test_kill_during_writes_loses_nothing_acknowledged(tmp_path: Path) -> None:
    file = tmp_path / "w.db"
    with socket.create_server(("127.0.0.1", 0)) as free:
        port = free.getsockname()[1]
    server = subprocess.Popen(
        [ZYMON, "serve", "--db", file, "--port", str(port)],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        env={**os.environ, "ZYMON_LOG_LEVEL": "ERROR"},
    )
    assert server.stdout is not None
    base = next(word for word in server.stdout.readline().split() if word.startswith("http")).rstrip("/")
    for _ in range(100):
        try:
            urllib.request.urlopen(base + "/health", timeout=1).close()
            break
        except OSError:
            time.sleep(0.05)
    _call(base, "/api/workshop", {"name": "W", "time_zone": "UTC"}, "PUT")
    place = _call(base, "/api/places", {"name": "C", "hooks_per_rod": [2], "by": "Ida"})["id"]
    with urllib.request.urlopen(f"{base}/api/places/{place}/room") as answer:
        room = json.load(answer)
    piece = _call(base, "/api/pieces", piece_body(room, at="2026-01-02T07:00:00Z"))["card"]["id"]
    acknowledged = []
    for i in range(12):
        weight = 700.0 - i
        body = {"gross_g": weight, "sure": True, "by": "Ida"}
        _call(base, f"/api/pieces/{piece}/weighings", body)
        acknowledged.append(weight)
    server.send_signal(signal.SIGKILL)
    server.wait()
    server.stdout.close()
    stored = [row[0] for row in sqlite3.connect(file).execute("SELECT gross_g FROM weighing ORDER BY id")]
    assert stored == acknowledged
    again = Database(file)
    with again.reading() as session:
        assert session.connection().exec_driver_sql("PRAGMA integrity_check").scalar() == "ok"
    again.close()
