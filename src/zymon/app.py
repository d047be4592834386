"""The application: API, front end, log; and how it is run."""

import gc
import logging
import socket
import time
from collections.abc import Callable
from pathlib import Path

import uvicorn
from fastapi import FastAPI, Response
from fastapi.responses import FileResponse, JSONResponse
from fastapi.staticfiles import StaticFiles
from starlette.middleware.gzip import GZipMiddleware
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from . import __version__
from .api import book, devices, errors, files, imports, line
from .api.bench import batches, recipes, sheet, weigh_out
from .api.context import Context
from .api.cut import routes as cut
from .api.hang import hook
from .api.hang import place as place_itself
from .api.hang import routes as hang
from .api.keep import routes as keep
from .api.ledger import routes as ledger
from .api.rest import routes as rest
from .api.salt import routes as salt
from .api.today import routes as today
from .api.warm import routes as warm
from .settings import Settings, web_folder
from .store.database import Database

log = logging.getLogger("zymon")

GARBAGE_AFTER = 20_000, 20, 50  # objects of a call are few and gone with it; arrays are no concern of the collector


class CallLog:
    """A line of the log for every call of the interface; one that nobody waits for any more is just not answered."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a call on and note how it went."""
        if scope["type"] != "http" or not scope["path"].startswith("/api"):
            await self.app(scope, receive, send)
            return
        began, status = time.perf_counter(), 0

        async def noted(message: Message) -> None:
            nonlocal status
            status = message.get("status", status)
            await send(message)

        await self.app(scope, receive, noted)
        took = (time.perf_counter() - began) * 1000
        log.info("%s %s %d %.0f ms", scope["method"], scope["path"], status, took)


def settle() -> None:
    """Leave what the program consists of out of the search for garbage, which would stop it for a third of a second.

    To be called once, by a process that serves for long, when its application is made.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(*GARBAGE_AFTER)


def make_app(settings: Settings, clock: Callable[[], float] = time.time, behind_the_scenes: bool = True) -> FastAPI:
    """The application on the settings' database; the database is opened and brought up to date at once.

    Parameters: behind_the_scenes, whether dates are made in a thread of their own or as part of each entry.
    """
    app = FastAPI(title="Zymon", version=__version__, responses=errors.ANSWERS, docs_url=None, redoc_url=None)
    app.state.context = Context(db=Database(settings.db), settings=settings, clock=clock)
    app.state.context.open(behind_the_scenes)
    app.add_middleware(GZipMiddleware, minimum_size=1024, compresslevel=5)
    errors.install(app)
    for station in (
        line, sheet, recipes, weigh_out, batches, ledger, salt, warm, hang, hook, place_itself, rest, cut, keep, today,
        book, devices, imports, files,
    ):  # fmt: skip
        app.include_router(station.router)

    app.add_middleware(CallLog)
    _serve_front_end(app, web_folder(settings))
    return app


def _serve_front_end(app: FastAPI, folder: Path) -> None:
    if not (folder / "index.html").exists():
        return
    app.mount("/assets", StaticFiles(directory=folder / "assets"))

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        """The page itself for every address that is not the API's."""
        if path.startswith("api/"):
            return JSONResponse(
                errors.Problem(code="not_found", detail="there is nothing at this address").model_dump(), 404
            )
        file = (folder / path).resolve()
        found = path and file.is_file() and file.is_relative_to(folder.resolve())
        # asked about each time, so that a new version is seen at once
        return FileResponse(file if found else folder / "index.html", headers={"Cache-Control": "no-cache"})


def free_port(host: str, wanted: int) -> socket.socket:
    """A listening socket on the wanted port, or on the next free one."""
    for port in [*range(wanted, min(wanted + 50, 65_536)), 0]:
        try:
            return socket.create_server((host, port))
        except OSError:
            continue
    raise OSError(f"no free port on {host}")


class Serving(uvicorn.Server):
    """A server that says good-bye to those who follow before it waits for what is under way."""

    def __init__(self, config: uvicorn.Config, context: Context) -> None:
        super().__init__(config)
        self.context = context

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        """Stop serving."""
        self.context.followers.close()
        await super().shutdown(sockets)


def run(settings: Settings, beside: Callable[[FastAPI, str], None] | None = None) -> None:
    """Serve until Ctrl-C; `beside` is given the application and its address before it serves."""
    logging.basicConfig(
        level=settings.log_level, format="%(asctime)s %(levelname)s %(message)s", datefmt="%Y-%m-%d %H:%M:%S"
    )
    logging.getLogger("alembic").setLevel(logging.WARNING)
    listening = free_port(settings.host, settings.port)
    app = make_app(settings)
    port = listening.getsockname()[1]
    address = f"{'https' if settings.certificate else 'http'}://{settings.host}:{port}"
    print(f"Zymon is at {address}/  (Ctrl-C stops it)", flush=True)
    if beside is not None:
        beside(app, address)
    settle()
    config = uvicorn.Config(
        app,
        log_level="warning",
        access_log=False,
        timeout_graceful_shutdown=3,
        ssl_certfile=settings.certificate,
        ssl_keyfile=settings.certificate_key,
    )
    server = Serving(config, app.state.context)
    try:
        server.run(sockets=[listening])
    except KeyboardInterrupt:
        log.info("stopped")
    finally:
        app.state.context.close()
