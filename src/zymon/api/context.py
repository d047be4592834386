"""What every route needs: the workshop with its records, dates and clock, and what this server keeps besides."""

from collections import deque
from dataclasses import dataclass, field
from typing import Annotated, Protocol
from urllib.parse import urlsplit

from fastapi import Depends, Path, Request

from zymon.settings import Settings
from zymon.work.house.copies import Nightly
from zymon.work.house.door import Door
from zymon.work.premises import Premises


class Standins(Protocol):
    """A simulated workshop's chambers and instruments; all of them send by the open interface."""

    def forward(self, hours: float) -> int:
        """Run the workshop ahead; how many readings came in."""

    def weigh(self, piece_id: int) -> None:
        """Put a piece on the simulated scale, which sends its weight."""

    def dip(self, batch_id: int) -> None:
        """Dip the simulated meter into a batch's pinch; it sends the pH."""


@dataclass(kw_only=True)
class Context(Premises):
    """One running server."""

    settings: Settings
    # the last previewed file as it was read, by its token: confirmed at once, a million rows need not be read again;
    # after a restart or another preview the staged file is read anew
    latest_preview: tuple[str, object] | None = None
    device_calls: dict[int, deque[float]] = field(default_factory=dict)  # when each device called lately
    standins: Standins | None = None  # where the workshop is simulated
    own_address: str = "http://127.0.0.1"  # by which this machine itself reaches the workshop
    door: Door = field(init=False)

    def __post_init__(self) -> None:
        self.door = Door(self.db)

    def keep_copies(self) -> None:
        """Take a copy every night from now on."""
        nightly = Nightly(self, self.settings.backup_folder)
        nightly.begin()
        self.copies = nightly

    @property
    def address(self) -> str:
        """The address that tags, calendar and links carry: never one that a caller chose."""
        return (self.settings.address or self.said_address or self.own_address).rstrip("/")

    @property
    def hosts(self) -> frozenset[str]:
        """The names, besides those of this machine itself, by which the workshop may be asked for."""
        named = (self.settings.address, self.said_address)
        return frozenset(name for one in named if one and (name := urlsplit(one).hostname))


def _context(request: Request) -> Context:
    found = request.app.state.context
    assert isinstance(found, Context)
    return found


Ctx = Annotated[Context, Depends(_context)]
Id = Annotated[int, Path(ge=1, le=2**31 - 1)]  # larger ones overflow SQLite's integers
