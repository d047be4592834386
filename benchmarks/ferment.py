"""How true the crossings of pH 5.3 are, on simulated fermentations of another kind than the forecast's.

Bacteria grow by Monod's law on sugar and are slowed by their own acid. The forecast knows a sigmoid on a clock. Luck
differs by batch; readings carry an error, an offset of the meter and now and then a slip.
"""

from dataclasses import dataclass

import numpy as np

from zymon.core.fermentation.curve import Culture, Fermentation, Reading
from zymon.core.fermentation.forecast import forecast_fermentation
from zymon.limits import shipped

BATCHES = 120
STEP_H = 0.25
LONGEST_H = 240.0

# culture → box temperature, growth per hour there, lag in hours
STRAINS: dict[Culture, tuple[tuple[float, float], float, float]] = {
    "slow": ((19, 24), 0.16, 14.0),
    "medium": ((22, 27), 0.34, 5.0),
    "fast": ((31, 37), 0.75, 1.5),
    "wild": ((19, 24), 0.13, 20.0),
}


@dataclass(frozen=True)
class Truth:
    """A batch, its readings to come, and when it truly crosses 5.3 (None: never)."""

    batch: Fermentation
    readings: tuple[Reading, ...]
    crosses_hour: float | None


A_THIRD_QUICKER = 1.5


def simulate(seed: int, pace: float = 1.0) -> Truth:
    """One batch in a warm box. Parameters: pace, how much quicker than usual its culture wakes and grows [-]."""
    rng = np.random.default_rng(seed)
    culture: Culture = list(STRAINS)[seed % len(STRAINS)]
    (low, high), growth, lag = STRAINS[culture]
    level_c = float(rng.uniform(low, high))
    dextrose = float(rng.choice([0.3, 0.4, 0.5, 0.7]))
    start = float(rng.normal(5.78, 0.1))
    hours = np.arange(0, LONGEST_H, STEP_H)
    goods = level_c + (6 - level_c) * np.exp(-hours / rng.uniform(2, 4))
    growth, lag = growth * pace, lag / pace
    rate = growth * np.exp(rng.normal(0, 0.18)) * np.exp(0.07 * (goods - (low + high) / 2))
    lag *= float(np.exp(rng.normal(0, 0.3)))
    dead = rng.random() < 0.08
    cells, sugar, acid = (1e-4 if dead else 0.02), dextrose * 10 + 0.5, 0.0
    buffer = float(rng.normal(55, 5))
    ph, adapted = [], 0.0
    for r in rate:
        now = start - acid / buffer
        ph.append(now)
        adapted += STEP_H * r / growth
        awake = 1 / (1 + np.exp(-(adapted - lag) / 1.5))
        slowed = max(0.0, min(1.0, (now - 4.3) / 1.0))
        feeding = r * awake * slowed * sugar / (sugar + 0.8)
        cells += STEP_H * feeding * cells * (1 - cells)
        eaten = min(STEP_H * feeding * cells * 3.2, sugar)
        sugar -= eaten
        acid += eaten * 11.1
    curve = np.array(ph)
    reached = np.argmax(curve <= 5.3)
    crosses = float(hours[reached]) if curve[reached] <= 5.3 else None
    offset = rng.normal(0, 0.02)
    readings, at = [], float(rng.uniform(10, 18))
    while at < 72:
        value = float(np.interp(at, hours, curve) + offset + rng.normal(0, 0.025))
        readings.append(Reading(at, round(value * 10 if rng.random() < 0.02 else value, 2)))
        at += float(rng.uniform(3, 9))
    box = tuple((float(h), float(level_c + rng.normal(0, 0.4))) for h in np.arange(0, 80, 0.5))
    salt, measured = float(rng.uniform(2.4, 3.2)), round(start + rng.normal(0, 0.03), 2)
    batch = Fermentation(culture, dextrose, salt, measured, 5.1, level_c, box, (), 0.0)
    return Truth(batch, tuple(readings), crosses)


def _asked(truth: Truth, seen: int) -> Fermentation:
    readings = truth.readings[:seen]
    now = readings[-1].hour if readings else 0.0
    known = vars(truth.batch) | {
        "readings": readings,
        "now_hour": now,
        "temperature": tuple(p for p in truth.batch.temperature if p[0] <= now),
    }
    return Fermentation(**known)


def measure() -> str:
    """The tables: usual cultures, and such as are bought today, a third quicker."""
    return f"Usual cultures.\n\n{_table(1.0)}\nCultures a third quicker.\n\n{_table(A_THIRD_QUICKER)}"


def _table(pace: float) -> str:
    table = shipped()["us"].degree_hours
    lines = [
        f"{BATCHES} batches of bacteria that grow, eat and sour, fixed seeds; crossings still ahead when asked.\n",
        "| readings seen | crossings ahead | median error | inside the window | mean width | never cross: flagged |",
        "|---|---|---|---|---|---|",
    ]
    truths = [simulate(seed, pace) for seed in range(BATCHES)]
    for seen in (0, 1, 2, 3):
        errors, inside, widths, flagged = [], [], [], []
        for truth in truths:
            batch = _asked(truth, seen)
            made = forecast_fermentation(batch, table)
            hours = made.crosses
            if truth.crosses_hour is None:
                flagged.append(hours.p50 is None or made.state in ("slow", "stalled", "over_allowance"))
            elif truth.crosses_hour > batch.now_hour:
                known = hours.p10 is not None and hours.p50 is not None and hours.p90 is not None
                low, mid, high = (hours.p10, hours.p50, hours.p90) if known else (LONGEST_H,) * 3
                assert low is not None
                assert mid is not None
                assert high is not None
                errors.append(abs(mid - truth.crosses_hour))
                inside.append(low <= truth.crosses_hour <= high)
                widths.append(high - low)
        lines.append(
            f"| {seen} | {len(errors)} | {np.median(errors):.1f} h | {100 * np.mean(inside):.0f} % | "
            f"{np.mean(widths):.0f} h | {100 * np.mean(flagged):.0f} % of {len(flagged)} |"
        )
    return "\n".join(lines) + "\n"
