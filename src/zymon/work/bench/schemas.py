"""What the Bench sends and receives; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field, StringConstraints

from zymon.core.bench.consequences import Standing
from zymon.core.bench.families import SaltingWay, Surface, Warm
from zymon.core.drying.feel import Firmness
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.formulation import LineBasis
from zymon.core.water import KeepClass
from zymon.formats.recipe_file import Name, Note, SheetModel, Species

from ..schemas import Grams, Reason, RecordIn, RowId, SaidOut

ProfileId = Annotated[str, StringConstraints(pattern="^[a-z0-9_-]{1,20}$")]


class FamilyOut(BaseModel):
    """A family of goods as a starting point."""

    id: str
    name: str
    minced: bool
    belly: bool
    kind: Kind
    shape: Shape
    casing: Casing
    salting: SaltingWay
    salt_percent: float
    curing_salt: str
    curing_salt_percent: float
    before_hanging: str
    warm: Warm
    temperature_c: float
    rh_percent: float
    target_loss_percent: float
    across_mm: float
    piece_g: float
    surface: Surface
    hanging: str
    fat_percent: float
    species: Species


class CuringSaltOut(BaseModel):
    """A curing salt: sodium nitrite and nitrate as parts of 1."""

    id: str
    name: str
    nitrite_fraction: float
    nitrate_fraction: float
    says: str


class SchoolOut(BaseModel):
    """One answer to a question on which makers disagree, and what it brings."""

    id: str
    name: str
    brings: str


class ProfileOut(BaseModel):
    """A limit profile."""

    id: str
    name: str
    source: str
    as_of: str
    check: str


class ReferenceOut(BaseModel):
    """What the Bench offers to pick from."""

    families: list[FamilyOut]
    curing_salts: list[CuringSaltOut]
    schools: dict[str, list[SchoolOut]]
    profiles: list[ProfileOut]


class WorkIn(BaseModel):
    """A sheet to be worked, against a limit profile."""

    sheet: SheetModel
    profile: ProfileId = "us"


class SheetProblem(BaseModel):
    """What is wrong at one field of the sheet."""

    where: str
    said: SaidOut


class LineOut(BaseModel):
    """One thing of the sheet, worked out."""

    key: str
    name: str
    grams: float
    percent_of_meat: float
    basis: LineBasis
    amount: float
    scale_g: float
    worst_error_percent: float


class FigureOut(BaseModel):
    """A figure with where it comes from."""

    name: str
    value: float
    unit: SaidOut
    formula: SaidOut
    inputs: SaidOut
    source: SaidOut


class AcidOut(BaseModel):
    """How far the sugar can sour the goods. `instead`: said where no pH can be so low; `notes`: taken as usual."""

    figure: FigureOut
    instead: SaidOut | None
    notes: list[SaidOut]


class GaugeOut(BaseModel):
    """A figure against its limit."""

    figure: FigureOut
    limit: float
    standing: Standing
    says: SaidOut


class OutlookOut(BaseModel):
    """The goods after a loss, by estimate."""

    loss_percent: float
    water_activity: float
    water_activity_sd: float
    water_phase_salt_percent: float
    moisture_protein_ratio: float
    firmness: Firmness
    keeps: KeepClass


class CautionOut(BaseModel):
    """Something to be said where it happens; a hold keeps the batch red until it is answered."""

    where: str
    says: SaidOut
    hold: bool
    source: SaidOut


class ConsequencesOut(BaseModel):
    """What follows from a sheet."""

    salt: GaugeOut
    nitrite: GaugeOut
    nitrate: GaugeOut
    acid: AcidOut | None
    outlooks: list[OutlookOut]
    casing_mm: float | None
    pieces: int
    finished_g: float
    cost: float | None
    cost_per_finished_kg: float | None
    cautions: list[CautionOut]


class WorkedOut(BaseModel):
    """A sheet worked out, with what follows from it while nothing stands in the way."""

    meat_g: float
    fat_percent: float
    total_g: float
    lines: list[LineOut]
    problems: list[SheetProblem]
    consequences: ConsequencesOut | None


class BlendIn(BaseModel):
    """A sheet and the fat share it is to get."""

    sheet: SheetModel
    fat_percent: Annotated[float, Field(allow_inf_nan=False)]


class ScaleIn(BaseModel):
    """A sheet and the meat it is to be made from."""

    sheet: SheetModel
    meat_g: Grams


class WeeksIn(BaseModel):
    """A sheet and the place it would hang in."""

    sheet: SheetModel
    place_id: RowId


class WeeksOut(BaseModel):
    """How long a piece would hang, by the forecast; null where it would not get there."""

    low: float | None
    middle: float | None
    high: float | None
    hooks_free: int
    reaches: float | None  # the chance to get there
    assumed: list[SaidOut]  # what is taken as usual because nobody gave it


class VersionOut(BaseModel):
    """A version of a recipe."""

    number: int
    reason: str
    by: str
    at: datetime
    sheet: SheetModel


class RecipeOut(BaseModel):
    """A recipe with all its versions, the first one first."""

    id: int
    name: str
    versions: list[VersionOut]


class RecipeIn(RecordIn):
    """A sheet to keep under a name."""

    name: Name
    sheet: SheetModel
    reason: Note = ""


class VersionIn(RecordIn):
    """A changed sheet, from which version it was begun, and why it was changed."""

    base: Annotated[int, Field(ge=1, le=100_000)]
    sheet: SheetModel
    reason: Reason


class DifferenceOut(BaseModel):
    """One thing in which two versions differ."""

    what: SaidOut
    was: SaidOut | None
    now: SaidOut | None
