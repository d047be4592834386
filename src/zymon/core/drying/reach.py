"""For a target that this air will not bring: which air would."""

from dataclasses import dataclass

from ..constants import SECONDS_PER_DAY
from .forecast import Change, Fitted

RH_STEP, LOWEST_RH = 2.0, 50.0  # percent: how finely, and how far down it is looked
WITHIN_DAYS = 270.0  # a date further off than this is none


@dataclass(frozen=True)
class Reaching:
    """The dampest air that still brings the target in good time, and when; or how far the driest air would bring it."""

    rh_percent: float | None
    ready_p50_s: float | None
    most_loss_percent: float  # loss expected in the driest air worth trying after WITHIN_DAYS


def reaching(place: Fitted, index: int) -> Reaching:
    """Which humidity would bring a stalled piece to its target within nine months, at the temperature expected.

    Parameters: place, the fitted place; index, of the piece in its history.
    """
    now_s = place.arrays.now_s
    by = now_s + WITHIN_DAYS * SECONDS_PER_DAY
    driest = place.what_if(index, Change(rh_percent=LOWEST_RH))
    most = 100 * driest.loss_at(by)[1]
    if driest.ready_p50_s is None or driest.ready_p50_s > by:
        return Reaching(None, None, most)
    low, made = LOWEST_RH, driest.ready_p50_s
    high = max(place.arrays.air.ahead_rh_percent, LOWEST_RH + RH_STEP)
    while high - low > RH_STEP:  # drier air is never later, so the border can be halved down to
        middle = (low + high) / 2
        tried = place.what_if(index, Change(rh_percent=middle)).ready_p50_s
        if tried is not None and tried <= by:
            low, made = middle, tried
        else:
            high = middle
    return Reaching(float(int(low)), made, most)
