"""The warm file, `zymon-warm/1`, and its forecast, `zymon-warm-forecast/1`."""

from datetime import datetime
from typing import Annotated, Any, Literal

import orjson
from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError

from zymon.core.errors import OutOfRangeError
from zymon.core.fermentation.curve import Culture, Fermentation, Reading
from zymon.core.fermentation.forecast import FermentationForecast, State, Window, forecast_fermentation
from zymon.limits import shipped
from zymon.words import USUAL, sentence, told

from .hang_file import first_error, iso, utc

Moment = Annotated[datetime, AfterValidator(utc)]
Celsius = Annotated[float, Field(ge=-40, le=80, allow_inf_nan=False)]
# a slipped decimal point is a reading too: the forecast does not believe it
PhReading = Annotated[float, Field(gt=0, le=100, allow_inf_nan=False)]


class WarmFileError(ValueError):
    """A warm file that cannot be forecast, in words, with the place in the file."""


class WarmFile(BaseModel):
    """A batch in the warm stage; null where not known."""

    model_config = ConfigDict(extra="allow")

    format: Literal["zymon-warm/1"] = "zymon-warm/1"
    id: str
    culture: Culture | None = None
    dextrose_percent: Annotated[float, Field(ge=0, le=5, allow_inf_nan=False)] | None = None
    salt_percent: Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)] | None = None
    start_ph: Annotated[float, Field(ge=4.5, le=7.5, allow_inf_nan=False)] | None = None
    stuffed_at: Moment
    target_ph: Annotated[float, Field(ge=4, le=6, allow_inf_nan=False)] = 5.2
    setpoint_c: Annotated[float, Field(ge=-5, le=60, allow_inf_nan=False)] | None = None
    temperature: list[tuple[Moment, Celsius]] = []
    ph: list[tuple[Moment, PhReading]] = []
    limit_profile: str = "us"
    now: Moment


class When(BaseModel):
    """A date and its 80 % window; null when it will not get there."""

    p10: str | None
    p50: str | None
    p90: str | None


class Allowance(BaseModel):
    """Degree-hours used and allowed; runs_out_at at the present temperature."""

    profile: str
    used: float | None
    limit: float
    unit: str
    runs_out_at: str | None


class WarmForecastFile(BaseModel):
    """The forecast of a batch in the warm stage."""

    format: Literal["zymon-warm-forecast/1"] = "zymon-warm-forecast/1"
    id: str
    now: str
    ph_now: float
    crosses_5_3_at: When
    reaches_target_at: When
    degree_hours: Allowance
    state: State
    causes: list[str]
    measure_next_at: str | None


def read_warm_file(data: bytes) -> WarmFile:
    """Read and check a warm file. Raises WarmFileError naming the place."""
    try:
        document: Any = orjson.loads(data)
    except orjson.JSONDecodeError as error:
        raise WarmFileError(f"line {error.lineno}: not JSON ({error.msg})") from error
    if not isinstance(document, dict):
        raise WarmFileError("file: a warm file is a JSON object")
    if document.get("format") != "zymon-warm/1":
        raise WarmFileError(f"format: expected 'zymon-warm/1', got {document.get('format')!r}")
    try:
        file = WarmFile.model_validate(document)
    except ValidationError as error:
        raise WarmFileError(first_error(error)) from error
    if file.now < file.stuffed_at:
        raise WarmFileError("now: lies before it was stuffed")
    for i, (at, _) in enumerate(file.ph):
        if at < file.stuffed_at:
            raise WarmFileError(f"ph[{i}]: measured at {iso(at.timestamp())}, before it was stuffed")
    if file.limit_profile not in shipped():
        raise WarmFileError(f"limit_profile: '{file.limit_profile}' is not known; known are {', '.join(shipped())}")
    return file


def fermentation_of(file: WarmFile) -> Fermentation:
    """The core's batch of a checked file; nothing after now is kept. Raises WarmFileError."""
    zero = file.stuffed_at.timestamp()

    def rows(of: list[tuple[datetime, float]]) -> list[tuple[float, float]]:
        return sorted(((at.timestamp() - zero) / 3600, value) for at, value in of if at <= file.now)

    box = rows(file.temperature)
    before = [p for p in box if p[0] < 0]
    box = [*([(0.0, before[-1][1])] if before else []), *(p for p in box if p[0] >= 0)]
    try:
        return Fermentation(
            culture=file.culture,
            dextrose_percent=file.dextrose_percent,
            salt_percent=file.salt_percent,
            start_ph=file.start_ph,
            target_ph=file.target_ph,
            setpoint_c=file.setpoint_c,
            temperature=tuple(box),
            readings=tuple(Reading(hour, ph) for hour, ph in rows(file.ph)),
            now_hour=(file.now.timestamp() - zero) / 3600,
        )
    except OutOfRangeError as error:
        raise WarmFileError(told(error)) from error


def warm_answer(file: WarmFile, made: FermentationForecast) -> WarmForecastFile:
    """The forecast document of the core's answer."""
    zero = file.stuffed_at.timestamp()
    table = shipped()[file.limit_profile].degree_hours

    def at(hour: float | None) -> str | None:
        return None if hour is None else iso(zero + hour * 3600)

    def when(window: Window) -> When:
        return When(p10=at(window.p10), p50=at(window.p50), p90=at(window.p90))

    return WarmForecastFile(
        id=file.id,
        now=iso(file.now.timestamp()),
        ph_now=round(made.ph_now, 3),
        crosses_5_3_at=when(made.crosses),
        reaches_target_at=when(made.reaches_target),
        degree_hours=Allowance(
            profile=file.limit_profile,
            used=None if made.used is None else round(made.used.used, 3),
            limit=table.limit(table.from_celsius(file.setpoint_c or 20.0)) if made.used is None else made.used.limit,
            unit=f"{table.unit} h",
            runs_out_at=at(made.runs_out_hour),
        ),
        state=made.state,
        causes=[sentence(cause, shows=USUAL) for cause in made.causes],
        measure_next_at=at(made.measure_next_hour),
    )


def ferment_bytes(data: bytes) -> bytes:
    """One warm file in, one forecast out, as a JSON line without its end. Raises WarmFileError."""
    file = read_warm_file(data)
    table = shipped()[file.limit_profile].degree_hours
    try:
        made = forecast_fermentation(fermentation_of(file), table)
    except OutOfRangeError as error:
        raise WarmFileError(told(error)) from error
    return orjson.dumps(warm_answer(file, made).model_dump())
