"""Hurdles of time and temperature, first edition: cold while curing, degree-hours until pH 5.3 is measured."""

from ...degree_hours import HURDLE_PH
from ..acid import allowance_used
from ..batch import Stage
from ..line import Line, longest
from ..marks import COLD_C, COLD_STRETCH_HOURS, GAP_HOURS, HOUR_S, SLACK
from .batch import Batch, Hurdle, Points, WarmStage

PRACTICE = "usual practice for dried goods"
TOXIN = "staphylococcal_enterotoxin"


def _line(kind: str, points: Points, from_hour: float, to_hour: float) -> Line:
    """One stage as a line of seconds; only what was read within it."""
    rows = tuple((hour * HOUR_S, c) for hour, c in points)
    return Line([Stage(kind, from_hour * HOUR_S, None, rows)], to_hour * HOUR_S)  # type: ignore[arg-type] # a kind of stage


def cold_cure(batch: Batch) -> Hurdle:
    """Cold while curing. Parameters: batch."""
    limit, unit = f"no run of more than {COLD_STRETCH_HOURS:g} h above {COLD_C:g} °C", "h"
    cure = batch.cure
    if cure is None:
        says = "log the temperature of the place, or let somebody sign for it"
        return Hurdle("cold_cure", "unknown", None, limit, unit, "not known", PRACTICE, says=says)
    curing = cure.to_hour is None or cure.to_hour > batch.now_hour
    end = batch.now_hour if curing or cure.to_hour is None else cure.to_hour
    span = (cure.from_hour * HOUR_S, end * HOUR_S)
    line = _line("cure", cure.temperature, cure.from_hour, end)
    run, silent = longest(line.over(COLD_C, *span)), line.unknown(*span)
    if run > COLD_STRETCH_HOURS + SLACK:
        says = f"{run:.1f} h above {COLD_C:g} °C in one run"
        return Hurdle("cold_cure", "fail", run, limit, unit, "measured", PRACTICE, says=says)
    if silent or not line.reads:
        says = f"the log is silent for {longest(silent):.0f} h" if line.reads else "no log"
        value = run if line.reads else None
        return Hurdle("cold_cure", "unknown", value, limit, unit, "not known", PRACTICE, says=says)
    if curing:
        return Hurdle("cold_cure", "pending", run, limit, unit, "measured", PRACTICE, says="still in salt")
    return Hurdle("cold_cure", "pass", run, limit, unit, "measured", PRACTICE)


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
    end = max(batch.now_hour if reached is None else reached, warm.from_hour)
    line = _line("warm", warm.temperature, warm.from_hour, batch.now_hour)
    used, silent = allowance_used(line, batch.profile, warm.from_hour * HOUR_S, end * HOUR_S)
    if used is None:
        says = "the temperature was not logged from the start"
        return Hurdle("degree_hours", "unknown", None, limit, unit, "not known", source, says=says)
    limit = f"≤ {used.limit:g} {unit}"
    if not used.passes:
        says = f"{used.used:.0f} of {used.limit:g} {unit} were used up before pH {HURDLE_PH} was measured"
        return Hurdle("degree_hours", "fail", used.used, limit, unit, "measured", source, says=says)
    if silent:
        says = f"the log is silent for more than {GAP_HOURS:g} h"
        return Hurdle("degree_hours", "unknown", used.used, limit, unit, "not known", source, says=says)
    if reached is None:
        says = f"pH {HURDLE_PH} is not measured yet"
        return Hurdle("degree_hours", "pending", used.used, limit, unit, "measured", source, says=says)
    return Hurdle("degree_hours", "pass", used.used, limit, unit, "measured", source)
