"""The Bench through its API: from a sheet to tagged pieces that hang, on real SQLite."""

import copy

import pypdfium2
import pytest
from fastapi.testclient import TestClient

import support
from making import begin, made, pour, pour_all
from support import piece_body, sheet_body

BY = {"by": "Ida"}


def work(client: TestClient, sheet: dict, profile: str = "us") -> dict:
    answer = client.post("/api/bench/work", json={"sheet": sheet, "profile": profile})
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_sheet_is_worked_with_its_consequences(client: TestClient) -> None:
    found = work(client, sheet_body())
    assert (found["meat_g"], found["problems"]) == (5000, [])
    assert found["fat_percent"] == pytest.approx(26.48)
    grams = {line["key"]: line["grams"] for line in found["lines"]}
    assert grams["curing"] == 12.5
    assert grams["line-0"] == pytest.approx(15)
    follows = found["consequences"]
    assert follows["nitrite"]["figure"]["value"] == pytest.approx(156.25)
    assert follows["nitrite"]["standing"] == "pass"  # 156.25 rounds to the limit of 156
    assert follows["cautions"] == []
    dry = {o["loss_percent"]: o for o in follows["outlooks"]}
    assert dry[40]["water_activity"] < dry[30]["water_activity"]
    assert follows["pieces"] == 6
    assert work(client, sheet_body(), "eu")["consequences"]["nitrite"]["standing"] == "fail"


@pytest.mark.parametrize(
    ("change", "where", "words"),
    [
        ({"salt_percent": 100}, "salt_percent", "salt must be between 0 and 15 %, got 100"),
        ({"parts": []}, "parts.0.weight_g", "weigh the trimmed meat first"),
        (
            {"parts": [{"name": "Shoulder", "weight_g": -3, "fat_percent": 20}]},
            "parts.0.weight_g",
            "weight must be between",
        ),
        (
            {"parts": [{"name": "Shoulder", "weight_g": 900, "fat_percent": 20, "price_per_kg": -2}]},
            "parts.0.price_per_kg",
            "price must be between 0",
        ),
        ({"lines": [{"name": "Pepper", "amount": 1e9}]}, "lines.0.amount", "amount must be between 0 and 100 %"),
        ({"salt_percent": 0.1, "salt_basis": "inclusive"}, "salt_percent", "more than the 0.1 % of salt"),
    ],
)
def test_a_fault_is_told_at_its_field_and_disturbs_no_other(client, change, where, words) -> None:
    found = work(client, {**sheet_body(), **change})
    problem = next(p for p in found["problems"] if p["where"] == where)
    assert words in support.words(problem["said"])
    refused = client.post("/api/weigh-outs", json={"product": "X", "sheet": {**sheet_body(), **change}, **BY})
    if found["problems"]:
        assert refused.status_code == 422
        assert refused.json()["detail"] == support.words(found["problems"][0]["said"])


def test_fat_is_shifted_and_the_sheet_scaled(client: TestClient) -> None:
    leaner = client.post("/api/bench/blend", json={"sheet": sheet_body(), "fat_percent": 20}).json()
    assert work(client, leaner)["fat_percent"] == pytest.approx(20, abs=0.02)
    assert sum(p["weight_g"] for p in leaner["parts"]) == pytest.approx(5000, abs=0.2)
    out = client.post("/api/bench/blend", json={"sheet": sheet_body(), "fat_percent": 95})
    assert (out.status_code, "fat wanted must lie between" in out.json()["detail"]) == (422, True)
    double = client.post("/api/bench/scale", json={"sheet": sheet_body(), "meat_g": 10_000}).json()
    assert work(client, double)["consequences"]["nitrite"]["figure"]["value"] == pytest.approx(156.25)


