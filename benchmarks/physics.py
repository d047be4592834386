"""Three ways to dry a piece, none of them the engine's, for histories whose outcome is known.

Each takes the pieces of one batch side by side and gives their loss hour by hour for a pace of 1; the simulator scales
the pace until such goods take the time that makers report.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from zymon.core.air import saturation_pressure

Array = npt.NDArray[np.float64]
HOUR_S = 3600.0
USUAL_PA = 1500.0  # saturation pressure near 13 °C, for a drive of about 1
FRESH_ACTIVITY = 0.965


@dataclass(frozen=True)
class Batch:
    """What a physics may know of n pieces: pace and water share (n,), half thickness [m], how uneven they are."""

    pace: Array
    water: Array
    half_thickness_m: float
    cylinder: bool
    uneven: float  # 0 one thickness throughout, 1 an irregular muscle
    luck: tuple[float, float, float]  # normals that shape this batch


Physics = Callable[[Batch, Array, Array], Array]


def shell_and_core(batch: Batch, drive: Array, rh: Array) -> Array:
    """A rim and a core that exchange water by their difference; a rim that dries passes less. Loss (hours+1, n)."""
    share = 0.4 - 0.12 * batch.uneven
    exchange = (1.9 - 1.55 * batch.uneven) * np.exp(0.2 * batch.luck[0])
    rim, core = np.ones_like(batch.pace), np.ones_like(batch.pace)  # water as share of what there was
    loss = np.zeros((len(drive) + 1, len(batch.pace)))
    for i in range(len(drive)):
        activity = 1 - 0.035 / np.maximum(rim, 0.02) ** 1.25
        out = batch.pace * drive[i] * np.maximum(activity - rh[i], 0.0) * np.minimum(1.0, 0.35 + 0.65 * rim)
        across = exchange * batch.pace * (core - rim) * (0.3 + 0.7 * rim)
        rim = np.maximum(rim + (across * (1 - share) - out) / share / 24, 0.02)
        core = core - across / 24
        loss[i + 1] = batch.water * (1 - share * rim - (1 - share) * core)
    return loss


def warped_curve(batch: Batch, drive: Array, rh: Array) -> Array:
    """A curve towards the plateau of the air, drawn over a clock that runs as fast as the air pulls."""
    power = np.clip(0.97 - 0.31 * batch.uneven + 0.05 * batch.luck[0], 0.5, 1.0)
    left = 0.16 * np.exp(0.15 * batch.luck[1]) * np.sqrt(np.maximum(rh, 0.05) / (1.02 - np.minimum(rh, 0.99)) / 3)
    gone = np.zeros_like(batch.pace)
    loss = np.zeros((len(drive) + 1, len(batch.pace)))
    clock = np.full_like(batch.pace, 1e-3)
    for i in range(len(drive)):
        clock = clock + batch.pace * drive[i] * max(FRESH_ACTIVITY - rh[i], 0.0) / 24
        gone = np.maximum(gone, (1 - left[i]) * (1 - np.exp(-(clock**power))))
        loss[i + 1] = batch.water * gone
    return loss


LAYERS = 10


def layers(batch: Batch, drive: Array, rh: Array) -> Array:
    """Equal layers between which water diffuses, by another law of its slowing; an uneven piece is three of them."""
    parts = [(1.0, 1.0)] if not batch.uneven else [(0.55, 0.25), (1.0, 0.45), (1.35, 0.30)]
    return sum(
        (share * _layers(batch, batch.half_thickness_m * width, drive, rh) for width, share in parts),
        np.zeros((len(drive) + 1, len(batch.pace))),
    )


def _layers(batch: Batch, half_m: float, drive: Array, rh: Array) -> Array:
    edge = np.linspace(0, 1, LAYERS + 1)[:, None]
    power = 2 if batch.cylinder else 1
    volume = np.diff(edge**power, axis=0)
    face = power * edge[1:] ** (power - 1)
    steepness = 0.55 * np.exp(0.3 * batch.luck[1])
    diffusivity = 1.2e-10 * (1 - 0.5 * batch.uneven) * np.exp(0.35 * batch.luck[0])
    permeance = 0.8e-8 * (1 + batch.uneven) * np.exp(0.25 * batch.luck[2])
    dry_kg_m3 = 1060.0 * 0.25
    x = np.full((LAYERS, len(batch.pace)), 2.6)
    parts = int(np.ceil(diffusivity * float(batch.pace.max()) * HOUR_S / (half_m / LAYERS) ** 2 / 0.3))
    dt = HOUR_S / parts
    loss = np.zeros((len(drive) + 1, len(batch.pace)))
    for i in range(len(drive)):
        for _ in range(parts):
            slowed = diffusivity * batch.pace * np.sqrt(drive[i]) * np.exp(-steepness * (1 / x - 1 / 2.6))
            between = 2 * slowed[1:] * slowed[:-1] / (slowed[1:] + slowed[:-1])
            inward = face[:-1] * between * (x[:-1] - x[1:]) * LAYERS / half_m**2
            activity = 0.99 - 0.13 / np.maximum(x[-1], 0.15)
            pull = USUAL_PA * drive[i] * np.maximum(activity - rh[i], 0.0)
            out = permeance * batch.pace * pull / dry_kg_m3 / half_m * face[-1]
            x[:-1] -= dt * inward / volume[:-1]
            x[1:] += dt * inward / volume[1:]
            x[-1] = np.maximum(x[-1] - dt * out / volume[-1], 0.1)
        loss[i + 1] = batch.water * (1 - (volume * x).sum(axis=0) / 2.6)
    return loss


PHYSICS: dict[str, Physics] = {"shell and core": shell_and_core, "warped curve": warped_curve, "layers": layers}


def driven(temperature_c: Array, rh_percent: Array) -> tuple[Array, Array]:
    """Drive (1 near 13 °C) and humidity [share] of hourly air."""
    return saturation_pressure(temperature_c) / USUAL_PA, rh_percent / 100
