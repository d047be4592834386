"""Workshops that many tests begin with: built by the interface once, and copied for every other test."""

import copy
import functools
import shutil
import sqlite3
import tempfile
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI

from support import Clock
from zymon.app import make_app, open_workshop
from zymon.settings import Settings


@dataclass
class Built:
    """A workshop as it was left by whoever built it: its file, the time, who was signed in, what came of it."""

    file: Path
    now: float
    cookies: Any
    came: Any


_KEPT: dict[tuple[str, str], Built] = {}
_FOLDER = tempfile.TemporaryDirectory()


def built_once(build: Callable[..., Any]) -> Any:
    """A fixture that is built once by each worker; it wants `client` and `clock`, or a `kitchen` that has both."""

    @pytest.fixture
    @functools.wraps(build)
    def fixture(**given: Any) -> Any:
        kitchen = given.get("kitchen")
        client, clock = (given["client"], given["clock"]) if kitchen is None else (kitchen.client, kitchen.clock)
        key = (build.__module__, build.__name__)
        if key not in _KEPT:
            came = build(**given)
            file = Path(_FOLDER.name) / f"{len(_KEPT)}.db"
            now = client.app.state.context.db.file
            with closing(sqlite3.connect(now)) as source, closing(sqlite3.connect(file)) as target:
                source.backup(target)
            _KEPT[key] = Built(file, clock.now, type(client.cookies)(client.cookies), copy.deepcopy(came))
            return came
        kept = _KEPT[key]
        put_in_place(client.app, kept.file, clock)
        clock.now = kept.now
        client.cookies.update(kept.cookies)
        return copy.deepcopy(kept.came)

    return fixture


def put_in_place(app: FastAPI, file: Path, clock: Clock) -> None:
    """Let the application go on with a copy of another workshop."""
    before = app.state.context
    before.close()
    for ending in ("-wal", "-shm"):
        Path(f"{before.settings.db}{ending}").unlink(missing_ok=True)
    shutil.copy(file, before.settings.db)
    app.state.context = open_workshop(before.settings, clock, behind_the_scenes=False)


#: Applications that nobody uses: put together as often as several are used at once, since that takes most of a second.
_FREE: list[FastAPI] = []


def application(settings: Settings, clock: Callable[[], float], behind_the_scenes: bool = False) -> FastAPI:
    """An application on a workshop of its own, one that another test is done with where there is one."""
    if _FREE:
        app = _FREE.pop()
        app.middleware_stack = None  # what stands before the routes begins anew
        app.state.context = open_workshop(settings, clock, behind_the_scenes)
        return app
    return make_app(settings, clock, behind_the_scenes)


def give_back(app: FastAPI) -> None:
    """Close the workshop of an application; another test may use it."""
    app.state.context.close()
    _FREE.append(app)
