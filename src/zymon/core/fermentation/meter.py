"""The pH meter and its readings: is it calibrated, what do repeats say, can this figure be."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from ..errors import require
from ..say import Said, said
from .curve import REPEAT_WITHIN_PH

SLOPE_LOW, SLOPE_HIGH = 92.0, 102.0  # % of theory
OLD_DAYS = 30.0  # days for which a calibration is trusted; estimate
REPEAT_HOURS = 0.34  # readings this close together are repeats of one
METERS_DIFFER = 0.10  # pH by which two meters contradict each other; estimate
PLAUSIBLE_PH = (3.8, 7.2)  # pH that meat can have, from sourest to spoiled
WARM_SAMPLE_C = 45.0  # °C; no sample is so warm: it was read in Fahrenheit


@dataclass(frozen=True)
class Calibration:
    """A two-point calibration: when [h, of the batch's clock], and the slope it found [% of theory]."""

    hour: float
    slope_percent: float


def checked(calibrations: Sequence[Calibration], hour: float) -> bool:
    """Whether a meter can be trusted at an hour: calibrated at most 30 days before, with a slope of 92–102 %.

    Parameters: calibrations of it, any order; hour [h], on their clock.

    >>> checked([Calibration(0.0, 98.0)], 100.0), checked([Calibration(0.0, 98.0)], 721.0)
    (True, False)
    """
    before = [c for c in calibrations if c.hour <= hour]
    if not before:
        return False
    last = max(before, key=lambda c: c.hour)
    return SLOPE_LOW <= last.slope_percent <= SLOPE_HIGH and hour - last.hour <= 24 * OLD_DAYS


@dataclass(frozen=True)
class Measured:
    """A reading as typed: hour, pH, the meter by its id."""

    hour: float
    ph: float
    meter: int | None = None
    confirmed: bool = False  # asked about and kept, or repeated


def meter_warnings(calibrations: Sequence[Calibration], hour: float) -> tuple[Said, ...]:
    """What is to be said against a meter at an hour.

    Parameters: calibrations of it, any order; hour [h]. Source: usual practice with two buffers.

    >>> meter_warnings([Calibration(0.0, 88.0)], 5.0)
    (Said(code='meter.slope', values={'slope_percent': 88.0, 'low': 92.0, 'high': 102.0}),)
    """
    before = [c for c in calibrations if c.hour <= hour]
    if not before:
        return (said("meter.never"),)
    last = max(before, key=lambda c: c.hour)
    out = []
    if not SLOPE_LOW <= last.slope_percent <= SLOPE_HIGH:
        out.append(said("meter.slope", slope_percent=last.slope_percent, low=SLOPE_LOW, high=SLOPE_HIGH))
    days = (hour - last.hour) / 24
    if days > OLD_DAYS:
        out.append(said("meter.old", days=round(days)))
    elif days > 1:
        out.append(said("meter.not_today"))
    return tuple(out)


def medians(readings: Sequence[Measured]) -> list[Measured]:
    """One reading for each set of repeats: the median of those taken close together.

    Parameters: readings, any order.

    >>> medians([Measured(5.0, 5.41), Measured(5.1, 5.46), Measured(5.2, 5.43)])
    [Measured(hour=5.1, ph=5.43, meter=None, confirmed=True)]
    """
    out: list[list[Measured]] = []
    for reading in sorted(readings, key=lambda r: r.hour):
        if out and reading.hour - out[-1][0].hour <= REPEAT_HOURS:
            out[-1].append(reading)
        else:
            out.append([reading])
    return [_median(many) for many in out]


def _median(many: Sequence[Measured]) -> Measured:
    """The middle of some readings; two that agree confirm each other, and one that stands out is the slip."""
    middle = median(r.ph for r in many)
    agree = sum(abs(r.ph - middle) <= REPEAT_WITHIN_PH for r in many) >= 2
    sure = agree or any(r.confirmed for r in many)
    return Measured(median(r.hour for r in many), middle, many[0].meter, sure)


def meters_disagree(readings: Sequence[Measured]) -> float | None:
    """How far two meters lay apart in the same hour, where that is more than meters may; else None.

    Parameters: readings, any order.
    """
    near = [
        abs(a.ph - b.ph)
        for a, b in itertools.combinations(readings, 2)
        if a.meter != b.meter and abs(a.hour - b.hour) <= 1.0
    ]
    return max(near) if near and max(near) > METERS_DIFFER else None


ASK_BEYOND = 0.25  # so far outside the expected range a reading is asked about
STORED_PH = (3.0, 9.0)  # what is kept when somebody is sure; nothing else is a pH of meat


def ask_about_ph(ph: float, low: float, high: float) -> Said | None:
    """Why a pH should be asked about before it counts; None when it may be right.

    Parameters: ph as typed; low, high, the expected range at this hour. Raises OutOfRangeError for what no pH can be.

    >>> ask_about_ph(53.0, 5.2, 5.5)
    Said(code='ask.ph_slip', values={'ph': 53.0, 'meant_ph': 5.3})
    """
    require("pH", ph, 0.0, 1000.0, "")
    if not PLAUSIBLE_PH[0] <= ph <= PLAUSIBLE_PH[1]:
        for power in (10.0, 100.0, 0.1):
            slipped = ph / power
            if PLAUSIBLE_PH[0] <= slipped <= PLAUSIBLE_PH[1]:
                return said("ask.ph_slip", ph=ph, meant_ph=slipped)
        return said("ask.ph_impossible", ph=ph)
    if ph > high + ASK_BEYOND:
        return said("ask.ph_high", ph=ph, low_ph=round(low, 2), high_ph=round(high, 2))
    if ph < low - ASK_BEYOND:
        return said("ask.ph_low", ph=ph, low_ph=round(low, 2), high_ph=round(high, 2))
    return None
