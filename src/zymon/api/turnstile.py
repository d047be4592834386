"""A few calls at work at once, the others in the order in which they came.

Twenty calls worked on at once by one interpreter hinder each other: each is done when all are, and the longest last.
"""

import asyncio

from starlette.types import ASGIApp, Message, Receive, Scope, Send

AT_ONCE = 4
PATIENCE_S = 1.0  # whoever takes longer, an archive or a great file, lets the next one in


class Turnstile:
    """Lets so many calls of the interface in at once; one makes room when it begins to answer, or takes long."""

    def __init__(self, app: ASGIApp, at_once: int = AT_ONCE, patience_s: float = PATIENCE_S) -> None:
        self.app, self.patience_s = app, patience_s
        self._free = asyncio.Semaphore(at_once)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a call on when it is its turn."""
        if scope["type"] != "http" or not scope["path"].startswith("/api"):
            await self.app(scope, receive, send)
            return
        inside = True

        def leave() -> None:
            nonlocal inside
            if inside:
                inside = False
                self._free.release()

        async def answering(message: Message) -> None:
            leave()
            await send(message)

        await self._free.acquire()
        long = asyncio.get_running_loop().call_later(self.patience_s, leave)
        try:
            await self.app(scope, receive, answering)
        finally:
            long.cancel()
            leave()
