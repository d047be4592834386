"""The house in a real browser: signing in begins, a helper by PIN, a signature, offline weights under their name."""

from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect

from pages import open_workshop, post
from serving import Server
from support import NOW, iso, piece_body
from zymon.store.climate import Source, add_readings
from zymon.store.database import Database

PASSPHRASE = "hay and juniper smoke"
TABLET = "Loft tablet"


def sign_in(page: Page, name: str, passphrase: str) -> None:
    form = page.get_by_role("form", name="Sign in")
    form.get_by_label("Name").fill(name)
    form.get_by_label("Passphrase").fill(passphrase)
    form.get_by_role("button", name="Sign in").click()


def add_person(page: Page, name: str, role: str, passphrase: str) -> None:
    page.get_by_role("button", name="Add somebody").click()
    form = page.get_by_role("form", name="Add somebody")
    form.get_by_label("Name").fill(name)
    form.get_by_label("Role").select_option(role)
    form.get_by_label("Passphrase").fill(passphrase)
    form.get_by_role("button", name="Add somebody").click()
    expect(page.get_by_text(", by Ida").first).to_be_visible()


def choose_pin(page: Page, now: str, pin: str) -> None:
    form = page.get_by_role("form", name="Change it")
    form.get_by_label("Passphrase as it is now").fill(now)
    form.get_by_label("PIN, four to eight digits").fill(pin)
    form.get_by_role("button", name="Change it").click()
    expect(page.get_by_text("Your PIN is changed")).to_be_visible()


def by_pin(page: Page, name: str, pin: str) -> None:
    page.get_by_role("button", name=name, exact=True).click()
    for digit in pin:
        page.get_by_role("button", name=digit, exact=True).click()
    page.get_by_role("button", name="In", exact=True).click()


def hang(page: Page, url: str, pieces: int) -> int:
    """A workshop with pieces on its first rod; gives the place's id."""
    open_workshop(page, url)
    place = page.request.get(f"{url}/api/line").json()["places"][0]["id"]
    room = page.request.get(f"{url}/api/places/{place}/room").json()
    for i in range(pieces):
        post(page, f"{url}/api/pieces", piece_body(room, tag=f"J-14-0{i + 1}", hook=i + 1, at=iso(NOW - 86_400)))
    return place


def begin_signing_in(page: Page, url: str) -> None:
    page.goto(f"{url}/house/people")
    page.get_by_role("button", name="Begin signing in").click()
    form = page.get_by_role("form", name="Add somebody")
    form.get_by_label("Name").fill("Ida")
    form.get_by_label("Passphrase").fill(PASSPHRASE)
    form.get_by_role("button", name="Begin signing in").click()
    expect(page.get_by_text("Ida, owner.")).to_be_visible()


def sign_out(page: Page, url: str) -> None:
    page.goto(f"{url}/house/people")
    page.get_by_role("button", name="Sign out", exact=True).click()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()


def written(server: Server, query: str) -> list[tuple]:
    with server.app.state.context.db.engine.connect() as connection:
        return [tuple(row) for row in connection.exec_driver_sql(query)]


def test_from_alone_on_the_machine_to_a_tablet_with_pins(serve: Callable[..., Server], page: Page) -> None:
    server = serve()
    place = hang(page, server.url, 1)
    # alone: nobody signs in; the first on record is an owner and is in at once
    page.goto(f"{server.url}/house/people")
    expect(page.get_by_text("Nobody signs in")).to_be_visible()
    page.get_by_role("button", name="Begin signing in").click()
    form = page.get_by_role("form", name="Add somebody")
    form.get_by_label("Passphrase").fill("short")
    form.get_by_role("button", name="Begin signing in").click()
    expect(page.get_by_text("a passphrase has 10 to 200 characters")).to_be_visible()
    begin_signing_in(page, server.url)
    add_person(page, "Nives", "helper", "three words long")

    # the tablet at the chamber is trusted; the helper chooses a PIN and weighs by it
    trust = page.get_by_role("form", name="Trust this device")
    trust.get_by_label("What this tablet is called").fill(TABLET)
    trust.get_by_role("button").click()
    expect(page.get_by_text(f"This device is trusted as {TABLET}")).to_be_visible()
    sign_out(page, server.url)
    sign_in(page, "Nives", "not it")
    expect(page.get_by_role("alert")).to_contain_text("do not belong together")
    sign_in(page, "Nives", "three words long")
    expect(page.get_by_text("Nives, helper.")).to_be_visible()
    expect(page.get_by_role("button", name="Add somebody")).to_have_count(0)
    choose_pin(page, "three words long", "4931")
    sign_out(page, server.url)
    page.reload()
    expect(page.get_by_text(f"{TABLET}: tap your name")).to_be_visible()
    by_pin(page, "Nives", "4931")
    expect(page.get_by_role("link", name="Nives")).to_be_visible()
    page.goto(f"{server.url}/hang/{place}?piece=1")
    expect(page.get_by_role("heading", name="J-14-01")).to_be_visible()
    page.keyboard.press("w")
    page.keyboard.type("839")
    page.keyboard.press("Enter")
    expect(page.get_by_text("839 g").first).to_be_visible()
    assert written(server, "SELECT gross_g, by FROM weighing") == [(839.0, "Nives")]

    # what a helper may not do is said in words
    page.goto(f"{server.url}/house")
    expect(page.get_by_role("button", name="Keep")).to_be_disabled()
    page.get_by_role("button", name="Show the address").click()
    expect(page.get_by_text("/api/today.ics?key=")).to_be_visible()


