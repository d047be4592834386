"""How good the dates were: what was told of every piece against the day on which the scale showed its target."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from statistics import median
from typing import Literal, TypeVar

from ..constants import SECONDS_PER_DAY

Stage = Literal["hanging", "first", "second", "third", "fourth", "last"]
Lesson = Literal["too_few", "late", "early", "narrow", "wide", "well"]

Name = TypeVar("Name", bound=str)

STAGES: tuple[tuple[float, Stage], ...] = (
    (0.0, "hanging"), (0.2, "first"), (0.4, "second"), (0.6, "third"), (0.8, "fourth"), (1.0, "last"),
)  # fmt: skip # up to which share of the way to the target; the fifths after the hanging
FEW = 5  # pieces, under which a figure is no more than an anecdote; practice
BIASED_SHARE = 0.1  # of the whole time, from which dates are said to lean to one side; estimate
NARROW, WIDE = 0.6, 0.95  # of the truths inside, beyond which windows are said to be too narrow or too wide; estimate


@dataclass(frozen=True)
class Told:
    """A date that was told: when [s], its window and middle [s], the loss by then [share]; None where none was told.

    `live`: told to the maker then; else worked out afterwards, with what was known then.
    """

    made_s: float
    p10_s: float | None
    p50_s: float | None
    p90_s: float | None
    loss: float
    live: bool = True


@dataclass(frozen=True)
class Finished:
    """A piece that got to its target by the scale: in which groups it counts, when it was hung and got there [s]."""

    tag: str
    hung_s: float
    reached_s: float
    target: float  # [share]
    told: tuple[Told, ...]
    groups: tuple[tuple[str, str], ...] = ()  # family, place, year


@dataclass(frozen=True)
class Checked:
    """A told date against what happened: after which share of the way, by how many days it was too early (positive: it
    took longer than told), as a share of the whole time, and whether it lay inside the window."""

    tag: str
    stage: Stage
    days: float
    share: float
    inside: bool
    live: bool


@dataclass(frozen=True)
class Figures:
    """Of some told dates: of how many pieces, how far off in the middle, to which side, how many inside [share]."""

    pieces: int
    told: int
    error_days: float
    error_share: float
    bias_days: float
    bias_share: float
    inside: float

    @property
    def few(self) -> bool:
        """Whether it rests on too few pieces to be more than an anecdote."""
        return self.pieces < FEW


def reached(weighed: Sequence[tuple[float, float]], target: float) -> float | None:
    """When the scale showed the target [s], in proportion between two weighings; None while it did not.

    Parameters: weighed, of (time [s], loss [share]) in time order, the hanging first; target [share].

    >>> reached([(0.0, 0.0), (100.0, 0.2), (200.0, 0.4)], 0.3)
    150.0
    """
    before = None
    for at_s, loss in weighed:
        if loss >= target:
            if before is None or loss == before[1]:
                return at_s
            return before[0] + (at_s - before[0]) * (target - before[1]) / (loss - before[1])
        before = (at_s, loss)
    return None


def stage_of(done: float) -> Stage:
    """In which fifth of its way a piece was. Parameters: done, of the target [share]; 0 when it was hung.

    >>> stage_of(0.0), stage_of(0.2), stage_of(0.21), stage_of(0.9)
    ('hanging', 'first', 'second', 'last')
    """
    return next((name for upto, name in STAGES if done <= upto), "last")


def check(finished: Finished) -> list[Checked]:
    """Every date that was told of a piece before it got there, against the day it did. Parameters: finished."""
    whole_s = max(finished.reached_s - finished.hung_s, 1.0)
    found = []
    for told in finished.told:
        if told.p10_s is None or told.p50_s is None or told.p90_s is None or told.made_s >= finished.reached_s:
            continue
        off_s = finished.reached_s - told.p50_s
        way = max(told.loss, 0.0) / finished.target if told.made_s > finished.hung_s + 60 else 0.0
        found.append(
            Checked(
                finished.tag, stage_of(way),
                off_s / SECONDS_PER_DAY, off_s / whole_s, told.p10_s <= finished.reached_s <= told.p90_s, told.live,
            )
        )  # fmt: skip
    return found


def figures(checked: Sequence[Checked]) -> Figures | None:
    """The figures of some told dates; None of none. Parameters: checked."""
    if not checked:
        return None
    return Figures(
        pieces=len({one.tag for one in checked}),
        told=len(checked),
        error_days=median(abs(one.days) for one in checked),
        error_share=median(abs(one.share) for one in checked),
        bias_days=median(one.days for one in checked),
        bias_share=median(one.share for one in checked),
        inside=sum(one.inside for one in checked) / len(checked),
    )


def by_stage(checked: Sequence[Checked]) -> list[tuple[Stage, Figures]]:
    """The figures along the way, from the hanging on; stages of which nothing was told are left out.

    Parameters: checked.
    """
    return _grouped(checked, [name for _, name in STAGES], lambda one: one.stage)


def by_group(pieces: Sequence[Finished], checked: Sequence[Checked], group: str) -> list[tuple[str, Figures]]:
    """The figures by family, place or year. Parameters: pieces; checked; group, by which."""
    belongs = {one.tag: dict(one.groups).get(group, "") for one in pieces}
    names = sorted(set(belongs.values()) - {""})
    return _grouped(checked, names, lambda one: belongs.get(one.tag, ""))


def _grouped(
    checked: Sequence[Checked], names: Sequence[Name], name_of: Callable[[Checked], str]
) -> list[tuple[Name, Figures]]:
    found = [(name, figures([one for one in checked if name_of(one) == name])) for name in names]
    return [(name, some) for name, some in found if some is not None]


def lesson(figures: Figures) -> Lesson:
    """What figures teach: to which side the dates lean, or that windows are too narrow or wide. Parameters: figures."""
    if figures.few:
        return "too_few"
    if abs(figures.bias_share) >= BIASED_SHARE:
        return "late" if figures.bias_share > 0 else "early"
    if figures.inside < NARROW:
        return "narrow"
    return "wide" if figures.inside > WIDE else "well"
