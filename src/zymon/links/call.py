"""Calling an address with what happened: JSON, signed, so that whoever is called knows who calls."""

import hashlib
import hmac
import json
import time
from collections.abc import Callable

import requests
from urllib3.exceptions import NewConnectionError

from zymon.store.alarm_models import AlarmPerson
from zymon.work.alarms.telling import NotSentError, Told, UnsureError

WAITS_S = (5.0, 15.0)  # for the connection, for the answer


def signature(secret: str, at_s: int, body: bytes) -> str:
    """What stands in `Zymon-Signature`: HMAC-SHA256 of the time, a point and the body, in hex.

    Parameters: secret; at_s [s], as in `Zymon-Time`; body, as sent.
    """
    return hmac.new(secret.encode(), f"{at_s}.".encode() + body, hashlib.sha256).hexdigest()


def body_of(workshop: str, told: Told) -> bytes:
    """The body of a call."""
    return json.dumps(
        {
            "workshop": workshop,
            "test": told.test,
            "title": told.title,
            "text": told.text,
            "link": told.link,
            "alarms": [
                {"id": number, "kind": kind, "begun": begun}
                for number, kind, begun in zip(told.events, told.kinds, told.begun, strict=False)
            ],
        },
        ensure_ascii=False,
    ).encode()


def by_call(workshop: Callable[[], str]) -> Callable[[AlarmPerson, Told], None]:
    """A way of telling by calling an address. Parameters: workshop, its name."""

    def send(to: AlarmPerson, told: Told) -> None:
        body, at_s = body_of(workshop(), told), int(time.time())
        head = {
            "Content-Type": "application/json",
            "Zymon-Time": str(at_s),
            "Zymon-Signature": signature(to.secret, at_s, body),
        }
        try:
            answer = requests.post(to.address, body, headers=head, timeout=WAITS_S, allow_redirects=False)
        except (requests.exceptions.ConnectTimeout, requests.exceptions.InvalidURL) as error:
            raise NotSentError(f"{to.address}: {error}"[:300]) from error
        except requests.exceptions.ConnectionError as error:
            reason = getattr(error.args[0], "reason", None) if error.args else None
            if isinstance(reason, NewConnectionError):
                raise NotSentError(f"{to.address} does not answer") from error
            raise UnsureError(str(error)) from error
        except requests.exceptions.RequestException as error:
            raise UnsureError(str(error)) from error
        if answer.status_code >= 300:
            raise NotSentError(f"{to.address} answered {answer.status_code}")

    return send
