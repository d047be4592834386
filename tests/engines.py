"""What one workshop put together for its statements serves the next: most tests open one of their own.

Putting the same statements together for each of them took a twentieth of the whole run. Each has an engine, a pool and
a file of its own as ever; only the dialect, by which they are kept, and what was compiled are shared in this process.
"""

from typing import Any

from sqlalchemy import Engine, create_engine

from zymon.store import database

_FIRST: list[Engine] = []


def _engine_on(url: str, **how: Any) -> Engine:
    engine = create_engine(url, **how)
    if _FIRST:
        engine.dialect = _FIRST[0].dialect
        engine._compiled_cache = _FIRST[0]._compiled_cache
    else:
        _FIRST.append(engine)
    return engine


def share_what_is_compiled() -> None:
    """From now on, in this process."""
    database.create_engine = _engine_on  # type: ignore[assignment]
