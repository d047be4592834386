"""The Book through the real screens: found by a word, told, compared, printed, owned up to, recalled."""

import re

import pypdfium2 as pdfium
from benchmarks.maker import Maker
from playwright.sync_api import Page, expect

from courses.kitchen import Kitchen, Place
from serving import Server
from support import Clock, sheet_body


def salame(kitchen: Kitchen, cellar: Place, recipe: dict, code: str, weights: tuple[int, ...], **sheet: object) -> int:
    """A batch of two that dried by those weights, a week apart; the first is taken down with a note."""
    batch = kitchen.mince_by(recipe, {**sheet_body(), **sheet}, code)
    kitchen.stuff(batch, *[{"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36}] * 2)
    hung = [
        kitchen.hang(
            cellar, f"{code}-0{i}", "salame", "cylinder", 842, batch=code, tare_g=11, diameter_mm=58, fat_percent=26,
            salt_percent=2.7, target_loss_percent=36, casing="natural", sure=True,
        )["card"]["id"]
        for i in (1, 2)
    ]  # fmt: skip
    for gross_g in weights:
        kitchen.wait(days=7)
        for piece in hung:
            kitchen.post(f"/pieces/{piece}/weighings", gross_g=gross_g, sure=True)
    for piece in hung:
        kitchen.post(
            f"/pieces/{piece}/take-down", kind="kept", not_weighed=True, sure=True, note="the one with the wild fennel"
        )
    return batch["id"]


def two_years(server: Server, clock: Clock) -> None:
    kitchen = Kitchen(Maker(server.app), clock)
    kitchen.post("/workshop", "PUT", name="Test cellar", time_zone="Europe/Rome")
    cellar = kitchen.place("Cellar", "drying_chamber", temperature_c=13, rh_percent=78)
    recipe = kitchen.post("/recipes", name="Juniper salame", sheet=sheet_body(), reason="first")
    salame(kitchen, cellar, recipe, "J-01", (760, 690, 635, 595, 565, 541))
    kitchen.wait(days=690)
    salame(kitchen, cellar, recipe, "J-40", (730, 650, 590, 540), salt_percent=3.1)


def test_a_batch_of_two_years_ago_is_found_told_compared_printed_and_recalled(page: Page, serve, clock: Clock) -> None:
    server = serve()
    two_years(server, clock)
    page.goto(f"{server.url}/today")
    expect(page.get_by_role("link", name="Book")).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type("wild fen")  # by keyboard alone
    first = page.get_by_role("option").first
    expect(first).to_contain_text("the one with the wild fennel")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Escape")
    expect(page.get_by_role("option")).to_have_count(0)
    page.keyboard.press("/")
    page.keyboard.type("J-01")
    expect(page.get_by_role("option").first).to_contain_text("J-01")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/book/batch/1$"))
    expect(page).to_have_title("The story of J-01 · Zymon")
    story = page.request.get(f"{server.url}/api/batches/1/story").json()
    expect(page.get_by_role("region", name="Weights")).to_contain_text("842 g → 541 g")
    expect(page.get_by_role("region", name="Its time line")).to_contain_text("The scale showed its target on")
    expect(page.get_by_role("region", name="What was done")).to_contain_text("the one with the wild fennel")

    with page.expect_download() as printed:
        page.get_by_role("link", name="Print the record").click()
    pages = list(pdfium.PdfDocument(printed.value.path()))
    text = " ".join(" ".join(one.get_textpage().get_text_bounded().split()) for one in pages)
    for piece in story["pieces"]:
        for weight in piece["weights"]:
            assert f"{weight['gross_g']:g} g" in text
    for hurdle in story["ledger"]["hurdles"]:
        if isinstance(hurdle["value"], float):
            assert f"{hurdle['value']:.4g}" in text, hurdle["name"]

    page.get_by_role("link", name="Compare").click()
    page.get_by_label("another batch").select_option(label="J-40 · Juniper salame")
    differs = page.get_by_role("region", name="What differed")
    expect(differs).to_contain_text("Salt: J-01 2.7 %, J-40 3.1 %.")
    expect(differs).to_contain_text(re.compile(r"To the target: J-40 \d+(\.\d)? days, J-01"))
    page.reload()  # what is compared stands in the address
    expect(differs).to_contain_text("Salt: J-01 2.7 %, J-40 3.1 %.")
    page.go_back()
    expect(page).to_have_url(re.compile("/book/batch/1$"))

    page.goto(f"{server.url}/book")
    page.get_by_role("link", name="How good were the dates?").click()
    expect(page.get_by_role("region", name="told then")).to_contain_text("inside the window")
    expect(page.get_by_role("region", name="Every piece")).to_contain_text("J-01-01")

    page.goto(f"{server.url}/book/batch/1")
    page.get_by_role("link", name="SH-11").click()
    expect(page.get_by_role("heading", name="Lot SH-11")).to_be_visible()
    with page.expect_download() as recalled:
        page.get_by_role("link", name="Recall on one sheet").click()
    sheet = " ".join(p.get_textpage().get_text_bounded() for p in pdfium.PdfDocument(recalled.value.path()))
    assert all(tag in sheet for tag in ("J-01-01", "J-01-02", "J-40-01", "J-40-02"))
