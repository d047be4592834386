"""The planner in a real browser: from a wish to a hung batch, with one slip and what the customer is told of it."""

import re
import time
from datetime import datetime

import pytest
from benchmarks.maker import Maker
from playwright.sync_api import Page, expect

from making import pour_all
from pages import open_workshop
from serving import Server
from shared_demo import copy_of_the_demo
from support import piece_body

DAY = 86_400


def planned(page: Page):
    return page.get_by_role("button", name=re.compile("^(planned: )?Salame[^;]* ×3"))


def weekday(page: Page) -> str:
    """The day on which it must be begun, as the answer has it once the server has looked."""
    expect(page.get_by_role("button", name="Keep this plan")).to_be_enabled()
    return page.locator(".lead .font-tag").inner_text()


def test_from_a_wish_to_a_hung_batch_that_slips(page: Page, serve, clock) -> None:
    server = serve()
    maker = Maker(server.app)
    open_workshop(page, server.url)
    page.get_by_role("link", name="Today").click()
    page.get_by_role("link", name="What must be started, and when?").click()
    expect(page.get_by_text("Nothing is planned yet")).to_be_visible()

    page.get_by_role("button", name="Plan a batch").click()
    page.get_by_label("Pieces").fill("3")
    page.get_by_label("each at the table").fill("350")
    page.get_by_label("wanted for").fill("2027-01-10")
    expect(page.get_by_text(re.compile("in time (8|9) times in 10"))).to_be_visible()
    first = weekday(page)
    # what cannot be is said in words, and nothing is kept
    page.get_by_label("wanted for").fill("2026-09-10")
    expect(page.get_by_role("alert").filter(has_text="the day it is wanted has gone by")).to_be_visible()
    expect(page.get_by_role("button", name="Keep this plan")).to_be_disabled()
    page.get_by_label("wanted for").fill("2027-01-10")
    # thicker must be begun earlier
    page.get_by_label("across").fill("75")
    expect(page.locator(".lead .font-tag")).not_to_have_text(first)
    page.get_by_label("across").fill("60")
    expect(page.locator(".lead .font-tag")).to_have_text(first)
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_text("Salame, cultured is planned")).to_be_visible()

    # dragged to a later week: the chance falls at once, nothing is kept until it is said
    shape = planned(page).last
    box = shape.locator("path").bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 20, box["y"] + 8)
    page.mouse.down()
    page.mouse.move(box["x"] + 60, box["y"] + 8, steps=4)
    page.mouse.move(box["x"] + 220, box["y"] + 8, steps=4)
    page.mouse.up()
    expect(page.locator(".lead .font-tag")).not_to_have_text(first)
    expect(page.get_by_text(re.compile("in time (hardly ever|[0-6] times? in 10)"))).to_be_visible()
    page.get_by_role("button", name="Put it back").click()
    expect(page.locator(".lead .font-tag")).to_have_text(first)
    # by the keyboard a day earlier, kept, and taken back
    shape.focus()
    page.keyboard.press("ArrowLeft")
    expect(page.locator(".lead .font-tag")).not_to_have_text(first)
    page.get_by_role("button", name="Keep it so").click()
    expect(page.get_by_text("Salame, cultured is begun on Tuesday")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.locator(".lead .font-tag")).to_have_text(first)
    page.reload()
    expect(page.locator(".lead .font-tag")).to_have_text(first)  # the plan in hand stands in the address

    # on its day it stands on Today, and becomes a weigh-out by one touch
    plan = maker.get("/api/ahead").json()["plans"][0]
    clock.now = _moment(plan["start"])
    page.goto(f"{server.url}/today")
    page.get_by_role("link", name=re.compile("begin what is planned, 3 pieces")).click()
    page.get_by_role("button", name="Weigh it out").click()
    expect(page.get_by_role("heading", name="Shoulder")).to_be_visible()
    weigh_out = maker.get(f"/api/weigh-outs/{page.url.rsplit('/', 1)[-1]}").json()
    pour_all(maker, weigh_out)
    page.reload()
    page.get_by_role("button", name="Make it a batch").click()
    expect(page.get_by_role("heading", name=re.compile("Batch "))).to_be_visible()
    batch = maker.get(f"/api/plans/{plan['id']}").json()["plan"]["batch"]

    # it hangs, and dries far too slowly
    clock.now += 2 * DAY
    room = maker.get("/api/places/1/room").json()
    for hook in (1, 2, 3):
        body = piece_body(
            room, tag=f"{batch}-{hook:02d}", batch_code=batch, hook=hook, start_weight_g=538, tare_g=0, diameter_mm=60,
            target_loss_percent=35, casing="natural", length_mm=None, product="Salame, cultured",
        )  # fmt: skip
        maker.post("/api/pieces", json=body).raise_for_status()
    hung = clock.now
    for day, gross_g in ((8, 520), (16, 504), (24, 490)):
        clock.now = hung + day * DAY
        for piece in maker.get("/api/places/1/room").json()["pieces"]:
            body = {"gross_g": gross_g, "sure": True, "kept": True, "by": "Ida"}
            maker.post(f"/api/pieces/{piece['id']}/weighings", json=body).raise_for_status()
    page.goto(f"{server.url}/today")
    page.get_by_role("link", name=re.compile("will hardly be in time")).click()
    expect(page.get_by_text("It slips:")).to_be_visible()
    expect(page.get_by_text("To be told to whoever waits")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Have it by")).click()
    expect(page.get_by_text(re.compile("in time (8|9) times in 10|in time nearly always"))).to_be_visible()
    page.get_by_role("button", name="Keep it so").click()
    expect(page.get_by_text(re.compile("Salame, cultured is wanted for .* now"))).to_be_visible()
    expect(page.get_by_text("It slips:")).to_have_count(0)
    assert maker.get(f"/api/plans/{plan['id']}").json()["plan"]["slip"] is None


def _moment(at: str) -> float:
    return datetime.fromisoformat(at).timestamp()


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)])
def test_nothing_is_cut_off_and_the_list_is_for_the_plans(page: Page, serve, size: tuple[int, int]) -> None:
    server = serve()
    maker = Maker(server.app)
    open_workshop(page, server.url)
    family = maker.get("/api/bench/reference").json()["families"][0]
    plan = {
        "family": "salame", "goods": "minced", "kind": "salame", "shape": "cylinder", "casing": "natural",
        "salting": "in_the_mince", "warm": "culture", "target_loss_percent": 35, "across_mm": 60, "piece_g": 900,
    }  # fmt: skip
    sheet = {"parts": [{"name": "Shoulder", "weight_g": 5000, "fat_percent": 25}], "salt_percent": 2.7, "plan": plan}
    wish = {"product": family["name"], "sheet": sheet, "pieces": 12, "table_g": 590, "by": "Ida"}
    wanted = {"wanted": "2027-01-20T12:00:00Z", "start": "2026-10-10T12:00:00Z"}
    for _ in range(3):  # of which the last finds no hook
        maker.post("/api/plans", json={**wish, **wanted}).raise_for_status()
    page.set_viewport_size({"width": size[0], "height": size[1]})
    page.goto(f"{server.url}/ahead?plan=3")
    expect(page.get_by_text(re.compile("No room:"))).to_be_visible()
    page.get_by_role("button", name="Place, rest, freezer").click()
    expect(page.get_by_label("In time at least")).to_be_visible()
    for part in ("main", "aside"):
        assert page.locator(part).first.evaluate("e => e.scrollWidth - e.clientWidth") <= 0
    page.goto(f"{server.url}/ahead/shopping?from=2026-10-03&to=2026-10-20")
    expect(page.get_by_role("row", name=re.compile("Shoulder"))).to_contain_text("12 × Salame")
    assert page.evaluate("document.documentElement.scrollWidth") <= size[0]
    page.get_by_label("to", exact=True).fill("2026-10-04")
    expect(page.get_by_text("No plan begins in these days.")).to_be_visible()


