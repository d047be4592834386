"""A real server on a port of its own."""

import asyncio
import socket
import threading
from collections.abc import Callable
from pathlib import Path

import uvicorn

from built import application, give_back
from zymon.settings import Settings

TABLET_HOST = "cellar.test"  # a name by which a tablet reaches the workshop's machine


class _Uvicorn(uvicorn.Server):
    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        await super().shutdown(sockets)
        # an answer that outlived its time would leave its connection open, to be found by a later test
        for connection in list(self.server_state.connections):
            connection.transport.abort()
        await asyncio.sleep(0)


class Server:
    """A server in a thread, on a database that outlives it."""

    def __init__(self, db: Path, clock: Callable[[], float], port: int = 0) -> None:
        self.socket = socket.create_server(("127.0.0.1", port))
        self.port = self.socket.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        settings = Settings(db=db, address=f"http://{TABLET_HOST}:{self.port}")
        self.app = application(settings, clock, behind_the_scenes=True)
        self.server = _Uvicorn(
            uvicorn.Config(self.app, log_level="error", access_log=False, timeout_graceful_shutdown=3)
        )
        self.thread = threading.Thread(target=self.server.run, kwargs={"sockets": [self.socket]})
        self.thread.start()

    def stop(self) -> None:
        self.app.state.context.followers.close()
        self.server.should_exit = True
        self.thread.join()
        give_back(self.app)
