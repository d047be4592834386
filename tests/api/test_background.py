"""Dates made behind the scenes: a weight is acknowledged before them, whoever looks is told, and they come."""

import asyncio
import shutil
import threading
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from benchmarks.maker import Maker
from fastapi.testclient import TestClient

from support import NOW, Clock, piece_body
from zymon.app import make_app
from zymon.settings import Settings
from zymon.work import dates
from zymon.work.follow import MOST_WAITING, Follower, Followers, Happening

DAY = 86_400
PATIENCE_S = 20


def wait_for(said: Callable[[], bool]) -> None:
    until = time.monotonic() + PATIENCE_S
    while not said():
        assert time.monotonic() < until
        time.sleep(0.02)


@pytest.fixture
def busy(tmp_path: Path, clock: Clock, empty_workshop: Path) -> Iterator[TestClient]:
    """A workshop as it runs: with a thread that makes the dates."""
    shutil.copy(empty_workshop, tmp_path / "workshop.db")
    app = make_app(Settings(db=tmp_path / "workshop.db"), clock)
    with Maker(app) as made:
        made.shop = app.state.context
        yield made
    app.state.context.close()


def two_rooms(client: TestClient) -> list[dict]:
    client.put("/api/workshop", json={"name": "Test cellar", "time_zone": "Europe/Rome", "by": "Ida"})
    rooms = []
    for name in ("Pit", "Loft"):
        body = {"name": name, "hooks_per_rod": [4], "setpoint": {"temperature_c": 13, "rh_percent": 78}, "by": "Ida"}
        made = client.post("/api/places", json=body).json()
        rooms.append(client.get(f"/api/places/{made['id']}/room").json())
    return rooms


def hang(client: TestClient, room: dict, tag: str) -> int:
    answer = client.post("/api/pieces", json=piece_body(room, tag=tag, at="2026-09-13T08:00:00Z"))
    assert answer.status_code == 201, answer.text
    return answer.json()["card"]["id"]


def held_up(monkeypatch: pytest.MonkeyPatch) -> tuple[threading.Event, threading.Event]:
    """From now on dates wait until the first is set; the second says that they have begun to."""
    hold, going = threading.Event(), threading.Event()

    def slow(history, real=dates.fitted):
        going.set()
        assert hold.wait(PATIENCE_S)
        return real(history)

    monkeypatch.setattr(dates, "fitted", slow)
    return hold, going


def test_a_weight_is_acknowledged_while_the_dates_are_held_up(
    busy: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    pit, _ = two_rooms(busy)
    piece = hang(busy, pit, "J-14-03")
    wait_for(lambda: not busy.get(f"/api/pieces/{piece}").json()["dates_being_made"])
    before = busy.get(f"/api/pieces/{piece}").json()["card"]
    hold, going = held_up(monkeypatch)
    told: list[Happening | None] = []
    real_tell = busy.shop.followers.tell
    monkeypatch.setattr(busy.shop.followers, "tell", lambda happening: (told.append(happening), real_tell(happening)))
    answer = busy.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 700, "by": "Ida", "sure": True})
    assert answer.status_code == 201  # and its dates are still being made:
    assert going.wait(PATIENCE_S)
    now = busy.get(f"/api/pieces/{piece}").json()
    assert now["dates_being_made"]
    assert now["card"]["scale"]["gross_g"] == 700  # what the scale says is so at once
    assert now["card"]["ready"] == before["ready"]  # the date is the one that was made last, and it is said so
    assert busy.get(f"/api/places/{pit['place']['id']}/room").json()["dates_being_made"]
    hold.set()
    wait_for(lambda: not busy.get(f"/api/pieces/{piece}").json()["dates_being_made"])
    assert busy.get(f"/api/pieces/{piece}").json()["card"]["ready"] != before["ready"]
    wait_for(lambda: Happening("made", pit["place"]["id"]) in told)
    assert told.index(Happening("making", pit["place"]["id"])) < told.index(Happening("made", pit["place"]["id"]))
    assert len(busy.get(f"/api/pieces/{piece}").json()["told"]) >= 1  # what was told stands on record


