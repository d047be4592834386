"""The stand-in broker for tests, on a port of its own."""

import asyncio
import gc
import socket
import warnings
from collections.abc import Coroutine, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from typing import TypeVar

from zymon.standins.broker import LocalBroker

T = TypeVar("T")


def free_port() -> int:
    """A port that nobody has just now."""
    with socket.socket() as one:
        one.bind(("127.0.0.1", 0))
        return int(one.getsockname()[1])


def apart(work: Coroutine[object, object, T]) -> T:
    """Run a coroutine in a thread of its own: a browser's loop may be running in this one."""
    with ThreadPoolExecutor(1) as pool:
        return pool.submit(asyncio.run, work).result()


@contextmanager
def running_broker(port: int | None = None) -> Iterator[LocalBroker]:
    """A broker that listens."""
    made = LocalBroker(port or free_port())
    made.begin()
    try:
        yield made
    finally:
        made.end()
        with warnings.catch_warnings():
            # the library that the stand-in is made of leaves sockets of cut connections to the garbage collector
            warnings.simplefilter("ignore", ResourceWarning)
            gc.collect()
