"""Places as people have them: what nobody set is taken as usual and said, and the first reading mends it."""

from datetime import datetime

import pytest
from fastapi.testclient import TestClient

from support import NOW, iso, piece_body
from zymon.core.drying.surroundings import SORTS

BY = {"by": "Ida"}
DAY = 86_400


def place(client: TestClient, sort: str, **more: object) -> dict:
    body = {"name": sort, "kind": "chamber", "sort": sort, "hooks_per_rod": [6], **BY, **more}
    answer = client.post("/api/places", json=body)
    assert answer.status_code == 201, answer.text
    return client.get(f"/api/places/{answer.json()['id']}/room").json()


def hang(client: TestClient, room: dict, **changes: object) -> dict:
    duck = {"kind": "breast", "shape": "slab", "casing": "cloth", "fat_percent": 25, "salt_percent": 3.0,
            "diameter_mm": None, "thickness_mm": 25, "length_mm": None, "start_weight_g": 380, "tare_g": 8,
            "target_loss_percent": 30, "at": None}  # fmt: skip
    answer = client.post("/api/pieces", json=piece_body(room, **{**duck, **changes}))
    assert answer.status_code == 201, answer.text
    return client.get(f"/api/pieces/{answer.json()['card']['id']}").json()


def told(piece: dict) -> dict[str, dict]:
    return {one["code"]: one["values"] for one in piece["assumed"]}


def weeks(ready: dict) -> float:
    return (datetime.fromisoformat(ready["p50"]).timestamp() - NOW) / DAY / 7


def test_a_duck_breast_in_a_household_fridge_takes_weeks_and_says_what_it_rests_on(client: TestClient) -> None:
    fridge = place(client, "household_fridge")
    duck = hang(client, fridge)
    assert 2.5 <= weeks(duck["card"]["ready"]) <= 4  # told by makers; never seventy-eight percent
    assert told(duck)["assumed.humidity"] == {"rh_percent": 48, "sd_rh": 9, "sort": "household_fridge"}
    assert told(duck)["assumed.temperature"]["c"] == 3
    reading = {"temperature_c": 4, "rh_percent": 66, **BY}
    client.post(f"/api/places/{fridge['place']['id']}/readings", json=reading).raise_for_status()
    mended = client.get(f"/api/pieces/{duck['card']['id']}").json()
    assert told(mended) == {}
    assert weeks(mended["card"]["ready"]) > weeks(duck["card"]["ready"])


def test_preview_hanging_and_file_say_the_same(client: TestClient) -> None:
    fridge = place(client, "household_fridge")
    body = piece_body(fridge, at=None)
    place_id = fridge["place"]["id"]
    preview = client.post(f"/api/places/{place_id}/tag", json=body).json()
    hung = client.post("/api/pieces", json=body).json()
    hung = client.get(f"/api/pieces/{hung['card']['id']}").json()
    assert preview["assumed"] == hung["assumed"]
    assert preview["ready"] == hung["card"]["ready"]
    assert preview["reaches"] == hung["reaches"]
    file = client.get(f"/api/places/{place_id}/hang-file").json()
    assert (file["chamber"]["kind"], file["chamber"]["air"]) == ("household_fridge", None)


def test_a_preview_goes_by_the_log_of_a_place_in_which_nothing_hangs(client: TestClient) -> None:
    cellar = place(client, "cellar")
    place_id = cellar["place"]["id"]
    body = piece_body(cellar, at=None)
    usual = client.post(f"/api/places/{place_id}/tag", json=body).json()
    for days in range(9):
        reading = {"temperature_c": 9, "rh_percent": 86, "at": iso(NOW - days * DAY - 60), **BY}
        client.post(f"/api/places/{place_id}/readings", json=reading).raise_for_status()
    damp = client.post(f"/api/places/{place_id}/tag", json=body).json()
    assert damp["assumed"] == []
    assert damp["weeks"] is None or damp["weeks"] > 1.2 * usual["weeks"]


def test_how_the_air_moves_is_said_of_a_place_changed_and_kept_in_the_journal(client: TestClient) -> None:
    cellar = place(client, "cellar")
    salame = hang(client, cellar)
    url = f"/api/places/{cellar['place']['id']}/what"
    still = client.put(url, json={"sort": "cellar", "stirring": "still", **BY}).json()
    assert (still["sort"], still["stirring"]) == ("cellar", "still")
    slower = client.get(f"/api/pieces/{salame['card']['id']}").json()
    assert weeks(slower["card"]["ready"]) > weeks(salame["card"]["ready"])
    changed = client.get("/api/changes").json()["lines"]
    assert any(c["what"] == "place" for c in changed), changed


def test_what_is_usual_is_told_of_every_kind_of_place_before_one_is_made(client: TestClient) -> None:
    usual = client.get("/api/usual-air").json()
    assert [one["sort"] for one in usual] == list(SORTS)
    fridge = usual[SORTS.index("household_fridge")]["says"]
    assert fridge == {"code": "place.usual", "values": {"c": 3, "sd_c": 1.2, "rh_percent": 48, "sd_rh": 9}}


@pytest.mark.parametrize("wrong", [{"sort": "shed"}, {"stirring": "windy"}])
def test_what_no_place_is_is_refused(client: TestClient, wrong: dict) -> None:
    answer = client.post("/api/places", json={"name": "X", "hooks_per_rod": [2], **BY, **wrong})
    assert answer.status_code == 422
    assert client.get("/api/line").json()["places"] == []


def test_frost_in_a_garage_is_told_today_and_a_dehydrators_heat_is_not(client: TestClient) -> None:
    garage, dryer = place(client, "garage"), place(client, "dehydrator")
    for room, c in ((garage, -5.0), (dryer, 35.0)):
        for hours in range(6):
            reading = {"temperature_c": c, "rh_percent": 60, "at": iso(NOW - hours * 3600 - 60), **BY}
            client.post(f"/api/places/{room['place']['id']}/readings", json=reading).raise_for_status()
    lines = [
        line
        for line in client.get("/api/today").json()["due"]
        if line["title"]["code"] in ("today.frost", "today.heat")
    ]
    assert [(line["title"]["code"], line["title"]["values"]["c"]) for line in lines] == [("today.frost", -5)]
