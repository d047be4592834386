"""Pieces hung without a scale or a target, through the API on real SQLite: entered, felt, corrected, taken down."""

import pypdfium2
import pytest
from fastapi.testclient import TestClient

from making import made as batch_made
from support import NOW, Clock, piece_body, sheet_body, words

BY = {"by": "Ida"}
DAY = 86_400
UNWEIGHED = {"start_weight_g": None, "target_loss_percent": None, "tare_g": 0}


def hang(client: TestClient, room: dict, **changes: object) -> dict:
    made = client.post("/api/pieces", json=piece_body(room, **{**UNWEIGHED, "done_by": "feel", **changes}))
    assert made.status_code == 201, made.text
    return made.json()


def feel(client: TestClient, piece: int, uid: str, **taps: str) -> dict:
    body = {"uid": uid, "pieces": [piece], "kind": "inspect", "found": taps, **BY}
    made = client.post("/api/hook-events", json=body)
    assert made.status_code == 201, made.text
    return made.json()


def look(client: TestClient, piece: int) -> dict:
    return client.get(f"/api/pieces/{piece}").json()


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"done_by": "weight", "target_loss_percent": 35}, "without a scale say that it is done by feel or by days"),
        ({"done_by": "weight", "start_weight_g": 842}, "needs what it weighs now, and a target"),
        ({"done_by": "days"}, "say after how many"),
        (
            {"done_by": "feel", "start_weight_g": 842, "target_loss_percent": 35},
            "has a target, so it is done by weight",
        ),
        ({"done_by": "days", "done_days": 0}, "must be 1 or more"),
        ({"done_by": "feel", "start_weight_g": -3}, "must be"),
    ],
)
def test_what_does_not_go_together_is_refused_in_words_and_nothing_is_stored(
    client: TestClient, chamber: dict, changes: dict, says: str
) -> None:
    body = piece_body(chamber, **{**UNWEIGHED, **changes})
    refused = client.post("/api/pieces", json=body)
    assert refused.status_code == 422
    assert says in refused.json()["detail"]
    assert client.get(f"/api/places/{chamber['place']['id']}/room").json()["pieces"] == []


def test_preview_hanging_and_piece_say_the_same_and_what_was_taken_as_usual(client: TestClient, chamber: dict) -> None:
    place = chamber["place"]["id"]
    body = piece_body(chamber, **UNWEIGHED, done_by="feel")
    shown = client.post(f"/api/places/{place}/tag", json=body).json()
    assert (shown["tag_g"], shown["target_weight_g"], shown["net_start_g"], shown["reaches"]) == (None,) * 4
    made = hang(client, chamber)
    card = made["card"]
    assert (card["feel_from"], card["feel_to"]) == (shown["feel_from"], shown["feel_to"])
    assert shown["feel_from"] < shown["feel_to"]
    assert made["assumed"] == shown["assumed"]
    assert "830 g when hung: nobody weighed it" in words(made["assumed"][1])
    assert (card["state"], card["ready"]["p50"], card["tag_g"], card["weight_now_g"]) == ("drying", None, None, None)
    room = client.get(f"/api/places/{place}/room").json()
    assert room["pieces"][0]["aim_percent"] == 35
    assert client.get(f"/api/places/{place}/round").json()["pieces"] == []  # the scale would tell nothing of it


