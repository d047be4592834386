"""Clocks: of the machine itself, and of what sends readings."""

import pytest
from fastapi.testclient import TestClient

from support import NOW, Clock, iso, piece_body
from zymon.core.order import odd_clock

HOUR = 3600


def test_a_clock_is_asked_about_beyond_an_hour_and_not_before() -> None:
    assert odd_clock(NOW, NOW + HOUR, 0) is None
    assert odd_clock(NOW, NOW + HOUR + 1, 0).code == "ask.clock_behind"
    assert odd_clock(NOW, None, HOUR) is None
    assert odd_clock(NOW, NOW - 90 * HOUR, HOUR + 1).code == "ask.clock_jumped"  # a quiet week is no jump


def test_a_clock_that_went_back_is_asked_about_and_no_end_comes_before_its_start(
    client: TestClient, chamber: dict, clock: Clock
) -> None:
    hung = client.post("/api/pieces", json=piece_body(chamber))
    piece = hung.json()["card"]["id"]
    clock.now -= 2 * HOUR
    weigh = {"gross_g": 800, "by": "Ida"}
    asked = client.post(f"/api/pieces/{piece}/weighings", json=weigh)
    assert (asked.status_code, asked.json()["code"]) == (409, "doubtful")
    assert "the clock of this machine" in asked.json()["detail"]
    for what in ("take-down", "move"):
        body = {"by": "Ida", "sure": True, "rod_id": chamber["rods"][1]["id"], "hook": 2, "at": iso(clock.now)}
        refused = client.post(f"/api/pieces/{piece}/{what}", json=body)
        assert refused.status_code in (409, 422), (what, refused.text)
    stays = client.get(f"/api/pieces/{piece}").json()["hangings"]
    assert [(stay["hook"], stay["ended_as"]) for stay in stays] == [(1, None)]


def test_a_clock_that_jumps_while_zymon_runs_is_asked_about_once(
    client: TestClient, chamber: dict, clock: Clock
) -> None:
    steady = Clock()
    client.app.state.context.watch_clock(steady)
    reading = {"temperature_c": 12, "rh_percent": 78, "by": "Ida"}

    def read(**more: object):
        return client.post("/api/places/1/readings", json=reading | more)

    assert read().status_code == 201
    clock.now += 40 * HOUR
    steady.now += 40 * HOUR  # a quiet weekend
    assert read().status_code == 201
    clock.now += 30 * HOUR
    steady.now += HOUR
    asked = read()
    assert (asked.status_code, "29 hours" in asked.json()["detail"]) == (409, True)
    assert read(sure=True).status_code == 201
    clock.now += HOUR
    steady.now += HOUR
    assert read().status_code == 201


@pytest.mark.parametrize("at", ["2026-10-03T08:00:00", "2026-10-03 08:00"])
def test_a_device_whose_time_has_no_zone_is_refused(client: TestClient, chamber: dict, at: object) -> None:
    made = client.post("/api/devices", json={"name": "L", "kind": "climate", "place_id": 1, "by": "Ida"}).json()
    reading = {"at": at, "temperature_c": 12, "rh_percent": 78}
    headers = {"Authorization": f"Bearer {made['token']}"}
    answer = client.post("/device/v1/readings", json={"readings": [reading]}, headers=headers)
    assert answer.status_code == 422
    assert "zone" in answer.json()["detail"]
    assert client.get("/api/devices").json()[0]["taken"] == 0


def test_a_device_that_is_switched_off_sends_nothing_until_it_has_a_new_token(
    client: TestClient, chamber: dict, clock: Clock
) -> None:
    made = client.post("/api/devices", json={"name": "L", "kind": "climate", "place_id": 1, "by": "Ida"}).json()

    def send(token: str) -> int:
        reading = {"at": iso(clock.now), "temperature_c": 12, "rh_percent": 78}
        headers = {"Authorization": f"Bearer {token}"}
        return client.post("/device/v1/readings", json={"readings": [reading]}, headers=headers).status_code

    assert send(made["token"]) == 200
    number = made["device"]["id"]
    off = client.post(f"/api/devices/{number}/end", json={"by": "Bo"}).json()
    assert (off["ended_by"], off["silent"]) == ("Bo", False)
    assert send(made["token"]) == 401
    anew = client.post(f"/api/devices/{number}/token", json={"by": "Ida"}).json()
    assert send(made["token"]) == 401
    assert send(anew["token"]) == 200
    lines = [line for line in client.get("/api/changes").json()["lines"] if line["what"] == "device"]
    assert {line["by"] for line in lines} == {"Bo", "Ida"}
    assert made["token"] not in str(lines)
