"""The time line of a batch's temperature, and the one rule for what lies between two readings.

Up to six hours are read linearly. In a longer gap the time over a limit counts whole where both ends are over it, half
where one is, not at all where none is; and the gap is not known. A gap may make a fail, never a pass. A household reads
its thermometer once a day: such a gap is known where each end keeps to the mark of its own stage.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from ..course import between
from .batch import Stage
from .marks import GAP_HOURS, HOUR_S, HOUSEHOLD_GAP_HOURS, HOUSEHOLD_MARK_C

Array = npt.NDArray[np.float64]
Interval = tuple[float, float]  # from, to [s]

GAP_S = GAP_HOURS * HOUR_S
EPSILON_S = 1e-3  # seconds; shorter than any reading is apart


@dataclass(frozen=True)
class Read:
    """A reading [°C] at a moment [s], and the stage it was read in."""

    at_s: float
    c: float
    stage: Stage


@dataclass(frozen=True)
class Gap:
    """A silence; an end without a reading is None."""

    from_s: float
    to_s: float
    before: Read | None
    after: Read | None

    def over(self, limit_c: float) -> Interval | None:
        """The part that counts as over a limit, or None; one warm end counts within its own stage only.

        Parameters: limit_c [°C].
        """
        first = self.before is not None and self.before.c > limit_c
        second = self.after is not None and self.after.c > limit_c
        middle_s = (self.from_s + self.to_s) / 2
        if first and second:
            return self.from_s, self.to_s
        if first and self.before is not None:
            end_s = self.before.stage.to_s
            return self.from_s, max(self.from_s, min(middle_s, self.to_s if end_s is None else end_s))
        if second and self.after is not None:
            return min(self.to_s, max(middle_s, self.after.stage.from_s)), self.to_s
        return None

    def warmest_c(self) -> float:
        """The warmer of its ends [°C]."""
        return max(read.c for read in (self.before, self.after) if read is not None)


class Line:
    """The readings of some stages on one line, from the start of the first to an end [s]."""

    def __init__(self, stages: Sequence[Stage], end_s: float) -> None:
        """Parameters: stages, of any order; end_s [s], after which nothing is looked at."""
        self.stages = sorted((s for s in stages if s.from_s <= end_s), key=lambda s: s.from_s)
        self.end_s = end_s
        self.start_s = self.stages[0].from_s if self.stages else end_s

    @cached_property
    def reads(self) -> list[Read]:
        """Every reading up to the end, in time order."""
        found = [
            Read(at_s, c, stage)
            for stage in self.stages
            for at_s, c in stage.temperature
            if self.start_s <= at_s <= self.end_s
        ]
        return sorted(found, key=lambda r: r.at_s)

    @cached_property
    def _arrays(self) -> tuple[Array, Array]:
        return np.array([r.at_s for r in self.reads]), np.array([r.c for r in self.reads])

    @cached_property
    def uncovered(self) -> list[Interval]:
        """Times of more than handling that no stage covers [s]."""
        spans = [(s.from_s, self.end_s if s.to_s is None else min(s.to_s, self.end_s)) for s in self.stages]
        holes = between([*spans, (self.end_s, self.end_s)]) if spans else []
        return [(a, b) for a, b in holes if b - a > GAP_S + EPSILON_S]

    @cached_property
    def gaps(self) -> list[Gap]:
        """Silences longer than may be read linearly, both ends of the line included."""
        if not self.reads:
            return [Gap(self.start_s, self.end_s, None, None)] if self.end_s > self.start_s else []
        times = np.array([self.start_s, *(r.at_s for r in self.reads), self.end_s])
        found = []
        for i in np.nonzero(np.diff(times) > GAP_S + EPSILON_S)[0]:
            before = self.reads[i - 1] if i > 0 else None
            after = self.reads[i] if i < len(self.reads) else None
            found.append(Gap(float(times[i]), float(times[i + 1]), before, after))
        return found

    def known(self, gap: Gap) -> bool:
        """Whether a household's reading once a day vouches for a silence. Parameters: gap."""
        ends = [read for read in (gap.before, gap.after) if read is not None]
        if not ends or gap.to_s - gap.from_s > HOUSEHOLD_GAP_HOURS * HOUR_S + EPSILON_S:
            return False
        if any(_overlaps((gap.from_s, gap.to_s), hole) for hole in self.uncovered):
            return False
        inside = (gap.from_s, gap.to_s)
        if any(s.kind in ("room", "warm") and _overlaps(inside, self._span(s)) for s in self.stages):
            return False
        return all(read.c <= HOUSEHOLD_MARK_C.get(read.stage.kind, -np.inf) for read in ends)

    def _span(self, stage: Stage) -> Interval:
        return stage.from_s, self.end_s if stage.to_s is None else stage.to_s

    def unknown(self, from_s: float, to_s: float) -> list[Interval]:
        """What nobody knows the temperature of between two moments [s]. Parameters: from_s, to_s."""
        silent = [(g.from_s, g.to_s) for g in self.gaps if not self.known(g)]
        return clipped([*silent, *self.uncovered], from_s, to_s)

    def over(self, limit_c: float, from_s: float, to_s: float) -> list[Interval]:
        """Stretches over a limit between two moments [s], by the rule of this module.

        Parameters: limit_c [°C]; from_s, to_s [s].
        """
        found: list[Interval] = []
        if self.reads:
            found += _linear(*self._arrays, limit_c)
            first, last = self.reads[0], self.reads[-1]
            if first.c > limit_c and first.at_s - self.start_s <= GAP_S + EPSILON_S:
                found.append((self.start_s, first.at_s))
            if last.c > limit_c and self.end_s - last.at_s <= GAP_S + EPSILON_S:
                found.append((last.at_s, self.end_s))
        found += [part for gap in self.gaps for part in [gap.over(limit_c)] if part is not None]
        return clipped(found, from_s, to_s)

    def points(self, threshold_c: float, from_s: float, to_s: float) -> list[tuple[float, float]]:
        """The line as what counts towards an allowance: (moment [s], °C), two at one moment being a step.

        Parameters: threshold_c, under which nothing counts; from_s, to_s [s]. A gap counts at the warmer of its ends,
        as far as it counts at all; the rest of it stands at the threshold.
        """
        if not self.reads:
            return []
        rows: list[tuple[float, float]] = [(self.start_s, self.reads[0].c)]
        done = 0
        for gap in self.gaps:
            upto = done if gap.before is None else self.reads.index(gap.before, done) + 1
            rows = [] if gap.before is None else rows + [(r.at_s, r.c) for r in self.reads[done:upto]]
            done = upto
            rows += _steps(gap, threshold_c)
        rows += [(r.at_s, r.c) for r in self.reads[done:]]
        if not self.gaps or self.gaps[-1].after is not None:
            rows.append((self.end_s, self.reads[-1].c))
        return _cut(rows, from_s, to_s)


