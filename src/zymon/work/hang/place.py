"""The place itself: what its log says, its sensor put to the test, what to set it to, what that would do to all."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zymon.core.bench.families import family
from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import Change, Fitted
from zymon.core.drying.inside import rings_ahead
from zymon.core.errors import OutOfRangeError
from zymon.core.keeping import keeping_at
from zymon.core.place import Span, Wish, place_facts, setpoint_advice, wished_humidity
from zymon.core.place_fit import Fault, Verdict, suits
from zymon.store import places
from zymon.store import sensors as store
from zymon.store.climate import readings_between
from zymon.store.database import Session
from zymon.store.hang import pieces_hanging
from zymon.store.models import Piece
from zymon.store.places import place, setpoint_at, touch
from zymon.store.struck import strike

from ..as_forecast import core_piece
from ..premises import Premises, moment
from ..schemas import RecordIn, SetpointIn, StrikeIn
from . import schemas as s
from .room import room

RIM_AHEAD_PERCENT = 14.0  # by which the skin is ahead of the piece's mean loss; estimate


Rh = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]


class SpanOut(BaseModel):
    """A time when something was wrong."""

    from_at: datetime
    to_at: datetime
    what: Literal["warm", "cold", "damp", "dry", "silent"]
    worst: float


class SensorTestIn(RecordIn):
    """What a sensor showed in air of known humidity; over wet salt that is 75.5 % at 20 °C."""

    shown_rh_percent: Rh
    true_rh_percent: Rh = 75.5


class SensorTestOut(BaseModel):
    """A test of the place's sensor."""

    id: int
    at: datetime
    shown_rh_percent: float
    true_rh_percent: float
    offset: float
    by: str
    struck_reason: str | None


class SuitsOut(BaseModel):
    """How the place suits a family of goods, by its own log."""

    family: str
    name: str
    verdict: Verdict
    share: float
    mostly: Fault | None
    mostly_share: float


class FactsOut(BaseModel):
    """What the log of a place says, humidity as its sensor test corrects it."""

    days: float
    readings: int  # nothing is told where there are none
    in_band: float | None
    outages: list[SpanOut]
    gaps: list[SpanOut]
    swing_c: float
    swing_rh: float
    damp_hours: float
    dew_hours: float
    doors_a_day: float
    offset_rh: float
    tests: list[SensorTestOut]
    water_g_per_day: float
    room_for_g_per_day: float | None
    advised_rh: float | None
    too_dry_for: list[str]
    too_damp_for: list[str]
    suits: list[SuitsOut]
    setpoints: list["SetpointOut"]


class SetpointOut(BaseModel):
    """What a place was set to from a time on."""

    id: int
    at: datetime
    temperature_c: float | None
    rh_percent: float | None
    by: str
    struck_reason: str | None


class RoomWhatIfIn(BaseModel):
    """The whole place set otherwise from now on."""

    temperature_c: Annotated[float, Field(ge=-5, le=40, allow_inf_nan=False)] | None = None
    rh_percent: Annotated[float, Field(ge=5, le=99, allow_inf_nan=False)] | None = None


class PieceShift(BaseModel):
    """What it would do to a piece; null dates: it would not get there. Ring: the strongest index still to come."""

    id: int
    tag: str
    product: str
    before: datetime | None
    after: datetime | None
    days_later: float | None
    pace_before: float
    pace_after: float
    safe_pace: float
    too_fast: bool
    ring_before: float
    ring_after: float


def _facts(shop: Premises, session: Session, place_id: int, days: int) -> FactsOut:
    of = place(session, place_id)
    setpoint = setpoint_at(of, shop.now_s)
    offset = store.offset_rh(session, place_id)
    log = readings_between(session, place_id, shop.now_s - days * 86_400, shop.now_s)
    corrected = Log(log.time_s, log.temperature_c, log.rh_percent + offset)
    found = place_facts(
        corrected, setpoint.temperature_c if setpoint else None, setpoint.rh_percent if setpoint else None
    )
    made = shop.dates.of_place(session, place_id, shop.now_s).by_tag()
    hanging = pieces_hanging(session, place_id)
    wishes, water = [], 0.0
    for piece in hanging:
        forecast = made[piece.tag]
        water += forecast.rate_percent_per_day / 100 * core_piece(piece).net_start_g
        fat, salt = piece.batch.fat_percent, piece.batch.salt_percent
        try:
            skin = keeping_at(min(fat or 15.0, 60.0), salt or 2.8, forecast.loss_percent + RIM_AHEAD_PERCENT, None)
        except OutOfRangeError:
            continue  # drier than its water allows: it wishes for nothing
        wishes.append(Wish(piece.tag, wished_humidity(skin.water_activity)))
    advice = setpoint_advice(wishes)
    most = store.most_removed(session, place_id)
    return FactsOut(
        days=round(found.hours / 24, 1),
        readings=len(corrected.time_s),
        in_band=None if found.in_band is None else round(found.in_band, 3),
        outages=[_span(x) for x in found.outages[-8:]],
        gaps=[_span(x) for x in found.gaps[-8:]],
        swing_c=round(found.swing_c, 1),
        swing_rh=round(found.swing_rh, 1),
        damp_hours=round(found.damp_hours, 1),
        dew_hours=round(found.dew_hours, 1),
        doors_a_day=round(found.doors_a_day, 1),
        offset_rh=round(offset, 1),
        tests=[
            SensorTestOut(
                id=t.id,
                at=moment(t.at_s),
                shown_rh_percent=t.shown_rh_percent,
                true_rh_percent=t.true_rh_percent,
                offset=round(t.true_rh_percent - t.shown_rh_percent, 1),
                by=t.by,
                struck_reason=t.struck_reason,
            )
            for t in reversed(store.tests(session, place_id))
        ],
        water_g_per_day=round(water),
        room_for_g_per_day=None if most is None else round(max(most - water, 0.0)),
        advised_rh=None if advice is None else advice.rh_percent,
        too_dry_for=[] if advice is None else list(advice.too_dry_for),
        too_damp_for=[] if advice is None else list(advice.too_damp_for),
        suits=[
            SuitsOut(
                family=one.family,
                name=family(one.family).name,
                verdict=one.verdict,
                share=round(one.share, 3),
                mostly=one.mostly,
                mostly_share=round(one.mostly_share, 3),
            )
            for one in suits(corrected)
        ],
        setpoints=[
            SetpointOut(
                id=x.id, at=moment(x.at_s), temperature_c=x.temperature_c, rh_percent=x.rh_percent, by=x.by,
                struck_reason=x.struck_reason,
            )
            for x in reversed(of.setpoints)
        ],
    )  # fmt: skip


