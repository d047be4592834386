"""Push to browsers that asked for it; works where the workshop is reached over https."""

import json
from collections.abc import Callable
from pathlib import Path

from cryptography.hazmat.primitives.serialization import Encoding, PublicFormat
from py_vapid import Vapid02, b64urlencode

from zymon.store.alarm_models import AlarmPerson
from zymon.work.alarms.telling import NotSentError, Told, UnsureError

WAITS_S = 15
KEPT_S = 12 * 3600  # by the browser's service, for a browser that is away


class PushKey:
    """The key by which browsers know the workshop that they asked; made once, kept beside the record."""

    def __init__(self, file: Path) -> None:
        if file.exists():
            self.vapid = Vapid02.from_file(str(file))
        else:
            self.vapid = Vapid02()
            self.vapid.generate_keys()
            file.touch(mode=0o600)
            self.vapid.save_key(str(file))

    @property
    def public(self) -> str:
        """What a browser is given when it asks to be told."""
        point = self.vapid.public_key.public_bytes(Encoding.X962, PublicFormat.UncompressedPoint)
        return str(b64urlencode(point))


def by_push(key: PushKey, contact: Callable[[], str]) -> Callable[[AlarmPerson, Told], None]:
    """A way of telling by push. Parameters: key; contact, an address of the workshop for the browser's service."""

    def send(to: AlarmPerson, told: Told) -> None:
        from pywebpush import WebPushException, webpush  # read when the first one is told something

        try:
            subscription = json.loads(to.address)
            webpush(
                subscription,
                json.dumps({"title": told.title, "text": told.text, "link": told.link}),
                vapid_private_key=key.vapid,
                vapid_claims={"sub": contact()},
                timeout=WAITS_S,
                ttl=KEPT_S,
            )
        except WebPushException as error:
            if error.response is not None:
                raise NotSentError(f"the browser's service answered {error.response.status_code}") from error
            raise UnsureError(str(error)) from error
        except (ValueError, KeyError, TypeError) as error:
            raise NotSentError("this browser's answer cannot be read: let it ask anew") from error
        except OSError as error:
            raise NotSentError(f"the browser's service: {error}"[:300]) from error

    return send
