"""Rows copied from a spreadsheet, pasted where they belong: lines and parts of a sheet, pieces, readings of a place."""

from playwright.sync_api import Locator, Page, expect

from pages import make_batch, open_workshop, post
from support import Clock

PASTE = """(onto, text) => {
  const data = new DataTransfer();
  data.setData('text/plain', text);
  onto.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
}"""


def paste(onto: Locator, *rows: str) -> None:
    onto.evaluate(PASTE, "\n".join(rows))


def test_lines_and_parts_of_a_sheet(page: Page, serve, clock: Clock) -> None:
    url = serve().url
    open_workshop(page, url)
    page.goto(f"{url}/bench")
    lines = page.get_by_role("region", name="Line")
    expect(lines).to_be_visible()
    paste(
        lines.get_by_label("Line 1"),
        *("Ingredient\tg/kg\tremark", "Salt\t28\t", "Garlic\t2\tfresh", "Curing salt\t2.5\t", "Fennel\tsome\t"),
    )
    pasted = page.get_by_role("region", name="Pasted")
    expect(pasted.get_by_label("Column 2 holds")).to_have_value("amount")
    expect(pasted.get_by_label("Numbers without a unit are")).to_have_value("per_kg")
    take = pasted.get_by_role("button", name="Take 4 rows")
    expect(take).to_be_disabled()
    expect(pasted.get_by_text("so that its nitrite is counted: pick it there")).to_be_visible()
    expect(pasted.get_by_text("“some” is no number")).to_be_visible()
    pasted.get_by_role("checkbox", name="Row 3").uncheck()
    pasted.get_by_role("checkbox", name="Row 4").uncheck()
    pasted.get_by_role("button", name="Take 2 rows").click()
    expect(lines.get_by_label("Salt, share", exact=True)).to_have_value(
        "2.8"
    )  # its own place, not a second time as a spice
    expect(lines.get_by_label("Garlic, share")).to_have_value("2")
    expect(lines.get_by_label("Garlic, note")).to_have_value("fresh")
    expect(lines.get_by_label("Fennel, share")).to_have_count(0)
    page.keyboard.press("u")
    expect(lines.get_by_label("Garlic, share")).to_have_count(0)
    expect(lines.get_by_label("Salt, share", exact=True)).to_have_value("2.7")

    block = page.get_by_role("region", name="Meat block")
    paste(block.get_by_label("Part 1"), "Neck\t1.2 kg", "Belly\t800")
    pasted = page.get_by_role("region", name="Pasted")
    expect(pasted.get_by_text("goes in with 10 %")).to_be_visible()
    pasted.get_by_role("button", name="Take 2 rows").click()
    expect(block.get_by_label("Neck, trimmed, g")).to_have_value("1200")
    expect(block.get_by_label("Belly, fat, %")).to_have_value("10")
    block.get_by_label("Part 1").press("Control+a")
    block.get_by_label("Part 1").evaluate(PASTE, "one cell")  # text like any other: no table is made of it
    expect(page.get_by_role("region", name="Pasted")).to_have_count(0)


def test_pieces_are_tagged_all_or_none(page: Page, serve, clock: Clock) -> None:
    url = serve().url
    open_workshop(page, url)
    batch = make_batch(page, url, "J-07")
    page.goto(f"{url}/bench/batch/{batch}")
    form = page.get_by_role("form", name="Make pieces")
    paste(form.locator("#gross"), "J-07-11\t812\t61", "J-07-12\t790,5\t60", "J-07-12\t801\t62")
    pasted = page.get_by_role("region", name="Pasted")
    pasted.get_by_role("button", name="Take 3 rows").click()
    expect(form.get_by_role("alert")).to_be_visible()  # a tag that is there twice
    made = page.request.get(f"{url}/api/batches/{batch}").json()["pieces"]
    assert made == []
    pasted.get_by_role("checkbox", name="Row 3").uncheck()
    pasted.get_by_role("button", name="Take 2 rows").click()
    expect(page.get_by_text("2 pieces tagged")).to_be_visible()
    made = page.request.get(f"{url}/api/batches/{batch}").json()["pieces"]
    assert [(one["tag"], one["start_g"]) for one in made] == [("J-07-11", 812), ("J-07-12", 790.5)]


def test_readings_of_a_place_go_the_way_of_a_file(page: Page, serve, clock: Clock) -> None:
    url = serve().url
    open_workshop(page, url)
    body = {"name": "Pit", "hooks_per_rod": [4], "setpoint": {"temperature_c": 13, "rh_percent": 78}, "by": "Ida"}
    place = post(page, f"{url}/api/places", body).json()["id"]
    page.goto(f"{url}/hang/{place}")
    expect(page.get_by_role("heading", name="Nothing hangs in Pit yet")).to_be_visible()
    page.keyboard.press("b")
    sheet = page.get_by_role("region", name="Bring in a file")
    expect(sheet).to_be_visible()
    rows = [f"2026-10-01 {hour:02d}:00\t12.{hour % 10}\t77" for hour in range(8)]
    paste(sheet, "time\ttemperature °C\thumidity %", *rows)
    expect(sheet.get_by_text("pasted.tsv")).to_be_visible()
    sheet.get_by_role("button", name="Read it so").click()  # of which time zone they are: asked as of any file
    sheet.get_by_role("button", name="Bring it in").click()
    expect(page.get_by_text("8 rows brought in")).to_be_visible()
