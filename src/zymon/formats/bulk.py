"""For code that makes millions of small objects at once."""

import gc
from collections.abc import Iterator
from contextlib import contextmanager


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
