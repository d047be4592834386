"""The open interface for devices, the place's sensor put to the test, and a simulated chamber run for weeks."""

from datetime import datetime

import numpy as np
import pytest
from fastapi.testclient import TestClient

from support import NOW, Clock, iso, piece_body, words
from zymon.standins.live import STEP_S, LiveChamber
from zymon.work import devices as work
from zymon.work.showing import SHOWN_FOR_S

BY = {"by": "Ida"}
DAY = 86_400


def known(client: TestClient, room: dict, kind: str = "climate") -> str:
    body = {
        "name": f"a {kind}",
        "kind": kind,
        "place_id": room["place"]["id"] if kind in ("climate", "thermometer") else None,
        **BY,
    }
    answer = client.post("/api/devices", json=body)
    assert answer.status_code == 201, answer.text
    return answer.json()["token"]


def send(client: TestClient, token: str, *readings: dict):
    head = {"Authorization": f"Bearer {token}"}
    return client.post("/device/v1/readings", json={"readings": list(readings)}, headers=head)


def climate(at: float, c: float = 13.0, rh: float = 78.0) -> dict:
    return {"at": iso(at), "temperature_c": c, "rh_percent": rh}


def test_late_repeated_disordered_and_impossible_readings_are_counted(client: TestClient, chamber: dict) -> None:
    token = known(client, chamber)
    first = send(client, token, climate(NOW - 600), climate(NOW - 1200), climate(NOW - 600)).json()
    assert first == {"taken": 2, "repeated": 1, "late": 0, "impossible": 0, "problems": []}
    late = send(client, token, climate(NOW - 3600), climate(NOW - 1200)).json()
    assert (late["taken"], late["repeated"], late["late"]) == (1, 1, 1)
    wrong = send(
        client, token, climate(NOW + 365 * DAY), climate(NOW - 500 * DAY), climate(NOW, c=75), climate(NOW, rh=130),
        {"at": iso(NOW), "gross_g": 500},
    ).json()  # fmt: skip
    assert (wrong["taken"], wrong["impossible"], len(wrong["problems"])) == (0, 5, 5)
    assert "degrees Fahrenheit" in wrong["problems"][2]
    device = client.get("/api/devices").json()[0]
    assert [device[k] for k in ("taken", "repeated", "late", "impossible")] == [3, 2, 1, 5]
    assert client.get("/api/line").json()["places"][0]["air"]["temperature_c"] == 13


def test_a_wrong_token_a_flood_and_silence(
    client: TestClient, clock: Clock, chamber: dict, monkeypatch: pytest.MonkeyPatch
) -> None:
    token = known(client, chamber)
    assert send(client, "nonsense", climate(NOW)).status_code == 401
    assert client.post("/device/v1/readings", json={"readings": [climate(NOW)]}).status_code == 401
    assert send(client, token).status_code == 422
    monkeypatch.setattr(work, "CALLS_PER_MINUTE", 3)
    codes = [send(client, token, climate(NOW - 60 * i)).status_code for i in range(5)]
    assert codes == [200, 200, 200, 429, 429]
    assert not client.get("/api/devices").json()[0]["silent"]
    clock.now += 3600
    assert client.get("/api/devices").json()[0]["silent"]
    old = client.get("/api/devices").json()[0]["id"]
    fresh = client.post(f"/api/devices/{old}/token", json=BY).json()["token"]
    assert send(client, token, climate(NOW)).status_code == 401
    assert fresh != token


def test_a_scale_sends_its_weight(client: TestClient, chamber: dict) -> None:
    token = known(client, chamber, "scale")
    assert send(client, token, {"at": iso(NOW), "gross_g": 612.5}).json()["taken"] == 1
    assert client.get("/api/devices").json()[0]["value"] == 612.5
    assert send(client, token, {"at": iso(NOW), "gross_g": -3}).json()["impossible"] == 1


