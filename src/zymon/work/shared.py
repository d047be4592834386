"""Answers that several ask for at once: worked out once, for as long as nothing changed that they rest on."""

import threading
import time
from collections.abc import Callable, Hashable
from typing import TypeVar, cast

T = TypeVar("T")

KEPT_FOR_S = 30  # what is said of now is as old as that at most


class Shared:
    """Answers by name, each with the version of what it rests on. Whoever asks while it is worked out waits for it."""

    def __init__(self) -> None:
        self._kept: dict[Hashable, tuple[float, Hashable, object]] = {}  # begun [steady s], version, answer
        self._locks: dict[Hashable, threading.Lock] = {}
        self._guard = threading.Lock()

    def get(self, name: Hashable, version: Callable[[], Hashable], make: Callable[[], T]) -> T:
        """An answer: the one that is kept where its version still holds or that was begun since it was asked for.

        Parameters: name; version, of what the answer rests on as it is now, read before the answer is made, so that a
        change meanwhile makes it anew for whoever asks next; make. Whoever takes an answer does not change it.
        """
        asked = time.monotonic()
        with self._guard:
            lock = self._locks.setdefault(name, threading.Lock())
        with lock:
            begun, wanted = time.monotonic(), version()
            kept = self._kept.get(name)
            if kept is None or (kept[0] < asked and kept[1] != wanted):
                kept = (begun, wanted, make())
                self._kept[name] = kept
            return cast(T, kept[2])
