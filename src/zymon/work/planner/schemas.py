"""What the planner sends and receives; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.drying.geometry import Kind, Shape
from zymon.core.place_fit import Verdict
from zymon.core.planning.slip import Slip
from zymon.core.planning.start import LEAST_CHANCE, MOST_CHANCE, USUAL_CHANCE
from zymon.core.schedule import Elasticity
from zymon.formats.recipe_file import SheetModel
from zymon.formats.texts import ONE_LINE

from ..schemas import Grams, MadeOut, Moment, Product, Reason, RecordIn, RowId, SaidOut

Occasion = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120), ONE_LINE]
StepKind = Literal["order", "thaw", "start", "hang", "done", "table"]
PlanState = Literal["planned", "weighing", "made", "hanging", "done"]
WayOutKind = Literal["later", "elsewhere", "smaller"]


class Wish(BaseModel):
    """What is wanted: so many pieces of a weight at the table, by a day; where it hangs, when it is begun.

    place_id null: the place that suits best; start null: the latest that has the chance asked for. wait_days: from the
    start to the hook at the least, to which an elastic step is stretched.
    """

    occasion: Occasion = ""
    product: Product
    sheet: SheetModel
    recipe_id: RowId | None = None
    version: Annotated[int, Field(ge=1, le=100_000)] | None = None
    pieces: Annotated[int, Field(ge=1, le=200)]
    table_g: Grams
    wanted: Moment
    place_id: RowId | None = None
    start: Moment | None = None
    wait_days: Annotated[float, Field(ge=0, le=365, allow_inf_nan=False)] = 0.0
    rest_days: Annotated[float, Field(ge=0, le=730, allow_inf_nan=False)] = 0.0
    frozen: bool = False
    order_days: Annotated[int, Field(ge=0, le=120)] = 0
    chance: Annotated[float, Field(ge=LEAST_CHANCE, le=MOST_CHANCE, allow_inf_nan=False)] = USUAL_CHANCE


class PlanIn(Wish, RecordIn):
    """A wish that becomes a plan."""


class PlanChangeIn(PlanIn):
    """A plan set anew, and why; seen, the setting it was changed from."""

    seen: RowId
    reason: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200), ONE_LINE] = ""


class BeginIn(RecordIn):
    """A plan is begun: its sheet is weighed out. profile: of limits."""

    profile: Annotated[str, StringConstraints(pattern="^[a-z0-9_-]{1,20}$")] = "us"


class BecameIn(RecordIn):
    """The batch that came of a plan, where it was made without a weigh-out of its own."""

    batch_id: RowId


class GiveUpIn(RecordIn):
    """A plan is given up, and why."""

    reason: Reason


class RoomIn(RecordIn):
    """How many pieces go into a place without hooks; null: nobody knows."""

    room: Annotated[int, Field(ge=1, le=10_000)] | None


class MomentOut(BaseModel):
    """A moment with its window; null where so many futures never get there."""

    p10: datetime | None
    p50: datetime | None
    p90: datetime | None


class PlanStep(BaseModel):
    """A step of a plan with its window; elastic, firm, or led by the scale."""

    kind: StepKind
    elasticity: Elasticity
    title: SaidOut
    when: MomentOut


class DayOut(BaseModel):
    """A day to start on, with the chance that all of it is in time."""

    start: datetime
    chance: float


class WayOutOut(BaseModel):
    """A way out of a clash or a slip, in words, with what to set."""

    kind: WayOutKind
    says: SaidOut
    start: datetime | None = None
    place_id: int | None = None
    pieces: int | None = None
    wanted: datetime | None = None


class ClashOut(BaseModel):
    """That a planned batch finds no room, in words, and ways out of it."""

    says: SaidOut
    place_id: int
    at: datetime
    ways: list[WayOutOut]


class SlipOut(BaseModel):
    """That reality slipped, what can be done, and what the customer should be told."""

    kind: Slip
    says: SaidOut
    customer: SaidOut
    ways: list[WayOutOut]


class LyingSpan(BaseModel):
    """Where something lies in time: from, likely until, at the latest; null: nobody knows until when."""

    place_id: int
    start: datetime
    until: datetime | None
    latest: datetime | None


class PlanOut(BaseModel):
    """A plan as it stands. id, setting_id null: nothing is kept, it is only looked at."""

    id: int | None
    setting_id: int | None
    state: PlanState
    batch_id: int | None
    batch: str | None
    weigh_out_id: int | None
    occasion: str
    product: str
    kind: Kind
    shape: Shape
    family: str
    minced: bool
    across_mm: float
    pieces: int
    table_g: float
    piece_g: float
    hung_g: float
    meat_g: float
    casing_mm: float | None
    target_loss_percent: float
    wanted: datetime
    start: datetime
    wait_days: float
    rest_days: float
    frozen: bool
    order_days: int
    asked_chance: float
    chance: float
    place_id: int
    place: str
    by: str
    steps: list[PlanStep]
    hung: MomentOut
    done: MomentOut
    table: MomentOut
    before: list[LyingSpan]  # in salt, resting, in the warm: where it lies before its hook
    hanging: LyingSpan
    stretches: bool  # whether it may wait before its hook
    clash: ClashOut | None
    water: SaidOut | None  # that it gives up more water than the place has managed
    slip: SlipOut | None
    assumed: list[SaidOut]


class PlaceOffer(BaseModel):
    """A place where it could hang: how it suits, how many hooks are free over the time, the chance there."""

    place_id: int
    name: str
    verdict: Verdict | None  # null: nothing is logged there
    hooks_free: int
    chance: float
    start: datetime | None  # the latest with the chance asked for
    table: MomentOut


class LookedAt(BaseModel):
    """A wish looked at, nothing kept: the plan it would be, its days, and what else could be wished."""

    plan: PlanOut
    days: list[DayOut]
    latest_start: datetime | None  # with the chance asked for; null: it is too late for that
    in_time_by: datetime | None  # by when it would be there with that chance if it were begun now


class PlanKept(BaseModel):
    """A plan after an entry, and what came of the entry."""

    plan: PlanOut
    sheet: SheetModel
    recipe_id: int | None
    version: int | None
    days: list[DayOut]
    made: list[MadeOut]


class BegunOut(BaseModel):
    """The weigh-out that was begun from a plan."""

    weigh_out_id: int
    made: list[MadeOut]


class Done(BaseModel):
    """What came of an entry that changed nothing that is shown beside it."""

    made: list[MadeOut]
