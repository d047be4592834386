"""At the hook through the API: inspection with advice, hold and release, turning in the round; on real SQLite."""

from fastapi.testclient import TestClient

from support import NOW, Clock, piece_body

BY = {"by": "Ida"}
DAY = 86_400


def test_an_inspection_gives_advice_and_a_hold_stays_until_released(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    card = client.post("/api/pieces", json=piece_body(chamber)).json()["card"]
    url = f"/api/pieces/{card['id']}/hook"

    def note(kind: str, uid: str, **changes: object):
        return client.post("/api/hook-events", json={"uid": uid, "pieces": [card["id"]], "kind": kind, **BY, **changes})

    assert note("inspect", "uid-0").status_code == 422
    found = note("inspect", "uid-1", found={"firm_rim": "hard", "firm_core": "soft", "smell": "clean"}).json()
    assert found["advice"][0]["act"] == "mend"
    assert note("inspect", "uid-1", found={"smell": "off"}).json()["advice"][0]["act"] == "mend"  # sent twice
    assert note("hold", "uid-2").status_code == 422
    assert note("hold", "uid-3", note="soft in the middle").json()["held"]
    assert not note("release", "uid-4", note="cut one: fine").json()["held"]
    event = client.get(url).json()["events"][0]
    struck = client.post(f"/api/hook-events/{event['id']}/strike", json={"reason": "too early", **BY}).json()
    assert struck["held"]
    client.post(
        f"/api/pieces/{card['id']}/take-down", json={"kind": "down", "not_weighed": True, **BY}
    ).raise_for_status()
    clock.now += DAY
    late = note("turn", "uid-5")
    assert (late.status_code, late.json()["detail"]) == (409, "J-14-03 was not on a hook at that time")


def test_the_first_week_is_turned_day_by_day(client: TestClient, clock: Clock, chamber: dict) -> None:
    ids = [
        client.post("/api/pieces", json=piece_body(chamber, tag=f"J-14-0{h}", hook=h)).json()["card"]["id"]
        for h in (1, 2)
    ]

    def turning() -> dict | None:
        due = client.get("/api/today").json()["due"]
        return next((c for c in due if c["title"]["code"] == "today.turn"), None)

    assert turning() is None
    clock.now = NOW + DAY
    line = turning()
    assert line is not None
    assert line["detail"]["values"] == {"product": "Juniper salame", "day": 2, "days": 7}
    assert sorted(line["action"]["pieces"]) == ids
    body = {"uid": "turn-1", "pieces": ids, "kind": "turn", **BY}
    assert client.post("/api/hook-events", json=body).status_code == 201
    assert turning() is None
    clock.now = NOW + 8 * DAY
    assert turning() is None  # the first week is over
