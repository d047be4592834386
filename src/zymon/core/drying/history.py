"""What the forecast is asked about: a place, its climate, its batches and their pieces."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal, get_args

from ..errors import OutOfRangeError, require
from ..pieces import MAX_TARGET_LOSS_PERCENT, net_weight, target_weight
from ..say import Said, said
from ..water import TYPICAL_SALT_PERCENT
from .climate import Log
from .feel import Feel
from .geometry import Kind, Shape, body_of, usual_weight_g
from .priors import KINDS as GOODS
from .surroundings import FROST_C, Surroundings

Casing = Literal["natural", "fibrous", "collagen", "membrane", "cloth", "coating", "none"]
KINDS: tuple[str, ...] = get_args(Kind)
SHAPES: tuple[str, ...] = get_args(Shape)
CASINGS: tuple[str, ...] = get_args(Casing)
BONE_IN_G = 6000.0  # a leg on the bone from this weight on lies outside what the model was fitted on
WARMEST_C = 30.0  # and so does air that is warmer than this, or frost


@dataclass(frozen=True)
class Weighing:
    """One reading of the scale: seconds since any epoch, gross weight [g].

    `confirmed`: a second reading agrees; `kept`: it was asked about and kept all the same.
    """

    at_s: float
    gross_g: float
    confirmed: bool = False
    kept: bool = False


@dataclass(frozen=True)
class Stay:
    """From when on a piece hung at a hook, by the hook's name; `place` names another place than the history's.

    `paused`: it was off its hook and lost nothing, in a bag or on a board.
    """

    from_s: float
    hook: str
    place: str = ""
    paused: bool = False


@dataclass(frozen=True)
class Piece:
    """A hanging piece as declared, with its weighings. Raises OutOfRangeError for measures no piece can have.

    A piece that nobody weighed has no start weight, one that is done by days or feel no target: what is worked out of
    such a piece are shares, and no date of a target.
    """

    tag: str
    batch: str
    kind: Kind
    shape: Shape
    casing: Casing
    fat_percent: float | None
    salt_percent: float | None
    diameter_mm: float | None
    thickness_mm: float | None
    length_mm: float | None
    start_weight_g: float | None
    tare_g: float
    hung_at_s: float
    target_loss_percent: float | None
    weighings: tuple[Weighing, ...] = field(default=())
    stays: tuple[Stay, ...] = field(default=())  # in time order; empty where hooks are not known
    bone: bool | None = None  # None: as is usual for its kind
    skin: bool | None = None  # left on one face; None: nobody said, taken as off
    done_days: int | None = None  # done after so many days on the hook, where it is done by days
    feels: tuple[Feel, ...] = ()  # how it felt between the fingers, in time order

    def __post_init__(self) -> None:
        if self.start_weight_g is not None:
            net_weight(self.start_weight_g, self.tare_g)
        if self.target_loss_percent is not None:
            most = MAX_TARGET_LOSS_PERCENT
            require("target loss", self.target_loss_percent, 0.0, most, "%", open_low=True)
        body_of(
            self.kind,
            self.shape,
            self.net_start_g,
            self.diameter_mm,
            self.thickness_mm,
            self.length_mm,
        )
        if self.fat_percent is not None:
            require("fat", self.fat_percent, 0.0, 80.0, "%")
        if self.salt_percent is not None:
            require("salt", self.salt_percent, 0.0, 15.0, "%")
        for w in self.weighings:
            if not (math.isfinite(w.gross_g) and w.gross_g > 0):
                raise OutOfRangeError("refused.no_weight", gross_g=w.gross_g)
            if w.at_s < self.hung_at_s:
                raise OutOfRangeError("refused.weighed_before_hung_unnamed")

    @property
    def assumed(self) -> tuple[Said, ...]:
        """What is taken as usual of the piece because nobody gave it: its weight, its fat, its salt, its measures."""
        found = []
        if self.start_weight_g is None:
            found.append(said("assumed.weight", start_g=round(self.net_start_g, -1)))
        if self.target_loss_percent is None:
            found.append(said("assumed.target", percent=self.aim_percent, goods=self.kind))
        if self.fat_percent is None:
            found.append(said("assumed.fat", percent=GOODS[self.kind].fat_percent, goods=self.kind))
        if self.salt_percent is None:
            found.append(said("assumed.salt", percent=TYPICAL_SALT_PERCENT))
        if (self.thickness_mm if self.shape == "slab" else self.diameter_mm) is None:
            found.append(said("assumed.size"))
        return tuple(found)

    @property
    def by_weight(self) -> bool:
        """Whether the scale can say that it is done: its start was weighed, and it has a target."""
        return self.start_weight_g is not None and self.target_loss_percent is not None

    @property
    def net_start_g(self) -> float:
        """Net weight at hanging [g]; of a piece that nobody weighed as its measures and its kind suggest."""
        if self.start_weight_g is None:
            return usual_weight_g(self.kind, self.shape, self.diameter_mm, self.thickness_mm, self.length_mm)
        return self.start_weight_g - self.tare_g

    @property
    def aim_percent(self) -> float:
        """The loss it hangs for [%]: its target, else the one that is usual for its kind."""
        usual = GOODS[self.kind].target_loss_percent
        return usual if self.target_loss_percent is None else self.target_loss_percent

    @property
    def target_gross_g(self) -> float | None:
        """What the scale must show when it is done [g]; None where the scale cannot say it."""
        if self.start_weight_g is None or self.target_loss_percent is None:
            return None
        return target_weight(self.start_weight_g, self.tare_g, self.target_loss_percent).target_gross_g

    def hook_mostly(self, now_s: float, share: float) -> str | None:
        """The hook at which it hung at least that share of its time up to now, or None. Parameters: now_s; share."""
        if not self.stays:
            return None
        spent: dict[str, float] = {}
        ends = [*(stay.from_s for stay in self.stays[1:]), now_s]
        for stay, end in zip(self.stays, ends, strict=True):
            spent[stay.hook] = spent.get(stay.hook, 0.0) + max(end - stay.from_s, 0.0)
        total = sum(spent.values())
        return next((hook for hook, s in spent.items() if total > 0 and s >= share * total), None)

    def loss_fraction(self, gross_g: float) -> float:
        """Share of the net start weight lost at a gross weight [-]; a guess where the start was not weighed."""
        return 1.0 - (gross_g - self.tare_g) / self.net_start_g

    def gross_at(self, loss_fraction: float) -> float:
        """Gross weight [g] that a loss [-] stands for."""
        return self.net_start_g * (1.0 - loss_fraction) + self.tare_g


@dataclass(frozen=True)
class History:
    """Everything known at `now_s`: nothing later is used, wherever it stands."""

    pieces: tuple[Piece, ...]
    log: Log
    setpoint_c: float | None
    setpoint_rh_percent: float | None
    now_s: float
    elsewhere: Mapping[str, Log] = field(default_factory=dict)  # logs of other places where pieces hung before
    surroundings: Surroundings = field(default_factory=Surroundings)

    def outside(self, piece: Piece) -> bool:
        """Whether a piece or its air lies outside what the model was fitted on. Parameters: piece."""
        on_the_bone = piece.bone if piece.bone is not None else piece.kind == "ham"
        return (on_the_bone and piece.net_start_g > BONE_IN_G) or self.usual_c < FROST_C or self.usual_c > WARMEST_C

    @property
    def usual_c(self) -> float:
        """The usual temperature of the place [°C]: of its log, else as set, else as usual in such a place."""
        log = self.log.until(self.now_s)
        if len(log.temperature_c):
            return float(log.temperature_c.mean())
        return self.surroundings.usual.temperature_c if self.setpoint_c is None else self.setpoint_c

    @property
    def assumed(self) -> tuple[Said, ...]:
        """What is taken as usual of the air because nobody and no thermometer told."""
        log = self.log.until(self.now_s)
        humid = len(log.of_humidity.time_s) > 0
        return self.surroundings.assumed(len(log.time_s) > 0, self.setpoint_c, self.setpoint_rh_percent, humid)
