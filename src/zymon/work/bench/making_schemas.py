"""What the Bench sends and receives of weigh-outs, lots, batches and pieces."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.bench.weighing import State as ThingState
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.planning.amounts import LossBasis
from zymon.formats.recipe_file import Name, SheetModel
from zymon.formats.texts import ONE_LINE

from ..hang.schemas import LifeOut
from ..schemas import Grams, Millimetres, Reason, RecordIn, RowId, SaidOut, Tag, WithMade

ProfileId = Annotated[str, StringConstraints(pattern="^[a-z0-9_-]{1,20}$")]


class LotOut(BaseModel):
    """A delivery that can be traced."""

    id: int
    kind: str
    code: str
    what: str
    at: datetime


class WeighOutIn(RecordIn):
    """A sheet to be weighed out."""

    product: Name
    sheet: SheetModel
    profile: ProfileId = "us"
    recipe_id: RowId | None = None
    version: Annotated[int, Field(ge=1, le=100_000)] | None = None


class EntryOut(BaseModel):
    """What was poured, struck through where it was wrong."""

    id: int
    key: str
    grams: float
    rescale: float | None
    lot: str | None
    at: datetime
    by: str
    struck_reason: str | None
    struck_by: str | None


class ThingOut(BaseModel):
    """One thing to weigh out, and how it stands. lot_kind: what lots it can be of."""

    key: str
    name: str
    target_g: float
    tolerance_g: float
    weighed_g: float | None
    missing_g: float
    state: ThingState
    scale_g: float
    worst_error_percent: float
    lot: str | None
    lot_kind: Literal["meat", "curing_salt", "culture", "other"]


class JoinOut(BaseModel):
    """A batch that a weigh-out may join as another mix."""

    id: int
    code: str
    product: str


class WeighOutOut(WithMade):
    """A weigh-out as it stands."""

    id: int
    product: str
    by: str
    started_at: datetime
    ended_at: datetime | None
    rescale: float
    asks_temperature: bool
    meat_temperature_c: float | None
    meat_temperature_at: datetime | None
    things: list[ThingOut]
    entries: list[EntryOut]
    left: int
    next_code: str
    may_join: list[JoinOut]


class EntryIn(RecordIn):
    """Grams poured of one thing, below 0 for taken out.

    `seen_g`: what this screen showed to be in the bowl of it; where there is more or less by now, nothing is stored.
    """

    key: Annotated[str, StringConstraints(max_length=40), ONE_LINE]
    grams: Annotated[float, Field(gt=-200_000, le=900_000, allow_inf_nan=False)]
    seen_g: Annotated[float, Field(ge=0, le=900_000, allow_inf_nan=False)] | None = None
    lot: Annotated[str, StringConstraints(strip_whitespace=True, max_length=40), ONE_LINE] = ""


class RescaleIn(RecordIn):
    """Rescale the rest to what was really put in of one thing."""

    key: Annotated[str, StringConstraints(max_length=40), ONE_LINE]


class TemperatureIn(RecordIn):
    """The meat's temperature before it is mixed."""

    temperature_c: Annotated[float, Field(ge=-30, le=40, allow_inf_nan=False)]


class EndIn(RecordIn):
    """Why a weigh-out is given up."""

    reason: Reason


class BatchIn(RecordIn):
    """A batch of a weigh-out, and where its pinch for pH lies."""

    code: Tag
    pinch_place_id: RowId | None = None


class MixIn(RecordIn):
    """What was weighed out joins a batch as another mix of it."""

    batch_id: RowId
    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80), ONE_LINE]


class MixOut(BaseModel):
    """A mix of a batch beside its first."""

    id: int
    name: str
    made_at: datetime
    by: str
    fat_percent: float
    salt_percent: float


class HoldOut(BaseModel):
    """A red hold, and how it was answered."""

    id: int
    text: str
    says: SaidOut | None
    source: str
    at: datetime
    answered_at: datetime | None
    answered_by: str | None
    reason: str | None
    legal_basis: str | None


class AnswerIn(RecordIn):
    """The answer to a hold: why it may stand, and on what legal basis."""

    reason: Reason
    legal_basis: Reason


