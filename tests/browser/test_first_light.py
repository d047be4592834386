"""Journeys through the Hang station in a real browser, from an empty workshop to a believed date."""

import json
import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from pages import open_workshop, post
from support import DATA, NOW, piece_body

DAY = 86_400


def climate_file(folder: Path) -> Path:
    start = datetime.fromtimestamp(NOW, UTC) - timedelta(days=2)
    lines = [
        f"{(start + timedelta(hours=i)):%d.%m.%Y %H:%M};{13 + i % 4 / 10:.1f};{77 + i % 4}".replace(".1;", ",1;")
        for i in range(48)
    ]
    file = folder / "logger.csv"
    file.write_text(
        "Datum Zeit;Temperatur (°C);Feuchte\n" + "\n".join(lines).replace(".2;", ",2;").replace(".3;", ",3;")
    )
    return file


def hang(page: Page, tag: str = "J-14-03") -> None:
    page.keyboard.press("h")
    page.get_by_label("Product").fill("Juniper salame")
    page.get_by_label("Batch").fill("J-14")
    page.get_by_label("Tag", exact=True).fill(tag)
    page.get_by_label("Tare, g").fill("11")
    page.get_by_label("Diameter, mm").fill("58")
    page.get_by_label("Target loss, %").fill("36")
    page.get_by_label("Start weight, g").fill("842")
    expect(page.get_by_test_id("target-weight")).to_have_text("543 g")
    page.get_by_role("button", name="Hang it").click()
    expect(page.get_by_role("article", name=tag)).to_be_visible()


def weigh(page: Page, weight: str) -> None:
    page.keyboard.press("w")
    page.keyboard.type(weight)
    page.keyboard.press("Enter")


def test_from_an_empty_workshop_to_a_believed_date(page: Page, serve, clock, tmp_path: Path) -> None:
    server = serve()
    open_workshop(page, server.url)
    hang(page)
    ready = page.get_by_test_id("ready")
    first = ready.inner_text()
    assert first.startswith("Ready about ")

    page.keyboard.press("b")
    page.locator("input[type=file]").set_input_files(climate_file(tmp_path))
    # its times say no zone, for which the workshop's own is offered, and no day of it is above twelve
    asked = page.get_by_role("form", name="Before it is read")
    expect(asked.get_by_text("Of which time zone are its times?")).to_be_visible()
    expect(page.get_by_test_id("new-rows")).not_to_be_visible()  # what it brings is not told before
    expect(asked.get_by_role("button", name="Read it so")).to_be_disabled()
    asked.get_by_label("1 Oct 2026").check()
    asked.get_by_role("button", name="Read it so").click()
    expect(page.get_by_test_id("new-rows")).to_have_text("48 new")
    page.get_by_role("button", name="Bring it in").click()
    expect(page.get_by_text("48 rows brought in")).to_be_visible()

    grounds = page.get_by_role("region", name="What the date rests on")
    expect(grounds).to_contain_text("what such goods usually do 100 %")

    # four weights over three weeks, one of them mistyped
    for day, weight in ((5, "788"), (10, "738")):
        clock.now = NOW + day * DAY
        weigh(page, weight)
        expect(page.get_by_text(f"J-14-03: {weight} g noted")).to_be_visible()
    expect(grounds).to_contain_text("2 weighings of its own")
    expect(ready).not_to_have_text(first)
    second = ready.inner_text()
    came = page.get_by_role("region", name="How the date came to be").get_by_role("img")
    expect(came).to_have_attribute("aria-label", re.compile(r"^[^;]+; [^;]+; now: [^;]+$"))  # at hanging, weighed, now
    told = (came.get_attribute("aria-label") or "").split("; ")
    assert told[2].startswith(f"now: {second.removeprefix('Ready about ')}, between")
    clock.now = NOW + 15 * DAY
    page.reload()  # four days on, without a weighing, the date may have moved by itself
    expect(ready).to_contain_text("Ready about ")
    second = ready.inner_text()
    weigh(page, "196")
    expect(page.get_by_text("196 g: is that right?")).to_be_visible()
    expect(page.get_by_text("digits swapped? 691")).to_be_visible()
    assert ready.inner_text() == second
    page.get_by_role("button", name="It is right, keep it").click()
    expect(page.get_by_text("A weight is held back until you have looked at it")).to_be_visible()
    expect(page.get_by_test_id("scale")).to_contain_text("196 g on the scale")
    expect(page.get_by_test_id("scale")).to_contain_text("in doubt")
    held = ready.inner_text()
    row = page.get_by_role("row").filter(has_text="196 g")
    row.get_by_role("button", name="Strike through").click()
    page.get_by_role("button", name="typing slip").click()
    expect(page.get_by_text("typing slip · Ida")).to_be_visible()
    weigh(page, "691")
    expect(page.get_by_text("J-14-03: 691 g noted")).to_be_visible()
    clock.now = NOW + 21 * DAY
    weigh(page, "655,5")
    expect(page.get_by_text("J-14-03: 655.5 g noted")).to_be_visible()
    expect(page.get_by_test_id("scale")).to_contain_text("655.5 g on the scale")
    last = ready.inner_text()
    assert held.startswith("Ready about ")
    assert last.startswith("Ready about ")

    # undo takes the last one back, by striking it through
    page.keyboard.press("u")
    expect(page.get_by_text("undone at once · Ida")).to_be_visible()

    server.stop()
    again = serve()
    page.goto(again.url)
    page.get_by_role("button", name="J-14-03").first.click()
    expect(page.get_by_test_id("ready")).to_contain_text("Ready about ")
    for text in ("788 g", "738 g", "691 g", "196 g"):
        expect(page.get_by_role("row").filter(has_text=text).first).to_be_visible()
    expect(page.get_by_text("typing slip · Ida")).to_be_visible()
    expect(page.get_by_role("link", name="Back cellar")).to_contain_text("%")


