"""What the alarms' page shows and takes; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal, Self

from pydantic import BaseModel, Field, StringConstraints, model_validator

from zymon.core.alarms import Kind
from zymon.core.errors import OutOfRangeError
from zymon.formats.texts import ONE_LINE
from zymon.store.kinds import MessageWay

from ..schemas import Name, RecordIn, SaidOut

Celsius = Annotated[float, Field(ge=-40, le=60, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
Minute = Annotated[int, Field(ge=0, le=1439)]


class BandValues(BaseModel):
    """What is watched at a place; a limit of null is not."""

    low_c: Celsius | None = None
    high_c: Celsius | None = None
    low_rh: Percent | None = None
    high_rh: Percent | None = None
    for_minutes: Annotated[int, Field(ge=1, le=2880)] = 60
    frost: bool = True
    silent_minutes: Annotated[int, Field(ge=5, le=10_080)] | None = 30
    door_minutes: Annotated[int, Field(ge=5, le=1440)] | None = None


class BandIn(BandValues, RecordIn):
    """What is to be watched at a place from now on."""

    @model_validator(mode="after")
    def _low_under_high(self) -> Self:
        for low, high, unit in ((self.low_c, self.high_c, "°C"), (self.low_rh, self.high_rh, "%")):
            if low is not None and high is not None and low >= high:
                raise OutOfRangeError("refused.band_upside_down", low=low, high=high, unit=unit)
        return self


class BandOut(BandValues):
    """What is watched at a place; `by` null: nobody said, frost and silence alone are. `usual`: to begin with."""

    place_id: int
    place: str
    by: str | None
    usual: BandValues


class MessageOut(BaseModel):
    """That somebody was told, or why not. `state` unsure: begun and cut off; it is not sent again."""

    name: str
    way: MessageWay
    state: Literal["waits", "gone", "unsure", "failed"]
    at: datetime | None
    trouble: str


class AlarmOut(BaseModel):
    """Something that is or was wrong."""

    id: int
    kind: Kind
    title: SaidOut
    means: SaidOut
    link: str
    begun_at: datetime
    ended_at: datetime | None
    acknowledged_at: datetime | None
    acknowledged_by: str | None
    messages: list[MessageOut]


class TellIn(RecordIn):
    """Somebody to be told: by mail, by a call of an address, or by push to a browser."""

    name: Name
    way: MessageWay
    address: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=4000), ONE_LINE]
    second: bool = False
    quiet_from: Minute | None = None
    quiet_to: Minute | None = None
    woken: bool = True


class TellOut(BaseModel):
    """Somebody who is told. `secret`: with which calls are signed, shown once; else null."""

    id: int
    name: str
    way: MessageWay
    address: str
    second: bool
    quiet_from: int | None
    quiet_to: int | None
    woken: bool
    secret: str | None


class AlarmsOut(BaseModel):
    """The alarms' page: what was wrong, what is watched, who is told, which ways there are."""

    events: list[AlarmOut]
    bands: list[BandOut]
    people: list[TellOut]
    ways: list[MessageWay]
    push_key: str | None


class TrialOut(BaseModel):
    """What became of a test: it went, or why it did not."""

    went: bool
    trouble: str