def test_recipes_keep_every_version_with_its_reason(client: TestClient) -> None:
    first = client.post("/api/recipes", json={"name": "Juniper salame", "sheet": sheet_body(), **BY}).json()
    again = client.post("/api/recipes", json={"name": "Juniper salame", "sheet": sheet_body(), **BY})
    assert (again.status_code, again.json()["code"]) == (409, "clash")
    changed = sheet_body()
    changed["lines"][1]["amount"] = 0.3
    changed["lines"].append({"name": "Juniper", "amount": 0.1})
    url = f"/api/recipes/{first['id']}"
    second = client.post(
        f"{url}/versions", json={"base": 1, "sheet": changed, "reason": "half as much garlic again", **BY}
    ).json()
    assert [v["number"] for v in second["versions"]] == [1, 2]
    same = client.post(f"{url}/versions", json={"base": 2, "sheet": changed, "reason": "x", **BY})
    assert same.status_code == 409
    rows = client.get(f"{url}/compare", params={"before": 1, "after": 2}).json()
    assert rows == [
        {
            "what": {"code": "version.line", "values": {"name": "Garlic"}},
            "was": {"code": "version.percent", "values": {"amount": 0.2, "note": ""}},
            "now": {"code": "version.percent", "values": {"amount": 0.3, "note": ""}},
        },
        {
            "what": {"code": "version.line", "values": {"name": "Juniper"}},
            "was": None,
            "now": {"code": "version.percent", "values": {"amount": 0.1, "note": ""}},
        },
    ]
    file = client.get(f"{url}/file", params={"version": 2})
    back = client.post("/api/recipes/read", files={"file": ("r.json", file.content)})
    assert back.json()["sheet"] == second["versions"][1]["sheet"]
    bad = client.post("/api/recipes/read", files={"file": ("r.json", b'{"format": "zymon-recipe/1", "name": "x"}')})
    assert (bad.status_code, bad.json()["code"]) == (422, "file_unusable")


def test_a_weigh_out_is_left_taken_up_and_counts_nothing_twice(client: TestClient, chamber: dict) -> None:
    weigh_out = begin(client, sheet_body())
    assert weigh_out["left"] == len(weigh_out["things"])
    assert pour(client, weigh_out, "meat-0", 3800, lot="SH-11").status_code == 201
    for _ in range(2):  # the same entry sent twice
        once = pour(client, weigh_out, "meat-0", 0.5, uid="the-same-uid").json()
    assert once["things"][0]["weighed_g"] == pytest.approx(3800.5)
    assert [w["left"] for w in client.get("/api/bench").json()["weigh_outs"]] == [once["left"]]
    early = client.post(f"/api/weigh-outs/{weigh_out['id']}/batch", json={"code": "J-01", **BY})
    assert (early.status_code, "not weighed out yet" in early.json()["detail"]) == (422, True)
    too_much = pour(client, weigh_out, "curing", 14.5).json()
    (curing,) = [t for t in too_much["things"] if t["key"] == "curing"]
    assert (curing["state"], round(curing["missing_g"], 2)) == ("over", -2.0)
    out = pour(client, weigh_out, "curing", -2.0).json()
    assert next(t for t in out["things"] if t["key"] == "curing")["state"] == "right"
    assert pour(client, weigh_out, "curing", -50).status_code == 422
    wrong_label = pour(client, weigh_out, "curing", 0.1, lot="SH-11")
    assert (wrong_label.status_code, "look at the label" in wrong_label.json()["detail"]) == (409, True)


def test_the_rest_is_rescaled_to_what_went_in(client: TestClient) -> None:
    weigh_out = begin(client, sheet_body())
    pour(client, weigh_out, "meat-0", 3990)
    body = {"uid": "rescale-1", "key": "meat-0", **BY}
    now = client.post(f"/api/weigh-outs/{weigh_out['id']}/rescale", json=body).json()
    assert now["rescale"] == pytest.approx(1.05)
    targets = {t["key"]: t["target_g"] for t in now["things"]}
    assert targets["meat-1"] == pytest.approx(1260)
    assert targets["curing"] == pytest.approx(13.1)  # rounded down to what a 0.1 g scale shows
    struck = client.post(
        f"/api/weigh-out-entries/{now['entries'][-1]['id']}/strike", json={"reason": "no", **BY}
    ).json()
    assert struck["rescale"] == 1


