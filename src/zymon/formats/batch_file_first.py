"""The batch file, first edition, `zymon-batch/1`, and its ledger, `zymon-ledger/1`."""

from datetime import datetime
from typing import Annotated, Any, Literal

import orjson
from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError

from zymon.core.ledger.first import batch as core
from zymon.core.ledger.first.judge import Ledger, judge
from zymon.limits import shipped

from .batch_file import BatchFileError
from .hang_file import first_error, iso, utc

Moment = Annotated[datetime, AfterValidator(utc)]
Finite = Annotated[float, Field(allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-60, le=60, allow_inf_nan=False)]
PhValue = Annotated[float, Field(ge=3, le=9, allow_inf_nan=False)]
Weight = Annotated[float, Field(gt=0, allow_inf_nan=False)]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
AtLeastZero = Annotated[float, Field(ge=0, allow_inf_nan=False)]


class _Open(BaseModel):
    model_config = ConfigDict(extra="allow")


class FormulationPart(_Open):
    """What went into the meat; null where it is not known."""

    meat_g: Weight | None = None
    plain_salt_g: AtLeastZero | None = None
    curing_salt_g: AtLeastZero | None = None
    nitrite_fraction: Share | None = None
    nitrate_fraction: Share | None = None
    belly: bool | None = None


class ParasitePart(_Open):
    """What was done about parasites."""

    way: Literal["frozen", "certified", "none"] | None = None
    temperature_c: Annotated[float, Field(ge=-100, le=60, allow_inf_nan=False)] | None = None
    days: AtLeastZero | None = None
    thickness_cm: Annotated[float, Field(gt=0, allow_inf_nan=False)] | None = None


class CurePart(_Open):
    """Time in salt of intact muscle."""

    way: str | None = None
    from_: Annotated[Moment | None, Field(alias="from")] = None
    to: Moment | None = None
    temperature: list[tuple[Moment, Celsius]] | None = None


class WarmPart(_Open):
    """The warm stage; way none for a batch hung cold."""

    way: str | None = None
    from_: Annotated[Moment | None, Field(alias="from")] = None
    temperature: list[tuple[Moment, Celsius]] | None = None
    ph: list[tuple[Moment, PhValue]] | None = None


class HangPiecePart(_Open):
    """A hanging piece with its gross weights."""

    tag: str
    start_weight_g: Weight
    tare_g: AtLeastZero = 0.0
    target_loss_percent: Annotated[float, Field(gt=0, le=80, allow_inf_nan=False)] | None = None
    weights: list[tuple[Moment, Weight]] = []


class HangPart(_Open):
    """What hangs of the batch."""

    pieces: list[HangPiecePart] = []


class LabPart(_Open):
    """A laboratory value."""

    at: Moment
    what: str
    value: Finite


class SignaturePart(_Open):
    """Somebody who answers for an unknown."""

    hurdle: str
    by: str
    reason: str


class BatchFile(_Open):
    """A batch with what is known of it; unknown keys are kept."""

    format: Literal["zymon-batch/1"] = "zymon-batch/1"
    id: str
    goods: Literal["minced", "intact"]
    species: list[str] = []
    limit_profile: str = "us"
    now: Moment
    formulation: FormulationPart | None = None
    mix_temperature_c: Celsius | None = None
    parasite: ParasitePart | None = None
    cure: CurePart | None = None
    warm: WarmPart | None = None
    hang: HangPart | None = None
    laboratory: list[LabPart] | None = None
    signatures: list[SignaturePart] | None = None


class HurdleOut(BaseModel):
    """One hurdle of the ledger."""

    name: str
    state: core.State
    value: float | str | None
    limit: str
    unit: str
    known: core.Known
    caution: str | None
    source: str
    says: str
    signed_by: str | None
    signed_reason: str | None


class LedgerFile(BaseModel):
    """The ledger of a batch."""

    format: Literal["zymon-ledger/1"] = "zymon-ledger/1"
    id: str
    ready: bool
    why: list[str]
    hurdles: list[HurdleOut]


def read_document(document: dict[str, Any]) -> BatchFile:
    """Check a batch file of the first edition. Raises BatchFileError naming the place."""
    try:
        file = BatchFile.model_validate(document)
    except ValidationError as error:
        raise BatchFileError(first_error(error)) from error
    _check(file)
    return file


