"""At the door: whoever comes with a browser's token is known in what follows; without one, data stays in."""

from urllib.parse import parse_qs, unquote

from anyio import to_thread
from starlette.requests import HTTPConnection
from starlette.types import ASGIApp, Receive, Scope, Send

from zymon.words.shows import Shows, read_shows, shown_as
from zymon.work.house.door import NotSignedInError, Visitor
from zymon.work.who import signed_in

from .context import Context
from .errors import problem

COOKIE = "zymon_session"
TABLET_COOKIE = "zymon_tablet"
SHOWS_COOKIE = "zymon_shows"  # in which language and units a browser reads; the page writes it
CALENDAR = "/api/today.ics"
# what anybody may ask for: whether one signs in, and to be let in
OPEN = frozenset({"/api/door", "/api/sign-in", "/api/sign-out"})


class Doorkeeper:
    """Lets in who is signed in; what they enter is theirs."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Let a call in, or refuse it in words."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        visitor: Visitor | None = None
        if scope["path"].startswith("/api/"):
            ctx: Context = scope["app"].state.context
            token = self._token(scope)
            if ctx.door.remembers(token):
                locked, visitor = ctx.door.locked(), ctx.door.visitor(token, ctx.now_s)
            else:
                locked, visitor = await to_thread.run_sync(_ask, ctx, token)
            if locked and visitor is None and scope["path"] not in OPEN:
                refused = problem(NotSignedInError("refused.sign_in_first"), 401, "sign_in_first")
                await refused(scope, receive, send)
                return
        scope.setdefault("state", {})["visitor"] = visitor
        with signed_in(None if visitor is None else visitor.name), shown_as(_shows(scope, visitor)):
            await self.app(scope, receive, send)

    @staticmethod
    def _token(scope: Scope) -> str | None:
        if scope["path"] == CALENDAR:  # calendars bring no cookie
            question: bytes = scope["query_string"]
            key = parse_qs(question.decode("ascii", "replace")).get("key")
            if key:
                return key[0]
        return HTTPConnection(scope).cookies.get(COOKIE)


def _shows(scope: Scope, visitor: Visitor | None) -> Shows:
    """As the browser has it; of who brings no cookie, as they chose, or as the workshop has it."""
    kept = HTTPConnection(scope).cookies.get(SHOWS_COOKIE)
    if kept is not None:
        return read_shows(unquote(kept))
    if visitor is not None and visitor.shows is not None:
        return read_shows(visitor.shows)
    ctx: Context = scope["app"].state.context
    return ctx.shows


def _ask(ctx: Context, token: str | None) -> tuple[bool, Visitor | None]:
    return ctx.door.locked(), ctx.door.visitor(token, ctx.now_s)