def test_from_batch_to_tags_to_the_hook_and_back_to_the_lot(client: TestClient, chamber: dict) -> None:
    batch = made(client, sheet_body())
    assert (batch["holds"], batch["asks_pinch"], batch["next_tag"]) == ([], True, "J-01-01")
    place = chamber["place"]["id"]
    assert (
        client.put(f"/api/batches/{batch['id']}/pinch", json={"place_id": place, **BY}).json()["pinch_place"]
        == "Cellar"
    )
    one = {"gross_g": 905, "casing_g": 6, "string_g": 4, "diameter_mm": 60, "target_loss_percent": 35}
    url = f"/api/batches/{batch['id']}/pieces"
    done = client.post(url, json={"pieces": [one, one], **BY}).json()
    assert [p["tag"] for p in done["pieces"]] == ["J-01-01", "J-01-02"]
    assert done["pieces"][0]["tag_g"] == round(895 * 0.65 + 10)
    assert done["pieces"][0]["life"]["kind"] == "waiting"
    clash = client.post(url, json={"pieces": [one, {**one, "tag": "J-01-01"}], **BY})
    assert clash.status_code == 409
    assert len(client.get(f"/api/batches/{batch['id']}").json()["pieces"]) == 2  # all or none
    raw = client.post(url, json={"pieces": [{**one, "loss_basis": "raw"}], **BY})
    assert "its loss counts from the raw weight, which is not known" in raw.json()["detail"]
    pdf = client.get(f"/api/batches/{batch['id']}/tags.pdf", params={"paper": "roll62"})
    page = pypdfium2.PdfDocument(pdf.content)[0]
    said = page.get_textpage().get_text_range()
    assert all(words in said for words in ("Juniper salame", "J-01-01", "done when the scale shows", "592 g", "905 g"))
    assert round(page.get_width() / 72 * 25.4) == 62

    waiting = client.get("/api/bench/waiting").json()
    assert [w["tag"] for w in waiting] == ["J-01-01", "J-01-02"]
    w = waiting[0]
    body = piece_body(
        chamber, tag=w["tag"], batch_code=w["batch"], product=w["product"], kind=w["kind"], shape=w["shape"],
        casing=w["casing"], start_weight_g=w["gross_g"], tare_g=w["tare_g"], diameter_mm=w["diameter_mm"],
        target_loss_percent=w["target_loss_percent"],
    )  # fmt: skip
    hung = client.post("/api/pieces", json=body)
    assert hung.status_code == 201, hung.text
    assert hung.json()["card"]["target_weight_g"] == pytest.approx(w["target_gross_g"], abs=0.1)
    assert [w["tag"] for w in client.get("/api/bench/waiting").json()] == ["J-01-02"]
    assert client.get("/api/tags/J-01-01").json()["place_id"] == place
    assert client.get("/api/tags/J-01-02").json()["batch_id"] == batch["id"]
    lot = next(lot for lot in client.get("/api/lots").json() if lot["code"] == "SH-11")
    (held,) = client.get(f"/api/lots/{lot['id']}").json()["batches"]
    assert (held["batch"], [p["tag"] for p in held["pieces"]]) == ("J-01", ["J-01-01", "J-01-02"])
    assert {u["lot"] for u in client.get(f"/api/batches/{batch['id']}").json()["used"]} == {"SH-11", "CS-2", None}


def test_minced_goods_without_nitrite_carry_a_hold_that_wants_a_legal_basis(client: TestClient) -> None:
    bare = copy.deepcopy(sheet_body())
    bare["curing"] = None
    said = work(client, bare)["consequences"]["cautions"]
    assert any(c["hold"] and "No nitrite in minced goods" in support.words(c["says"]) for c in said)
    batch = made(client, bare, "J-02")
    (hold,) = batch["holds"]
    assert client.get("/api/bench").json()["batches"][0]["held"]
    empty = client.post(f"/api/holds/{hold['id']}/answer", json={"reason": "school", "legal_basis": "", **BY})
    assert empty.status_code == 422
    answer = {"reason": "challenge study 12", "legal_basis": "licence 7, section 3", **BY}
    after = client.post(f"/api/holds/{hold['id']}/answer", json=answer).json()
    assert after["holds"][0]["legal_basis"] == "licence 7, section 3"
    assert client.post(f"/api/holds/{hold['id']}/answer", json=answer).status_code == 409


