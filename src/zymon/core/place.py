"""What the log of a place says of it: does it keep its set point, where it failed, how it swings, what would suit."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from .drying.climate import Log
from .drying.surroundings import FROST_C
from .errors import require

Array = npt.NDArray[np.float64]

BAND_C, BAND_RH = 1.5, 5.0  # around the set point: good keeping
FAULT_C, FAULT_RH = 2.5, 9.0  # beyond it something failed
# hours a fault lasts before it counts, and that a reading stands for at most; estimates
FAULT_HOURS, GAP_HOURS = 2.0, 3.0
DAMP_RH, DEW_RH = 90.0, 96.0  # percent; mould and slime thrive, water settles; estimates
DOOR_BACK_S = 3600.0  # jumps closer together [s] are one opening of the door; estimate from logs
DOOR_C, DOOR_RH, DOOR_HOURS = 0.8, 4.0, 0.3  # a jump of both within minutes, away and back: the door
UNDER_SURFACE = 4.5  # points of humidity under the water activity of the skin that dry gently
HURT_POINTS = 4.0  # points of humidity off its wish that do harm; estimate
GENTLEST_RH, DRIEST_RH = 84.0, 62.0  # percent; the range that usual practice sets a chamber to
HEAT_ABOVE_C, HEAT_HOURS = 22.0, 4.0  # so long above it goods that hang wet are in danger; practice
LONGEST_STEP_S = 6 * 3600.0  # one reading tells of no more time than this


@dataclass(frozen=True)
class Span:
    """From when to when [s], what was wrong, and the worst of it."""

    from_s: float
    to_s: float
    what: str  # warm, cold, damp, dry or silent
    worst: float


@dataclass(frozen=True)
class PlaceFacts:
    """What the log of a place says; shares of the time that was logged."""

    hours: float
    in_band: float | None  # None without a set point
    outages: tuple[Span, ...]
    gaps: tuple[Span, ...]
    swing_c: float  # between the warm and the cold of a day, median
    swing_rh: float
    damp_hours: float
    dew_hours: float
    doors_a_day: float


def place_facts(log: Log, setpoint_c: float | None, setpoint_rh_percent: float | None) -> PlaceFacts:
    """Read a log.

    Parameters: log, of one place; setpoint_c [°C] and setpoint_rh_percent [%], None where it is not controlled.
    """
    t, c, rh = log.time_s, log.temperature_c, log.rh_percent
    if len(t) < 2:
        return PlaceFacts(0.0, None, (), (), 0.0, 0.0, 0.0, 0.0, 0.0)
    step = np.diff(t) / 3600
    seen = np.append(np.minimum(step, GAP_HOURS), 0.0)
    hours = float(seen.sum())
    off_c = c - (np.median(c) if setpoint_c is None else setpoint_c)
    off_rh = rh - (np.median(rh) if setpoint_rh_percent is None else setpoint_rh_percent)
    known = setpoint_c is not None or setpoint_rh_percent is not None
    keeps = (np.abs(off_c) <= BAND_C) & (np.abs(off_rh) <= BAND_RH)
    swing_c, swing_rh = _swing(t, c), _swing(t, rh)
    return PlaceFacts(
        hours=hours,
        in_band=float(seen[keeps].sum() / hours) if known and hours > 0 else None,
        outages=tuple(_faults(t, off_c, off_rh)) if known else (),
        gaps=tuple(
            Span(float(a), float(b), "silent", float((b - a) / 3600))
            for a, b in itertools.pairwise(t)
            if b - a > GAP_HOURS * 3600
        ),
        swing_c=swing_c,
        swing_rh=swing_rh,
        damp_hours=float(seen[rh >= DAMP_RH].sum()),
        dew_hours=float(seen[rh >= DEW_RH].sum()),
        doors_a_day=_doors(t, c, rh) / max(hours / 24, 1e-9),
    )


def _faults(t: Array, off_c: Array, off_rh: Array) -> list[Span]:
    """Runs beyond what a controller does, two hours and longer."""
    out = []
    for off, most, words in ((off_c, FAULT_C, ("warm", "cold")), (off_rh, FAULT_RH, ("damp", "dry"))):
        for sign, word in zip((1.0, -1.0), words, strict=True):
            wrong = sign * off > most
            edges = np.flatnonzero(np.diff(np.concatenate([[False], wrong, [False]])))
            for a, b in zip(edges[::2], edges[1::2], strict=True):
                if t[b - 1] - t[a] >= FAULT_HOURS * 3600:
                    out.append(Span(float(t[a]), float(t[b - 1]), word, float(np.abs(off[a:b]).max())))
    return sorted(out, key=lambda s: s.from_s)


def _swing(t: Array, values: Array) -> float:
    day = (t // 86_400).astype(np.int64)
    first = np.flatnonzero(np.diff(np.concatenate([[-1], day])))
    return float(np.median(np.maximum.reduceat(values, first) - np.minimum.reduceat(values, first)))


def _doors(t: Array, c: Array, rh: Array) -> int:
    """Jumps of temperature and humidity together within minutes."""
    quick = np.diff(t) <= DOOR_HOURS * 3600
    jump = quick & (np.abs(np.diff(c)) >= DOOR_C) & (np.abs(np.diff(rh)) >= DOOR_RH)
    at = t[1:][jump]
    # away and back are one opening
    return int(len(at) > 0) + int((np.diff(at) > DOOR_BACK_S).sum())


@dataclass(frozen=True)
class Wish:
    """The humidity that a piece would have [%], by the water activity of its skin."""

    tag: str
    rh_percent: float


@dataclass(frozen=True)
class SetpointAdvice:
    """A humidity for the whole chamber [%], and whom the compromise hurts: too dry for, too damp for."""

    rh_percent: float
    too_dry_for: tuple[str, ...]
    too_damp_for: tuple[str, ...]


def wished_humidity(water_activity: float) -> float:
    """The humidity that dries a skin gently [%]. Parameters: water_activity [-] of the skin. Estimate of practice.

    >>> wished_humidity(0.86)
    81.5
    """
    require("water activity", water_activity, 0.3, 1.0, "")
    return float(np.clip(100 * water_activity - UNDER_SURFACE, DRIEST_RH, GENTLEST_RH))


def setpoint_advice(wishes: Sequence[Wish]) -> SetpointAdvice | None:
    """One humidity for pieces that want different ones: the median wish. Parameters: wishes; None without any."""
    if not wishes:
        return None
    best = round(float(np.median([w.rh_percent for w in wishes])))
    dry = tuple(w.tag for w in wishes if w.rh_percent > best + HURT_POINTS)
    damp = tuple(w.tag for w in wishes if w.rh_percent < best - HURT_POINTS)
    return SetpointAdvice(float(best), dry, damp)


@dataclass(frozen=True)
class Extreme:
    """That a place was frozen, or hot, lately: since when [s], for how many hours, how far [°C]."""

    what: Literal["frost", "heat"]
    from_s: float
    hours: float
    worst_c: float


def extremes(log: Log) -> list[Extreme]:
    """Frost and heat in a log, whatever the place is set to; empty where there was none.

    Parameters: log, of the last days. Frozen meat dries no more and its surface tears; in the heat fat runs and rots.
    """
    found: list[Extreme] = []
    spans = np.append(np.minimum(np.diff(log.time_s), LONGEST_STEP_S), 3600.0) if len(log.time_s) else np.zeros(0)
    over: tuple[tuple[Literal["frost", "heat"], npt.NDArray[np.bool_], float], ...] = (
        ("frost", log.temperature_c < FROST_C, 0.0),
        ("heat", log.temperature_c > HEAT_ABOVE_C, HEAT_HOURS),
    )
    for what, there, at_least in over:
        hours = float(spans[there].sum()) / 3600
        if there.any() and hours >= at_least:
            worst = log.temperature_c[there]
            worst_c = float(worst.min() if what == "frost" else worst.max())
            found.append(Extreme(what, float(log.time_s[there][0]), hours, worst_c))
    return found
