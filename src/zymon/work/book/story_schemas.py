"""The story of a batch as it is told; the TypeScript types are made from it."""

from datetime import datetime

from pydantic import BaseModel

from zymon.core.drying.geometry import Kind, Shape

from ..changes import ChangeOut
from ..cut.schemas import FaceOut
from ..hang.schemas import LifeOut, ToldOut
from ..keep.schemas import PackOut, YieldOut
from ..ledger.schemas import LedgerOut
from ..schemas import SaidOut


class StoryStage(BaseModel):
    """A stage of the course, with the air of its place while it lasted; null where nobody read it."""

    kind: str
    from_at: datetime
    to_at: datetime | None
    place: str | None
    way: str | None
    pieces: list[str]
    by: str
    mean_c: float | None
    low_c: float | None
    high_c: float | None
    mean_rh_percent: float | None


class StoryAir(BaseModel):
    """The air of a place while the batch was in it, by the day: the mean, and how warm it was at the most."""

    place: str
    at: list[datetime]
    temperature_c: list[float]
    high_c: list[float]
    rh_percent: list[float | None]


class StoryPh(BaseModel):
    """A pH reading."""

    at: datetime
    ph: float
    by: str
    struck: bool


class StoryWeight(BaseModel):
    """A weighing; the loss is null where nobody weighed the piece when it was hung."""

    at: datetime
    gross_g: float
    loss_percent: float | None
    by: str
    struck_reason: str | None


class StoryPiece(BaseModel):
    """A piece: what it is now, what it weighed, what was told of it."""

    piece_id: int | None
    tag: str
    life: LifeOut | None
    hung_at: datetime | None
    off_at: datetime | None
    start_g: float | None
    target_loss_percent: float | None
    loss_percent: float | None
    reached_at: datetime | None
    weights: list[StoryWeight]
    told: list[ToldOut]
    photos: list[int]


class StoryDoing(BaseModel):
    """Something done or seen on the way."""

    at: datetime
    says: SaidOut
    pieces: list[str]
    by: str
    note: str
    struck: bool


class StoryLine(BaseModel):
    """Something that went in: how much, and of which lot."""

    name: str
    grams: float
    lot_id: int | None
    lot: str | None


class StoryCut(BaseModel):
    """A face that was cut, of which piece."""

    tag: str
    face: FaceOut


class StoryOut(BaseModel):
    """Everything of a batch on one time line."""

    workshop: str
    time_zone: str
    told_at: datetime
    batch_id: int
    code: str
    product: str
    kind: Kind
    shape: Shape
    made_at: datetime
    begins: datetime
    ends: datetime
    people: list[str]
    fat_percent: float | None
    salt_percent: float | None
    went_in: list[StoryLine]
    stages: list[StoryStage]
    airs: list[StoryAir]
    ph: list[StoryPh]
    target_ph: float | None
    pieces: list[StoryPiece]
    doings: list[StoryDoing]
    ledger: LedgerOut
    cuts: list[StoryCut]
    changes: list[ChangeOut]
    packs: list[PackOut]
    came_of_it: YieldOut
    before: int | None  # the batch made before this one, and after it
    after: int | None
