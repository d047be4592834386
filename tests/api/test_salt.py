"""Salt and Today through the API: put in, look after, take out, tag; the round and its calendar; on real SQLite."""

import time
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from fastapi.testclient import TestClient
from icalendar import Calendar

from built import built_once
from support import NOW, Clock, piece_body, words

DAY = 86_400


@built_once
def fridge(client: TestClient, clock: Clock, chamber: dict) -> int:
    body = {"name": "Salt Fridge", "kind": "salt", "setpoint": {"temperature_c": 3}, "by": "Ida"}
    return client.post("/api/places", json=body).json()["id"]


def put_in(client: TestClient, fridge: int, **changes: object):
    body = {
        "quick": {"code": "N-01", "product": "Neck", "family": "neck"},
        "muscles": [{"raw_g": 1880, "across_mm": 85}, {"raw_g": 1720, "across_mm": 80}],
        "geometry": "cylinder", "way": "measured", "percent": 2.8, "place_id": fridge, "container": "bags", "by": "Ida",
        **changes,
    }  # fmt: skip
    return client.post("/api/salt", json=body)


def note(client: TestClient, pieces: list[int], kind: str, uid: str = "", **changes: object):
    body = {"uid": uid or f"{kind}-{time.monotonic_ns()}", "pieces": pieces, "kind": kind, "by": "Ida", **changes}
    return client.post("/api/salt/events", json=body)


def log_cold(client: TestClient, place: int, from_s: int, to_s: int, c: float = 3.0) -> None:
    rows = "".join(
        f"{datetime.fromtimestamp(t, UTC):%Y-%m-%dT%H:%M:%SZ},{c},75\n" for t in range(from_s, to_s + 1, 1800)
    )
    file = {"file": ("log.csv", f"time,temperature_c,rh_percent\n{rows}".encode(), "text/csv")}
    preview = client.post("/api/imports/preview", files=file, data={"place_id": str(place)})
    assert preview.status_code == 200, preview.text
    client.post(f"/api/imports/{preview.json()['token']}", json={"by": "Ida"}).raise_for_status()


