"""What an entry made is taken back in one go, exactly that, and stays on record; the true moment a piece was hung."""

import pytest
from fastapi.testclient import TestClient

from built import built_once
from making import made
from support import NOW, Clock, iso, piece_body, sheet_body

BY = {"by": "Ida"}
DAY = 86_400


@built_once
def salame(client: TestClient, clock: Clock, chamber: dict) -> dict:
    """A salame that has hung for a month on rod 1 hook 1, weighed once."""
    card = client.post("/api/pieces", json=piece_body(chamber, at=iso(NOW - 30 * DAY))).json()["card"]
    weigh = {"gross_g": 700, "at": iso(NOW - 10 * DAY), "sure": True, **BY}
    client.post(f"/api/pieces/{card['id']}/weighings", json=weigh).raise_for_status()
    return card


def look(client: TestClient, piece: int) -> dict:
    return client.get(f"/api/pieces/{piece}").json()


def undo(client: TestClient, entries: list[dict], reason: str = "another was meant"):
    return client.post("/api/undo", json={"made": entries, "reason": reason, "by": "Bo"})


def stays(piece: dict) -> list[tuple[int, str | None, str | None]]:
    return [(h["hook"], h["ended_as"], h["struck_reason"]) for h in piece["hangings"]]


def test_a_move_that_was_entered_late_is_taken_back_and_not_moved_again(
    client: TestClient, chamber: dict, salame: dict
) -> None:
    rod = chamber["rods"][0]["id"]
    moved = client.post(
        f"/api/pieces/{salame['id']}/move", json={"rod_id": rod, "hook": 3, "at": iso(NOW - 5 * DAY), **BY}
    ).json()
    assert stays(moved) == [(1, "moved", None), (3, None, None)]
    assert undo(client, moved["made"]).status_code == 200
    back = look(client, salame["id"])
    assert (back["card"]["hook"], stays(back)) == (1, [(1, None, None), (3, None, "another was meant")])
    assert back["hangings"][1]["to_at"] == back["hangings"][1]["from_at"]
    assert [w["gross_g"] for w in back["weighings"]] == [700]
    assert undo(client, moved["made"]).status_code == 409  # once is enough
    room = client.get(f"/api/places/{chamber['place']['id']}/room").json()
    assert [c["hook"] for c in room["pieces"]] == [1]


def test_both_of_a_swap_go_back_or_neither(client: TestClient, chamber: dict, salame: dict) -> None:
    other = client.post("/api/pieces", json=piece_body(chamber, tag="J-14-04", hook=2)).json()["card"]
    swapped = client.post(f"/api/pieces/{salame['id']}/swap", json={"other_id": other["id"], **BY}).json()
    assert len(swapped["made"]) == 2
    again = client.post(
        f"/api/pieces/{other['id']}/move", json={"rod_id": chamber["rods"][0]["id"], "hook": 4, **BY}
    ).json()
    refused = undo(client, swapped["made"])
    assert (refused.status_code, refused.json()["said"]["code"]) == (409, "refused.moved_since")
    assert look(client, salame["id"])["card"]["hook"] == 2  # nothing by half
    undo(client, again["made"]).raise_for_status()
    undo(client, swapped["made"]).raise_for_status()
    assert [look(client, p["id"])["card"]["hook"] for p in (salame, other)] == [1, 2]


def test_a_hook_that_was_taken_meanwhile_is_said(client: TestClient, chamber: dict, salame: dict) -> None:
    moved = client.post(
        f"/api/pieces/{salame['id']}/move", json={"rod_id": chamber["rods"][0]["id"], "hook": 3, **BY}
    ).json()
    client.post("/api/pieces", json=piece_body(chamber, tag="J-14-99")).raise_for_status()
    taken = undo(client, moved["made"])
    assert (taken.status_code, "is taken by J-14-99" in taken.json()["detail"]) == (409, True)
    assert look(client, salame["id"])["card"]["hook"] == 3


def test_taken_down_with_a_weight_both_go_back(client: TestClient, salame: dict) -> None:
    url = f"/api/pieces/{salame['id']}"
    body = {"kind": "down", "gross_g": 540, "sure": True, **BY}
    down = client.post(f"{url}/take-down", json=body).json()
    assert [one["what"] for one in down["made"]] == ["weighing", "state"]
    undo(client, down["made"]).raise_for_status()
    back = look(client, salame["id"])
    assert (back["hangs"], [w["struck_reason"] for w in back["weighings"]]) == (True, ["another was meant", None])


def test_hung_again_by_mistake_it_is_off_its_hook_as_before(client: TestClient, chamber: dict, salame: dict) -> None:
    url = f"/api/pieces/{salame['id']}"
    client.post(f"{url}/take-down", json={"kind": "down", "not_weighed": True, **BY}).raise_for_status()
    rests = client.post(f"{url}/become", json={"kind": "resting", "how": "vacuum", **BY}).json()
    again = client.post(f"{url}/hang-again", json={"rod_id": chamber["rods"][0]["id"], "hook": 4, **BY}).json()
    assert again["hangs"]
    late = undo(client, rests["made"])  # it hangs since: that comes first
    assert (late.status_code, late.json()["said"]["code"]) == (409, "refused.moved_since")
    undo(client, again["made"]).raise_for_status()
    back = look(client, salame["id"])
    assert (back["hangs"], back["card"]["life"]["kind"]) == (False, "resting")
    undo(client, rests["made"]).raise_for_status()
    assert look(client, salame["id"])["card"]["life"]["kind"] == "down"


