"""One record through the API: entered late, exactly once, with what the scale says; on real SQLite."""

import copy
import sqlite3
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from built import built_once
from making import begin, made
from support import NOW, Clock, iso, piece_body, sheet_body, words

DAY = 86_400
BY = {"by": "Ida"}


def hung(client: TestClient, room: dict, days_ago: float = 40, **changes: object) -> int:
    answer = client.post("/api/pieces", json=piece_body(room, at=iso(NOW - days_ago * DAY), **changes))
    assert answer.status_code == 201, answer.text
    return answer.json()["card"]["id"]


def weigh(client: TestClient, piece: int, gross_g: float, days_ago: float = 0, **more: object):
    body = {"gross_g": gross_g, "at": iso(NOW - days_ago * DAY), **BY, **more}
    return client.post(f"/api/pieces/{piece}/weighings", json=body)


def look(client: TestClient, piece: int) -> dict:
    return client.get(f"/api/pieces/{piece}").json()


def take_down(client: TestClient, piece: int, **more: object):
    return client.post(f"/api/pieces/{piece}/take-down", json={"kind": "down", **BY, **more})


def become(client: TestClient, piece: int, kind: str, **more: object):
    return client.post(f"/api/pieces/{piece}/become", json={"kind": kind, **BY, **more})


def all_rows(folder: Path) -> dict[str, int]:
    """How many rows each table has, but for what keeps identities."""
    with sqlite3.connect(folder / "workshop.db") as db:
        names = [name for (name,) in db.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        return {name: db.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0] for name in names if name != "sent"}


@built_once
def line(client: TestClient, clock: Clock, chamber: dict) -> dict[str, int]:
    """A workshop with something under way at every station."""
    post = client.post
    ids = {"pit": chamber["place"]["id"], "rod": chamber["rods"][0]["id"]}
    for name, kind, c in (("fridge", "salt", 3), ("box", "warm", 25)):
        body = {"name": name, "kind": kind, "setpoint": {"temperature_c": c}, "at": iso(NOW - 90 * DAY), **BY}
        ids[name] = post("/api/places", json=body).json()["id"]
    ids["batch"] = made(client, copy.deepcopy(sheet_body()), "S-01")["id"]
    stage = {"place_id": ids["box"], "stuffed_at": iso(NOW - 2 * DAY), "culture": "medium", "dextrose_percent": 0.4,
             "salt_percent": 2.7, "start_ph": 5.8, **BY}  # fmt: skip
    client.put(f"/api/warm/{ids['batch']}/stage", json=stage).raise_for_status()
    weigh_out = begin(client, copy.deepcopy(sheet_body()))
    ids["weigh_out"] = weigh_out["id"]
    salted = {
        "quick": {"code": "N-01", "product": "Neck", "family": "neck"}, "muscles": [{"raw_g": 1880, "across_mm": 85}],
        "geometry": "cylinder", "way": "measured", "percent": 2.8, "place_id": ids["fridge"],
        "at": iso(NOW - 30 * DAY), **BY,
    }  # fmt: skip
    ids["neck"] = post("/api/salt", json=salted).json()["pieces"][0]["id"]
    ids["piece"] = hung(client, chamber)
    ids["other"] = hung(client, chamber, tag="J-14-04", hook=2)
    return ids


