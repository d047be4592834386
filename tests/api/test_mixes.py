"""Several mixes and ways of curing in one batch, where the meat lay before its salt, how warm it was mixed."""

import copy

import pytest
from fastapi.testclient import TestClient

from built import built_once
from making import begin, made, pour_all
from support import NOW, Clock, iso, piece_body, sheet_body

BY = {"by": "Ida"}
HOUR = 3600
DAY = 24 * HOUR


def salty(percent: float) -> dict:
    return {**copy.deepcopy(sheet_body()), "salt_percent": percent}


def joined(client: TestClient, batch: int, name: str, sheet: dict | None = None):
    weigh_out = begin(client, sheet or copy.deepcopy(sheet_body()))
    pour_all(client, weigh_out)
    return client.post(f"/api/weigh-outs/{weigh_out['id']}/mix", json={"batch_id": batch, "name": name, **BY})


def tag(client: TestClient, batch: int, *mixes: int | None) -> list[dict]:
    pieces = [{"gross_g": 905, "target_loss_percent": 35, "mix_id": mix} for mix in mixes]
    return client.post(f"/api/batches/{batch}/pieces", json={"pieces": pieces, **BY}).json()["pieces"]


def hurdle(client: TestClient, batch: int, name: str) -> dict:
    found = client.get(f"/api/batches/{batch}/hurdles").json()["hurdles"]
    return next(h for h in found if h["name"] == name)


def meat(client: TestClient, batch: int, **note: object):
    return client.post(f"/api/batches/{batch}/meat", json={**BY, **note})


@built_once
def fridge(client: TestClient, clock: Clock) -> int:
    body = {"name": "fridge", "kind": "salt", "setpoint": {"temperature_c": 3}, "at": iso(NOW - 90 * DAY), **BY}
    return client.post("/api/places", json=body).json()["id"]


def log(client: TestClient, place: int, from_s: int, to_s: int, c: float) -> None:
    for at_s in range(from_s, to_s + 1, 2 * HOUR):
        body = {"temperature_c": c, "rh_percent": 80, "at": iso(at_s), **BY}
        client.post(f"/api/places/{place}/readings", json=body).raise_for_status()


def test_each_mix_is_judged_by_its_own_pieces(client: TestClient) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    answer = joined(client, batch, "fennel", salty(1.2))
    assert answer.status_code == 201, answer.text
    mix = answer.json()["mixes"][0]
    assert (mix["name"], mix["salt_percent"] < 2) == ("fennel", True)
    pieces = tag(client, batch, None, mix["id"], mix["id"])
    assert [(p["tag"], p["mix"]) for p in pieces] == [("J-01-01", None), ("J-01-02", "fennel"), ("J-01-03", "fennel")]
    salt = hurdle(client, batch, "salt")
    assert (salt["state"], salt["pieces"]) == ("fail", ["J-01-02", "J-01-03"])
    file = client.get("/api/batches/J-01/batch.json").json()
    assert [f["pieces"] for f in file["formulations"]] == [["J-01-01"], ["J-01-02", "J-01-03"]]
    assert {tuple(part["pieces"]) for part in file["parts"]} == {("J-01-01",), ("J-01-02", "J-01-03")}
    assert client.post("/api/judge", json=file).json()["ready"] is False


def test_a_mix_of_which_nothing_is_tagged_yet_is_judged_all_the_same(client: TestClient) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    assert hurdle(client, batch, "salt")["state"] == "pass"
    joined(client, batch, "fennel", salty(1.2)).raise_for_status()
    assert hurdle(client, batch, "salt")["state"] == "fail"


def test_what_hangs_without_a_tag_of_the_bench_is_of_the_first_mix(client: TestClient, chamber: dict) -> None:
    batch = made(client, salty(1.2), "J-14")["id"]
    mix = joined(client, batch, "fennel").json()["mixes"][0]["id"]
    tag(client, batch, mix)
    assert hurdle(client, batch, "salt")["state"] == "pass"  # nothing of the first mix is there to be judged
    client.post("/api/pieces", json=piece_body(chamber, tag="J-14-77", at=None)).raise_for_status()
    salt = hurdle(client, batch, "salt")
    assert (salt["state"], salt["pieces"]) == ("fail", ["J-14-77"])
    file = client.get("/api/batches/J-14/batch.json").json()
    assert [f["pieces"] for f in file["formulations"]] == [["J-14-77"], ["J-14-01"]]


def test_what_is_over_the_limits_in_one_mix_holds_the_batch(client: TestClient) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    bare = {**copy.deepcopy(sheet_body()), "curing": None}
    answer = joined(client, batch, "plain", bare).json()
    assert [h["says"]["code"] for h in answer["holds"]] == ["bench.no_nitrite"]


