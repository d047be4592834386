"""Schemas of the answers and requests; the TypeScript types are made from them."""

from datetime import date, datetime
from typing import Annotated, Literal
from zoneinfo import ZoneInfo, available_timezones

from pydantic import AfterValidator, BaseModel, Field, StringConstraints

from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.drying.inside import Firmness
from zymon.core.drying.judge import State, Want

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
Tag = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
Who = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
Reason = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
Grams = Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]
Millimetres = Annotated[float, Field(gt=0, le=600, allow_inf_nan=False)]
PlaceKind = Literal["chamber", "warm", "salt", "store"]


def _known_zone(name: str) -> str:
    if name not in available_timezones():
        raise ValueError(f"time zone '{name}' is not known")
    ZoneInfo(name)
    return name


class Health(BaseModel):
    """That the server is up, and which version it is."""

    status: Literal["ok"] = "ok"
    version: str
    pieces_hanging: int


class WorkshopIn(BaseModel):
    """Name and time zone of the workshop."""

    name: Name
    time_zone: Annotated[str, AfterValidator(_known_zone)]


class Setpoint(BaseModel):
    """What a place is set to; null where it is not controlled."""

    temperature_c: Annotated[float, Field(ge=-30, le=50, allow_inf_nan=False)] | None = None
    rh_percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None


class SetpointIn(Setpoint):
    """A new set point, and who turned the knob."""

    by: Who


class PlaceIn(BaseModel):
    """A new place with its rods, each by its number of hooks."""

    name: Name
    kind: PlaceKind = "chamber"
    hooks_per_rod: Annotated[list[Annotated[int, Field(ge=1, le=60)]], Field(max_length=40)] = []
    setpoint: Setpoint = Setpoint()
    by: Who


class AirNow(BaseModel):
    """The latest logged air of a place."""

    at: datetime
    temperature_c: float
    rh_percent: float
    trend_c: float
    trend_rh: float
    stale: bool


class PlaceOut(BaseModel):
    """A place on the line, with its air and what hangs in it."""

    id: int
    name: str
    kind: PlaceKind
    setpoint: Setpoint | None
    air: AirNow | None
    pieces: int
    hooks: int


class Line(BaseModel):
    """The whole line: workshop and places; `workshop` is null in a new database."""

    workshop: WorkshopIn | None
    now: datetime
    places: list[PlaceOut]


class DaysLeftOut(BaseModel):
    """Days left, rounded as the window allows."""

    value: int
    unit: Literal["d", "wk"]
    about: bool


class Ready(BaseModel):
    """The date and its 80 % window; null when the target is out of reach."""

    p10: datetime | None
    p50: datetime | None
    p90: datetime | None


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
    last_weighed_at: datetime | None


class RodOut(BaseModel):
    """A rod and its number of hooks."""

    id: int
    number: int
    hooks: int


class Room(BaseModel):
    """A place as it is: rods, hooks and every piece."""

    place: PlaceOut
    rods: list[RodOut]
    pieces: list[PieceCard]
    ready_this_week: int
    water_g_per_day: float


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


class ClimateOut(BaseModel):
    """A climate series for a chart; lists of equal length, times in seconds since 1970."""

    at_s: list[int]
    temperature_c: list[float]
    temperature_min_c: list[float]
    temperature_max_c: list[float]
    rh_percent: list[float]
    rh_min_percent: list[float]
    rh_max_percent: list[float]
    bucket_s: int


class HangingOut(BaseModel):
    """Where a piece hung, from when to when."""

    place: str
    rod: int
    hook: int
    from_at: datetime
    to_at: datetime | None
    end_reason: str | None


class PieceOut(BaseModel):
    """All there is to know of a piece."""

    card: PieceCard
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


class StrikeIn(BaseModel):
    """Why a weighing is struck through."""

    reason: Reason
    by: Who


class ByIn(BaseModel):
    """Who does it."""

    by: Who


class RowFault(BaseModel):
    """What is wrong with a line of a file; line 0 speaks of the whole file."""

    line: int
    text: str


class FileForecast(BaseModel):
    """The forecast of a piece of a hang file, as of the file's own now."""

    tag: str
    loss_percent: float
    target_weight_g: float
    status: Literal["drying", "ready", "stalled"]
    ready: Ready
    doubts: list[str]


class ImportPreview(BaseModel):
    """What was understood of a file and what it would bring; nothing is stored yet."""

    token: str
    kind: Literal["climate", "weights", "hang"]
    file_name: str
    understood: dict[str, str]
    rows: int
    new: int
    same: int
    conflict: int
    error_count: int
    errors: list[RowFault]
    notes: list[str]
    asks: list[str]
    first_at: datetime | None
    last_at: datetime | None
    file_now: datetime | None
    forecasts: list[FileForecast]


class ImportConfirm(BaseModel):
    """The go-ahead for a previewed file; faulty lines are left out only when that is said."""

    leave_out_faults: bool = False
    by: Who


class ImportDone(BaseModel):
    """A report that stays."""

    id: int
    at: datetime
    by: str
    kind: str
    file_name: str
    rows_new: int
    rows_same: int
    rows_conflict: int
    rows_left_out: int