def _steps(gap: Gap, threshold_c: float) -> list[tuple[float, float]]:
    """A gap as steps between the threshold and its warmer end."""
    counts = gap.over(threshold_c)
    if counts is None:
        return [(gap.from_s, threshold_c), (gap.to_s, threshold_c)]
    warm_c = gap.warmest_c()
    return [
        (gap.from_s, threshold_c), (counts[0], threshold_c), (counts[0], warm_c),
        (counts[1], warm_c), (counts[1], threshold_c), (gap.to_s, threshold_c),
    ]  # fmt: skip


def _cut(rows: list[tuple[float, float]], from_s: float, to_s: float) -> list[tuple[float, float]]:
    """The rows between two moments, with the values at both."""
    times, values = np.array([t for t, _ in rows]), np.array([c for _, c in rows])
    inside = [(t, c) for t, c in rows if from_s < t < to_s]
    ends = np.interp([from_s, to_s], times, values)
    return [(from_s, float(ends[0])), *inside, (to_s, float(ends[1]))]


def _linear(times: Array, values: Array, limit_c: float) -> list[Interval]:
    """Where straight pieces between readings lie over a limit; longer silences are left out."""
    t0, t1, c0, c1 = times[:-1], times[1:], values[:-1], values[1:]
    near = (t1 - t0 <= GAP_S + EPSILON_S) & ((c0 > limit_c) | (c1 > limit_c))
    t0, t1, c0, c1 = t0[near], t1[near], c0[near], c1[near]
    rise = np.where(np.abs(c1 - c0) > 0, c1 - c0, 1.0)
    crossing = t0 + (t1 - t0) * np.clip((limit_c - c0) / rise, 0.0, 1.0)
    begin = np.where(c0 > limit_c, t0, crossing)
    end = np.where(c1 > limit_c, t1, crossing)
    return list(zip(begin.tolist(), end.tolist(), strict=True))


def clipped(spans: Iterable[Interval], from_s: float, to_s: float) -> list[Interval]:
    """Spans joined where they touch, cut to between two moments, in time order. Parameters: spans; from_s, to_s [s].

    >>> clipped([(5.0, 9.0), (0.0, 2.0), (2.0, 3.0)], 1.0, 6.0)
    [(1.0, 3.0), (5.0, 6.0)]
    """
    found: list[Interval] = []
    for a, b in sorted((max(a, from_s), min(b, to_s)) for a, b in spans):
        if b - a <= EPSILON_S:
            continue
        if found and a - found[-1][1] <= EPSILON_S:
            found[-1] = (found[-1][0], max(found[-1][1], b))
        else:
            found.append((a, b))
    return found


def hours(spans: Iterable[Interval]) -> float:
    """How long spans are together [h]. Parameters: spans.

    >>> hours([(0.0, 3600.0), (7200.0, 9000.0)])
    1.5
    """
    return sum(b - a for a, b in spans) / HOUR_S


def longest(spans: Iterable[Interval]) -> float:
    """How long the longest span is [h]; 0 where there is none. Parameters: spans."""
    return max((b - a for a, b in spans), default=0.0) / HOUR_S


def without(spans: Iterable[Interval], from_s: float, to_s: float) -> list[Interval]:
    """Spans less a time. Parameters: spans; from_s, to_s [s].

    >>> without([(0.0, 10.0)], 4.0, 6.0)
    [(0.0, 4.0), (6.0, 10.0)]
    """
    parts = [part for a, b in spans for part in ((a, min(b, from_s)), (max(a, to_s), b))]
    return [(a, b) for a, b in parts if b - a > EPSILON_S]


def _overlaps(one: Interval, other: Interval) -> bool:
    return min(one[1], other[1]) - max(one[0], other[0]) > EPSILON_S
