"""A few calls are at work at once: the others wait their turn, and nobody for one that takes long."""

import asyncio
from collections.abc import Awaitable, Callable

import pytest

from brokers import apart
from zymon.api.turnstile import Turnstile

Inside = Callable[[str], Awaitable[None]]


class Calls:
    """An application that notes who is at work, and is done with a call when it is told so."""

    def __init__(self) -> None:
        self.at_work: list[str] = []
        self.may_answer: dict[str, asyncio.Event] = {}
        self.may_end: dict[str, asyncio.Event] = {}

    async def __call__(self, scope, receive, send) -> None:
        name = scope["path"].rsplit("/", 1)[-1]
        self.at_work.append(name)
        try:
            await self.may_answer.setdefault(name, asyncio.Event()).wait()
            if name.startswith("fault"):
                raise ValueError(name)
            await send({"type": "http.response.start", "status": 200, "headers": []})
            await self.may_end.setdefault(name, asyncio.Event()).wait()
        finally:
            self.at_work.remove(name)


async def _until(holds: Callable[[], bool]) -> None:
    for _ in range(200):
        if holds():
            return
        await asyncio.sleep(0.005)
    raise AssertionError("it never came to that")


async def _nothing(_message=None) -> None:
    return None


def _come(door: Turnstile, *names: str, below: str = "/api/") -> list[asyncio.Task[None]]:
    return [asyncio.create_task(door({"type": "http", "path": below + name}, _nothing, _nothing)) for name in names]


def _played(play: Callable[[Turnstile, Calls], Awaitable[None]], patience_s: float = 60.0) -> None:
    async def whole() -> None:
        calls = Calls()
        await play(Turnstile(calls, at_once=2, patience_s=patience_s), calls)

    apart(whole())


def test_two_are_let_in_and_the_next_when_one_begins_to_answer() -> None:
    async def play(door: Turnstile, calls: Calls) -> None:
        _come(door, "a", "b", "c", "d")
        await _until(lambda: calls.at_work == ["a", "b"])
        await asyncio.sleep(0.05)
        assert calls.at_work == ["a", "b"]
        calls.may_answer["b"].set()  # it goes on sending, as a file of a million lines does
        await _until(lambda: calls.at_work == ["a", "b", "c"])
        calls.may_end["b"].set()
        await asyncio.sleep(0.05)
        assert calls.at_work == ["a", "c"]  # its room was given once

    _played(play)


def test_a_call_that_takes_long_lets_the_next_in() -> None:
    async def play(door: Turnstile, calls: Calls) -> None:
        _come(door, "a", "b", "c")
        await _until(lambda: calls.at_work == ["a", "b", "c"])

    _played(play, patience_s=0.02)


@pytest.mark.parametrize("end", ["fault", "gone"])
def test_a_call_that_fails_or_that_nobody_waits_for_makes_room(end: str) -> None:
    async def play(door: Turnstile, calls: Calls) -> None:
        first, second = _come(door, "fault-1", "fault-2")
        _come(door, "a", "b")
        await _until(lambda: calls.at_work == ["fault-1", "fault-2"])
        for task, name in ((first, "fault-1"), (second, "fault-2")):
            if end == "gone":
                task.cancel()
            else:
                calls.may_answer[name].set()
        await _until(lambda: calls.at_work == ["a", "b"])
        assert [type(one) for one in await asyncio.gather(first, second, return_exceptions=True)] == (
            [ValueError] * 2 if end == "fault" else [asyncio.CancelledError] * 2
        )

    _played(play)


def test_the_page_itself_waits_for_nobody() -> None:
    async def play(door: Turnstile, calls: Calls) -> None:
        _come(door, "a", "b")
        await _until(lambda: calls.at_work == ["a", "b"])
        _come(door, "page", below="/assets/")
        await _until(lambda: "page" in calls.at_work)

    _played(play)
