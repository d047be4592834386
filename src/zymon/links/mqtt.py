"""Readings by MQTT: a device leaves them under a topic of its own, with its secret, and a receipt is left for it.

    zymon/devices/ID/readings   {"secret": TOKEN, "readings": [{"at": "…Z", "temperature_c": 13.1, "rh_percent": 78}]}
    zymon/devices/ID/receipt    {"taken": 1, "repeated": 0, "late": 0, "impossible": 0, "problems": []}

The last message of a device may be retained: sent again when Zymon comes back, it counts as repeated.
"""

import asyncio
import contextlib
import logging
import ssl
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from pydantic import BaseModel, Field, ValidationError

from zymon.core.errors import ZymonError
from zymon.formats.hang_file import fault_words, place_of
from zymon.words import told
from zymon.work.devices import ReadingsIn, ReceiptOut

if TYPE_CHECKING:
    import aiomqtt

log = logging.getLogger("zymon.mqtt")

TOPIC = "zymon/devices/+/readings"
LARGEST = 500_000  # bytes of a message
WAITS_S = (1.0, 2.0, 5.0, 15.0, 30.0, 60.0)  # between attempts to reach the broker

State = Literal["reaching", "linked", "away", "ended"]


class Message(ReadingsIn):
    """What a device leaves at the broker."""

    secret: str = Field(max_length=200)


class Refused(BaseModel):
    """Why nothing of a message was taken."""

    refused: str


@dataclass(frozen=True)
class Broker:
    """Where a broker is, and how it is reached."""

    host: str
    port: int
    user: str | None = None
    password: str | None = None
    tls: bool = False


Take = Callable[[int, str, ReadingsIn], ReceiptOut]  # device, secret, readings; raises ZymonError


class Link:
    """Listens at a broker until it is ended, and reaches it again whenever it is cut off."""

    def __init__(self, broker: Broker, take: Take) -> None:
        self.broker, self.take = broker, take
        self.state: State = "reaching"
        self.since_s = time.time()
        self.trouble = ""
        self.messages = self.refused = 0
        self._loop: asyncio.AbstractEventLoop | None = None
        self._task: asyncio.Task[None] | None = None
        self._thread = threading.Thread(target=self._run, name="mqtt", daemon=True)

    def begin(self) -> None:
        """Begin to listen."""
        self._thread.start()

    def end(self) -> None:
        """Listen no more."""
        if self._loop is not None and self._task is not None and not self._loop.is_closed():
            self._loop.call_soon_threadsafe(self._task.cancel)
        if self._thread.is_alive():
            self._thread.join(timeout=5)
        self._is("ended")

    def _is(self, state: State, trouble: str = "") -> None:
        if state != self.state:
            self.state, self.since_s = state, time.time()
        self.trouble = trouble

    def _run(self) -> None:
        with contextlib.suppress(asyncio.CancelledError):
            asyncio.run(self._listen())

    async def _listen(self) -> None:
        import aiomqtt  # read where there is a broker

        self._loop, self._task = asyncio.get_running_loop(), asyncio.current_task()
        tries = 0
        while True:
            try:
                async with aiomqtt.Client(
                    self.broker.host,
                    self.broker.port,
                    username=self.broker.user,
                    password=self.broker.password,
                    tls_context=ssl.create_default_context() if self.broker.tls else None,
                ) as client:
                    await client.subscribe(TOPIC, qos=1)
                    self._is("linked")
                    tries = 0
                    async for message in client.messages:
                        await self._answer(client, message)
            except (aiomqtt.MqttError, OSError) as error:
                if self.state != "away":
                    log.warning("the broker at %s:%d is away: %s", self.broker.host, self.broker.port, error)
                self._is("away", str(error)[:200])
            await asyncio.sleep(WAITS_S[min(tries, len(WAITS_S) - 1)])
            tries += 1

    async def _answer(self, client: "aiomqtt.Client", message: "aiomqtt.Message") -> None:
        if not message.topic.matches(TOPIC):
            return  # left at the broker for somebody else
        self.messages += 1
        payload = message.payload if isinstance(message.payload, bytes) else str(message.payload).encode()
        device = str(message.topic).split("/")[2]
        receipt = await asyncio.to_thread(self._taken, device, payload)
        if isinstance(receipt, Refused):
            self.refused += 1
        if device.isdigit():
            await client.publish(f"zymon/devices/{device}/receipt", receipt.model_dump_json(), qos=1)

    def _taken(self, device: str, payload: bytes) -> ReceiptOut | Refused:
        """What became of a message; whatever is wrong with it, the next one is listened to."""
        try:
            if not device.isdigit() or len(device) > 9 or len(payload) > LARGEST:
                return Refused(refused="zymon/devices/ID/readings, at most 500 kB")
            body = Message.model_validate_json(payload)
            return self.take(int(device), body.secret, ReadingsIn(readings=body.readings))
        except ValidationError as error:
            # what was given is not said again: it may be the secret
            first = error.errors()[0]
            return Refused(
                refused=f"{place_of(first['loc'], 'message')}: {fault_words({**first, 'input': None})}"[:300]
            )
        except ZymonError as error:
            return Refused(refused=told(error))
        except Exception:  # a full disk or a fault of ours: the next message is listened to all the same
            log.exception("a message of device %s could not be kept", device)
            return Refused(refused="it could not be kept: send it again")
