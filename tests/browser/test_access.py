"""With keys alone: the focus is where the work is, dialogs keep it, and keys of one letter can be turned off."""

import re

from playwright.sync_api import Page, expect

from pages import open_workshop, post
from support import NOW, Clock, iso, piece_body


def hung(page: Page, url: str, hooks: int = 4) -> tuple[int, int]:
    """A place with a piece that was hung ten days ago; gives both ids."""
    open_workshop(page, url)
    body = {"name": "Pit", "hooks_per_rod": [hooks], "setpoint": {"temperature_c": 13, "rh_percent": 78}, "by": "Ida"}
    place = post(page, f"{url}/api/places", body).json()["id"]
    room = page.request.get(f"{url}/api/places/{place}/room").json()
    piece = post(page, f"{url}/api/pieces", piece_body(room, at=iso(NOW - 10 * 86_400))).json()["card"]["id"]
    page.goto(f"{url}/hang/{place}?piece={piece}")
    expect(page.get_by_role("article", name="J-14-03")).to_be_visible()
    return place, piece


def weigh(page: Page, grams: str) -> None:
    page.keyboard.press("w")
    expect(page.get_by_label("Weight on the scale")).to_be_focused()
    page.keyboard.type(grams)
    page.keyboard.press("Enter")


def test_after_a_weight_a_strike_and_a_move_the_keys_go_on_where_the_work_is(page: Page, serve, clock: Clock) -> None:
    hung(page, serve().url)
    panel = page.get_by_role("article", name="J-14-03")
    weigh(page, "742")
    expect(panel).to_be_focused()  # the answer is read out from its top
    weigh(page, "731")
    expect(panel.get_by_text("731 g").first).to_be_visible()
    panel.get_by_role("button", name="Strike through").first.press("Enter")
    expect(panel.get_by_role("textbox", name="Why is it struck through?")).to_be_focused()
    page.keyboard.type("the other scale")
    page.keyboard.press("Enter")
    expect(panel.get_by_role("button", name="Count it again")).to_be_focused()
    page.keyboard.press("m")
    page.get_by_role("button", name="Hang a piece on rod 1, hook 3").press("Enter")
    expect(page.get_by_text("J-14-03 moved to rod 1, hook 3")).to_be_visible()
    expect(panel).to_be_focused()


def test_a_form_takes_the_focus_when_it_opens_and_gives_it_back_when_it_closes(page: Page, serve, clock: Clock) -> None:
    hung(page, serve().url)
    opener = page.get_by_role("button", name="Take down")
    opener.press("Enter")
    form = page.get_by_role("form", name=re.compile("Take J-14-03 down"))
    expect(form.get_by_role("textbox").first).to_be_focused()
    form.get_by_role("button", name="close").press("Enter")
    expect(opener).to_be_focused()
    page.keyboard.press("h")
    sheet = page.get_by_role("form", name="Hang a piece")
    expect(sheet.locator(":focus")).to_have_count(1)
    page.keyboard.press("Escape")
    expect(sheet).not_to_be_visible()
    page.goto(page.url.split("?")[0])
    begin = page.get_by_role("button", name="Hang a piece", exact=False).last
    begin.press("Enter")
    sheet.get_by_role("button", name="close").press("Enter")
    expect(begin).to_be_focused()


def test_the_focus_never_falls_to_the_top_of_the_page(page: Page, serve, clock: Clock) -> None:
    """What had it is gone with the page it stood on: the next page is where one goes on."""
    hung(page, serve().url)
    page.get_by_role("link", name="Climate").press("Enter")
    page.wait_for_url("**/climate")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    assert page.evaluate("document.activeElement.tagName") == "MAIN"


def test_the_sheet_of_keys_holds_the_focus_and_no_key_goes_through_it(page: Page, serve, clock: Clock) -> None:
    hung(page, serve().url)
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog", name="Keys")
    expect(sheet).to_be_visible()
    page.keyboard.press("h")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("form", name="Hang a piece")).not_to_be_visible()
    assert sheet.locator(":focus").count() == 1
    page.keyboard.press("Escape")
    expect(sheet).not_to_be_visible()
    expect(page.get_by_role("article", name="J-14-03")).to_be_visible()  # only the sheet was closed
    page.keyboard.press("/")
    expect(page.get_by_role("dialog").get_by_role("searchbox")).to_be_focused()