Entry = tuple[str, str, dict[str, object]]
STATIONS: dict[str, Callable[[dict[str, int]], Entry]] = {
    "recipe": lambda at: ("POST", "/api/recipes", {"name": "New", "sheet": sheet_body()}),
    "weigh-out begun": lambda at: ("POST", "/api/weigh-outs", {"product": "Salame", "sheet": sheet_body()}),
    "poured": lambda at: ("POST", f"/api/weigh-outs/{at['weigh_out']}/entries", {"key": "meat-0", "grams": 900}),
    "temperature": lambda at: ("PUT", f"/api/weigh-outs/{at['weigh_out']}/temperature", {"temperature_c": 2.0}),
    "pieces tagged": lambda at: (
        "POST", f"/api/batches/{at['batch']}/pieces",
        {"pieces": [{"gross_g": 812, "string_g": 6, "target_loss_percent": 35}]},
    ),
    "salted": lambda at: ("POST", "/api/salt", {
        "quick": {"code": "B-02", "product": "Belly", "family": "flat_belly"}, "geometry": "slab",
        "muscles": [{"raw_g": 1500, "across_mm": 36}], "way": "rub_and_drain", "percent": 3.2, "place_id": at["fridge"],
    }),
    "turned": lambda at: ("POST", "/api/salt/events", {"pieces": [at["neck"]], "kind": "turn"}),
    "pH": lambda at: ("POST", f"/api/warm/{at['batch']}/readings", {"ph": 5.4}),
    "warm note": lambda at: ("POST", f"/api/warm/{at['batch']}/events", {"kind": "mould"}),
    "hung": lambda at: ("POST", "/api/pieces", {
        **piece_body({"rods": [{"id": at["rod"]}]}, tag="J-14-09", hook=4, at=None),
    }),
    "moved": lambda at: ("POST", f"/api/pieces/{at['piece']}/move", {"rod_id": at["rod"], "hook": 3}),
    "swapped": lambda at: ("POST", f"/api/pieces/{at['piece']}/swap", {"other_id": at["other"]}),
    "weighed": lambda at: ("POST", f"/api/pieces/{at['piece']}/weighings", {"gross_g": 640, "sure": True}),
    "sliced": lambda at: ("POST", f"/api/pieces/{at['piece']}/slice", {"before_g": 640, "after_g": 600}),
    "inspected": lambda at: ("POST", "/api/hook-events", {
        "pieces": [at["piece"]], "kind": "inspect", "found": {"smell": "clean"},
    }),
    "set": lambda at: ("POST", f"/api/places/{at['pit']}/setpoint", {"temperature_c": 12, "rh_percent": 76}),
    "sensor tested": lambda at: ("POST", f"/api/places/{at['pit']}/sensor-tests", {
        "shown_rh_percent": 77,
    }),
    "typed reading": lambda at: ("POST", f"/api/places/{at['pit']}/readings", {"temperature_c": 13, "rh_percent": 77}),
    "stretch struck": lambda at: ("POST", f"/api/places/{at['pit']}/log/strike", {
        "from_at": iso(NOW - DAY), "to_at": iso(NOW), "reason": "sensor lay in the sun",
    }),
    "planned": lambda at: ("POST", "/api/plans", {
        "product": "Juniper salame", "sheet": sheet_body(), "pieces": 4, "table_g": 350, "place_id": at["pit"],
        "wanted": iso(NOW + 100 * DAY),
    }),
    "room said": lambda at: ("POST", f"/api/places/{at['fridge']}/room-for", {"room": 12}),
    "laboratory": lambda at: ("POST", f"/api/batches/{at['batch']}/laboratory", {
        "what": "water_activity", "value": 0.9,
    }),
    "taken down": lambda at: ("POST", f"/api/pieces/{at['piece']}/take-down", {
        "kind": "resting", "how": "vacuum", "gross_g": 620, "sure": True,
    }),
}  # fmt: skip


@pytest.mark.parametrize("what", STATIONS)
def test_a_lost_answer_is_counted_once_at_every_station(
    client: TestClient, line: dict[str, int], clock: Clock, tmp_path: Path, what: str
) -> None:
    if what == "stretch struck":
        typed = {"temperature_c": 13, "rh_percent": 77, "at": iso(NOW - 3600), **BY}
        client.post(f"/api/places/{line['pit']}/readings", json=typed).raise_for_status()
    method, address, body = STATIONS[what](line)
    before = all_rows(tmp_path)
    entry = {**BY, **body, "uid": f"typed-once-{what.replace(' ', '-')}"}
    first = client.request(method, address, json=entry)
    assert first.is_success, first.text
    stored = all_rows(tmp_path)
    assert stored != before or what in ("temperature", "room said")  # which stand in a row that was there
    clock.now += 60  # the answer was lost; the form sends it again
    again = client.request(method, address, json=entry)
    assert again.is_success, again.text
    assert all_rows(tmp_path) == stored
    if "made" in first.json():
        assert first.json()["made"] == again.json()["made"] != []
    assert "uid" in client.request(method, address, json={**BY, **body, "uid": "x"}).text  # none is none


def test_an_identity_is_of_one_entry_only(client: TestClient, line: dict[str, int]) -> None:
    entry = {"gross_g": 640, "sure": True, "uid": "one-weight", **BY}
    assert client.post(f"/api/pieces/{line['piece']}/weighings", json=entry).status_code == 201
    other = client.post(f"/api/pieces/{line['other']}/weighings", json=entry)
    assert (other.status_code, other.json()["code"]) == (409, "clash")
    assert look(client, line["other"])["weighings"] == []


