"""What the ledger says of one hurdle, and how the verdicts on several pieces become one."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace

from ..say import Said
from .batch import Known, State, Tags

NEVER_BLOCKS = ("keeping", "nitrite_lasts")  # they say how it keeps, and that is all
WORST_FIRST: tuple[State, ...] = ("fail", "unknown", "pending", "pass")


@dataclass(frozen=True)
class Evidence:
    """A stretch of the time line that speaks for or against [s]."""

    from_s: float
    to_s: float
    says: Said


@dataclass(frozen=True)
class Released:
    """Who answers for an unknown or a correction, when [s] and why."""

    by: str
    at_s: float
    reason: str


@dataclass(frozen=True)
class WasFail:
    """That a hurdle failed until somebody corrected what had made it fail."""

    until_s: float
    by: str
    reason: str


@dataclass(frozen=True)
class Hurdle:
    """One hurdle of some pieces: its state, its value beside the limit, how that is known, what would settle it.

    `since_s`: the moment of what made it unknown; a signature older than that does not count. `signable`: whether
    anybody may sign for it while it is unknown.
    """

    name: str
    state: State
    value: float | str | None = None
    limit: float | Said | None = None
    unit: str = ""
    known: Known = "not known"
    source: str = "practice"
    why: Said | None = None
    settles: Said | None = None
    cautions: tuple[Said, ...] = ()
    evidence: tuple[Evidence, ...] = ()
    pieces: Tags | None = None
    since_s: float | None = None
    signable: bool = True
    asks_look_of: Tags = ()  # pieces that must have been felt firm and clean before a signature counts
    was_fail: WasFail | None = None
    signed: Released | None = None

    @property
    def blocks(self) -> bool:
        """Whether it stands against “ready”."""
        if self.name in NEVER_BLOCKS:
            return False
        if self.was_fail is not None and self.signed is None:
            return True
        return self.state in ("fail", "pending") or (self.state == "unknown" and self.signed is None)


@dataclass(frozen=True)
class Verdicts:
    """The verdicts of one hurdle on every group of pieces that went the same way."""

    name: str
    each: tuple[Hurdle, ...] = field(default=())

    @property
    def blocking(self) -> tuple[Hurdle, ...]:
        """Those that stand against “ready”."""
        return tuple(h for h in self.each if h.blocks)

    def shown(self) -> Hurdle:
        """The worst of them, those that somebody answered for last; it names its pieces where others stand better."""
        worst = min(self.each, key=lambda h: (not h.blocks, WORST_FIRST.index(h.state)))
        alike = [h for h in self.each if (h.state, h.blocks) == (worst.state, worst.blocks)]
        cautions: list[Said] = []
        for caution in (c for h in self.each for c in h.cautions):
            cautions += [] if caution in cautions else [caution]
        tags = tuple(sorted({tag for h in alike for tag in h.pieces or ()}))
        everybody = len(alike) == len(self.each)
        return replace(worst, pieces=None if everybody or not tags else tags, cautions=tuple(cautions))


def joined(groups: Iterable[Sequence[Hurdle]]) -> list[Verdicts]:
    """The verdicts by hurdle, in the order in which they came. Parameters: groups, of the hurdles of some pieces."""
    by_name: dict[str, list[Hurdle]] = {}
    for hurdles in groups:
        for hurdle in hurdles:
            by_name.setdefault(hurdle.name, []).append(hurdle)
    return [Verdicts(name, tuple(each)) for name, each in by_name.items()]
