"""A piece taken in hand and hung elsewhere: by key into another chamber, by drag onto a hook and onto a place."""

from playwright.sync_api import Locator, Page, expect

from pages import open_workshop, post
from support import Clock, piece_body


def two_rooms(page: Page, url: str) -> tuple[int, int, int]:
    """Two chambers and a piece in the first."""
    rooms = []
    for name in ("Pit", "Loft"):
        body = {"name": name, "hooks_per_rod": [6], "setpoint": {"temperature_c": 13, "rh_percent": 78}, "by": "Ida"}
        made = post(page, f"{url}/api/places", body).json()
        rooms.append(page.request.get(f"{url}/api/places/{made['id']}/room").json())
    hung = post(page, f"{url}/api/pieces", piece_body(rooms[0])).json()
    return rooms[0]["place"]["id"], rooms[1]["place"]["id"], hung["card"]["id"]


def hangs_at(page: Page, url: str, piece: int) -> list[tuple[str, int]]:
    found = page.request.get(f"{url}/api/pieces/{piece}").json()["hangings"]
    return [(one["place"], one["hook"]) for one in found]


def drag(page: Page, piece: int, target: Locator) -> None:
    """Drag a drawn piece as a hand does: it is in the hand before it is let go of."""
    page.locator(f"[data-piece='{piece}']").hover()
    page.mouse.down()
    target.hover()
    expect(page.get_by_role("status").filter(has_text="in hand")).to_be_visible()
    box = target.bounding_box()
    assert box is not None
    for off in (3, 0):  # a hand is never quite still: the place it is over is told anew
        page.mouse.move(box["x"] + box["width"] / 2 + off, box["y"] + box["height"] / 2)
    page.mouse.up()


def test_a_piece_is_carried_into_another_chamber_and_back(page: Page, serve, clock: Clock) -> None:
    url = serve().url
    open_workshop(page, url)
    pit, _, piece = two_rooms(page, url)
    page.goto(f"{url}/hang/{pit}?piece={piece}")
    expect(page.get_by_role("article", name="J-14-03")).to_be_visible()
    page.keyboard.press("m")
    hand = page.get_by_role("status").filter(has_text="in hand")
    expect(hand).to_contain_text("pick a free hook here, or go to")
    page.keyboard.press("Escape")  # thought better of it
    expect(hand).not_to_be_visible()
    page.keyboard.press("m")
    hand.get_by_role("link", name="Loft").click()
    expect(page.get_by_role("heading", name="Loft", exact=True)).to_be_visible()
    clock.now += 3600
    page.get_by_role("button", name="Hang a piece on rod 1, hook 4").click()
    expect(page.get_by_role("article", name="J-14-03")).to_contain_text("rod 1, hook 4")
    assert hangs_at(page, url, piece) == [("Pit", 1), ("Loft", 4)]
    clock.now += 3600
    with page.expect_response("**/api/undo") as undone:
        page.keyboard.press("u")
    assert undone.value.ok
    expect(page.get_by_role("heading", name="Nothing hangs in Loft yet")).to_be_visible()
    stays = page.request.get(f"{url}/api/pieces/{piece}").json()["hangings"]  # all of it is on record
    assert [(x["place"], x["hook"], x["to_at"] is None, x["struck_reason"]) for x in stays] == [
        ("Pit", 1, True, None),
        ("Loft", 4, False, "undone at once"),
    ]


def test_a_piece_is_dragged_onto_a_hook_and_onto_a_place(page: Page, serve, clock: Clock) -> None:
    url = serve().url
    open_workshop(page, url)
    pit, _, piece = two_rooms(page, url)
    page.goto(f"{url}/hang/{pit}")
    clock.now += 3600
    drag(page, piece, page.get_by_role("button", name="Hang a piece on rod 1, hook 3"))
    expect(page.get_by_text("J-14-03 moved to rod 1, hook 3")).to_be_visible()
    assert hangs_at(page, url, piece) == [("Pit", 1), ("Pit", 3)]
    # drawn where it hangs now, before a hand reaches for it
    expect(page.get_by_role("button", name="Hang a piece on rod 1, hook 1")).to_be_visible()
    drag(page, piece, page.get_by_role("banner").get_by_role("link", name="Loft"))
    expect(page.get_by_role("heading", name="Loft", exact=True)).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="J-14-03 in hand")).to_be_visible()
    assert hangs_at(page, url, piece)[-1] == ("Pit", 3)  # it hangs there until a hook is picked


def test_where_it_hung_and_when_is_mended_on_its_own_page(page: Page, serve, clock: Clock) -> None:
    url = serve().url
    open_workshop(page, url)
    pit, _, piece = two_rooms(page, url)
    clock.now += 3 * 86_400
    rod = page.request.get(f"{url}/api/places/{pit}/room").json()["rods"][0]["id"]
    post(page, f"{url}/api/pieces/{piece}/move", {"rod_id": rod, "hook": 5, "by": "Bo"})
    page.goto(f"{url}/hang/{pit}?piece={piece}")
    shown = page.get_by_role("article", name="J-14-03")
    shown.get_by_text("As hung").click()
    shown.get_by_role("button", name="Take back").click()
    shown.get_by_label("Why was it wrong?").fill("another piece was meant")
    shown.get_by_role("button", name="Take back").click()
    expect(shown).to_contain_text("rod 1, hook 1")
    expect(shown.get_by_text("another piece was meant")).to_be_visible()
    # hung a day before it was said to be, and the wrong day stays on record
    shown.get_by_role("listitem").filter(has_text="hung").first.get_by_role("button", name="Correct").click()
    shown.get_by_label("When was it hung?").fill("2026-09-30 8:00")
    shown.get_by_label("Why was it wrong?").fill("read off the tag")
    shown.get_by_role("button", name="OK").last.click()
    expect(shown.get_by_text("Wednesday 30 September 2026 08:00")).to_be_visible()
    expect(shown.get_by_text("read off the tag")).to_be_visible()
    page.reload()
    expect(shown.get_by_text("read off the tag")).to_be_attached()
