"""The door: who a browser's token belongs to, asked anew at most every few seconds."""

import time
from dataclasses import dataclass, field

from zymon.core.errors import ZymonError
from zymon.core.house.people import CONFIRMED_FOR_S, Right, Role, may
from zymon.store import people as store
from zymon.store.database import Database
from zymon.store.house_models import SignIn, Use

REMEMBERED_S = 10.0  # a person made or ended by the command line is noticed after so long; here it is noticed at once
MOST_REMEMBERED = 500
SEEN_AGAIN_S = 300  # how often it is written down that somebody is still there


class NotSignedInError(ZymonError, PermissionError):
    """Somebody has to sign in first."""


class NotAllowedError(ZymonError, PermissionError):
    """Whoever is signed in may not do this."""


class ConfirmNeededError(NotAllowedError):
    """The passphrase or PIN is asked for again: this is signed by it."""


@dataclass(frozen=True)
class Visitor:
    """Somebody who is signed in, and from where."""

    sign_in_id: int
    person_id: int
    name: str
    role: Role
    use: Use
    tablet_id: int | None
    last_s: int
    confirmed_s: int | None
    shows: str | None

    def check(self, right: Right, confirmed: bool, now_s: int) -> None:
        """Refuse what they may not do, or have to confirm first. Raises NotAllowedError, ConfirmNeededError."""
        if self.use != "browser" and right != "read":
            raise NotAllowedError("refused.calendar_reads")
        if not may(self.role, right):
            raise NotAllowedError(f"refused.not_allowed.{right}", name=self.name)
        if confirmed and (self.confirmed_s is None or now_s - self.confirmed_s > CONFIRMED_FOR_S):
            raise ConfirmNeededError("refused.confirm_needed")


@dataclass
class Door:
    """Who is let in. Nobody signs in until somebody is on record."""

    db: Database
    _known: dict[str, tuple[float, Visitor | None]] = field(default_factory=dict)
    _locked: tuple[float, bool] | None = None

    def forget(self) -> None:
        """Ask anew who may come in: something about people was changed."""
        self._known.clear()
        self._locked = None

    def remembers(self, token: str | None) -> bool:
        """Whether nothing has to be read to say who it is."""
        now = time.monotonic()
        fresh = self._locked is not None and self._locked[0] > now
        return fresh and (token is None or self._known.get(token, (0.0, None))[0] > now)

    def locked(self) -> bool:
        """Whether one signs in."""
        now = time.monotonic()
        if self._locked is None or self._locked[0] <= now:
            with self.db.reading() as session:
                self._locked = (now + REMEMBERED_S, store.anybody(session))
        return self._locked[1]

    def visitor(self, token: str | None, now_s: int) -> Visitor | None:
        """Whose token it is; None where it is nobody's (any more)."""
        if not token:
            return None
        until, known = self._known.get(token, (0.0, None))
        if until > time.monotonic():
            return known
        with self.db.reading() as session:
            found = store.sign_in_of(session, token, now_s)
            known = None if found is None else _visitor(found)
        if known is not None and now_s - known.last_s > SEEN_AGAIN_S:
            with self.db.writing(known.name, now_s) as session:
                store.sign_in(session, known.sign_in_id).last_s = now_s
        if len(self._known) >= MOST_REMEMBERED:
            self._known.clear()
        self._known[token] = (time.monotonic() + REMEMBERED_S, known)
        return known


def _visitor(sign_in: SignIn) -> Visitor:
    return Visitor(
        sign_in_id=sign_in.id,
        person_id=sign_in.person_id,
        name=sign_in.person.name,
        role=sign_in.person.role,
        use=sign_in.use,
        tablet_id=sign_in.tablet_id,
        last_s=sign_in.last_s,
        confirmed_s=sign_in.confirmed_s,
        shows=sign_in.person.shows,
    )
