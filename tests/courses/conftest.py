"""A kitchen with nothing in it, and a clock that the course moves."""

import pytest
from fastapi.testclient import TestClient

from courses.kitchen import Kitchen
from support import Clock


@pytest.fixture
def kitchen(client: TestClient, clock: Clock) -> Kitchen:
    client.put("/api/workshop", json={"name": "A kitchen", "time_zone": "Europe/Rome"}).raise_for_status()
    return Kitchen(client, clock)