def test_what_else_is_done_with_plans(page: Page, tmp_path_factory: pytest.TempPathFactory) -> None:
    """In the made-up workshop: room is said, the Bench's sheet is planned, a plan is given up, another was made."""
    server = Server(copy_of_the_demo(tmp_path_factory), time.time)
    try:
        maker = Maker(server.app)
        page.goto(f"{server.url}/ahead")
        salt = page.get_by_role("region", name="Salt Fridge")
        salt.get_by_role("button", name="how many go in?").click()
        salt.get_by_label("how many go in?").fill("0")
        salt.get_by_role("button", name="Say how many").click()
        expect(page.get_by_role("alert")).to_be_visible()  # none is no room
        salt.get_by_label("how many go in?").fill("16")
        salt.get_by_role("button", name="Say how many").click()
        expect(salt.get_by_role("button", name="room for 16")).to_be_visible()

        page.goto(f"{server.url}/bench")
        page.get_by_label("What it is").fill("Salame for the mayor")
        page.get_by_role("button", name="Plan it for a day").click()
        expect(page.locator(".lead")).to_contain_text("Salame for the mayor")
        page.get_by_role("button", name="Place, rest, freezer").click()
        page.get_by_label("for whom, for what").fill("Candle market")
        page.keyboard.press("Tab")
        expect(page.get_by_role("button", name="Keep this plan")).to_be_enabled()
        page.get_by_role("button", name="Keep this plan").click()
        expect(page.get_by_text("Salame for the mayor is planned")).to_be_visible()
        market = maker.get("/api/ahead").json()["occasions"][0]
        assert len(market["plans"]) == 3

        page.get_by_role("button", name="Give the plan up").click()
        page.get_by_label("Why is it given up?").fill("they ordered cheese")
        page.get_by_role("button", name="Give the plan up").click()
        expect(page.get_by_text("Salame for the mayor is planned no more")).to_be_visible()
        assert len(maker.get("/api/ahead").json()["plans"]) == 3

        plan = next(one for one in maker.get("/api/ahead").json()["plans"] if one["product"] == "Juniper salame")
        page.goto(f"{server.url}/ahead?plan={plan['id']}")
        page.get_by_text("It was made already").click()
        chosen = page.get_by_label("Which batch is it?").locator("option", has_text="J-22").get_attribute("value")
        page.get_by_label("Which batch is it?").select_option(chosen)
        expect(page.get_by_text("It became J-22")).to_be_visible()
        expect(page.get_by_role("button", name="To batch J-22")).to_be_visible()
        became = maker.get(f"/api/plans/{plan['id']}").json()["plan"]
        assert (became["state"], became["batch"]) == ("hanging", "J-22")
        assert became["chance"] == 0.0  # twelve were wanted, six hang
        expect(page.get_by_role("button", name=re.compile("^Promise 6 of them"))).to_be_visible()
    finally:
        server.stop()
