"""The Hang station through its API, on real SQLite."""

from concurrent.futures import ThreadPoolExecutor
from importlib.metadata import version

import pytest
from fastapi.testclient import TestClient

from support import NOW, piece_body

DAY = 86_400


def hang(client: TestClient, room: dict, **changes) -> dict:
    made = client.post("/api/pieces", json=piece_body(room, **changes))
    assert made.status_code == 201, made.text
    return made.json()


def weigh(client: TestClient, piece: int, gross_g: float, **more):
    return client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": gross_g, "by": "Ida", **more})


def look(client: TestClient, piece: int) -> dict:
    return client.get(f"/api/pieces/{piece}").json()


def test_a_new_database_has_a_line_without_places(client: TestClient) -> None:
    assert client.get("/api/line").json()["workshop"] is None
    assert client.get("/health").json() == {"status": "ok", "version": version("zymon"), "pieces_hanging": 0}


def test_hang_weigh_doubt_strike_restore(client: TestClient, chamber: dict, clock) -> None:
    made = hang(client, chamber)
    piece = made["card"]["id"]
    assert made["card"]["target_weight_g"] == pytest.approx(542.8)
    assert made["card"]["days_left"]["about"]
    for day, gross_g in ((6, 795.0), (12, 741.0)):
        clock.now = NOW + day * DAY
        answer = weigh(client, piece, gross_g)
        assert answer.status_code == 201, answer.text
    before = look(client, piece)["card"]["ready"]
    clock.now += 5 * DAY
    asked = weigh(client, piece, 170)
    assert asked.status_code == 409
    assert asked.json()["code"] == "doubtful"
    assert "digits swapped?" in asked.json()["detail"]
    assert len(client.get(f"/api/pieces/{piece}").json()["weighings"]) == 2
    assert weigh(client, piece, 170, sure=True).json()["at_target"] is False
    kept = look(client, piece)
    (wrong,) = [w for w in kept["weighings"] if w["gross_g"] == 170]
    assert wrong["doubt"]
    assert "doubtful" in kept["card"]["wants"]
    struck = client.post(f"/api/weighings/{wrong['id']}/strike", json={"reason": "typing slip", "by": "Ida"}).json()
    (line,) = [w for w in struck["weighings"] if w["gross_g"] == 170]
    assert (line["struck_reason"], line["struck_by"]) == ("typing slip", "Ida")
    assert struck["card"]["wants"] == []
    weigh(client, piece, 701)
    assert look(client, piece)["card"]["ready"] != before
    twice = client.post(f"/api/weighings/{wrong['id']}/strike", json={"reason": "again", "by": "Ida"})
    assert (twice.status_code, twice.json()["detail"]) == (409, "this entry is struck through already")
    back = client.post(f"/api/weighings/{wrong['id']}/restore", json={"by": "Ida"}).json()
    assert [w["struck_at"] is None for w in back["weighings"] if w["gross_g"] == 170] == [True, False]


def test_what_was_told_stays_on_record(client: TestClient, chamber: dict, clock) -> None:
    piece = hang(client, chamber)["card"]["id"]
    said = [client.get(f"/api/pieces/{piece}").json()["card"]["ready"]]
    for day, gross_g in ((6, 795.0), (12, 741.0)):
        clock.now = NOW + day * DAY
        weigh(client, piece, gross_g)
        said.append(look(client, piece)["card"]["ready"])
    clock.now += DAY
    found = client.get(f"/api/pieces/{piece}").json()
    assert [told["ready"] for told in found["told"]] == said
    assert [told["at"][:10] for told in found["told"]] == sorted({told["at"][:10] for told in found["told"]})
    wrong = found["weighings"][0]["id"]
    struck = client.post(f"/api/weighings/{wrong}/strike", json={"reason": "another piece", "by": "Ida"}).json()
    assert [told["ready"] for told in struck["told"]] == said[:2]  # what rested on it was not told of this piece


@pytest.mark.parametrize(
    ("changes", "status", "words"),
    [
        ({"start_weight_g": 0}, 422, "start weight must be above 0 g, got 0"),
        ({"start_weight_g": -5}, 422, "start weight must be above 0 g, got -5"),
        ({"start_weight_g": 1e9}, 422, "start weight must be 200000 g or less"),
        ({"tare_g": 842}, 422, "tare must be below the weight of 842 g, got 842"),
        ({"target_loss_percent": 95}, 422, "target loss must be 80 % or less, got 95"),
        ({"diameter_mm": 3000}, 422, "diameter must be 600 mm or less, got 3000"),
        ({"at": "2029-01-01T09:00:00Z"}, 409, "still to come"),
        ({"hook": 9}, 404, "rod 1 has hooks 1 to 4, not 9"),
        ({"tag": "  "}, 422, "tag "),
        ({"kind": "cheese"}, 422, "kind "),
        ({"rod_id": 2**40}, 422, "rod must be 2147483647 or less"),
    ],
)
def test_a_piece_that_cannot_be_is_refused_whole(client, chamber, changes, status, words) -> None:
    answer = client.post("/api/pieces", json=piece_body(chamber, **changes))
    assert answer.status_code == status, answer.text
    assert words in answer.json()["detail"]
    room = client.get(f"/api/places/{chamber['place']['id']}/room").json()
    assert room["pieces"] == []


