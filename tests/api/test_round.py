"""The weigh round through the API: counted once, refused one by one, conflicts said; on real SQLite."""

from datetime import UTC, datetime

from fastapi.testclient import TestClient

from support import NOW, Clock, iso, piece_body, words

DAY = 86_400


def hung(client: TestClient, room: dict, hook: int) -> dict:
    on = datetime.fromtimestamp(NOW - 12 * DAY, UTC).date().isoformat()
    body = piece_body(room, tag=f"J-14-{hook:02d}", hook=hook, at=f"{on}T07:00:00Z")
    answer = client.post("/api/pieces", json=body)
    assert answer.status_code == 201, answer.text
    return answer.json()["card"]


def enter(client: TestClient, by: str, *entries: tuple[str, int, float]) -> list[dict]:
    body = {"by": by, "entries": [{"uid": u, "piece_id": p, "gross_g": g, "at": iso(NOW)} for u, p, g in entries]}
    answer = client.post("/api/round", json=body)
    assert answer.status_code == 201, answer.text
    return answer.json()["answers"]


def test_a_round_says_what_to_weigh_and_counts_everything_once(client: TestClient, chamber: dict) -> None:
    first, second, third = (hung(client, chamber, i) for i in (1, 2, 3))
    found = client.get(f"/api/places/{chamber['place']['id']}/round").json()
    assert [p["tag"] for p in found["pieces"]] == ["J-14-01", "J-14-02", "J-14-03"]
    assert [p["why"] for p in found["pieces"]].count("batch_never") == 1  # one tells for its mates
    one = found["pieces"][0]
    assert one["ask_low_g"] < one["expected_low_g"] < one["expected_high_g"] < one["ask_high_g"] < 850

    assert [a["outcome"] for a in enter(client, "Ida", ("uid-1", first["id"], 742), ("uid-2", second["id"], 744))] == [
        "stored",
        "stored",
    ]
    again = enter(client, "Ida", ("uid-1", first["id"], 742))
    assert (again[0]["outcome"], again[0]["loss_percent"] > 5) == ("same", True)
    twice = enter(client, "Bo", ("uid-3", first["id"], 743), ("uid-4", second["id"], 690), ("uid-5", third["id"], 9))
    assert [a["outcome"] for a in twice] == ["again", "conflict", "refused"]
    assert words(twice[1]["says"]) == "Ida weighed it at the same time: 744 g"
    assert "no more than the tare" in words(twice[2]["says"])
    weighings = client.get(f"/api/pieces/{second['id']}").json()["weighings"]
    assert sorted(w["gross_g"] for w in weighings) == [690, 744]  # nothing is lost; which is right is looked at


def test_a_weight_for_a_piece_that_was_cut_is_refused_alone(client: TestClient, clock: Clock, chamber: dict) -> None:
    first, second = (hung(client, chamber, i) for i in (1, 2))
    clock.now = NOW - DAY
    client.post(
        f"/api/pieces/{first['id']}/take-down", json={"kind": "down", "not_weighed": True, "by": "Ida", "sure": True}
    ).raise_for_status()
    clock.now = NOW
    answers = enter(client, "Ida", ("uid-1", first["id"], 740), ("uid-2", second["id"], 741), ("uid-3", 999, 500))
    assert [a["outcome"] for a in answers] == ["refused", "stored", "refused"]
    assert words(answers[0]["says"]) == "J-14-01 was taken down before it was weighed"