def _span(span: Span) -> SpanOut:
    values = asdict(span)
    return SpanOut(
        from_at=moment(span.from_s), to_at=moment(span.to_s), what=values["what"], worst=round(span.worst, 1)
    )  # fmt: skip


def facts(shop: Premises, place_id: int, days: int = 30) -> FactsOut:
    """What the log of a place says of its last days."""
    with shop.db.reading() as session:
        return _facts(shop, session, place_id, days)


def test_sensor(shop: Premises, place_id: int, body: SensorTestIn) -> FactsOut:
    """Note a sensor's test; the log stays as it is, what is worked out from it is corrected."""
    if abs(body.true_rh_percent - body.shown_rh_percent) > store.MOST_OFFSET:
        raise OutOfRangeError("refused.sensor_broken", points=store.MOST_OFFSET)
    with shop.recording(body, f"sensor test {place_id}") as entry:
        if entry.new:
            place(entry.session, place_id)
            made = store.add_test(
                entry.session, place_id, body.shown_rh_percent, body.true_rh_percent, entry.at(body.at), body.by,
                entry.now_s,
            )  # fmt: skip
            entry.came("sensor_test", made.id)
    return facts(shop, place_id)


def strike_test(shop: Premises, place_id: int, test_id: int, body: StrikeIn) -> FactsOut:
    """Strike a test through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        store.strike_test(session, test_id, body.reason, body.by, shop.now_s)
    return facts(shop, place_id)


def set_place(shop: Premises, place_id: int, body: SetpointIn) -> s.Room:
    """Note what a place was set to from a moment on; the earlier set points stay on record."""
    with shop.recording(body, f"setpoint {place_id}") as entry:
        if entry.new:
            made = places.change_setpoint(
                entry.session, place_id, body.temperature_c, body.rh_percent, entry.at(body.at), body.by, entry.now_s
            )
            entry.came("setpoint", made.id)
    return room(shop, place_id)


def strike_setpoint(shop: Premises, setpoint_id: int, body: StrikeIn) -> FactsOut:
    """Strike a set point through: the one before holds instead."""
    with shop.changing(body.by, body.reason) as session:
        found = places.setpoint(session, setpoint_id)
        strike(found, body.reason, body.by, shop.now_s)
        touch(place(session, found.place_id))
        place_id = found.place_id
    return facts(shop, place_id)


def what_if(shop: Premises, place_id: int, body: RoomWhatIfIn) -> list[PieceShift]:
    """What another climate from now on would do to every piece of a place; nothing is stored."""
    with shop.db.reading() as session:
        asked = [(p, *shop.dates.fitted_piece(session, p, shop.now_s)) for p in pieces_hanging(session, place_id)]
    change = Change(temperature_c=body.temperature_c, rh_percent=body.rh_percent)
    # pieces that were fitted together are worked out together
    together: dict[int, list[tuple[Piece, Fitted, int]]] = defaultdict(list)
    for one in asked:
        together[id(one[1])].append(one)
    shifts = [shift for some in together.values() for shift in _shifts(some, change)]
    order = {p.id: i for i, (p, _, _) in enumerate(asked)}
    return sorted(shifts, key=lambda shift: order[shift.id])


def _shifts(asked: Sequence[tuple[Piece, Fitted, int]], change: Change) -> Iterable[PieceShift]:
    """What a change does to pieces of one fitted place."""
    fit, pick = asked[0][1], [index for _, _, index in asked]
    afters = fit.what_ifs(pick, change)
    rings = zip(rings_ahead(fit, pick, Change()), rings_ahead(fit, pick, change), strict=True)
    for (piece, _, index), after, (ring_before, ring_after) in zip(asked, afters, rings, strict=True):
        before = fit.forecasts[index]
        both = before.ready_p50_s is not None and after.ready_p50_s is not None
        later = ((after.ready_p50_s or 0) - (before.ready_p50_s or 0)) / 86_400 if both else None
        yield PieceShift(
            id=piece.id,
            tag=piece.tag,
            product=piece.batch.product,
            before=None if before.ready_p50_s is None else moment(before.ready_p50_s),
            after=None if after.ready_p50_s is None else moment(after.ready_p50_s),
            days_later=None if later is None else round(later, 1),
            pace_before=round(before.rate_percent_per_day, 2),
            pace_after=round(after.rate_percent_per_day, 2),
            safe_pace=round(after.safe_percent_per_day, 2),
            too_fast=after.status == "drying" and after.rate_percent_per_day > after.safe_percent_per_day,
            ring_before=round(ring_before, 2),
            ring_after=round(ring_after, 2),
        )
