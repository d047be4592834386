"""Readings by MQTT against a real broker: identity and secret, retained, refused, and back after an outage."""

import asyncio
import json
import socket
import time
from collections.abc import Callable, Iterator
from datetime import UTC, datetime

import aiomqtt
import pytest
from fastapi.testclient import TestClient

from brokers import apart, running_broker
from zymon.links.mqtt import LARGEST, Broker, Link
from zymon.standins.broker import LocalBroker

TIMES_OUT_S = 15


def until(true: Callable[[], object]) -> None:
    ends = time.monotonic() + TIMES_OUT_S
    while not true():
        assert time.monotonic() < ends, "it did not come"
        time.sleep(0.02)


@pytest.fixture
def broker() -> Iterator[LocalBroker]:
    with running_broker() as made:
        yield made


@pytest.fixture
def link(client: TestClient, broker: LocalBroker) -> Iterator[Link]:
    context = client.app.state.context  # type: ignore[attr-defined]
    made = Link(Broker("127.0.0.1", broker.port), context._take)
    made.begin()
    until(lambda: made.state == "linked")
    yield made
    made.end()
    assert made.state == "ended"


def device(client: TestClient, kind: str, place: int | None = None) -> tuple[int, str]:
    body = {"name": f"My {kind}", "kind": kind, "place_id": place, "by": "Ida"}
    made = client.post("/api/devices", json=body).json()
    return made["device"]["id"], made["token"]


def send(port: int, topic: str, payload: dict | bytes, retain: bool = False) -> dict | None:
    """Leave a message at the broker; the receipt that comes back, or None where none does."""
    data = payload if isinstance(payload, bytes) else json.dumps(payload).encode()

    async def go() -> dict | None:
        async with aiomqtt.Client("127.0.0.1", port) as one:
            await one.subscribe(topic.replace("readings", "receipt"))
            await one.publish(topic, data, qos=1, retain=retain)
            try:
                async with asyncio.timeout(5):
                    async for message in one.messages:
                        if str(message.topic).endswith("receipt"):
                            return json.loads(message.payload)
            except TimeoutError:
                return None
        return None

    return apart(go())


def reading(at_s: float, **values: float) -> dict:
    return {"at": datetime.fromtimestamp(at_s, UTC).isoformat(), **values}


def test_a_sensor_leaves_its_readings_and_is_left_a_receipt(
    client: TestClient, chamber: dict, clock, broker: LocalBroker, link: Link
) -> None:
    number, secret = device(client, "climate", chamber["place"]["id"])
    message = {"secret": secret, "readings": [reading(clock.now - 60, temperature_c=13.1, rh_percent=78.0)]}
    topic = f"zymon/devices/{number}/readings"
    first = send(broker.port, topic, message, retain=True)
    assert (first["taken"], first["repeated"]) == (1, 0)
    assert send(broker.port, topic, message)["repeated"] == 1
    assert client.get("/api/devices").json()[0]["taken"] == 1
    assert (link.messages, link.refused) == (2, 0)


def test_what_a_broker_kept_is_taken_when_zymon_comes_back(
    client: TestClient, chamber: dict, clock, broker: LocalBroker
) -> None:
    number, secret = device(client, "thermometer", chamber["place"]["id"])

    async def leave() -> None:
        async with aiomqtt.Client("127.0.0.1", broker.port) as one:
            message = {"secret": secret, "readings": [reading(clock.now - 60, temperature_c=13.1)]}
            await one.publish(f"zymon/devices/{number}/readings", json.dumps(message), qos=1, retain=True)

    apart(leave())
    late = Link(Broker("127.0.0.1", broker.port), client.app.state.context._take)  # type: ignore[attr-defined]
    late.begin()
    try:
        until(lambda: client.get("/api/devices").json()[0]["taken"] == 1)
    finally:
        late.end()


@pytest.mark.parametrize(
    ("topic", "payload", "said"),
    [
        ("zymon/devices/{id}/readings", b"\xff{", "message: invalid JSON"),
        ("zymon/devices/{id}/readings", {"readings": [{"at": "2026-09-01T10:00:00Z"}]}, "secret"),
        ("zymon/devices/{id}/readings", {"secret": "wrong", "readings": [{"at": "2026-09-01T10:00:00Z"}]}, "token"),
        ("zymon/devices/{other}/readings", "as {id}", "token"),
        ("zymon/devices/{id}/readings", {"secret": "x", "readings": [{"at": "2026-09-01T10:00:00"}]}, "timezone"),
        ("zymon/devices/{id}/readings", b"x" * (LARGEST + 1), "at most"),
    ],
    ids=["no JSON", "no secret", "wrong secret", "another's secret", "no zone", "too large"],
)
def test_what_cannot_be_taken_is_refused_in_words_and_the_next_is_taken(
    client: TestClient, chamber: dict, clock, broker: LocalBroker, link: Link, topic: str, payload, said: str
) -> None:
    number, secret = device(client, "climate", chamber["place"]["id"])
    other, _ = device(client, "scale")
    good = {"secret": secret, "readings": [reading(clock.now - 60, temperature_c=13.1, rh_percent=78.0)]}
    answer = send(broker.port, topic.format(id=number, other=other), good if payload == "as {id}" else payload)
    assert said in answer["refused"]
    assert link.refused == 1
    assert send(broker.port, f"zymon/devices/{number}/readings", good)["taken"] == 1


def test_a_fault_of_ours_ends_no_link(
    client: TestClient, chamber: dict, clock, broker: LocalBroker, link: Link, monkeypatch: pytest.MonkeyPatch
) -> None:
    number, secret = device(client, "climate", chamber["place"]["id"])
    topic = f"zymon/devices/{number}/readings"
    good = {"secret": secret, "readings": [reading(clock.now - 60, temperature_c=13.1, rh_percent=78.0)]}
    take = link.take

    def fails(*_: object) -> None:
        raise RuntimeError("a fault")

    link.take = fails  # type: ignore[assignment]
    assert send(broker.port, topic, good)["refused"] == "it could not be kept: send it again"
    link.take = take
    assert send(broker.port, topic, good)["taken"] == 1


def test_what_is_refused_does_not_say_the_secret_again(broker: LocalBroker, link: Link) -> None:
    answer = send(broker.port, "zymon/devices/1/readings", {"secret": 471_100, "readings": [{"at": "x"}]})
    assert "471100" not in answer["refused"]


def test_a_broker_that_went_away_is_reached_again(client: TestClient, broker: LocalBroker, link: Link) -> None:
    broker.end()
    until(lambda: link.state == "away")
    assert link.trouble
    with running_broker(broker.port):
        until(lambda: link.state == "linked")
        assert not link.trouble


def test_the_shipped_broker_says_when_its_port_is_taken(broker: LocalBroker) -> None:
    with pytest.raises(OSError, match="no broker"):
        LocalBroker(broker.port).begin()


def test_the_shipped_broker_listens_on_this_machine_alone(broker: LocalBroker) -> None:
    """Bound to 127.0.0.1, its port is free on every other address of this machine: another can have it there."""
    with socket.socket() as elsewhere:
        elsewhere.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        elsewhere.bind(("127.0.0.2", broker.port))
    with socket.socket() as here, pytest.raises(OSError, match="in use"):
        here.bind(("127.0.0.1", broker.port))
