"""Fixtures shared by all tests: a clock that stands still, a workshop on real SQLite, and its API."""

import gc
import os
import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from argon2 import PasswordHasher
from benchmarks.maker import Maker
from fastapi.testclient import TestClient
from hypothesis import settings

from built import application, built_once, give_back
from engines import share_what_is_compiled
from support import Clock
from zymon.app import settle
from zymon.settings import Settings
from zymon.store.database import Database
from zymon.work.house import people

# how quick something is is measured by `make bench`, not here; EXPLORE=1 looks for cases nobody has seen yet
settings.register_profile("same", deadline=None, derandomize=True)
settings.register_profile("explore", deadline=None, derandomize=False, max_examples=1000)
settings.load_profile("explore" if os.environ.get("EXPLORE") else "same")


share_what_is_compiled()
people.HASHER = PasswordHasher(time_cost=1, memory_cost=64, parallelism=1)  # what is to be slow has a test of its own
gc.disable()  # until all tests are read: nothing of them is garbage


def pytest_collection_finish() -> None:
    """What was read stays for the whole run: the search for garbage leaves it out, as it does where Zymon serves."""
    gc.enable()
    settle()


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """What takes long and seldom turns red runs with `make drills` alone."""
    if os.environ.get("DRILLS") == "1":
        return
    for item in items:
        if item.get_closest_marker("drill"):
            item.add_marker(pytest.mark.skip(reason="runs with `make drills`"))


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture(scope="session")
def empty_workshop(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A file with all its tables and nothing in them: made once, copied for each test."""
    file = tmp_path_factory.mktemp("empty") / "workshop.db"
    Database(file).close()
    return file


@pytest.fixture
def client(tmp_path: Path, clock: Clock, empty_workshop: Path) -> Iterator[TestClient]:
    """The interface on real SQLite; dates are made as part of each entry, so that an answer can be asserted at once."""
    shutil.copy(empty_workshop, tmp_path / "workshop.db")
    app = application(Settings(db=tmp_path / "workshop.db", max_upload_mb=60), clock)
    with Maker(app) as made:
        yield made
    give_back(app)


@built_once
def chamber(client: TestClient, clock: Clock) -> dict:  # what is built is copied with its time
    """A workshop with one chamber of two rods."""
    client.put("/api/workshop", json={"name": "Test cellar", "time_zone": "Europe/Rome"}).raise_for_status()
    made = client.post(
        "/api/places",
        json={
            "name": "Cellar",
            "hooks_per_rod": [4, 4],
            "setpoint": {"temperature_c": 13, "rh_percent": 78},
            "by": "Ida",
        },
    )
    made.raise_for_status()
    return client.get(f"/api/places/{made.json()['id']}/room").json()
