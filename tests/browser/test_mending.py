"""A piece that dries too fast: found in the round, moved, and seen to mend with the simulated workshop run forward."""

import re
import time
from collections.abc import Iterator

import pytest
from playwright.sync_api import Page, expect

from pages import post
from serving import Server
from shared_demo import copy_of_the_demo
from zymon.demo.live import LiveStandins, over_http


@pytest.fixture(scope="module")
def wheelhouse(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """The demo with its stand-ins, as `make demo` runs it."""
    file = copy_of_the_demo(tmp_path_factory)
    server = Server(file, time.time)
    LiveStandins(server.app, over_http(server.url))
    yield server
    server.stop()


def test_an_outage_is_seen_on_today(page: Page, wheelhouse: Server) -> None:
    now = time.time()
    probe = {"name": "Pit probe", "kind": "climate", "place_id": 3, "by": "Ida"}
    made = post(page, f"{wheelhouse.url}/api/devices", probe).json()
    stamps = [time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime(now - 43_000 + 300 * i)) for i in range(143)]
    readings = [{"at": at, "temperature_c": 27.0, "rh_percent": 95.0} for at in stamps]
    head = {"Authorization": f"Bearer {made['token']}"}
    sent = page.request.post(f"{wheelhouse.url}/device/v1/readings", data={"readings": readings}, headers=head)
    assert sent.ok
    page.goto(f"{wheelhouse.url}/today")
    # Today waits for the dates of every place, which the instruments' first readings have made anew
    expect(page.get_by_text(re.compile("Wheel Pit was too (warm|damp) for"))).to_be_visible(timeout=60_000)


@pytest.mark.drill
def test_found_moved_and_mended(page: Page, wheelhouse: Server) -> None:
    page.goto(f"{wheelhouse.url}/today")
    page.get_by_role("link", name="Go there: Too fast, move or slow the air: B-10-03").click()
    trouble = page.get_by_role("region", name="Drying too fast: a dry ring closes")
    expect(trouble).to_contain_text("it is this piece or its hook")
    expect(trouble.get_by_role("row", name=re.compile("Set the whole place"))).to_contain_text("days later")
    where = page.get_by_text(re.compile(r"Flat belly with savory · rod \d, hook \d"))
    before = where.inner_text()
    trouble.get_by_role("button", name="Move it").click()
    expect(where).not_to_have_text(before)

    for _ in range(2):  # two weeks pass, and it is weighed at the end of each
        page.get_by_role("link", name="Climate →").click()
        page.get_by_role("button", name="Run forward: a week").click()
        expect(page.get_by_text("readings came in")).to_be_visible(timeout=120_000)
        page.get_by_role("link", name=re.compile(r"^\d+ pieces$")).click()
        page.get_by_role("button", name=re.compile("^B-10-03")).click()
        page.get_by_role("button", name="Put it on the scale simulated").click()
        expect(page.get_by_label("Weight on the scale")).not_to_have_value("")
        page.get_by_role("button", name="OK", exact=True).click()
        expect(page.get_by_label("Weight on the scale")).to_have_value("")
    expect(trouble).to_have_count(0)
    expect(page.get_by_test_id("ready")).to_be_visible()