def test_weeks_are_told_by_the_forecast_of_the_place(client: TestClient, chamber: dict) -> None:
    told = client.post("/api/bench/weeks", json={"sheet": sheet_body(), "place_id": chamber["place"]["id"]}).json()
    assert 4 < told["middle"] < 12
    assert told["low"] < told["middle"] < told["high"]
    assert told["hooks_free"] == 8
    assert told["reaches"] > 0.9
    assert [one["code"] for one in told["assumed"]] == ["assumed.as_set"]


def test_the_outlook_says_what_hanging_says_and_uses_the_log_of_an_empty_place(client: TestClient) -> None:
    client.put("/api/workshop", json={"name": "Kitchen", "time_zone": "Europe/Rome"}).raise_for_status()
    body = {"name": "Fridge", "sort": "household_fridge", "hooks_per_rod": [4], "by": "Ida"}
    place = client.post("/api/places", json=body).json()["id"]

    def outlook() -> dict:
        return client.post("/api/bench/weeks", json={"sheet": sheet_body(), "place_id": place}).json()

    usual = outlook()
    assert [one["code"] for one in usual["assumed"]] == ["assumed.temperature", "assumed.humidity"]
    reading = {"temperature_c": 3, "rh_percent": 75, "by": "Ida"}
    client.post(f"/api/places/{place}/readings", json=reading).raise_for_status()
    read = outlook()
    assert read["assumed"] == []
    assert read["middle"] > usual["middle"]  # damper than such a fridge usually is


def test_the_ledger_of_a_batch_tells_what_is_missing_and_takes_a_signature(client: TestClient) -> None:
    weigh_out = begin(client, sheet_body())
    client.put(f"/api/weigh-outs/{weigh_out['id']}/temperature", json={"temperature_c": 5.5, **BY})
    pour_all(client, weigh_out)
    batch = client.post(f"/api/weigh-outs/{weigh_out['id']}/batch", json={"code": "J-03", **BY}).json()
    url = f"/api/batches/{batch['id']}"
    found = client.get(f"{url}/ledger").json()
    states = {h["name"]: h["state"] for h in found["hurdles"]}
    assert states == {
        "cold_mix": "pass", "salt": "pass", "nitrite_in": "pass", "nitrate_in": "pass", "parasite": "unknown",
        "degree_hours": "unknown", "acid": "pending", "target_loss": "pending", "dry_enough": "pending",
        "keeping": "unknown",
    }  # fmt: skip
    assert found["hurdles"][0]["cautions"] == ["5.5 °C lies above 4 °C: chill the meat before mixing"]
    assert not found["ready"]
    sign = {"hurdle": "parasite", "reason": "certified by the slaughterhouse, paper 12", **BY}
    after = client.post(f"{url}/signatures", json=sign).json()
    assert next(h["signed"]["by"] for h in after["hurdles"] if h["name"] == "parasite") == "Ida"
    assert not any(w["hurdle"] == "parasite" for w in after["why"])
    refused = client.post(f"{url}/signatures", json={**sign, "hurdle": "target_loss"})
    assert (refused.status_code, "only an unknown can be signed for" in refused.json()["detail"]) == (409, True)
    salty = copy.deepcopy(sheet_body())
    salty["curing"]["percent"] = 0.4
    bad = made(client, salty, "J-04")
    states = {h["name"]: h["state"] for h in client.get(f"/api/batches/{bad['id']}/ledger").json()["hurdles"]}
    assert states["nitrite_in"] == "fail"
    forced = client.post(f"/api/batches/{bad['id']}/signatures", json={**sign, "hurdle": "nitrite_in"})
    assert forced.status_code == 409