class MadePieceIn(BaseModel):
    """A piece, weighed and measured; tare by parts. Raw and cured weight for whole muscles, as they are known."""

    tag: Tag | None = None
    mix_id: RowId | None = None  # left out: of the first mix
    gross_g: Grams | None = None  # null: nobody weighs it
    casing_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    net_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    string_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    coat_g: Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)] = 0.0
    raw_g: Grams | None = None
    cured_g: Grams | None = None
    shape: Shape | None = None  # left out: as most of its batch
    casing: Casing | None = None
    diameter_mm: Millimetres | None = None
    thickness_mm: Millimetres | None = None
    length_mm: Annotated[float, Field(gt=0, le=2500, allow_inf_nan=False)] | None = None
    target_loss_percent: Annotated[float, Field(gt=0, le=80, allow_inf_nan=False)] | None = None  # null: feel or days
    loss_basis: LossBasis = "hung"


class MadePiecesIn(RecordIn):
    """Pieces to tag, all or none."""

    pieces: Annotated[list[MadePieceIn], Field(min_length=1, max_length=200)]


class PieceOfBatch(BaseModel):
    """A piece of a batch in whatever state: in salt, waiting, hanging, after the hook, gone.

    Its ids lead to where it is: `piece_id` and `place_id` of one that hangs or hung, `salt_id` of one in salt.
    """

    tag: str
    mix: str | None  # None: of the first, or of the only one
    life: LifeOut
    casing: Casing | None
    across_mm: float | None
    start_g: float | None
    weight_g: float | None  # what the scale said last
    loss_percent: float | None
    tag_g: int | None
    target_loss_percent: float | None
    piece_id: int | None
    place_id: int | None
    salt_id: int | None


class UsedLot(BaseModel):
    """What went into a batch, of which lot."""

    mix: str | None
    name: str
    grams: float
    lot_id: int | None
    lot: str | None


class BatchOut(WithMade):
    """A batch, made here or hung as it came (then without a sheet), and every piece of it in whatever state."""

    id: int
    code: str
    product: str
    kind: Kind
    shape: Shape
    casing: Casing
    made_at: datetime
    by: str | None
    profile: str | None
    sheet: SheetModel | None
    fat_percent: float | None
    salt_percent: float | None
    meat_temperature_c: float | None
    pinch_place: str | None
    asks_pinch: bool
    minced: bool
    discarded: str | None  # who threw it away, and why
    used: list[UsedLot]
    mixes: list[MixOut]
    holds: list[HoldOut]
    pieces: list[PieceOfBatch]
    tagged: int  # how many have a paper tag to print
    next_tag: str


class BatchBrief(BaseModel):
    """A batch on the Bench's shelf."""

    id: int
    code: str
    product: str
    made_at: datetime
    pieces: int
    waiting: int
    held: bool


class BenchOut(BaseModel):
    """What lies on the bench: open weigh-outs, batches whose pieces do not hang yet, the latest first."""

    weigh_outs: list["OpenWeighOut"]
    batches: list[BatchBrief]


class OpenWeighOut(BaseModel):
    """A weigh-out to be taken up again."""

    id: int
    product: str
    started_at: datetime
    by: str
    left: int


class TagFound(BaseModel):
    """Where a tag leads: to a piece that hangs or hung, to one in salt, or to the batch it was made in."""

    tag: str
    piece_id: int | None
    place_id: int | None
    batch_id: int | None
    salt_id: int | None


class PinchIn(RecordIn):
    """Where the pinch for pH lies."""

    place_id: RowId


class WaitingPiece(BaseModel):
    """A tagged piece that does not hang yet, as the hook will have it: its target counts from the weight now."""

    tag: str
    batch: str
    product: str
    kind: Kind
    shape: Shape
    casing: Casing
    fat_percent: float | None
    salt_percent: float | None
    gross_g: float | None
    tare_g: float
    diameter_mm: float | None
    thickness_mm: float | None
    length_mm: float | None
    target_loss_percent: float | None  # null: done by feel or days
    target_gross_g: float | None
