"""A real server on a port of its own, and a real Chromium that fails a test on any error of the page."""

import shutil
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Literal

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright
from scripts.chromium import launched

from serving import TABLET_HOST, Server

# a tablet reaches the workshop's machine by its name over plain http, which browsers trust less than loopback
TABLET = f"--host-resolver-rules=MAP {TABLET_HOST} 127.0.0.1"

# a door that is shut and a refused weight are answers, not faults; a line that is cut or a server that is stopped is so
# on purpose
EXPECTED = (
    *("401", "403", "409", "422", "net::ERR_FAILED", "net::ERR_INTERNET_DISCONNECTED"),
    *("net::ERR_CONNECTION_REFUSED", "net::ERR_CONNECTION_RESET"),
)

expect.set_options(timeout=15_000)  # a page that is slow is not a page that is wrong: two browsers share two cores


@pytest.fixture
def serve(tmp_path: Path, clock, empty_workshop: Path) -> Iterator[Callable[..., Server]]:
    started: list[Server] = []
    shutil.copy(empty_workshop, tmp_path / "workshop.db")

    def start(port: int = 0) -> Server:
        started.append(Server(tmp_path / "workshop.db", clock, port))
        return started[-1]

    yield start
    for server in started:
        if server.thread.is_alive():
            server.stop()


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = launched(playwright, TABLET)
        yield browser
        browser.close()


@pytest.fixture
def page(chromium: Browser) -> Iterator[Page]:
    """A page of a browser that keeps nothing for later."""
    yield from _page(chromium, "block")


@pytest.fixture
def keeping_page(chromium: Browser) -> Iterator[Page]:
    """A page whose program and answers are kept for when there is no connection."""
    yield from _page(chromium, "allow")


@pytest.fixture
def phone(chromium: Browser) -> Iterator[Page]:
    """A page in the hand, tapped with a finger."""
    yield from _page(chromium, "block", 390, 844, finger=True)


def _page(
    chromium: Browser, workers: Literal["allow", "block"], width: int = 1280, height: int = 800, finger: bool = False
) -> Iterator[Page]:
    context = chromium.new_context(
        viewport={"width": width, "height": height},
        has_touch=finger,
        reduced_motion="reduce",
        locale="en-GB",
        timezone_id="Europe/Rome",
        service_workers=workers,
    )
    page = context.new_page()
    problems: list[str] = []
    page.on("pageerror", lambda error: problems.append(str(error)))
    page.on(
        "console",
        lambda m: problems.append(m.text) if m.type == "error" and not any(t in m.text for t in EXPECTED) else None,
    )
    page.set_default_timeout(20_000)  # two browsers share two cores
    yield page
    context.close()
    assert problems == []
