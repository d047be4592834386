"""The room on the disk is told, and old readings are thinned on an owner's wish alone, once they know what goes."""

import time
from datetime import datetime

import pytest
from fastapi.testclient import TestClient

from support import NOW, Clock
from zymon.core.house.thinning import WORTH_READINGS, full_since
from zymon.store.climate import Source, add_readings
from zymon.work.premises import moment

DAY = 86_400
OLD_S = NOW - 800 * DAY


def minutes(client: TestClient, place: int, days: float, from_s: int = OLD_S) -> None:
    rows = [(at, 13.0 + at % 7 / 10, 78.0) for at in range(from_s, from_s + int(days * DAY), 60)]
    with client.app.state.context.db.writing("Ida", NOW) as session:  # type: ignore[attr-defined]
        for i in range(0, len(rows), 5000):
            add_readings(session, place, rows[i : i + 5000], Source())


def until_done(client: TestClient) -> dict:
    for _ in range(400):
        told = client.get("/api/disk").json()
        if told["share_done"] is None:
            return told
        time.sleep(0.02)
    raise AssertionError("it never came to an end")


def test_what_there_is_is_told_and_nothing_offered_that_brings_nothing(client: TestClient, chamber: dict) -> None:
    minutes(client, chamber["place"]["id"], 8.6)  # 12,384 minutes, of which 9,908 would go
    told = client.get("/api/disk").json()
    assert told["readings"] == 12_384
    assert told["would_go"] == told["would_free_bytes"] == 0
    assert told["record_bytes"] > 400_000
    assert told["free_bytes"] > 0
    refused = client.post("/api/disk/thinning", json={"by": "Ida", "sure": True})
    assert refused.status_code == 422
    assert "hardly a reading is older than" in refused.json()["detail"]


def test_it_is_asked_about_done_while_others_enter_and_told(client: TestClient, chamber: dict) -> None:
    place = chamber["place"]["id"]
    minutes(client, place, 40)
    before = client.get("/api/disk").json()
    assert before["would_go"] == 40 * 1440 - 40 * 288 > WORTH_READINGS
    asked = client.post("/api/disk/thinning", json={"by": "Ida"})
    assert (asked.status_code, asked.json()["code"]) == (409, "doubtful")
    assert "Of 46,080 readings older than" in asked.json()["detail"]
    assert client.get("/api/disk").json()["thinnings"] == []
    begun = client.post("/api/disk/thinning", json={"by": "Ida", "sure": True})
    assert begun.status_code == 202
    typed = {"temperature_c": 12.0, "rh_percent": 77, "by": "Nives"}
    client.post(f"/api/places/{place}/readings", json=typed).raise_for_status()
    told = until_done(client)
    assert told["failed"] is None
    act = told["thinnings"][0]
    assert (act["by"], act["readings_before"], act["readings_after"]) == ("Ida", 40 * 1440, 40 * 288)
    assert act["ended"] is not None
    assert told["readings"] == 40 * 288 + 1
    assert told["would_go"] == 0
    assert told["unused_bytes"] > before["unused_bytes"]  # filled first by what comes


def test_what_was_broken_off_is_gone_on_with_and_not_asked_again(client: TestClient, chamber: dict) -> None:
    minutes(client, chamber["place"]["id"], 40)
    thinner = client.app.state.context.thinner  # type: ignore[attr-defined]
    thinner._stop.set()  # the server stops
    client.post("/api/disk/thinning", json={"by": "Ida", "sure": True}).raise_for_status()
    part = until_done(client)
    assert (part["thinnings"][0]["ended"], part["readings"]) == (None, 40 * 1440)
    thinner._stop.clear()
    client.post("/api/disk/thinning", json={"by": "Nives"}).raise_for_status()
    whole = until_done(client)
    assert [(one["by"], one["readings_after"]) for one in whole["thinnings"]] == [("Ida", 40 * 288)]


def test_the_same_file_once_more_brings_nothing_after_thinning(client: TestClient, chamber: dict, clock: Clock) -> None:
    place = chamber["place"]["id"]
    lines = [f"{moment(OLD_S // 60 * 60 + i * 60):%Y-%m-%dT%H:%M:%SZ},{13 + i % 3 / 10:.1f},78" for i in range(20_000)]
    content = "time,temperature (°C),humidity\n" + "\n".join(lines) + "\n"

    def seen() -> dict:
        data = {"place_id": place}
        return client.post("/api/imports/preview", files={"file": ("log.csv", content)}, data=data).json()

    client.post(f"/api/imports/{seen()['token']}", json={"by": "Ida", "sure": True}).raise_for_status()
    client.post("/api/disk/thinning", json={"by": "Ida", "sure": True}).raise_for_status()
    assert until_done(client)["readings"] == 20_000 // 5
    again = seen()
    assert (again["new"], again["same"], again["conflict"]) == (0, 20_000, 0)


@pytest.mark.parametrize(
    ("now", "since"),
    [
        ("2026-10-03T00:00:00+00:00", "2024-10-03T00:00:00+00:00"),
        ("2026-10-03T23:59:59+00:00", "2024-10-03T00:00:00+00:00"),
        ("2028-02-29T12:00:00+00:00", "2026-02-28T00:00:00+00:00"),
    ],
)
def test_two_years_by_the_calendar_stay_as_they_came(now: str, since: str) -> None:
    assert full_since(datetime.fromisoformat(now)) == datetime.fromisoformat(since)
