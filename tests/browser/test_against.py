"""What stands against it? In the browser: each hurdle in words, what settles it entered where it stands."""

import re

from playwright.sync_api import Page, expect

from pages import make_batch, open_workshop, post
from support import Clock, sheet_body


def row(page: Page, name: str):
    return page.get_by_role("listitem").filter(has=page.locator("strong", has_text=re.compile(f"^{name}$")))


def test_what_is_not_known_is_settled_where_it_stands(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    batch = make_batch(page, server.url, "J-01")
    page.goto(f"{server.url}/bench/batch/{batch}")
    page.get_by_role("link", name="What stands against it?").click()
    expect(page.get_by_role("heading", name="What stands against J\u201101?")).to_be_visible()
    expect(page.get_by_role("status")).to_contain_text("Held")
    expect(page.get_by_text("Check with your authority.", exact=False).first).to_be_visible()
    parasites = row(page, "parasites")
    expect(parasites).to_contain_text("Pork: certified, or frozen?")
    parasites.get_by_role("button", name="Enter what was done about parasites").click()
    parasites.get_by_label("what was done").select_option(label="frozen")
    parasites.get_by_label("at, °C").fill("-20")
    parasites.get_by_label("for, days").fill("12")
    parasites.get_by_role("button", name="Enter it", exact=True).click()
    expect(parasites).to_contain_text("12 days at -20 °C: 20 are needed.")
    expect(parasites).to_contain_text("failed")
    # it was another lot: struck with its reason it no longer fails, and says that it did
    page.get_by_role("region", name="What was entered for it").get_by_role("button", name="strike").click()
    page.get_by_label("Why is it wrong?").fill("another lot")
    page.get_by_role("button", name="strike").last.click()
    expect(parasites).to_contain_text(re.compile("Failed until .+ corrected it on .+: another lot"))
    expect(parasites).to_contain_text("not known")

    # a value that cannot be is refused in words, where it is typed; one that can goes before the estimate
    dry = row(page, "dry enough")
    page.get_by_role("button", name="How it is eaten, and what says it is done").first.click()
    page.get_by_label("to be cooked").check()
    page.get_by_role("button", name="Enter it", exact=True).click()
    expect(page.get_by_text("To be cooked: it is not judged as raw.")).to_be_visible()
    expect(dry).to_have_count(0)


def test_signing_shows_who_and_why(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    batch = make_batch(page, server.url, "J-02")
    page.goto(f"{server.url}/bench/batch/{batch}/against")
    parasites = row(page, "parasites")
    parasites.get_by_role("button", name="Sign for it").click()
    expect(parasites).to_contain_text("Names are typed here, nobody checks them.")
    parasites.get_by_label("Why may it count as passed?").fill("certificate 12 lies in the folder")
    parasites.get_by_role("button", name="Sign", exact=True).click()
    expect(parasites).to_contain_text(re.compile("signed for it on .+: certificate 12 lies in the folder"))
    expect(parasites).to_contain_text("signed for")


def test_two_mixes_of_one_batch_are_made_on_the_bench_and_their_file_is_read_back(
    page: Page, serve, clock: Clock, tmp_path
) -> None:
    server = serve()
    open_workshop(page, server.url)
    batch = make_batch(page, server.url, "J-01")
    begun = {"product": "Juniper salame", "sheet": {**sheet_body(), "salt_percent": 1.2}, "by": "Ida"}
    weigh = post(page, f"{server.url}/api/weigh-outs", begun).json()
    for thing in weigh["things"]:
        body = {"key": thing["key"], "grams": round(thing["target_g"], 2), "lot": "", "by": "Ida"}
        post(page, f"{server.url}/api/weigh-outs/{weigh['id']}/entries", body)
    page.goto(f"{server.url}/bench/weigh/{weigh['id']}")
    page.get_by_label("What becomes of it?").select_option(label="Another mix of J-01 · Juniper salame")
    page.get_by_label("What this mix is called").fill("fennel")
    page.get_by_role("button", name="Add the mix").click()
    page.wait_for_url(f"**/bench/batch/{batch}")
    page.get_by_label("Of which mix?").select_option(label="fennel")
    page.get_by_label("weight, g").first.fill("905")
    page.get_by_role("button", name="Tag it").click()
    expect(page.get_by_text("fennel ·", exact=False).first).to_be_visible()
    page.goto(f"{server.url}/bench/batch/{batch}/against")
    expect(row(page, "salt")).to_contain_text("Only 1.2 % of salt")
    row(page, "cold at mixing").get_by_role("button", name=re.compile("Enter where the meat lay")).click()
    page.get_by_label("Temperature of the meat, °C").fill("3,5")
    page.get_by_role("button", name="Enter it", exact=True).click()
    expect(row(page, "cold at mixing")).to_contain_text("passed")
    file = tmp_path / "J-01.json"
    address = page.get_by_role("link", name="Batch file").get_attribute("href")
    file.write_bytes(page.request.get(f"{server.url}{address}").body())
    page.goto(f"{server.url}/book")
    page.get_by_role("link", name="Look at a batch file").click()
    page.locator("input[type=file]").set_input_files(file)
    expect(page.get_by_text("Not ready, by what the file says.")).to_be_visible()
    expect(row(page, "salt")).to_contain_text("failed")
