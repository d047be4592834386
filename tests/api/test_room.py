"""The room through the API: rods measured and in use, pieces that change places, mending, photos; on real SQLite."""

from io import BytesIO

import numpy as np
from fastapi.testclient import TestClient
from PIL import Image

from support import NOW, Clock, piece_body, words

BY = {"by": "Ida"}
DAY = 86_400


def hang(client: TestClient, room: dict, hook: int, **changes: object) -> dict:
    body = piece_body(room, tag=f"J-14-{hook:02d}", hook=hook, **changes)
    answer = client.post("/api/pieces", json=body)
    assert answer.status_code == 201, answer.text
    return answer.json()["card"]


def room_of(client: TestClient, chamber: dict) -> dict:
    return client.get(f"/api/places/{chamber['place']['id']}/room").json()


def climate(client: TestClient, place: int, days: float, rh: float, since_days: float = 0.0) -> None:
    at = np.arange(NOW - days * DAY, NOW - since_days * DAY, 1800)
    stamps = np.datetime_as_string(at.astype("datetime64[s]"))
    rows = "".join(f"{t}Z,13.0,{rh}\n" for t in stamps)
    file = {"file": ("log.csv", f"time,temperature_c,rh_percent\n{rows}".encode())}
    seen = client.post("/api/imports/preview", files=file, data={"place_id": place})
    client.post(f"/api/imports/{seen.json()['token']}", json=BY).raise_for_status()


def test_hooks_in_use_stay_and_touching_pieces_are_said(client: TestClient, chamber: dict) -> None:
    rod = chamber["rods"][0]
    hang(client, chamber, 1, diameter_mm=90, length_mm=None)
    hang(client, chamber, 2, diameter_mm=90, length_mm=None)
    hang(client, chamber, 4, diameter_mm=90, length_mm=None)
    url = f"/api/rods/{rod['id']}"
    refused = client.put(url, json={"hooks": 2, **BY})
    assert (refused.status_code, "J-14-04 on hook 4" in refused.json()["detail"]) == (409, True)
    assert room_of(client, chamber)["rods"][0]["hooks"] == 4
    assert room_of(client, chamber)["rods"][0]["close"] == []  # nobody measured: nothing is said
    told = client.put(url, json={"hooks": 4, "hook_spacing_mm": 100, **BY}).json()["rods"][0]
    assert told["close"] == [{"one": "J-14-01", "other": "J-14-02"}]
    assert told["short_mm"] == 0
    tight = client.put(url, json={"hooks": 4, "hook_spacing_mm": 60, **BY}).json()["rods"][0]
    assert tight["short_mm"] > 50
    assert client.put(url, json={"hooks": 4, "hook_spacing_mm": 5, **BY}).status_code == 422
    more = client.post(f"/api/places/{chamber['place']['id']}/rods", json={"hooks": 6, **BY}).json()
    assert [r["hooks"] for r in more["rods"]] == [4, 4, 6]


