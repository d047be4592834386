"""Hurdles of time and temperature: cold while curing, and degree-hours until pH 5.3 is measured."""

import itertools
from collections.abc import Sequence
from dataclasses import replace

from ..degree_hours import HURDLE_PH, degree_hours
from .batch import GAP_HOURS, Batch, Cure, Hurdle, Points, WarmStage
from .bowl import dose_is_known

PRACTICE = "usual practice for dried goods"
COLD_C, LONGEST_RUN_HOURS = 5.0, 4.0
CORE_LEAST = 0.6  # of the level a core settles at, before it leaves the cold; estimate of practice
CORE_SOURCE = "diffusion of salt in muscle"
TOXIN = "staphylococcal_enterotoxin"


def cold_cure(batch: Batch) -> Hurdle:
    """Cold while curing. Parameters: batch."""
    return cold_hurdle(batch.cure, batch.now_hour)


def cold_hurdle(cure: Cure | None, now_hour: float) -> Hurdle:
    """Cold over one time in salt. Parameters: cure, None when it is not known; now_hour [h]."""
    limit, unit = f"no run of more than {LONGEST_RUN_HOURS:g} h above {COLD_C:g} °C", "h"
    if cure is None:
        says = "log the temperature of the place, or let somebody sign for it"
        return Hurdle("cold_cure", "unknown", None, limit, unit, "not known", PRACTICE, says=says)
    curing = cure.to_hour is None or cure.to_hour > now_hour
    end = now_hour if curing or cure.to_hour is None else cure.to_hour
    run, gap = _warmest_run(cure, end)
    if run > LONGEST_RUN_HOURS + 1e-9:
        says = f"{run:.1f} h above {COLD_C:g} °C in one run"
        return Hurdle("cold_cure", "fail", run, limit, unit, "measured", PRACTICE, says=says)
    if gap is not None:
        says = "no log" if not cure.temperature else f"the log is silent for {gap:.0f} h"
        value = run if cure.temperature else None
        return Hurdle("cold_cure", "unknown", value, limit, unit, "not known", PRACTICE, says=says)
    if curing:
        return Hurdle("cold_cure", "pending", run, limit, unit, "measured", PRACTICE, says="still in salt")
    return Hurdle("cold_cure", "pass", run, limit, unit, "measured", PRACTICE)


def worst_cure(cures: Sequence[Cure], now_hour: float) -> Cure | None:
    """Of pieces that lay in different places, the time in salt that says most against the batch.

    Parameters: cures, one per piece; now_hour [h].
    """
    order = ("fail", "unknown", "pending", "pass")
    judged = [(order.index(cold_hurdle(cure, now_hour).state), i) for i, cure in enumerate(cures)]
    if not judged:
        return None
    free = next(
        (cure.way for cure in cures if not dose_is_known(cure.way)), None
    )  # one piece under free salt is enough
    worst = cures[min(judged)[1]]
    return worst if free is None else replace(worst, way=free)


def core_salt(batch: Batch) -> Hurdle | None:
    """Core salt reached before leaving the cold; None where nobody followed the salt. Parameters: batch."""
    limit, unit = f"core at {100 * CORE_LEAST:.0f} % of its final level", "%"
    core = batch.core_salt
    if core is None:
        return None
    value = 100 * core.share
    if not core.out:
        says = f"{core.tag} is still in salt"
        return Hurdle("core_salt", "pending", value, limit, unit, "estimated", CORE_SOURCE, says=says)
    if core.share >= CORE_LEAST:
        return Hurdle("core_salt", "pass", value, limit, unit, "estimated", CORE_SOURCE, "by estimate: not a test")
    says = f"{core.tag} came out early: keep it under 4 °C until its core has its salt, or let somebody sign for it"
    return Hurdle("core_salt", "unknown", value, limit, unit, "estimated", CORE_SOURCE, says=says)