@pytest.mark.parametrize(
    ("weight", "words"),
    [
        ({"gross_g": 0}, "weight must be above 0 g, got 0"),
        ({"gross_g": -12}, "weight must be above 0 g, got -12"),
        ({"gross_g": 11}, "11 g is no more than the tare of 11 g: weigh again"),
        ({"gross_g": 800, "at": "2031-01-01T00:00:00Z"}, "is still to come"),
        ({"gross_g": 800, "at": "2026-09-01T00:00:00Z"}, "weighed before J-14-03 was hung"),
        ({"gross_g": 900}, "58 g more than the 842 g when it was hung"),
        ({"gross_g": "heavy"}, "weight must be a number, got 'heavy'"),
    ],
)
def test_a_weight_that_cannot_be_is_refused_or_asked_about(client, chamber, weight, words) -> None:
    piece = hang(client, chamber)["card"]["id"]
    answer = client.post(f"/api/pieces/{piece}/weighings", json={"by": "Ida", **weight})
    assert answer.status_code in (409, 422)
    assert words in answer.json()["detail"]
    assert client.get(f"/api/pieces/{piece}").json()["weighings"] == []


def test_hooks_and_tags_are_taken_once(client: TestClient, chamber: dict) -> None:
    first = hang(client, chamber)["card"]["id"]
    same_hook = client.post("/api/pieces", json=piece_body(chamber, tag="J-14-04"))
    assert (same_hook.status_code, same_hook.json()["detail"]) == (409, "rod 1 hook 1 is taken by J-14-03")
    same_tag = client.post("/api/pieces", json=piece_body(chamber, hook=2))
    assert same_tag.json()["detail"] == "tag J-14-03 is on another piece already"
    other_goods = client.post(
        "/api/pieces", json=piece_body(chamber, tag="J-14-04", hook=2, kind="belly", shape="slab")
    )
    assert "give a new batch code" in other_goods.json()["detail"]
    rod = chamber["rods"][1]["id"]
    moved = client.post(f"/api/pieces/{first}/move", json={"rod_id": rod, "hook": 3, "by": "Ida"}).json()
    assert [(h["rod"], h["hook"], h["to_at"] is None) for h in moved["hangings"]] == [(1, 1, False), (2, 3, True)]
    down = client.post(f"/api/pieces/{first}/take-down", json={"kind": "down", "not_weighed": True, "by": "Ida"}).json()
    assert not down["hangs"]
    again = client.post(f"/api/pieces/{first}/take-down", json={"kind": "down", "not_weighed": True, "by": "Ida"})
    assert again.json()["detail"] == "J-14-03 was taken down already"
    last = look(client, first)
    assert (last["hangings"][-1]["ended_as"], last["hangings"][-1]["ended_by"]) == ("down", "Ida")
    assert (last["card"]["life"]["kind"], last["card"]["life"]["by"]) == ("down", "Ida")


def test_two_people_reach_for_one_hook(client: TestClient, chamber: dict) -> None:
    def reach(i: int) -> int:
        return client.post("/api/pieces", json=piece_body(chamber, tag=f"J-14-{i:02d}")).status_code

    with ThreadPoolExecutor(6) as pool:
        answers = sorted(pool.map(reach, range(6)))
    assert answers == [201] + [409] * 5


def test_the_tag_is_told_while_typing_and_nothing_is_stored(client: TestClient, chamber: dict) -> None:
    place = chamber["place"]["id"]
    told = client.post(f"/api/places/{place}/tag", json=piece_body(chamber)).json()
    assert told["target_weight_g"] == pytest.approx(542.8)
    assert 4 < told["weeks"] < 13
    assert client.get(f"/api/places/{place}/room").json()["pieces"] == []


def test_a_drier_set_point_brings_the_dates_forward(client: TestClient, chamber: dict) -> None:
    piece = hang(client, chamber)["card"]
    answer = client.post(
        f"/api/places/{chamber['place']['id']}/setpoint", json={"temperature_c": 13, "rh_percent": 70, "by": "Ida"}
    )
    assert answer.json()["pieces"][0]["ready"]["p50"] < piece["ready"]["p50"]


def test_unknown_places_and_addresses(client: TestClient) -> None:
    for path in ("/api/places/77/room", "/api/pieces/5", "/api/places/77/hang-file"):
        assert client.get(path).status_code == 404
    assert client.get("/api/pieces/99999999999999999999").status_code == 422
    assert client.post("/api/pieces", content=b"{nonsense").status_code == 422


