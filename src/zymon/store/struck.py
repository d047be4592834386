"""Entries that can be struck through: which count, and striking one."""

from collections.abc import Iterable
from typing import Protocol, TypeVar

from .places import ClashError


class Strikable(Protocol):
    """An entry with the columns of a strike."""

    struck_s: int | None
    struck_by: str | None
    struck_reason: str | None


_T = TypeVar("_T", bound=Strikable)


def counted(entries: Iterable[_T]) -> list[_T]:
    """The entries that are not struck through."""
    return [e for e in entries if e.struck_s is None]


def strike(entry: Strikable, reason: str, by: str, now_s: int) -> None:
    """Strike an entry through. Raises ClashError when it is already."""
    if entry.struck_s is not None:
        raise ClashError("refused.struck_already")
    entry.struck_s, entry.struck_by, entry.struck_reason = now_s, by, reason