@pytest.mark.parametrize(
    "what", [w for w in STATIONS if w not in ("recipe", "pieces tagged", "stretch struck", "room said")]
)
def test_everything_can_be_entered_late_and_what_is_to_come_is_asked(
    client: TestClient, line: dict[str, int], what: str
) -> None:
    method, address, body = STATIONS[what](line)
    late = {**BY, **body, "at": iso(NOW - 3600)}
    ahead = client.request(method, address, json={**late, "sure": False, "at": iso(NOW + 3 * 3600)})
    assert (ahead.status_code, ahead.json()["code"]) == (409, "doubtful"), ahead.text
    assert ahead.json()["said"]["code"] == "ask.ahead"
    answer = client.request(method, address, json=late)
    assert answer.is_success, answer.text
    nearly = client.request(method, address, json={**late, "at": iso(NOW + 299)}) if what == "pH" else answer
    assert nearly.is_success  # a tablet's clock may be a little ahead


def test_impossible_orders_are_refused_in_words(client: TestClient, line: dict[str, int], clock: Clock) -> None:
    def refused(answer, text: str) -> None:
        assert answer.status_code in (409, 422), answer.text
        assert text in answer.json()["detail"]

    out = {"pieces": [line["neck"]], "kind": "out", "value": 1803, **BY}
    refused(client.post("/api/salt/events", json={**out, "at": iso(NOW - 31 * DAY)}), "not in salt yet")
    assert client.post("/api/salt/events", json={**out, "at": iso(NOW - 10 * DAY), "sure": True}).is_success
    refused(weigh(client, line["piece"], 700, days_ago=41), "check the date")
    refused(take_down(client, line["piece"], not_weighed=True, at=iso(NOW - 41 * DAY)), "did not hang there yet")
    before = {"rod_id": line["rod"], "hook": 3, "at": iso(NOW - 41 * DAY), **BY}
    refused(client.post(f"/api/pieces/{line['piece']}/move", json=before), "did not hang there yet")
    assert take_down(client, line["piece"], kind="gone", how="discarded", not_weighed=True, note="sour").is_success
    clock.now += 3600
    refused(weigh(client, line["piece"], 600, days_ago=-0.01), "J-14-03")
    refused(become(client, line["piece"], "kept"), "nothing is done to it any more")


def test_odd_orders_are_asked_and_kept_when_answered(client: TestClient, line: dict[str, int]) -> None:
    weigh(client, line["piece"], 640, days_ago=1, sure=True)
    asked = take_down(client, line["piece"], gross_g=650, at=iso(NOW - 2 * DAY))
    assert (asked.status_code, asked.json()["said"]["code"]) == (409, "ask.weighed_after_down")
    assert look(client, line["piece"])["hangs"]
    ages = weigh(client, line["piece"], 640, days_ago=4 * 366)
    assert ages.status_code in (409, 422)


def test_what_the_scale_says_is_so(client: TestClient, line: dict[str, int], chamber: dict) -> None:
    piece = line["piece"]
    never = look(client, piece)["card"]
    assert (never["scale"], never["tag_g"]) == (None, 543)
    for days_ago, gross_g in ((30, 760), (20, 690), (10, 640), (3, 606), (2, 600)):
        assert weigh(client, piece, gross_g, days_ago, sure=True).status_code == 201
    card = look(client, piece)["card"]
    assert (card["scale"]["gross_g"], card["weight_now_g"]) == (600, 600)
    assert card["loss_percent"] == pytest.approx(100 * (842 - 600) / 831, abs=0.01)
    assert card["model_weight_g"] < 600  # the model goes on beside it
    room = client.get(f"/api/places/{line['pit']}/room").json()
    assert next(c for c in room["pieces"] if c["id"] == piece)["loss_percent"] == card["loss_percent"]
    above = weigh(client, piece, 544, sure=True).json()
    assert above["at_target"] is False
    assert weigh(client, piece, 543, sure=True).json()["at_target"] in (True, False)


