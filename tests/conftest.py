"""Fixtures shared by all tests: a clock that stands still, a workshop on real SQLite, and its API."""

import os
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from support import Clock
from zymon.app import make_app
from zymon.settings import Settings

# how quick something is is measured by `make bench`, not here; EXPLORE=1 looks for cases nobody has seen yet
settings.register_profile("same", deadline=None, derandomize=True)
settings.register_profile("explore", deadline=None, derandomize=False, max_examples=1000)
settings.load_profile("explore" if os.environ.get("EXPLORE") else "same")


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def client(tmp_path: Path, clock: Clock) -> Iterator[TestClient]:
    app = make_app(Settings(db=tmp_path / "workshop.db", max_upload_mb=60), clock)
    with TestClient(app) as made:
        yield made
    app.state.context.db.close()


@pytest.fixture
def chamber(client: TestClient) -> dict:
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
