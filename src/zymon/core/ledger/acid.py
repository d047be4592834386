"""Acid and the time that staphylococci are given: what confirms a pH, degree-hours until it is confirmed."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..degree_hours import DegreeHours, degree_hours
from ..limits import LimitProfile
from ..say import said
from .batch import LabWhat, Ph
from .hurdle import Evidence, Hurdle
from .line import Interval, Line
from .marks import ACID_LOST_PH, ACID_PH, BELIEVED_PH, HOUR_S, REPEAT_MINUTES, SLACK
from .view import View

ANSWERS_ALLOWANCE: tuple[LabWhat, ...] = ("staphylococcal_enterotoxin", "salmonella", "stec", "listeria")


def believed(readings: Sequence[Ph], now_s: float) -> list[Ph]:
    """The readings that can be of meat, up to now, in time order. Parameters: readings; now_s [s]."""
    low, high = BELIEVED_PH
    return sorted((r for r in readings if r.at_s <= now_s and low <= r.value <= high), key=lambda r: r.at_s)


def confirmed_at(readings: Sequence[Ph], most_ph: float) -> float | None:
    """When a pH at or under a mark was first confirmed [s], or None.

    Parameters: readings, believed, in time order; most_ph. Confirmed: by a checked meter; or by a second reading at
    least half an hour after a first, with none over the mark between.
    """
    first_s: float | None = None
    for r in readings:
        if r.value > most_ph:
            first_s = None
        elif r.meter == "checked" or (first_s is not None and r.at_s - first_s >= REPEAT_MINUTES * 60 - SLACK):
            return r.at_s
        elif first_s is None:
            first_s = r.at_s
    return None


def over_confirmed_at(readings: Sequence[Ph], least_ph: float) -> float | None:
    """When a pH above a mark was first confirmed [s], or None. Parameters: readings, as of `confirmed_at`; least_ph."""
    mirrored = [Ph(r.at_s, -r.value, r.meter) for r in readings]
    return confirmed_at(mirrored, -least_ph - SLACK)


@dataclass(frozen=True)
class Acid:
    """When acid was first confirmed [s], and whether it still counts (None: never, or taken back)."""

    first_s: float | None
    stands_s: float | None


def acid_of(view: View) -> Acid:
    """When pH 5.3 was confirmed; a confirmed reading over 5.5 later in the warm stage takes that back.

    Parameters: view.
    """
    readings = believed(view.batch.ph, view.batch.now_s)
    warm = [view.span(s) for s in view.stages("warm")]
    first_s = confirmed_at(readings, ACID_PH)
    stands_s = first_s
    while stands_s is not None:
        at_s = stands_s
        later = [r for r in readings if r.at_s > at_s and any(a <= r.at_s <= b for a, b in warm)]
        lost_s = over_confirmed_at(later, ACID_LOST_PH)
        if lost_s is None:
            break
        stands_s = confirmed_at([r for r in readings if r.at_s > lost_s], ACID_PH)
    return Acid(first_s, stands_s)


def acid(view: View) -> Hurdle | None:
    """Acid confirmed; None for goods that do not live by it. Parameters: view."""
    batch = view.batch
    if batch.goods != "minced" or batch.hangs_cold or batch.use == "cooked":
        return None
    found = acid_of(view)
    seen = believed(batch.ph, batch.now_s)
    last = seen[-1].value if seen else None
    base = Hurdle("acid", "pending", last, ACID_PH, "", "measured" if seen else "not known")
    if found.stands_s is not None:
        value = next(r.value for r in seen if r.at_s == found.stands_s)
        return replace(base, state="pass", value=value)
    if found.first_s is not None:
        return replace(base, why=said("hurdle.acid.taken_back", ph=last or 0.0), settles=said("settles.ph"))
    if any(r.value <= ACID_PH for r in seen):
        return replace(base, why=said("hurdle.acid.once"), settles=said("settles.ph_again"))
    doubted = sum(1 for r in batch.ph if r.at_s <= batch.now_s) - len(seen)
    why = said("hurdle.acid.unbelievable") if doubted else said("hurdle.acid.not_yet")
    return replace(base, why=why, settles=said("settles.ph"))


def allowance_used(
    line: Line, profile: LimitProfile, from_s: float, to_s: float
) -> tuple[DegreeHours | None, list[Interval]]:
    """Degree-hours between two moments, and what of that nobody knows. Parameters: line; profile; from_s, to_s [s].

    None where no temperature is known at all.
    """
    table = profile.degree_hours
    threshold_c = (table.threshold - 32) / 1.8 if table.unit == "F" else table.threshold
    rows = line.points(threshold_c, from_s, to_s) if to_s > from_s else []
    silent = line.unknown(from_s, to_s)
    if not rows:
        return None, silent or ([(from_s, to_s)] if to_s > from_s else [])
    points = [((t - from_s) / HOUR_S, c) for t, c in rows]
    return degree_hours(points, (to_s - from_s) / HOUR_S, table), silent


def ran_out_s(line: Line, profile: LimitProfile, from_s: float, to_s: float) -> float | None:
    """When the allowance was used up [s], or None where it held. Parameters: line; profile; from_s, to_s [s]."""
    used, _ = allowance_used(line, profile, from_s, to_s)
    if used is None or used.passes:
        return None
    low, high = from_s, to_s
    for _ in range(40):
        middle = (low + high) / 2
        part, _ = allowance_used(line, profile, from_s, middle)
        low, high = (middle, high) if part is None or part.passes else (low, middle)
    return high


def degree_hours_hurdle(view: View) -> Hurdle:
    """Degree-hours from stuffing to the first confirmed pH 5.3, over every stage. Parameters: view."""
    batch, profile = view.batch, view.batch.profile
    unit = f"°{profile.degree_hours.unit} h"
    limit = max(step.limit for step in profile.degree_hours.steps)
    base = Hurdle("degree_hours", "pending", None, limit, unit, source=profile.source_of("degree_hours"))
    if batch.stuffed_s is None:
        if not batch.stages:
            return replace(
                base, state="unknown", why=said("hurdle.degree_hours.no_stage"), settles=said("settles.warm")
            )
        return replace(base, why=said("hurdle.degree_hours.not_stuffed"), settles=said("settles.warm"))
    reached_s = acid_of(view).stands_s
    end_s = view.end_s if reached_s is None else max(min(reached_s, view.end_s), batch.stuffed_s)
    used, silent = allowance_used(view.line, profile, batch.stuffed_s, end_s)
    shown = tuple(Evidence(a, b, said("evidence.unknown")) for a, b in silent)
    if used is not None:
        base = replace(base, value=used.used, limit=used.limit, known="measured", evidence=shown)
    if used is not None and not used.passes:
        return _over(view, base, batch.stuffed_s, end_s)
    if reached_s is not None and used is None and not silent:
        return replace(base, state="pass", value=0.0, known="measured")  # sour before it was stuffed
    if batch.hangs_cold and reached_s is None:
        why = said("hurdle.degree_hours.cold_hung")
        since_s = silent[-1][1] if silent else None
        return replace(base, state="unknown", why=why, settles=said("settles.cold_hung"), since_s=since_s)
    if silent or used is None:
        why, since_s = said("hurdle.degree_hours.gap"), silent[-1][1] if silent else None
        return replace(
            base, state="unknown", known="not known", why=why, settles=said("settles.log_or_sign"), since_s=since_s,
            evidence=shown,
        )  # fmt: skip
    if reached_s is None:
        return replace(base, why=said("hurdle.degree_hours.no_ph"), settles=said("settles.ph"))
    return replace(base, state="pass")


def _over(view: View, base: Hurdle, from_s: float, to_s: float) -> Hurdle:
    """An allowance that is used up: a fail, unless four tests of a laboratory, taken after that, found nothing."""
    batch = view.batch
    over_s = ran_out_s(view.line, batch.profile, from_s, to_s) or to_s
    used, limit = base.value, base.limit
    base = replace(base, evidence=(*base.evidence, Evidence(over_s, to_s, said("evidence.allowance_over"))))
    tests = [[v for v in batch.lab(what, None) if v.at_s >= over_s] for what in ANSWERS_ALLOWANCE]
    if all(found and all(v.value == 0 for v in found) for found in tests):
        return replace(base, state="pass", known="laboratory", cautions=(said("caution.allowance_answered"),))
    why = said("hurdle.degree_hours.over", used=f"{used:.0f}", limit=f"{limit:g}", unit=base.unit)
    return replace(base, state="fail", why=why, settles=said("settles.allowance"))