def test_a_sensor_put_to_the_test_moves_what_is_worked_out_and_not_the_log(client: TestClient, chamber: dict) -> None:
    token, place = known(client, chamber), chamber["place"]["id"]
    send(client, token, *[climate(NOW - 600 * i) for i in range(400)])
    card = client.post("/api/pieces", json=piece_body(chamber)).json()["card"]
    before = client.get(f"/api/pieces/{card['id']}").json()["card"]["ready"]["p50"]
    tested = client.post(f"/api/places/{place}/sensor-tests", json={"shown_rh_percent": 81.5, **BY}).json()
    assert tested["offset_rh"] == -6.0
    assert client.get(f"/api/pieces/{card['id']}").json()["card"]["ready"]["p50"] < before  # truly drier: sooner
    log = client.get(f"/api/places/{place}/climate", params={"from_s": NOW - DAY, "to_s": NOW}).json()
    assert set(log["rh_percent"]) == {78.0}
    broken = client.post(f"/api/places/{place}/sensor-tests", json={"shown_rh_percent": 30, **BY})
    assert (broken.status_code, "broken" in broken.json()["detail"]) == (422, True)
    test_id = tested["tests"][0]["id"]
    url = f"/api/places/{place}/sensor-tests/{test_id}/strike"
    assert client.post(url, json={"reason": "jar not closed", **BY}).json()["offset_rh"] == 0


def test_a_whole_chamber_set_otherwise(client: TestClient, chamber: dict) -> None:
    for hook in (1, 2):
        client.post("/api/pieces", json=piece_body(chamber, tag=f"J-14-0{hook}", hook=hook)).raise_for_status()
    place = chamber["place"]["id"]
    shifts = client.post(f"/api/places/{place}/what-if", json={"rh_percent": 68}).json()
    assert [s["days_later"] < -1 for s in shifts] == [True, True]
    assert all(s["pace_after"] > s["pace_before"] for s in shifts)
    assert all(1 > s["ring_after"] > s["ring_before"] > 0 for s in shifts)
    same = client.post(f"/api/places/{place}/what-if", json={}).json()
    assert [s["days_later"] for s in same] == [0, 0]
    assert all(s["ring_after"] == s["ring_before"] for s in same)


@pytest.mark.drill
def test_sixty_days_of_a_simulated_chamber_lose_no_reading(client: TestClient, clock: Clock, chamber: dict) -> None:
    token, place = known(client, chamber), chamber["place"]["id"]
    for hook in range(1, 5):
        client.post("/api/pieces", json=piece_body(chamber, tag=f"J-14-0{hook}", hook=hook)).raise_for_status()
    live = LiveChamber(13.0, 78.0, 13.0, 78.0, load_g_per_hour=4.0, seed=9)
    sent = 0
    windows = []
    for day in range(60):
        readings = []
        for minute in range(0, 1440):
            at = NOW + day * DAY + (minute + 1) * STEP_S
            live.step(at)
            if minute % 15 == 14:
                readings.append(climate(at, *live.reading()))
        clock.now = NOW + (day + 1) * DAY
        sent += send(client, token, *readings).json()["taken"]
        if day % 15 == 0:
            ready = client.get(f"/api/places/{place}/room").json()["pieces"][0]["ready"]
            windows.append(tuple(datetime.fromisoformat(ready[k]).timestamp() for k in ("p10", "p50", "p90")))
    assert sent == 60 * 96 == client.get("/api/devices").json()[0]["taken"]
    assert client.get(f"/api/places/{place}/facts?days=60").json()["in_band"] > 0.9
    dates = np.array(windows)
    assert (np.diff(dates, axis=1) >= 0).all()
    spread = (dates[:, 1].max() - dates[:, 1].min()) / (dates[0, 2] - dates[0, 0])
    assert spread < 0.5  # a steady chamber does not throw the date about


