"""What is refused before anything is read, and what every answer forbids a browser."""

import re
from urllib.parse import unquote_to_bytes, urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from zymon.core.errors import ZymonError

from .context import Context
from .errors import problem

HOST = re.compile(r"(\[[0-9a-f:]+\]|[a-z0-9._-]+)(?::\d{1,5})?")
CONTROLS = re.compile(rb"[\x00-\x1f\x7f]")
LOOPBACK = frozenset({"localhost", "127.0.0.1", "::1"})
WRITES = frozenset({"POST", "PUT", "PATCH", "DELETE"})
MB = 1_000_000
JSON_BYTES = 1 * MB
PHOTO_BYTES = 20 * MB
FILE_BYTES = 20 * MB  # a hang file, a batch file, a recipe
FILES = re.compile(r"/api/(judge|recipes/read)")
PHOTOS = re.compile(r"/api/pieces/\d+/photos")
UPLOADS = re.compile(r"/api/(imports/preview|archive)")
HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
        "font-src 'self'; connect-src 'self'; worker-src 'self'; object-src 'none'; base-uri 'none'; "
        "form-action 'self'; frame-ancestors 'none'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Resource-Policy": "same-origin",
}


class RefusedError(ZymonError, PermissionError):
    """A call that is not looked at."""


class Guard:
    """Refuses foreign hosts and pages, paths nobody can type, and more at once than anybody sends."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a call on or refuse it, and put the headers on its answer."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    headers.setdefault(name, value)
                if scope["path"].startswith(("/api/", "/device/")):
                    headers.setdefault("Cache-Control", "no-store")
            await send(message)

        refused = self._refused(scope)
        if refused is None:
            await self.app(scope, receive, with_headers)
        else:
            await problem(*refused)(scope, receive, with_headers)

    def _refused(self, scope: Scope) -> tuple[ZymonError, int, str] | None:
        ctx: Context = scope["app"].state.context
        headers = Headers(scope=scope)
        if CONTROLS.search(unquote_to_bytes(scope.get("raw_path") or scope["path"].encode())):
            return RefusedError("refused.nothing_here"), 404, "not_found"
        if CONTROLS.search(unquote_to_bytes(scope["query_string"].replace(b"+", b" "))):
            return RefusedError("refused.unreadable_question"), 422, "invalid"
        hosts = LOOPBACK | ctx.hosts
        if name_of_host(headers.get("host", "")) not in hosts:
            return RefusedError("refused.foreign_host"), 400, "foreign_host"
        if scope["method"] not in WRITES:
            return None
        origin = headers.get("origin")
        if headers.get("sec-fetch-site", "same-origin") not in ("same-origin", "none") or (
            origin is not None and not _own(origin, headers.get("host", ""), hosts)
        ):
            return RefusedError("refused.foreign_page"), 403, "foreign_page"
        length = headers.get("content-length", "0")
        if "transfer-encoding" in headers or not length.isdigit():
            return RefusedError("refused.length_not_said"), 411, "length_not_said"
        most = most_bytes(scope["path"], ctx.settings.max_upload_mb)
        if int(length) > most:
            return RefusedError("refused.too_much", most=most // MB), 413, "too_much"
        return None


def name_of_host(host: str) -> str:
    """The name in a Host header, without its port, as it is compared; empty where it is none."""
    named = HOST.fullmatch(host.lower())
    return "" if named is None else named[1].strip("[]")


def _own(origin: str, host: str, hosts: frozenset[str]) -> bool:
    """Whether a page that writes is ours: it came from the host it writes to, or that name stands before us."""
    try:
        page = urlsplit(origin)
        port = page.port
    except ValueError:
        return False
    if page.scheme not in ("http", "https"):
        return False
    return page.netloc == host or (page.hostname in hosts - LOOPBACK and port is None)


def most_bytes(path: str, max_upload_mb: int) -> int:
    """How much may be sent to an address at once."""
    if UPLOADS.fullmatch(path):
        return max_upload_mb * MB + JSON_BYTES
    if PHOTOS.fullmatch(path):
        return PHOTO_BYTES
    return FILE_BYTES if FILES.fullmatch(path) else JSON_BYTES
