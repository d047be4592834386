"""Takes the pictures in docs/screenshots from the demo workshop; one current picture of each main view."""

import tempfile
import threading
import time
from pathlib import Path

import httpx2
import pypdfium2
import uvicorn
from playwright.sync_api import Browser, Page, sync_playwright

from zymon.app import free_port, make_app
from zymon.demo.build import build
from zymon.settings import Settings

FOLDER = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
DESK, PHONE = (1280, 800), (390, 844)
ARGUMENTS = [
    *("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"),
    *("--disable-background-networking", "--disable-component-update", "--disable-sync"),
]


def take(
    browser: Browser,
    url: str,
    name: str,
    size: tuple[int, int] = DESK,
    dark: bool = False,
    tag: str = "",
    keys: str = "",
    recipe: str = "",
    grave: str = "",
) -> None:
    """One picture: a page, perhaps with a piece picked, a key pressed or a recipe opened."""
    context = browser.new_context(
        viewport={"width": size[0], "height": size[1]},
        reduced_motion="reduce",
        locale="en-GB",
        timezone_id="Europe/London",
        color_scheme="dark" if dark else "light",
    )
    page: Page = context.new_page()
    page.goto(url)
    page.wait_for_load_state("load")
    page.locator("main").wait_for()
    if tag:
        page.get_by_role("button", name=tag).first.click()
        page.get_by_role("article", name=tag).wait_for()
        if grave:
            page.get_by_text(grave).wait_for()  # what goes wrong with it is worked out on demand
    if recipe:
        page.get_by_label("Recipes").select_option(label=recipe)
        page.get_by_test_id("weeks").wait_for()
        page.evaluate("document.querySelector('main').scrollTo(0, 0)")
    if keys == "h":
        page.keyboard.press("h")
        page.get_by_label("Product").fill("Juniper salame")
        page.get_by_label("Start weight, g").fill("842")
        page.get_by_label("Tare, g").fill("11")
        page.get_by_label("Diameter, mm").fill("58")
        page.get_by_test_id("target-weight").wait_for()
    elif keys == "take down":
        page.get_by_role("button", name="Take down").click()
        page.get_by_text("And then?").wait_for()
        page.get_by_text("This stands against it:").wait_for()
        page.get_by_role("button", name="Take it down").scroll_into_view_if_needed()
    elif keys:
        page.get_by_role("button", name=keys).first.click()
    page.wait_for_timeout(600)
    page.screenshot(path=FOLDER / f"{name}.png")
    context.close()


def main() -> None:
    """Serve a fresh demo workshop and take every picture."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(db=Path(folder) / "demo.db")
        build(settings.db, int(time.time()))
        listening = free_port("127.0.0.1", 8710)
        server = uvicorn.Server(uvicorn.Config(make_app(settings), log_level="error", access_log=False))
        thread = threading.Thread(target=server.run, kwargs={"sockets": [listening]}, daemon=True)
        thread.start()
        pit = f"http://127.0.0.1:{listening.getsockname()[1]}/hang/3"
        loft = pit.replace("/3", "/4")
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
            take(browser, pit, "hang")
            take(browser, pit, "hang-piece", tag="N-07-02")
            take(browser, loft, "hang-dark", dark=True, tag="B-10-03", grave="Drying too fast: a dry ring closes")
            take(browser, loft, "hang-a-piece", keys="h")
            take(browser, pit, "hang-phone", PHONE)
            take(browser, pit, "piece-phone-dark", PHONE, dark=True, tag="J-22-02")
            take(browser, f"{pit}/climate", "climate")
            home = pit.removesuffix("/hang/3")
            bench = httpx2.get(f"{home}/api/bench").json()
            batch, begun = bench["batches"][0]["id"], bench["weigh_outs"][0]["id"]
            take(browser, f"{home}/bench", "bench", recipe="Juniper salame, version 2")
            take(browser, f"{home}/bench/weigh/{begun}", "weigh-out")
            take(browser, f"{home}/bench/weigh/{begun}", "weigh-out-phone", PHONE)
            take(browser, f"{home}/bench/batch/{batch}", "batch")
            take(browser, f"{home}/bench/batch/{batch}/against", "against")
            take(browser, f"{home}/today", "today")
            take(browser, pit, "take-down", tag="J-20-05", keys="take down")
            take(browser, f"{home}/book", "book")
            take(browser, f"{home}/salt/1", "salt")
            take(browser, f"{home}/warm", "warm")
            take(browser, f"{home}/hang/3/round", "weigh-round-phone", PHONE, keys="all (34)")
            tags = pypdfium2.PdfDocument(httpx2.get(f"{home}/api/batches/{batch}/tags.pdf").content)
            tags[0].render(scale=1.1).to_pil().save(FOLDER / "tags.png")
            browser.close()
        server.should_exit = True
        thread.join()


if __name__ == "__main__":
    main()
