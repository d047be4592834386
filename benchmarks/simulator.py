"""Hanging histories with known outcomes, from three kinds of physics that are not the engine's (`physics.py`).

Goods take the time that makers report for them. Luck differs by workshop, batch and piece; sizes and fat are declared
with errors or not at all; one weighing in sixty is wrong.
"""

from dataclasses import dataclass, replace
from functools import cache
from typing import Any

import numpy as np
import numpy.typing as npt

from zymon.core.drying.climate import Log
from zymon.core.drying.history import History, Piece, Weighing
from zymon.standins.chamber import SimulatedChamber

from .physics import PHYSICS, Batch, Physics, driven

Array = npt.NDArray[np.float64]
DAY = 86_400.0
STEP_S = 3600.0


@dataclass(frozen=True)
class Goods:
    """A kind as the simulator knows it: sizes [mm, g], target [%], and days it usually takes."""

    kind: Any
    shape: Any
    casing: Any
    across_mm: tuple[float, float]
    grams: tuple[float, float]
    fat: tuple[float, float]
    target: tuple[float, float]
    usual_days: tuple[float, float]  # at the lower and the upper size
    climate: tuple[float, float]


GOODS = (
    Goods("salame", "cylinder", "natural", (40, 62), (350, 950), (20, 32), (31, 38), (24, 60), (13, 79)),
    Goods("salame", "cylinder", "fibrous", (75, 95), (1500, 2800), (20, 32), (31, 36), (60, 95), (13, 80)),
    Goods("whole_muscle", "irregular", "natural", (75, 115), (900, 3000), (5, 18), (30, 38), (28, 90), (12.5, 78)),
    Goods("whole_muscle", "cylinder", "none", (70, 95), (900, 2200), (2, 8), (33, 39), (32, 62), (13, 75)),
    Goods("thin_sausage", "cylinder", "natural", (20, 26), (100, 220), (24, 32), (36, 41), (6.5, 10), (18, 56)),
    Goods("belly", "slab", "none", (28, 42), (1000, 1700), (40, 48), (20, 25), (22, 42), (12, 76)),
    Goods("breast", "slab", "none", (20, 30), (240, 480), (16, 26), (28, 33), (9, 20), (10, 72)),
    Goods("whole_muscle", "irregular", "none", (78, 92), (1400, 1900), (4, 14), (32, 36), (42, 63), (3.5, 48)),
    Goods("whole_muscle", "irregular", "none", (78, 88), (1350, 1650), (2, 8), (29, 31), (19, 23), (10, 72)),
    Goods("whole_muscle", "cylinder", "none", (42, 50), (330, 480), (2, 4), (28, 32), (8, 14), (12, 50)),
    Goods("ham", "irregular", "natural", (120, 135), (3900, 5000), (8, 16), (37, 40), (77, 105), (13, 75)),
)
NEAR_C, NEAR_RH = 3.0, 12.0  # goods whose climates are this close may share a room


@dataclass(frozen=True)
class Truth:
    """A history up to its end, the day each piece truly passed its target, and when each batch had gone how far."""

    history: History
    days: Array  # since hanging
    way: dict[str, Array]  # by batch: days at which the middle piece had lost 0…100 % of its target, in steps of 5 %


WAY = np.linspace(0, 1, 21)


@cache
def simulate(physics: str, seed: int) -> Truth:
    """One room with two batches, by the name of a physics."""
    rng = np.random.default_rng(seed)
    first = GOODS[seed % len(GOODS)]
    climate = (first.climate[0] + rng.normal(0, 0.6), first.climate[1] + rng.normal(0, 2.0))
    end_s = 270 * DAY
    at = np.arange(0, end_s, STEP_S)
    chamber = SimulatedChamber(climate[0], climate[1], weather_share=float(rng.uniform(0.0, 0.08)))
    c, rh = chamber.log(at, seed)
    true_air = Log(at, c, rh)
    shown = Log(at, c, np.clip(rh + rng.normal(0, 1.5), 1, 100))
    luck = rng.normal(0, 0.1)
    near = [
        g for g in GOODS
        if abs(g.climate[0] - first.climate[0]) < NEAR_C and abs(g.climate[1] - first.climate[1]) < NEAR_RH
    ]  # fmt: skip
    pieces: list[Piece] = []
    crossed: list[float] = []
    way = {}
    for b, goods in enumerate((first, near[int(rng.integers(len(near)))])):
        made, days, way[f"B{b}"] = _batch(PHYSICS[physics], goods, f"B{b}", rng, luck, true_air, DAY * (1 + 6 * b))
        pieces += made
        crossed += days
    history = History(tuple(pieces), shown, chamber.temperature_c, chamber.rh_percent, end_s)
    return Truth(history, np.array(crossed), way)