def test_from_salt_to_the_hook(client: TestClient, clock: Clock, chamber: dict, fridge: int) -> None:
    answer = put_in(client, fridge)
    assert answer.status_code == 201, answer.text
    first, second = answer.json()["pieces"]
    assert (first["tag"], first["state"], first["waits"], first["place"]) == (
        "N-01-01",
        "early",
        "elastic",
        "Salt Fridge",
    )
    batch = first["batch_id"]
    assert {h["name"]: h["state"] for h in client.get(f"/api/batches/{batch}/ledger").json()["hurdles"]}[
        "core_salt"
    ] == "pending"

    clock.now += 2 * DAY
    assert note(client, [first["id"], second["id"]], "turn", uid="round-1").status_code == 201
    assert note(client, [first["id"], second["id"]], "turn", uid="round-1").status_code == 201  # a second tap
    turned = client.get(f"/api/salt/{first['id']}").json()
    assert [e["kind"] for e in turned["events"]] == ["turn", "in"]

    clock.now += 20 * DAY
    log_cold(client, fridge, NOW, int(clock.now))
    card = client.get(f"/api/salt/{first['id']}").json()["card"]
    assert (card["state"], card["cold"]["state"]) == ("right", "pending")
    doubtful = note(client, [first["id"]], "out", value=2010)
    assert doubtful.status_code == 409
    assert "look at the zero of the scale" in doubtful.json()["detail"]
    assert client.get(f"/api/salt/{first['id']}").json()["card"]["state"] == "right"  # nothing stored by half
    assert note(client, [first["id"]], "out", value=1796).status_code == 201
    assert note(client, [first["id"]], "blot").status_code == 201
    assert note(client, [first["id"]], "turn").status_code == 409
    assert note(client, [first["id"]], "out", value=1796).status_code == 409

    hook = {"gross_g": 1822, "casing_g": 14, "string_g": 6, "target_loss_percent": 36, "loss_basis": "raw", "by": "Ida"}
    tagged = client.post(f"/api/salt/{first['id']}/hook", json={**hook, "length_mm": 280})
    assert tagged.status_code == 201, tagged.text
    assert tagged.json()["by_basis"] == {
        "raw": pytest.approx(1880 * 0.64 + 20, abs=0.1),
        "cured": pytest.approx(1796 * 0.64 + 20, abs=0.1),
        "hung": pytest.approx(1802 * 0.64 + 20, abs=0.1),
    }
    assert tagged.json()["target_gross_g"] == tagged.json()["by_basis"]["raw"]
    assert client.post(f"/api/salt/{first['id']}/hook", json=hook).status_code == 409
    hurdles = {h["name"]: h for h in client.get(f"/api/batches/{batch}/ledger").json()["hurdles"]}
    assert hurdles["cold_cure"]["state"] == "pending"  # the other one is still in salt
    assert note(client, [second["id"]], "out", value=1650).status_code == 201
    hurdles = {h["name"]: h for h in client.get(f"/api/batches/{batch}/ledger").json()["hurdles"]}
    assert (hurdles["cold_cure"]["state"], hurdles["core_salt"]["state"]) == ("pass", "pass")
    waiting = client.get("/api/bench/waiting").json()
    assert [w["tag"] for w in waiting] == ["N-01-01"]
    hung = piece_body(
        chamber,
        tag="N-01-01",
        batch_code="N-01",
        kind="whole_muscle",
        shape="irregular",
        start_weight_g=1822,
        tare_g=20,
        casing="natural",
        product="Neck",
        fat_percent=12,
        salt_percent=2.8,
        diameter_mm=85,
        length_mm=280,
        target_loss_percent=33,
    )
    assert client.post("/api/pieces", json=hung).status_code == 201


def test_what_cannot_be_is_refused_in_words(client: TestClient, clock: Clock, fridge: int) -> None:
    first = put_in(client, fridge).json()["pieces"][0]

    def at(days: float) -> str:
        return datetime.fromtimestamp(clock.now + days * DAY, UTC).isoformat()

    early = note(client, [first["id"]], "out", value=1800, at=at(-3))
    assert (early.status_code, "was not in salt yet" in early.json()["detail"]) == (422, True)
    assert "still to come" in note(client, [first["id"]], "turn", at=at(2)).json()["detail"]
    assert "still in salt" in note(client, [first["id"]], "soak", value=2).json()["detail"]
    assert "what does it weigh" in note(client, [first["id"]], "out").json()["detail"]
    assert put_in(client, fridge, muscles=[{"raw_g": 900, "across_mm": 4000}]).status_code == 422
    assert put_in(client, fridge, muscles=[{"raw_g": 900, "across_mm": 0}]).status_code == 422
    one = {"raw_g": 900, "across_mm": 60}
    quick = {"code": "N-02", "product": "Neck", "family": "neck"}
    taken = put_in(client, fridge, quick=quick, muscles=[one, {**one, "tag": "N-01-01"}])
    assert taken.status_code == 409
    assert len(client.get("/api/salt").json()["pieces"]) == 2  # all or none
    assert note(client, [first["id"], 999], "turn").status_code == 404
    assert client.get(f"/api/salt/{first['id']}").json()["events"][0]["kind"] == "in"


