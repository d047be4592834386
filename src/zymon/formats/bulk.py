"""For code that makes millions of small objects at once, or sends them a part at a time."""

import gc
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from itertools import islice
from typing import TypeVar

T = TypeVar("T")
A_PART = 5000  # rows that go out together


def in_parts(rows: Iterable[T], most: int = A_PART) -> Iterator[list[T]]:
    """Rows in lists of so many, as they come. Parameters: rows; most, of a list."""
    left = iter(rows)
    while part := list(islice(left, most)):
        yield part


@contextmanager
def many_objects() -> Iterator[None]:
    """Hold the garbage collector while rows by the million are made: it would walk them all, again and again."""
    was_on = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if was_on:
            gc.enable()
