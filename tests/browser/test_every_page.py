"""Every page of the made-up workshop opens without a fault, on screen and on paper, and is not empty."""

import io
import time
from pathlib import Path

import pytest
from playwright.sync_api import Page
from pypdfium2 import PdfDocument

from pages import wait_until
from serving import Server
from shared_demo import copy_of_the_demo

PAGES = [
    *("/today", "/bench", "/bench/limits", "/salt", "/warm", "/rest", "/rest/cut", "/rest/stock", "/rest/allergens"),
    *("/rest/in", "/book", "/book/compare?batches=1,2", "/book/accuracy", "/book/changes", "/book/file", "/places/new"),
    *("/ahead", "/ahead?plan=2&weeks=26", "/ahead/shopping"),
    *("/house", "/house/people", "/house/devices", "/house/alarms", "/house/copies", "/t/J-20-01"),
]


FILLED = "document.querySelector('main')?.innerText.trim().length > 40"


@pytest.fixture
def demo(tmp_path_factory: pytest.TempPathFactory) -> Path:
    return copy_of_the_demo(tmp_path_factory)


AXE = (Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
LOOK = """async () => (await axe.run(document, { resultTypes: ['violations'] })).violations.map(
  (one) => `${one.id}: ${one.nodes.slice(0, 3).map((node) => node.html.slice(0, 160)).join(' | ')}`)"""


def accessible(page: Page, address: str) -> None:
    """Nothing that axe-core finds stands between the page and whoever hears it, or reads it with little contrast."""
    page.evaluate(AXE)
    assert page.evaluate(LOOK) == [], address


def test_every_page_opens(demo: Path, page: Page) -> None:
    server = Server(demo, lambda: time.time() + 4 * 3600)  # the sensors have been silent for a while
    try:
        line = page.request.get(f"{server.url}/api/line").json()
        places = [place["id"] for place in line["places"]]
        batches = [batch["id"] for batch in page.request.get(f"{server.url}/api/book").json()["batches"]]
        assert len(batches) > 15
        addresses = [
            *PAGES,
            *(f"/hang/{place}{part}" for place in places for part in ("", "/climate")),
            *(f"/bench/batch/{batch}/against" for batch in batches),
            *(f"/book/batch/{batch}" for batch in batches[::3]),
            *(f"/bench/batch/{batch}" for batch in batches[::3]),
        ]
        for i, address in enumerate(addresses):
            page.emulate_media(color_scheme="dark" if i % 2 else "light", reduced_motion="reduce")
            page.goto(f"{server.url}{address}")
            wait_until(page, FILLED)
            accessible(page, address)
        page.set_viewport_size({"width": 390, "height": 844})
        for i, address in enumerate([*PAGES, f"/hang/{places[0]}"]):
            page.emulate_media(color_scheme="light" if i % 2 else "dark", reduced_motion="reduce")
            page.goto(f"{server.url}{address}")
            wait_until(page, FILLED)
            if i % 2:
                accessible(page, address)
            assert page.evaluate("document.documentElement.scrollWidth") <= 390, address
        page.set_viewport_size({"width": 1280, "height": 800})
        for address in ("/today", "/bench", f"/bench/batch/{batches[0]}/against", f"/hang/{places[0]}/climate"):
            page.goto(f"{server.url}{address}")
            wait_until(page, FILLED)
            for _ in range(40):  # while something is still asked for, little stands there
                text = PdfDocument(io.BytesIO(page.pdf(format="A4")))[0].get_textpage().get_text_range()
                if len(text) > 150:
                    break
                page.wait_for_timeout(250)
            assert len(text) > 150, address
    finally:
        server.stop()
