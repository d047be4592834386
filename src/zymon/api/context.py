"""What every route needs: the database, the forecasts, the settings and the clock."""

from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Annotated

from fastapi import Depends, Path, Request

from zymon.settings import Settings
from zymon.store.board import Board
from zymon.store.database import Database


@dataclass
class Context:
    """One running server."""

    db: Database
    settings: Settings
    clock: Callable[[], float]
    board: Board = field(default_factory=Board)
    # the last previewed file as it was read, by its token: confirmed at once, a million rows need not be read again;
    # after a restart or another preview the staged file is read anew
    latest_preview: tuple[str, object] | None = None
    device_calls: dict[int, deque[float]] = field(default_factory=dict)  # when each device called lately
    # runs a simulated workshop ahead by hours and gives the number of readings that came in; None where nothing is
    # simulated
    run_ahead: Callable[[float], int] | None = None

    @property
    def now_s(self) -> int:
        """The present, in whole seconds since 1970."""
        return int(self.clock())


def _context(request: Request) -> Context:
    found = request.app.state.context
    assert isinstance(found, Context)
    return found


Ctx = Annotated[Context, Depends(_context)]
Id = Annotated[int, Path(ge=1, le=2**31 - 1)]  # larger ones overflow SQLite's integers


def moment(seconds: float) -> datetime:
    """UTC moment of seconds since 1970."""
    return datetime.fromtimestamp(round(seconds), UTC)
