"""A scale that sends by MQTT and one on a cable: what they show fills the field, held until it is steady."""

import asyncio
import json
import time

import aiomqtt
from playwright.sync_api import Page, expect

from brokers import apart, running_broker
from pages import open_workshop, post, wait_until
from support import Clock, iso, piece_body
from zymon.links.mqtt import Broker, Link

CABLE = """
    const lines = [];
    window.__scale = (line) => lines.push(line);
    const port = {
        open: async () => {}, close: async () => {},
        readable: new ReadableStream({
            async pull(into) {
                while (!lines.length) await new Promise((done) => setTimeout(done, 20));
                into.enqueue(new TextEncoder().encode(lines.shift() + '\\r\\n'));
            },
        }),
    };
    Object.defineProperty(navigator, 'serial', { configurable: true, value: { requestPort: async () => port } });
"""


def hung(page: Page, url: str, clock: Clock) -> tuple[int, int]:
    place = post(page, f"{url}/api/places", {"name": "Cellar", "hooks_per_rod": [4], "by": "Ida"}).json()["id"]
    room = page.request.get(f"{url}/api/places/{place}/room").json()
    body = piece_body(room, at=iso(clock.now - 5 * 86_400))
    return place, post(page, f"{url}/api/pieces", body).json()["card"]["id"]


def test_a_scale_by_mqtt_fills_the_field_once_it_is_steady(page: Page, serve, clock: Clock) -> None:
    server = serve()
    open_workshop(page, server.url)
    place, piece = hung(page, server.url, clock)
    made = post(page, f"{server.url}/api/devices", {"name": "Bench scale", "kind": "scale", "by": "Ida"}).json()
    number, secret = made["device"]["id"], made["token"]
    with running_broker() as broker:
        link = Link(Broker("127.0.0.1", broker.port), server.app.state.context._take)
        link.begin()

        def show(*readings: tuple[float, float]) -> None:
            async def go() -> None:
                async with aiomqtt.Client("127.0.0.1", broker.port) as scale:
                    for after_s, gross_g in readings:
                        clock.now += after_s
                        told = {"secret": secret, "readings": [{"at": iso(clock.now), "gross_g": gross_g}]}
                        await scale.publish(f"zymon/devices/{number}/readings", json.dumps(told), qos=1)
                        await asyncio.sleep(0.1)

            apart(go())

        try:
            ends = time.monotonic() + 10
            while link.state != "linked" and time.monotonic() < ends:
                time.sleep(0.05)
            page.goto(f"{server.url}/hang/{place}?piece={piece}")
            expect(page.get_by_label("Weight on the scale")).to_be_visible()
            show((0, 640), (1, 795))
            hold = page.get_by_role("button", name="Hold until steady")
            expect(page.get_by_text("Bench scale:")).to_contain_text("795 g")
            hold.click()
            expect(page.get_by_role("button", name="Waiting until it is steady")).to_be_visible()
            expect(page.get_by_label("Weight on the scale")).to_have_value("")
            show((1, 795), (1, 795))
            expect(page.get_by_label("Weight on the scale")).to_have_value("795")
            page.keyboard.press("Enter")
            expect(page.get_by_label("Weight on the scale")).to_have_value("")  # it was taken
            stored = f"async () => (await (await fetch('/api/pieces/{piece}')).json()).weighings[0]?.gross_g === 795"
            wait_until(page, stored)
        finally:
            link.end()


def test_a_scale_on_a_cable_fills_the_round_and_its_unplugging_is_said(page: Page, serve, clock: Clock) -> None:
    server = serve()
    page.add_init_script(CABLE)
    open_workshop(page, server.url)
    place, _ = hung(page, server.url, clock)
    page.goto(f"{server.url}/hang/{place}/round")
    page.get_by_role("button", name="all (1)").click()
    page.get_by_role("button", name="Connect a scale on a cable").click()
    expect(page.get_by_text("connected, nothing shown yet")).to_be_visible()
    page.evaluate("window.__scale('ST,+ 0.795 kg')")
    expect(page.get_by_text("Scale on the cable:")).to_contain_text("795 g")
    page.get_by_role("button", name="Hold until steady").click()
    page.evaluate("window.__scale('ST,+ 0.795 kg')")
    page.wait_for_timeout(2100)
    page.evaluate("window.__scale('ST,+ 0.795 kg')")
    expect(page.get_by_label("Weight on the scale")).to_have_value("795")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="The round is done")).to_be_visible()
