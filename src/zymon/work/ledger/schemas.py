"""What the ledger sends and receives besides the ledger file; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.ledger.batch import State
from zymon.formats.batch_file import LedgerFile

from ..schemas import Reason, RecordIn, Who, WithMade

LabWhat = Literal[
    "water_activity", "ph", "salt", "nitrite_in", "residual_nitrite", "staphylococcal_enterotoxin", "moisture_protein",
    "listeria", "salmonella",
]  # fmt: skip
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)]


class LabIn(RecordIn):
    """A value from a laboratory: which one, and the number of its report."""

    what: LabWhat
    value: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]
    loss_percent: Annotated[float, Field(ge=0, le=65, allow_inf_nan=False)] | None = None
    note: Note = ""


class LabOut(BaseModel):
    """A value from a laboratory."""

    id: int
    what: LabWhat
    value: float
    loss_percent: float | None
    note: str
    at: datetime
    by: str
    struck_reason: str | None


class ParasiteIn(RecordIn):
    """What was done about parasites."""

    way: Literal["frozen", "certified", "none"]
    temperature_c: Annotated[float, Field(ge=-90, le=10, allow_inf_nan=False)] | None = None
    days: Annotated[float, Field(ge=0, le=2000, allow_inf_nan=False)] | None = None
    thickness_cm: Annotated[float, Field(gt=0, le=200, allow_inf_nan=False)] | None = None
    note: Note = ""


class KeepingOut(BaseModel):
    """The goods at a loss, by estimate or as a laboratory corrected it."""

    loss_percent: float
    water_activity: float
    water_activity_sd: float
    water_phase_salt_percent: float
    moisture_protein_ratio: float
    keeps: Literal["no_chill", "max_10_c", "max_5_c"]


class LedgerOut(WithMade):
    """The ledger of a batch, with what it was given to go by."""

    ledger: LedgerFile
    profile: str
    laboratory: list[LabOut]
    keeping: list[KeepingOut]
    keeping_by: Literal["estimate", "laboratory"]


class ProfileIn(BaseModel):
    """By which limits a batch is judged from now on."""

    profile: Annotated[str, StringConstraints(max_length=20)]
    by: Who


class StandsOtherwise(BaseModel):
    """A hurdle that stands otherwise by other limits."""

    name: str
    was: State
    now: State


class ProfileChanged(BaseModel):
    """What another profile changes."""

    changed: list[StandsOtherwise]
    ledger: LedgerOut


class Ingoing(BaseModel):
    """Most that may go in, mg/kg."""

    nitrite_mg_per_kg: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]
    nitrate_mg_per_kg: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]


class DegreeHourStepIn(BaseModel):
    """An allowance below, or up to, a highest temperature; the last one has neither."""

    limit: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]
    below: Annotated[float, Field(ge=-40, le=212, allow_inf_nan=False)] | None = None
    up_to: Annotated[float, Field(ge=-40, le=212, allow_inf_nan=False)] | None = None


class DegreeHoursIn(BaseModel):
    """Degree-hours over a threshold."""

    unit: Literal["F", "C"]
    threshold: Annotated[float, Field(ge=-40, le=212, allow_inf_nan=False)]
    steps: Annotated[list[DegreeHourStepIn], Field(min_length=1, max_length=12)]


class LimitProfileIn(BaseModel):
    """A limit profile: the maker's own, with its source."""

    id: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]{1,18}$")]
    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
    source: Reason
    as_of: Annotated[str, StringConstraints(strip_whitespace=True, min_length=4, max_length=20)]
    check: Note = "Check with your authority."
    counted_as: Literal["sodium salt", "ion"]
    minced: Ingoing
    intact: Ingoing
    belly: Ingoing
    degree_hours: DegreeHoursIn


class LimitProfileNew(LimitProfileIn):
    """A limit profile to add, and who adds it."""

    by: Who