def _warmest_run(cure: Cure, end: float) -> tuple[float, float | None]:
    """Longest run above the bound within the cure [h], and the longest silence where it is a gap [h]."""
    start = cure.from_hour
    points = _within(cure.temperature, start, end)
    if not points:
        return 0.0, max(end - start, GAP_HOURS)
    edges = [start, *(hour for hour, _ in points), end]
    longest_gap = max(b - a for a, b in itertools.pairwise(edges))
    longest = run = 0.0
    # held at the ends, where the log begins a little late or stops a little early
    filled = [(start, points[0][1]), *points, (end, points[-1][1])]
    for (h0, c0), (h1, c1) in itertools.pairwise(filled):
        hours = h1 - h0
        if hours > GAP_HOURS:
            run = 0.0
        elif c0 > COLD_C and c1 > COLD_C:
            run += hours
        elif c0 <= COLD_C and c1 <= COLD_C:
            run = 0.0
        else:
            above = hours * (max(c0, c1) - COLD_C) / abs(c1 - c0)
            if c0 > COLD_C:
                longest = max(longest, run + above)
                run = 0.0
            else:
                run = above
        longest = max(longest, run)
    return longest, longest_gap if longest_gap > GAP_HOURS + 1e-9 else None


def _within(points: Points, start: float, end: float) -> list[tuple[float, float]]:
    """The readings from start to end, with the values at both where a neighbouring reading tells them."""
    inside = [p for p in points if start <= p[0] <= end]
    before = [p for p in points if p[0] < start]
    after = [p for p in points if p[0] > end]
    if before and (inside or after):
        inside.insert(0, (start, _between(before[-1], (inside or after)[0], start)))
    if after and inside:
        inside.append((end, _between(inside[-1], after[0], end)))
    return inside


def _between(a: tuple[float, float], b: tuple[float, float], at: float) -> float:
    return a[1] if b[0] <= a[0] else a[1] + (b[1] - a[1]) * (at - a[0]) / (b[0] - a[0])


def first_at_hurdle(warm: WarmStage, now_hour: float) -> float | None:
    """The hour of the first measured pH at or under 5.3, or None. Parameters: warm; now_hour [h]."""
    return next((h for h, ph in warm.ph if warm.from_hour <= h <= now_hour and ph <= HURDLE_PH), None)


def degree_hours_hurdle(batch: Batch) -> Hurdle:
    """Degree-hours until the first measured pH 5.3. Parameters: batch."""
    table = batch.profile.degree_hours
    unit, source = f"{table.unit} h", batch.profile.source
    toxin = batch.lab(TOXIN)
    limit = f"within the allowance of {max(s.limit for s in table.steps):g} {unit}"
    if toxin is not None:
        if toxin <= 0:
            caution = "answered by the laboratory: no enterotoxin found"
            return Hurdle("degree_hours", "pass", toxin, limit, unit, "laboratory", source, caution)
        says = "the laboratory found enterotoxin"
        return Hurdle("degree_hours", "fail", toxin, limit, unit, "laboratory", source, says=says)
    warm = batch.warm
    if warm is None or warm.way == "none":
        says = "hung cold, without a warm stage" if warm is not None else "no warm stage is known"
        says += ": somebody must sign for it"
        return Hurdle("degree_hours", "unknown", None, limit, unit, "not known", source, says=says)
    reached = first_at_hurdle(warm, batch.now_hour)
    end = batch.now_hour if reached is None else reached
    points = [p for p in _within(warm.temperature, warm.from_hour, max(end, warm.from_hour)) if p[0] <= end]
    known_to = _gap_free_to(points, warm.from_hour, end)
    if not points or known_to is None:
        says = "the temperature was not logged from the start"
        return Hurdle("degree_hours", "unknown", None, limit, unit, "not known", source, says=says)
    counted = degree_hours([(warm.from_hour, points[0][1]), *points], max(min(known_to, end), warm.from_hour), table)
    limit = f"≤ {counted.limit:g} {unit}"
    if not counted.passes:
        says = f"{counted.used:.0f} of {counted.limit:g} {unit} were used up before pH {HURDLE_PH} was measured"
        return Hurdle("degree_hours", "fail", counted.used, limit, unit, "measured", source, says=says)
    if known_to < end:
        says = f"the log is silent for more than {GAP_HOURS:g} h"
        return Hurdle("degree_hours", "unknown", counted.used, limit, unit, "not known", source, says=says)
    if reached is None:
        says = f"pH {HURDLE_PH} is not measured yet"
        return Hurdle("degree_hours", "pending", counted.used, limit, unit, "measured", source, says=says)
    return Hurdle("degree_hours", "pass", counted.used, limit, unit, "measured", source)


def _gap_free_to(points: list[tuple[float, float]], start: float, end: float) -> float | None:
    """Up to which hour the log runs without a gap; None where it has one at its very start."""
    last = start
    for hour, _ in points:
        if hour - last > GAP_HOURS + 1e-9:
            return None if last == start and points[0][0] == hour else last
        last = hour
    return end if end - last <= GAP_HOURS + 1e-9 else last
