"""How fast the Rest answers: a shelf of two hundred pieces in their bags, and the stock of what was packed of them."""

import time
from functools import partial
from statistics import median

from .speed import best, bring_in, hang_file, workshop

PIECES = 200


def measure() -> str:
    """The table of the shelf."""
    with workshop([20] * 10) as (client, place):
        bring_in(client, place, "room.json", hang_file(PIECES, 40))
        store = {"name": "Store", "kind": "store", "setpoint": {"temperature_c": 4}, "by": "Ida"}
        shelf = client.post("/api/places", json=store).json()["id"]
        pieces = client.get(f"/api/places/{place}/room").json()["pieces"]
        taken: list[float] = []
        for piece in pieces:
            body = {"kind": "resting", "how": "vacuum", "place_id": shelf, "sure": True, "by": "Ida",
                    "gross_g": piece["weight_now_g"] - 1}  # fmt: skip
            began = time.perf_counter()
            client.post(f"/api/pieces/{piece['id']}/take-down", json=body).raise_for_status()
            taken.append(time.perf_counter() - began)
        began = time.perf_counter()
        assert len(client.get("/api/rest").json()["pieces"]) == PIECES
        first = time.perf_counter() - began
        again = best(5, partial(client.get, "/api/rest"))
    return (
        "| what | measured | asked |\n|---|---|---|\n"
        f"| shelf of {PIECES} resting pieces, answered | {again:.2f} s | 0.5 s |\n"
        f"| the same for the first time, every profile worked out | {first:.1f} s | |\n"
        f"| a piece taken down into its bag, median of {PIECES} | {1000 * median(taken):.0f} ms | |\n"
    )
