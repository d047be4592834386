"""The Rest through the API on real SQLite: a piece from its hook into a bag, squeezed, weighed, carried, hung again."""

from fastapi.testclient import TestClient

from built import built_once
from support import NOW, Clock, piece_body, words

BY = {"by": "Ida"}
DAY = 86_400


@built_once
def store(client: TestClient, clock: Clock, chamber: dict) -> int:
    body = {"name": "Stone Store", "kind": "store", "setpoint": {"temperature_c": 4, "rh_percent": 75}, **BY}
    return client.post("/api/places", json=body).json()["id"]


@built_once
def piece(client: TestClient, clock: Clock, chamber: dict) -> int:
    """A salame that hung six weeks and is at its target by the scale."""
    made = client.post("/api/pieces", json=piece_body(chamber)).json()["card"]["id"]
    for day, gross_g in ((14, 720), (28, 620), (42, 541)):
        clock.now = NOW + day * DAY
        body = {"gross_g": gross_g, "first_g": gross_g, **BY}
        client.post(f"/api/pieces/{made}/weighings", json=body).raise_for_status()
    return made


def bag(client: TestClient, piece: int, place: int | None, how: str = "vacuum", gross_g: float = 541) -> None:
    body = {"kind": "resting", "how": how, "place_id": place, "gross_g": gross_g, "sure": True, **BY}
    answer = client.post(f"/api/pieces/{piece}/take-down", json=body)
    assert answer.status_code == 200, answer.text


def card(client: TestClient) -> dict:
    (found,) = client.get("/api/rest").json()["pieces"]
    return found


def squeeze(client: TestClient, piece: int, rim: str, core: str, n: int = 1) -> None:
    found = {"firm_rim": rim, "firm_core": core}
    body = {"uid": f"squeeze-{n}", "pieces": [piece], "kind": "inspect", "found": found, **BY}
    assert client.post("/api/hook-events", json=body).status_code == 201


def today(client: TestClient) -> list[str]:
    return [words(c["title"]) for c in client.get("/api/today").json()["due"] if c["station"] == "rest"]


def test_a_piece_goes_into_its_bag_evens_out_and_only_fingers_say_so(
    client: TestClient, clock: Clock, piece: int, store: int
) -> None:
    assert client.get("/api/rest").json()["pieces"] == []
    bag(client, piece, store)
    first = card(client)
    assert (first["place"], first["bag"], first["state"], first["sealed_g"]) == (
        "Stone Store",
        "vacuum",
        "evening",
        541,
    )
    assert first["earliest"] <= first["best"] <= first["late"]
    assert first["inside"]["rim_water_percent"] < first["inside"]["core_water_percent"]
    assert [words(one) for one in first["assumed"]] == ["4 °C where it lies: no thermometer has told yet"]
    assert today(client) == []  # what evens out by itself may wait
    detail = client.get(f"/api/rest/{piece}").json()
    assert detail["card"] == first
    curve = detail["curve"]
    assert curve["core"][0] - curve["rim"][0] > curve["core"][-1] - curve["rim"][-1] >= 0
    assert all(
        low <= mid <= high for low, mid, high in zip(curve["rim_low"], curve["rim"], curve["rim_high"], strict=True)
    )

    clock.now += 200 * DAY
    assert card(client)["state"] == "likely"
    assert card(client)["gone_share"] > 0.8
    assert today(client) == ["Squeeze J-14-03: likely even by now"]
    squeeze(client, piece, "hard", "yielding", 1)
    assert card(client)["state"] in ("likely", "evening")
    assert today(client) == []  # just squeezed: not asked again the same week
    squeeze(client, piece, "firm", "firm", 2)
    assert card(client)["state"] == "even"
    assert today(client) == ["J-14-03 is even: it may be cut, or wait"]


def test_nothing_moves_by_looking_and_what_it_was_when_sealed_is_kept(
    client: TestClient, clock: Clock, piece: int, store: int
) -> None:
    bag(client, piece, store)
    first = card(client)
    clock.now += 20 * DAY
    later = card(client)
    assert later["since"] == first["since"]
    assert abs(days(later["best"]) - days(first["best"])) < 2
    # carried elsewhere it goes on from where it was; in the warm a bag without air carries its caution
    warm = client.post("/api/places", json={"name": "Shelf", "kind": "store", "setpoint": {"temperature_c": 12}, **BY})
    body = {"kind": "resting", "how": "vacuum", "place_id": warm.json()["id"], **BY}
    client.post(f"/api/pieces/{piece}/become", json=body).raise_for_status()
    carried = card(client)
    assert (carried["since"], carried["place"]) == (first["since"], "Shelf")
    assert days(carried["best"]) < days(later["best"])  # warmer is quicker
    assert "botulism" in words(carried["cautions"][0])
    assert "J-14-03 lies too warm for a bag without air" in today(client)


def test_a_bag_that_lost_weight_leaks_and_a_soft_middle_is_held(
    client: TestClient, clock: Clock, piece: int, store: int
) -> None:
    bag(client, piece, store)
    clock.now += 10 * DAY
    client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 540, "sure": True, **BY}).raise_for_status()
    assert card(client)["state"] == "evening"
    clock.now += 10 * DAY
    client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 529, "sure": True, **BY}).raise_for_status()
    leaking = card(client)
    assert (leaking["state"], leaking["lost_g"]) == ("leaks", 12.0)
    assert today(client) == ["The bag of J-14-03 leaks: seal it again"]
    sealed_anew = {"kind": "resting", "how": "paper", "place_id": store, **BY}
    client.post(f"/api/pieces/{piece}/become", json=sealed_anew).raise_for_status()
    assert card(client)["state"] == "evening"  # paper is not meant to be tight
    squeeze(client, piece, "hard", "wet")
    assert card(client)["state"] == "soft"
    assert today(client) == ["J-14-03 is soft in the middle: hold it, do not taste"]


def test_out_of_its_bag_it_is_off_the_shelf_and_back_on_a_hook_under_its_tag(
    client: TestClient, clock: Clock, piece: int, store: int, chamber: dict
) -> None:
    bag(client, piece, None, "unknown")
    assert {one["code"] for one in card(client)["assumed"]} == {"assumed.rest_place", "assumed.rest_bag"}
    clock.now += 5 * DAY
    back = {"rod_id": chamber["rods"][0]["id"], "hook": 2, **BY}
    hung = client.post(f"/api/pieces/{piece}/hang-again", json=back)
    assert hung.status_code == 200, hung.text
    assert client.get("/api/rest").json()["pieces"] == []
    gone = client.get(f"/api/rest/{piece}")
    assert (gone.status_code, gone.json()["detail"]) == (404, "J-14-03 does not rest")
    assert client.get("/api/rest/999").status_code == 404


def test_a_piece_that_nobody_weighed_rests_too_and_that_is_said(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    body = piece_body(chamber, start_weight_g=None, target_loss_percent=None, tare_g=0, done_by="feel")
    piece = client.post("/api/pieces", json=body).json()["card"]["id"]
    clock.now += 40 * DAY
    down = {"kind": "resting", "how": "vacuum", "not_weighed": True, "sure": True, **BY}
    client.post(f"/api/pieces/{piece}/take-down", json=down).raise_for_status()
    found = card(client)
    assert (found["sealed_g"], found["lost_g"]) == (None, None)
    assert "assumed.rest_unweighed" in {one["code"] for one in found["assumed"]}


def days(moment: str) -> float:
    from datetime import datetime

    return datetime.fromisoformat(moment).timestamp() / DAY