def _check(file: BatchFile) -> None:
    if file.limit_profile not in shipped():
        known = ", ".join(shipped())
        raise BatchFileError(f"limit_profile: '{file.limit_profile}' is not known; known are {known}")
    f = file.formulation
    if f is not None and (f.nitrite_fraction or 0.0) + (f.nitrate_fraction or 0.0) > 1:
        raise BatchFileError("formulation.nitrate_fraction: nitrite and nitrate are more than the whole curing salt")
    cure = file.cure
    if cure is not None and cure.from_ is not None and cure.to is not None and cure.to < cure.from_:
        raise BatchFileError(f"cure.to: {iso(cure.to.timestamp())} lies before the cure began")
    for i, piece in enumerate(file.hang.pieces if file.hang else []):
        place = f"hang.pieces[{i}]"
        if piece.tare_g >= piece.start_weight_g:
            raise BatchFileError(f"{place}.tare_g: must be below the start weight of {piece.start_weight_g:g} g")
        for w, (at, gross_g) in enumerate(piece.weights):
            if at <= file.now and gross_g <= piece.tare_g:
                raise BatchFileError(f"{place}.weights[{w}]: {gross_g:g} g is no more than the tare")


def batch_of(file: BatchFile) -> core.Batch:
    """The core's batch of a checked file; hours count from its first moment, nothing after now is kept."""
    begun = [part.from_ for part in (file.cure, file.warm) if part is not None]
    starts = [moment for moment in begun if moment is not None]
    zero = min(starts, default=file.now).timestamp()

    def hour(at: datetime) -> float:
        return (at.timestamp() - zero) / 3600

    def points(rows: list[tuple[datetime, float]] | None) -> core.Points:
        return tuple(sorted((hour(at), value) for at, value in rows or [] if at <= file.now))

    f = file.formulation
    bowl = None
    if f is not None and f.meat_g is not None and f.plain_salt_g is not None and f.curing_salt_g is not None:
        nitrite, nitrate = f.nitrite_fraction, f.nitrate_fraction
        if f.curing_salt_g == 0 or (nitrite is not None and nitrate is not None):
            bowl = core.Bowl(f.meat_g, f.plain_salt_g, f.curing_salt_g, nitrite or 0.0, nitrate or 0.0, bool(f.belly))
    cure = None
    if file.cure is not None and file.cure.from_ is not None:
        to = None if file.cure.to is None else hour(file.cure.to)
        cure = core.Cure(file.cure.way, hour(file.cure.from_), to, points(file.cure.temperature))
    warm = None
    if file.warm is not None and file.warm.way == "none":
        warm = core.WarmStage("none", 0.0, (), points(file.warm.ph))
    elif file.warm is not None and file.warm.from_ is not None:
        warm = core.WarmStage(None, hour(file.warm.from_), points(file.warm.temperature), points(file.warm.ph))
    p = file.parasite
    lab = sorted((v for v in file.laboratory or [] if v.at <= file.now), key=lambda v: v.at)
    return core.Batch(
        id=file.id,
        goods=file.goods,
        species=tuple(file.species),
        profile=shipped()[file.limit_profile],
        now_hour=hour(file.now),
        bowl=bowl,
        mix_temperature_c=file.mix_temperature_c,
        parasite=None if p is None else core.Parasite(p.way, p.temperature_c, p.days, p.thickness_cm),
        cure=cure,
        warm=warm,
        pieces=tuple(
            core.HungPiece(q.tag, q.start_weight_g, q.tare_g, q.target_loss_percent, points(q.weights))
            for q in (file.hang.pieces if file.hang else [])
        ),
        laboratory=tuple(core.LabValue(v.what, v.value) for v in lab),
        signatures=tuple(core.Signature(s.hurdle, s.by, s.reason) for s in file.signatures or []),
    )


def ledger_out(ledger: Ledger) -> LedgerFile:
    """The ledger document of the core's answer."""
    return LedgerFile(
        id=ledger.id,
        ready=ledger.ready,
        why=list(ledger.why),
        hurdles=[
            HurdleOut(**{**vars(h), "value": round(h.value, 4) if isinstance(h.value, float) else h.value})
            for h in ledger.hurdles
        ],
    )


def judge_document(document: dict[str, Any]) -> bytes:
    """One batch file in, one ledger out, as a JSON line without its end. Raises BatchFileError."""
    return orjson.dumps(ledger_out(judge(batch_of(read_document(document)))).model_dump())
