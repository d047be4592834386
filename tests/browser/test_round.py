"""A weigh round in a real browser: by keyboard alone, with the line cut in the middle and a reload."""

from datetime import UTC, datetime

import pytest
from playwright.sync_api import Page, expect

from pages import open_workshop, post, wait_until
from serving import TABLET_HOST
from support import NOW, Clock, piece_body

DAY = 86_400


def fill_room(page: Page, url: str, pieces: int) -> int:
    body = {"name": "Long room", "hooks_per_rod": [20, 20], "setpoint": {"temperature_c": 13, "rh_percent": 78}}
    made = post(page, f"{url}/api/places", {**body, "by": "Ida"}).json()
    room = page.request.get(f"{url}/api/places/{made['id']}/room").json()
    hung_at = datetime.fromtimestamp(NOW - 10 * DAY, UTC).isoformat()
    for i in range(pieces):
        rod = room["rods"][i // 20]
        tag, batch = f"J-14-{i + 1:02d}", f"J-14-{i // 5}"  # the course of a batch is looked at for each of its pieces
        body = piece_body(room, tag=tag, batch_code=batch, rod_id=rod["id"], hook=i % 20 + 1, at=hung_at)
        post(page, f"{url}/api/pieces", body)
    return made["id"]


def begin_round(page: Page, pieces: int) -> None:
    page.get_by_role("button", name=f"all ({pieces})").click()
    expect(page.get_by_label("Weight on the scale, g")).to_be_focused()


def type_in(page: Page, first: int, last: int) -> None:
    for i in range(first, last):
        expect(page.get_by_text(f"J-14-{i + 1:02d}", exact=True)).to_be_visible()
        page.keyboard.type(f"{738 + i % 5}")
        page.keyboard.press("Enter")


def weights_of(page: Page, url: str, place: int) -> list[int]:
    """How many weights each piece of a place has."""
    room = page.request.get(f"{url}/api/places/{place}/room").json()
    return [len(page.request.get(f"{url}/api/pieces/{c['id']}").json()["weighings"]) for c in room["pieces"]]


@pytest.mark.parametrize("pieces", [16, pytest.param(40, marks=pytest.mark.drill)])
def test_a_round_by_keyboard_with_the_line_cut_and_the_page_opened_without_one(
    keeping_page: Page, serve, clock: Clock, pieces: int
) -> None:
    page, server = keeping_page, serve()
    quarter = pieces // 4
    open_workshop(page, server.url)
    place = fill_room(page, server.url, pieces)
    page.goto(f"{server.url}/hang/{place}")
    expect(page.get_by_role("heading", name="Long room")).to_be_visible()
    wait_until(
        page,
        """async (place) => {
            const answers = await caches.open('answers');
            return (await answers.match(`/api/places/${place}/round`)) !== undefined;
        }""",
        place,
    )
    page.keyboard.press("r")
    expect(page.get_by_text("nobody weighed its batch yet").first).to_be_visible()
    begin_round(page, pieces)
    type_in(page, 0, 3)
    page.keyboard.type("378")  # digits swapped: asked about, typed again
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Far from the")
    page.get_by_label("Weight on the scale, g").fill("")
    type_in(page, 3, quarter)
    server.stop()
    type_in(page, quarter, 2 * quarter)
    expect(page.get_by_text("weights wait on this device")).to_be_visible()
    page.goto(f"{server.url}/hang/{place}/round")  # the page was closed, and there is nobody to ask for it
    expect(page.get_by_text("No connection. What you see was known on")).to_be_visible()
    begin_round(page, pieces)
    type_in(page, 2 * quarter, 3 * quarter)
    server = serve(server.port)
    page.reload()
    begin_round(page, pieces)
    type_in(page, 3 * quarter, pieces)
    expect(page.get_by_role("heading", name="The round is done")).to_be_visible()
    expect(page.get_by_text("All weights are in.")).to_be_visible(timeout=15_000)
    page.get_by_role("button", name="Back to the room").click()
    expect(page.get_by_role("heading", name="Long room")).to_be_visible()
    expect(page.get_by_text("No connection.")).not_to_be_visible()
    assert weights_of(page, server.url, place) == [1] * pieces  # nothing lost, nothing twice


def test_a_tablet_over_plain_http_weighs_and_is_told_to_keep_the_page_open(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    place = fill_room(page, server.url, pieces=4)
    page.goto(f"http://{TABLET_HOST}:{server.port}/hang/{place}/round")
    expect(page.get_by_text("leave this page open")).to_be_visible()
    begin_round(page, pieces=4)
    type_in(page, 0, 2)
    page.keyboard.press("Escape")
    expect(page.get_by_text("2 pieces weighed")).to_be_visible()
    expect(page.get_by_text("All weights are in.")).to_be_visible()
    assert sum(weights_of(page, server.url, place)) == 2
