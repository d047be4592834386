"""The Book through the API on real SQLite: found by words and days, told, printed, compared, exported."""

import csv
import io

import openpyxl
import pypdfium2 as pdfium
import pytest
from fastapi.testclient import TestClient

from built import built_once
from courses.kitchen import Kitchen
from support import Clock, iso, sheet_body, words


@pytest.fixture
def kitchen(client: TestClient, clock: Clock) -> Kitchen:
    return Kitchen(client, clock)


@built_once
def told(kitchen: Kitchen) -> dict:
    """A salame of lots, soured, hung six weeks, weighed weekly, with a note, a strike and a cut."""
    kitchen.post("/workshop", "PUT", name="Test cellar", time_zone="Europe/Rome")
    recipe = kitchen.post("/recipes", name="Juniper salame", sheet=sheet_body(), reason="first")
    batch = kitchen.mince_by(recipe, sheet_body(), "J-20")
    kitchen.stuff(batch, *[{"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36}] * 2)
    cellar = kitchen.place("Cellar", "drying_chamber", temperature_c=13, rh_percent=78)
    declared = {
        "batch": "J-20", "tare_g": 11, "diameter_mm": 58, "fat_percent": 26, "salt_percent": 2.7,
        "target_loss_percent": 36, "casing": "natural", "sure": True,
    }  # fmt: skip
    first, _ = (kitchen.hang(cellar, f"J-20-0{i}", "salame", "cylinder", 842, **declared) for i in (1, 2))
    piece = first["card"]["id"]
    for gross_g in (760, 690, 635, 595, 565, 541):
        kitchen.wait(days=7)
        kitchen.post(f"/pieces/{piece}/weighings", gross_g=gross_g, sure=True)
    wrong = kitchen.post(f"/pieces/{piece}/weighings", gross_g=514, sure=True)["made"][-1]["id"]
    kitchen.post(f"/weighings/{wrong}/strike", reason="read upside down")
    kitchen.post("/hook-events", kind="inspect", pieces=[piece], found={"firm_rim": "firm"}, note="smells of hazelnut")
    kitchen.log(cellar, 30, 12.8, 79)
    return {"batch": batch["id"], "piece": piece, "cellar": cellar}


def found(kitchen: Kitchen, wanted: str) -> list[tuple[str, str]]:
    return [(one["kind"], one["title"]) for one in kitchen.get(f"/find?words={wanted}")["found"]]


def test_three_letters_find_whatever_bears_them(kitchen: Kitchen, told: dict) -> None:
    assert ("batch", "J-20") in found(kitchen, "jun")
    assert found(kitchen, "J-20-01")[0] == ("piece", "J-20-01")
    assert found(kitchen, "haz") == [("note", "smells of hazelnut")]
    assert found(kitchen, "SH-1") == [("lot", "SH-11")]
    assert ("person", "Ida") in found(kitchen, "ida")
    assert ("recipe", "Juniper salame") in found(kitchen, "salame jun")
    assert ("place", "Cellar") in found(kitchen, "cell")
    assert found(kitchen, "zzz") == []
    assert found(kitchen, "j") == []  # one letter says too little
    for odd in ('"', "*", "a OR b", "NEAR(", "'; --", "-", "ümlaut", " "):
        assert kitchen.client.get("/api/find", params={"words": odd}).status_code == 200, odd


def test_a_day_or_a_month_finds_what_was_made_hung_or_taken_down_then(kitchen: Kitchen, told: dict) -> None:
    made = kitchen.get(f"/batches/{told['batch']}/story")["made_at"][:10]
    year, month, day = made.split("-")
    assert ("batch", "J-20") in found(kitchen, made)
    assert ("batch", "J-20") in found(kitchen, f"{year}-{month}")
    assert ("batch", "J-20") in found(kitchen, f"{day}.{month}.{year}")  # days come before months
    assert found(kitchen, f"{int(year) - 1}-{month}-{day}") == []
    assert kitchen.get("/find?words=99.99.2026")["day"] is None


def test_what_is_renamed_or_struck_is_found_by_what_it_says_now(kitchen: Kitchen, told: dict) -> None:
    event = kitchen.get(f"/pieces/{told['piece']}/hook")["events"][0]["id"]
    kitchen.post(f"/hook-events/{event}/strike", reason="another piece")
    (note,) = kitchen.get("/find?words=hazelnut")["found"]
    assert note["struck"] is True  # it stays to be found, marked as what it is


def test_the_story_is_one_object_with_everything_on_it(kitchen: Kitchen, told: dict) -> None:
    story = kitchen.get(f"/batches/{told['batch']}/story")
    assert (story["code"], story["product"], len(story["pieces"])) == ("J-20", "Juniper salame", 2)
    first = story["pieces"][0]
    assert [w["gross_g"] for w in first["weights"]] == [760, 690, 635, 595, 565, 541, 514]
    assert [w["struck_reason"] for w in first["weights"]][-1] == "read upside down"
    assert first["weights"][4]["at"] < first["reached_at"] < first["weights"][5]["at"]  # between 34 and 36.2 %
    assert len(first["told"]) >= 6
    assert {(one["name"], one["lot"]) for one in story["went_in"]} >= {("Shoulder", "SH-11")}
    hang = next(s for s in story["stages"] if s["kind"] == "hang")
    assert (hang["mean_c"], hang["mean_rh_percent"]) == (12.8, 79)
    assert [words(d["says"]) for d in story["doings"]] == ["felt and smelled"]
    assert any(line["what"] == "weighing" and line["reason"] == "read upside down" for line in story["changes"])
    assert {h["name"] for h in story["ledger"]["hurdles"]} >= {"salt", "target_loss", "degree_hours"}
    assert kitchen.client.get("/api/batches/999/story").status_code == 404


def pdf_text(kitchen: Kitchen, url: str) -> tuple[int, str]:
    answer = kitchen.client.get(f"/api{url}")
    assert answer.status_code == 200, answer.text
    pages = list(pdfium.PdfDocument(answer.content))
    return len(pages), " ".join(" ".join(page.get_textpage().get_text_bounded().split()) for page in pages)


def test_the_printed_record_says_what_the_page_says(kitchen: Kitchen, told: dict) -> None:
    story = kitchen.get(f"/batches/{told['batch']}/story")
    pages, text = pdf_text(kitchen, f"/batches/{told['batch']}/record.pdf")
    assert f"page {pages} of {pages}" in text
    assert "Record of batch J-20" in text
    for weight in story["pieces"][0]["weights"]:
        assert f"{weight['gross_g']:g} g" in text
        assert f"{weight['loss_percent']:.1f} %" in text
    assert "struck: read upside down" in text
    for hurdle in story["ledger"]["hurdles"]:
        if isinstance(hurdle["value"], float):
            assert f"{hurdle['value']:.4g}" in text, hurdle["name"]
    assert "ready about, est." in text  # an estimate is never printed as a reading
    assert "SH-11" in text
    assert "no lot noted" in text
    assert "Local food law and a licensed process come before this record" in text


def test_beside_each_other_what_differed_is_said(kitchen: Kitchen, told: dict) -> None:
    saltier = kitchen.mince({**sheet_body(), "salt_percent": 3.1}, "J-21")
    seen = kitchen.client.get("/api/book/compare", params={"batches": [told["batch"], saltier["id"]]}).json()
    said = [words(one) for one in seen["differs"]]
    assert any(one.startswith("salt: J-20 2.7") and one.endswith("J-21 3.1 %") for one in said), said
    assert not any("casing" in one for one in said)
    first = seen["batches"][0]["curves"][0]
    assert (first["days"][:2], first["loss_percent"][0]) == ([0, 7], 0)
    assert first["loss_percent"][-1] == pytest.approx(100 * (842 - 541) / 831, abs=0.1)
    one = seen["batches"][1]
    assert (one["curves"], one["air"], one["facts"]["days_to_target"]) == ([], None, None)
    many = kitchen.client.get("/api/book/compare", params={"batches": list(range(1, 9))})
    assert many.status_code == 422
    assert kitchen.client.get("/api/book/compare").status_code == 422
    assert kitchen.client.get("/api/book/compare", params={"batches": [77]}).status_code == 404


def test_a_spreadsheet_holds_what_the_tables_hold_and_what_its_columns_mean(kitchen: Kitchen, told: dict) -> None:
    kitchen.post(f"/pieces/{told['piece']}/weighings", gross_g=540, sure=True, by="=1+1")
    answer = kitchen.client.get("/api/workshop.xlsx")
    assert answer.status_code == 200
    book = openpyxl.load_workbook(io.BytesIO(answer.content))
    assert book.sheetnames == ["pieces", "weights", "ph", "climate", "stock", "columns"]
    weights = list(book["weights"].values)
    assert weights[0] == ("tag", "at", "gross_g", "loss_percent", "by", "struck")
    assert [row[2] for row in weights[1:]] == [760, 690, 635, 595, 565, 541, 514, 540]
    assert book["weights"]["E9"].data_type == "s"  # what somebody typed is never a formula
    assert [row[2] for row in list(book["pieces"].values)[1:]] == ["J-20-01", "J-20-02"]
    hours = list(book["climate"].values)[1:]
    assert len(hours) == 30 * 12 + 1
    assert {row[2] for row in hours} == {12.8}
    named = {(row[0], row[1]) for row in list(book["columns"].values)[1:]}
    for sheet in book.sheetnames[:-1]:
        assert {(sheet, name) for name in next(book[sheet].values)} <= named


def test_tables_of_a_batch_as_csv_and_what_is_not_there_as_an_error_in_words(kitchen: Kitchen, told: dict) -> None:
    rows = list(csv.DictReader(io.StringIO(kitchen.client.get(f"/api/batches/{told['batch']}/weights.csv").text)))
    assert [row["gross_g"] for row in rows][-2:] == ["541.0", "514.0"]
    assert rows[-1]["struck"] == "read upside down"
    assert kitchen.client.get(f"/api/batches/{told['batch']}/ph.csv").text == "batch,at,ph,by,struck\n"
    none = kitchen.client.get(f"/api/batches/{told['batch']}/warm.json")
    assert (none.status_code, none.json()["detail"][:20]) == (404, "nobody said when thi")
    for url in ("/batches/99/weights.csv", "/batches/99/record.pdf", "/lots/99/recall.pdf"):
        assert kitchen.client.get(f"/api{url}").status_code == 404, url


def test_a_warm_file_is_read_back_as_it_was_measured(kitchen: Kitchen, told: dict) -> None:
    box = kitchen.place("Box", kind="warm", temperature_c=24)
    batch = kitchen.mince(sheet_body(), "J-30")
    kitchen.post(
        f"/warm/{batch['id']}/stage", "PUT", place_id=box.id, stuffed_at=iso(kitchen.clock.now), culture="medium",
        dextrose_percent=0.3, salt_percent=2.7, target_ph=5.2,
    )  # fmt: skip
    kitchen.wait(hours=14)
    kitchen.post(f"/warm/{batch['id']}/readings", ph=5.6, sample_c=22)
    file = kitchen.get(f"/batches/{batch['id']}/warm.json")
    assert (file["format"], file["id"], file["culture"], file["target_ph"]) == ("zymon-warm/1", "J-30", "medium", 5.2)
    assert [ph for _, ph in file["ph"]] == [5.6]


def test_a_recall_names_every_piece_and_pack_and_where_it_went(kitchen: Kitchen, told: dict) -> None:
    kitchen.down({"card": {"id": told["piece"]}}, 540)
    kitchen.post(f"/pieces/{told['piece']}/packs", number=3, net_g=120, period_days=60, sure=True)
    pack = kitchen.get("/stock")["packs"][0]["id"]
    kitchen.post(f"/packs/{pack}/out", number=2, how="sold", to_whom="Saturday market")
    lot = next(x for x in kitchen.get("/lots") if x["code"] == "SH-11")
    _, text = pdf_text(kitchen, f"/lots/{lot['id']}/recall.pdf")
    assert "Recall of lot SH-11" in text
    assert "1 pack of them is here" in text
    assert "J-20-01" in text
    assert "J-20-02" in text
    assert "2 sold to Saturday market" in text


def test_the_hang_file_is_sent_as_it_is_read_and_reads_back(kitchen: Kitchen, told: dict) -> None:
    file = kitchen.get(f"/places/{told['cellar'].id}/hang-file")
    assert len(file["climate"]) == 30 * 12 + 1
    assert file["climate"][0][1:] == [12.8, 79]
    assert [p["tag"] for p in file["batches"][0]["pieces"]] == ["J-20-01", "J-20-02"]
    empty = kitchen.place("Empty", "drying_chamber")
    assert kitchen.get(f"/places/{empty.id}/hang-file")["climate"] == []
