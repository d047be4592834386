"""What the Salt station sends and receives; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.curing import Geometry
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.ledger.batch import State as HurdleState
from zymon.core.planning.amounts import LossBasis
from zymon.core.salting.shed import Verdict
from zymon.core.salting.ways import CareKind, Dose, Way
from zymon.core.salting.ways import Kind as Waits
from zymon.formats.recipe_file import Species
from zymon.formats.texts import ONE_LINE
from zymon.store.kinds import SaltEventKind as EventKind

from ..schemas import CuringIn, Grams, Note, Product, RecordIn, RowId, SaidOut, Tag, WithMade

RuleName = Literal["linear", "square", "by_weight", "diffusion"]
USUAL_RULES: list[RuleName] = ["linear", "square", "diffusion"]
SaltState = Literal["early", "may_come_out", "right", "late", "out"]
Container = Annotated[str, StringConstraints(strip_whitespace=True, max_length=40), ONE_LINE]
Percent = Annotated[float, Field(ge=0.3, le=12, allow_inf_nan=False)]
Across = Annotated[float, Field(ge=3, le=400, allow_inf_nan=False)]


class CareOut(BaseModel):
    """Something to be done again and again."""

    kind: CareKind
    due_from: datetime
    due: datetime
    latest: datetime
    done: int
    missed: int
    last: datetime | None
    cost: SaidOut


class ColdOut(BaseModel):
    """Whether it stayed cold, as the ledger judges it."""

    state: HurdleState
    says: SaidOut | None


class SaltEventOut(BaseModel):
    """Something that was done."""

    id: int
    kind: EventKind
    at: datetime
    value: float | None
    place: str | None
    container: str | None
    way: Way | None
    percent: float | None
    note: str
    by: str
    struck_reason: str | None
    struck_by: str | None


class RuleOut(BaseModel):
    """What a rule says."""

    name: RuleName
    says: str
    days: float | None
    at: datetime | None
    chosen: bool


class SaltCard(BaseModel):
    """A piece in salt; salt in % of the meat, `radius` and `profile` of its shells from the middle to the rim."""

    id: int
    tag: str
    batch_id: int
    batch: str
    product: str
    kind: Kind
    shape: Shape
    geometry: Geometry
    across_mm: float
    raw_g: float
    way: Way
    way_name: str
    free_salt: bool
    open_salt: bool  # more salt lies on it than it is to take up
    out_is_early: bool
    percent: float
    waits: Waits
    waits_says: str
    place_id: int | None
    place: str | None
    container: str | None
    in_at: datetime
    out_at: datetime | None
    state: SaltState
    earliest: datetime | None
    best: datetime | None
    latest: datetime | None
    core_at: list[datetime | None]  # fast, usual, slow
    leads: RuleName | Literal["aim"]
    mean_percent: float
    mean_low_percent: float
    mean_high_percent: float
    dose_known: bool  # what lies on it was weighed
    pierced: bool
    core_percent: float
    core_share: float
    settles_percent: float
    radius: list[float]
    profile: list[float]
    shed_g: float
    shed_low_g: float
    shed_high_g: float
    expected_low_g: float
    expected_high_g: float
    weight_g: float | None  # the last one weighed since it was put in
    weight_verdict: Verdict | None
    gain: SaidOut | None  # what may be behind a weight above that it went in with
    cold: ColdOut
    care: list[CareOut]
    after: Literal["blot", "rinse"]


class CurveOut(BaseModel):
    """Salt over time, % of the meat; lists of equal length."""

    at: list[datetime]
    mean: list[float]
    core: list[float]
    core_low: list[float]
    core_high: list[float]


class Bases(BaseModel):
    """What the loss can be counted from [g]."""

    raw_g: float
    cured_g: float | None


class SaltDetail(BaseModel):
    """A piece in salt with its rules, its curve and everything that was done."""

    card: SaltCard
    rules: list[RuleOut]
    margin_percent: float
    curve: CurveOut
    events: list[SaltEventOut]
    bases: Bases
    loss_basis: LossBasis
    target_loss_percent: float
    next_steps: list[str]
    casing: Casing
    coat_g: float | None  # of what was noted when it was coated


class WayOut(BaseModel):
    """A way to salt."""

    id: Way
    name: str
    says: str
    clock: str
    waits: str
    dose: Dose
    may_be_free: bool


class WaitingBatch(BaseModel):
    """A batch of whole muscle that waits for its salt."""

    id: int
    code: str
    product: str
    made_at: datetime
    way: Way
    percent: float
    across_mm: float
    geometry: Geometry
    piece_g: float
    meat_g: float
    salt_g_per_kg: float | None  # plain and curing salt together, as its sheet was weighed
    next_tag: str
    begun: bool  # some of it is in salt already: more of it, or by another way


class SaltOut(WithMade):
    """Everything in salt, the ways there are, and what waits for salt."""

    pieces: list[SaltCard]
    ways: list[WayOut]
    waiting: list[WaitingBatch]
    next_code: str


class MuscleIn(BaseModel):
    """A muscle, trimmed and weighed; without a tag it gets the next of its batch."""

    tag: Tag | None = None
    raw_g: Annotated[float, Field(gt=0, le=50_000, allow_inf_nan=False)]
    across_mm: Across


class QuickBatch(BaseModel):
    """A batch made here, of muscles that never saw the Bench: a code, what it is, a family to take the rest from.

    What is in the salt is asked, never taken from the family: `curing` none, weighed (with which) or unknown; "" where
    nobody says. `dose_known`: whether the salt was weighed.
    """

    code: Tag
    product: Product
    family: Annotated[str, StringConstraints(max_length=40), ONE_LINE]
    species: Species | None = None
    curing: Literal["", "none", "weighed", "unknown"] = ""
    curing_salt: CuringIn | None = None
    dose_known: bool = True


class PutInIn(RecordIn):
    """Muscles to put in salt, all or none: of a batch of the Bench, or of a quick one."""

    batch_id: RowId | None = None
    quick: QuickBatch | None = None
    muscles: Annotated[list[MuscleIn], Field(min_length=1, max_length=200)]
    geometry: Geometry
    skin_share: Annotated[float, Field(ge=0, le=0.8, allow_inf_nan=False)] = 0.0
    pierced: bool = False
    way: Way
    free_salt: bool = False
    percent: Percent
    place_id: RowId
    container: Container = ""
    rules: Annotated[list[RuleName], Field(min_length=1, max_length=4)] = USUAL_RULES
    margin_percent: Annotated[float, Field(ge=0, le=30, allow_inf_nan=False)] = 0.0


class NoteIn(RecordIn):
    """Something done to one piece or to several, all or none; what a value means depends on the kind."""

    pieces: Annotated[list[RowId], Field(min_length=1, max_length=500)]
    kind: EventKind
    value: Annotated[float, Field(ge=-30, le=50_000, allow_inf_nan=False)] | None = None
    place_id: RowId | None = None
    container: Container | None = None
    way: Way | None = None
    free_salt: bool = False
    percent: Percent | None = None
    note: Note = ""
    not_weighed: bool = False  # taken out without a scale


class RulesIn(RecordIn):
    """Which rules of thumb count for a piece."""

    rules: Annotated[list[RuleName], Field(min_length=1, max_length=4)]
    margin_percent: Annotated[float, Field(ge=0, le=30, allow_inf_nan=False)] = 0.0


class ToHookIn(RecordIn):
    """The piece cased and tied: what it weighs now, and from which weight its loss counts."""

    gross_g: Grams | None = None  # null: nobody weighs it
    casing_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    net_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    string_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    coat_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    across_mm: Annotated[float, Field(gt=0, le=600, allow_inf_nan=False)] | None = None
    length_mm: Annotated[float, Field(gt=0, le=2500, allow_inf_nan=False)] | None = None
    target_loss_percent: Annotated[float, Field(gt=0, le=80, allow_inf_nan=False)] | None = None  # null: feel or days
    loss_basis: LossBasis
    casing: Casing | None = None  # left out: as its batch is cased


class ToHookOut(WithMade):
    """The tagged piece, and what the scale shows at its target by each basis [g]."""

    tag: str
    batch_id: int
    target_gross_g: float | None
    by_basis: dict[LossBasis, float]  # empty where it is not done by weight