def test_a_signature_waits_for_the_passphrase_and_goes_on_by_itself(serve: Callable[..., Server], page: Page) -> None:
    server = serve()
    hang(page, server.url, 1)
    begin_signing_in(page, server.url)
    page.goto(f"{server.url}/bench/batch/1/against")
    page.get_by_role("button", name="Sign for it").first.click()
    page.get_by_placeholder("Why").or_(page.get_by_label("Why")).first.fill("bought from a licensed house")
    page.get_by_role("button", name="Sign", exact=True).first.click()
    dialog = page.get_by_role("dialog", name="Signed by you")
    dialog.get_by_label("Passphrase").fill("not it")
    dialog.get_by_role("button", name="Sign").click()
    expect(dialog.get_by_role("alert")).to_contain_text("do not belong together")
    assert written(server, "SELECT by FROM hurdle_signature") == []
    dialog.get_by_label("Passphrase").fill(PASSPHRASE)
    dialog.get_by_role("button", name="Sign").click()
    expect(dialog).not_to_be_visible()
    expect(page.get_by_text("bought from a licensed house").first).to_be_visible()
    assert written(server, "SELECT by FROM hurdle_signature") == [("Ida",)]


def test_weights_typed_without_a_connection_wait_for_whoever_typed_them(
    serve: Callable[..., Server], page: Page
) -> None:
    server = serve()
    place = hang(page, server.url, 2)
    begin_signing_in(page, server.url)
    add_person(page, "Bruno", "maker", "three words long")
    page.route("**/api/round", lambda route: route.abort())
    page.goto(f"{server.url}/hang/{place}/round")
    page.get_by_role("button", name="all (2)").click()
    for grams in ("838", "836"):
        expect(page.get_by_label("Weight on the scale, g")).to_be_focused()
        page.keyboard.type(grams)
        page.keyboard.press("Enter")
    expect(page.get_by_text("2 weights").first).to_be_visible()
    sign_out(page, server.url)
    page.unroute("**/api/round")
    sign_in(page, "Bruno", "three words long")
    expect(page.get_by_text("2 weights typed by Ida wait until they sign in.")).to_be_visible()
    page.wait_for_timeout(6_000)  # longer than between two tries
    assert written(server, "SELECT by FROM weighing") == []
    sign_out(page, server.url)
    sign_in(page, "Ida", PASSPHRASE)
    expect(page.get_by_text("Ida, owner.")).to_be_visible()
    expect(page.get_by_text("typed by Ida")).to_have_count(0)
    for _ in range(40):
        if len(written(server, "SELECT by FROM weighing")) == 2:
            break
        page.wait_for_timeout(250)
    assert written(server, "SELECT by FROM weighing") == [("Ida",), ("Ida",)]


def _minutes_of_long_ago(file: Path, days: int) -> None:
    """A logger's minutes of three years ago at the first place."""
    begin = NOW // 300 * 300 - 3 * 365 * 86_400
    db = Database(file)
    with db.writing("Ida", NOW) as session:
        rows = [(at, 13.0, 78.0) for at in range(begin, begin + days * 86_400, 60)]
        add_readings(session, 1, rows, Source())
    db.close()


def test_the_copies_are_told_and_everything_goes_out_and_comes_into_an_empty_zymon(
    serve: Callable[..., Server], page: Page, tmp_path: Path
) -> None:
    server = serve()
    hang(page, server.url, 2)
    page.goto(f"{server.url}/house/copies")
    expect(page.get_by_text("There is none yet.")).to_be_visible()
    page.get_by_role("button", name="Take one now").click()
    expect(page.get_by_text("A copy was taken and looked through")).to_be_visible()
    expect(page.get_by_text("The last good one is of")).to_be_visible()
    _minutes_of_long_ago(tmp_path / "workshop.db", days=10)
    page.reload()
    room = page.get_by_role("region", name="Room on the disk")
    expect(room.get_by_text("11,520 readings older than")).to_be_visible()
    room.get_by_role("button", name="Thin what is old").click()
    expect(room.get_by_role("alert")).to_contain_text("The minutes do not come back: take an archive first")
    room.get_by_role("button", name="Leave them").click()
    expect(room.get_by_role("alert")).to_be_hidden()
    room.get_by_role("button", name="Thin what is old").click()
    room.get_by_role("button", name="Yes, thin them").click()
    expect(room.get_by_text("14,400 became 2,880")).to_be_visible(timeout=20_000)
    expect(room.get_by_role("button")).to_have_count(0)  # nothing is left to thin
    with page.expect_download() as started:
        page.get_by_role("link", name="Take everything out").click()
    started.value.save_as(tmp_path / "all.zip")
    server.stop()
    (tmp_path / "workshop.db").rename(tmp_path / "old.db")
    empty = serve()
    page.goto(empty.url)
    page.locator("input[type=file]").set_input_files(tmp_path / "old.db")
    expect(page.get_by_text("the archive is damaged")).to_be_visible()
    page.locator("input[type=file]").set_input_files(tmp_path / "all.zip")
    expect(page.get_by_role("heading", name="Back cellar")).to_be_visible()
    expect(page.get_by_text("J-14-02").first).to_be_visible()
