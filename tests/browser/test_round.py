"""A weigh round in a real browser: forty pieces by keyboard alone, with the line cut in the middle and a reload."""

from datetime import UTC, datetime

from playwright.sync_api import Page, expect

from pages import open_workshop
from support import NOW, Clock, piece_body

DAY = 86_400
PIECES = 40


def fill_room(page: Page, url: str) -> int:
    made = page.request.post(
        f"{url}/api/places",
        data={
            "name": "Long room",
            "hooks_per_rod": [20, 20],
            "setpoint": {"temperature_c": 13, "rh_percent": 78},
            "by": "Ida",
        },
    ).json()
    room = page.request.get(f"{url}/api/places/{made['id']}/room").json()
    hung_on = datetime.fromtimestamp(NOW - 10 * DAY, UTC).date().isoformat()
    for i in range(PIECES):
        rod = room["rods"][i // 20]
        body = piece_body(room, tag=f"J-14-{i + 1:02d}", rod_id=rod["id"], hook=i % 20 + 1, hung_on=hung_on)
        answer = page.request.post(f"{url}/api/pieces", data=body)
        assert answer.ok, answer.text()
    return made["id"]


def test_forty_pieces_by_keyboard_with_the_line_cut(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    place = fill_room(page, server.url)
    page.goto(f"{server.url}/hang/{place}")
    expect(page.get_by_role("heading", name="Long room")).to_be_visible()
    page.keyboard.press("r")
    expect(page.get_by_text("nobody weighed its batch yet").first).to_be_visible()
    page.get_by_role("button", name=f"all ({PIECES})").click()
    box = page.get_by_label("Weight on the scale, g")
    expect(box).to_be_focused()

    def type_in(first: int, last: int) -> None:
        for i in range(first, last):
            expect(page.get_by_text(f"J-14-{i + 1:02d}", exact=True)).to_be_visible()
            page.keyboard.type(f"{738 + i % 5}")
            page.keyboard.press("Enter")

    type_in(0, 3)
    page.keyboard.type("378")  # digits swapped: asked about, typed again
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Far from the")
    box.fill("")
    type_in(3, 10)
    page.context.set_offline(True)
    page.route("**/api/round", lambda route: route.abort("internetdisconnected"))
    type_in(10, 25)
    expect(page.get_by_text("weights wait on this device")).to_be_visible()
    page.context.set_offline(False)
    page.unroute("**/api/round")
    page.reload()
    page.get_by_role("button", name=f"all ({PIECES})").click()
    type_in(25, 40)
    expect(page.get_by_role("heading", name="The round is done")).to_be_visible()
    expect(page.get_by_text("All weights are in.")).to_be_visible(timeout=15_000)
    page.get_by_role("button", name="Back to the room").click()
    expect(page.get_by_role("heading", name="Long room")).to_be_visible()
    room = page.request.get(f"{server.url}/api/places/{place}/room").json()
    assert all(card["last_weighed_at"] for card in room["pieces"])
    for card in room["pieces"][::7]:
        detail = page.request.get(f"{server.url}/api/pieces/{card['id']}").json()
        assert len(detail["weighings"]) == 1  # nothing lost, nothing twice
