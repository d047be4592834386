"""A batch of the first edition, and what a hurdle looks like. None means not known, everywhere."""

from dataclasses import dataclass
from typing import Literal

from ...limits import LimitProfile

State = Literal["pass", "pending", "fail", "unknown"]
Known = Literal["measured", "computed", "estimated", "laboratory", "declared", "not known"]
Points = tuple[tuple[float, float], ...]  # (hour of the batch, value), in time order


@dataclass(frozen=True)
class Bowl:
    """What went into the meat."""

    meat_g: float
    plain_salt_g: float
    curing_salt_g: float
    nitrite_fraction: float
    nitrate_fraction: float
    belly: bool


@dataclass(frozen=True)
class Parasite:
    """What was done about parasites."""

    way: Literal["frozen", "certified", "none"] | None
    temperature_c: float | None
    days: float | None
    thickness_cm: float | None


@dataclass(frozen=True)
class Cure:
    """Time in salt, with the temperature of its place."""

    way: str | None
    from_hour: float
    to_hour: float | None
    temperature: Points


@dataclass(frozen=True)
class WarmStage:
    """The warm stage; way none for a batch hung cold."""

    way: Literal["none"] | None
    from_hour: float
    temperature: Points
    ph: Points


@dataclass(frozen=True)
class HungPiece:
    """A piece with its weighings, (hour, gross g)."""

    tag: str
    start_weight_g: float
    tare_g: float
    target_loss_percent: float | None
    weights: Points


@dataclass(frozen=True)
class LabValue:
    """A value from a laboratory."""

    what: str
    value: float


@dataclass(frozen=True)
class Signature:
    """Somebody who answers for an unknown, with a reason."""

    hurdle: str
    by: str
    reason: str


@dataclass(frozen=True)
class Batch:
    """Everything the ledger reads, as of now."""

    id: str
    goods: Literal["minced", "intact"]
    species: tuple[str, ...]
    profile: LimitProfile
    now_hour: float
    bowl: Bowl | None
    mix_temperature_c: float | None
    parasite: Parasite | None
    cure: Cure | None
    warm: WarmStage | None
    pieces: tuple[HungPiece, ...]
    laboratory: tuple[LabValue, ...]
    signatures: tuple[Signature, ...]

    def lab(self, *names: str) -> float | None:
        """The latest laboratory value of any of these names. Parameters: names [-]."""
        return next((v.value for v in reversed(self.laboratory) if v.what in names), None)


@dataclass(frozen=True)
class Hurdle:
    """One hurdle: its state, its value, its limit with source, and how the value is known."""

    name: str
    state: State
    value: float | str | None
    limit: str
    unit: str
    known: Known
    source: str
    caution: str | None = None
    says: str = ""  # why it does not pass, or what would settle it
    signable: bool = True
    signed_by: str | None = None
    signed_reason: str | None = None
