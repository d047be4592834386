"""Warm and the ledger through the API: stage, pH, allowance, discard; laboratory, parasites, limits; on real SQLite."""

import copy
import time
from datetime import UTC, datetime

import pytest
from fastapi.testclient import TestClient

from built import built_once
from making import made
from support import Clock, iso, piece_body, sheet_body, words

HOUR = 3600
BY = {"by": "Ida"}


@built_once
def box(client: TestClient, clock: Clock, chamber: dict) -> int:
    body = {"name": "Cupboard", "kind": "warm", "setpoint": {"temperature_c": 25, "rh_percent": 90}, **BY}
    return client.post("/api/places", json=body).json()["id"]


def log(
    client: TestClient, place: int, from_s: float, to_s: float, c: float = 25.0, step_s: int = 600, rh: float = 90
) -> None:
    rows = "".join(
        f"{datetime.fromtimestamp(t, UTC):%Y-%m-%dT%H:%M:%SZ},{c},{rh}\n"
        for t in range(int(from_s), int(to_s) + 1, step_s)
    )
    file = {"file": ("box.csv", f"time,temperature_c,rh_percent\n{rows}".encode())}
    seen = client.post("/api/imports/preview", files=file, data={"place_id": str(place)})
    seen.raise_for_status()
    client.post(f"/api/imports/{seen.json()['token']}", json=BY).raise_for_status()


def begin(client: TestClient, box: int, at_s: float, **changes: object) -> tuple[int, dict]:
    batch = made(client, copy.deepcopy(sheet_body()), f"J-{time.monotonic_ns() % 100000}")["id"]
    body = {"place_id": box, "stuffed_at": iso(at_s), "culture": "medium", "dextrose_percent": 0.4, "salt_percent": 2.7,
            "start_ph": 5.8, "target_ph": 5.1, **BY, **changes}  # fmt: skip
    answer = client.put(f"/api/warm/{batch}/stage", json=body)
    assert answer.status_code == 200, answer.text
    return batch, answer.json()


def read(client: TestClient, batch: int, ph: float, **changes: object):
    body = {"uid": f"u-{time.monotonic_ns()}", "ph": ph, **BY, **changes}
    return client.post(f"/api/warm/{batch}/readings", json=body)


def hurdle(client: TestClient, batch: int, name: str) -> dict:
    hurdles = client.get(f"/api/batches/{batch}/ledger").json()["hurdles"]
    return next(h for h in hurdles if h["name"] == name)


def test_a_ph_file_finds_its_batch_asks_and_is_taken_back_whole(client: TestClient, clock: Clock, box: int) -> None:
    batch, _ = begin(client, box, clock.now - 24 * HOUR)
    code = client.get(f"/api/warm/{batch}").json()["card"]["batch"]

    def at(hours: float) -> str:
        return iso(clock.now + (hours - 24) * HOUR)

    def preview(text: str):
        return client.post("/api/imports/preview", files={"file": ("ph.csv", text)}, data={"place_id": box})

    text = (
        f"batch,at,ph,sample_temperature_c,meter\n{code},{at(5)},5.70,21,Unheard of\n{code},{at(12)},9.9,,\n"
        f"X-1,{at(12)},5.2,,\n{code},{at(-3)},5.9,,\n"
    )
    seen = preview(text).json()
    assert (seen["kind"], seen["new"], seen["error_count"]) == ("ph", 1, 2)
    assert [row["shown"] for row in seen["doubtful"]] == [f"{code}: pH 9.90"]
    assert "Unheard of" in " ".join(seen["notes"])
    go = {"leave_out_faults": True, "leave": [3], **BY}
    done = client.post(f"/api/imports/{seen['token']}", json=go).json()
    readings = client.get(f"/api/warm/{batch}").json()["readings"]
    assert [(r["ph"], r["sample_c"], r["struck_reason"]) for r in readings] == [(5.7, 21.0, None)]
    assert preview(text).json()["same"] == 1
    client.post(f"/api/imports/{done['id']}/take-back", json={"by": "Ida", "reason": "of another bowl"})
    assert client.get(f"/api/warm/{batch}").json()["readings"][0]["struck_reason"] == "of another bowl"
    client.post(f"/api/imports/{done['id']}/bring-back", json={"by": "Ida", "reason": "it was ours"})
    stands = [r["ph"] for r in client.get(f"/api/warm/{batch}").json()["readings"] if r["struck_reason"] is None]
    assert stands == [5.7]


