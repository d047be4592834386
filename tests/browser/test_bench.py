"""The Bench in a real browser: from an empty sheet to printed tags, with a reload in the middle of the weigh-out."""

import re

import pytest
from playwright.sync_api import Page, expect

from pages import open_workshop


def weigh(page: Page, grams: str) -> None:
    page.get_by_label("Weight on the scale, g").fill(grams)
    page.keyboard.press("Enter")


def to_bench(page: Page, url: str) -> None:
    open_workshop(page, url)
    page.get_by_role("link", name="Bench", exact=True).click()
    expect(page.get_by_role("heading", name="Meat block")).to_be_visible()


def test_from_an_empty_sheet_to_printed_tags(page: Page, serve) -> None:
    server = serve()
    to_bench(page, server.url)
    page.get_by_label("What it is").fill("Juniper salame")
    page.get_by_label("Shoulder, trimmed, g").fill("2000")
    page.get_by_label("Back fat, trimmed, g").fill("500")

    # live both ways: percent moves grams, grams move percent
    dextrose = page.get_by_label("Dextrose, share")
    dextrose.fill("0,4")
    expect(page.get_by_label("Dextrose, grams")).to_have_value("10")
    page.get_by_label("Dextrose, grams").fill("7,5")
    expect(dextrose).to_have_value("0.3")
    # a slip is told at its field and the rest stands
    page.get_by_label("Curing salt, share").fill("0.4")
    expect(
        page.get_by_text(re.compile("250 mg/kg of nitrite, as sodium salt, is over the limit of 156"))
    ).to_be_visible()
    page.get_by_label("Curing salt, share").fill("abc")
    expect(page.get_by_role("alert").filter(has_text="Type a number")).to_be_visible()
    expect(page.get_by_role("button", name="Weigh it out")).to_be_disabled()
    page.get_by_label("Curing salt, share").fill("0.25")
    expect(page.get_by_text("over the limit")).to_have_count(0)
    expect(page.get_by_test_id("weeks")).to_contain_text("weeks")
    page.get_by_role("button", name="Keep as a recipe").click()
    expect(page.get_by_text("Juniper salame, version 1, is kept")).to_be_visible()

    page.get_by_role("button", name="Weigh it out").click()
    expect(page.get_by_role("heading", name="Shoulder")).to_be_visible()
    weigh(page, "2000")
    expect(page.get_by_role("heading", name="Back fat")).to_be_visible()
    page.get_by_label("Temperature of the meat").fill("2")
    page.get_by_role("button", name="OK").click()
    weigh(page, "200")  # a far weight is asked about, and then topped up
    page.get_by_role("button", name="It is right, note it").click()
    expect(page.get_by_test_id("target")).to_have_text("300 g more")
    page.reload()
    expect(page.get_by_test_id("target")).to_have_text("300 g more")
    weigh(page, "300")
    expect(page.get_by_role("heading", name="Salt")).to_be_visible()
    weigh(page, "61.6")
    expect(page.get_by_role("heading", name="Short type")).to_be_visible()
    weigh(page, "7.5")
    expect(page.get_by_text("1.3 g too much")).to_be_visible()
    page.get_by_role("button", name="I took 1.3 g out").click()
    for name, grams in (("Dextrose", "7.5"), ("Culture", "0.63"), ("Black pepper", "7.5")):
        expect(page.get_by_role("heading", name=name)).to_be_visible()
        weigh(page, grams)
    expect(page.get_by_role("heading", name="All of it is in the bowl.")).to_be_visible()
    page.get_by_role("button", name="Make it a batch").click()

    expect(page.get_by_role("heading", name="Batch J-01")).to_be_visible()
    for gross in ("812", "806"):
        page.get_by_label("weight, g").fill(gross)
        page.get_by_label("string").fill("6")
        page.keyboard.press("Enter")
        expect(page.get_by_text(f"{gross} g")).to_be_visible()
    pdf = page.request.get(f"{server.url}/api/batches/1/tags.pdf?paper=a4")
    assert pdf.headers["content-type"] == "application/pdf"

    # the paper tag's code leads to the batch; hung, it leads to the hook
    page.goto(f"{server.url}/t/J-01-01")
    expect(page.get_by_role("heading", name="Batch J-01")).to_be_visible()
    page.get_by_role("link", name="Hang them").click()
    page.get_by_role("button", name="Hang the first piece").click()
    page.get_by_label("2 from the bench wait for a hook").select_option("J-01-01")
    expect(page.get_by_test_id("target-weight")).to_have_text("530 g")
    page.get_by_role("button", name="Hang it").click()
    expect(page.get_by_role("article", name="J-01-01")).to_be_visible()
    page.goto(f"{server.url}/t/J-01-01")
    expect(page.get_by_role("article", name="J-01-01")).to_be_visible()


@pytest.mark.parametrize("size", [(390, 844)])
def test_a_pour_that_could_not_be_sent_is_kept_and_counts_once(page: Page, serve, size: tuple[int, int]) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    server = serve()
    to_bench(page, server.url)
    page.get_by_role("button", name="Weigh it out").click()
    expect(page.get_by_role("heading", name="Shoulder")).to_be_visible()
    weigh(page, "3800")
    expect(page.get_by_role("heading", name="Back fat")).to_be_visible()
    page.route("**/api/weigh-outs/*/entries", lambda route: route.abort())
    weigh(page, "1200")
    expect(page.get_by_text("Not sent yet")).to_be_visible()
    page.unroute("**/api/weigh-outs/*/entries")
    page.reload()  # what was kept is sent when the page is back
    expect(page.get_by_role("heading", name="Salt")).to_be_visible()
    entries = page.request.get(f"{server.url}/api/weigh-outs/1").json()["entries"]
    assert [e["grams"] for e in entries] == [3800, 1200]