def test_lots_of_every_mix_are_found_and_named(client: TestClient) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    answer = joined(client, batch, "fennel").json()
    used = [(u["mix"], u["lot"]) for u in answer["used"] if u["lot"] == "SH-11"]
    assert used == [(None, "SH-11"), ("fennel", "SH-11")]
    lot = next(u["lot_id"] for u in answer["used"] if u["lot"] == "SH-11")
    traced = client.get(f"/api/lots/{lot}").json()["batches"]
    assert [b["batch"] for b in traced] == ["J-01"]
    assert traced[0]["grams"] == pytest.approx(sum(u["grams"] for u in answer["used"] if u["lot"] == "SH-11"))


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ("week", "refused.not_joined"),
        ("goods", "refused.not_joined"),
        ("name", "refused.mix_name_taken"),
        ("bin", "refused.batch_thrown_away"),
        ("unweighed", "refused.not_weighed_out"),
    ],
)
def test_what_cannot_be_joined_is_refused_and_nothing_is_stored(
    client: TestClient, clock: Clock, change: str, code: str
) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    sheet = copy.deepcopy(sheet_body())
    if change == "week":
        clock.now += 4 * DAY
    if change == "goods":
        sheet["plan"] = {**sheet["plan"], "kind": "thin_sausage"}
    if change == "name":
        joined(client, batch, "fennel").raise_for_status()
    if change == "bin":
        client.post(f"/api/warm/{batch}/events", json={"kind": "discard", "note": "smelled", **BY}).raise_for_status()
    weigh_out = begin(client, sheet)
    if change != "unweighed":
        pour_all(client, weigh_out)
    before = client.get(f"/api/batches/{batch}").json()["mixes"]
    answer = client.post(f"/api/weigh-outs/{weigh_out['id']}/mix", json={"batch_id": batch, "name": "fennel", **BY})
    assert answer.json()["said"]["code"] == code
    assert client.get(f"/api/batches/{batch}").json()["mixes"] == before
    assert client.get(f"/api/weigh-outs/{weigh_out['id']}").json()["ended_at"] is None


@pytest.mark.parametrize(("hours", "offered"), [(71.9, True), (72.1, False)])
def test_a_mix_joins_what_was_made_within_three_days(
    client: TestClient, clock: Clock, hours: float, offered: bool
) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    clock.now += round(hours * 3600)
    assert [one["id"] for one in begin(client, sheet_body())["may_join"]] == ([batch] if offered else [])


def test_a_piece_of_a_mix_that_is_not_there_is_refused(client: TestClient) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    body = {"pieces": [{"gross_g": 905, "target_loss_percent": 35, "mix_id": 7}], **BY}
    assert client.post(f"/api/batches/{batch}/pieces", json=body).json()["said"]["code"] == "refused.no_mix"


def test_two_ways_of_curing_in_one_batch(client: TestClient, fridge: int) -> None:
    first = {
        "quick": {"code": "N-01", "product": "Neck", "family": "neck", "curing": "none"}, "geometry": "cylinder",
        "muscles": [{"raw_g": 1880, "across_mm": 85}], "way": "measured", "percent": 2.8, "place_id": fridge,
        "at": iso(NOW - 30 * DAY), **BY,
    }  # fmt: skip
    client.post("/api/salt", json=first).raise_for_status()
    offered = client.get("/api/salt").json()["waiting"]
    assert [(w["code"], w["begun"], w["next_tag"]) for w in offered] == [("N-01", True, "N-01-02")]
    rest = {
        "batch_id": offered[0]["id"], "geometry": "cylinder", "muscles": [{"raw_g": 1700, "across_mm": 85}],
        "way": "buried", "percent": 4.0, "place_id": fridge, "at": iso(NOW - 29 * DAY), **BY,
    }  # fmt: skip
    client.post("/api/salt", json=rest).raise_for_status()
    file = client.get("/api/batches/N-01/batch.json").json()
    mixes = {tuple(f["pieces"]): (f["dose_known"], f["plain_salt_g"]) for f in file["formulations"]}
    assert mixes[("N-01-01",)][0] is True
    assert mixes[("N-01-02",)] == (False, None)  # nobody weighed what the buried one took up
    assert hurdle(client, offered[0]["id"], "salt")["pieces"] == ["N-01-02"]