def test_dates_that_are_replaced_while_they_are_told_are_said_to_be_old(
    busy: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    pit, _ = two_rooms(busy)
    piece = hang(busy, pit, "J-14-03")
    wait_for(lambda: not busy.get(f"/api/pieces/{piece}").json()["dates_being_made"])
    before = busy.get(f"/api/pieces/{piece}").json()["card"]["ready"]
    hold, _ = held_up(monkeypatch)

    def made_meanwhile(shop, session, piece, now_s, real=dates.Dates.fitted_piece):
        taken, was = real(shop, session, piece, now_s), shop.version(pit["place"]["id"])
        hold.set()
        wait_for(lambda: shop.version(pit["place"]["id"]) != was)
        return taken

    busy.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 700, "by": "Ida", "sure": True})
    with monkeypatch.context() as meanwhile:
        meanwhile.setattr(dates.Dates, "fitted_piece", made_meanwhile)
        told = busy.get(f"/api/pieces/{piece}").json()
    assert told["card"]["ready"] == before
    assert told["dates_being_made"]  # so that whoever was told asks again
    now = busy.get(f"/api/pieces/{piece}").json()
    assert now["card"]["ready"] != before
    assert not now["dates_being_made"]


def test_one_place_waits_for_no_other(busy: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    pit, loft = two_rooms(busy)
    held = hang(busy, pit, "J-14-03")
    free = hang(busy, loft, "J-14-04")
    wait_for(lambda: not busy.get(f"/api/pieces/{held}").json()["dates_being_made"])
    lock = busy.shop.dates._lock(pit["place"]["id"])
    with lock:  # the dates of the pit are being made, for as long as it takes
        assert busy.get(f"/api/pieces/{free}").status_code == 200
        assert busy.get(f"/api/places/{loft['place']['id']}/room").json()["pieces"][0]["tag"] == "J-14-04"
        assert busy.post(f"/api/pieces/{free}/weighings", json={"gross_g": 790, "by": "Ida"}).status_code == 201


def test_who_follows_is_told_in_order_and_keeps_only_so_much() -> None:
    async def follow() -> list[Happening | None]:
        followers = Followers()
        mine: Follower = followers.join()
        gone = followers.join()
        followers.leave(gone)
        for place in range(MOST_WAITING + 5):
            followers.tell(Happening("made", place))
        followers.close()
        await asyncio.sleep(0)
        assert gone.queue.empty()
        return [mine.queue.get_nowait() for _ in range(mine.queue.qsize())]

    with ThreadPoolExecutor(1) as alone:  # a browser's test before it in this process leaves a loop of its own behind
        heard = alone.submit(lambda: asyncio.run(follow())).result()
    assert len(heard) == MOST_WAITING
    assert heard[-1] is None  # nothing more to come
    assert [h.number for h in heard[:-1] if h] == list(range(6, MOST_WAITING + 5))


def test_the_past_is_worked_out_once(busy: TestClient, clock: Clock, monkeypatch: pytest.MonkeyPatch) -> None:
    pit, _ = two_rooms(busy)
    piece = hang(busy, pit, "J-14-03")
    down = {"kind": "kept", "not_weighed": True, "by": "Ida"}
    busy.post(f"/api/pieces/{piece}/take-down", json=down).raise_for_status()
    first = busy.get(f"/api/pieces/{piece}").json()
    calls: list[int] = []
    monkeypatch.setattr(dates, "fitted", lambda history, real=dates.fitted: (calls.append(1), real(history))[1])
    clock.now = NOW + 90 * DAY
    later = busy.get(f"/api/pieces/{piece}").json()
    assert (later["curve"], later["card"]["loss_percent"]) == (first["curve"], first["card"]["loss_percent"])
    assert len(calls) <= 1  # of its room, perhaps; of the past never again
