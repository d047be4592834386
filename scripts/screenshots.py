"""Takes the pictures in docs/screenshots from the demo workshop; one current picture of each main view."""

import tempfile
import threading
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from urllib.parse import quote
from uuid import uuid4

import httpx2
import uvicorn
from fastapi import FastAPI
from playwright.sync_api import Browser, Page, sync_playwright

from scripts.chromium import launched
from zymon.app import free_port, make_app
from zymon.demo.build import build
from zymon.settings import Settings
from zymon.work.alarms.watch import Watch

FOLDER = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
DESK, PHONE = (1280, 800), (390, 844)
POUNDS = "language=en&mass=oz&temperature=F&length=in&liquid=floz&hours=12&week=0"
ITALIAN = "language=it&mass=g&temperature=C&length=mm&liquid=ml&hours=24&week=1"


def take(
    browser: Browser,
    url: str,
    name: str,
    size: tuple[int, int] = DESK,
    dark: bool = False,
    tag: str = "",
    keys: str = "",
    recipe: str = "",
    until: str = "",
    file: Path | None = None,
    shows: str = "",
) -> None:
    """One picture: a page, perhaps with a piece picked, a key pressed, a recipe opened or a file brought in."""
    context = browser.new_context(
        viewport={"width": size[0], "height": size[1]},
        reduced_motion="reduce",
        locale="en-GB",
        timezone_id="Europe/London",
        color_scheme="dark" if dark else "light",
    )
    if shows:
        context.add_cookies([{"name": "zymon_shows", "value": quote(shows), "url": url}])
    page: Page = context.new_page()
    page.goto(url)
    page.wait_for_load_state("load")
    page.locator("main").wait_for()
    if tag:
        page.get_by_role("button", name=tag).first.click()
        page.get_by_role("article", name=tag).wait_for()
    if recipe:
        page.get_by_label("Recipes").select_option(label=recipe)
        page.get_by_test_id("weeks").wait_for()
        page.evaluate("document.querySelector('main').scrollTo(0, 0)")
    if keys:
        page.get_by_role("button", name=keys).first.click()
    if file:
        page.keyboard.press("b")
        page.locator("input[type=file]").set_input_files(file)
    if until:
        page.locator(until).first.wait_for()
    page.wait_for_timeout(600)
    page.screenshot(path=FOLDER / f"{name}.png")
    context.close()


def main() -> None:
    """Serve a fresh demo workshop and take every picture."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(db=Path(folder) / "demo.db")
        build(settings.db, int(time.time()))
        app, server, home = _serve(settings.db)
        pit = f"{home}/hang/3"
        loft = pit.replace("/3", "/4")
        with sync_playwright() as playwright:
            browser = launched(playwright)
            take(browser, pit, "hang", tag="N-07-02")
            log = _log_that_is_not_plain(Path(folder) / "loft.csv")
            take(browser, loft, "file-asked", dark=True, file=log, until="text=Of which time zone")
            bench = httpx2.get(f"{home}/api/bench").json()
            batch, begun = bench["batches"][0]["id"], bench["weigh_outs"][0]["id"]
            take(browser, f"{home}/bench", "bench", recipe="Juniper salame, version 2")
            take(browser, f"{home}/bench/weigh/{begun}", "weigh-out", shows=POUNDS)
            take(browser, f"{home}/bench/batch/{batch}/against", "against")
            take(browser, f"{home}/today", "today", until="main section li")
            take(browser, f"{home}/ahead?plan=2", "ahead", until=".lead")
            take(browser, f"{home}/rest", "rest", tag="J-20-06")
            cut = next(one["piece_id"] for one in httpx2.get(f"{home}/api/cut").json()["seen"] if one["ring"] == "wide")
            take(browser, f"{home}/rest/cut/{cut}", "cut-phone", PHONE, until="[data-testid=cause]")
            packs = httpx2.get(f"{home}/api/stock").json()["packs"]
            opened = next(one for one in packs if one["opened"])
            take(browser, f"{home}/rest/stock/{opened['id']}", "stock", until="article h2")
            take(browser, f"{home}/book/batch/{opened['batch_id']}", "story", until="main svg .piece")
            while httpx2.post(f"{home}/api/book/accuracy/afterwards", timeout=60).json()["waiting"]:
                pass
            take(browser, f"{home}/book/accuracy", "accuracy", until="main table")
            take(browser, f"{home}/salt/1", "salt")
            take(browser, f"{home}/warm", "warm", until="main svg.chart")
            take(browser, f"{home}/hang/3/round", "weigh-round-phone", PHONE, keys="tutti (34)", shows=ITALIAN)
            _watched(app, home)
            take(browser, f"{home}/house/alarms", "alarms", until="main h2")
            browser.close()
        server.should_exit = True


def kitchen() -> None:
    """A kitchen of its own: the first screen, a fridge with two pieces that nobody weighs, a garage in frost."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        _, server, home = _serve(Path(folder) / "kitchen.db")
        browser = launched(playwright)
        take(browser, home, "first-screen")
        with httpx2.Client(base_url=home) as client:
            fridge, garage, held = _kitchen(client)
        take(browser, f"{home}/hang/{fridge}", "kitchen-fridge", tag="DB-1-01")
        take(browser, f"{home}/hang/{garage}", "held", tag=held)
        browser.close()
        server.should_exit = True


