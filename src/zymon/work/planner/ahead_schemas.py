"""What the planner sends of the weeks ahead, of what has to be bought, and of plans against what happened."""

from datetime import datetime

from pydantic import BaseModel

from zymon.core.drying.geometry import Kind, Shape
from zymon.core.life import Kind as LifeKind
from zymon.core.planning.shopping import Goods, Unit
from zymon.store.kinds import PlaceKind

from .schemas import LyingSpan, MomentOut, PlanOut


class LyingOut(BaseModel):
    """Goods of a batch that are in a place, along time."""

    batch_id: int
    code: str
    product: str
    kind: Kind
    shape: Shape
    state: LifeKind
    pieces: int
    dried: float  # of the way to its target, 0…1
    span: LyingSpan


class WeekOut(BaseModel):
    """A week of a place: pieces in it, likely and at the most; water a day at the worst, None where nothing dries."""

    start: datetime
    likely: int
    most: int
    water_g: float | None


class StripOut(BaseModel):
    """A place over the weeks ahead. room: hooks, or how many pieces go in; null: nobody said."""

    place_id: int
    name: str
    kind: PlaceKind
    room: int | None
    hooks: bool
    free: int | None
    managed_g: float | None  # the most water a day that was seen to leave it
    goods: list[LyingOut]
    weeks: list[WeekOut]


class OccasionOut(BaseModel):
    """Batches that are wanted together, and the chance that all of them are in time."""

    name: str
    wanted: datetime
    plans: list[int]
    chance: float


class AheadOut(BaseModel):
    """The weeks ahead: places, plans, and what is wanted together."""

    now: datetime
    until: datetime
    strips: list[StripOut]
    plans: list[PlanOut]
    occasions: list[OccasionOut]


class ShoppingLine(BaseModel):
    """Something to buy, for which batches. usual_trim: what trimming is taken to take [%], null where it is known."""

    goods: Goods
    what: str
    amount: float
    unit: Unit
    batches: list[str]
    usual_trim: float | None


class ShoppingOut(BaseModel):
    """What has to be bought for the plans that begin in a span."""

    start: datetime
    end: datetime
    plans: int
    culture_pack_g: float
    lines: list[ShoppingLine]


class PlanAgainst(BaseModel):
    """A plan whose batch is done: what was told when it was begun, and what happened."""

    plan_id: int
    batch_id: int
    batch: str
    product: str
    place: str
    pieces: int
    wanted: datetime
    told_chance: float
    start_planned: datetime
    started: datetime
    done_told: MomentOut
    done: datetime | None
    at_table: datetime | None
    in_time: bool | None
    inside: bool | None  # whether it was done within its window
    moved: int  # how often it was set anew


class PlansAgainst(BaseModel):
    """The planner's own record: how many were in time against the chances told, and each of them."""

    plans: list[PlanAgainst]
    in_time: int
    counted: int
    told_chance: float | None  # the mean of the chances of those counted
    inside: int
