"""What the ledger sends and receives besides the ledger file; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from zymon.core.ledger.batch import DoneBy, Known, LabWhat, State, Use
from zymon.core.ledger.judge import Verdict
from zymon.formats.recipe_file import Species
from zymon.formats.texts import LINES, ONE_LINE
from zymon.store.kinds import Curing, DeviationAct, MeatNoteKind

from ..schemas import CuringIn, Moment, Note, Reason, RecordIn, RowId, SaidOut, Tag, Who, WithMade


class LabIn(RecordIn):
    """A value from a laboratory: which one, in which unit, of the product or the mix, and the number of its report."""

    what: LabWhat
    value: Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)]
    unit: Literal["", "%", "mg/kg", "cfu/g", "in 25 g"] = ""
    taken_of: Literal["product", "mix"] = "product"
    tag: Tag | None = None
    loss_percent: Annotated[float, Field(ge=0, le=65, allow_inf_nan=False)] | None = None
    note: Note = ""


class LabOut(BaseModel):
    """A value from a laboratory."""

    model_config = ConfigDict(from_attributes=True)

    id: int
    what: str
    value: float
    unit: str
    taken_of: str
    tag: str | None
    loss_percent: float | None
    note: str
    at: datetime
    by: str
    struck_reason: str | None


class ParasiteIn(RecordIn):
    """What was done about the parasites of a species."""

    species: Species
    way: Literal["frozen", "certified", "none"]
    temperature_c: Annotated[float, Field(ge=-90, le=10, allow_inf_nan=False)] | None = None
    days: Annotated[float, Field(ge=0, le=2000, allow_inf_nan=False)] | None = None
    thickness_cm: Annotated[float, Field(gt=0, le=200, allow_inf_nan=False)] | None = None
    note: Note = ""


class ParasiteOut(BaseModel):
    """What was said about the parasites of a species."""

    id: int
    species: str
    way: str
    temperature_c: float | None
    days: float | None
    thickness_cm: float | None
    note: str
    by: str
    struck_reason: str | None


class SignIn(RecordIn):
    """Who answers for an unknown hurdle, or releases a correction, and why it may count as passed."""

    hurdle: Annotated[str, StringConstraints(max_length=30), ONE_LINE]
    reason: Reason


class PhIn(RecordIn):
    """A pH of a batch, measured in the meat, and with which meter."""

    ph: Annotated[float, Field(gt=0, lt=1000, allow_inf_nan=False)]
    meter_id: RowId | None = None


class StepIn(RecordIn):
    """What was done about a hurdle that failed or is in doubt."""

    hurdle: Annotated[str, StringConstraints(max_length=30), ONE_LINE]
    step: DeviationAct
    note: Note = ""


class StepOut(BaseModel):
    """What was done about a hurdle."""

    id: int
    hurdle: str
    step: str
    note: str
    at: datetime
    by: str
    struck_reason: str | None


class MeatIn(RecordIn):
    """Where the meat lay (cold, room), from its moment until `to_at`; or how warm it was when it was mixed (mix)."""

    kind: MeatNoteKind
    to_at: Moment | None = None
    place_id: RowId | None = None
    temperature_c: Annotated[float, Field(ge=-40, le=60, allow_inf_nan=False)] | None = None
    note: Note = ""


class MeatOut(BaseModel):
    """Where the meat lay, or how warm it was mixed."""

    id: int
    kind: str
    at: datetime
    to_at: datetime | None
    place: str | None
    temperature_c: float | None
    note: str
    by: str
    struck_reason: str | None


class ChoicesIn(RecordIn):
    """How a batch is meant to be eaten, and what says that it is done."""

    use: Use
    done_by: DoneBy


class WentInIn(RecordIn):
    """What went into meat that never lay on the Bench; what is left out stays not known.

    curing: "" not said, none, weighed (with how much), unknown (some, but nobody weighed it).
    """

    species: Species | None = None
    fat_percent: Annotated[float, Field(ge=0, le=80, allow_inf_nan=False)] | None = None
    salt_percent: Annotated[float, Field(ge=0, le=15, allow_inf_nan=False)] | None = None
    curing: Curing = ""
    curing_salt: CuringIn | None = None


class KeepingOut(BaseModel):
    """The goods at a loss, by estimate or as a laboratory corrected it."""

    loss_percent: float
    water_activity: float
    water_activity_sd: float
    water_phase_salt_percent: float
    moisture_protein_ratio: float
    keeps: Literal["no_chill", "max_10_c", "max_5_c"]


Entry = Literal[
    "sign", "laboratory", "parasites", "went_in", "step", "measure_ph", "weigh", "feel", "readings", "salt", "warm",
    "choices", "meat",
]  # fmt: skip


class EvidenceOut(BaseModel):
    """A stretch of the time line that speaks for or against."""

    from_at: datetime
    to_at: datetime
    says: SaidOut


class WasFailOut(BaseModel):
    """That a hurdle failed until somebody corrected what had made it fail."""

    until: datetime
    by: str
    reason: str


class SignedOut(BaseModel):
    """Who answers for it, when and why."""

    by: str
    at: datetime
    reason: str


class HurdleOut(BaseModel):
    """One hurdle: its value beside its limit as they were compared, what would settle it."""

    name: str
    state: State
    blocks: bool
    signable: bool
    value: float | str | None
    limit: float | SaidOut | None
    unit: str
    known: Known
    source: str
    why: SaidOut | None
    settles: SaidOut | None
    entries: list[Entry]  # which entries settle it, the best first
    cautions: list[SaidOut]
    evidence: list[EvidenceOut]
    pieces: list[str] | None
    was_fail: WasFailOut | None
    signed: SignedOut | None


class AgainstOut(BaseModel):
    """Why a batch is not ready: which hurdle, and the reason."""

    hurdle: str
    says: SaidOut


class StageOut(BaseModel):
    """A stage on the time line of a batch."""

    kind: str
    from_at: datetime
    to_at: datetime | None
    place: str | None
    pieces: list[str]


class ProfileShown(BaseModel):
    """The limits a batch is judged by; `milder`: in what they allow more than every published profile shipped here."""

    id: str
    name: str
    source: str
    as_of: str
    check: str
    does_not_know: list[str]
    milder: list[str]
    made_by: str


class LedgerOut(WithMade):
    """The ledger of a batch: ready or not, every hurdle, and what it goes by."""

    code: str
    ready: bool
    verdict: Verdict
    use: Use
    done_by: DoneBy
    goods: Literal["minced", "intact"]
    made_here: bool
    asks_what_went_in: bool
    species: list[str]
    why: list[AgainstOut]
    check: SaidOut
    hurdles: list[HurdleOut]
    stages: list[StageOut]
    ends: datetime
    profile: ProfileShown
    people: int | None
    steps: list[StepOut]
    parasites: list[ParasiteOut]
    laboratory: list[LabOut]
    meat: list[MeatOut]
    keeping: list[KeepingOut]
    keeping_by: Literal["estimate", "laboratory"]
    lab_units: dict[LabWhat, list[str]]  # what a laboratory tells, and in which units


class ProfileIn(BaseModel):
    """By which limits a batch is judged from now on."""

    profile: Annotated[str, StringConstraints(max_length=20), ONE_LINE]
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
    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), ONE_LINE]
    source: Reason
    as_of: Annotated[str, StringConstraints(strip_whitespace=True, min_length=4, max_length=20), ONE_LINE]
    check: Note = "Check with your authority."
    counted_as: Literal["sodium salt", "ion"]
    minced: Ingoing
    intact: Ingoing
    belly: Ingoing
    degree_hours: DegreeHoursIn
    sources: dict[str, Note] = {}
    residual_nitrite_mg_per_kg: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)] | None = None
    residual_as: Literal["sodium salt", "ion"] = "sodium salt"
    listeria_zero: bool = True
    unchilled: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400), LINES] = ""
    does_not_know: Annotated[list[Note], Field(max_length=20)] = []
    made_by: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60), ONE_LINE] = ""


class LimitProfileNew(LimitProfileIn):
    """A limit profile to add, and who adds it."""

    by: Who
