"""What the Warm station sends and receives; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.fermentation.curve import Culture
from zymon.core.fermentation.forecast import Standing
from zymon.formats.texts import ONE_LINE
from zymon.store.kinds import BatchEventKind as WarmEvent

from ..schemas import Moment, Note, RecordIn, RowId, SaidOut, WithMade

Ph = Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]
TargetPh = Annotated[float, Field(ge=4, le=6, allow_inf_nan=False)]
StartPh = Annotated[float, Field(ge=4.5, le=7.5, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)]
Sugar = Annotated[float, Field(ge=0, le=5, allow_inf_nan=False)]


class WhenOut(BaseModel):
    """A moment with its 80 % window; null when it will not get there."""

    p10: datetime | None
    p50: datetime | None
    p90: datetime | None


class AllowanceOut(BaseModel):
    """Degree-hours used of the allowance.

    `profile`: the name of its limits; `gaps`: silences of the log that were counted at their warmer end.
    """

    profile: str
    used: float | None
    limit: float
    unit: str
    share: float | None
    runs_out: datetime | None
    gaps: int
    at_c: float | None


class ReadingOut(BaseModel):
    """A reading, with what is to be said against its meter."""

    id: int
    at: datetime
    ph: float
    sample_c: float | None
    meter: str | None
    warnings: list[SaidOut]
    by: str
    struck_reason: str | None


class WarmEventOut(BaseModel):
    """Something done to the batch."""

    id: int
    kind: WarmEvent
    at: datetime
    note: str
    by: str
    struck_reason: str | None


class WarmCard(BaseModel):
    """A batch in the warm stage: where its pH is and goes."""

    batch_id: int
    batch: str
    product: str
    place_id: int
    place: str
    pinch_place: str | None
    culture: Culture | None
    dextrose_percent: float | None
    salt_percent: float | None
    start_ph: float | None
    target_ph: float
    setpoint_c: float | None
    stuffed_at: datetime
    ended_at: datetime | None
    state: Standing
    ph_now: float
    crosses: WhenOut
    reaches_target: WhenOut
    measured_at: datetime | None  # the first measured value at or under 5.3
    allowance: AllowanceOut
    causes: list[SaidOut]
    possible: list[SaidOut]
    measure_next: datetime | None
    last_ph: float | None
    last_at: datetime | None
    meters_differ: float | None


class WarmCurve(BaseModel):
    """pH over time and the box beneath; lists of equal length within each."""

    at: list[datetime]
    low: list[float]
    middle: list[float]
    high: list[float]
    box_at: list[datetime]
    box_c: list[float]


class WarmDetail(WithMade):
    """A batch with its curve, its readings and what was done."""

    card: WarmCard
    curve: WarmCurve
    readings: list[ReadingOut]
    events: list[WarmEventOut]


class WaitingForWarmth(BaseModel):
    """A minced batch whose warm stage nobody declared; what its sheet tells of it."""

    batch_id: int
    batch: str
    product: str
    made_at: datetime
    warm: Literal["culture", "wild", "none"]
    dextrose_percent: float | None
    salt_percent: float | None


class MeterOut(BaseModel):
    """A pH meter, its last calibration and what is to be said of it now."""

    id: int
    name: str
    calibrated_at: datetime | None
    slope_percent: float | None
    warnings: list[SaidOut]


class WarmOut(WithMade):
    """The whole station."""

    running: list[WarmCard]
    ended: list[WarmCard]
    waiting: list[WaitingForWarmth]
    meters: list[MeterOut]


class StageIn(RecordIn):
    """The warm stage of a batch, declared or declared anew."""

    place_id: RowId
    stuffed_at: Moment
    culture: Culture | None = None
    dextrose_percent: Sugar | None = None
    salt_percent: Percent | None = None
    start_ph: StartPh | None = None
    target_ph: TargetPh = 5.2


class ReadingIn(RecordIn):
    """A pH reading; what cannot well be is asked about unless it is sure."""

    ph: Ph
    sample_c: Annotated[float, Field(ge=-20, le=150, allow_inf_nan=False)] | None = None
    meter_id: RowId | None = None


class EventIn(RecordIn):
    """Something done to the batch."""

    kind: WarmEvent
    note: Note = ""


class CalibrationIn(RecordIn):
    """A two-point calibration of a meter, by name; the slope it showed in % of theory."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), ONE_LINE]
    slope_percent: Annotated[float, Field(ge=20, le=150, allow_inf_nan=False)]


class WarmWhatIf(BaseModel):
    """The box set otherwise from now on."""

    setpoint_c: Annotated[float, Field(ge=-5, le=50, allow_inf_nan=False)]


class WarmWhatIfOut(BaseModel):
    """What would come of it."""

    crosses: WhenOut
    reaches_target: WhenOut
    runs_out: datetime | None
    in_time: bool | None
    curve_at: list[datetime]
    curve: list[float]