def test_a_second_agreeing_reading_takes_the_doubt_off(client: TestClient, line: dict[str, int]) -> None:
    piece = line["piece"]
    for days_ago, gross_g in ((30, 760), (20, 690), (10, 640)):
        weigh(client, piece, gross_g, days_ago)
    asked = weigh(client, piece, 500)
    assert (asked.status_code, asked.json()["code"]) == (409, "doubtful")
    merely_kept = weigh(client, piece, 500, sure=True).json()
    assert (merely_kept["at_target"], merely_kept["confirmed"]) == (False, False)
    doubted = look(client, piece)["card"]
    assert doubted["scale"]["doubt"]
    assert doubted["state"] not in ("ready", "over")
    (wrong,) = (w for w in look(client, piece)["weighings"] if w["gross_g"] == 500)
    client.post(f"/api/weighings/{wrong['id']}/strike", json={"reason": "tray on it", **BY}).raise_for_status()
    second = weigh(client, piece, 501, first_g=500)  # put on the scale again: both agree, both stand
    assert second.status_code == 201, second.text
    card = look(client, piece)["card"]
    assert (card["scale"]["gross_g"], card["scale"]["doubt"], card["scale"]["confirmed"]) == (501, False, True)
    assert card["state"] in ("ready", "over")
    far = weigh(client, line["other"], 300, first_g=560)  # they do not agree: asked again
    assert far.status_code == 409


def test_taken_down_it_stands_still_in_every_view(client: TestClient, line: dict[str, int], clock: Clock) -> None:
    piece = line["piece"]
    weigh(client, piece, 640, days_ago=10, sure=True)
    either = take_down(client, piece)
    assert either.status_code == 422
    against = client.get(f"/api/pieces/{piece}/against", params={"gross_g": 620}).json()["against"]
    assert "against.over_target" in [one["code"] for one in against]
    assert all(words(one) for one in against)
    down = take_down(client, piece, kind="resting", how="vacuum", place_id=line["fridge"], gross_g=620, sure=True)
    assert down.is_success, down.text
    then = look(client, piece)
    assert (then["hangs"], then["card"]["life"]["kind"], then["card"]["life"]["how"]) == (False, "resting", "vacuum")
    assert (then["card"]["scale"]["gross_g"], then["card"]["wants"], then["card"]["days_left"]) == (620, [], None)
    files = client.get(f"/api/places/{line['pit']}/hang-file", params={"finished": True})
    clock.now += 60 * DAY
    later = look(client, piece)
    for view in ("weight_now_g", "loss_percent", "model_loss_percent", "ready", "state", "life"):
        assert later["card"][view] == then["card"][view], view
    assert later["curve"] == then["curve"]
    room = client.get(f"/api/places/{line['pit']}/room").json()
    assert piece not in [c["id"] for c in room["pieces"]]
    if files.is_success:
        assert "J-14-03" in files.text
    today = client.get("/api/today").json()
    asked = [one["link"] for group in ("due", "later") for one in today[group] if "J-14-03" in str(one)]
    assert asked == [f"/rest/{piece}"]  # off the hook it asks for no weighing any more, only for fingers on its bag

    cut = become(client, piece, "cut", at=iso(NOW + 30 * DAY), note="firm to the core").json()
    assert [(x["kind"], x["to_at"] is None) for x in cut["states"]] == [("resting", False), ("cut", True)]
    assert become(client, piece, "gone", how="eaten").is_success
    found = client.get("/api/book", params={"words": "firm to the core"}).json()
    assert [p["tag"] for b in found["batches"] for p in b["pieces"] if p["life"]["kind"] == "gone"] == ["J-14-03"]


def test_never_weighed_is_asked_to_be_weighed_and_not_taken_down(
    client: TestClient, line: dict[str, int], clock: Clock
) -> None:
    clock.now += 200 * DAY
    card = look(client, line["piece"])["card"]
    assert (card["state"], "weigh" in card["wants"]) == ("likely", True)
    codes = [one["title"]["code"] for one in client.get("/api/today").json()["due"]]
    assert "today.likely" in codes
    assert not {"today.ready", "today.over"} & set(codes)


