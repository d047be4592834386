"""Steps that several journeys in the browser begin with."""

from playwright.sync_api import Page, expect


def open_workshop(page: Page, url: str) -> None:
    page.goto(url)
    page.get_by_label("Workshop").fill("Test cellar")
    page.get_by_label("Your name").fill("Ida")
    page.get_by_label("Name of the place").fill("Back cellar")
    page.get_by_role("button", name="Open the workshop").click()
    expect(page.get_by_role("heading", name="Nothing hangs in Back cellar yet")).to_be_visible()
