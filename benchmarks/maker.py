"""A maker at work: a client that gives each entry an identity of its own, as the forms do."""

import itertools
from typing import Any

from fastapi import FastAPI
from fastapi.testclient import TestClient
from httpx2 import Response


class Maker(TestClient):
    """Entries without an identity get one; who tests that gives its own."""

    entries = itertools.count(1)

    def __init__(self, app: FastAPI) -> None:
        super().__init__(app, base_url="http://localhost")

    def request(self, method: str, url: Any, **given: Any) -> Response:
        """Send, with an identity where the body is an entry and has none."""
        body = given.get("json")
        if method in ("POST", "PUT") and isinstance(body, dict) and "uid" not in body:
            given["json"] = {"uid": f"entry-{next(self.entries)}", **body}
        return super().request(method, url, **given)
