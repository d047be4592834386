"""The application: API, front end, log; and how it is run."""

import gc
import logging
import socket
import time
from collections.abc import Callable
from pathlib import Path
from urllib.parse import quote

import uvicorn
from fastapi import FastAPI, Response
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from starlette.middleware.gzip import GZipMiddleware
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from . import __version__
from .api import book, devices, errors, files, imports, line
from .api.alarms import routes as alarms
from .api.bench import batches, recipes, sheet, weigh_out
from .api.context import Context
from .api.cut import routes as cut
from .api.door import Doorkeeper
from .api.guard import LOOPBACK, Guard
from .api.hang import hook
from .api.hang import place as place_itself
from .api.hang import routes as hang
from .api.house import archive, copies, disk, people
from .api.keep import routes as keep
from .api.ledger import routes as ledger
from .api.planner import routes as planner
from .api.rest import routes as rest
from .api.rights import Allowed
from .api.salt import routes as salt
from .api.today import routes as today
from .api.turnstile import Turnstile
from .api.warm import routes as warm
from .core.errors import ZymonError
from .settings import Settings, web_folder
from .store.copies import serving
from .store.database import Database
from .work.house.people import has_owner
from .work.imports import sweep

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
        # as it came over the wire: whatever a path holds, it stays one line
        path = (scope.get("raw_path") or quote(scope["path"]).encode()).decode("ascii", "backslashreplace")
        log.info("%s %s %d %.0f ms", scope["method"], path[:300], status, took)


def settle() -> None:
    """Leave what the program consists of out of the search for garbage, which would stop it for a third of a second.

    To be called once, by a process that serves for long, when its application is made.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(*GARBAGE_AFTER)


def open_workshop(settings: Settings, clock: Callable[[], float], behind_the_scenes: bool) -> Context:
    """The workshop of the settings' database, which is brought up to date, with its dates being made."""
    shop = Context(db=Database(settings.db, settings.backup_folder), settings=settings, clock=clock)
    shop.open(behind_the_scenes)
    return shop


def make_app(settings: Settings, clock: Callable[[], float] = time.time, behind_the_scenes: bool = True) -> FastAPI:
    """The application on the settings' database; the database is opened and brought up to date at once.

    Parameters: behind_the_scenes, whether dates are made in a thread of their own or as part of each entry.
    """
    app = FastAPI(title="Zymon", version=__version__, responses=errors.ANSWERS, docs_url=None, redoc_url=None)
    app.state.context = open_workshop(settings, clock, behind_the_scenes)
    app.add_middleware(GZipMiddleware, minimum_size=1024, compresslevel=5)
    errors.install(app)
    for station in (
        line, sheet, recipes, weigh_out, batches, ledger, salt, warm, hang, hook, place_itself, rest, cut, keep, today,
        planner, book, devices, alarms, imports, files, people, copies, disk, archive,
    ):  # fmt: skip
        app.include_router(station.router, dependencies=[Allowed])

    app.add_middleware(Turnstile)
    app.add_middleware(Doorkeeper)
    app.add_middleware(Guard)
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
            return errors.problem(ZymonError("refused.nothing_here"), 404, "not_found")
        file = (folder / path).resolve()
        found = path and file.is_file() and file.is_relative_to(folder.resolve())
        # asked about each time, so that a new version is seen at once
        return FileResponse(file if found else folder / "index.html", headers={"Cache-Control": "no-cache"})


class CannotServeError(ZymonError, RuntimeError):
    """The server does not start; says why and what is to be done."""


def next_free(settings: Settings) -> socket.socket:
    """A listening socket on the port that was set or on the next free one: for a workshop to try."""
    return free_port(settings.host, settings.port)


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


def listen(settings: Settings) -> socket.socket:
    """A listening socket on the port that was set. Raises CannotServeError when something else has it."""
    try:
        return socket.create_server((settings.host, settings.port))
    except OSError as error:
        raise CannotServeError("refused.port_busy", host=settings.host, port=settings.port) from error


def check_open(settings: Settings, ctx: Context) -> None:
    """Refuse to open a workshop to the network that anybody could walk into, or whose tags would lead nowhere.

    Raises CannotServeError with what is to be done.
    """
    if settings.host in LOOPBACK:
        return
    with ctx.db.reading() as session:
        if not has_owner(session):
            raise CannotServeError("refused.no_owner", host=settings.host, db=str(settings.db))
    if settings.address is None and ctx.said_address is None:
        raise CannotServeError("refused.no_address", host=settings.host, port=settings.port)


def _since_start() -> float:
    """Seconds that go by whatever the clock is set to, also while the machine sleeps where it can say so."""
    asleep_too: int | None = getattr(time, "CLOCK_BOOTTIME", None)
    return time.monotonic() if asleep_too is None else time.clock_gettime(asleep_too)


def run(
    settings: Settings,
    beside: Callable[[FastAPI, str], None] | None = None,
    listening: Callable[[Settings], socket.socket] = listen,
) -> None:
    """Serve until Ctrl-C; `beside` is given the application and its address before it serves.

    Raises CannotServeError, CopyError before anything is served.
    """
    logging.basicConfig(
        level=settings.log_level, format="%(asctime)s %(levelname)s %(message)s", datefmt="%Y-%m-%d %H:%M:%S"
    )
    logging.getLogger("alembic").setLevel(logging.WARNING)
    with serving(settings.db), listening(settings) as listener:
        app = make_app(settings)
        ctx: Context = app.state.context
        try:
            check_open(settings, ctx)
            name = settings.host if settings.host != "0.0.0.0" else "127.0.0.1"
            scheme = "https" if settings.certificate else "http"
            ctx.own_address = f"{scheme}://{name}:{listener.getsockname()[1]}"
            print(f"Zymon is at {ctx.own_address}/  (Ctrl-C stops it)", flush=True)
            if beside is not None:
                beside(app, ctx.own_address)
            sweep(settings.staging)
            ctx.keep_copies()
            ctx.begin_links()
            ctx.begin_alarms()
            ctx.dates.make_apart()
            if ctx.standins is None:  # a simulated workshop is run ahead
                ctx.watch_clock(_since_start)
            settle()
            config = uvicorn.Config(
                app,
                log_level="warning",
                access_log=False,
                timeout_graceful_shutdown=3,
                ssl_certfile=settings.certificate,
                ssl_keyfile=settings.certificate_key,
            )
            Serving(config, ctx).run(sockets=[listener])
        except KeyboardInterrupt:
            log.info("stopped")
        finally:
            ctx.close()