def test_from_stuffing_to_sour_enough(client: TestClient, clock: Clock, box: int) -> None:
    start = clock.now
    waiting = made(client, copy.deepcopy(sheet_body()), "J-50")
    assert [w["batch"] for w in client.get("/api/warm").json()["waiting"]] == ["J-50"]
    assert hurdle(client, waiting["id"], "degree_hours")["state"] == "unknown"
    batch, first = begin(client, box, start)
    assert first["card"]["state"] == "waiting"
    assert first["card"]["crosses"]["p50"] > iso(start)
    clock.now = start + 15 * HOUR
    log(client, box, start - HOUR, clock.now)
    slip = read(client, batch, 53.0)
    assert (slip.status_code, slip.json()["detail"]) == (409, "pH 53 cannot be: 5.3?")
    assert read(client, batch, 53.0, sure=True).status_code == 422  # no answer makes it a pH
    for beyond in (2.9, 9.1):
        assert "between 3 and 9" in read(client, batch, beyond, sure=True).json()["detail"]
    fahrenheit = read(client, batch, 5.45, sample_c=72)
    assert "In degrees Fahrenheit that is 22 °C" in fahrenheit.json()["detail"]
    assert "before it was stuffed" in read(client, batch, 5.6, at=iso(start - HOUR), sure=True).json()["detail"]
    once = {"uid": "reading-1", "ph": 5.47, **BY}
    for _ in range(2):  # sent twice it counts once
        assert client.post(f"/api/warm/{batch}/readings", json=once).status_code == 201
    falling = client.get(f"/api/warm/{batch}").json()
    assert len(falling["readings"]) == 1
    card = falling["card"]
    assert card["state"] == "falling"
    assert (card["allowance"]["profile"], card["allowance"]["unit"]) == ("United States", "°F h")
    assert card["allowance"]["used"] == pytest.approx(15 * 17, rel=0.02)  # 25 °C is 17 °F over 60 °F
    assert iso(clock.now) < card["measure_next"] < card["allowance"]["runs_out"]
    cooler = client.post(f"/api/warm/{batch}/what-if", json={"setpoint_c": 15}).json()
    assert cooler["crosses"]["p50"] is None or cooler["crosses"]["p50"] > card["crosses"]["p50"]
    today = client.get("/api/today").json()
    assert any("Measure the pH" in words(c["title"]) for c in [*today["due"], *today["later"]])

    clock.now = start + 22 * HOUR
    log(client, box, start + 15 * HOUR + 600, clock.now)
    likely = client.get(f"/api/warm/{batch}").json()["card"]
    assert (likely["state"], likely["measured_at"]) == ("likely", None)  # by the model alone
    assert likely["measure_next"] == iso(clock.now)
    assert any("Measure the pH" in words(c["title"]) for c in client.get("/api/today").json()["due"])
    assert read(client, batch, 5.22).status_code == 201
    assert hurdle(client, batch, "acid")["settles"].startswith("measure once more")  # of a meter nobody checked
    assert hurdle(client, batch, "degree_hours")["state"] == "pending"
    clock.now += 31 * 60
    log(client, box, clock.now - 600, clock.now)
    assert read(client, batch, 5.2).status_code == 201
    assert (hurdle(client, batch, "acid")["state"], hurdle(client, batch, "degree_hours")["state"]) == ("pass", "pass")
    assert touches_due(client) == [["cool"], ["mould", "vinegar"], ["hang"]]
    for i, way in enumerate(("cool", "vinegar")):
        client.post(f"/api/warm/{batch}/events", json={"uid": f"touch-{i}", "kind": way, **BY}).raise_for_status()
    assert touches_due(client) == [["hang"]]
    done = client.post(f"/api/warm/{batch}/events", json={"uid": "ev-1", "kind": "hang", **BY}).json()
    assert [c["batch_id"] for c in done["ended"]] == [batch]


def touches_due(client: TestClient) -> list[list[str]]:
    """What the round asks of the hand at the Warm, in order."""
    due = client.get("/api/today").json()["due"]
    return [c["action"]["kinds"] for c in due if c["station"] == "warm" and c["action"]]