def test_keyboard_move_and_take_down(page: Page, serve) -> None:
    open_workshop(page, serve().url)
    hang(page)
    hang(page, "J-14-04")
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_role("article", name="J-14-03")).to_be_visible()
    page.keyboard.press("m")
    page.get_by_role("button", name="Hang a piece on rod 2, hook 5").click()
    expect(page.get_by_text("J-14-03 moved to rod 2, hook 5")).to_be_visible()
    expect(page.get_by_text("Juniper salame · rod 2, hook 5")).to_be_visible()
    page.keyboard.press("u")
    expect(page.get_by_text("Juniper salame · rod 1, hook 1")).to_be_visible()
    page.get_by_role("button", name="Take down").click()
    down = page.get_by_role("form", name="Take J-14-03 down")
    expect(down.get_by_text("This stands against it:")).to_be_visible()
    down.get_by_role("button", name="cut it").click()
    down.get_by_role("button", name="Take it down").click()
    expect(down.get_by_role("alert")).to_contain_text("not weighed")  # either the weight, or that there is none
    down.get_by_role("button", name="not weighed").click()
    expect(down.get_by_text("never weighed", exact=False).first).to_be_visible()
    down.get_by_role("button", name="Take it down").click()
    expect(page.get_by_text("J-14-03 taken down")).to_be_visible()
    expect(page.get_by_role("region", name="rod 1").locator("[data-piece]")).to_have_count(1)
    page.keyboard.press("u")  # by mistake: back on its hook
    expect(page.get_by_role("region", name="rod 1").locator("[data-piece]")).to_have_count(2)


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)], ids=["desk", "phone"])
def test_a_hang_file_from_preview_to_list(page: Page, serve, size: tuple[int, int], tmp_path: Path) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    open_workshop(page, serve().url)
    page.get_by_role("button", name="Bring in a file").click()
    wrong = tmp_path / "wrong.csv"
    wrong.write_text("colour;taste\nred;good\n")
    page.locator("input[type=file]").set_input_files(wrong)
    expect(page.get_by_role("alert")).to_contain_text("Line 1: a climate file has columns", ignore_case=True)
    document = json.loads((DATA / "hang_three_batches.json").read_text())
    document["now"] = document["batches"][1]["pieces"][0]["weights"][1][0]
    file = tmp_path / "room.json"
    file.write_text(json.dumps({**document, "batches": document["batches"][:2]}))
    page.locator("input[type=file]").set_input_files(file)
    expect(page.get_by_text("Forecast as of the file’s own day")).to_be_visible()
    page.get_by_role("button", name="Bring it in").click()
    expect(page.get_by_text("rows brought in")).to_be_visible()
    page.get_by_role("button", name="list").click()
    expect(page.get_by_role("table").locator("tbody tr")).to_have_count(7)