def _serve(file: Path) -> tuple[FastAPI, uvicorn.Server, str]:
    """A server of its own on a free port, and its address."""
    listening = free_port("127.0.0.1", 8710)
    app = make_app(Settings(db=file))
    server = uvicorn.Server(uvicorn.Config(app, log_level="error", access_log=False))
    threading.Thread(target=server.run, kwargs={"sockets": [listening]}, daemon=True).start()
    return app, server, f"http://127.0.0.1:{listening.getsockname()[1]}"


def _watched(app: FastAPI, home: str) -> None:
    """Limits for a place that is too moist for them, two people who are told, and one look."""
    band = {"low_c": 11, "high_c": 15, "low_rh": 68, "high_rh": 76, "for_minutes": 10, "frost": True}
    band |= {"silent_minutes": 30, "door_minutes": None, "uid": uuid4().hex, "by": "Ida"}
    httpx2.put(f"{home}/api/alarms/bands/3", json=band).raise_for_status()
    for name, address, more in (
        ("Ida", "https://ida.example/wake", {"quiet_from": 1320, "quiet_to": 390}),
        ("Bruno", "https://bruno.example/wake", {"second": True}),
    ):
        body = {"uid": uuid4().hex, "by": "Ida", "name": name, "way": "call", "address": address, **more}
        httpx2.post(f"{home}/api/alarms/people", json=body).raise_for_status()
    Watch(app.state.context, {"call": lambda *_: None}, lambda: home).look()


def _log_that_is_not_plain(file: Path) -> Path:
    """A logger's file in which day and month, zone and unit can be read two ways."""
    begun = datetime.now(UTC).replace(day=3, hour=6, minute=0) - timedelta(days=30)
    rows = [
        f"{begun.replace(day=3 + i % 6, hour=6 + i // 6):%d/%m/%Y %H:%M};{11 + i % 4 / 10:.1f};{80 + i % 5}"
        for i in range(48)
    ]
    file.write_text("Date;Temp;RH\n" + "\n".join(sorted(rows)) + "\n")
    return file


def _kitchen(client: httpx2.Client) -> tuple[int, int, str]:
    """Two duck breasts on a shelf, told by feel; in the garage a salame that is soft at half its weight, and frost."""
    now = datetime.now(UTC)

    def enter(url: str, **body: object) -> Any:
        answer = client.post(f"/api{url}", json={"uid": uuid4().hex, "by": "Ida", **body})
        answer.raise_for_status()
        return answer.json()

    def ago(days: float) -> str:
        return (now - timedelta(days=days)).isoformat()

    client.put("/api/workshop", json={"name": "Kitchen", "time_zone": "Europe/London"}).raise_for_status()
    places = [
        enter("/places", name=name, sort=sort, hooks_per_rod=[5])["id"]
        for name, sort in (("Kitchen fridge", "household_fridge"), ("Garage", "garage"))
    ]
    rods = [client.get(f"/api/places/{place}/room").json()["rods"][0]["id"] for place in places]
    duck = {
        "batch_code": "DB-1", "product": "Duck breast", "kind": "breast", "shape": "slab", "casing": "cloth",
        "thickness_mm": 26, "rod_id": rods[0], "done_by": "feel", "sure": True,
    }  # fmt: skip
    for i, days in enumerate((11.0, 24.0)):
        enter("/pieces", **duck, tag=f"DB-1-0{i + 1}", hook=i + 1, at=ago(days))
    salame = {
        "batch_code": "SL-1", "product": "Juniper salame", "kind": "salame", "shape": "cylinder", "casing": "natural",
        "diameter_mm": 58, "fat_percent": 27, "salt_percent": 2.7, "tare_g": 11, "start_weight_g": 842,
        "target_loss_percent": 36, "rod_id": rods[1], "sure": True,
    }  # fmt: skip
    hung = enter("/pieces", **salame, tag="SL-1-01", hook=1, at=ago(24))["card"]["id"]
    enter("/pieces", **salame, tag="SL-1-02", hook=2, at=ago(24))
    for days, gross_g in ((18.0, 690), (12.0, 575), (2.0, 480)):
        enter(f"/pieces/{hung}/weighings", gross_g=gross_g, first_g=gross_g, at=ago(days))
    for hours in range(60, -1, -3):
        c = -2.8 if hours < 9 else 6.5
        enter(f"/places/{places[1]}/readings", temperature_c=c, rh_percent=70, at=ago(hours / 24))
    found = {"firm_rim": "hard", "firm_core": "soft", "smell": "clean"}
    enter("/hook-events", kind="inspect", pieces=[hung], found=found)
    return places[0], places[1], "SL-1-01"


if __name__ == "__main__":
    main()
    kitchen()