def test_keys_of_one_letter_are_turned_off_for_dictation(page: Page, serve, clock: Clock) -> None:
    hung(page, serve().url)
    expect(page.locator("kbd").first).to_be_visible()
    page.get_by_role("button", name="Keys").click()
    sheet = page.get_by_role("dialog", name="Keys")
    sheet.get_by_role("checkbox").uncheck()
    sheet.get_by_role("button", name="close").click()
    expect(page.locator("kbd").first).not_to_be_visible()
    for key in ("h", "w", "7", "m", "b", "v", "/", "?"):
        page.keyboard.press(key)
    expect(page.get_by_role("dialog")).not_to_be_visible()
    expect(page.get_by_role("form", name="Hang a piece")).not_to_be_visible()
    expect(page.get_by_label("Weight on the scale")).to_have_value("")
    page.keyboard.press("Escape")  # a key with a name still works
    expect(page.get_by_role("article", name="J-14-03")).not_to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^J-14-03"))).to_be_visible()
    page.goto(f"{page.url.split('/hang')[0]}/house")
    page.get_by_role("checkbox", name=re.compile("Keys of one letter")).check()
    page.go_back()
    expect(page.get_by_role("button", name=re.compile("^J-14-03"))).to_be_visible()
    page.keyboard.press("b")
    expect(page.get_by_role("region", name="Bring in a file")).to_be_visible()


def test_on_a_phone_what_the_panel_covers_is_out_of_reach(phone: Page, serve, clock: Clock) -> None:
    hung(phone, serve().url)
    panel = phone.get_by_role("article", name="J-14-03")
    expect(phone.locator("main")).to_have_attribute("inert", "")
    panel.get_by_role("button", name="close").first.tap()
    expect(phone.locator("main")).not_to_have_attribute("inert", "")
    expect(phone.get_by_role("button", name=re.compile("^J-14-03"))).to_be_focused()


def test_at_four_times_the_size_the_work_is_not_hidden_behind_bars(page: Page, serve, clock: Clock) -> None:
    hung(page, serve().url)
    page.goto(page.url.split("?")[0])
    page.set_viewport_size({"width": 320, "height": 200})
    expect(page.get_by_role("heading", name="Pit", exact=True)).to_be_in_viewport()
    piece = page.get_by_role("button", name=re.compile("^J-14-03"))
    piece.scroll_into_view_if_needed()
    expect(piece).to_be_in_viewport(ratio=0.3)
    assert page.evaluate("document.documentElement.scrollHeight") > 400  # one page that scrolls as a whole


COLOURS = """(shown) => { const style = getComputedStyle(shown); return [style.color, style.backgroundColor] }"""


def test_in_colours_of_the_readers_own_what_is_chosen_is_still_seen(page: Page, serve, clock: Clock) -> None:
    hung(page, serve().url)
    page.emulate_media(forced_colors="active")
    layers = page.get_by_role("group", name="drawing")
    chosen, other = (layers.get_by_role("button", name=name).evaluate(COLOURS) for name in ("days left", "pace"))
    assert chosen != other
    assert chosen[0] != chosen[1]
    airs = page.get_by_role("banner").get_by_role("link")
    pit, back = (
        airs.filter(has_text=name).evaluate("(one) => getComputedStyle(one).borderBottomColor")
        for name in ("Pit", "Back cellar")
    )
    assert pit != back


def test_nothing_moves_for_whoever_asked_for_stillness(page: Page, serve, clock: Clock) -> None:
    hung(page, serve().url)
    moving = "[...document.querySelectorAll('*')].filter((one) => parseFloat(getComputedStyle(one).transitionDuration))"
    assert page.evaluate(f"{moving}.length") == 0  # every page of these tests is asked for so
    page.emulate_media(reduced_motion="no-preference")
    assert page.evaluate(f"{moving}.length") > 0