def test_a_slice_takes_its_weight_along_by_whichever_name_it_is_taken_back(client: TestClient, salame: dict) -> None:
    cut = {"before_g": 690, "after_g": 640, **BY}
    for take_back in (
        lambda made, row: undo(client, made[:1]),
        lambda made, row: client.post(f"/api/slices/{row}/strike", json={"reason": "not cut", **BY}),
    ):
        made = client.post(f"/api/pieces/{salame['id']}/slice", json=cut).json()["made"]
        take_back(made, made[0]["id"]).raise_for_status()
        assert look(client, salame["id"])["card"]["scale"]["gross_g"] == 700


def test_what_was_noted_in_every_station_is_taken_back(client: TestClient, chamber: dict, salame: dict) -> None:
    hook = {"pieces": [salame["id"]], "kind": "inspect", "found": {"smell": "clean"}, **BY}
    slice_ = client.post(f"/api/pieces/{salame['id']}/slice", json={"before_g": 690, "after_g": 640, **BY}).json()
    batch = made(client, sheet_body(), "S-01")["id"]
    box = client.post("/api/places", json={"name": "Box", "kind": "warm", **BY}).json()["id"]
    stage = {
        "place_id": box, "stuffed_at": iso(NOW - DAY), "culture": "medium", "dextrose_percent": 0.4,
        "salt_percent": 2.7, "start_ph": 5.8, **BY,
    }  # fmt: skip
    client.put(f"/api/warm/{batch}/stage", json=stage).raise_for_status()
    entries = [
        client.post("/api/hook-events", json=hook).json(),
        slice_,
        client.post(f"/api/warm/{batch}/readings", json={"ph": 5.5, **BY}).json(),
        client.post(f"/api/warm/{batch}/events", json={"kind": "mould", **BY}).json(),
    ]
    for entry in entries:
        undo(client, entry["made"]).raise_for_status()
    piece, warm = look(client, salame["id"]), client.get(f"/api/warm/{batch}").json()
    reasons = [
        client.get(f"/api/pieces/{salame['id']}/hook").json()["events"][0]["struck_reason"],
        piece["cuts"][0]["struck_reason"],
        warm["readings"][0]["struck_reason"],
        warm["events"][0]["struck_reason"],
    ]
    assert reasons == ["another was meant"] * 4
    assert piece["card"]["scale"]["gross_g"] == 700  # the weight of the slice went with it


@pytest.mark.parametrize(
    ("entries", "status", "code"),
    [
        ([{"what": "batch", "id": 1}], 409, "refused.not_undone"),
        ([{"what": "weighing", "id": 999}], 404, "refused.no_weighing"),
        ([{"what": "weighing", "id": 1}, {"what": "recipe", "id": 1}], 409, "refused.not_undone"),
        ([{"what": "hanging", "id": 1}], 409, "refused.first_stay"),
    ],
)
def test_what_cannot_be_undone_is_said_and_nothing_is_struck(
    client: TestClient, salame: dict, entries: list[dict], status: int, code: str
) -> None:
    answer = undo(client, entries)
    assert (answer.status_code, answer.json()["said"]["code"]) == (status, code)
    assert [w["struck_reason"] for w in look(client, salame["id"])["weighings"]] == [None]


def test_when_it_was_hung_is_corrected_and_the_dates_follow(client: TestClient, clock: Clock, salame: dict) -> None:
    url = f"/api/pieces/{salame['id']}/correct"

    def correct(at_s: float, **more: object):
        body = {"field": "hung_at", "value": iso(at_s), "reason": "a week off", **BY, **more}
        return client.post(url, json=body)

    told = look(client, salame["id"])["card"]["ready"]["p50"]
    right = correct(NOW - 20 * DAY).json()
    assert (right["card"]["hung_at"], right["hangings"][0]["from_at"]) == (iso(NOW - 20 * DAY),) * 2
    kept = right["corrections"][0]
    assert (kept["field"], kept["was"][:10], kept["now"][:10]) == (
        "hung_at",
        iso(NOW - 30 * DAY)[:10],
        iso(NOW - 20 * DAY)[:10],
    )
    assert right["card"]["ready"]["p50"] != told  # the same weight in ten days less: it dries faster
    assert correct(NOW - 20 * DAY).json()["detail"] == "it says so already"
    early = correct(NOW - 9 * DAY)
    assert (early.status_code, "something was noted of it" in early.json()["detail"]) == (422, True)
    ahead = correct(NOW + 3 * DAY, sure=True)
    assert (ahead.status_code, ahead.json()["code"]) == (409, "doubtful")
    for wrong in (12, None, "natural", "yesterday"):
        assert client.post(url, json={"field": "hung_at", "value": wrong, "reason": "x", **BY}).status_code == 422
    assert client.post(url, json={"field": "tare_g", "value": iso(NOW), "reason": "x", **BY}).status_code == 422
    assert look(client, salame["id"])["card"]["hung_at"] == iso(NOW - 20 * DAY)


def test_it_was_not_hung_before_it_was_stuffed(client: TestClient, chamber: dict) -> None:
    batch = made(client, sheet_body(), "J-14")["id"]
    box = client.post("/api/places", json={"name": "Box", "kind": "warm", **BY}).json()["id"]
    stage = {
        "place_id": box, "stuffed_at": iso(NOW - 3 * DAY), "culture": "medium", "dextrose_percent": 0.4,
        "salt_percent": 2.7, "start_ph": 5.8, **BY,
    }  # fmt: skip
    client.put(f"/api/warm/{batch}/stage", json=stage).raise_for_status()
    piece = client.post("/api/pieces", json=piece_body(chamber, sure=True)).json()["card"]["id"]
    answer = client.post(
        f"/api/pieces/{piece}/correct",
        json={"field": "hung_at", "value": iso(NOW - 5 * DAY), "reason": "slip", "sure": True, **BY},
    )
    assert (answer.status_code, answer.json()["said"]["code"]) == (422, "refused.hung_before_stuffed")