def test_a_slice_off_keeps_the_loss_true_and_is_struck(client: TestClient, line: dict[str, int]) -> None:
    piece = line["piece"]
    weigh(client, piece, 640, days_ago=5, sure=True)
    before = look(client, piece)["card"]
    body = {"before_g": 640, "after_g": 540, **BY, "sure": True}
    sliced = client.post(f"/api/pieces/{piece}/slice", json=body)
    assert sliced.is_success, sliced.text
    after = look(client, piece)
    assert after["card"]["scale"]["loss_percent"] == pytest.approx(before["scale"]["loss_percent"], abs=0.1)
    share = (540 - 11) / (640 - 11)
    assert after["card"]["tag_g"] == pytest.approx(11 + (before["target_weight_g"] - 11) * share, abs=1)
    assert after["card"]["start_weight_g"] == 842  # what was entered stays
    cut = after["cuts"][0]["id"]
    client.post(f"/api/slices/{cut}/strike", json={"reason": "it was another", **BY}).raise_for_status()
    assert look(client, piece)["card"]["tag_g"] == before["tag_g"]


def test_hung_again_under_the_same_tag_it_did_not_dry_meanwhile(
    client: TestClient, line: dict[str, int], clock: Clock
) -> None:
    piece = line["piece"]
    take_down(client, piece, kind="resting", how="vacuum", not_weighed=True, at=iso(NOW - 20 * DAY))
    at_rest = look(client, piece)["card"]["model_loss_percent"]
    again = {"rod_id": line["rod"], "hook": 4, **BY}
    back = client.post(f"/api/pieces/{piece}/hang-again", json=again)
    assert back.is_success, back.text
    card = look(client, piece)["card"]
    assert (card["tag"], card["hook"], card["life"]["kind"]) == ("J-14-03", 4, "hanging")
    assert card["model_loss_percent"] == pytest.approx(at_rest, abs=0.6)
    clock.now += 10 * DAY
    assert look(client, piece)["card"]["model_loss_percent"] > at_rest + 1


def test_restoring_twice_restores_once(client: TestClient, line: dict[str, int]) -> None:
    piece = line["piece"]
    made_id = weigh(client, piece, 640, sure=True).json()["made"][0]["id"]
    strike = {"reason": "typing slip", **BY}
    client.post(f"/api/weighings/{made_id}/strike", json=strike).raise_for_status()
    answers = [client.post(f"/api/weighings/{made_id}/restore", json=BY) for _ in range(2)]
    assert [a.is_success for a in answers] == [True, True]
    rows = look(client, piece)["weighings"]
    assert sorted(row["struck_at"] is None for row in rows) == [False, True]  # the old one stays struck through


def test_two_tabs_at_one_ingredient_and_one_recipe_are_told(client: TestClient, line: dict[str, int]) -> None:
    url = f"/api/weigh-outs/{line['weigh_out']}/entries"
    body = {"key": "meat-0", "grams": 900, "seen_g": 0, **BY}
    assert client.post(url, json=body).status_code == 201
    told = client.post(url, json=body)
    assert (told.status_code, told.json()["code"]) == (409, "changed_meanwhile")
    assert "900 g" in told.json()["detail"]
    assert client.post(url, json={**body, "seen_g": 900}).status_code == 201
    recipe = client.post("/api/recipes", json={"name": "New", "sheet": sheet_body(), **BY}).json()
    for garlic, status in ((0.3, 201), (0.4, 409)):
        sheet = sheet_body()
        sheet["lines"][1]["amount"] = garlic
        version = {"base": 1, "sheet": sheet, "reason": "more garlic", **BY}
        assert client.post(f"/api/recipes/{recipe['id']}/versions", json=version).status_code == status


def test_two_casings_and_diameters_hang_in_one_batch(client: TestClient, line: dict[str, int], chamber: dict) -> None:
    thin = hung(client, chamber, tag="J-14-07", hook=3, casing="natural", diameter_mm=38, days_ago=10)
    assert look(client, thin)["casing"] == "natural"
    assert look(client, line["piece"])["casing"] == "fibrous"
    right = {"field": "casing", "value": "collagen", "reason": "looked again", **BY}
    corrected = client.post(f"/api/pieces/{thin}/correct", json=right).json()
    assert corrected["casing"] == "collagen"
    assert [(c["field"], c["was"], c["now"]) for c in corrected["corrections"]] == [("casing", "natural", "collagen")]
    lines = client.get("/api/changes").json()["lines"]
    (change,) = [one for one in lines if any(f["field"] == "casing" for f in one["fields"])]
    assert (change["tag"], change["by"], change["reason"]) == ("J-14-07", "Ida", "looked again")


