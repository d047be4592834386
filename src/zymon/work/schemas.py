"""Schemas that every station shares; the TypeScript types are made from them."""

from collections.abc import Iterable
from datetime import datetime
from functools import cache
from math import isfinite
from typing import Annotated, Literal
from urllib.parse import urlsplit
from zoneinfo import ZoneInfo, available_timezones

import orjson
from pydantic import AfterValidator, AwareDatetime, BaseModel, ConfigDict, Field, StringConstraints
from pydantic_core import PydanticCustomError

from zymon.core.drying.surroundings import Sort, Stirring
from zymon.core.order import check_our_time
from zymon.core.say import Said
from zymon.formats.texts import LINES, ONE_LINE
from zymon.store.database import Trouble
from zymon.store.kinds import PlaceKind
from zymon.words.shows import read_shows

from .who import by_whom

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80), ONE_LINE]
Tag = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40), ONE_LINE]
Who = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), ONE_LINE, AfterValidator(by_whom)
]
Reason = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200), ONE_LINE]
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300), LINES]
Code = Annotated[str, StringConstraints(max_length=60), ONE_LINE]  # of a sentence, a hurdle, a table
Product = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120), ONE_LINE]
Grams = Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]
Millimetres = Annotated[float, Field(gt=0, le=600, allow_inf_nan=False)]
RowId = Annotated[int, Field(ge=1, le=2**31 - 1)]  # larger ones overflow SQLite's integers
# made where something is typed or tapped, so that what is sent twice counts once
Uid = Annotated[str, StringConstraints(min_length=4, max_length=40, pattern=r"^[\w.:-]+$")]


@cache
def _zones() -> frozenset[str]:
    return frozenset(available_timezones())  # read off the disk, which takes its time


def _known_zone(name: str) -> str:
    if name not in _zones():
        raise PydanticCustomError("time_zone", "is not known")
    ZoneInfo(name)
    return name


TimeZone = Annotated[str, AfterValidator(_known_zone)]


def _of_our_time(at: datetime) -> datetime:
    check_our_time(at.timestamp())
    return at


Moment = Annotated[AwareDatetime, AfterValidator(_of_our_time)]


class RecordIn(BaseModel):
    """What every entry brings: its identity, who enters it, the moment it is of (now where left out).

    `sure`: what was asked about is answered, it is as entered.
    """

    uid: Uid
    by: Who
    at: Moment | None = None
    sure: bool = False


class Health(BaseModel):
    """That the server is up, and which version it is."""

    status: Literal["ok"] = "ok"
    version: str
    pieces_hanging: int


def _address(text: str) -> str:
    parts = urlsplit(text)
    if parts.scheme not in ("http", "https") or not parts.hostname or parts.path not in ("", "/"):
        raise ValueError("is written as http://name:port or https://name")
    if parts.username or parts.query or parts.fragment or parts.port == 0:
        raise ValueError("is written as http://name:port or https://name")
    return text.rstrip("/")


# by which tablets, phones and calendars reach this machine
Address = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200), ONE_LINE, AfterValidator(_address)]


# a language and units as a query, such as "language=it&mass=oz"; what it does not name is as usual
ShowsText = Annotated[
    str, StringConstraints(max_length=200), ONE_LINE, AfterValidator(lambda text: str(read_shows(text)))
]


class WorkshopOut(BaseModel):
    """Name and time zone of the workshop, the address by which tablets reach it, what it writes by itself in."""

    name: Name
    time_zone: TimeZone
    people: Annotated[int, Field(ge=1, le=1000)] | None = None  # who work in it; None: nobody said
    address: Address | None = None  # None: only this machine itself
    shows: ShowsText | None = None  # language and units of mails and calendars; None: as usual


class WorkshopIn(WorkshopOut):
    """What the workshop is called from now on, and who says so; `was`, as it was when they began to change it."""

    by: Who = "maker"
    was: WorkshopOut | None = None


class Setpoint(BaseModel):
    """What a place is set to; null where it is not controlled."""

    temperature_c: Annotated[float, Field(ge=-30, le=50, allow_inf_nan=False)] | None = None
    rh_percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None


class SetpointIn(Setpoint, RecordIn):
    """A set point from a moment on, and who turned the knob."""


