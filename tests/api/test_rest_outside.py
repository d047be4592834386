"""Into the rest from outside: bought, or hung before it was on record here."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from support import NOW, Clock, iso, words

DAY = 86_400


def body(**changes: Any) -> dict[str, Any]:
    return {
        "by": "Ida", "sure": True, "tag": "B-01", "batch_code": "B-01", "product": "Loin from the valley",
        "fat_percent": 6, "kind": "whole_muscle", "shape": "cylinder", "across_mm": 80, "hung_weeks": 9,
        "gross_g": 1240, "bag": "vacuum", **changes,
    }  # fmt: skip


def test_what_dried_elsewhere_rests_here_and_what_is_taken_of_it_is_said(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    answer = client.post("/api/rest/outside", json=body(note="from the market"))
    assert answer.status_code == 201, answer.text
    card = answer.json()["card"]
    assert (card["state"], card["sealed_g"], card["across_mm"]) == ("evening", 1240, 80)
    assert "how it dried elsewhere, about 9 weeks: as usual in a drying chamber" in map(words, card["assumed"])
    assert card["best"] > card["since"]
    (shown,) = client.get("/api/rest").json()["pieces"]
    assert shown == card
    line = client.get("/api/line").json()
    assert ([p["name"] for p in line["places"]], line["at_rest"]) == (["Cellar"], 1)
    clock.now += 20 * DAY
    lighter = client.post(f"/api/pieces/{card['id']}/weighings", json={"by": "Ida", "gross_g": 1228, "sure": True})
    assert lighter.is_success
    (leaking,) = client.get("/api/rest").json()["pieces"]
    assert (leaking["state"], leaking["lost_g"]) == ("leaks", 12)
    second = client.post("/api/rest/outside", json=body(tag="B-02"))  # of the same batch, the same hook of no place
    assert second.status_code == 201, second.text
    assert client.get(f"/api/pieces/{card['id']}").json()["card"]["ready"]["p50"] is None


def test_a_drier_piece_began_with_a_weaker_ring_the_longer_it_hung(client: TestClient) -> None:
    young = client.post("/api/rest/outside", json=body(hung_weeks=3)).json()["card"]
    old = client.post("/api/rest/outside", json=body(tag="B-02", hung_weeks=40)).json()["card"]
    assert old["inside"]["core_water_percent"] < young["inside"]["core_water_percent"]
    known = client.post("/api/rest/outside", json=body(tag="B-03", start_weight_g=2000, gross_g=1240)).json()["card"]
    assert known["inside"]["rim_water_percent"] < young["inside"]["rim_water_percent"]


@pytest.mark.parametrize(
    ("changes", "told"),
    [
        ({"across_mm": 0}, "across_mm"), ({"hung_weeks": 0}, "hung_weeks"), ({"hung_weeks": 201}, "hung_weeks"),
        ({"bag": "sock"}, "bag"), ({"gross_g": -3}, "gross_g"), ({"place_id": 99}, "place"),
        ({"start_weight_g": 1200}, "1240 g now, but 1200 g when it was hung"), ({"at": iso(NOW + 5 * DAY)}, "to come"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_told_and_nothing_is_kept(client: TestClient, changes: dict, told: str) -> None:
    answer = client.post("/api/rest/outside", json=body(**changes))
    assert answer.status_code in (404, 409, 422), answer.text
    assert told in answer.text
    assert client.get("/api/rest").json()["pieces"] == []
    assert client.get("/api/line").json()["places"] == []


def test_sent_twice_it_is_taken_in_once_and_a_tag_is_of_one_piece(client: TestClient) -> None:
    once = body(uid="outside-1")
    assert client.post("/api/rest/outside", json=once).status_code == 201
    assert client.post("/api/rest/outside", json=once).status_code == 201
    assert len(client.get("/api/rest").json()["pieces"]) == 1
    assert client.post("/api/rest/outside", json=body()).status_code == 409
