"""The hang file `zymon-hang/1` and its answer `zymon-forecast/1`: models, reading, checking, answering.

The JSON Schemas in docs/formats are made from these models.
"""

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Annotated, Any, Literal

import numpy as np
import orjson
from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
    ValidationError,
    WithJsonSchema,
)

from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import PieceForecast, forecast
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing, History, Piece, Weighing
from zymon.core.drying.surroundings import Sort, Stirring, Surroundings
from zymon.core.errors import OutOfRangeError
from zymon.words import USUAL, sentence, told


class HangFileError(ValueError):
    """A hang file that cannot be used; the text names the place, as `batches[0].pieces[3].weights[2]: …`."""


def utc(value: datetime) -> datetime:
    """The same moment in UTC; one without a zone is taken to be in UTC."""
    return value.replace(tzinfo=UTC) if value.tzinfo is None else value.astimezone(UTC)


Instant = Annotated[datetime, AfterValidator(utc)]
Grams = Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-40, le=60, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]


def _two_or_three(row: object) -> object:
    return [*row, ""] if isinstance(row, list | tuple) and len(row) == 2 else row


def _as_written(row: tuple[datetime, float, str]) -> tuple[object, ...]:
    return row if row[2] else row[:2]


# When and what the scale showed; "confirmed" where a second reading agreed
Weight = Annotated[
    tuple[Instant, Grams, Literal["", "confirmed"]],
    BeforeValidator(_two_or_three),
    PlainSerializer(_as_written),
    WithJsonSchema(
        {
            "type": "array",
            "prefixItems": [
                {"type": "string", "format": "date-time"},
                {"type": "number", "exclusiveMinimum": 0, "maximum": 200000},
                {"const": "confirmed"},
            ],
            "minItems": 2,
            "maxItems": 3,
        }
    ),
]


class _Open(BaseModel):
    model_config = ConfigDict(extra="allow")


class Setpoint(_Open):
    """What the controller of a chamber is set to; null where it has none."""

    temperature_c: Celsius | None = None
    rh_percent: Percent | None = None


class HangChamber(_Open):
    """The place the pieces hang in."""

    name: str = ""
    kind: Sort | None = None
    air: Stirring | None = None
    setpoint: Setpoint | None = None


class HangPiece(_Open):
    """One piece: measures in mm, gross weights in g; start and target null where nobody weighed it or set one."""

    tag: str
    diameter_mm: Annotated[float, Field(gt=0, le=600)] | None = None
    thickness_mm: Annotated[float, Field(gt=0, le=600)] | None = None
    length_mm: Annotated[float, Field(gt=0, le=2500)] | None = None
    start_weight_g: Grams | None = None
    tare_g: Annotated[float, Field(ge=0, le=200_000, allow_inf_nan=False)] = 0.0
    hung_at: Instant
    target_loss_percent: Annotated[float, Field(gt=0, le=80)] | None = None
    weights: list[Weight] = []
    skin: bool | None = None
    bone: bool | None = None


class HangBatch(_Open):
    """Pieces of one making, hung together."""

    id: str
    kind: Kind
    shape: Shape
    casing: Casing = "none"
    fat_percent: Annotated[float, Field(ge=0, le=80)] | None = None
    salt_percent: Annotated[float, Field(ge=0, le=15)] | None = None
    pieces: list[HangPiece]


class HangFile(_Open):
    """A place, its climate and its batches at one moment."""

    format: Literal["zymon-hang/1"]
    chamber: HangChamber = HangChamber()
    climate: list[tuple[Instant, Celsius, Percent]] = []
    batches: list[HangBatch]
    now: Instant


class ReadyAt(BaseModel):
    """The date as median and 80 % window; null when the target is out of reach."""

    p10: str | None
    p50: str | None
    p90: str | None


class DoubtfulWeight(BaseModel):
    """A weighing the forecast held back."""

    at: str
    gross_g: float
    reason: str


