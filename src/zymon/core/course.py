"""The course of a batch: everything that was done to its meat on one time line, from the bowl to the knife.

One frozen object, built in one place from what is stored, read by the ledger, the files, Today, and whatever tells or
prints a batch. It holds summaries; the readings of a stage's place are loaded when somebody asks for them. Times are
seconds since 1970. `tags`: the pieces that something belongs to, empty where it belongs to all of them.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from .errors import OutOfRangeError
from .life import Life
from .say import Value
from .scale import Reading

StageKind = Literal["cold", "cure", "room", "warm", "hang", "rest"]
Tags = tuple[str, ...]

HANDLING_S = 6 * 3600.0  # between two stages: tying, casing, carrying takes that long; more is not known


@dataclass(frozen=True)
class Stage:
    """A time in one place under one treatment; `to_s` is None while it goes on. Raises OutOfRangeError."""

    kind: StageKind
    from_s: float
    to_s: float | None
    place_id: int | None = None
    place: str | None = None
    way: str | None = None  # of a cure; the bag of a rest
    tags: Tags = ()
    by: str = ""

    def __post_init__(self) -> None:
        if self.to_s is not None and self.to_s < self.from_s:
            raise OutOfRangeError("refused.stage_backwards", stage=self.kind)


@dataclass(frozen=True)
class Part:
    """Meat that went into a batch."""

    name: str
    species: str | None
    mass_g: float
    fat_percent: float | None
    tags: Tags = ()


@dataclass(frozen=True)
class Formulation:
    """Salt and curing salt of a mix [g]."""

    meat_g: float
    plain_salt_g: float
    curing_salt_g: float
    nitrite_fraction: float
    nitrate_fraction: float
    belly: bool = False
    other_salt_g: float = 0.0  # common salt in other lines
    curing_known: bool = True  # false: nobody said whether curing salt went in
    dose_known: bool = True  # false: nobody weighed the salt
    curing_salt: bool = True  # false: none is meant to be in it
    tags: Tags = ()


@dataclass(frozen=True)
class Salting:
    """How the salt of one piece stands: by which way, from when to when, and its core's share of what it settles at."""

    tag: str
    way: str
    from_s: float
    to_s: float | None
    core_share: float


@dataclass(frozen=True)
class Acidity:
    """A pH reading."""

    at_s: float
    ph: float
    meter_id: int | None = None
    kept: bool = False


@dataclass(frozen=True)
class Doing:
    """Something done or seen: what, when, by whom, on which pieces, with which values; struck where it was wrong."""

    what: str
    at_s: float
    by: str
    tags: Tags = ()
    values: Mapping[str, Value] = field(default_factory=dict)
    struck: bool = False


@dataclass(frozen=True)
class Individual:
    """A piece of the batch: its life, its weights as they stand, what it is dried to. What nobody weighed is None."""

    tag: str
    life: Life
    start_weight_g: float | None = None
    tare_g: float = 0.0
    target_loss_percent: float | None = None
    casing: str | None = None
    weighings: tuple[Reading, ...] = ()
    felt: tuple["Felt", ...] = ()
    doubtful: tuple[float, ...] = ()  # moments of weighings that meet no target before they are confirmed
    done_by: str | None = None  # weight, feel, days; None: as the batch


@dataclass(frozen=True)
class Felt:
    """How a piece felt and smelt; None where it was not looked at."""

    at_s: float
    rim: str | None
    core: str | None
    smell: str | None


@dataclass(frozen=True)
class Result:
    """A value from a laboratory: of the product or the mix, of one piece or of the batch."""

    what: str
    value: float
    at_s: float
    unit: str = ""
    taken_of: str = "product"
    tag: str | None = None


@dataclass(frozen=True)
class Signed:
    """Who answers for an unknown, with a reason."""

    hurdle: str
    by: str
    reason: str
    at_s: float


@dataclass(frozen=True)
class Corrected:
    """Something entered that was changed afterwards: what, from what to what, by whom, why."""

    what: str
    at_s: float
    by: str
    before: str
    after: str
    reason: str


@dataclass(frozen=True)
class Undone:
    """A hurdle that stopped failing because something entered was changed: by whom, why."""

    hurdle: str
    at_s: float
    by: str
    reason: str
    was: str


@dataclass(frozen=True)
class Parasites:
    """What was done about the parasites of a species."""

    species: str
    way: str
    temperature_c: float | None
    days: float | None
    thickness_cm: float | None


@dataclass(frozen=True)
class Course:
    """A batch on one time line."""

    code: str
    product: str
    minced: bool | None  # None: nobody said
    made_s: float
    profile: str | None
    stages: tuple[Stage, ...]
    pieces: tuple[Individual, ...]
    parts: tuple[Part, ...] = ()
    formulations: tuple[Formulation, ...] = ()
    saltings: tuple[Salting, ...] = ()
    mix_temperature_c: float | None = None
    acidity: tuple[Acidity, ...] = ()
    doings: tuple[Doing, ...] = ()
    laboratory: tuple[Result, ...] = ()
    parasites: tuple[Parasites, ...] = ()
    signatures: tuple[Signed, ...] = ()
    corrections: tuple[Corrected, ...] = ()
    released: tuple[Undone, ...] = ()
    people: tuple[str, ...] = ()
    family: str = ""
    use: str = "raw"
    done_by: str = "weight"
    cold_hung: bool = False
    moulded: bool = False
    discarded: str | None = None

    def stages_of(self, tag: str) -> tuple[Stage, ...]:
        """The stages that one piece went through, in time order. Parameters: tag."""
        return tuple(s for s in self.stages if not s.tags or tag in s.tags)

    def stage(self, kind: StageKind) -> Stage | None:
        """The latest stage of a kind. Parameters: kind."""
        return next((s for s in reversed(self.stages) if s.kind == kind), None)

    def ends_s(self, now_s: float) -> float:
        """Where the time line ends: now, or, when all pieces are off their hooks, the last of that and of its stages.

        Parameters: now_s [s].
        """
        if not self.pieces or any(p.life.last is None or p.life.last.kind in BEFORE_OR_ON for p in self.pieces):
            return now_s
        downs = [s.to_s for p in self.pieces for s in p.life.states if s.kind == "hanging" and s.to_s is not None]
        ended = [s.to_s for s in self.stages if s.to_s is not None]
        running = [now_s for s in self.stages if s.to_s is None]
        return min(max([*downs, *ended, *running], default=now_s), now_s)

    def unknown(self, tag: str, now_s: float) -> tuple[tuple[float, float], ...]:
        """Times of a piece's line that no stage covers, but for the handling between two [s]. Parameters: tag; now_s.

        What no stage covers is not known, and shows as such.
        """
        own = self.stages_of(tag)
        if not own:
            return ()
        covered = [(s.from_s, now_s if s.to_s is None else s.to_s) for s in own]
        return tuple(gap for gap in between(covered) if gap[1] - gap[0] > HANDLING_S)


BEFORE_OR_ON = ("in_salt", "out", "waiting", "warm", "hanging")


def between(spans: Iterable[tuple[float, float]]) -> list[tuple[float, float]]:
    """What lies between spans that may overlap, in time order. Parameters: spans, of (from, to).

    >>> between([(0.0, 2.0), (1.0, 3.0), (5.0, 6.0)])
    [(3.0, 5.0)]
    """
    found: list[tuple[float, float]] = []
    end: float | None = None
    for low, high in sorted(spans):
        if end is not None and low > end:
            found.append((end, low))
        end = high if end is None else max(end, high)
    return found
