"""When pH crosses 5.3 and its target, how much of the allowance is used, how it stands, and when to measure next."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..degree_hours import HURDLE_PH, DegreeHours, degree_hours
from ..limits import DegreeHourTable
from ..say import Said, said
from .curve import CULTURES, LONGEST_HOURS, Fermentation, box_fault
from .particles import Falls, weigh_falls

Array = npt.NDArray[np.float64]
State = Literal["waiting", "falling", "reached", "slow", "stalled", "too_low", "over_allowance"]
Standing = Literal[State, "likely", "unmeasured"]

FIRST_BY_HOUR, FIRST_FAST_HOUR = 12.0, 6.0  # by when a pH is measured for the first time; a fast culture earlier
NEVER_ABOVE = 0.6  # share of draws that never cross from which no date is given
DOUBT_ABOVE = 0.30  # from which the fall is called slow
CURVE_HOURS, CURVE_DRAWS = 61, 512  # of equal weight: enough for a band on a screen
FALLEN = 0.08  # a fall that a meter can see
TOO_LOW = 0.15  # under the target
MEASURE_WITHIN_HOURS = 12.0  # hours; the next reading is asked for no later than that; usual practice


@dataclass(frozen=True)
class Window:
    """Hours since stuffing: 10, 50 and 90 % quantiles; None when it will not get there."""

    p10: float | None
    p50: float | None
    p90: float | None


@dataclass(frozen=True)
class FermentationForecast:
    """The answer. Hours since stuffing."""

    ph_now: float
    crosses: Window
    reaches_target: Window
    used: DegreeHours | None
    runs_out_hour: float | None
    state: State
    causes: tuple[Said, ...]
    measure_next_hour: float | None
    crosses_share: float
    curve_hours: Array
    curve_p10: Array
    curve_p50: Array
    curve_p90: Array


def first_measured(batch: Fermentation) -> float | None:
    """The hour of the first reading at or under pH 5.3 that is no slip. Parameters: batch."""
    return next((r.hour for r in batch.readings if 3.8 <= r.ph <= HURDLE_PH), None)


def used_allowance(batch: Fermentation, table: DegreeHourTable, gap_hours: float | None = None) -> DegreeHours | None:
    """Degree-hours from stuffing to the first measured 5.3, or to now; None without a log.

    Parameters: batch; table; gap_hours [h], None or the silence from which a gap is counted at its warmer end.
    """
    if not batch.temperature:
        return None
    reached = first_measured(batch)
    end = batch.now_hour if reached is None else reached
    box = batch.box
    points = box[box[:, 0] <= max(end, box[0, 0])]
    if points[0, 0] > 0:
        points = np.concatenate([[[0.0, points[0, 1]]], points])
    later = box[box[:, 0] > end]
    return degree_hours(np.concatenate([points, later[:1]]), max(end, float(points[0, 0])), table, gap_hours)


def forecast_fermentation(
    batch: Fermentation, table: DegreeHourTable, gap_hours: float | None = None
) -> FermentationForecast:
    """Forecast the fall of a batch.

    Parameters: batch, as of its now; table, of degree-hours; gap_hours [h], None or the silence from which a gap of the
    log is counted at its warmer end. Nothing after now is used.
    """
    falls = weigh_falls(batch)
    now = batch.now_hour
    ph_now = _quantiles(falls.ph_at(now), falls.weight)[1]
    cross, target = falls.hour_of(HURDLE_PH), falls.hour_of(batch.target_ph)
    crosses_share = float(falls.weight[np.isfinite(cross)].sum())
    measured = first_measured(batch)
    used = used_allowance(batch, table, gap_hours)
    hours = np.linspace(0.0, min(max(2.0 * now, 72.0), LONGEST_HOURS), CURVE_HOURS)
    likely = falls.thinned(CURVE_DRAWS)
    curve = np.quantile(likely.ph_at_hours(hours), (0.1, 0.5, 0.9), axis=1).T
    state = _state(batch, falls, ph_now, crosses_share, measured, used, cross)
    crosses = _window(cross, falls.weight, now)
    runs_out = None if measured is not None else _runs_out(batch, used, table)
    return FermentationForecast(
        ph_now=ph_now,
        crosses=crosses,
        reaches_target=_window(target, falls.weight, now),
        used=used,
        runs_out_hour=runs_out,
        state=state,
        causes=_causes(batch, falls) if state in ("slow", "stalled", "over_allowance") else (),
        measure_next_hour=_measure_next(batch, likely, state, crosses, runs_out, measured),
        crosses_share=crosses_share,
        curve_hours=hours,
        curve_p10=curve[:, 0],
        curve_p50=curve[:, 1],
        curve_p90=curve[:, 2],
    )


def standing(state: State, measured_hour: float | None, ended: bool) -> Standing:
    """The state as it may be said: sour enough only where that was measured.

    Parameters: state, as forecast; measured_hour [h], of the first measured 5.3, or None; ended: no longer warm.

    >>> standing("reached", 22.0, False), standing("reached", None, False), standing("reached", None, True)
    ('reached', 'likely', 'unmeasured')
    """
    if state != "reached" or measured_hour is not None:
        return state
    return "unmeasured" if ended else "likely"


def _quantiles(values: Array, weight: Array) -> tuple[float, float, float]:
    order = np.argsort(values)
    share = np.cumsum(weight[order])
    low, mid, high = (
        float(values[order][min(np.searchsorted(share, q * share[-1]), len(values) - 1)]) for q in (0.1, 0.5, 0.9)
    )
    return low, mid, high


def _window(hours: Array, weight: Array, now: float) -> Window:
    reached = np.isfinite(hours)
    if weight[reached].sum() < 1 - NEVER_ABOVE:
        return Window(None, None, None)
    low, mid, high = _quantiles(hours[reached], weight[reached])
    if weight[hours <= now].sum() <= 0.5:  # not there yet by most draws: then it is not behind the clock
        low, mid, high = max(low, now), max(mid, now), max(high, now)
    return Window(low, mid, high)


def _state(
    batch: Fermentation, falls: Falls, ph_now: float, crosses_share: float, measured: float | None,
    used: DegreeHours | None, cross: Array,
) -> State:  # fmt: skip
    passed = float(falls.weight[cross <= batch.now_hour].sum())
    if used is not None and not used.passes and measured is None and passed < 0.9:
        return "over_allowance"
    if ph_now < batch.target_ph - TOO_LOW and batch.readings:
        return "too_low"
    if passed > 0.5:
        return "reached"
    start = float(falls.weight @ falls.start)
    if crosses_share < 1 - NEVER_ABOVE:
        return "stalled"
    if crosses_share < 1 - DOUBT_ABOVE or box_fault(batch.box, batch.setpoint_c, batch.now_hour):
        return "slow"
    return "waiting" if start - ph_now < FALLEN else "falling"


def _causes(batch: Fermentation, falls: Falls) -> tuple[Said, ...]:
    """What is likely behind a fall that does not come, the likeliest first, from this batch's own data."""
    weighed: list[tuple[float, Said]] = []
    culture = falls.kinds[
        int(np.argmax([falls.weight[falls.kind == i].sum() for i in range(len(falls.kinds))]))
    ].culture
    prior = CULTURES[culture]
    cold = [c for h, c in batch.temperature if h <= batch.now_hour and c < prior.reference_c - 6]
    if len(cold) > 0.25 * max(len(batch.temperature), 1):
        weighed.append((1.0, said("cause.box_cold", c=round(float(np.mean(cold))), meant_c=prior.reference_c)))
    if batch.dextrose_percent is not None and batch.dextrose_percent < 0.25:
        weighed.append((0.9, said("cause.little_sugar", dextrose_percent=batch.dextrose_percent)))
    for fault, code in (("dead", "cause.culture_dead"), ("no_sugar", "cause.no_sugar")):
        share = sum(float(falls.weight[falls.kind == i].sum()) for i, k in enumerate(falls.kinds) if k.fault == fault)
        if share > 0.15:
            weighed.append((share * 0.85, said(code)))
    if batch.salt_percent is not None and batch.salt_percent >= 3.5:
        weighed.append((0.3, said("cause.much_salt", salt_percent=batch.salt_percent)))
    return tuple(cause for _, cause in sorted(weighed, key=lambda one: -one[0]))