class ForecastPiece(BaseModel):
    """The forecast of one piece."""

    tag: str
    loss_percent: float
    loss_p10_percent: float
    loss_p90_percent: float
    target_weight_g: float | None
    rate_percent_per_day: float
    rate_p10_percent_per_day: float
    rate_p90_percent_per_day: float
    ready_at: ReadyAt
    status: Literal["drying", "ready", "stalled"]
    ring_risk: Annotated[float, Field(ge=0, le=1)]
    reaches: Annotated[float, Field(ge=0, le=1)] | None
    assumed: list[str]
    outside: bool
    doubtful_weights: list[DoubtfulWeight]


class ForecastFile(BaseModel):
    """The answer to a hang file."""

    format: Literal["zymon-forecast/1"] = "zymon-forecast/1"
    now: str
    pieces: list[ForecastPiece]


def iso(seconds: float) -> str:
    """UTC as ISO 8601 to the second, with Z; parameters: seconds [s] since 1970."""
    return datetime.fromtimestamp(round(seconds), UTC).strftime("%Y-%m-%dT%H:%M:%SZ")


def place_of(location: tuple[int | str, ...], whole: str = "file") -> str:
    """Write where an error sits in a document, as `batches[0].pieces[3].tag`, or what the whole of it is called."""
    text = ""
    for part in location:
        text += f"[{part}]" if isinstance(part, int) else f".{part}" if text else str(part)
    return text or whole


_WORDS = {
    "missing": "is missing",
    "greater_than": "must be above {gt:.12g}",
    "greater_than_equal": "must be {ge:.12g} or more",
    "less_than_equal": "must be {le:.12g} or less",
    "finite_number": "must be a finite number",
    "float_type": "must be a number",
    "float_parsing": "must be a number",
    "list_type": "must be a list",
    "string_type": "must be a text",
    "extra_forbidden": "is not known here",
    "too_short": "holds too few values",
    "too_long": "holds too many values",
}


def first_error(error: ValidationError) -> str:
    """The first fault of a document as `place: what is wrong`."""
    fault = error.errors(include_url=False)[0]
    return f"{place_of(fault['loc'])}: {fault_words(fault)}"


def fault_words(fault: Mapping[str, Any]) -> str:
    """What is wrong with a value, in words; parameters: fault, as Pydantic reports it."""
    if fault["type"] == "value_error":  # a check of our own: it has said all there is to say
        return str(fault["ctx"]["error"])
    words = _WORDS.get(fault["type"])
    message = words.format(**fault.get("ctx", {})) if words else fault["msg"][0].lower() + fault["msg"][1:]
    given = fault.get("input")
    got = f", got {given!r}" if isinstance(given, int | float | str) and len(str(given)) < 60 else ""
    return f"{message}{got}"


def read_hang_file(data: bytes) -> HangFile:
    """Read and check a hang file. Raises HangFileError naming the place."""
    try:
        document: Any = orjson.loads(data)
    except orjson.JSONDecodeError as error:
        raise HangFileError(f"line {error.lineno}: not JSON ({error.msg})") from error
    if not isinstance(document, dict):
        raise HangFileError("file: a hang file is a JSON object")
    if document.get("format") != "zymon-hang/1":
        raise HangFileError(f"format: expected 'zymon-hang/1', got {document.get('format')!r}")
    try:
        file = HangFile.model_validate(document)
    except ValidationError as error:
        raise HangFileError(first_error(error)) from error
    _check(file)
    return file


def _check(file: HangFile) -> None:
    tags: dict[str, str] = {}
    for b, batch in enumerate(file.batches):
        for p, piece in enumerate(batch.pieces):
            place = f"batches[{b}].pieces[{p}]"
            if piece.tag in tags:
                raise HangFileError(f"{place}.tag: '{piece.tag}' stands already at {tags[piece.tag]}")
            tags[piece.tag] = place
            if piece.start_weight_g is not None and piece.tare_g >= piece.start_weight_g:
                raise HangFileError(
                    f"{place}.tare_g: must be below the start weight "
                    f"of {piece.start_weight_g:g} g, got {piece.tare_g:g}"
                )
            if piece.hung_at > file.now:
                raise HangFileError(f"{place}.hung_at: {iso(piece.hung_at.timestamp())} lies after now")
            for w, (at, gross_g, *_) in enumerate(piece.weights):
                if at < piece.hung_at:
                    raise HangFileError(f"{place}.weights[{w}]: weighed at {iso(at.timestamp())}, before it was hung")
                if at <= file.now and gross_g <= piece.tare_g:
                    raise HangFileError(
                        f"{place}.weights[{w}]: {gross_g:g} g is no more than the tare of {piece.tare_g:g} g"
                    )


