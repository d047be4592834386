"""Whole courses through the real screens: a breast without a scale, a leg piece in rock salt, a failed salame."""

import re

from playwright.sync_api import Page, expect

from pages import open_workshop, post
from support import NOW, Clock, piece_body

DAY = 86_400


def open_fridge(page: Page, url: str) -> None:
    """The first screen of somebody who has a household fridge and nothing else."""
    page.goto(url)
    page.get_by_label("Workshop").fill("Kitchen")
    page.get_by_label("Your name").fill("Ida")
    page.locator("form select").first.select_option("household_fridge")
    page.get_by_label("Name of the place").fill("Fridge")
    page.get_by_role("button", name="Open the workshop").click()
    expect(page.get_by_role("heading", name="Nothing hangs in Fridge yet")).to_be_visible()


def feel(page: Page, rim: str, core: str) -> None:
    """Tapped: rim, core, a clean smell; noted."""
    at_hook = page.get_by_role("region", name="At the hook")
    at_hook.get_by_role("button", name="Inspect").click()
    for row, tap in (("rim", rim), ("core", core), ("smell", "clean")):
        at_hook.get_by_role("group", name=row, exact=True).get_by_role("button", name=tap, exact=True).click()
    with page.expect_response("**/api/hook-events") as noted:
        at_hook.get_by_role("button", name="Note it").click()
    assert noted.value.ok


def test_a_duck_breast_that_nobody_weighs(page: Page, serve, clock: Clock) -> None:
    open_fridge(page, serve().url)
    page.keyboard.press("h")
    form = page.get_by_role("form", name="Hang a piece")
    form.get_by_label("Product").fill("Duck breast")
    form.get_by_label("Kind").select_option("breast")
    form.get_by_label("Batch").fill("DB-1")
    form.get_by_label("Tag", exact=True).fill("DB-1-01")
    form.get_by_label("Thickness, mm").fill("25")
    form.get_by_label("Done by").select_option("feel")
    expect(form.get_by_text("No scale says when it is there.")).to_be_visible()
    # said before it hangs: from when on it is worth feeling, and what was taken as usual
    expect(form.get_by_test_id("worth-feeling")).to_contain_text("Worth feeling from")
    expect(form.get_by_test_id("assumed")).to_contain_text("humidity 48 % ± 9: usual in a household fridge")
    form.get_by_role("button", name=re.compile("and . more")).click()
    expect(form.get_by_test_id("assumed")).to_contain_text("nobody weighed it, so its losses are shares")
    form.get_by_role("button", name="Hang it").click()
    panel = page.get_by_role("article", name="DB-1-01")
    expect(panel.get_by_test_id("scale")).to_contain_text("what it lost is told as a share")
    expect(panel.get_by_test_id("worth-feeling")).to_contain_text("Worth feeling from")

    # three weeks on it is worth feeling; a soft middle is not the end, a firm one is said to be so by fingers alone
    clock.now = NOW + 24 * DAY
    page.reload()
    page.get_by_role("button", name="DB-1-01").first.click()
    expect(panel.get_by_test_id("worth-feeling")).to_contain_text("Worth feeling now")
    feel(page, "firm", "firm")
    expect(panel.get_by_text("Felt firm to the middle")).to_be_visible()
    panel.get_by_role("button", name="Take down").click()
    down = page.get_by_role("form", name=re.compile("DB-1-01"))
    down.get_by_role("button", name="not weighed").click()
    with page.expect_response("**/take-down") as taken:
        down.get_by_role("button", name=re.compile("^Take")).last.click()
    assert taken.value.ok
    page.goto(page.url.split("?")[0])
    expect(page.get_by_role("heading", name="Nothing hangs in Fridge now")).to_be_visible()


def test_a_leg_piece_in_rock_salt_poured_off_in_millilitres(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    fridge = {"name": "Salt Fridge", "kind": "salt", "setpoint": {"temperature_c": 4}, "by": "Ida"}
    post(page, f"{server.url}/api/places", fridge)
    page.goto(f"{server.url}/salt")
    page.get_by_role("button", name="Put in salt").first.click()
    form = page.get_by_role("form", name="Into the salt")
    form.get_by_label("Goods").select_option(label="Small leg piece, fridge")
    form.get_by_label("Batch code").fill("LP-1")
    form.get_by_label("trimmed, g 1").fill("2100")
    form.get_by_label("diameter, mm 1").fill("90")
    form.get_by_role("combobox", name=re.compile("^Curing salt")).select_option("none")
    form.get_by_label("pierced before it was salted").check()
    form.get_by_role("button", name="Put in salt").click()
    row = page.get_by_test_id("salt-LP-1-01")
    # free salt: what it took up nobody weighed, so it is told with its range
    expect(row).to_contain_text("nobody weighed what it took up")
    clock.now += DAY
    page.reload()
    page.get_by_label("liquid, g").first.fill("210 ml")
    with page.expect_response("**/api/salt/events") as poured:
        page.get_by_role("button", name=re.compile("^Pour")).first.click()
    assert poured.value.ok
    clock.now += DAY
    page.reload()
    row.click()
    out = page.get_by_role("form", name="Out of the salt")
    out.get_by_label("not weighed").check()
    out.get_by_role("button", name="Take out").click()
    hook = page.get_by_role("form", name="To the hook")
    hook.get_by_label("Done by").select_option("feel")
    hook.get_by_role("button", name="Tag it for the hook").click()
    expect(page.get_by_text("LP-1-01 is tagged; it is done by feel.")).to_be_visible()
    detail = page.request.get(f"{server.url}/api/batches/1").json()
    assert [p["weight_g"] for p in detail["pieces"]] == [None]


def test_a_salame_that_is_soft_at_half_its_weight_is_held(page: Page, serve, clock: Clock) -> None:
    url = serve().url
    open_workshop(page, url)
    room = page.request.get(f"{url}/api/places/1/room").json()
    hung = post(page, f"{url}/api/pieces", piece_body(room)).json()["card"]["id"]
    for day, gross_g in ((6, 680), (12, 560), (20, 440)):
        clock.now = NOW + day * DAY
        post(page, f"{url}/api/pieces/{hung}/weighings", {"gross_g": gross_g, "first_g": gross_g, "by": "Ida"})
    page.goto(f"{url}/hang/1?piece={hung}")
    panel = page.get_by_role("article", name="J-14-03")
    expect(panel.get_by_text("Ready by weight")).to_be_visible()
    feel(page, "hard", "soft")
    # never "ready, confirm by feel": held, with what to do and what its records say of where it came from
    expect(panel.get_by_text("Soft in the middle: hold it, do not taste")).to_be_visible()
    expect(panel.get_by_text("Ready by weight")).to_have_count(0)
    expect(panel.get_by_role("region", name="At the hook")).to_contain_text("vacuum rest for 4–8 weeks")
    expect(panel.get_by_role("region", name="At the hook")).to_contain_text("in its first")
    page.get_by_role("link", name="Today").click()
    expect(page.get_by_text("Soft in the middle, hold and do not taste: J-14-03")).to_be_visible()
