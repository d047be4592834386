"""What the Hang station sends and receives; the TypeScript types are made from it."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.drying.explain import Help
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.drying.inside import Firmness
from zymon.core.drying.judge import State, Want

from ..schemas import ClimateOut, Grams, Millimetres, PlaceOut, Ready, Reason, Setpoint, Tag, Who


class DaysLeftOut(BaseModel):
    """Days left, rounded as the window allows."""

    value: int
    unit: Literal["d", "wk"]
    about: bool


class PieceCard(BaseModel):
    """A piece as it hangs in the room."""

    id: int
    tag: str
    batch: str
    product: str
    kind: Kind
    shape: Shape
    rod: int
    hook: int
    hung_at: datetime
    length_mm: float
    width_mm: float
    girth_now: float
    girth_target: float
    start_weight_g: float
    weight_now_g: float
    target_weight_g: float
    tare_g: float
    loss_percent: float
    target_loss_percent: float
    pace_percent_per_day: float
    safe_percent_per_day: float
    ring_risk: float
    state: State
    wants: list[Want]
    days_left: DaysLeftOut | None
    ready: Ready
    over_at: datetime | None  # when it is past its target by so much that weight and texture are lost
    last_weighed_at: datetime | None


class TooClose(BaseModel):
    """Tags of two neighbours without air between them."""

    one: str
    other: str


class RodOut(BaseModel):
    """A rod, its hooks and how far apart they are; which tags hang too close, and how much too short it is."""

    id: int
    number: int
    hooks: int
    hook_spacing_mm: float | None
    close: list[TooClose]
    short_mm: float


class ShiftOut(BaseModel):
    """That the air changed for everything here: the last two days against the two weeks before; null where not."""

    by_c: float | None
    by_rh_percent: float | None


class HookOut(BaseModel):
    """What a hook was learned to do: its air against the usual of the place, with its 80 % range, and from how many."""

    rod_id: int
    hook: int
    air: float
    low: float
    high: float
    pieces: int


class Room(BaseModel):
    """A place as it is: rods, hooks and every piece."""

    hooks: list[HookOut]
    place: PlaceOut
    rods: list[RodOut]
    pieces: list[PieceCard]
    ready_this_week: int
    water_g_per_day: float
    shift: ShiftOut | None


class WeighingOut(BaseModel):
    """A weighing, struck through or held back where it is."""

    id: int
    at: datetime
    gross_g: float
    loss_percent: float
    by: str
    confirmed: bool
    imported: bool
    struck_at: datetime | None
    struck_by: str | None
    struck_reason: str | None
    doubt: str | None


class Curve(BaseModel):
    """Expected loss with its 80 % window, in percent, at each moment."""

    at: list[datetime]
    low: list[float]
    middle: list[float]
    high: list[float]


class HangingOut(BaseModel):
    """Where a piece hung, from when to when."""

    place: str
    rod_id: int
    rod: int
    hook: int
    from_at: datetime
    to_at: datetime | None
    end_reason: str | None


class ToldOut(BaseModel):
    """A date as it was told at hanging or right after a weighing; the dates are null where it was out of reach."""

    at: datetime
    ready: Ready


class PieceOut(BaseModel):
    """All there is to know of a piece."""

    card: PieceCard
    batch_id: int | None  # of a batch made at the Bench or salted here: then it has a ledger
    place_id: int
    casing: Casing
    fat_percent: float | None
    salt_percent: float | None
    diameter_mm: float | None
    thickness_mm: float | None
    declared_length_mm: float | None
    hangs: bool
    expected_low_g: float
    expected_high_g: float
    weighings: list[WeighingOut]
    told: list[ToldOut]
    hangings: list[HangingOut]
    corrections: list["CorrectionOut"]
    curve: Curve
    climate: ClimateOut
    setpoint: Setpoint | None
    air_ahead: Setpoint
    inside: "InsideOut"


class InsideOut(BaseModel):
    """Water through a piece, from rim to core; an estimate by the model."""

    depth_share: list[float]
    water_percent: list[float]
    rim_water_percent: float
    core_water_percent: float
    rim_feels: Firmness
    core_feels: Firmness
    ring_index: float


class WhatIfIn(BaseModel):
    """What to set from now on; null leaves a thing as it is. Air: 1 as now, 2 twice the air at the piece."""

    temperature_c: Annotated[float, Field(ge=-5, le=40, allow_inf_nan=False)] | None = None
    rh_percent: Annotated[float, Field(ge=5, le=99, allow_inf_nan=False)] | None = None
    air: Annotated[float, Field(ge=0.2, le=5, allow_inf_nan=False)] = 1.0
    target_loss_percent: Annotated[float, Field(gt=0, le=80, allow_inf_nan=False)] | None = None
    casing: Casing | None = None
    rod_id: Annotated[int, Field(ge=1, le=2**31 - 1)] | None = None  # with hook: hung there
    hook: Annotated[int, Field(ge=1, le=60)] | None = None


class WhatIfOut(BaseModel):
    """What would come of it."""

    state: State
    ready: Ready
    target_weight_g: float
    pace_percent_per_day: float
    days_later: float | None


class PieceIn(BaseModel):
    """A piece to hang; of a known batch, or of a new one."""

    tag: Tag
    batch_code: Tag
    product: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    kind: Kind
    shape: Shape
    casing: Casing
    fat_percent: Annotated[float, Field(ge=0, le=80, allow_inf_nan=False)] | None = None
    salt_percent: Annotated[float, Field(ge=0, le=15, allow_inf_nan=False)] | None = None
    diameter_mm: Millimetres | None = None
    thickness_mm: Millimetres | None = None
    length_mm: Annotated[float, Field(gt=0, le=2500, allow_inf_nan=False)] | None = None
    start_weight_g: Grams
    tare_g: Annotated[float, Field(ge=0, le=200_000, allow_inf_nan=False)] = 0.0
    target_loss_percent: Annotated[float, Field(gt=0, le=80, allow_inf_nan=False)]
    hung_on: date | None = None
    rod_id: Annotated[int, Field(ge=1, le=2**31 - 1)]
    hook: Annotated[int, Field(ge=1, le=60)]
    by: Who


class TagPreview(BaseModel):
    """What the paper tag will say."""

    target_weight_g: float
    net_start_g: float
    weeks: float | None
    ready: Ready


class CorrectionIn(BaseModel):
    """A declared value that was wrong, and why; null where a measure is not known."""

    field: Literal["start_weight_g", "tare_g", "target_loss_percent", "diameter_mm", "thickness_mm", "length_mm"]
    value: Annotated[float, Field(allow_inf_nan=False, ge=0, le=200_000)] | None
    reason: Reason
    by: Who


class CorrectionOut(BaseModel):
    """A correction on record."""

    field: str
    was: float | None
    now: float | None
    reason: str
    by: str
    at: datetime


class MoveIn(BaseModel):
    """Where a piece is moved to."""

    rod_id: Annotated[int, Field(ge=1, le=2**31 - 1)]
    hook: Annotated[int, Field(ge=1, le=60)]
    by: Who


class TakeDownIn(BaseModel):
    """That a piece is taken down, and why."""

    reason: Reason
    by: Who


class WeighingIn(BaseModel):
    """A weight off the scale, gross; `confirmed` when it was asked about and is kept."""

    gross_g: Grams
    at: datetime | None = None
    confirmed: bool = False
    by: Who


class VacuumRestOut(BaseModel):
    """What a vacuum rest in the cold would do if a piece were sealed then; ring index by week from 0 on."""

    temperature_c: float
    weeks: float | None
    ring_index: list[float]
    rim_feels: Firmness
    core_feels: Firmness


class InsideAtOut(BaseModel):
    """The inside of a piece at a time, and what a vacuum rest from then on would do."""

    at: datetime
    loss_percent: float
    inside: InsideOut
    rest: VacuumRestOut


class NarrowingOut(BaseModel):
    """Something that would narrow a date, and how wide its window would then be expected to be."""

    by: Help
    window_days: float


class ReachingOut(BaseModel):
    """Which humidity would bring a stalled piece to its target, and when; null where none above 50 % would."""

    rh_percent: float | None
    ready_at: datetime | None
    most_loss_percent: float


class ExplainedOut(BaseModel):
    """What a date rests on (shares of 1), how much of its window is the air ahead, and what would narrow it."""

    prior_share: float
    own_share: float
    mates_share: float
    air_share: float
    own_weighings: int
    mates_weighed: int
    window_days: float | None
    narrowing: list[NarrowingOut]
    reaching: ReachingOut | None
