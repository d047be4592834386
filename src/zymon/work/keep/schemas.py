"""What the stock shows and takes; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.stock.allergens import Allergen
from zymon.core.stock.packs import Form, KeepAt, Went, Wrap
from zymon.core.stock.yields import CostKind, Step
from zymon.core.water import KeepClass
from zymon.formats.texts import LINES, ONE_LINE
from zymon.store.kinds import PackEventKind

from ..schemas import Note, RecordIn, RowId, SaidOut, Tag, WithMade

Number = Annotated[int, Field(ge=1, le=500)]


class PackIn(RecordIn):
    """Packs alike: how many, of which net weight, how wrapped, where kept, and the maker's own period."""

    number: Number
    net_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
    form: Form = "piece"
    wrap: Wrap = "vacuum"
    keep_at: KeepAt = "fridge"
    place_id: RowId | None = None
    period_days: Annotated[int, Field(ge=1, le=3650)] | None = None
    ingredients: Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000), LINES] | None = None
    note: Note = ""


class OutIn(RecordIn):
    """Packs that go out: how, to whom."""

    number: Number = 1
    how: Went
    to_whom: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120), ONE_LINE] = ""
    note: Note = ""


class OpenIn(RecordIn):
    """Packs that are opened."""

    number: Number = 1


class MoveIn(RecordIn):
    """Packs that are kept elsewhere from now on."""

    number: Number
    keep_at: KeepAt
    place_id: RowId | None = None
    period_days: Annotated[int, Field(ge=1, le=3650)] | None = None


class OpenedOut(BaseModel):
    """Opened packs, and until when they are to be used."""

    number: int
    at: datetime
    use_by: datetime


class PackEventOut(BaseModel):
    """What became of packs."""

    id: int
    kind: PackEventKind
    how: str
    at: datetime
    by: str
    number: int
    to_whom: str
    note: str
    struck_reason: str | None


class PackOut(BaseModel):
    """Packs alike; `id` is null for a whole piece that was kept without packing."""

    id: int | None
    piece_id: int
    tag: str
    batch_id: int
    batch: str
    product: str
    form: Form
    wrap: Wrap
    keep_at: KeepAt
    place: str | None
    packed_at: datetime
    number: int
    left: int
    net_g: float | None
    opened: list[OpenedOut]
    best_before: datetime | None
    use_by: datetime | None
    period_days: int | None
    keeps: KeepClass | None
    cautions: list[SaidOut]
    note: str
    by: str
    events: list[PackEventOut]


class LabelOut(BaseModel):
    """Whether packs get a label; why not, if not."""

    no_label: SaidOut | None


class StockOut(WithMade):
    """Everything that is there, what to use first at the front."""

    packs: list[PackOut]
    packs_left: int
    grams_left: float


class PeriodOut(BaseModel):
    """The maker's own period as it was given last."""

    wrap: Wrap
    keep_at: KeepAt
    period_days: int


class PackingOut(WithMade):
    """A piece that is packed: what it weighs, what is in packs, what is known of its keeping."""

    piece_id: int
    tag: str
    product: str
    batch: str
    state: str
    usable_g: float | None
    packed_g: float
    thrown_g: float
    keeps: KeepClass | None
    has_ingredients: bool
    against: list[SaidOut]
    periods: list[PeriodOut]
    packs: list[PackOut]


class YieldStep(BaseModel):
    """A step from the shop to the plate."""

    step: Step
    grams: float | None
    share: float | None


class CostOut(BaseModel):
    """A cost beside the ingredients."""

    id: int
    kind: CostKind
    amount: float
    note: str
    at: datetime
    by: str
    struck_reason: str | None


class YieldOut(WithMade):
    """What came of a batch and what it cost."""

    batch_id: int
    batch: str
    product: str
    pieces: int
    discarded: int
    steps: list[YieldStep]
    ingredients_cost: float | None
    costs: list[CostOut]
    cost_per_finished_kg: float | None
    cost_per_usable_kg: float | None
    thrown_g: float


class CostIn(RecordIn):
    """A cost beside the ingredients."""

    kind: CostKind
    amount: Annotated[float, Field(gt=0, le=1_000_000, allow_inf_nan=False)]
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200), LINES] = ""


class HeldPiece(BaseModel):
    """A piece that holds something of a lot: where it is or went, and its packs."""

    piece_id: int | None
    tag: str
    state: str
    place: str | None
    packs: list[PackOut]


class RecallBatch(BaseModel):
    """A batch that holds something of a lot."""

    batch_id: int
    batch: str
    product: str
    made_at: datetime
    grams: float
    pieces: list[HeldPiece]


class RecallOut(BaseModel):
    """Where everything of a lot is or went."""

    lot_id: int
    code: str
    what: str
    kind: str
    batches: list[RecallBatch]


class TraceLot(BaseModel):
    """A lot that went into a piece."""

    id: int
    code: str
    kind: str
    what: str
    grams: float


class TraceOut(BaseModel):
    """What a piece and its packs are made of, back to the lots."""

    piece_id: int
    tag: str
    batch_id: int
    batch: str
    product: str
    made_at: datetime
    lots: list[TraceLot]


class AllergenWordIn(RecordIn):
    """A word of the maker and the allergens it means."""

    word: Annotated[str, StringConstraints(strip_whitespace=True, min_length=2, max_length=80), ONE_LINE]
    allergens: Annotated[list[Allergen], Field(min_length=1, max_length=14)]


class AllergenWordOut(BaseModel):
    """A word of the maker for allergens."""

    id: int
    word: Tag
    allergens: list[Allergen]
    by: str


class AllergensOut(WithMade):
    """The shipped list with its words, and the maker's own."""

    shipped: dict[str, list[str]]
    own: list[AllergenWordOut]
