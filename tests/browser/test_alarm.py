"""An alarm from outage to acknowledgement on every screen: a band set, the place too warm, somebody takes care."""

from playwright.sync_api import Page, expect

from pages import open_workshop, post
from support import Clock, iso
from zymon.standins.sinks import call_sink
from zymon.work.alarms.watch import Watch

BY = {"by": "Ida"}


def test_a_place_too_warm_is_told_and_somebody_takes_care(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    set_point = {"temperature_c": 13, "rh_percent": 78}
    body = {"name": "Cellar", "hooks_per_rod": [4], "setpoint": set_point, **BY}
    place = post(page, f"{server.url}/api/places", body).json()["id"]
    with call_sink() as called:
        page.goto(f"{server.url}/house/alarms")
        expect(page.get_by_text("Nothing was wrong so far.")).to_be_visible()
        page.get_by_role("button", name="Change: Cellar").click()
        form = page.get_by_role("form", name="Cellar", exact=True)
        expect(form.get_by_label("to, °C")).to_have_value("16")  # offered from the set point, taken by nobody yet
        form.get_by_label("to, °C").fill("15,5")
        form.get_by_label("for, min").fill("10")
        form.get_by_role("button", name="Watch it so").click()
        expect(page.get_by_text("10–15.5 °C, 68–88 %")).to_be_visible()
        add = page.get_by_role("form", name="Tell them from now on")
        add.get_by_label("Name", exact=True).fill("Night watch")
        add.get_by_role("textbox", name="Address").fill(called.url)
        add.get_by_label("quiet from").fill("22:00")
        add.get_by_label("to", exact=True).fill("06:00")
        add.get_by_role("button", name="Tell them from now on").click()
        expect(page.get_by_text("shown this once")).to_be_visible()
        page.get_by_role("button", name="Test: Night watch").click()
        expect(page.get_by_text("The test went to Night watch.")).to_be_visible()
        assert called.bodies()[0]["test"]

        for minutes in (15, 10, 5, 0):
            reading = {"at": iso(clock.now - 60 * minutes), "temperature_c": 19.0, "rh_percent": 78, **BY}
            post(page, f"{server.url}/api/places/{place}/readings", reading)
        context = server.app.state.context
        assert Watch(context, context.senders, lambda: server.url).look() == 1
        # told by the server: no page asked for it
        strip = page.get_by_role("alert").filter(has_text="Too warm in Cellar: 19 °C")
        expect(strip).to_be_visible()
        expect(page.get_by_text("Night watch was told")).to_be_visible()
        page.goto(f"{server.url}/today")
        expect(strip).to_be_visible()
        strip.get_by_role("button", name="I take care").click()
        expect(page.get_by_role("status").filter(has_text="Ida takes care")).to_be_visible()
        page.get_by_role("link", name="Too warm in Cellar").click()
        expect(page.get_by_role("heading", name="Cellar")).to_be_visible()
        clock.now += 600
        cool = {"at": iso(clock.now), "temperature_c": 13.0, "rh_percent": 78, **BY}
        post(page, f"{server.url}/api/places/{place}/readings", cool)
        assert Watch(context, context.senders, lambda: server.url).look() == 0
        expect(page.get_by_text("Ida takes care")).not_to_be_visible()
        assert len(called.calls) == 2