def test_a_household_fridge_is_opened_with_its_shelf_and_says_what_its_dates_rest_on(page: Page, serve) -> None:
    url = serve().url
    page.goto(url)
    page.get_by_label("What do you dry in?").select_option(label="Household fridge")
    expect(
        page.get_by_text("Usual: 3 °C ± 1.2 °C, 48 % ± 9; a first reading mends it. Its air is still.")
    ).to_be_visible()
    page.get_by_label("Workshop").fill("Flat 3")
    page.get_by_label("Your name").fill("Ida")
    page.get_by_label("Name of the place").fill("Kitchen fridge")
    expect(page.get_by_label("Set to, °C")).not_to_be_visible()
    page.get_by_role("button", name="Open the workshop").click()
    expect(page.get_by_role("heading", name="Nothing hangs in Kitchen fridge yet")).to_be_visible()
    room = page.request.get(f"{url}/api/places/1/room").json()
    piece = post(page, f"{url}/api/pieces", piece_body(room, at=None)).json()["card"]["id"]
    page.goto(f"{url}/hang/1?piece={piece}")
    expect(page.get_by_role("heading", name="shelf 1")).to_be_visible()
    assumed = page.get_by_test_id("assumed")
    expect(assumed).to_contain_text("humidity 48 % ± 9: usual in a household fridge")
    body = {"temperature_c": 4, "rh_percent": 61, "by": "Ida"}
    post(page, f"{url}/api/places/1/readings", body)
    page.reload()
    expect(page.get_by_test_id("ready")).to_be_visible()
    expect(assumed).not_to_be_visible()


def test_three_steps_lead_through_an_empty_workshop_and_no_other(page: Page, serve, clock) -> None:
    url = serve().url
    open_workshop(page, url)
    tour = page.get_by_role("region", name="Three steps")
    stations = page.get_by_role("navigation", name="Stations")
    pointed = stations.locator(".told")
    for title, station in (("What goes in", "Bench"), ("What it weighs", "Hang"), ("What wants a hand", "Today")):
        expect(tour.get_by_role("heading", name=title)).to_be_visible()
        expect(pointed).to_have_text(station)
        tour.get_by_role("button", name=re.compile("^(Next|That is all)$")).click()
    expect(tour).to_have_count(0)
    expect(pointed).to_have_count(0)
    page.reload()
    page.get_by_role("button", name="The three steps again").click()
    tour.get_by_role("link", name="To the Bench").click()
    expect(page.get_by_role("heading", name="Meat block")).to_be_visible()
    expect(pointed).to_have_count(0)
    room = page.request.get(f"{url}/api/places/1/room").json()
    post(page, f"{url}/api/pieces", piece_body(room))
    post(
        page,
        f"{url}/api/places",
        {"name": "Loft", "hooks_per_rod": [4], "by": "Ida", "setpoint": {"temperature_c": 13, "rh_percent": 78}},
    )
    page.goto(f"{url}/hang/2")
    expect(page.get_by_role("heading", name="Nothing hangs in Loft yet")).to_be_visible()
    expect(tour).to_have_count(0)
    expect(page.get_by_text("three steps", exact=False)).to_have_count(0)
