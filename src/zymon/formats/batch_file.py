"""The batch file, second edition, `zymon-batch/2`: the whole course of a batch from the bowl to the knife."""

from dataclasses import asdict
from datetime import UTC, datetime
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


def _tags(pieces: list[str] | None) -> tuple[str, ...]:
    return tuple(pieces or ())


def _points(rows: list[tuple[datetime, float]], now: datetime) -> judged.Points:
    return tuple(sorted((at.timestamp(), value) for at, value in rows if at <= now))


def _optional(at: datetime | None) -> float | None:
    return None if at is None else at.timestamp()


def batch_of(file: BatchFile) -> judged.Batch:
    """The core's batch of a checked file; nothing that lies after its now is kept."""
    now = file.now
    mixes = [*([file.formulation] if file.formulation is not None else []), *file.formulations]
    return judged.Batch(
        id=file.id,
        goods=file.goods,
        use=file.use,
        profile=file.profile(),
        now_s=now.timestamp(),
        family=file.family,
        cold_hung=file.cold_hung,
        moulded=file.moulded,
        parts=tuple(judged.Part(p.name, p.species, p.mass_g, p.fat_percent, _tags(p.pieces)) for p in file.parts),
        formulations=tuple(_formulation(f) for f in mixes),
        mix_temperature_c=file.mix_temperature_c,
        parasite=tuple(
            judged.ParasiteStep(p.species, p.way, p.temperature_c, p.days, p.thickness_cm) for p in file.parasite
        ),
        stages=tuple(
            judged.Stage(
                s.kind, s.from_.timestamp(), _optional(s.to), _points(s.temperature, now), s.way, s.place,
                _tags(s.pieces),
            )
            for s in file.stages if s.from_ <= now
        ),
        ph=tuple(judged.Ph(r.at.timestamp(), r.value, r.meter or "unknown") for r in file.ph if r.at <= now),
        pieces=tuple(_piece(p, now) for p in file.pieces),
        laboratory=tuple(
            judged.LabValue(v.at.timestamp(), v.what, v.value, v.unit, v.on, v.tag) for v in file.laboratory
        ),
        corrections=tuple(
            judged.Correction(c.hurdle, c.at.timestamp(), c.by, c.reason, c.was) for c in file.corrections
        ),
        signatures=tuple(judged.Signature(s.hurdle, s.by, s.at.timestamp(), s.reason) for s in file.signatures),
        people=file.workshop_people or judged.MORE_THAN_ONE,
        forecast_end_s=_optional(file.forecast_end),
    )  # fmt: skip


def _formulation(f: FormulationRow) -> judged.Formulation:
    salts = f.curing_salts
    return judged.Formulation(
        plain_salt_g=f.plain_salt_g,
        curing_salts=None
        if salts is None
        else tuple(judged.CuringSalt(c.grams, c.nitrite_fraction, c.nitrate_fraction) for c in salts),
        other_salt_g=f.other_salt_g if f.other_salt_g is not None or "other_salt_g" in f.model_fields_set else 0.0,
        dose_known=f.dose_known,
        belly=f.belly,
        tags=_tags(f.pieces),
    )


def _piece(p: PieceRow, now: datetime) -> judged.Piece:
    looks = tuple(
        judged.Inspection(i.at.timestamp(), i.rim, i.core, i.smell or "")
        for i in sorted(p.inspections, key=lambda i: i.at)
        if i.at <= now
    )
    return judged.Piece(
        tag=p.tag,
        start_weight_g=p.start_weight_g,
        tare_g=p.tare_g,
        target_loss_percent=p.target_loss_percent,
        done_by=p.done_by,
        core_salt_share=p.core_salt_share,
        weights=_points(p.weights, now),
        doubtful=tuple(at.timestamp() for at in p.doubtful),
        taken_down_s=_optional(p.taken_down) if p.taken_down is not None and p.taken_down <= now else None,
        inspections=looks,
        casing=p.casing,
        ring_past_bound=p.ring_past_bound,
    )


def file_of(batch: judged.Batch) -> BatchFile:
    """The batch file of the core's batch; `batch_of` reads the same batch back."""
    return BatchFile(
        id=batch.id,
        goods=batch.goods,
        family=batch.family,
        use=batch.use,
        cold_hung=batch.cold_hung,
        moulded=batch.moulded,
        limit_profile=batch.profile.id,
        limits=None if batch.profile.id in shipped() else asdict(batch.profile),
        now=_at(batch.now_s),
        parts=[
            PartRow(name=p.name, species=p.species, mass_g=p.mass_g, fat_percent=p.fat_percent, pieces=_list(p.tags))
            for p in batch.parts
        ],
        formulation=_formulation_in(batch.formulations[0]) if len(batch.formulations) == 1 else None,
        formulations=[_formulation_in(f) for f in batch.formulations] if len(batch.formulations) != 1 else [],
        mix_temperature_c=batch.mix_temperature_c,
        parasite=[ParasiteRow(**vars(p)) for p in batch.parasite],
        stages=[
            StageRow(
                kind=s.kind, from_=_at(s.from_s), to=_maybe(s.to_s), way=s.way, place=s.place,
                temperature=_rows(s.temperature), pieces=_list(s.tags),
            )
            for s in batch.stages
        ],
        ph=[PhRow(at=_at(r.at_s), value=r.value, meter=r.meter) for r in batch.ph],
        pieces=[_piece_in(p) for p in batch.pieces],
        laboratory=[
            LabRow(at=_at(v.at_s), what=v.what, value=v.value, unit=v.unit, on=v.on, tag=v.tag)
            for v in batch.laboratory
        ],
        corrections=[
            CorrectionRow(hurdle=c.hurdle, at=_at(c.at_s), by=c.by, reason=c.reason, was=c.was)
            for c in batch.corrections
        ],
        signatures=[
            SignatureRow(hurdle=s.hurdle, by=s.by, at=_at(s.at_s), reason=s.reason) for s in batch.signatures
        ],
        workshop_people=batch.people,
        forecast_end=_maybe(batch.forecast_end_s),
    )  # fmt: skip


def _at(at_s: float) -> datetime:
    return datetime.fromtimestamp(at_s, UTC)


def _maybe(at_s: float | None) -> datetime | None:
    return None if at_s is None else _at(at_s)


def _list(tags: tuple[str, ...]) -> list[str] | None:
    return list(tags) or None


def _rows(points: judged.Points) -> list[tuple[datetime, float]]:
    return [(_at(t), value) for t, value in points]


def _formulation_in(f: judged.Formulation) -> FormulationRow:
    salts = f.curing_salts
    return FormulationRow(
        plain_salt_g=f.plain_salt_g,
        curing_salts=None if salts is None else [CuringSaltRow(**vars(c)) for c in salts],
        other_salt_g=f.other_salt_g,
        dose_known=f.dose_known,
        belly=f.belly,
        pieces=_list(f.tags),
    )


def _piece_in(p: judged.Piece) -> PieceRow:
    return PieceRow(
        tag=p.tag,
        start_weight_g=p.start_weight_g,
        tare_g=p.tare_g,
        target_loss_percent=p.target_loss_percent,
        done_by=p.done_by,
        core_salt_share=p.core_salt_share,
        weights=_rows(p.weights),
        doubtful=[_at(t) for t in p.doubtful],
        taken_down=_maybe(p.taken_down_s),
        inspections=[InspectionRow(at=_at(i.at_s), rim=i.rim, core=i.core, smell=i.smell) for i in p.inspections],
        casing=p.casing,
        ring_past_bound=p.ring_past_bound,
    )
