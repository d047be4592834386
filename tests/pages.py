"""Steps that several journeys in the browser begin with."""

import itertools
from typing import Any

from playwright.sync_api import APIResponse, Page, Request, expect

from support import sheet_body

entries = itertools.count(1)


def post(page: Page, address: str, body: dict[str, Any]) -> APIResponse:
    """An entry sent past the forms, with an identity of its own."""
    answer = page.request.post(address, data={"uid": f"past-the-forms-{next(entries)}", **body})
    assert answer.ok, answer.text()
    return answer


def wait_until(page: Page, expression: str, arg: Any = None) -> None:
    """Wait until a page says so; asked from outside, since the page itself runs no script but its own."""
    for _ in range(200):
        if page.evaluate(expression, arg):
            return
        page.wait_for_timeout(100)
    raise TimeoutError(expression)


class Asked:
    """What a page has asked the server and was not answered yet: before, what is to be looked at is not there."""

    def __init__(self, page: Page) -> None:
        self._open: set[Request] = set()
        page.on("request", lambda request: self._open.add(request) if self._counts(request) else None)
        page.on("requestfinished", self._answered)
        page.on("requestfailed", self._answered)

    def _answered(self, request: Request) -> None:
        self._open.discard(request)

    def _counts(self, request: Request) -> bool:
        # who follows is never answered, and what a page has worked out it draws when it comes
        return request.method == "GET" and "/api/" in request.url and not request.url.endswith("/api/follow")

    def until_answered(self, page: Page) -> None:
        """Wait until nothing is asked, and what came is drawn."""
        for _ in range(300):
            if not self._open:
                page.evaluate("() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)))")
                if not self._open:  # an answer may have led to another question
                    return
            page.wait_for_timeout(50)
        raise TimeoutError(", ".join(request.url for request in self._open))


def open_workshop(page: Page, url: str) -> None:
    page.goto(url)
    page.get_by_label("Workshop").fill("Test cellar")
    page.get_by_label("Your name").fill("Ida")
    page.get_by_label("Name of the place").fill("Back cellar")
    page.get_by_role("button", name="Open the workshop").click()
    expect(page.get_by_role("heading", name="Nothing hangs in Back cellar yet")).to_be_visible()


def make_batch(page: Page, url: str, code: str) -> int:
    """A salame weighed out to its sheet; gives the batch's id."""
    begun = {"product": "Juniper salame", "sheet": sheet_body(), "by": "Ida"}
    weigh = post(page, f"{url}/api/weigh-outs", begun).json()
    for thing in weigh["things"]:
        body = {
            "key": thing["key"],
            "grams": round(thing["target_g"], 2),
            "lot": "",
            "by": "Ida",
        }
        post(page, f"{url}/api/weigh-outs/{weigh['id']}/entries", body)
    return post(page, f"{url}/api/weigh-outs/{weigh['id']}/batch", {"code": code, "by": "Ida"}).json()["id"]