def test_the_log_knows_its_sources_and_a_stretch_is_struck_and_brought_back(
    client: TestClient, line: dict[str, int]
) -> None:
    pit = line["pit"]
    url = f"/api/places/{pit}"
    for hours, c in ((30, 13.0), (20, 30.0), (10, 13.2)):
        typed = {"temperature_c": c, "rh_percent": 77, "at": iso(NOW - hours * 3600), **BY}
        client.post(f"{url}/readings", json=typed).raise_for_status()
    log = client.get(f"{url}/log").json()
    assert [(x["way"], x["readings"]) for x in log["sources"]] == [("hand", 3)]
    span = {"from_s": NOW - 2 * DAY, "to_s": NOW, "points": 1000}

    def warmest() -> float:
        return max(client.get(f"{url}/climate", params=span).json()["temperature_c"])

    assert warmest() == 30
    stretch = {"from_at": iso(NOW - 21 * 3600), "to_at": iso(NOW - 19 * 3600), "reason": "sun on it", **BY}
    struck = client.post(f"{url}/log/strike", json=stretch).json()["struck"]
    assert [(x["readings"], x["reason"], x["brought_back"]) for x in struck] == [(1, "sun on it", None)]
    assert warmest() == 13.2
    back = client.post(f"/api/stretches/{struck[0]['id']}/restore", json={"reason": "it was so", **BY}).json()
    assert back["struck"][0]["brought_back"]
    assert warmest() == 30


def test_a_set_point_is_struck_and_the_one_before_holds(client: TestClient, line: dict[str, int]) -> None:
    url = f"/api/places/{line['pit']}"
    body = {"temperature_c": 9, "rh_percent": 60, **BY}
    client.post(f"{url}/setpoint", json=body).raise_for_status()
    assert client.get(f"{url}/room").json()["place"]["setpoint"]["rh_percent"] == 60
    turned = client.get(f"{url}/facts").json()["setpoints"]
    latest = max(turned, key=lambda one: one["id"])["id"]
    struck = client.post(f"/api/setpoints/{latest}/strike", json={"reason": "wrong room", **BY})
    assert struck.is_success, struck.text
    assert client.get(f"{url}/room").json()["place"]["setpoint"]["rh_percent"] == 78


def test_finished_ones_are_found_by_state_tag_and_word(client: TestClient, line: dict[str, int]) -> None:
    take_down(client, line["piece"], kind="gone", how="eaten", not_weighed=True)
    take_down(client, line["other"], kind="kept", place_id=line["fridge"], not_weighed=True, note="behind the speck")

    def tags(**query: str) -> set[str]:
        found = client.get("/api/book", params=query).json()["batches"]
        return {p["tag"] for b in found for p in b["pieces"]}

    assert {"J-14-03", "J-14-04", "N-01-01"} <= tags()
    assert "N-01-01" in tags(drawer="going")
    assert tags(drawer="after") == {"J-14-03", "J-14-04"}  # the whole batch, of which one is kept
    assert tags(words="behind the speck") == tags(words="J-14") == {"J-14-03", "J-14-04"}
    assert tags(words="no such thing") == set()
    first = client.get("/api/book", params={"most": 1}).json()
    assert [b["code"] for b in first["batches"]] == ["J-14"]  # the one whose piece changed last
    assert first["counts"]["all"] > 1
    assert first["batches"] == client.get("/api/book").json()["batches"][:1]
    assert client.get("/api/book", params={"most": 0}).status_code == 422
    found = client.get("/api/tags/J-14-03").json()
    assert (found["piece_id"], found["place_id"]) == (line["piece"], line["pit"])
    batch = client.get(f"/api/batches/{found['batch_id']}").json()  # hung directly, it has a page all the same
    assert {p["tag"]: p["life"]["kind"] for p in batch["pieces"]} == {"J-14-03": "gone", "J-14-04": "kept"}
    room = client.get(f"/api/places/{line['pit']}/room").json()
    assert (room["pieces"], room["hung_here"]) == ([], 2)


