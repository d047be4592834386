"""The line itself: the workshop, its places in walking order, their climate, and what is in each station."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zymon.core.alarms import URGENT
from zymon.core.devices import Kind, impossible
from zymon.core.drying.surroundings import SORTS, Surroundings
from zymon.core.errors import OutOfRangeError
from zymon.store import climate as readings
from zymon.store import places as store
from zymon.store.alarms import open_events
from zymon.store.devices import devices
from zymon.store.hang import hanging_count, pieces_in_places
from zymon.store.imports import report
from zymon.store.models import ReadingStrike
from zymon.store.places import ChangedMeanwhileError
from zymon.store.rest import count_at_rest
from zymon.store.salt import count_in_salt
from zymon.store.warm import in_the_warm
from zymon.words.shows import read_shows

from . import schemas as s
from .alarms.telling import title_of
from .places import climate_out, place_out
from .premises import Premises, moment


def line(shop: Premises, simulated: bool) -> s.Line:
    """The workshop and its places in walking order."""
    with shop.db.reading() as session:
        owner = store.workshop(session)
        counts = pieces_in_places(session)
        return s.Line(
            workshop=None if owner is None else s.WorkshopOut.model_validate(owner, from_attributes=True),
            now=moment(shop.now_s),
            places=[place_out(session, p, counts.get(p.id, 0), shop.now_s) for p in store.places(session)],
            in_salt=count_in_salt(session),
            at_rest=count_at_rest(session),
            in_warm=len(in_the_warm(session, shop.now_s)),
            simulated=simulated,
            trouble=shop.trouble,
            alarms=[
                s.AlarmShort(
                    id=one.id,
                    title=s.said_out(title_of(one)),
                    link=one.link,
                    urgent=one.kind in URGENT,
                    ended=one.ended_s is not None,
                    acknowledged_by=one.acknowledged_by,
                )
                for one in open_events(session)
            ],
        )


def pieces_hanging(shop: Premises) -> int:
    """How many pieces hang in the workshop."""
    with shop.db.reading() as session:
        return hanging_count(session)


def name_workshop(shop: Premises, body: s.WorkshopIn) -> s.WorkshopOut:
    """Name the workshop and set its time zone; what it was called before stays in the journal."""
    with shop.changing(body.by) as session:
        known = store.workshop(session)
        if body.was is not None and known is not None:
            now = s.WorkshopOut.model_validate(known, from_attributes=True)
            if now != body.was:
                raise ChangedMeanwhileError("refused.workshop_changed", **_in_words(now))
        owner = store.open_workshop(session, body.name, body.time_zone, shop.now_s)
        if "people" in body.model_fields_set:  # left out, it stays as it was said
            owner.people = body.people
        if "address" in body.model_fields_set:
            owner.address = body.address
        if "shows" in body.model_fields_set:
            owner.shows = body.shows
        shop.said_address, shop.shows = owner.address, read_shows(owner.shows)
    return s.WorkshopOut.model_validate(owner, from_attributes=True)


def _in_words(workshop_out: s.WorkshopOut) -> dict[str, str]:
    """What a workshop is called and where it is reached, as a sentence names it."""
    return {
        "name": workshop_out.name,
        "zone": workshop_out.time_zone,
        "address": workshop_out.address or "no address for tablets",
    }


def usual_air() -> list[s.UsualAirOut]:
    """What the air usually is in each kind of place that pieces hang in."""
    return [s.UsualAirOut(sort=sort, says=s.said_out(Surroundings(sort).usual_said)) for sort in SORTS]


def make_place(shop: Premises, body: s.PlaceIn) -> s.PlaceOut:
    """Make a place with its rods and set point."""
    with shop.recording(body, f"place {body.name}"[:60]) as entry:
        if entry.new:
            made = store.make_place(
                entry.session,
                body.name,
                body.kind,
                body.hooks_per_rod,
                body.hook_spacing_mm,
                (body.setpoint.temperature_c, body.setpoint.rh_percent),
                body.by,
                entry.at(body.at),
                body.sort,
                body.stirring,
            )
            entry.came("place", made.id)
    with shop.db.reading() as session:
        return place_out(session, store.place(session, entry.made[0].id), 0, shop.now_s)


def say_what(shop: Premises, place_id: int, body: s.WhatIn) -> s.PlaceOut:
    """Say what a place is and how its air moves; what was said before stays in the journal."""
    with shop.recording(body, f"what {place_id}") as entry:
        if entry.new:
            of = store.place(entry.session, place_id)
            of.sort, of.stirring = body.sort, body.stirring
            store.touch(of)
            entry.came("place", of.id)
    with shop.db.reading() as session:
        pieces = pieces_in_places(session).get(place_id, 0)
        return place_out(session, store.place(session, place_id), pieces, shop.now_s)


def climate(shop: Premises, place_id: int, from_s: int, to_s: int, points: int) -> s.ClimateOut:
    """The climate of a place between two times, in as many points as the chart has pixels."""
    with shop.db.reading() as session:
        store.place(session, place_id)
        return climate_out(readings.series(session, place_id, from_s, max(to_s, from_s + 60), points))


# -- the log of a place: where it came from, what is typed into it, what of it does not count


class SourceOut(BaseModel):
    """Readings of a place that came by one way."""

    way: Literal["file", "device", "hand"]
    name: str
    import_id: int | None
    device_id: int | None
    readings: int
    from_at: datetime
    to_at: datetime


class StretchOut(BaseModel):
    """A stretch of the log that does not count, or that was brought back."""

    id: int
    from_at: datetime
    to_at: datetime
    readings: int
    reason: str
    by: str
    at: datetime
    brought_back: str | None  # by whom and why


class LogOut(s.WithMade):
    """What the log of a place is made of."""

    sources: list[SourceOut]
    struck: list[StretchOut]


class TypedIn(s.RecordIn):
    """A reading somebody took from a thermometer, and a hygrometer where there is one."""

    temperature_c: Annotated[float, Field(ge=-60, le=140, allow_inf_nan=False)]
    rh_percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None


class StretchIn(s.RecordIn):
    """A stretch of the log that does not count, and why."""

    from_at: s.Moment
    to_at: s.Moment
    reason: s.Reason


def log_of(shop: Premises, place_id: int, days: int = 400, made: list[s.MadeOut] | None = None) -> LogOut:
    """Where the readings of a place came from, and which stretches do not count."""
    now_s = shop.now_s
    with shop.db.reading() as session:
        store.place(session, place_id)
        names = {d.id: d.name for d in devices(session)}
        sources = []
        for found in readings.provenance(session, place_id, now_s - days * 86_400, now_s):
            file, device = found.source.import_id, found.source.device_id
            name = report(session, file).file_name if file is not None else names.get(device or 0, "")
            sources.append(
                SourceOut(
                    way="file" if file is not None else "device" if device is not None else "hand",
                    name=name,
                    import_id=file,
                    device_id=device,
                    readings=found.readings,
                    from_at=moment(found.from_s),
                    to_at=moment(found.to_s),
                )
            )
        struck = [_stretch_out(x) for x in readings.reading_strikes(session, place_id)]
    return LogOut(made=made or [], sources=sources, struck=struck)


def _stretch_out(of: ReadingStrike) -> StretchOut:
    return StretchOut(
        id=of.id,
        from_at=moment(of.from_s),
        to_at=moment(of.to_s),
        readings=of.readings,
        reason=of.reason,
        by=of.by,
        at=moment(of.entered_s),
        brought_back=None if of.struck_s is None else f"{of.struck_by}: {of.struck_reason}",
    )


def type_reading(shop: Premises, place_id: int, body: TypedIn) -> LogOut:
    """Note a reading by hand; where one of the same second is there already it stays."""
    kind: Kind = "thermometer" if body.rh_percent is None else "climate"
    wrong = impossible(kind, {"temperature_c": body.temperature_c, "rh_percent": body.rh_percent})
    if wrong is not None:
        raise OutOfRangeError(wrong)
    with shop.recording(body, f"reading {place_id}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            store.place(entry.session, place_id)
            if readings.stored_readings(entry.session, place_id, at_s, at_s):
                raise OutOfRangeError("refused.reading_there")
            row = (at_s, body.temperature_c, body.rh_percent)
            readings.add_readings(entry.session, place_id, [row], readings.Source())
            entry.came("reading", at_s)
    return log_of(shop, place_id, made=entry.named)


def strike_stretch(shop: Premises, place_id: int, body: StretchIn) -> LogOut:
    """Take a stretch of the log out of the count; forecasts and ledger read without it from now on."""
    low, high = int(body.from_at.timestamp()), int(body.to_at.timestamp())
    if high < low:
        raise OutOfRangeError("refused.stretch_backwards")
    with shop.recording(body, f"stretch of {place_id}", body.reason) as entry:
        if entry.new:
            made = readings.strike_readings(
                entry.session,
                ReadingStrike(
                    place_id=place_id, from_s=low, to_s=high, import_id=None, reason=body.reason, readings=0,
                    by=body.by, entered_s=entry.now_s,
                ),
            )  # fmt: skip
            entry.came("reading_strike", made.id)
    return log_of(shop, place_id, made=entry.named)


def restore_stretch(shop: Premises, strike_id: int, body: s.StrikeIn) -> LogOut:
    """Bring a struck stretch back."""
    with shop.changing(body.by, body.reason) as session:
        found = readings.reading_strike(session, strike_id)
        readings.restore_readings(session, found, body.reason, body.by, shop.now_s)
        place_id = found.place_id
    return log_of(shop, place_id)
