"""What the Rest shows; the TypeScript types are made from it."""

from datetime import datetime

from pydantic import BaseModel

from zymon.core.drying.evening import Bag, RestState
from zymon.core.drying.geometry import Shape

from ..hang.schemas import InsideOut
from ..schemas import SaidOut, WithMade


class Squeeze(BaseModel):
    """How a piece felt between the fingers since it was sealed; null where rim or middle was not felt."""

    at: datetime
    rim: str | None
    core: str | None
    by: str


class RestCard(BaseModel):
    """A piece in its bag, evening out. Dates are null where it does not even out within a year."""

    id: int
    tag: str
    batch_id: int
    batch: str
    product: str
    shape: Shape
    across_mm: float
    place_id: int | None
    place: str | None
    bag: Bag
    since: datetime
    state: RestState
    earliest: datetime | None
    best: datetime | None
    late: datetime | None
    gone_share: float  # of the ring that it had when it was sealed
    inside: InsideOut
    sealed_g: float | None  # what it weighed when it was sealed, by the scale
    weight_g: float | None  # weighed last since
    lost_g: float | None
    squeezed: Squeeze | None
    cautions: list[SaidOut]
    assumed: list[SaidOut]


class RestCurve(BaseModel):
    """Water at rim and core with their 80 % windows [% of the fat-free substance], from the sealing on."""

    at: list[datetime]
    rim: list[float]
    rim_low: list[float]
    rim_high: list[float]
    core: list[float]
    core_low: list[float]
    core_high: list[float]


class RestDetail(WithMade):
    """One piece at rest with its curve."""

    card: RestCard
    curve: RestCurve


class RestOut(BaseModel):
    """Everything that rests."""

    pieces: list[RestCard]