def still_possible(batch: Fermentation, made: FermentationForecast) -> tuple[Said, ...]:
    """What can still be done about a fall that goes wrong; empty where nothing is wrong.

    Parameters: batch; made, its forecast. Source: usual practice; past the allowance nothing brings a batch back.
    """
    if made.state == "over_allowance":
        return (said("possible.laboratory_or_bin"),)
    if made.state == "too_low":
        return (said("possible.cool_now"), said("possible.less_sugar"))
    if made.state not in ("slow", "stalled"):
        return ()
    prior = CULTURES[batch.culture or "medium"]
    out = []
    left = None if made.runs_out_hour is None else made.runs_out_hour - batch.now_hour
    box_c = batch.temperature[-1][1] if batch.temperature else None
    if left is not None and left <= 0:
        return (said("possible.used_up"),)
    if box_c is not None and box_c < prior.reference_c - 2:
        out.append(said("possible.warm_box", c=prior.reference_c))
    if left is not None:
        out.append(said("possible.hours_left", hours=round(left)))
    out.append(said("possible.cooling_stops"))
    return tuple(out)


def _runs_out(batch: Fermentation, used: DegreeHours | None, table: DegreeHourTable) -> float | None:
    """The hour at which the allowance is used up at the present temperature; None when it never is."""
    if used is None:
        return None
    over = table.from_celsius(batch.temperature[-1][1]) - table.threshold
    if used.used >= used.limit:
        return batch.now_hour
    return batch.now_hour + (used.limit - used.used) / over if over > 0 else None


def _measure_next(
    batch: Fermentation,
    falls: Falls,
    state: State,
    crosses: Window,
    runs_out_hour: float | None,
    measured: float | None,
) -> float | None:
    """When a reading would tell most, soon enough to act on.

    Once it falls: when it has most likely crossed, for only a measured 5.3 ends the count. Before: where the likely
    falls lie furthest apart. Never later than twelve hours from now, nor than the allowance lasts; and for the first
    time never after the earliest likely crossing, nor past the twelfth hour. Likely sour enough and never measured so:
    now.
    """
    if state in ("reached", "too_low"):
        return None if measured is not None else batch.now_hour
    if not batch.readings:
        earliest = FIRST_BY_HOUR if crosses.p10 is None else min(crosses.p10, FIRST_BY_HOUR)
        return max(min(FIRST_FAST_HOUR, earliest) if batch.culture == "fast" else earliest, batch.now_hour)
    start = batch.now_hour + 1.5
    end = batch.now_hour + MEASURE_WITHIN_HOURS
    if runs_out_hour is not None:
        end = max(min(end, runs_out_hour - 1.0), start)
    if state == "falling" and crosses.p50 is not None and crosses.p90 is not None:
        return float(np.clip((crosses.p50 + crosses.p90) / 2, start, end))
    hours = np.arange(start, end + 0.25, 0.5)
    return float(hours[int(np.argmax(falls.ph_at_hours(hours).std(axis=1)))])
