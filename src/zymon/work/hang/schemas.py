"""What the Hang station shows of a room and of a piece; the TypeScript types are made from it."""

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from zymon.core.drying.explain import Help
from zymon.core.drying.feel import Firmness, RingSeen
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.drying.judge import State, Want
from zymon.core.ledger.batch import DoneBy
from zymon.core.life import How
from zymon.core.life import Kind as LifeKind

from ..schemas import (
    ClimateOut,
    PlaceOut,
    Ready,
    SaidOut,
    Setpoint,
    WithMade,
)


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
    start_weight_g: float | None  # null where nobody weighed it: then no weight is told of it, only shares
    scale: "ScaleOut | None"  # what the scale said last, and that stands
    weight_now_g: float | None  # the scale's, or the model's of a piece that was never weighed since
    loss_percent: float  # likewise
    model_weight_g: float | None
    model_loss_percent: float
    model_loss_low_percent: float
    model_loss_high_percent: float
    target_weight_g: float | None  # null where it is not done by weight
    tag_g: int | None  # the target as it stands on the tag: at or under it the piece is there
    tare_g: float
    target_loss_percent: float | None
    aim_percent: float  # its target, or what such goods usually lose
    done_by: DoneBy
    done_days: int | None
    feel_from: datetime | None  # from when to when a piece that is not done by weight is worth feeling
    feel_to: datetime | None
    pace_percent_per_day: float
    safe_percent_per_day: float
    ring_risk: float
    state: State
    wants: list[Want]
    days_left: DaysLeftOut | None
    ready: Ready
    over_at: datetime | None  # when it is past its target by so much that weight and texture are lost
    last_weighed_at: datetime | None
    life: "LifeOut"


class ScaleOut(BaseModel):
    """The latest weighing that stands. `doubt`: it meets no target before it is weighed again."""

    at: datetime
    gross_g: float
    loss_percent: float | None
    doubt: bool
    confirmed: bool


class LifeOut(BaseModel):
    """What a piece is, since when, where; `how`: the bag of a resting one, the way a piece went that is gone."""

    kind: LifeKind
    how: How
    since: datetime
    place: str | None
    by: str


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
    dates_being_made: bool
    hung_here: int  # how many pieces ever hung here


class WeighingOut(BaseModel):
    """A weighing, struck through or held back where it is."""

    id: int
    at: datetime
    gross_g: float
    loss_percent: float | None
    by: str
    confirmed: bool  # a second reading agrees
    kept: bool  # it was asked about and kept
    imported: bool
    struck_at: datetime | None
    struck_by: str | None
    struck_reason: str | None
    doubt: SaidOut | None


class Curve(BaseModel):
    """Expected loss with its 80 % window, in percent, at each moment."""

    at: list[datetime]
    low: list[float]
    middle: list[float]
    high: list[float]


class HangingOut(BaseModel):
    """Where a piece hung, from when to when."""

    id: int
    place: str
    rod_id: int
    rod: int
    hook: int
    from_at: datetime
    to_at: datetime | None
    ended_as: Literal["moved", "down"] | None
    by: str
    ended_by: str | None
    struck_reason: str | None


class StateOut(LifeOut):
    """What a piece was since it came off its hook, from when to when; struck where it was entered by mistake."""

    id: int
    to_at: datetime | None
    note: str
    against: list[SaidOut]
    struck_reason: str | None


class CutOut(BaseModel):
    """A slice that was taken off."""

    id: int
    at: datetime
    before_g: float
    after_g: float
    note: str
    by: str
    struck_reason: str | None


class ToldOut(BaseModel):
    """A date as it was told at hanging or right after a weighing; the dates are null where it was out of reach."""

    at: datetime
    ready: Ready


class PieceOut(WithMade):
    """All there is to know of a piece; of one that came down as it was then."""

    card: PieceCard
    batch_id: int
    place_id: int
    dates_being_made: bool
    casing: Casing
    fat_percent: float | None
    salt_percent: float | None
    diameter_mm: float | None
    thickness_mm: float | None
    declared_length_mm: float | None
    skin: bool | None
    bone: bool | None
    hangs: bool
    expected_low_g: float | None
    expected_high_g: float | None
    weighings: list[WeighingOut]
    told: list[ToldOut]
    hangings: list[HangingOut]
    states: list[StateOut]
    cuts: list[CutOut]
    corrections: list["CorrectionOut"]
    reaches: float | None  # the chance to get to the target within two years; the dates are of the futures that do
    assumed: list[SaidOut]  # what is taken as usual because nobody gave it
    outside: bool  # of what the model was fitted on
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
    ring: RingSeen  # that is there then
    ring_index: float


class WhatIfOut(BaseModel):
    """What would come of it."""

    state: State
    ready: Ready
    target_weight_g: float | None
    tag_g: int | None
    pace_percent_per_day: float
    days_later: float | None


class TagPreview(BaseModel):
    """What the paper tag will say."""

    target_weight_g: float | None
    tag_g: int | None
    net_start_g: float | None
    weeks: float | None
    ready: Ready
    feel_from: datetime | None
    feel_to: datetime | None
    reaches: float | None
    assumed: list[SaidOut]


class CorrectionOut(BaseModel):
    """A correction on record."""

    field: str
    was: str | None
    now: str | None
    reason: str
    by: str
    at: datetime


class Weighed(WithMade):
    """That a weight is stored; its dates are made anew meanwhile."""

    piece_id: int
    place_id: int
    tag: str
    at: datetime
    gross_g: float
    loss_percent: float | None
    tag_g: int | None
    at_target: bool
    confirmed: bool


class Against(BaseModel):
    """What stands against taking a piece down now; empty where nothing does."""

    against: list[SaidOut]
    last: "ScaleOut | None"


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