def test_a_batch_thrown_away_takes_its_pieces_along(client: TestClient, line: dict[str, int], clock: Clock) -> None:
    pieces = {"pieces": [{"gross_g": gross_g, "target_loss_percent": 35} for gross_g in (812, 806)], **BY}
    tagged = client.post(f"/api/batches/{line['batch']}/pieces", json=pieces).json()
    assert {(p["life"]["kind"], p["life"]["place"]) for p in tagged["pieces"]} == {("warm", "box")}
    gone = {"kind": "discard", "note": "never soured", **BY}
    client.post(f"/api/warm/{line['batch']}/events", json=gone).raise_for_status()
    clock.now += 9 * DAY
    stages = client.get("/api/batches/S-01/batch.json").json()["stages"]
    assert [(x["kind"], x["to"][:10]) for x in stages if x["kind"] == "warm"] == [("warm", iso(NOW)[:10])]
    batch = client.get(f"/api/batches/{line['batch']}").json()
    assert {p["life"]["kind"] for p in batch["pieces"]} == {"gone"}
    assert {p["life"]["how"] for p in batch["pieces"]} == {"discarded"}
    hang = piece_body({"rods": [{"id": line["rod"]}]}, tag=batch["pieces"][0]["tag"], batch_code="S-01", hook=4)
    assert client.post("/api/pieces", json=hang).status_code in (409, 422)


def test_a_round_allows_for_the_tablets_clock(client: TestClient, line: dict[str, int]) -> None:
    ahead = 5 * 3600
    entry = {
        "uid": "tablet-1",
        "piece_id": line["piece"],
        "gross_g": 640,
        "at": iso(NOW + ahead - 60),
        "confirmed": True,
    }
    body = {"entries": [entry], "sent_at": iso(NOW + ahead), **BY}
    (answer,) = client.post("/api/round", json=body).json()["answers"]
    assert (answer["outcome"], "5 h off" in words(answer["says"])) == ("stored", True)
    (stored,) = look(client, line["piece"])["weighings"]
    assert datetime.fromisoformat(stored["at"]).timestamp() == NOW - 60
    (refused,) = client.post("/api/round", json={"entries": [{**entry, "uid": "tablet-2"}], **BY}).json()["answers"]
    assert (refused["outcome"], "clock of the tablet" in words(refused["says"])) == ("refused", True)


def test_what_a_correction_or_a_taking_back_changed_is_told_to_the_last_digit_and_with_its_reason(
    client: TestClient, line: dict[str, int], chamber: dict
) -> None:
    heavy = hung(client, chamber, tag="H-1", hook=3, batch_code="H", start_weight_g=123456.7, days_ago=5)
    right = {"field": "start_weight_g", "value": 123465.7, "reason": "two digits swapped", **BY}
    (kept,) = client.post(f"/api/pieces/{heavy}/correct", json=right).json()["corrections"]
    assert (kept["was"], kept["now"]) == ("123456.7", "123465.7")
    take_down(client, line["piece"], not_weighed=True)
    back = {"reason": "another was meant", **BY}
    client.post(f"/api/pieces/{line['piece']}/take-back", json=back).raise_for_status()
    lines = [x for x in client.get("/api/changes").json()["lines"] if x["tag"] == "J-14-03"]
    assert {x["what"]: x["reason"] for x in lines} == {"piece_state": back["reason"], "hanging": back["reason"]}


def test_changes_of_a_day_and_of_a_batch_and_no_other(client: TestClient, line: dict[str, int], clock: Clock) -> None:
    right = {"field": "tare_g", "value": 12, "reason": "weighed the net", **BY}
    client.post(f"/api/pieces/{line['piece']}/correct", json=right).raise_for_status()
    take_down(client, line["other"], not_weighed=True)  # an end is no change of what had been entered
    clock.now += 3 * DAY
    batch = look(client, line["piece"])["batch_id"]
    lines = client.get("/api/changes", params={"batch_id": batch}).json()["lines"]
    assert [(x["what"], x["fields"]) for x in lines] == [
        ("piece", [{"field": "tare_g", "before": 11.0, "after": 12.0}])
    ]
    day = datetime.fromtimestamp(NOW, UTC).date().isoformat()
    assert client.get("/api/changes", params={"day": day}).json()["lines"] == lines
    assert client.get("/api/changes", params={"day": "2020-01-01"}).json()["lines"] == []
    told = client.get("/api/changes", params={"by": lines[0]["by"]}).json()
    assert lines[0] in told["lines"]
    assert {one["by"] for one in told["lines"]} == {lines[0]["by"]} <= set(told["people"])
    assert client.get("/api/changes", params={"batch_id": line["batch"]}).json()["lines"] == []
