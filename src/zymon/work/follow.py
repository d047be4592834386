"""Who follows what happens: each is told of dates being made and made, in the order in which it happens."""

import asyncio
import threading
from dataclasses import dataclass, field
from typing import Literal

MOST_WAITING = 200  # of what one follower has not fetched yet; then the oldest is let go

What = Literal["making", "made", "shown", "alarm"]


@dataclass(frozen=True)
class Happening:
    """The dates of a place are being made, or are made; a carried device shows something; an alarm began or ended.

    `number` is of the place, of the device, of the alarm.
    """

    what: What
    number: int


@dataclass(eq=False)
class Follower:
    """Somebody who follows, from the loop that serves them."""

    loop: asyncio.AbstractEventLoop
    queue: "asyncio.Queue[Happening | None]" = field(default_factory=lambda: asyncio.Queue(MOST_WAITING))

    def take(self, happening: Happening | None) -> None:
        """Put a happening where it is fetched from; None says that there is nothing more to come."""
        if self.queue.full():
            self.queue.get_nowait()
        self.queue.put_nowait(happening)


class Followers:
    """The followers of one workshop; told from any thread, nobody is waited for."""

    def __init__(self) -> None:
        self._all: set[Follower] = set()
        self._lock = threading.Lock()
        self.closed = False

    def join(self) -> Follower:
        """Begin to follow, from within the loop that serves."""
        mine = Follower(asyncio.get_running_loop())
        with self._lock:
            self._all.add(mine)
        return mine

    def leave(self, mine: Follower) -> None:
        """Follow no more."""
        with self._lock:
            self._all.discard(mine)

    def tell(self, happening: Happening | None) -> None:
        """Tell everybody."""
        with self._lock:
            for one in self._all:
                if not one.loop.is_closed():
                    one.loop.call_soon_threadsafe(one.take, happening)

    def close(self) -> None:
        """Say good-bye to everybody: the workshop is shut."""
        self.closed = True
        self.tell(None)
