"""A broker for tests and for the demo: on this machine alone, with nothing kept when it ends; not for a workshop."""

import asyncio
import logging
import threading

from amqtt.broker import Broker

_SETTINGS = {"amqtt.plugins.authentication.AnonymousAuthPlugin": {"allow_anonymous": True}}


class LocalBroker:
    """A broker on loopback, in a thread of its own. It keeps the last retained message of each topic while it runs."""

    def __init__(self, port: int) -> None:
        self.port = port
        self._loop = asyncio.new_event_loop()
        self._up = threading.Event()
        self._thread = threading.Thread(target=self._run, name="broker", daemon=True)
        self._failed: BaseException | None = None

    def begin(self) -> None:
        """Begin; back when it listens. Raises OSError where the port is taken."""
        logging.getLogger("amqtt").setLevel(logging.ERROR)
        logging.getLogger("transitions").setLevel(logging.ERROR)
        self._thread.start()
        self._up.wait(timeout=20)
        if self._failed is not None:
            raise OSError(f"no broker on port {self.port}") from self._failed

    def end(self) -> None:
        """End; its port is free then."""
        if self._loop.is_running():
            self._loop.call_soon_threadsafe(self._done.set)
            self._thread.join(timeout=10)

    def _run(self) -> None:
        asyncio.set_event_loop(self._loop)
        self._done = asyncio.Event()
        try:
            self._loop.run_until_complete(self._serve())
        except BaseException as error:
            self._failed = error
        finally:
            self._up.set()
            self._loop.close()

    async def _serve(self) -> None:
        listener = {"type": "tcp", "bind": f"127.0.0.1:{self.port}"}
        broker = Broker({"listeners": {"default": listener}, "plugins": _SETTINGS}, loop=self._loop)
        await broker.start()
        self._up.set()
        await self._done.wait()
        await broker.shutdown()
        rest = asyncio.all_tasks() - {asyncio.current_task()}
        for task in rest:  # connections that were cut while they were served
            task.cancel()
        await asyncio.gather(*rest, return_exceptions=True)
        await asyncio.sleep(0.05)  # so that their sockets are closed
