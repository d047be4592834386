"""The Cut through the API on real SQLite: a face, its causes by this batch's records, what becomes of it, next time."""

import pytest
from fastapi.testclient import TestClient

from built import built_once
from courses.kitchen import DAY, Kitchen
from making import begin, pour_all
from support import NOW, Clock, iso, piece_body, sheet_body, words

BY = {"by": "Ida"}
GOOD = {"ring": "none", "colour": "even", "firm_rim": "firm", "firm_core": "firm", "smell": "clean", "salt": "right"}
RINGED = {"ring": "wide", "ring_mm": 5, "firm_rim": "hard", "firm_core": "yielding", "smell": "clean"}


@pytest.fixture
def kitchen(client: TestClient, clock: Clock) -> Kitchen:
    return Kitchen(client, clock)


@built_once
def piece(client: TestClient, clock: Clock, chamber: dict) -> int:
    """A salame of six weeks that lost a third of its weight in its first two."""
    made = client.post("/api/pieces", json=piece_body(chamber)).json()["card"]["id"]
    for day, gross_g in ((7, 680), (14, 590), (42, 541)):
        clock.now = NOW + day * DAY
        body = {"gross_g": gross_g, "first_g": gross_g, "sure": True, **BY}
        client.post(f"/api/pieces/{made}/weighings", json=body).raise_for_status()
    return made


def cut(client: TestClient, piece: int, face: dict, status: int = 201, **more: object) -> dict:
    answer = client.post(f"/api/pieces/{piece}/cut", json={"face": face, **BY, **more})
    assert answer.status_code == status, answer.text
    return answer.json()


def test_a_hanging_piece_is_cut_up_or_hangs_on_with_both_weights(client: TestClient, piece: int) -> None:
    refused = cut(client, piece, GOOD, 409)
    assert refused["detail"] == "J-14-03 hangs: say whether it is cut up or hangs on"
    refused = cut(client, piece, GOOD, 422, ends="goes_on")
    assert "weigh it before and after the slice" in refused["detail"]
    before = client.get(f"/api/pieces/{piece}").json()["card"]
    cut(client, piece, GOOD, ends="goes_on", before_g=541, after_g=500)
    after = client.get(f"/api/pieces/{piece}").json()["card"]
    assert after["tag_g"] < before["tag_g"]  # its start is taken as so much less: the loss stays true
    assert client.get(f"/api/pieces/{piece}/cut").json()["state"] == "hanging"


def test_cut_up_from_the_hook_it_is_weighed_and_its_face_is_told_by_its_own_records(
    client: TestClient, piece: int
) -> None:
    assert cut(client, piece, RINGED, 422, ends="cut")["detail"] == "weigh it, or say that it was not weighed"
    found = cut(client, piece, RINGED, ends="cut", gross_g=540, sure=True)
    assert (found["state"], found["weight_g"]) == ("cut", 540)
    first = found["causes"][0]
    assert (first["name"], first["stage"]) == ("dried_fast", "hang")
    assert "gentle air takes" in words(first["evidence"][0]["says"])
    warm = next(c for c in found["causes"] if c["name"] == "warm_dry")
    assert (warm["recorded"], warm["unrecorded"]) == (False, ["warm_pull"])
    assert {n["says"]["code"] for n in first["next_time"]} >= {"next.humidity", "next.weigh_early"}
    assert found["now"][0]["act"] == "rest"
    assert found["now"][-1]["act"] == "look"  # made elsewhere, nothing of it known: never "eat"
    face = found["faces"][0]
    assert face["predicted"]["ring_mm"] >= 0
    assert face["face"]["ring_mm"] == 5
    # what was felt at the knife is an inspection as any other
    events = client.get(f"/api/pieces/{piece}/hook").json()["events"]
    assert events[0]["found"]["firm_rim"] == "hard"


def test_sent_twice_it_counts_once_and_undone_the_piece_hangs_again(client: TestClient, piece: int) -> None:
    first = cut(client, piece, GOOD, ends="cut", gross_g=540, sure=True, uid="cut-once")
    again = cut(client, piece, GOOD, ends="cut", gross_g=540, sure=True, uid="cut-once")
    assert len(again["faces"]) == 1
    assert again["made"] == first["made"]
    undo = client.post("/api/undo", json={"made": first["made"], "reason": "wrong piece", **BY})
    assert undo.status_code == 200, undo.text
    after = client.get(f"/api/pieces/{piece}/cut").json()
    assert after["state"] == "hanging"
    assert after["faces"][0]["struck_reason"] == "wrong piece"
    assert after["causes"] == []


def test_held_or_thrown_away_wants_a_reason_and_stays_on_record(client: TestClient, piece: int) -> None:
    soft = {**RINGED, "firm_core": "wet"}
    assert cut(client, piece, soft, 422, ends="cut", not_weighed=True, verdict="held")["detail"] == "say why it is held"
    held = cut(client, piece, soft, ends="cut", not_weighed=True, verdict="held", note="raw in the middle")
    assert held["now"][0]["act"] == "hold"
    assert client.get(f"/api/pieces/{piece}/hook").json()["held"]
    gone = cut(client, piece, {"smell": "off"}, verdict="discarded", note="stank")
    assert (gone["state"], gone["now"][0]["act"]) == ("gone", "discard")
    assert [f["verdict"] for f in gone["faces"]] == ["discarded", "held"]
    refused = cut(client, piece, GOOD, 409)
    assert "J-14-03" in refused["detail"]


