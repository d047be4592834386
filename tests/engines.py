"""Engines that several workshops use in turn: what one put together for its statements is as good for the next.

Most tests open a workshop of their own, and putting the same statements together for each of them took a twentieth of
the whole run. What a process of its own opens, as by the command line, has an engine of its own as ever.
"""

import sqlite3
from typing import Any

from sqlalchemy import Engine, create_engine, make_url

from zymon.store import database

_IDLE: list[Engine] = []


def _engine_on(url: str, connect_args: dict[str, Any]) -> Engine:
    """An engine on a file: one that nobody uses, or a new one. Both look up where they are when they connect."""
    if _IDLE:
        engine = _IDLE.pop()
        engine.url = make_url(url)
        return engine

    def connect() -> sqlite3.Connection:
        return sqlite3.connect(str(engine.url.database), **connect_args)

    engine = create_engine(url, creator=connect)
    return engine


def share_engines() -> None:
    """From now on, in this process."""
    close = database.Database.close

    def give_back(self: database.Database) -> None:
        close(self)
        if self.engine not in _IDLE:
            _IDLE.append(self.engine)

    database.create_engine = _engine_on  # type: ignore[assignment]
    database.Database.close = give_back  # type: ignore[method-assign]
