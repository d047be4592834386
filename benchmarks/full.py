"""A full house, two thousand pieces in six places: how long each screen takes, and the dates of one place anew."""

import time
from functools import partial

from fastapi.testclient import TestClient

from .speed import best, bring_in, hang_file, weigh, workshop

PLACES, PIECES = 6, 340


def _fill(client: TestClient, first: int) -> list[int]:
    """Six places with their pieces; the numbers of the places."""
    places = [first]
    for number in range(1, PLACES):
        body = {"name": f"Cellar {number}", "hooks_per_rod": [20] * (PIECES // 20), "by": "Ida"}
        places.append(client.post("/api/places", json=body).json()["id"])
    for number, place in enumerate(places):
        own = hang_file(PIECES, 40).replace(b'"B', f'"{"ABCDEF"[number]}'.encode())
        bring_in(client, place, "room.json", own)
    return places


def measure() -> str:
    """The table of the full house."""
    with workshop([20] * (PIECES // 20)) as (client, first):
        places = _fill(client, first)
        rooms = {place: client.get(f"/api/places/{place}/room").json() for place in places}
        hanging = sum(len(room["pieces"]) for room in rooms.values())
        piece = rooms[first]["pieces"][0]
        screens = {
            "line": "/api/line",
            "room": f"/api/places/{first}/room",
            "Today": "/api/today",
            "a piece": f"/api/pieces/{piece['id']}",
            "the Book": "/api/book",
            "alarms": "/api/alarms",
            "climate of a place": f"/api/places/{first}/climate?from_s=0&to_s=4000000000&points=900",
        }
        rows = ""
        for name, path in screens.items():
            began = time.perf_counter()
            client.get(path).raise_for_status()
            once = time.perf_counter() - began
            rows += f"| {name} | {once:.2f} s | {best(3, partial(client.get, path)):.2f} s | 1 s |\n"
        said, anew = weigh(client, first, piece["id"], piece["weight_now_g"] or 500.0)
    return (
        f"{hanging} pieces hang in {PLACES} places.\n\n| screen | first | again | asked |\n|---|---|---|---|\n{rows}"
        f"| a weight, acknowledged | {said:.2f} s | | |\n| dates of its place anew | {anew:.2f} s | | 3 s |\n"
    )