def test_another_dose_at_the_salt_counts_and_not_the_sheets(client: TestClient, fridge: int) -> None:
    body = {
        "quick": {"code": "N-01", "product": "Neck", "family": "neck", "curing": "none"}, "geometry": "cylinder",
        "muscles": [{"raw_g": 1880, "across_mm": 85}], "way": "measured", "percent": 2.8, "place_id": fridge,
        "at": iso(NOW - 30 * DAY), **BY,
    }  # fmt: skip
    salted = client.post("/api/salt", json=body).json()["pieces"][0]
    assert hurdle(client, salted["batch_id"], "salt")["value"] == pytest.approx(2.8, abs=0.01)
    less = {"pieces": [salted["id"]], "kind": "way", "way": "measured", "percent": 1.5, **BY}
    client.post("/api/salt/events", json=less).raise_for_status()
    assert hurdle(client, salted["batch_id"], "salt")["state"] == "fail"


def test_how_warm_it_was_mixed_can_be_entered_late_and_struck(client: TestClient) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    cold = hurdle(client, batch, "cold_mix")
    assert (cold["state"], cold["entries"][0]) == ("unknown", "meat")
    noted = meat(client, batch, kind="mix", temperature_c=3.5, note="on the sheet of paper").json()
    assert hurdle(client, batch, "cold_mix")["state"] == "pass"
    warm = meat(client, batch, kind="mix", temperature_c=9)
    assert hurdle(client, batch, "cold_mix")["state"] == "fail"  # of several the warmest counts
    client.post(
        f"/api/meat/{warm.json()['meat'][-1]['id']}/strike", json={"reason": "another bowl", **BY}
    ).raise_for_status()
    mended = hurdle(client, batch, "cold_mix")
    assert (mended["state"], mended["was_fail"]["by"]) == ("pass", "Ida")  # a fail that vanishes is a correction
    assert noted["meat"][0]["note"] == "on the sheet of paper"


def test_mince_that_rested_too_warm_is_judged_by_the_thermometer_of_its_place(client: TestClient, fridge: int) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    meat(client, batch, kind="mix", temperature_c=2).raise_for_status()
    rested = {"kind": "cold", "place_id": fridge, "at": iso(NOW - 2 * DAY), "to_at": iso(NOW - DAY)}
    meat(client, batch, **rested).raise_for_status()
    assert hurdle(client, batch, "cold_mix")["state"] == "unknown"  # nobody knows how cold the fridge was
    log(client, fridge, NOW - 2 * DAY, NOW - DAY, 9.0)
    assert hurdle(client, batch, "cold_mix")["state"] == "fail"
    stages = client.get(f"/api/batches/{batch}/hurdles").json()["stages"]
    assert [(x["kind"], x["place"], x["to_at"]) for x in stages] == [("cold", "fridge", iso(NOW - DAY))]


def test_where_nobody_said_until_when_it_lay_until_the_next_that_is_known(client: TestClient, fridge: int) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    meat(client, batch, kind="cold", place_id=fridge, at=iso(NOW - 2 * DAY)).raise_for_status()
    box = client.post("/api/places", json={"name": "box", "kind": "warm", **BY}).json()["id"]
    stage = {
        "place_id": box, "stuffed_at": iso(NOW - DAY), "culture": "medium", "dextrose_percent": 0.4,
        "salt_percent": 2.7, "start_ph": 5.8, **BY,
    }  # fmt: skip
    client.put(f"/api/warm/{batch}/stage", json=stage).raise_for_status()
    stages = client.get(f"/api/batches/{batch}/hurdles").json()["stages"]
    assert [(x["kind"], x["to_at"]) for x in stages] == [("cold", iso(NOW - DAY)), ("warm", None)]


@pytest.mark.parametrize(
    ("note", "status", "code"),
    [
        ({"kind": "mix"}, 422, "refused.how_warm"),
        ({"kind": "cold"}, 422, "refused.where_it_lay"),
        ({"kind": "cold", "place_id": 99}, 404, "refused.no_place"),
        (
            {"kind": "room", "place_id": 1, "at": iso(NOW - DAY), "to_at": iso(NOW - 2 * DAY)},
            422,
            "refused.stretch_backwards",
        ),
        ({"kind": "room", "place_id": 1, "to_at": iso(NOW + DAY)}, 409, "ask.ahead"),
    ],
)
def test_what_cannot_be_noted_of_the_meat_is_refused(
    client: TestClient, fridge: int, note: dict, status: int, code: str
) -> None:
    batch = made(client, sheet_body(), "J-01")["id"]
    answer = meat(client, batch, **note)
    assert (answer.status_code, answer.json()["said"]["code"]) == (status, code)
    assert client.get(f"/api/batches/{batch}/hurdles").json()["meat"] == []
