"""The planner with two hundred planned batches: the weeks ahead, a move, other goods, Today beside it."""

import copy
import time
from datetime import UTC, datetime
from functools import partial

from fastapi.testclient import TestClient

from zymon.core.bench.families import FAMILIES, Family

from .speed import DAY, NOW, best, bring_in, hang_file, workshop

PLANS, KINDS, HANGING = 200, 12, 60


def _iso(at_s: float) -> str:
    return datetime.fromtimestamp(at_s, UTC).isoformat()


def _sheet(of: Family) -> dict[str, object]:
    dextrose = {"name": "Dextrose", "role": "sugar", "basis": "percent", "amount": 0.3}
    plan = {
        "family": of.id, "goods": "minced" if of.minced else "intact", "species": of.species, "kind": of.kind,
        "shape": of.shape, "casing": of.casing, "salting": of.salting, "warm": of.warm,
        "target_loss_percent": of.target_loss_percent, "across_mm": of.across_mm, "piece_g": of.piece_g,
    }  # fmt: skip
    part = {"name": "Meat", "weight_g": 5000, "fat_percent": of.fat_percent}
    lines = [dextrose] if of.warm == "culture" else []
    return {"parts": [part], "salt_percent": of.salt_percent, "curing": None, "lines": lines, "plan": plan}


def _wish(number: int, places: list[int]) -> dict[str, object]:
    of = [f for f in FAMILIES if f.id != "leg"][number % KINDS]
    return {
        "product": of.name, "sheet": _sheet(of), "pieces": 4 + number % 3,
        "table_g": round(of.piece_g * (1 - of.target_loss_percent / 100)), "wanted": _iso(NOW + (150 + number) * DAY),
        "start": _iso(NOW + (5 + number // 2) * DAY), "place_id": places[number % len(places)], "by": "Ida",
    }  # fmt: skip


def _timed(client: TestClient, method: str, path: str, **given: object) -> float:
    began = time.perf_counter()
    client.request(method, path, **given).raise_for_status()  # type: ignore[arg-type] # as the client takes them
    return time.perf_counter() - began


def measure() -> str:
    """The table of the planner."""
    with workshop([30] * 10) as (client, first):
        bring_in(client, first, "room.json", hang_file(HANGING, 40))
        other = client.post("/api/places", json={"name": "Loft", "hooks_per_rod": [30] * 10, "by": "Ida"}).json()["id"]
        keeping = sorted(
            _timed(client, "POST", "/api/plans", json=_wish(number, [first, other])) for number in range(PLANS)
        )
        once = _timed(client, "GET", "/api/ahead")
        again = best(3, partial(client.get, "/api/ahead"))
        held = _wish(0, [first])
        moves = []
        for day in range(1, 8):
            moved = {**held, "start": _iso(NOW + (5 + day) * DAY)}
            moves.append(_timed(client, "POST", "/api/plans/1/look", json=moved))
        goods = []
        for more in range(1, 8):
            thicker = copy.deepcopy(held)
            thicker["sheet"]["plan"]["across_mm"] += more  # type: ignore[index]
            goods.append(_timed(client, "POST", "/api/plans/1/look", json=thicker))
        today = _timed(client, "GET", "/api/today")
    rows = {
        "the weeks ahead, first": (once, ""),
        "the weeks ahead, again": (again, "1 s"),
        "a plan moved, looked at": (sorted(moves)[3], "0.2 s"),
        "the slowest of seven": (max(moves), ""),
        "another diameter, looked at": (sorted(goods)[3], "0.2 s"),
        "the slowest of seven diameters": (max(goods), ""),
        "a plan kept, median": (keeping[PLANS // 2], ""),
        "Today beside them, first": (today, "1 s"),
    }
    table = "".join(f"| {name} | {took:.2f} s | {asked} |\n" for name, (took, asked) in rows.items())
    head = f"{PLANS} planned batches of {KINDS} kinds in two places, {HANGING} pieces hang."
    return f"{head}\n\n| | took | asked |\n|---|---|---|\n{table}"