def test_two_pieces_change_places_and_both_moves_stay_on_record(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    one, other = hang(client, chamber, 1), hang(client, chamber, 3)
    clock.now += DAY
    url = f"/api/pieces/{one['id']}/swap"
    client.post(url, json={"other_id": other["id"], **BY}).raise_for_status()
    room = client.get(f"/api/places/{chamber['place']['id']}/room").json()
    assert {c["tag"]: c["hook"] for c in room["pieces"]} == {"J-14-01": 3, "J-14-03": 1}
    past = client.get(f"/api/pieces/{one['id']}").json()["hangings"]
    assert [(h["hook"], h["ended_as"]) for h in past] == [(1, "moved"), (3, None)]
    assert client.post(url, json={"other_id": one["id"], **BY}).status_code == 409
    client.post(
        f"/api/pieces/{other['id']}/take-down", json={"kind": "down", "not_weighed": True, **BY}
    ).raise_for_status()
    assert client.post(url, json={"other_id": other["id"], **BY}).status_code == 409


def test_a_fast_piece_is_told_from_a_dry_room_and_each_mend_has_its_price(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    climate(client, chamber["place"]["id"], 12, 78)
    hung_at = "2026-09-21T07:00:00Z"
    cards = [hang(client, chamber, h, at=hung_at) for h in (1, 2, 3)]
    for card, first, second in zip(cards, (812, 812, 742), (790, 791, 660), strict=True):
        for days, gross in ((7, first), (1, second)):
            body = {"gross_g": gross, "at": np.datetime_as_string(np.datetime64(NOW - days * DAY, "s")) + "Z", **BY}
            answer = client.post(f"/api/pieces/{card['id']}/weighings", json={**body, "sure": True})
            assert answer.status_code == 201, answer.text
    well, fast = (client.get(f"/api/pieces/{cards[i]['id']}/mending").json()["mending"] for i in (0, 2))
    assert well is None
    assert (fast["trouble"], fast["place_wide"]) == ("too_fast", False)
    assert any("it is this piece or its hook" in words(said) for said in fast["evidence"])
    mends = {m["way"]: m for m in fast["mends"]}
    assert {"humidity", "air", "wrap"} <= set(mends)
    assert all(m["days_later"] > 0 and m["ring_index"] < fast["ring_index"] for m in mends.values())


def test_a_room_that_dries_out_is_said_once_for_all(client: TestClient, chamber: dict) -> None:
    place = chamber["place"]["id"]
    hang(client, chamber, 1)
    climate(client, place, 16, 79, since_days=2)
    assert room_of(client, chamber)["shift"] is None
    climate(client, place, 2, 69)
    assert room_of(client, chamber)["shift"]["by_rh_percent"] == -10
    due = client.get("/api/today").json()["due"]
    assert any(words(c["title"]) == "The air of Cellar is 10 points drier than in the two weeks before" for c in due)


def picture(width: int, height: int, **saved: object) -> bytes:
    out = BytesIO()
    Image.new("RGB", (width, height), (120, 40, 50)).save(out, "JPEG", **saved)
    return out.getvalue()


def test_a_photo_is_kept_small_and_bare(client: TestClient, chamber: dict) -> None:
    card = hang(client, chamber, 1)
    url = f"/api/pieces/{card['id']}/photos"
    exif = Image.Exif()
    exif[0x010F], exif[0x0112] = "A camera", 6  # maker; turned by a quarter
    exif.get_ifd(0x8825)[2] = (45.0, 30.0, 0.0)  # latitude

    def send(data: bytes, uid: str):
        return client.post(url, files={"file": ("p.jpg", data)}, data={"uid": uid, **BY})

    for _ in range(2):  # sent twice, kept once
        kept = send(picture(3000, 2000, exif=exif), "photo-00001")
        assert kept.status_code == 201
    assert len(kept.json()) == 1
    shown = client.get(f"/api/photos/{kept.json()[0]['id']}.jpg").content
    assert len(shown) < 400_000
    with Image.open(BytesIO(shown)) as image:
        assert image.size == (1067, 1600)  # upright, its longest side 1600
        assert not dict(image.getexif())
    refused = send(b"%PDF-1.4 no photo", "photo-00002")
    assert (refused.status_code, "no photo that can be read" in refused.json()["detail"]) == (422, True)
    too_much = send(b"x" * 20_000_001, "photo-00003")
    assert (too_much.status_code, "more than 20 MB" in too_much.json()["detail"]) == (413, True)
    struck = client.post(f"/api/photos/{kept.json()[0]['id']}/strike", json={"reason": "another piece", **BY}).json()
    assert [p["struck_reason"] for p in struck] == ["another piece"]
    assert send(picture(20, 20), "photo-00004").status_code == 201
    assert (
        client.post(
            "/api/pieces/9999/photos", files={"file": ("p", picture(9, 9))}, data={"uid": "photo-00005", **BY}
        ).status_code
        == 404
    )


def test_nothing_is_simulated_in_a_real_workshop(client: TestClient, chamber: dict) -> None:
    card = hang(client, chamber, 1)
    assert client.post(f"/api/standins/weigh/{card['id']}").status_code == 404
    assert client.post("/api/standins/forward", json={"hours": 6}).status_code == 404


def test_a_piece_that_is_moved_keeps_the_climate_it_had(client: TestClient, clock: Clock, chamber: dict) -> None:
    body = {"name": "Attic", "hooks_per_rod": [4], "setpoint": {"temperature_c": 13, "rh_percent": 62}, **BY}
    attic = client.post("/api/places", json=body).json()["id"]
    rod = client.get(f"/api/places/{attic}/room").json()["rods"][0]["id"]
    climate(client, chamber["place"]["id"], 30, 82)
    climate(client, attic, 30, 58)
    hung_at = "2026-09-13T07:00:00Z"
    stays, moves = (hang(client, chamber, h, at=hung_at) for h in (1, 2))
    dried = hang(client, chamber, 3, at=hung_at, rod_id=rod)
    back = chamber["rods"][0]["id"]
    for card in (moves, dried):  # now one goes up, and the other comes down
        to = {"rod_id": rod, "hook": 2} if card is moves else {"rod_id": back, "hook": 3}
        client.post(f"/api/pieces/{card['id']}/move", json={**to, **BY}).raise_for_status()

    def lost(card: dict) -> float:
        return client.get(f"/api/pieces/{card['id']}").json()["card"]["loss_percent"]

    assert abs(lost(moves) - lost(stays)) < 0.1  # what it lost below it did not lose in the attic
    assert lost(dried) > lost(stays) + 3
    clock.now += 10 * DAY
    assert lost(moves) > lost(stays) + 2


def test_a_place_is_there_once_however_its_name_is_written(client: TestClient, chamber: dict) -> None:
    for name in ("Étage", "étage", "  ÉTAGE "):
        answer = client.post("/api/places", json={"name": name, "hooks_per_rod": [3], **BY})
        assert answer.status_code == (201 if name == "Étage" else 409), answer.text
    assert "there is a place called" in answer.json()["detail"]
    nowhere = client.post("/api/places/999/sensor-tests", json={"shown_rh_percent": 74, **BY})
    assert nowhere.status_code == 404


def test_measures_that_nothing_has_are_refused_with_their_bounds(client: TestClient, chamber: dict) -> None:
    for measure, said in (
        ({"diameter_mm": 1e-300}, "diameter must be between 3 and 600 mm"),
        ({"length_mm": 1e-9}, "length must be between 10 and 2500 mm"),
        ({"start_weight_g": 11.0000001}, "net weight must be between 1 and"),
    ):
        answer = client.post("/api/pieces", json=piece_body(chamber, **measure))
        assert (answer.status_code, said in answer.json()["detail"]) == (422, True), answer.text
    assert room_of(client, chamber)["pieces"] == []


def test_pieces_change_places_after_their_week_before_anything_is_known_of_the_hooks(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    cards = {hook: hang(client, chamber, hook) for hook in (1, 2, 3, 4)}

    def swaps() -> list[dict]:
        round_ = client.get("/api/today").json()
        return [c for c in round_["due"] if c["action"] and "swap" in c["action"]["kinds"]]

    clock.now += 5 * DAY
    assert swaps() == []
    clock.now += 3 * DAY
    (first,) = swaps()  # one pair a day
    assert (first["title"]["code"], first["title"]["values"]) == ("today.swap", {"one": "J-14-01", "other": "J-14-03"})
    assert first["detail"]["code"] == "today.swap_blind"
    one, other = first["action"]["pieces"]
    client.post(f"/api/pieces/{one}/swap", json={"other_id": other, **BY}).raise_for_status()
    (second,) = swaps()
    assert second["title"]["values"] == {"one": "J-14-02", "other": "J-14-04"}
    assert client.get(f"/api/pieces/{cards[1]['id']}").json()["card"]["hook"] == 3