def test_moved_and_salted_anew_and_struck(client: TestClient, clock: Clock, fridge: int) -> None:
    other = client.post("/api/places", json={"name": "Cold Room", "kind": "salt", "by": "Ida"}).json()["id"]
    first = put_in(client, fridge, way="buried", percent=3.0).json()["pieces"][0]
    assert first["latest"] is not None
    clock.now += DAY
    assert note(client, [first["id"]], "move", place_id=other, container="tub 2").status_code == 201
    moved = note(client, [first["id"]], "way", way="measured", percent=1.2).json()["pieces"][0]
    assert (moved["place"], moved["container"], moved["way"], moved["latest"]) == (
        "Cold Room",
        "tub 2",
        "measured",
        None,
    )
    assert moved["mean_percent"] > 1
    event = next(e for e in client.get(f"/api/salt/{first['id']}").json()["events"] if e["kind"] == "way")
    struck = client.post(f"/api/salt/events/{event['id']}/strike", json={"reason": "wrong piece", "by": "Ida"})
    assert struck.json()["pieces"][0]["way"] == "buried"
    kept = client.get(f"/api/salt/{first['id']}").json()["events"]
    assert next(e for e in kept if e["kind"] == "way")["struck_reason"] == "wrong piece"


def test_the_round_and_its_calendar_over_a_clock_change(client: TestClient, clock: Clock, fridge: int) -> None:
    clock.now = datetime(2026, 10, 23, 7, 0, tzinfo=UTC).timestamp()  # clocks go back on the 25th
    put_in(client, fridge)
    round_now = client.get("/api/today").json()
    turn = next(c for c in round_now["later"] if "Turn" in words(c["title"]))
    due = datetime.fromisoformat(turn["best"])
    assert due == datetime(2026, 10, 24, 19, 0, tzinfo=UTC)

    def events() -> dict[str, datetime]:
        read = Calendar.from_ical(client.get("/api/today.ics").content)
        return {str(e["uid"]): e["dtstart"].dt for e in read.walk("VEVENT")}

    before = events()
    uid = next(u for u in before if "turn" in u)
    assert before[uid] == due.astimezone(ZoneInfo("Europe/Rome"))
    clock.now += 3600
    assert events()[uid] == before[uid]  # the same step keeps its identifier and its time
    clock.now += 3 * DAY  # past the change, and missed: it moves to now
    again = events()
    moved = again[uid]
    assert moved.utcoffset() == timedelta(hours=1)
    assert moved.timestamp() == clock.now
    late = next(c for c in client.get("/api/today").json()["due"] if "Turn" in words(c["title"]))
    assert (late["when"], late["missed"]) == ("late", 1)
    pieces = late["action"]["pieces"]
    assert note(client, pieces, late["action"]["kinds"][0]).status_code == 201
    assert all("Turn" not in words(c["title"]) for c in client.get("/api/today").json()["due"])
    assert uid not in events()


def test_free_salt_under_a_press_is_not_taken_for_a_dose(client: TestClient, clock: Clock, fridge: int) -> None:
    quick = {"code": "R-01", "product": "Coated beef", "family": "coated_beef"}
    one = {"raw_g": 900, "across_mm": 40}
    first, *_ = put_in(
        client, fridge, quick=quick, muscles=[one, one], geometry="slab", way="pressed", percent=2.7, free_salt=True
    ).json()["pieces"]
    url = f"/api/batches/{first['batch_id']}/ledger"

    def salt() -> str:
        return next(h["state"] for h in client.get(url).json()["hurdles"] if h["name"] == "salt")

    assert salt() == "unknown"
    note(client, [first["id"]], "way", way="measured", percent=2.7)
    assert salt() == "unknown"  # its mate still lies under free salt


def test_many_steps_are_all_counted(client: TestClient, clock: Clock, fridge: int) -> None:
    piece = put_in(client, fridge, way="buried", percent=3.0).json()["pieces"][0]
    for _ in range(12):
        clock.now += 3600
        assert note(client, [piece["id"]], "way", way="buried", percent=3.0).status_code == 201
    clock.now += DAY
    assert note(client, [piece["id"]], "out", value=1800, sure=True).status_code == 201
    salty = client.get(f"/api/salt/{piece['id']}").json()["card"]["mean_percent"]
    assert note(client, [piece["id"]], "soak", value=2).status_code == 201
    clock.now += DAY
    assert client.get(f"/api/salt/{piece['id']}").json()["card"]["mean_percent"] < salty - 0.05
