"""The stock through the API on real SQLite: packed, labelled, opened, moved, eaten; yield, cost, recall both ways."""

import pypdfium2 as pdfium
import pytest
from fastapi.testclient import TestClient

from built import built_once
from courses.kitchen import Kitchen
from making import begin, pour_all
from support import sheet_body, words

BY = {"by": "Ida"}


@pytest.fixture
def kitchen(client: TestClient, clock) -> Kitchen:
    return Kitchen(client, clock)


@built_once
def hung(kitchen: Kitchen, client: TestClient) -> dict:
    """A salame made here of lots, hung six weeks and taken down with 541 g."""
    weigh_out = begin(client, sheet_body())
    pour_all(client, weigh_out)
    batch = kitchen.post(f"/weigh-outs/{weigh_out['id']}/batch", code="J-20")
    kitchen.stuff(batch, *[{"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36}] * 2)
    chamber = kitchen.place("Loft", "drying_chamber", temperature_c=13, rh_percent=78)
    declared = {
        "batch": "J-20", "tare_g": 11, "diameter_mm": 58, "fat_percent": 26, "salt_percent": 2.7,
        "target_loss_percent": 36, "casing": "natural", "sure": True,
    }  # fmt: skip
    first, second = (kitchen.hang(chamber, f"J-20-0{i}", "salame", "cylinder", 842, **declared) for i in (1, 2))
    kitchen.wait(days=42)
    kitchen.down(first, 541)
    return {**first, "other": second}


def pack(kitchen: Kitchen, hung: dict, **more: object) -> dict:
    return kitchen.post(
        f"/pieces/{hung['card']['id']}/packs", **{"number": 4, "net_g": 120, "period_days": 60, "sure": True, **more}
    )


def stock(kitchen: Kitchen) -> list[dict]:
    return kitchen.get("/stock")["packs"]


def lines(kitchen: Kitchen) -> list[str]:
    return [words(c["title"]) for c in kitchen.get("/today")["due"] if c["link"].startswith("/rest/stock")]


def test_packed_opened_eaten_until_it_is_gone(kitchen: Kitchen, hung: dict) -> None:
    found = pack(kitchen, hung)
    assert (found["state"], found["packed_g"], found["usable_g"]) == ("kept", 480, 541)
    assert {"code": "against.hurdle"}.items() <= found["against"][0].items()  # never "good" without its hurdles
    (one,) = stock(kitchen)
    assert (one["left"], one["net_g"], one["tag"], one["keep_at"]) == (4, 120, "J-20-01", "fridge")
    assert lines(kitchen) == []
    pack_id = one["id"]
    kitchen.wait(days=10)
    kitchen.post(f"/packs/{pack_id}/open")
    (one,) = stock(kitchen)
    assert one["opened"][0]["number"] == 1
    kitchen.wait(days=8)
    assert [line.startswith("Use up J-20-01: opened, until ") for line in lines(kitchen)] == [True]
    kitchen.wait(days=7)
    assert "stock.opened_long" in {c["code"] for c in stock(kitchen)[0]["cautions"]}
    kitchen.post(f"/packs/{pack_id}/out", how="eaten", number=1)
    assert (stock(kitchen)[0]["left"], stock(kitchen)[0]["opened"]) == (3, [])
    kitchen.post(f"/packs/{pack_id}/out", how="sold", number=2, to_whom="the inn")
    last = kitchen.post(f"/packs/{pack_id}/out", how="given", number=1, to_whom="Ada", uid="last-one")
    assert last["packs"] == []
    assert kitchen.look(hung)["card"]["life"]["kind"] == "kept"  # 61 g of it were never packed: it is not gone
    again = kitchen.post(f"/packs/{pack_id}/out", how="given", number=1, to_whom="Ada", uid="last-one")
    assert again["made"] == last["made"]
    kitchen.post("/undo", made=last["made"], reason="she did not come")
    assert stock(kitchen)[0]["left"] == 1


def test_with_the_last_pack_of_a_whole_piece_it_is_gone(kitchen: Kitchen, hung: dict) -> None:
    pack(kitchen, hung, number=5, net_g=105)
    (one,) = stock(kitchen)
    out = kitchen.post(f"/packs/{one['id']}/out", how="sold", number=5, to_whom="the inn")
    assert (out["packs"], out["grams_left"]) == ([], 0)
    life = kitchen.look(hung)["card"]["life"]
    assert (life["kind"], life["how"]) == ("gone", "sold")


def test_use_first_goes_by_the_clock_and_a_move_makes_packs_of_their_own(kitchen: Kitchen, hung: dict) -> None:
    pack(kitchen, hung, number=2, net_g=100, period_days=90)
    pack(kitchen, hung, number=1, net_g=100, period_days=20, form="sliced")
    pack(kitchen, hung, number=1, net_g=100, period_days=None, wrap="paper", keep_at="cellar")
    assert [p["period_days"] for p in stock(kitchen)] == [20, 90, None]
    cellar = stock(kitchen)[-1]
    codes = {c["code"] for c in cellar["cautions"]}
    assert "stock.no_period" in codes
    assert any(code.startswith("stock.too_warm") for code in codes) == (cellar["keeps"] != "no_chill")
    two = stock(kitchen)[1]
    kitchen.post(f"/packs/{two['id']}/move", number=1, keep_at="freezer", period_days=300)
    assert [(p["keep_at"], p["left"], p["period_days"]) for p in stock(kitchen)] == [
        ("fridge", 1, 20), ("fridge", 1, 90), ("freezer", 1, 300), ("cellar", 1, None),
    ]  # fmt: skip
    assert kitchen.get(f"/pieces/{hung['card']['id']}/packs")["packed_g"] == 400  # moved, not packed twice
    event = next(e for p in kitchen.get(f"/pieces/{hung['card']['id']}/packs")["packs"] for e in p["events"])
    kitchen.post(f"/pack-events/{event['id']}/strike", reason="it stayed where it was")
    assert [p["keep_at"] for p in stock(kitchen)] == ["fridge", "fridge", "cellar"]


@pytest.mark.parametrize(
    ("more", "says"),
    [
        ({"number": 5, "net_g": 120}, "600 g in packs, and only 541 g of it is left"),
        ({"number": 0}, "number"),
        ({"number": 501, "net_g": 1}, "number"),
        ({"net_g": -5}, ""),
        ({"period_days": 0}, "period"),
        ({"keep_at": "attic"}, "kept in cannot be 'attic'"),
        ({"place_id": 999}, "place"),
    ],
)
def test_packs_that_cannot_be_are_refused_in_words(
    client: TestClient, kitchen: Kitchen, hung: dict, more: dict, says: str
) -> None:
    body = {"number": 4, "net_g": 120, "sure": True, **BY, **more}
    answer = client.post(f"/api/pieces/{hung['card']['id']}/packs", json=body)
    assert answer.status_code in (404, 409, 422)
    assert says in answer.json()["detail"]
    assert stock(kitchen) == []


def test_what_hangs_is_held_or_is_gone_is_not_packed_and_a_slice_of_what_hangs_is(
    kitchen: Kitchen, client: TestClient, hung: dict
) -> None:
    other = hung["other"]
    url = f"/pieces/{other['card']['id']}/packs"
    assert "still hangs" in kitchen.refused(url, number=1, net_g=40, sure=True)
    kitchen.post(f"/pieces/{other['card']['id']}/slice", before_g=560, after_g=500)
    assert "only 60 g" in kitchen.refused(url, number=1, net_g=80, sure=True)
    kitchen.post(url, number=1, net_g=60, sure=True)
    assert kitchen.look(other)["card"]["life"]["kind"] == "hanging"
    kitchen.post("/hook-events", pieces=[hung["card"]["id"]], kind="hold", note="smells odd")
    assert "is held" in kitchen.refused(f"/pieces/{hung['card']['id']}/packs", number=1, net_g=40, sure=True)
    kitchen.become(hung, "gone", "discarded", note="foul")
    assert "J-20-01" in kitchen.refused(f"/pieces/{hung['card']['id']}/packs", number=1, net_g=40, sure=True)


def test_nothing_goes_out_that_is_not_there(kitchen: Kitchen, hung: dict) -> None:
    pack(kitchen, hung)
    (one,) = stock(kitchen)
    assert kitchen.refused(f"/packs/{one['id']}/out", how="eaten", number=5) == "only 4 are left"
    assert kitchen.refused(f"/packs/{one['id']}/out", how="discarded") == "say why it is thrown away"
    assert kitchen.refused(f"/packs/{one['id']}/open", number=5) == "only 4 are left that nobody opened"
    early = kitchen.refused(f"/packs/{one['id']}/out", how="eaten", at="2026-10-04T10:00:00Z", sure=True)
    assert early == "J-20-01 was packed after that: check the date"
    kitchen.post(f"/packs/{one['id']}/out", how="discarded", note="fell in the sink", number=1)
    assert kitchen.refused(f"/packs/{one['id']}/strike", reason="never there").startswith("something became")
    assert kitchen.get(f"/pieces/{hung['card']['id']}/packs")["thrown_g"] == 120


def text_of(client: TestClient, query: str) -> tuple[int, str]:
    answer = client.get(f"/api/packs/labels.pdf?{query}")
    assert answer.status_code == 200, answer.text
    pages = list(pdfium.PdfDocument(answer.content))
    return len(pages), "\n".join(page.get_textpage().get_text_bounded() for page in pages)


def test_a_label_names_what_is_in_it_by_weight_its_allergens_its_lot_and_the_makers_own_day(
    kitchen: Kitchen, client: TestClient, hung: dict
) -> None:
    kitchen.post("/allergens", word="Garlic", allergens=["mustard"])
    assert kitchen.refused("/allergens", word="garlic", allergens=["egg"]) == "“garlic” is in the list already"
    pack(kitchen, hung)
    (one,) = stock(kitchen)
    pages, text = text_of(client, f"ids={one['id']}")
    flat = " ".join(text.split())
    assert pages == 1
    assert flat.count("Ingredients:") == 4
    order = [flat.index(word) for word in ("pork", "red wine", "dextrose", "garlic")]
    assert order == sorted(order)
    assert "Contains: mustard, sulphites" in flat.replace(
        "Contains: sulphites, mustard", "Contains: mustard, sulphites"
    )
    assert "120 g" in flat
    assert "J-20 · J-20-01" in flat
    assert "13 Jan 2027" in flat  # 60 days after it was packed, by the maker's own period
    assert "by estimate" in flat
    assert text_of(client, f"ids={one['id']}&paper=roll62")[0] == 4
    client.cookies.set("zymon_shows", "language=it")
    italian = " ".join(text_of(client, f"ids={one['id']}")[1].split())
    order = [
        italian.index(word) for word in ("Ingredienti: maiale", "sale,", "red wine", "sale nitritato (sale, nitrito")
    ]
    assert order == sorted(order)
    assert "Contiene: senape, solfiti" in italian.replace("solfiti, senape", "senape, solfiti")
    assert client.get("/api/packs/labels.pdf?ids=999").status_code == 404
    assert client.get("/api/packs/labels.pdf").status_code == 422


def test_without_a_sheet_ingredients_are_typed_or_there_is_no_label(kitchen: Kitchen, client: TestClient) -> None:
    chamber = kitchen.place("Loft", "drying_chamber", temperature_c=13, rh_percent=78)
    coppa = kitchen.hang(
        chamber, "C-1-01", "whole_muscle", "cylinder", 900, diameter_mm=70, target_loss_percent=35, sure=True
    )
    kitchen.wait(days=50)
    kitchen.down(coppa, 585)
    pack(kitchen, coppa, number=1, net_g=200, period_days=None)
    (one,) = stock(kitchen)
    label = kitchen.get(f"/packs/{one['id']}/label")
    assert words(label["no_label"]) == "what is in C-1-01 is not on record: type its ingredients when you pack it"
    none = client.get(f"/api/packs/labels.pdf?ids={one['id']}")
    assert none.json()["detail"] == "what is in C-1-01 is not on record: type its ingredients when you pack it"
    pack(kitchen, coppa, number=1, net_g=200, ingredients="pork neck, salt, white wine")
    typed = next(p for p in stock(kitchen) if p["id"] != one["id"])
    _, text = text_of(client, f"ids={typed['id']}")
    assert "pork neck" in text
    assert "sulphites" in text


def test_yield_and_cost_leave_out_what_was_thrown_away_and_recall_goes_both_ways(kitchen: Kitchen, hung: dict) -> None:
    other = hung["other"]
    batch_id = kitchen.get(f"/pieces/{hung['card']['id']}/cut")["batch_id"]
    before = kitchen.get(f"/batches/{batch_id}/yield")
    assert {s["step"]: s["grams"] for s in before["steps"]}["finished"] is None  # one still hangs
    kitchen.down(other, 600, kind="gone", how="discarded", note="mould inside")
    pack(kitchen, hung)
    kitchen.post(f"/packs/{stock(kitchen)[0]['id']}/out", how="discarded", note="tore", number=1)
    kitchen.post(f"/batches/{batch_id}/costs", kind="casing", amount=6.5)
    wrong = kitchen.post(f"/batches/{batch_id}/costs", kind="work", amount=400)["costs"][-1]["id"]
    kitchen.post(f"/costs/{wrong}/strike", reason="40, not 400")
    found = kitchen.post(f"/batches/{batch_id}/costs", kind="work", amount=40, note="two hours")
    grams = {s["step"]: s["grams"] for s in found["steps"]}
    assert (found["pieces"], found["discarded"], found["thrown_g"]) == (1, 1, 589 + 120)
    assert (grams["bought"], grams["hung"], grams["finished"], grams["usable"]) == (5000, 831, 530, 360)
    cost = found["ingredients_cost"] + 46.5
    assert found["cost_per_finished_kg"] == pytest.approx(cost / 0.530)
    assert found["cost_per_usable_kg"] == pytest.approx(cost / 0.360)

    # from a lot to every pack and back
    lot = next(x for x in kitchen.get("/lots") if x["code"] == "SH-11")
    (recalled,) = kitchen.get(f"/lots/{lot['id']}")["batches"]
    assert [(p["tag"], p["state"]) for p in recalled["pieces"]] == [("J-20-01", "kept"), ("J-20-02", "gone, discarded")]
    (packs,) = recalled["pieces"][0]["packs"]
    assert (packs["left"], packs["events"][0]["how"]) == (3, "discarded")
    back = kitchen.get(f"/pieces/{hung['card']['id']}/lots")
    assert {x["code"] for x in back["lots"]} == {"SH-11", "CS-2"}
    assert next(x["grams"] for x in back["lots"] if x["code"] == "SH-11") == pytest.approx(3800, abs=0.1)


def test_a_piece_kept_whole_is_in_the_stock_too(kitchen: Kitchen, hung: dict) -> None:
    kitchen.become(hung, "kept")
    (one,) = stock(kitchen)
    assert (one["id"], one["form"], one["net_g"]) == (None, "whole", 530)
    kitchen.become(hung, "gone", "eaten")
    assert stock(kitchen) == []