@pytest.mark.parametrize(
    ("face", "more", "says"),
    [
        ({}, {}, "tap what you felt"),
        ({"ring": "none", "ring_mm": 4}, {}, "no ring"),
        ({"ring": "thin", "ring_mm": -4}, {}, "ring"),
        ({"taste": ["clean", "sour"]}, {}, "clean, and something else"),
        (GOOD, {"ends": "cut", "gross_g": 5}, "5 g"),
        (GOOD, {"ends": "goes_on", "before_g": 400, "after_g": 500}, ""),
        (GOOD, {"ends": "cut", "not_weighed": True, "at": iso(NOW - 5 * DAY), "sure": True}, "cut before"),
    ],
)
def test_what_cannot_be_is_refused_in_words_and_nothing_is_kept(
    client: TestClient, piece: int, face: dict, more: dict, says: str
) -> None:
    answer = cut(client, piece, face, 422, **more)
    assert says in str(answer["detail"])
    after = client.get(f"/api/pieces/{piece}/cut").json()
    assert (after["faces"], after["state"]) == ([], "hanging")


def test_a_batch_of_a_recipe_teaches_the_recipe(kitchen: Kitchen, client: TestClient) -> None:
    sheet = sheet_body()
    recipe = kitchen.post("/recipes", name="Juniper salame", sheet=sheet, reason="first")
    weigh_out = begin(client, sheet, recipe_id=recipe["id"], version=1)
    pour_all(client, weigh_out)
    batch = kitchen.post(f"/weigh-outs/{weigh_out['id']}/batch", code="J-20")
    kitchen.post(f"/batches/{batch['id']}/meat", kind="mix", temperature_c=9)
    kitchen.stuff(batch, {"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36})
    chamber = kitchen.place("Loft", "drying_chamber", temperature_c=13, rh_percent=78)
    hung = kitchen.hang(
        chamber, "J-20-01", "salame", "cylinder", 842, batch="J-20", tare_g=11, diameter_mm=58, length_mm=300,
        fat_percent=26, salt_percent=2.7, target_loss_percent=36, casing="natural", sure=True,
    )  # fmt: skip
    kitchen.wait(days=40)
    kitchen.down(hung, 541)
    piece = hung["card"]["id"]
    assert [c["tag"] for c in kitchen.get("/cut")["waiting"]] == ["J-20-01"]
    found = cut(client, piece, {"smear": True, "salt": "high", "colour": "even"}, ends="cut")
    assert found["recipe"] == "Juniper salame"
    assert kitchen.get("/cut")["waiting"] == []
    assert kitchen.get("/cut")["seen"][0]["tag"] == "J-20-01"
    smeared = next(c for c in found["causes"] if c["name"] == "mixed_warm")
    assert [words(t["says"]) for t in smeared["evidence"]] == ["the meat was at 9 °C when it was mixed"]
    salty = next(c for c in found["causes"] if c["name"] == "salted_much")
    (line,) = [n for n in salty["next_time"] if n["changes"] == "salt_percent"]
    face = found["faces"][0]["id"]

    # into the notes, shown when the recipe is opened; as a new version, once
    kitchen.post(f"/cut-faces/{face}/next-time", cause="mixed_warm", says="next.mix_colder")
    taken = kitchen.post(f"/cut-faces/{face}/next-time", cause="salted_much", says="next.salt", as_version=True)
    assert next(c for c in taken["causes"] if c["name"] == "salted_much")["next_time"][0]["taken"] is not None
    twice = kitchen.refused(f"/cut-faces/{face}/next-time", cause="salted_much", says="next.salt", as_version=True)
    assert twice == "this line is noted already"
    notes = kitchen.get(f"/recipes/{recipe['id']}/next-time")
    assert {words(n["says"]) for n in notes} == {
        "meat and fat at 2 °C when they are minced and mixed", words(line["says"]),
    }  # fmt: skip
    versions = next(r for r in kitchen.get("/recipes") if r["id"] == recipe["id"])["versions"]
    assert [v["sheet"]["salt_percent"] for v in versions] == [2.7, 2.5]
    assert "J-20-01" in versions[-1]["reason"]
    note = next(n for n in notes if n["version"] is None)
    answer = client.post(f"/api/next-time/{note['id']}/strike", json={"reason": "done so", **BY})
    assert answer.status_code == 204
    assert len(kitchen.get(f"/recipes/{recipe['id']}/next-time")) == 1


def test_a_line_that_does_not_follow_or_changes_nothing_is_refused(
    kitchen: Kitchen, client: TestClient, piece: int
) -> None:
    found = cut(client, piece, RINGED, ends="cut", not_weighed=True)
    face = found["faces"][0]["id"]
    url = f"/api/cut-faces/{face}/next-time"
    wrong = client.post(url, json={"cause": "old_fat", "says": "next.antioxidant", **BY})
    assert (wrong.status_code, wrong.json()["detail"]) == (
        404, "this line does not follow from the cut any more: look again",
    )  # fmt: skip
    none = client.post(url, json={"cause": "dried_fast", "says": "next.humidity", "as_version": True, **BY})
    assert none.json()["detail"] == "J-14 was made without a recipe: keep its sheet as one first"
    noted = client.post(url, json={"cause": "dried_fast", "says": "next.humidity", **BY})
    assert noted.status_code == 201
    # a recipe of the same name shows it
    recipe = kitchen.post("/recipes", name="Juniper salame", sheet=sheet_body(), reason="first")
    assert [n["batch"] for n in kitchen.get(f"/recipes/{recipe['id']}/next-time")] == ["J-14"]
    assert client.get("/api/pieces/999/cut").status_code == 404
    assert client.post("/api/cut-faces/999/strike", json={"reason": "x", **BY}).status_code == 404
