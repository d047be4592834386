"""Every page of the made-up workshop opens without a fault, on screen and on paper, and is not empty."""

import io
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page
from pypdfium2 import PdfDocument

from pages import Asked, wait_until
from serving import Server
from shared_demo import copy_of_the_demo
from zymon.words import names

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


SCREEN, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
#: Day and cellar light, beside the work and in the hand.
COMBINATIONS = [("light", SCREEN), ("dark", PHONE), ("dark", SCREEN), ("light", PHONE)]


OF_A_PLACE = ("/hang/{}", "/hang/{}/climate")
OF_A_BATCH = ("/bench/batch/{}/against", "/book/batch/{}", "/bench/batch/{}")


def addresses_of(page: Page, url: str, shift: int) -> list[str]:
    """Every address; of the pages of a place and of a batch one for each place and each sixth batch, in turn.

    With another shift they are others.
    """
    places = [place["id"] for place in page.request.get(f"{url}/api/line").json()["places"]]
    batches = [batch["id"] for batch in page.request.get(f"{url}/api/book").json()["batches"]]
    assert len(batches) > 15
    return [
        *PAGES,
        *(OF_A_PLACE[(i + shift) % len(OF_A_PLACE)].format(place) for i, place in enumerate(places)),
        *(OF_A_BATCH[(i + shift) % len(OF_A_BATCH)].format(batch) for i, batch in enumerate(batches[shift % 2 :: 6])),
    ]


ENGLISH, ITALIAN = "language%3Den", "language%3Dit"
#: What the tables of the core say; short texts may stand in a longer Italian one.
IN_ENGLISH = [text for text in names("it")["text"] if len(text) > 12]
TOLD = """() => [document.body.innerText, ...[...document.querySelectorAll('svg text')].map((one) => one.textContent),
  ...[...document.querySelectorAll('[aria-label]')].map((one) => one.getAttribute('aria-label'))].join('\\n')"""


def left_in_english(page: Page) -> set[str]:
    """Texts of tables that a page in Italian shows in English, in whatever case."""
    told = page.evaluate(TOLD).lower()
    return {text for text in IN_ENGLISH if text.lower() in told}


def walk(page: Page, url: str, shift: int) -> None:
    """Open every address in one of the four combinations and one language, in others with another shift."""
    asked = Asked(page)
    for i, address in enumerate(addresses_of(page, url, shift)):
        light, size = COMBINATIONS[(i + shift) % len(COMBINATIONS)]
        italian = (i // len(COMBINATIONS) + shift) % 2 == 1
        page.context.add_cookies([{"name": "zymon_shows", "value": ITALIAN if italian else ENGLISH, "url": url}])
        page.set_viewport_size(size)
        page.emulate_media(color_scheme=light, reduced_motion="reduce")
        page.goto(f"{url}{address}")
        wait_until(page, FILLED)
        asked.until_answered(page)
        accessible(page, address)
        if italian:
            assert left_in_english(page) == set(), address
        reaches(page, address, size["width"])


def reaches(page: Page, address: str, width: int) -> None:
    """All of a page is within its width, also with everything twice and four times as large as usual."""
    for narrow in (width, 640, 320):  # a screen of 1280 at 200 % and at 400 %
        if narrow <= width:
            page.set_viewport_size({"width": narrow, "height": 512})
            assert page.evaluate("document.documentElement.scrollWidth") <= narrow, (address, narrow)


@pytest.fixture
def url(demo: Path) -> Iterator[str]:
    server = Server(demo, lambda: time.time() + 4 * 3600)  # the sensors have been silent for a while
    yield server.url
    server.stop()


def test_every_page_opens_on_screen_and_in_the_hand_by_day_and_by_night(url: str, page: Page) -> None:
    walk(page, url, 0)


@pytest.mark.drill
@pytest.mark.parametrize("shift", [1, 2, 3])
def test_every_page_opens_in_the_other_combinations_too(url: str, page: Page, shift: int) -> None:
    walk(page, url, shift)


LOW = """() => [...document.querySelectorAll('a[href], button, input, select, textarea, summary')].filter((one) => {
  const box = one.getBoundingClientRect();
  const inText = getComputedStyle(one).display === 'inline' &&
    [...one.parentElement.childNodes].some((node) => node.nodeType === 3 && node.textContent.trim().length > 3);
  const within = one.tagName === 'INPUT' && one.closest('label, .sr-only');
  return box.width && box.height && box.height < 43.5 && !inText && !within && !one.closest('.sr-only');
}).map((one) => `${one.tagName} ${one.getAttribute('aria-label') ?? one.textContent.trim().slice(0, 40)}`)"""


def test_whatever_is_tapped_is_large_enough_for_a_glove(url: str, phone: Page) -> None:
    """44 px high with a finger, but for a link within a sentence."""
    tapped(phone, url, ("/today", "/salt/1", "/warm", "/hang/2", "/hang/2/round", "/rest", "/t/J-20-01"))


@pytest.mark.drill
def test_whatever_is_tapped_anywhere_is_large_enough(url: str, phone: Page) -> None:
    tapped(phone, url, (*PAGES, "/hang/2/climate", "/book/batch/3", "/bench/batch/3/against"))


def tapped(phone: Page, url: str, addresses: tuple[str, ...]) -> None:
    for address in addresses:
        phone.goto(f"{url}{address}")
        wait_until(phone, FILLED)
        assert phone.evaluate(LOW) == [], address


def test_pages_are_printed_with_what_is_on_them(url: str, page: Page) -> None:
    batch = page.request.get(f"{url}/api/book").json()["batches"][0]["id"]
    for address in ("/today", f"/bench/batch/{batch}/against"):
        page.goto(f"{url}{address}")
        wait_until(page, FILLED)
        for _ in range(40):  # while something is still asked for, little stands there
            text = PdfDocument(io.BytesIO(page.pdf(format="A4")))[0].get_textpage().get_text_range()
            if len(text) > 150:
                break
            page.wait_for_timeout(250)
        assert len(text) > 150, address