def _batch(
    physics: Physics, goods: Goods, code: str, rng: np.random.Generator, luck: float, air: Log, hung_s: float
) -> tuple[list[Piece], list[float], Array]:
    n = int(rng.integers(4, 8))
    place = rng.uniform(size=3)
    low, high = goods.across_mm
    across = low + place[0] * (high - low)
    fat = goods.fat[0] + place[1] * (goods.fat[1] - goods.fat[0])
    target = goods.target[0] + place[2] * (goods.target[1] - goods.target[0])
    usual = goods.usual_days[0] + place[0] * (goods.usual_days[1] - goods.usual_days[0])
    water = 0.75 * (1 - fat / 100)
    own = rng.normal(size=3)
    body = Batch(
        np.ones(1), np.full(1, water), across / 2000, goods.shape != "slab", float(goods.shape == "irregular"),
        (float(own[0]), float(own[1]), float(own[2])),
    )  # fmt: skip
    still = driven(np.full(400 * 24, goods.climate[0]), np.full(400 * 24, goods.climate[1]))
    pace = _passed(physics(body, *still)[:, 0], target) / usual
    pace = pace * np.exp(luck + rng.normal(0, 0.2) + rng.normal(0, 0.08, n))
    hours = np.arange(220 * 24)
    real = driven(*(np.interp(hung_s + hours * STEP_S, air.time_s, a) for a in (air.temperature_c, air.rh_percent)))
    loss = physics(replace(body, pace=pace, water=water + rng.normal(0, 0.008, n)), *real)
    grams = goods.grams[0] + place[0] * (goods.grams[1] - goods.grams[0])
    declared_fat = None if rng.random() < 0.3 else max(0, round(fat + rng.normal(0, 3)))
    weighed = rng.random(n) < (1.0 if rng.random() < 0.6 else 0.4)
    measured = rng.random() < 0.85
    middle = np.median(loss, axis=1)
    way = np.interp(WAY * target / 100, middle, np.arange(len(middle)) / 24)
    made, days = [], []
    for i in range(n):
        reached = _passed(loss[:, i], target)
        start = round(float(grams * rng.uniform(0.92, 1.08)))
        size = round(across * float(rng.normal(1, 0.03)))
        if not np.isfinite(reached):
            continue  # makers do not set targets that are never reached
        piece = Piece(
            f"{code}-{i}", code, goods.kind, goods.shape, goods.casing, declared_fat, 2.7,
            size if measured and goods.shape != "slab" else None, size if measured and goods.shape == "slab" else None,
            None, start, 0.0, hung_s, round(target, 1),
        )  # fmt: skip
        made.append(replace(piece, weighings=_weigh(piece, loss[:, i], reached, rng)) if weighed[i] else piece)
        days.append(reached)
    return made, days, way


def _passed(loss: Array, target_percent: float) -> float:
    """Days until a loss by the hour passes its target; infinite if it never does."""
    hour = int(np.argmax(loss >= target_percent / 100))
    return hour / 24 if hour else float("inf")


def _weigh(piece: Piece, loss: Array, days: float, rng: np.random.Generator) -> tuple[Weighing, ...]:
    every = max(days / rng.uniform(4, 10), 1.0)
    taken = []
    at = every * rng.uniform(0.6, 1.2)
    while at < days:
        gross_g = round(
            piece.gross_at(float(np.interp(at * 24, np.arange(len(loss)), loss))) * (1 + rng.normal(0, 0.001))
        )
        if rng.random() < 1 / 60:
            digits = list(f"{gross_g}")
            digits[0], digits[1] = digits[1], digits[0]
            gross_g = max(1, int("".join(digits)))
        taken.append(Weighing(piece.hung_at_s + at * DAY, float(gross_g)))
        at += every * rng.uniform(0.7, 1.3)
    return tuple(taken)
