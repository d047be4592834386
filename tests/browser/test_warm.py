"""Warm in a real browser: from stuffing to the hook, and a stalled batch to the bin."""

import re

from playwright.sync_api import Page, expect

from pages import make_batch, open_workshop, post
from support import Clock

HOUR = 3600


def cupboard(page: Page, url: str) -> None:
    post(
        page, f"{url}/api/places", {"name": "Cupboard", "kind": "warm", "setpoint": {"temperature_c": 25}, "by": "Ida"}
    )


def note_ph(page: Page, ph: str) -> None:
    page.get_by_role("textbox", name="pH", exact=True).fill(ph)
    with page.expect_response("**/readings"):  # the clock is not moved, nor the page loaded anew, before it is answered
        page.get_by_role("button", name="Note it").click()


def test_from_stuffing_to_the_hook(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    cupboard(page, server.url)
    make_batch(page, server.url, "J-01")
    page.clock.install(time=clock.now)
    page.goto(f"{server.url}/warm")
    form = page.get_by_role("form", name="The warm stage J-01")
    form.get_by_label("pH when stuffed").fill("5,8")
    form.get_by_role("button", name="Begin").click()
    expect(page.get_by_text(re.compile("Crosses 5.3 about"))).to_be_visible()
    expect(page.get_by_text("The box is not logged")).to_be_visible()

    clock.now += 16 * HOUR
    page.reload()
    note_ph(page, "54")
    expect(page.get_by_role("alert")).to_contain_text("pH 54 cannot be: 5.4?")
    note_ph(page, "5,42")
    expect(page.get_by_text("falling, hour 16")).to_be_visible()
    expect(page.get_by_text(re.compile("Measure next")).first).to_be_visible()
    clock.now += 6 * HOUR
    page.reload()
    note_ph(page, "5.21")
    expect(page.get_by_role("article", name="J-01").get_by_text(re.compile("5.3 measured"))).to_be_visible()
    page.get_by_role("button", name="mould sown").click()
    page.get_by_role("button", name="to the hook").click()
    expect(page.get_by_text("The last ones")).to_be_visible()
    expect(page.get_by_text("nothing ferments")).to_be_visible()


def test_a_stalled_batch_goes_to_the_bin(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    cupboard(page, server.url)
    batch = make_batch(page, server.url, "J-01")
    page.clock.install(time=clock.now)
    page.goto(f"{server.url}/warm")
    with page.expect_response("**/stage") as begun:  # a page that is loaded anew before lets its entry go
        page.get_by_role("form", name="The warm stage J-01").get_by_role("button", name="Begin").click()
    assert begun.value.ok
    for hours, ph in ((14, "5.79"), (10, "5.78"), (16, "5.77")):
        clock.now += hours * HOUR
        page.reload()
        note_ph(page, ph)
        keep = page.get_by_role("button", name="The meter does show that")
        expect(keep.or_(page.get_by_text(ph).first)).to_be_visible()
        if keep.is_visible():
            with page.expect_response("**/readings") as kept:
                keep.click()
            assert kept.value.ok
    expect(page.get_by_text("Will not get to 5.3 like this")).to_be_visible()
    expect(page.get_by_text(re.compile("Likely because of"))).to_be_visible()
    page.get_by_role("button", name="Throw it away").click()
    page.get_by_label("Why is it thrown away?").fill("never soured")
    page.get_by_role("button", name="Throw it away").last.click()
    expect(page.get_by_text("nothing ferments")).to_be_visible()
    page.goto(f"{server.url}/bench/batch/{batch}")
    expect(page.get_by_role("status").filter(has_text="never soured")).to_be_visible()
    page.goto(f"{server.url}/bench/batch/{batch}/against")
    expect(page.get_by_text("Thrown away: never soured.")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="Held")).to_be_visible()
