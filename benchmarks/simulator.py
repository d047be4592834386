"""Hanging histories with known outcomes, from a physics that is not the engine's.

A piece is two boxes, a rim and a core, that exchange water in proportion to their difference; the rim loses water to
the air by another isotherm than the engine's, and stiffens as it dries. Luck differs by workshop, batch and piece;
sizes and fat are declared with errors or not at all; one weighing in sixty is wrong.
"""

from dataclasses import dataclass, replace
from functools import cache
from typing import Any

import numpy as np
import numpy.typing as npt

from zymon.core.air import saturation_pressure
from zymon.core.drying.climate import Log
from zymon.core.drying.history import History, Piece, Weighing
from zymon.standins.chamber import SimulatedChamber

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
    rim_share: float = 0.4


GOODS = (
    Goods("salame", "cylinder", "natural", (40, 62), (350, 950), (20, 32), (31, 38), (24, 60), (13, 79)),
    Goods("salame", "cylinder", "fibrous", (75, 95), (1500, 2800), (20, 32), (31, 36), (60, 95), (13, 80)),
    Goods(
        "whole_muscle", "irregular", "natural", (75, 115), (900, 3000), (5, 18), (30, 38), (28, 90), (12.5, 78), 0.25
    ),
    Goods("whole_muscle", "cylinder", "none", (70, 95), (900, 2200), (2, 8), (33, 39), (32, 62), (13, 75)),
    Goods("thin_sausage", "cylinder", "natural", (20, 26), (100, 220), (24, 32), (36, 41), (6.5, 10), (18, 56)),
    Goods("belly", "slab", "none", (28, 42), (1000, 1700), (40, 48), (20, 25), (22, 42), (12, 76)),
    Goods("breast", "slab", "none", (20, 30), (240, 480), (16, 26), (28, 33), (9, 20), (10, 72)),
)


@dataclass(frozen=True)
class Truth:
    """A history up to its end, and the day each piece truly passed its target, since hanging."""

    history: History
    days: Array


def _dry(goods: Goods, pace: Array, water: Array, days: int, air: Log, hung_s: float) -> Array:
    """Loss [share] by hour, shape (hours+1, n), for n pieces of one batch."""
    hours = int(days * 24)
    at = hung_s + np.arange(hours) * STEP_S
    drive = saturation_pressure(np.interp(at, air.time_s, air.temperature_c)) / 1500.0
    rh = np.interp(at, air.time_s, air.rh_percent) / 100
    rim, core = np.ones_like(pace), np.ones_like(pace)  # water as share of what there was
    share = goods.rim_share
    loss = np.zeros((hours + 1, len(pace)))
    for i in range(hours):
        activity = 1 - 0.035 / np.maximum(rim, 0.02) ** 1.25  # another isotherm than the engine's
        out = pace * drive[i] * np.maximum(activity - rh[i], 0.0) * np.minimum(1.0, 0.35 + 0.65 * rim)
        across = 1.9 * pace * (core - rim) * (0.3 + 0.7 * rim)
        rim = np.maximum(rim + (across * (1 - share) - out) / share / 24, 0.02)
        core = core - across / 24
        loss[i + 1] = water * (1 - share * rim - (1 - share) * core)
    return loss


@cache
def simulate(seed: int) -> Truth:
    """One room with two batches."""
    rng = np.random.default_rng(seed)
    first = GOODS[seed % len(GOODS)]
    climate = (first.climate[0] + rng.normal(0, 0.6), first.climate[1] + rng.normal(0, 2.0))
    end_s = 220 * DAY
    at = np.arange(0, end_s, STEP_S)
    chamber = SimulatedChamber(climate[0], climate[1], weather_share=float(rng.uniform(0.0, 0.08)))
    c, rh = chamber.log(at, seed)
    true_air = Log(at, c, rh)
    shown = Log(at, c, np.clip(rh + rng.normal(0, 1.5), 1, 100))
    luck = rng.normal(0, 0.1)
    pieces: list[Piece] = []
    crossed: list[float] = []
    for b in range(2):
        goods = (
            first
            if b == 0
            else next(g for g in GOODS[(seed * 3 + b) % 7 :] + GOODS if abs(g.climate[0] - first.climate[0]) < 3)
        )
        made, days = _batch(goods, f"B{b}", rng, luck, true_air, DAY * (1 + 6 * b))
        pieces += made
        crossed += days
    return Truth(History(tuple(pieces), shown, chamber.temperature_c, chamber.rh_percent, end_s), np.array(crossed))


def _batch(
    goods: Goods, code: str, rng: np.random.Generator, luck: float, air: Log, hung_s: float
) -> tuple[list[Piece], list[float]]:
    n = int(rng.integers(4, 8))
    place = rng.uniform(size=3)
    low, high = goods.across_mm
    across = low + place[0] * (high - low)
    fat = goods.fat[0] + place[1] * (goods.fat[1] - goods.fat[0])
    target = goods.target[0] + place[2] * (goods.target[1] - goods.target[0])
    usual = goods.usual_days[0] + place[0] * (goods.usual_days[1] - goods.usual_days[0])
    water = 0.75 * (1 - fat / 100)
    share_lost = target / 100 / water
    gap = max(0.93 - goods.climate[1] / 100, 0.05)
    pace = share_lost / usual / gap * 1.25 * np.exp(luck + rng.normal(0, 0.2) + rng.normal(0, 0.08, n))
    loss = _dry(goods, pace, np.full(n, water) + rng.normal(0, 0.008, n), 200, air, hung_s)
    grams = goods.grams[0] + place[0] * (goods.grams[1] - goods.grams[0])
    declared_fat = None if rng.random() < 0.3 else max(0, round(fat + rng.normal(0, 3)))
    weighed = rng.random(n) < (1.0 if rng.random() < 0.6 else 0.4)
    measured = rng.random() < 0.85
    made, days = [], []
    for i in range(n):
        reached = np.argmax(loss[:, i] >= target / 100)
        if reached == 0:
            continue  # makers do not set targets that are never reached
        start = round(float(grams * rng.uniform(0.92, 1.08)))
        size = round(across * float(rng.normal(1, 0.03)))
        piece = Piece(
            f"{code}-{i}", code, goods.kind, goods.shape, goods.casing, declared_fat, 2.7,
            size if measured and goods.shape != "slab" else None, size if measured and goods.shape == "slab" else None,
            None, start, 0.0, hung_s, round(target, 1),
        )  # fmt: skip
        made.append(
            replace(piece, weighings=_weigh(piece, loss[:, i], float(reached) / 24, rng)) if weighed[i] else piece
        )
        days.append(float(reached) / 24)
    return made, days


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
