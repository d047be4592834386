"""What stands against it? In the browser: each hurdle in words, what settles it entered where it stands."""

import re

from playwright.sync_api import Page, expect

from pages import make_batch, open_workshop
from support import Clock


def row(page: Page, name: str):
    return page.get_by_role("listitem").filter(has=page.locator("strong", has_text=re.compile(f"^{name}$")))


def test_what_is_not_known_is_settled_where_it_stands(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    batch = make_batch(page, server.url, "J-01")
    page.goto(f"{server.url}/bench/batch/{batch}")
    page.get_by_role("link", name="What stands against it?").click()
    expect(page.get_by_role("heading", name="What stands against J\u201101?")).to_be_visible()
    expect(page.get_by_role("status")).to_contain_text("Held")
    expect(page.get_by_text("Check with your authority.", exact=False).first).to_be_visible()
    parasites = row(page, "parasites")
    expect(parasites).to_contain_text("Pork: certified, or frozen?")
    parasites.get_by_role("button", name="Enter what was done about parasites").click()
    parasites.get_by_label("what was done").select_option(label="frozen")
    parasites.get_by_label("at, °C").fill("-20")
    parasites.get_by_label("for, days").fill("12")
    parasites.get_by_role("button", name="Enter it", exact=True).click()
    expect(parasites).to_contain_text("12 days at -20 °C: 20 are needed.")
    expect(parasites).to_contain_text("failed")
    # it was another lot: struck with its reason it no longer fails, and says that it did
    page.get_by_role("region", name="What was entered for it").get_by_role("button", name="strike").click()
    page.get_by_label("Why is it wrong?").fill("another lot")
    page.get_by_role("button", name="strike").last.click()
    expect(parasites).to_contain_text(re.compile("Failed until .+ corrected it on .+: another lot"))
    expect(parasites).to_contain_text("not known")

    # a value that cannot be is refused in words, where it is typed; one that can goes before the estimate
    dry = row(page, "dry enough")
    page.get_by_role("button", name="How it is eaten, and what says it is done").first.click()
    page.get_by_label("to be cooked").check()
    page.get_by_role("button", name="Enter it", exact=True).click()
    expect(page.get_by_text("To be cooked: it is not judged as raw.")).to_be_visible()
    expect(dry).to_have_count(0)


def test_signing_shows_who_and_why(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    batch = make_batch(page, server.url, "J-02")
    page.goto(f"{server.url}/bench/batch/{batch}/against")
    parasites = row(page, "parasites")
    parasites.get_by_role("button", name="Sign for it").click()
    expect(parasites).to_contain_text("Names are typed here, nobody checks them.")
    parasites.get_by_label("Why may it count as passed?").fill("certificate 12 lies in the folder")
    parasites.get_by_role("button", name="Sign", exact=True).click()
    expect(parasites).to_contain_text(re.compile("signed for it on .+: certificate 12 lies in the folder"))
    expect(parasites).to_contain_text("signed for")