def test_by_days_it_is_worth_feeling_on_the_day_and_never_ready_unfelt(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    card = hang(client, chamber, done_by="days", done_days=21)["card"]
    assert card["days_left"] == {"value": 21, "unit": "d", "about": False}

    def line(code: str) -> dict | None:
        today = client.get("/api/today").json()
        return next((c for c in today["due"] if c["title"]["code"] == code), None)

    clock.now = NOW + 20.9 * DAY
    assert look(client, card["id"])["card"]["state"] == "drying"
    assert line("today.feel") is None
    clock.now = NOW + 21 * DAY
    assert look(client, card["id"])["card"]["state"] == "feel"
    assert "J-14-03" in words(line("today.feel")["title"])
    feel(client, card["id"], "felt-1", firm_rim="firm", firm_core="soft")
    assert look(client, card["id"])["card"]["state"] == "feel"
    feel(client, card["id"], "felt-2", firm_rim="firm", firm_core="firm", smell="clean")
    assert look(client, card["id"])["card"]["state"] == "felt"
    assert line("today.felt") is not None


def test_a_feel_moves_the_estimate_and_striking_it_moves_it_back(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    piece = hang(client, chamber)["card"]["id"]
    clock.now = NOW + 25 * DAY
    before = look(client, piece)["card"]
    feel(client, piece, "felt-1", firm_rim="hard", firm_core="hard")
    after = look(client, piece)["card"]
    assert after["model_loss_percent"] > before["model_loss_percent"] + 1
    event = client.get(f"/api/pieces/{piece}/hook").json()["events"][0]
    client.post(f"/api/hook-events/{event['id']}/strike", json={"reason": "wrong piece", **BY}).raise_for_status()
    again = look(client, piece)["card"]
    assert (again["model_loss_percent"], again["state"]) == (before["model_loss_percent"], before["state"])


def test_taking_it_down_unfelt_is_said_and_the_ledger_asks_for_a_look(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    made = hang(client, chamber)
    piece = made["card"]["id"]
    clock.now = NOW + 40 * DAY

    def against() -> list[str]:
        return [x["code"] for x in client.get(f"/api/pieces/{piece}/against").json()["against"]]

    def target() -> dict:
        hurdles = client.get(f"/api/batches/{made['batch_id']}/ledger").json()["hurdles"]
        return next(h for h in hurdles if h["name"] == "target_loss")

    assert "against.not_felt" in against()
    assert target()["state"] == "unknown"  # never passed without a measurement
    feel(client, piece, "felt-1", firm_rim="firm", firm_core="firm", smell="clean")
    assert "against.not_felt" not in against()
    assert target()["state"] == "unknown"  # until somebody answers for it
    down = {"kind": "down", "not_weighed": True, "at": None, **BY}
    done = client.post(f"/api/pieces/{piece}/take-down", json=down).json()
    assert (done["hangs"], done["card"]["scale"], done["card"]["start_weight_g"]) == (False, None, None)


def test_a_weight_of_an_unweighed_piece_is_kept_and_counts_once_its_start_is_known(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    piece = hang(client, chamber)["card"]["id"]
    clock.now = NOW + 20 * DAY
    noted = client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 660, **BY}).json()
    assert (noted["loss_percent"], noted["tag_g"], noted["at_target"]) == (None, None, False)
    sliced = client.post(f"/api/pieces/{piece}/slice", json={"before_g": 660, "after_g": 600, **BY})
    assert "was not weighed when it was hung" in sliced.json()["detail"]
    clock.now += DAY

    def correct(field: str, value: object):
        body = {"field": field, "value": value, "reason": "found the note", **BY}
        return client.post(f"/api/pieces/{piece}/correct", json=body)

    assert "needs what it weighs now" in correct("done_by", "weight").json()["detail"]
    started = correct("start_weight_g", 842).json()
    assert started["card"]["scale"]["loss_percent"] == pytest.approx(21.6, abs=0.1)
    aimed = correct("target_loss_percent", 36).json()["card"]
    assert (aimed["done_by"], aimed["tag_g"], aimed["ready"]["p50"] is not None) == ("weight", 539, True)
    assert correct("start_weight_g", None).status_code == 422  # done by weight now
    assert correct("done_days", 2.5).status_code == 422
    days = correct("done_days", 30).json()["card"]
    assert (days["done_by"], days["done_days"]) == ("days", 30)


def test_skin_and_bone_are_declared_corrected_and_travel_in_the_hang_file(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    belly = {"kind": "belly", "shape": "slab", "casing": "none", "diameter_mm": None, "thickness_mm": 40}
    made = hang(client, chamber, **belly, skin=True, use="cooked", product="Belly strips")
    assert (made["skin"], made["bone"]) == (True, None)
    body = {"field": "skin", "value": "no", "reason": "it was off", **BY}
    off = client.post(f"/api/pieces/{made['card']['id']}/correct", json=body).json()
    assert (off["skin"], off["corrections"][0]["was"], off["corrections"][0]["now"]) == (False, "yes", "no")
    assert off["card"]["feel_from"] < made["card"]["feel_from"]
    assert client.get(f"/api/batches/{made['batch_id']}/ledger").json()["use"] == "cooked"
    file = client.get(f"/api/places/{chamber['place']['id']}/hang-file").json()
    (piece,) = file["batches"][0]["pieces"]
    assert (piece["start_weight_g"], piece["target_loss_percent"], piece["skin"]) == (None, None, False)


def test_a_tag_of_an_unweighed_piece_says_firm_instead_of_grams(client: TestClient, chamber: dict) -> None:
    batch = batch_made(client, sheet_body())
    new = {"gross_g": None, "target_loss_percent": None}
    made = client.post(f"/api/batches/{batch['id']}/pieces", json={"pieces": [new], **BY}).json()
    assert made["pieces"][-1]["tag_g"] is None
    (waiting,) = [w for w in client.get("/api/bench/waiting").json() if w["tag"] == made["pieces"][-1]["tag"]]
    assert (waiting["gross_g"], waiting["target_gross_g"], waiting["target_loss_percent"]) == (None, None, None)
    pdf = client.get(f"/api/batches/{batch['id']}/tags.pdf")
    text = pypdfium2.PdfDocument(pdf.content)[0].get_textpage().get_text_bounded()
    assert "done when it feels" in text
    assert "not weighed" in text