def test_goods_in_a_dry_box_are_sprayed_every_few_hours(client: TestClient, clock: Clock, box: int) -> None:
    start = clock.now
    batch, _ = begin(client, box, start)
    clock.now = start + 10 * HOUR
    log(client, box, start, clock.now, rh=62)
    assert touches_due(client) == [["spray"]]
    client.post(f"/api/warm/{batch}/events", json={"uid": "spray-1", "kind": "spray", **BY}).raise_for_status()
    assert touches_due(client) == []
    clock.now += 7 * HOUR
    log(client, box, start + 10 * HOUR, clock.now, rh=62)
    assert touches_due(client) == [["spray"]]


def test_a_stalled_one_is_over_its_allowance_and_goes(
    client: TestClient, clock: Clock, chamber: dict, box: int
) -> None:
    start = clock.now
    batch, _ = begin(client, box, start)
    clock.now = start + 75 * HOUR
    log(client, box, start, clock.now, c=26.0)
    for hour, ph in ((15, 5.76), (24, 5.75), (48, 5.72)):
        assert read(client, batch, ph, at=iso(start + hour * HOUR), sure=True).status_code == 201
    card = client.get(f"/api/warm/{batch}").json()["card"]
    assert card["state"] == "over_allowance"
    assert "culture dead" in words(card["causes"][0])
    assert "hold it" in words(card["possible"][0])
    assert hurdle(client, batch, "degree_hours")["state"] == "fail"
    signed = client.post(
        f"/api/batches/{batch}/signatures", json={"hurdle": "degree_hours", "reason": "smells fine", **BY}
    )
    assert signed.status_code == 409  # a fail is not signed away
    # nor by moving the stuffing to this moment: the readings would lie before it
    moved = {"place_id": box, "stuffed_at": iso(clock.now), "culture": "medium", "target_ph": 5.1, "sure": True, **BY}
    assert client.put(f"/api/warm/{batch}/stage", json=moved).status_code == 422
    assert hurdle(client, batch, "degree_hours")["state"] == "fail"
    why = {"uid": "ev-2", "kind": "discard", **BY}
    assert client.post(f"/api/warm/{batch}/events", json=why).status_code == 422
    client.post(f"/api/warm/{batch}/events", json={**why, "note": "did not sour"}).raise_for_status()
    assert read(client, batch, 5.2, sure=True).status_code == 409
    told = client.get(f"/api/batches/{batch}").json()
    assert told["discarded"] == "Ida: did not sour"
    code = told["code"]
    hung = client.post("/api/pieces", json=piece_body(chamber, batch_code=code, casing="natural", tag=f"{code}-01"))
    assert (hung.status_code, "thrown away by Ida" in hung.json()["detail"]) == (409, True)
    assert client.get(f"/api/batches/{batch}/ledger").json()["why"][0] == "thrown away: did not sour"
    piece = {"gross_g": 800, "target_loss_percent": 35}
    assert client.post(f"/api/batches/{batch}/pieces", json={"pieces": [piece], **BY}).status_code == 409


def test_the_box_counts_only_while_the_batch_is_in_it(client: TestClient, clock: Clock, box: int) -> None:
    start = clock.now
    batch, _ = begin(client, box, start)
    clock.now = start + 200 * HOUR
    log(client, box, start, clock.now, c=25.0)
    done = {"uid": "ev-3", "kind": "hang", "at": iso(start + 20 * HOUR), **BY}
    client.post(f"/api/warm/{batch}/events", json=done).raise_for_status()
    found = hurdle(client, batch, "degree_hours")
    assert (found["state"], found["value"]) == ("unknown", pytest.approx(20 * 17, rel=0.02))  # never measured sour


def test_a_gap_in_the_box_is_said_and_counted_at_its_warmer_end(client: TestClient, clock: Clock, box: int) -> None:
    start = clock.now
    batch, _ = begin(client, box, start)
    clock.now = start + 30 * HOUR
    log(client, box, start, start + 4 * HOUR, c=28.0)
    log(client, box, start + 28 * HOUR, start + 30 * HOUR, c=20.0)
    allowance = client.get(f"/api/warm/{batch}").json()["card"]["allowance"]
    assert allowance["gaps"] == 1
    over_f = (28 * 1.8 + 32 - 60, 20 * 1.8 + 32 - 60)
    assert allowance["used"] == pytest.approx(28 * over_f[0] + 2 * over_f[1], rel=0.01)
    left = (allowance["limit"] - allowance["used"]) / over_f[1]  # the fuse ends where what it shows runs out
    assert datetime.fromisoformat(allowance["runs_out"]).timestamp() == pytest.approx(clock.now + left * HOUR, abs=60)
    assert hurdle(client, batch, "degree_hours")["state"] == "unknown"


