"""A batch as the ledger sees it, second edition: its whole course with readings. None means not known, everywhere.

Times are seconds since 1970. `tags`: the pieces that something belongs to; empty: all of them.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from ..course import StageKind
from ..limits import LimitProfile

State = Literal["pass", "pending", "fail", "unknown"]
Known = Literal["measured", "computed", "estimated", "laboratory", "stated", "not known"]
Goods = Literal["minced", "intact"]
Use = Literal["raw", "cooked"]
Meter = Literal["checked", "unchecked", "unknown"]
Rim = Literal["soft", "yielding", "firm", "hard"]
Core = Literal["soft", "yielding", "firm", "hard", "wet"]
DoneBy = Literal["weight", "feel", "days"]
ParasiteWay = Literal["certified", "frozen", "none"]
CureWay = Literal["measured", "pressed", "rubbed", "buried"]
LabWhat = Literal[
    "water_activity", "ph", "salt", "nitrite", "listeria", "salmonella", "stec", "staphylococcal_enterotoxin",
    "moisture", "protein", "fat",
]  # fmt: skip
LAB_WHAT: tuple[str, ...] = get_args(LabWhat)
Tags = tuple[str, ...]
Points = tuple[tuple[float, float], ...]  # (moment [s], value), in time order
MORE_THAN_ONE = 2  # people of a workshop that did not say how many they are


@dataclass(frozen=True)
class Part:
    """Meat in the batch."""

    name: str
    species: str | None  # one of `parasites.SPECIES`; None where nobody said
    mass_g: float | None
    fat_percent: float | None
    tags: Tags = ()


@dataclass(frozen=True)
class CuringSalt:
    """A curing salt that went in; grams None where nobody weighed it."""

    grams: float | None
    nitrite_fraction: float
    nitrate_fraction: float


@dataclass(frozen=True)
class Formulation:
    """Salt and curing salts of a mix [g]. curing_salts: empty is a known zero, None is not known."""

    plain_salt_g: float | None
    curing_salts: tuple[CuringSalt, ...] | None
    other_salt_g: float | None = 0.0  # sodium chloride in other ingredients
    dose_known: bool = True
    belly: bool = False
    tags: Tags = ()


@dataclass(frozen=True)
class ParasiteStep:
    """What was done about the parasites of one species."""

    species: str
    way: ParasiteWay | None
    temperature_c: float | None = None
    days: float | None = None
    thickness_cm: float | None = None


@dataclass(frozen=True)
class Stage:
    """A time under one treatment, with what the thermometer showed; to_s None while it goes on."""

    kind: StageKind
    from_s: float
    to_s: float | None
    temperature: Points = ()
    way: CureWay | None = None
    place: str | None = None
    tags: Tags = ()


@dataclass(frozen=True)
class Ph:
    """A pH reading, and whether its meter can be trusted."""

    at_s: float
    value: float
    meter: Meter = "unknown"


@dataclass(frozen=True)
class Inspection:
    """How a piece felt and smelt."""

    at_s: float
    rim: Rim | None
    core: Core | None
    smell: str = ""


@dataclass(frozen=True)
class Piece:
    """A piece with its weighings, gross [g]; `doubtful`: the moments of those that meet no target."""

    tag: str
    start_weight_g: float | None
    tare_g: float = 0.0
    target_loss_percent: float | None = None
    done_by: DoneBy = "weight"
    core_salt_share: float | None = None  # on leaving the cold
    weights: Points = ()
    doubtful: tuple[float, ...] = ()
    taken_down_s: float | None = None
    inspections: tuple[Inspection, ...] = ()
    casing: str | None = None
    ring_past_bound: bool = False  # predicted


@dataclass(frozen=True)
class LabValue:
    """A value from a laboratory: on the product or on the mix, of one piece or of the batch."""

    at_s: float
    what: LabWhat
    value: float
    unit: str = ""
    on: Literal["product", "mix"] = "product"
    tag: str | None = None


@dataclass(frozen=True)
class Correction:
    """Something that had made a hurdle fail was corrected: by whom, when, why."""

    hurdle: str
    at_s: float
    by: str
    reason: str
    was: State = "fail"


@dataclass(frozen=True)
class Signature:
    """Somebody who answers for an unknown or releases a correction, with a reason."""

    hurdle: str
    by: str
    at_s: float
    reason: str


@dataclass(frozen=True)
class Batch:
    """Everything the ledger reads, as of now."""

    id: str
    goods: Goods
    use: Use
    profile: LimitProfile
    now_s: float
    family: str = ""
    cold_hung: bool = False
    moulded: bool = False
    parts: tuple[Part, ...] = ()
    formulations: tuple[Formulation, ...] = ()
    mix_temperature_c: float | None = None
    parasite: tuple[ParasiteStep, ...] = ()
    stages: tuple[Stage, ...] = ()
    ph: tuple[Ph, ...] = ()
    pieces: tuple[Piece, ...] = ()
    laboratory: tuple[LabValue, ...] = ()
    corrections: tuple[Correction, ...] = ()
    signatures: tuple[Signature, ...] = ()
    people: int = MORE_THAN_ONE
    forecast_end_s: float | None = None  # when the last piece is expected to be done

    def lab(self, what: LabWhat, on: str | None = "product") -> tuple[LabValue, ...]:
        """Laboratory values of a kind up to now, in time order. Parameters: what; on, None for either."""
        found = [v for v in self.laboratory if v.what == what and v.at_s <= self.now_s and on in (None, v.on)]
        return tuple(sorted(found, key=lambda v: v.at_s))

    @property
    def hangs_cold(self) -> bool:
        """Minced goods that never had a warm stage, and were not meant to."""
        declared = self.cold_hung or self.family == "salame_cold_hung"
        return self.goods == "minced" and declared and all(stage.kind != "warm" for stage in self.stages)

    @property
    def stuffed_s(self) -> float | None:
        """When minced goods were stuffed: the start of the first stage that is neither cold nor cure [s]."""
        return min((s.from_s for s in self.stages if s.kind not in ("cold", "cure")), default=None)

    def ends_s(self, pieces: Sequence[Piece]) -> float:
        """Where the line of some pieces ends [s].

        Parameters: pieces. Now; or, once all are down, the last of that and of the stages, one that nobody ended
        ending now.
        """
        downs = [p.taken_down_s for p in pieces if p.taken_down_s is not None and p.taken_down_s <= self.now_s]
        if not pieces or len(downs) < len(pieces):
            return self.now_s
        return min(max([*downs, *(self.now_s if s.to_s is None else s.to_s for s in self.stages)]), self.now_s)
