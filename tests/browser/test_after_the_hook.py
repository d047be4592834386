"""From the hook to the last slice through the real screens: bag, squeeze, cut, next time, packs, until it is gone."""

import re

from benchmarks.maker import Maker
from playwright.sync_api import Page, expect

from courses.kitchen import Kitchen
from serving import Server
from support import Clock, sheet_body


def hung_by_a_recipe(server: Server, clock: Clock) -> Kitchen:
    """A cellar, a store, a recipe, and a salame of it that hung three weeks, far too fast."""
    kitchen = Kitchen(Maker(server.app), clock)
    kitchen.post("/workshop", "PUT", name="Test cellar", time_zone="Europe/Rome")
    cellar = kitchen.place("Cellar", "drying_chamber", temperature_c=13, rh_percent=78)
    kitchen.place("Stone Store", kind="store", temperature_c=4)
    recipe = kitchen.post("/recipes", name="Juniper salame", sheet=sheet_body(), reason="first")
    batch = kitchen.mince_by(recipe, sheet_body(), "J-20")
    kitchen.stuff(batch, {"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36})
    hung = kitchen.hang(
        cellar, "J-20-01", "salame", "cylinder", 842, batch="J-20", tare_g=11, diameter_mm=58, fat_percent=26,
        salt_percent=2.7, target_loss_percent=36, casing="natural", sure=True,
    )  # fmt: skip
    for days, gross_g in ((7, 640), (7, 572), (7, 545)):
        kitchen.wait(days=days)
        kitchen.post(f"/pieces/{hung['card']['id']}/weighings", gross_g=gross_g, first_g=gross_g, sure=True)
    return kitchen


def tap(page: Page, row: str, word: str) -> None:
    page.get_by_role("group", name=row, exact=True).get_by_role("button", name=word, exact=True).click()


def test_from_the_hook_over_bag_and_knife_to_the_last_slice(page: Page, serve, clock: Clock) -> None:
    server = serve()
    kitchen = hung_by_a_recipe(server, clock)
    page.goto(f"{server.url}/hang/1?piece=1")
    page.get_by_role("button", name="Take down").click()
    down = page.get_by_role("form", name="Take J-20-01 down")
    down.get_by_label("weight on the scale, g").fill("542")
    down.get_by_role("button", name="it rests").click()
    down.get_by_role("button", name="vacuum bag").click()
    down.get_by_role("combobox").last.select_option(label="Stone Store")
    with page.expect_response("**/take-down") as taken:
        down.get_by_role("button", name=re.compile("^Take it down")).click()
    assert taken.value.ok

    # on the shelf: a date with its window, never "even" before fingers said so
    page.goto(f"{server.url}/rest")
    page.get_by_role("button", name=re.compile("^J-20-01")).click()
    shelf = page.get_by_role("article", name="J-20-01")
    expect(shelf.get_by_text(re.compile("^Even about"))).to_be_visible()
    kitchen.wait(days=35)
    page.goto(f"{server.url}/today")
    page.get_by_role("link", name=re.compile("J-20-01")).first.click()
    tap(page, "rim", "hard")
    tap(page, "middle", "firm")
    with page.expect_response("**/api/hook-events") as squeezed:
        page.get_by_role("button", name="Note it").click()
    assert squeezed.value.ok

    # the knife: a hard edge is seen and touched; the batch's own records say when it came
    page.get_by_role("link", name="Cut it and look").click()
    page.get_by_role("group", name="Tap what you see, then where it is.").get_by_role("button", name="ring").click()
    face = page.get_by_role("button", name="Tap what you see, then where it is.").last
    box = face.bounding_box()
    assert box
    face.click(position={"x": box["width"] * 0.5, "y": box["height"] * 0.12})
    tap(page, "smell", "clean")
    tap(page, "salt", "right")
    page.get_by_role("button", name="cut up").click()
    page.get_by_label("Weight, g").fill("541")
    page.get_by_role("button", name="Note the cut").click()
    expect(page.get_by_test_id("cause")).to_have_text("Dried too fast")
    page.get_by_role("button", name="into the recipe").first.click()
    expect(page.get_by_text("noted", exact=False).first).to_be_visible()

    # four packs of it, with a label, opened, eaten, sold, until nothing is left
    page.get_by_role("link", name="Pack it").click()
    page.get_by_label("How many").fill("4")
    page.get_by_label("Net of one, g").fill("200")
    page.get_by_role("button", name="Put into stock").click()
    expect(page.get_by_role("alert")).to_contain_text("in packs, and only 541 g of it is left")
    page.get_by_label("Net of one, g").fill("130")
    page.get_by_label(re.compile("^Your own period")).fill("60")
    with page.expect_response("**/packs") as packed:
        page.get_by_role("button", name="Put into stock").click()
    if packed.value.status == 409:
        page.get_by_role("button", name="Yes, pack it").click()
    page.goto(f"{server.url}/rest/stock")
    page.get_by_role("button", name=re.compile("^4× J-20-01 [^,]+, Juniper salame")).click()
    pack = page.get_by_role("article", name="J-20-01")
    expect(pack.get_by_text("4 × 130 g")).to_be_visible()
    with page.expect_download() as label:
        pack.get_by_role("link", name="Label").click()
    assert label.value.path().read_bytes().startswith(b"%PDF")
    pack.get_by_role("button", name="Open one").click()
    expect(pack.get_by_text(re.compile("^1 (is )?open"))).to_be_visible()
    pack.get_by_label("How many").fill("3")
    tap(page, "goes", "sold")
    pack.get_by_label("To whom").fill("Saturday market")
    pack.get_by_role("button", name="Take out").click()
    expect(pack.get_by_text("1 of 4 × 130 g")).to_be_visible()
    tap(page, "goes", "eaten")
    pack.get_by_label("How many").fill("1")
    pack.get_by_role("button", name="Take out").click()
    expect(page.get_by_text("Nothing is in stock.")).to_be_visible()
    assert kitchen.get("/pieces/1")["states"][-1]["kind"] == "gone"

    # the next time the recipe is opened, it says what was learned
    page.goto(f"{server.url}/bench")
    page.get_by_label("Recipes").select_option(label="Juniper salame, version 1")
    expect(page.get_by_role("region", name="For next time")).to_contain_text("from J-20-01")
