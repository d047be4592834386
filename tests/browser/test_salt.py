"""Salt and Today in a real browser: a neck from salting to the hook, with a week missed and a slip of the scale."""

import re

from playwright.sync_api import Page, expect

from pages import open_workshop, post
from support import Clock

DAY = 86_400


def make_fridge(page: Page, url: str) -> None:
    body = {"name": "Salt Fridge", "kind": "salt", "setpoint": {"temperature_c": 3}, "by": "Ida"}
    post(page, f"{url}/api/places", body)


def test_a_neck_from_salting_to_the_hook_with_a_missed_week(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    make_fridge(page, server.url)
    page.goto(f"{server.url}/salt")
    expect(page.get_by_text("Nothing is in salt.")).to_be_visible()
    page.get_by_role("button", name="Put in salt").first.click()
    form = page.get_by_role("form", name="Into the salt")
    form.get_by_label("Goods").select_option(label="Neck or loin")
    form.get_by_label("Batch code").fill("N-01")
    form.get_by_label("What it is").fill("Neck with bay")
    form.get_by_label("trimmed, g 1").fill("1 880")
    form.get_by_label("diameter, mm 1").fill("8,5,")
    form.get_by_role("button", name="Put in salt").click()
    expect(page.get_by_test_id("salt-N-01-01")).to_have_count(0)  # what is in the salt is asked, never the family's
    form.get_by_role("combobox", name=re.compile("^Curing salt")).select_option(
        label="Long type, 6.25 % nitrite and 4 % nitrate"
    )
    form.get_by_label("Curing salt, %").fill("0.25")
    form.get_by_role("button", name="Put in salt").click()
    expect(form.get_by_role("alert")).to_contain_text("Type a number")
    form.get_by_label("diameter, mm 1").fill("85")
    expect(form.get_by_text("52.6 g of salt")).to_be_visible()
    form.get_by_role("button", name="Put in salt").click()
    row = page.get_by_test_id("salt-N-01-01")
    expect(row).to_contain_text("Take out about")
    expect(row).to_contain_text("not yet")

    # a week away: the round says what was left out and what it cost, and one touch settles it
    clock.now += 9 * DAY
    page.get_by_role("link", name="Today").click()
    turning = page.get_by_role("listitem").filter(has_text="Turn and massage N-01-01")
    expect(turning).to_contain_text("not done yet")
    expect(turning).to_contain_text("takes its salt more slowly")
    expect(turning).to_contain_text("overdue")
    page.get_by_role("button", name="Done: Turn and massage N-01-01").click()
    expect(page.get_by_text("overdue")).to_have_count(0)

    clock.now += 14 * DAY
    page.reload()
    page.get_by_role("link", name="Go there: Take N-01-01 out of the salt").click()
    out = page.get_by_role("form", name="Out of the salt")
    out.get_by_label("Weight now, g").fill("2003")
    out.get_by_role("button", name="Take out").click()
    expect(out.get_by_role("alert")).to_contain_text("look at the zero of the scale")
    out.get_by_label("Weight now, g").fill("1803")
    out.get_by_role("button", name="Take out").click()
    expect(page.get_by_role("heading", name="To the hook")).to_be_visible()

    hook = page.get_by_role("form", name="To the hook")
    hook.get_by_label("Cased and tied, g").fill("1826")
    hook.get_by_label("casing, g").fill("14")
    hook.get_by_label("string and hook, g").fill("6")
    expect(hook.get_by_text(re.compile(r"scale shows 1.242.g"))).to_be_visible()  # 35 % off 1880 g, and 20 g of tare
    hook.get_by_label("raw trimmed weight").check()
    hook.get_by_role("button", name="Tag it for the hook").click()
    expect(page.get_by_text(re.compile("N-01-01 is tagged"))).to_be_visible()  # said for some seconds
    expect(page.get_by_role("heading", name="Batch N-01")).to_be_visible()
    page.get_by_role("link", name="What stands against it?").click()
    nitrite = page.get_by_role("listitem").filter(has_text="nitrite going in")
    expect(nitrite).to_contain_text(re.compile(r"passed.156.mg/kg"))  # 0.25 % of what was said to be in it
    expect(page.get_by_role("listitem").filter(has_text="salt in the core")).to_contain_text("passed")


def test_two_tabs_and_a_struck_entry(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    make_fridge(page, server.url)
    body = {
        "quick": {"code": "B-01", "product": "Belly", "family": "flat_belly"}, "way": "rub_and_drain", "percent": 3.2,
        "muscles": [{"raw_g": 1500, "across_mm": 36}], "geometry": "slab", "place_id": 2, "by": "Ida",
    }  # fmt: skip
    post(page, f"{server.url}/api/salt", body)
    clock.now += DAY
    page.goto(f"{server.url}/salt/1")
    other = page.context.new_page()
    other.goto(f"{server.url}/salt/1")
    page.get_by_label("liquid, g").fill("18")
    page.get_by_role("button", name="Poured off").click()
    expect(page.get_by_role("article", name="B-01-01")).to_contain_text("18 g poured off")
    other.get_by_label("Something else").last.select_option("discard")
    other.get_by_label("Why is it thrown away?").fill("smells sour")
    other.get_by_role("button", name="Done", exact=True).click()
    expect(other.get_by_text("Nothing is in salt.")).to_be_visible()
    page.get_by_role("button", name="Poured off").click()  # this tab does not know yet
    expect(page.get_by_role("alert").filter(has_text="B-01-01 was thrown away")).to_be_visible()
    done = page.get_by_role("region", name="What was done")
    expect(done.get_by_text("smells sour")).to_be_visible()  # and looks again
    done.get_by_role("button", name="strike").first.click()
    page.get_by_label("Why is it wrong?").fill("it was another belly")
    done.locator("form").get_by_role("button", name="strike").click()
    expect(done.get_by_text("struck by Ida: it was another belly")).to_be_visible()
    expect(page.get_by_test_id("salt-B-01-01")).to_be_visible()