def test_an_outage_stands_in_the_round(client: TestClient, clock: Clock, chamber: dict) -> None:
    token, place = known(client, chamber), chamber["place"]["id"]
    send(client, token, *[climate(NOW - 900 * i, c=13.0) for i in range(100, 180)])
    send(client, token, *[climate(NOW - 900 * i, c=19.0 if 40 <= i < 60 else 13.0) for i in range(100)])
    due = client.get("/api/today").json()["due"]
    line = next(c for c in due if c["id"].startswith(f"outage-{place}"))
    assert words(line["title"]) == "Cellar was too warm for 5 h: look at what was in it"


def test_what_if_it_hung_elsewhere_or_in_another_casing(client: TestClient, chamber: dict) -> None:
    card = client.post("/api/pieces", json=piece_body(chamber, casing="none")).json()["card"]
    url = f"/api/pieces/{card['id']}/what-if"
    wrapped = client.post(url, json={"casing": "membrane"}).json()
    assert wrapped["days_later"] > 0.5
    rod = chamber["rods"][0]["id"]
    assert client.post(url, json={"rod_id": rod, "hook": 3}).json()["days_later"] == 0  # nothing is known of it yet


def test_what_a_scale_shows_is_offered_with_its_age_and_whether_it_is_at_rest(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    token = known(client, chamber, "scale")
    assert client.get("/api/devices/showing").json() == []
    for i, gross_g in enumerate((800, 812, 812.5)):
        send(client, token, {"at": iso(clock.now + i), "gross_g": gross_g})
    (shown,) = client.get("/api/devices/showing").json()
    assert (shown["kind"], shown["value"], shown["steady"]) == ("scale", 812.5, False)
    clock.now += 5
    send(client, token, {"at": iso(clock.now - 2), "gross_g": 812})
    (shown,) = client.get("/api/devices/showing").json()
    assert (shown["value"], shown["steady"], shown["age_s"]) == (812.0, True, 2.0)
    send(client, token, {"at": iso(clock.now), "gross_g": 812, "steady": False})
    assert not client.get("/api/devices/showing").json()[0]["steady"]  # what the scale says of itself goes before
    clock.now += SHOWN_FOR_S - 1
    assert len(client.get("/api/devices/showing").json()) == 1
    clock.now += 1
    assert client.get("/api/devices/showing").json() == []


def test_a_thermometer_alone_tells_of_its_place_and_its_silence_is_noticed(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    token = known(client, chamber, "thermometer")
    assert send(client, token, {"at": iso(NOW - 60), "temperature_c": 13.0}).json()["taken"] == 1
    assert send(client, token, climate(NOW - 120)).json()["taken"] == 1  # what it does not measure is left out
    assert client.get("/api/line").json()["places"][0]["air"]["temperature_c"] == 13.0
    clock.now += 1801
    assert client.get("/api/devices").json()[0]["silent"]
    refused = client.post("/api/devices", json={"name": "t2", "kind": "thermometer", **BY})
    assert refused.status_code == 409


def test_the_registry_tells_the_page_which_kinds_there_are(client: TestClient) -> None:
    kinds = {one["kind"]: one for one in client.get("/api/devices/kinds").json()}
    assert {kind for kind, one in kinds.items() if one["has_place"]} == {"climate", "thermometer"}
    assert {kind for kind, one in kinds.items() if one["steady_when"]} == {"scale", "ph"}
    assert client.get("/api/devices/broker").json()["state"] == "none"


def test_what_was_changed_names_places_rather_than_numbers(client: TestClient, chamber: dict) -> None:
    known(client, chamber)
    (device,) = client.get("/api/devices").json()
    loft = {"name": "Loft", "hooks_per_rod": [2], "setpoint": {"temperature_c": 12, "rh_percent": 75}, **BY}
    other = client.post("/api/places", json=loft).json()["id"]
    client.put(f"/api/devices/{device['id']}/place", json={"place_id": other, **BY}).raise_for_status()
    (line,) = client.get("/api/changes").json()["lines"]
    assert line["fields"] == [{"field": "place_id", "before": "Cellar", "after": "Loft"}]
