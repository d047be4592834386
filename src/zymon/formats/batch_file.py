"""The batch file, second edition, `zymon-batch/2`: the whole course of a batch from the bowl to the knife."""

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, model_validator

from zymon.core.course import StageKind
from zymon.core.ledger import batch as judged
from zymon.core.ledger.laboratory import allowed
from zymon.core.ledger.species import species_of
from zymon.core.limits import LimitProfile
from zymon.core.pieces import MAX_TARGET_LOSS_PERCENT
from zymon.limits import profile_from, shipped

from .hang_file import utc


class BatchFileError(ValueError):
    """A batch file that cannot be judged, in words, with the place in the file."""


Moment = Annotated[datetime, AfterValidator(utc)]
Finite = Annotated[float, Field(allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-60, le=80, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
Weight = Annotated[float, Field(gt=0, allow_inf_nan=False)]
AtLeastZero = Annotated[float, Field(ge=0, allow_inf_nan=False)]
Text = Annotated[str, Field(min_length=1)]


def _species(word: object) -> object:
    if not isinstance(word, str):
        return word
    found = species_of(word)
    if found is None:
        raise ValueError(f"no species that is known here: {word!r}")
    return found


Species = Annotated[str, BeforeValidator(_species)]


class _Open(BaseModel):
    model_config = ConfigDict(extra="allow", populate_by_name=True)


class PartRow(_Open):
    """Meat in the batch."""

    name: str = ""
    species: Species | None = None
    mass_g: Weight | None = None
    fat_percent: Percent | None = None
    pieces: list[str] | None = None


class CuringSaltRow(_Open):
    """A curing salt that went in; null grams: nobody weighed it."""

    grams: AtLeastZero | None = None
    nitrite_fraction: Share = 0.0
    nitrate_fraction: Share = 0.0

    @model_validator(mode="after")
    def _whole(self) -> "CuringSaltRow":
        if self.nitrite_fraction + self.nitrate_fraction > 1:
            raise ValueError("nitrite and nitrate are more than the whole curing salt")
        return self


class FormulationRow(_Open):
    """Salt and curing salts of a mix; an empty list is a known zero, null is not known."""

    plain_salt_g: AtLeastZero | None = None
    curing_salts: list[CuringSaltRow] | None = None
    other_salt_g: AtLeastZero | None = None
    dose_known: bool = True
    dextrose_g: AtLeastZero | None = None
    belly: bool = False
    pieces: list[str] | None = None


class ParasiteRow(_Open):
    """What was done about the parasites of a species."""

    species: Species
    way: judged.ParasiteWay | None = None
    temperature_c: Annotated[float, Field(ge=-200, le=60, allow_inf_nan=False)] | None = None
    days: AtLeastZero | None = None
    thickness_cm: Annotated[float, Field(gt=0, allow_inf_nan=False)] | None = None


class StageRow(_Open):
    """A stage of the course with what was read in it."""

    kind: StageKind
    from_: Annotated[Moment, Field(alias="from")]
    to: Moment | None = None
    way: judged.CureWay | None = None
    place: str | None = None
    temperature: list[tuple[Moment, Celsius]] = []
    rh_percent: list[tuple[Moment, Percent]] = []
    pieces: list[str] | None = None

    @model_validator(mode="after")
    def _forward(self) -> "StageRow":
        if self.to is not None and self.to < self.from_:
            raise ValueError("it would end before it begins")
        return self


class PhRow(_Open):
    """A pH reading."""

    at: Moment
    value: Annotated[float, Field(ge=0, le=14, allow_inf_nan=False)]
    meter: judged.Meter | None = None
    repeat_of: Moment | str | int | None = None


class InspectionRow(_Open):
    """How a piece felt and smelt."""

    at: Moment
    rim: judged.Rim | None = None
    core: judged.Core | None = None
    smell: str | None = None


class PieceRow(_Open):
    """A piece with its gross weights."""

    tag: Text
    start_weight_g: Weight | None = None
    tare_g: AtLeastZero = 0.0
    target_loss_percent: Annotated[float, Field(gt=0, le=MAX_TARGET_LOSS_PERCENT, allow_inf_nan=False)] | None = None
    done_by: judged.DoneBy = "weight"
    core_salt_share: Annotated[float, Field(ge=0, le=1.5, allow_inf_nan=False)] | None = None
    weights: list[tuple[Moment, Weight]] = []
    doubtful: list[Moment] = []
    taken_down: Moment | None = None
    inspections: list[InspectionRow] = []
    casing: str | None = None
    ring_past_bound: bool = False

    @model_validator(mode="after")
    def _weighed(self) -> "PieceRow":
        if self.start_weight_g is not None and self.tare_g >= self.start_weight_g:
            raise ValueError(f"its tare must be below its start weight of {self.start_weight_g:g} g")
        for _, gross_g in self.weights:
            if gross_g <= self.tare_g:
                raise ValueError(f"a weight of {gross_g:g} g is no more than its tare")
        return self


class LabRow(_Open):
    """A laboratory value with its unit."""

    at: Moment
    what: judged.LabWhat
    value: Finite
    unit: str = ""
    on: Literal["product", "mix"] = "product"
    tag: str | None = None

    @model_validator(mode="after")
    def _possible(self) -> "LabRow":
        if not allowed(self.what, self.value, self.unit):
            raise ValueError(f"{self.value:g} {self.unit!r} is nothing that a laboratory finds of {self.what}")
        return self


class CorrectionRow(_Open):
    """A correction of what had made a hurdle fail."""

    hurdle: Text
    at: Moment
    by: Text
    reason: str = ""
    was: judged.State = "fail"


class SignatureRow(_Open):
    """Who answers for an unknown, or releases a correction."""

    hurdle: Text
    by: Text
    at: Moment
    reason: str = ""


class BatchFile(_Open):
    """A batch with its whole course; unknown keys are kept."""

    format: Literal["zymon-batch/2"] = "zymon-batch/2"
    id: str
    goods: judged.Goods
    family: str = ""
    use: judged.Use = "raw"
    cold_hung: bool = False
    moulded: bool = False
    limit_profile: str = "us"
    limits: dict[str, Any] | None = None
    now: Moment
    parts: list[PartRow] = []
    formulation: FormulationRow | None = None
    formulations: list[FormulationRow] = []
    mix_temperature_c: Celsius | None = None
    parasite: list[ParasiteRow] = []
    stages: list[StageRow] = []
    ph: list[PhRow] = []
    pieces: list[PieceRow] = []
    laboratory: list[LabRow] = []
    corrections: list[CorrectionRow] = []
    signatures: list[SignatureRow] = []
    workshop_people: Annotated[int, Field(ge=1)] | None = None
    forecast_end: Moment | None = None

    @model_validator(mode="after")
    def _sound(self) -> "BatchFile":
        if self.goods == "intact" and self.family.lower().startswith(("salame", "salami")):
            raise ValueError(f"goods: a {self.family} is minced, not intact")
        tags = [p.tag for p in self.pieces]
        for i, tag in enumerate(tags):
            if tag in tags[:i]:
                raise ValueError(f"pieces[{i}].tag: {tag!r} stands there twice")
        for name in ("stages", "parts", "formulations"):
            for i, row in enumerate(getattr(self, name)):
                strange = [tag for tag in row.pieces or [] if tags and tag not in tags]
                if strange:
                    raise ValueError(f"{name}[{i}].pieces: no piece is called {strange[0]!r}")
        begun = min((s.from_ for s in self.stages), default=None)
        for i, piece in enumerate(self.pieces):
            if begun is not None and piece.taken_down is not None and piece.taken_down < begun:
                raise ValueError(f"pieces[{i}].taken_down: lies before its first stage")
        self.profile()
        return self

    def profile(self) -> LimitProfile:
        """The limits it is judged by: shipped, or its own. Raises ValueError for a name that is neither."""
        if self.limits is not None:
            try:
                own = profile_from(self.limits)
            except (KeyError, TypeError, ValueError) as error:
                raise ValueError(f"limits: not in the form of a limit profile ({error})") from error
            if own.id == self.limit_profile:
                return own
        if self.limit_profile not in shipped():
            raise ValueError(f"limit_profile: '{self.limit_profile}' is not known; known are {', '.join(shipped())}")
        return shipped()[self.limit_profile]
