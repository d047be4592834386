"""Answers that several ask for at once: worked out once, never older than what was entered before they were asked."""

import threading
import time
from concurrent.futures import ThreadPoolExecutor

import pytest
from fastapi.testclient import TestClient

from support import Clock, iso, piece_body
from zymon.work.shared import Shared

BY = {"by": "Ida"}


def test_an_answer_is_kept_while_its_version_holds() -> None:
    shared, made = Shared(lambda: 0.0), []

    def make() -> int:
        made.append(1)
        return len(made)

    assert [shared.get("a", lambda: 1, make), shared.get("a", lambda: 1, make)] == [1, 1]
    assert shared.get("a", lambda: 2, make) == 2
    assert shared.get("b", lambda: 2, make) == 3  # another answer
    assert shared.get("a", lambda: 2, make) == 2


def test_an_answer_grows_old_with_the_clock_by_itself_not_with_the_others() -> None:
    now = [1000.0]
    shared, made = Shared(lambda: now[0]), []

    def make() -> int:
        made.append(1)
        return len(made)

    def asked(name: str) -> int:
        return shared.get(name, lambda: 1, make)

    assert asked("a") == 1
    now[0] += 20
    assert asked("b") == 2
    now[0] += 9.9
    assert (asked("a"), asked("b")) == (1, 2)
    now[0] += 0.1  # thirty seconds after the first
    assert (asked("a"), asked("b")) == (3, 2)
    now[0] -= 3600  # the clock was put back: what was told of later is not told of now
    assert asked("a") == 4


def test_many_at_once_wait_for_one_that_was_begun_since_they_asked() -> None:
    shared, begun, let_go = Shared(lambda: 0.0), [], threading.Event()
    version = iter(range(1000))  # everything changes all the time

    def make() -> int:
        begun.append(1)
        let_go.wait(5)
        return len(begun)

    with ThreadPoolExecutor(8) as pool:
        asked = [pool.submit(shared.get, "a", lambda: next(version), make) for _ in range(8)]
        while not begun:
            time.sleep(0.001)
        time.sleep(0.05)
        let_go.set()
        answers = sorted(one.result() for one in asked)
    # the first began before the others asked, as far as they know; one more serves all of them
    assert (len(begun), answers[0], set(answers[1:])) == (2, 1, {2})


def test_a_fault_keeps_nothing() -> None:
    shared = Shared(lambda: 0.0)

    def fails() -> int:
        raise ValueError("no")

    with pytest.raises(ValueError, match="no"):
        shared.get("a", lambda: 1, fails)
    assert shared.get("a", lambda: 1, lambda: 7) == 7


def test_what_was_entered_is_seen_at_once_by_whoever_asks(client: TestClient, clock: Clock, chamber: dict) -> None:
    """No answer is older than the entry before it, at the same second of the clock."""
    place = chamber["place"]["id"]
    room = f"/api/places/{place}/room"
    assert client.get(room).json()["pieces"] == []
    body = piece_body(chamber, at=iso(clock.now - 10 * 86_400))
    piece = client.post("/api/pieces", json=body).json()["card"]["id"]
    assert len(client.get(room).json()["pieces"]) == 1
    before = [chore["id"] for chore in client.get("/api/today").json()["due"]]
    weighed = {"gross_g": 560, "sure": True, **BY}
    client.post(f"/api/pieces/{piece}/weighings", json=weighed).raise_for_status()
    assert client.get(room).json()["pieces"][0]["scale"]["gross_g"] == 560
    after = [chore["id"] for chore in client.get("/api/today").json()["due"]]
    assert before != after
    reading = {"temperature_c": -3.0, "rh_percent": 70, **BY}
    client.post(f"/api/places/{place}/readings", json=reading).raise_for_status()
    assert client.get(room).json()["place"]["air"]["temperature_c"] == -3.0
    assert any("frost" in chore["id"] for chore in client.get("/api/today").json()["due"])


def test_what_is_told_of_now_moves_with_the_clock(client: TestClient, clock: Clock, chamber: dict) -> None:
    body = piece_body(chamber, at=iso(clock.now - 10 * 86_400))
    client.post("/api/pieces", json=body).raise_for_status()
    room = f"/api/places/{chamber['place']['id']}/room"
    before = client.get(room).json()["pieces"][0]["loss_percent"]
    clock.now += 3600
    assert client.get(room).json()["pieces"][0]["loss_percent"] > before


def test_a_weighing_of_what_hangs_leaves_the_other_stations_as_they_are(
    client: TestClient, clock: Clock, chamber: dict
) -> None:
    context = client.app.state.context  # type: ignore[attr-defined]
    body = piece_body(chamber, at=iso(clock.now - 10 * 86_400))
    piece = client.post("/api/pieces", json=body).json()["card"]["id"]
    weighing = frozenset({"weighing"})
    before = context.db.version(weighing), context.db.version()
    client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 700, "sure": True, **BY}).raise_for_status()
    assert context.db.version(weighing) == before[0]
    assert context.db.version() > before[1]
    client.post("/api/pieces", json=piece_body(chamber, tag="J-14-04", hook=2)).raise_for_status()
    assert context.db.version(weighing) > before[0]
