"""How soon the page is usable, and how much it loads."""

import gzip
import tempfile
import threading
import time
from pathlib import Path

import uvicorn
from playwright.sync_api import sync_playwright

from zymon.app import free_port, make_app, make_dates
from zymon.demo.build import build
from zymon.settings import Settings, web_folder

ARGUMENTS = ["--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"]
QUIET = ["--disable-background-networking", "--disable-component-update", "--disable-sync"]


def measure() -> str:
    """The table of the page."""
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(db=Path(folder) / "demo.db")
        build(settings.db, int(time.time()))
        listening = free_port("127.0.0.1", 8700)
        app = make_app(settings)
        server = uvicorn.Server(uvicorn.Config(app, log_level="error", access_log=False))
        thread = threading.Thread(target=server.run, kwargs={"sockets": [listening]})
        thread.start()
        make_dates(app)  # as the server does at its start
        url = f"http://127.0.0.1:{listening.getsockname()[1]}/"
        usable, chart = [], []
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS + QUIET)
            for _ in range(4):
                page = browser.new_page()
                began = time.perf_counter()
                page.goto(url, wait_until="commit")
                page.wait_for_selector("[data-piece]")
                usable.append(time.perf_counter() - began)
                page.goto(f"{url}hang/3/climate")
                page.wait_for_selector("canvas")
                began = time.perf_counter()
                page.get_by_role("button", name="a year").click()
                page.wait_for_function("document.querySelector('canvas') !== null")
                page.evaluate("() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))")
                chart.append(time.perf_counter() - began)
                page.close()
            browser.close()
        server.should_exit = True
        thread.join()
        app.state.context.db.close()
    scripts = sum(len(gzip.compress(f.read_bytes(), 6)) for f in (web_folder(settings) / "assets").glob("*.js"))
    return (
        "| what | measured | asked |\n|---|---|---|\n"
        f"| Hang view of the demo usable, first visit | {usable[0]:.2f} s | 1 s |\n"
        f"| Hang view of the demo usable, later visits | {min(usable[1:]):.2f} s | 1 s |\n"
        f"| a year of climate asked for and drawn | {min(chart):.2f} s | without a stutter |\n"
        f"| JavaScript of the first screen, compressed | {scripts / 1000:.0f} kB | 250 kB |\n"
    )