def test_meters_mark_their_readings(client: TestClient, clock: Clock, box: int) -> None:
    batch, _ = begin(client, box, clock.now)
    clock.now += 15 * HOUR
    meter = client.post("/api/warm/meters", json={"name": "Spear", "slope_percent": 88, **BY}).json()[0]
    assert "slope 88 %" in words(meter["warnings"][0])
    assert read(client, batch, 5.55, meter_id=meter["id"]).status_code == 201
    other = client.post("/api/warm/meters", json={"name": "Bench meter", "slope_percent": 98, **BY}).json()[0]
    found = read(client, batch, 5.40, meter_id=other["id"], at=iso(clock.now - 1800)).json()
    assert found["card"]["meters_differ"] == pytest.approx(0.15)
    assert sorted(len(r["warnings"]) for r in found["readings"]) == [1, 1]  # not calibrated yet, half an hour ago
    struck = client.post(f"/api/warm/readings/{found['readings'][0]['id']}/strike", json={"reason": "bad meter", **BY})
    assert struck.json()["card"]["meters_differ"] is None


def test_what_settles_hurdles(client: TestClient, clock: Clock, box: int) -> None:
    batch, _ = begin(client, box, clock.now)
    assert hurdle(client, batch, "parasite")["state"] == "unknown"
    frozen = {"species": "pork", "way": "frozen", "temperature_c": -18, "days": 10, **BY}
    client.post(f"/api/batches/{batch}/parasites", json=frozen).raise_for_status()
    assert hurdle(client, batch, "parasite")["state"] == "fail"
    # of several entries the worst counts; what was wrong is struck, and stays in sight as a correction to be released
    certified = {"species": "pork", "way": "certified", **BY}
    said = client.post(f"/api/batches/{batch}/parasites", json=certified).json()
    assert hurdle(client, batch, "parasite")["state"] == "fail"
    wrong = next(p["id"] for p in said["parasites"] if p["way"] == "frozen")
    client.post(f"/api/parasites/{wrong}/strike", json={"reason": "another lot", **BY}).raise_for_status()
    found = hurdle(client, batch, "parasite")
    assert (found["state"], found["was_fail"]["by"], found["signed"]) == ("pass", "Ida", None)

    lab = {"what": "water_activity", "value": 0.9, "loss_percent": 30, "note": "report 12", **BY}
    found = client.post(f"/api/batches/{batch}/laboratory", json=lab).json()
    assert found["keeping_by"] == "laboratory"
    assert next(k for k in found["keeping"] if k["loss_percent"] == 30)["water_activity"] == pytest.approx(0.9)
    assert client.post(f"/api/batches/{batch}/laboratory", json={**lab, "value": 90}).status_code == 422

    own = client.get("/api/limits").json()[0]
    own.update(id="own", name="Own", source="my process", minced={"nitrite_mg_per_kg": 100, "nitrate_mg_per_kg": 0})
    assert client.post("/api/limits", json={**own, **BY}).status_code == 201
    assert client.post("/api/limits", json={**own, **BY}).status_code == 409
    changed = client.put(f"/api/batches/{batch}/profile", json={"profile": "own", **BY}).json()
    assert changed["changed"] == [{"name": "nitrite_in", "was": "pass", "now": "fail"}]
    back = client.put(f"/api/batches/{batch}/profile", json={"profile": "us", **BY}).json()
    assert back["changed"] == [{"name": "nitrite_in", "was": "fail", "now": "pass"}]


def test_sugar_that_was_weighed_in_grams_is_known_in_the_warm(client: TestClient) -> None:
    by_share, by_weight = copy.deepcopy(sheet_body()), copy.deepcopy(sheet_body())
    line = next(one for one in by_weight["lines"] if one["role"] == "sugar")
    meat_g = sum(part["weight_g"] for part in by_weight["parts"])
    line.update(basis="absolute", amount=line["amount"] * meat_g / 100)
    for code, sheet in (("S-01", by_share), ("S-02", by_weight)):
        made(client, sheet, code)
    waiting = {one["batch"]: one["dextrose_percent"] for one in client.get("/api/warm").json()["waiting"]}
    assert waiting["S-01"] == pytest.approx(waiting["S-02"])
    assert waiting["S-01"] > 0