def test_what_if_answers_and_stores_nothing(client: TestClient, chamber: dict) -> None:
    made = hang(client, chamber)
    piece = made["card"]["id"]
    assert made["inside"]["rim_feels"] == made["inside"]["core_feels"] == "raw"

    def ask(**change: float) -> dict:
        return client.post(f"/api/pieces/{piece}/what-if", json=change).json()

    assert ask()["days_later"] == pytest.approx(0, abs=0.01)
    assert ask(rh_percent=70)["days_later"] < -1
    assert ask(rh_percent=96)["state"] == "stalled"
    assert ask(target_loss_percent=30)["target_weight_g"] == pytest.approx(592.7)
    assert ask(rh_percent=300)["detail"] == "humidity must be 99 % or less, got 300"
    assert client.get(f"/api/pieces/{piece}").json()["card"] == made["card"]


def test_a_date_is_explained_and_the_inside_shown_on_any_day(client: TestClient, chamber: dict, clock) -> None:
    piece = hang(client, chamber)["card"]["id"]
    clock.now = NOW + 8 * DAY
    weigh(client, piece, 772)
    told = client.get(f"/api/pieces/{piece}/explained").json()
    assert told["own_weighings"] == 1
    assert told["own_share"] > 0.2
    assert told["reaching"] is None
    assert told["prior_share"] + told["own_share"] + told["mates_share"] == pytest.approx(1, abs=0.002)
    inside = f"/api/pieces/{piece}/inside"
    now, ready = client.get(inside).json(), client.get(inside, params={"at": told_at(client, piece)}).json()
    assert now["inside"]["core_water_percent"] > ready["inside"]["core_water_percent"]
    assert ready["loss_percent"] == pytest.approx(35, abs=1.5)
    assert 0.3 < ready["rest"]["weeks"] < 8
    assert ready["rest"]["ring_index"][0] > ready["rest"]["ring_index"][2]
    early = client.get(inside, params={"at": "2020-01-01T00:00:00Z"})
    assert (early.status_code, early.json()["detail"]) == (422, "before it was hung there is nothing to show")


def told_at(client: TestClient, piece: int) -> str:
    return client.get(f"/api/pieces/{piece}").json()["card"]["ready"]["p50"]


def test_a_stalled_piece_is_told_which_air_would_do(client: TestClient, chamber: dict) -> None:
    piece = hang(client, chamber, target_loss_percent=56)["card"]
    assert piece["state"] == "stalled"
    reaching = client.get(f"/api/pieces/{piece['id']}/explained").json()["reaching"]
    assert reaching["rh_percent"] is None or reaching["rh_percent"] < 78


def take_down(client: TestClient, piece: int, **more):
    body = {"kind": "down", "not_weighed": True, "by": "Ida", **more}
    return client.post(f"/api/pieces/{piece}/take-down", json=body)


def test_a_piece_taken_down_by_mistake_is_put_back_while_its_hook_is_free(client: TestClient, chamber: dict) -> None:
    piece = hang(client, chamber)["card"]["id"]
    assert not take_down(client, piece).json()["hangs"]
    back = client.post(f"/api/pieces/{piece}/take-back", json={"reason": "another was meant", "by": "Bo"}).json()
    assert back["hangs"]
    assert [h["ended_as"] for h in back["hangings"]] == [None]
    assert [(x["kind"], x["struck_reason"]) for x in back["states"]] == [("down", "another was meant")]
    again = client.post(f"/api/pieces/{piece}/take-back", json={"reason": "once more", "by": "Bo"})
    assert (again.status_code, "there is nothing to take back" in again.json()["detail"]) == (409, True)
    take_down(client, piece)
    hang(client, chamber, tag="J-14-99")
    taken = client.post(f"/api/pieces/{piece}/take-back", json={"reason": "late", "by": "Bo"})
    assert (taken.status_code, "is taken by J-14-99" in taken.json()["detail"]) == (409, True)
    assert not look(client, piece)["hangs"]  # nothing by half


def test_a_wrong_start_weight_is_corrected_on_record(client: TestClient, chamber: dict) -> None:
    made = hang(client, chamber, start_weight_g=482)
    piece = made["card"]["id"]

    def correct(field: str, value: float | None, reason: str = "typing slip"):
        body = {"field": field, "value": value, "reason": reason, "by": "Ida"}
        return client.post(f"/api/pieces/{piece}/correct", json=body)

    right = correct("start_weight_g", 842).json()
    assert right["card"]["target_weight_g"] == pytest.approx(542.8)
    (kept,) = right["corrections"]
    assert (kept["was"], kept["now"], kept["reason"], kept["by"]) == ("482", "842", "typing slip", "Ida")
    assert correct("start_weight_g", 842).json()["detail"] == "it says so already"
    assert correct("tare_g", 900).json()["detail"] == "tare must be below the weight of 842 g, got 900 g"
    assert correct("start_weight_g", None).status_code == 422
    assert correct("tare_g", 5, "  ").status_code == 422
    assert correct("diameter_mm", None).json()["diameter_mm"] is None
    assert len(client.get(f"/api/pieces/{piece}").json()["corrections"]) == 2