class PlaceIn(RecordIn):
    """A new place with its rods, each by its number of hooks."""

    name: Name
    kind: PlaceKind = "chamber"
    sort: Sort | None = None
    stirring: Stirring | None = None
    hooks_per_rod: Annotated[list[Annotated[int, Field(ge=1, le=60)]], Field(max_length=40)] = []
    hook_spacing_mm: Annotated[float, Field(ge=20, le=2000, allow_inf_nan=False)] | None = None
    setpoint: Setpoint = Setpoint()


class WhatIn(RecordIn):
    """What a place is, and how its air moves; null where nobody says."""

    sort: Sort | None
    stirring: Stirring | None


class AirNow(BaseModel):
    """The latest logged air of a place."""

    at: datetime
    temperature_c: float
    rh_percent: float | None
    trend_c: float
    trend_rh: float | None
    stale: bool


class PlaceOut(BaseModel):
    """A place on the line, with its air and what hangs in it."""

    id: int
    name: str
    kind: PlaceKind
    sort: Sort | None
    stirring: Stirring | None
    setpoint: Setpoint | None
    air: AirNow | None
    pieces: int
    hooks: int


class Line(BaseModel):
    """The whole line: workshop and places; `workshop` is null in a new database."""

    workshop: WorkshopOut | None
    now: datetime
    places: list[PlaceOut]
    in_salt: int
    in_warm: int
    at_rest: int
    simulated: bool
    trouble: Trouble | None  # why the latest entry could not be kept
    alarms: list["AlarmShort"]


class Ready(BaseModel):
    """The date and its 80 % window; null when the target is out of reach."""

    p10: datetime | None
    p50: datetime | None
    p90: datetime | None


class ClimateOut(BaseModel):
    """A climate series; lists of equal length, times in seconds since 1970. Humidity where it was measured."""

    at_s: list[int]
    temperature_c: list[float]
    temperature_min_c: list[float]
    temperature_max_c: list[float]
    rh_percent: list[float | None]
    rh_min_percent: list[float | None]
    rh_max_percent: list[float | None]
    bucket_s: int


class ByIn(BaseModel):
    """Who does it."""

    by: Who


class StrikeIn(BaseModel):
    """Why an entry was wrong."""

    reason: Reason
    by: Who


class MadeOut(BaseModel):
    """Something that an entry made: of what kind, and its id."""

    model_config = ConfigDict(from_attributes=True)
    what: Code
    id: int


class WithMade(BaseModel):
    """An answer that names what the entry made; the same again when it is sent again."""

    made: list[MadeOut] = []


class CuringIn(BaseModel):
    """A curing salt that went in: % of the meat, its nitrite and nitrate as parts of 1."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80), ONE_LINE] = "curing salt"
    percent: Annotated[float, Field(gt=0, le=15, allow_inf_nan=False)]
    nitrite_fraction: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
    nitrate_fraction: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


class SaidOut(BaseModel):
    """A sentence by its code, with its values; the catalogue of the page has the words."""

    code: str
    values: dict[str, str | int | float]


class AlarmShort(BaseModel):
    """An alarm as every screen shows it."""

    id: int
    title: SaidOut
    link: str
    urgent: bool
    ended: bool
    acknowledged_by: str | None


class UsualAirOut(BaseModel):
    """What the air usually is in a kind of place."""

    sort: Sort
    says: SaidOut


def said_out(of: Said) -> SaidOut:
    """A sentence as it is sent."""
    values = {k: v if isinstance(v, str) or isfinite(v) else str(v) for k, v in of.values.items()}  # JSON has no others
    return SaidOut(code=of.code, values=values)


def kept_said(of: Iterable[Said]) -> str:
    """Sentences as they are kept, JSON."""
    return orjson.dumps([{"code": one.code, "values": dict(one.values)} for one in of]).decode()


def read_said(kept: str | None) -> list[Said]:
    """Sentences as they were kept; none where nothing was."""
    return [Said(**one) for one in orjson.loads(kept or "[]")]


def all_said(of: Iterable[Said]) -> list[SaidOut]:
    """Sentences as they are sent."""
    return [said_out(one) for one in of]
