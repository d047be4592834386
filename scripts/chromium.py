"""Debian's Chromium without a window, for the tests of the browser, the pictures and the benchmarks.

Its headless build draws and runs a page as the one with windows does, and spends nothing on tabs and menus nobody sees.
"""

from playwright.sync_api import Browser, Playwright

EXECUTABLE = "/usr/bin/chromium-headless-shell"
ARGUMENTS = (
    *("--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"),
    *("--disable-background-networking", "--disable-component-update", "--disable-sync"),
)


def launched(playwright: Playwright, *more: str) -> Browser:
    """A browser. Parameters: more, arguments beside the usual."""
    return playwright.chromium.launch(executable_path=EXECUTABLE, args=[*ARGUMENTS, *more])
