"""Answers that several ask for at once: worked out once, for as long as nothing changed that they rest on."""

import threading
import time
from collections.abc import Callable, Hashable
from typing import NamedTuple, TypeVar, cast

T = TypeVar("T")

KEPT_FOR_S = 30  # what is said of now is as old as that at most


class Kept(NamedTuple):
    """An answer as it was worked out last."""

    begun: float  # in steady seconds
    now_s: float  # which moment was now to it
    version: Hashable
    answer: object

    def holds(self, version: Hashable, now_s: float) -> bool:
        """Whether nothing changed that it rests on, the time among it."""
        return self.version == version and 0 <= now_s - self.now_s < KEPT_FOR_S


class Shared:
    """Answers by name, each with the version of what it rests on. Whoever asks while it is worked out waits for it."""

    def __init__(self, clock: Callable[[], float]) -> None:
        self._clock = clock
        self._kept: dict[Hashable, Kept] = {}
        self._locks: dict[Hashable, threading.Lock] = {}
        self._guard = threading.Lock()

    def get(self, name: Hashable, version: Callable[[], Hashable], make: Callable[[], T]) -> T:
        """An answer: the one that was begun since it was asked for, or a young one whose version still holds.

        Parameters: name; version, of what the answer rests on as it is now, read before the answer is made, so that a
        change meanwhile makes it anew for whoever asks next; make. Whoever takes an answer does not change it.
        """
        asked = time.monotonic()
        with self._guard:
            lock = self._locks.setdefault(name, threading.Lock())
        with lock:
            begun, now_s, wanted = time.monotonic(), self._clock(), version()
            kept = self._kept.get(name)
            if kept is None or (kept.begun < asked and not kept.holds(wanted, now_s)):
                kept = Kept(begun, now_s, wanted, make())
                self._kept[name] = kept
            return cast(T, kept.answer)
