"""Who is signed in while a call is answered: what is entered in it is theirs, whatever it says of itself."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

_SIGNED_IN: ContextVar[str | None] = ContextVar("signed_in", default=None)


@contextmanager
def signed_in(name: str | None) -> Iterator[None]:
    """Within this, what is entered is entered by this person; None where nobody signs in."""
    before = _SIGNED_IN.set(name)
    try:
        yield
    finally:
        _SIGNED_IN.reset(before)


def by_whom(said: str) -> str:
    """Who enters it: whoever is signed in; where nobody signs in, who it says."""
    return _SIGNED_IN.get() or said
