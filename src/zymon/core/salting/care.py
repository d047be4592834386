"""What is done to a piece in salt day by day: when it is next due, how long it may wait, what was missed."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from ..constants import SECONDS_PER_DAY
from ..say import Said
from .ways import REGISTRY, Care, CareKind, Way

HOUR_S = 3600.0
SOON = 0.75  # of the usual span: from then on it may be done


@dataclass(frozen=True)
class CareDue:
    """The next time of a recurring care, and how many times it was left out so far."""

    kind: CareKind
    from_s: float
    best_s: float
    latest_s: float
    done: int
    missed: int
    cost: Said
    number: int  # of this one, counted from the putting in: stays the same while it waits
    last_s: float | None = None  # when it was done last


DRY_SHARE = 0.001  # of the weight: what the last two pour-offs gave together, under which nothing more comes; practice


def runs_dry(poured: Sequence[tuple[float, float]], weight_g: float) -> frozenset[CareKind]:
    """What need not be asked any more because no liquid comes. Parameters: poured, of (time [s], g); weight_g [g].

    >>> runs_dry([(0.0, 60.0), (1.0, 1.0), (2.0, 0.0)], 1600)
    frozenset({'drain'})
    >>> runs_dry([(0.0, 60.0), (1.0, 30.0)], 1600)
    frozenset()
    """
    last = [g for _, g in sorted(poured)[-2:]]
    return frozenset({"drain"}) if len(last) == 2 and sum(last) <= DRY_SHARE * weight_g else frozenset()


def care_due(
    way: Way,
    in_s: float,
    done: Sequence[tuple[CareKind, float]],
    now_s: float,
    over: frozenset[CareKind] = frozenset(),
) -> list[CareDue]:
    """What the way asks for next.

    Parameters: way; in_s [s], putting in; done, of (kind, time [s]); now_s [s]; over, kinds that are not asked for any
    more. Looking counts with whatever is done.
    Returns one entry per kind of care that is still asked for.
    """
    out = []
    for care in REGISTRY[way].care:
        if care.kind in over:
            continue
        times = sorted(at for kind, at in done if (kind == care.kind or care.kind == "check") and in_s <= at <= now_s)
        every = care.every_hours * HOUR_S
        first = every if care.first_hours is None else care.first_hours * HOUR_S
        last = times[-1] if times else in_s + first - every
        best = last + every
        ends_s = in_s + care.to_day * SECONDS_PER_DAY
        if best > ends_s or now_s > ends_s + care.may_wait_hours * HOUR_S:
            continue
        out.append(
            CareDue(
                kind=care.kind,
                from_s=last + SOON * every,
                best_s=best,
                latest_s=best + care.may_wait_hours * HOUR_S,
                done=len(times),
                missed=missed(care, in_s, times, now_s),
                cost=care.cost,
                number=len(times) + 1,
                last_s=times[-1] if times else None,
            )
        )
    return out


def missed(care: Care, in_s: float, times: Sequence[float], now_s: float) -> int:
    """How many times a care was left out: spans longer than it may wait, in units of its own span.

    Parameters: care; in_s [s]; times [s] in order, when it was done; now_s [s].

    >>> missed(REGISTRY["measured"].care[0], 0.0, [36 * 3600.0, 8 * 86400.0], 8.5 * 86400)
    3
    """
    every, wait = care.every_hours * HOUR_S, care.may_wait_hours * HOUR_S
    end = min(now_s, in_s + care.to_day * SECONDS_PER_DAY)
    edges = [in_s, *times, end]
    gaps = [b - a for a, b in itertools.pairwise(edges)]
    return sum(int((gap - wait) / every) for gap in gaps if gap > every + wait)