def history_of(file: HangFile) -> History:
    """The core's History of a checked hang file, readings in time order. Raises HangFileError."""
    rows = sorted((at.timestamp(), c, rh) for at, c, rh in file.climate)
    table = np.array(rows, dtype=np.float64).reshape(-1, 3)
    if len(table):
        table = table[np.concatenate([[True], np.diff(table[:, 0]) > 0])]
    setpoint = file.chamber.setpoint or Setpoint()
    pieces = []
    for b, batch in enumerate(file.batches):
        for p, piece in enumerate(batch.pieces):
            try:
                pieces.append(_piece_of(batch, piece))
            except OutOfRangeError as error:
                raise HangFileError(f"batches[{b}].pieces[{p}]: {told(error)}") from error
    return History(
        tuple(pieces),
        Log(table[:, 0], table[:, 1], table[:, 2]),
        setpoint.temperature_c,
        setpoint.rh_percent,
        file.now.timestamp(),
        surroundings=Surroundings(file.chamber.kind, file.chamber.air),
    )


def _piece_of(batch: HangBatch, piece: HangPiece) -> Piece:
    weighings = sorted((at.timestamp(), gross_g, bool(sure)) for at, gross_g, sure in piece.weights)
    return Piece(
        tag=piece.tag,
        batch=batch.id,
        kind=batch.kind,
        shape=batch.shape,
        casing=batch.casing,
        fat_percent=batch.fat_percent,
        salt_percent=batch.salt_percent,
        diameter_mm=piece.diameter_mm,
        thickness_mm=piece.thickness_mm,
        length_mm=piece.length_mm,
        start_weight_g=piece.start_weight_g,
        tare_g=piece.tare_g,
        hung_at_s=piece.hung_at.timestamp(),
        target_loss_percent=piece.target_loss_percent,
        skin=piece.skin,
        bone=piece.bone,
        weighings=tuple(Weighing(at, gross_g, confirmed=sure) for at, gross_g, sure in weighings),
    )


def answer(history: History, pieces: tuple[PieceForecast, ...]) -> ForecastFile:
    """The forecast document of the core's answer; parameters: history, pieces, in the same order."""
    now_s = history.now_s

    def day(seconds: float | None) -> str | None:
        return None if seconds is None else iso(seconds)

    return ForecastFile(
        now=iso(now_s),
        pieces=[
            ForecastPiece(
                tag=f.tag,
                loss_percent=round(f.loss_percent, 3),
                loss_p10_percent=round(f.loss_p10_percent, 3),
                loss_p90_percent=round(f.loss_p90_percent, 3),
                target_weight_g=None if f.target_weight_g is None else round(f.target_weight_g, 3),
                rate_percent_per_day=round(f.rate_percent_per_day, 4),
                rate_p10_percent_per_day=round(f.rate_p10_percent_per_day, 4),
                rate_p90_percent_per_day=round(f.rate_p90_percent_per_day, 4),
                ready_at=ReadyAt(p10=day(f.ready_p10_s), p50=day(f.ready_p50_s), p90=day(f.ready_p90_s)),
                status=f.status,
                ring_risk=round(f.ring_risk, 3),
                reaches=None if f.reaches is None else round(f.reaches, 3),
                assumed=[sentence(one, shows=USUAL) for one in (*history.assumed, *piece.assumed)],
                outside=history.outside(piece),
                doubtful_weights=[
                    DoubtfulWeight(at=iso(d.at_s), gross_g=d.gross_g, reason=sentence(d.reason, shows=USUAL))
                    for d in f.doubts
                ],
            )
            for piece, f in zip(history.pieces, pieces, strict=True)
        ],
    )


def forecast_bytes(data: bytes) -> bytes:
    """One hang file in, one forecast document out, as a JSON line without its end. Raises HangFileError."""
    history = history_of(read_hang_file(data))
    return orjson.dumps(answer(history, forecast(history)).model_dump())
