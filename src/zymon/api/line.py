"""The line itself: health, the workshop, its places and their climate."""

import time
from typing import Annotated

from fastapi import APIRouter, Query, Response

from zymon import __version__
from zymon.store import places as store
from zymon.store.board import hanging_count
from zymon.store.climate import series
from zymon.store.hang import pieces_in_places
from zymon.store.salt import count_in_salt
from zymon.store.warm import in_the_warm

from . import schemas as s
from . import views
from .context import Ctx, Id, moment
from .hang.schemas import Room
from .hang.views import room as room_view

router = APIRouter(tags=["line"])


@router.get("/health")
def health(ctx: Ctx) -> s.Health:
    """Say that the server and its database are up."""
    with ctx.db.reading() as session:
        return s.Health(version=__version__, pieces_hanging=hanging_count(session))


@router.get("/api/line")
def line(ctx: Ctx) -> s.Line:
    """The workshop and its places in walking order."""
    with ctx.db.reading() as session:
        shop = store.workshop(session)
        counts = pieces_in_places(session)
        return s.Line(
            workshop=None if shop is None else s.WorkshopIn(name=shop.name, time_zone=shop.time_zone),
            now=moment(ctx.now_s),
            places=[views.place_out(session, p, counts.get(p.id, 0), ctx.now_s) for p in store.places(session)],
            in_salt=count_in_salt(session),
            in_warm=len(in_the_warm(session, ctx.now_s)),
            simulated=ctx.standins is not None,
        )


@router.put("/api/workshop")
def put_workshop(ctx: Ctx, body: s.WorkshopIn) -> s.WorkshopIn:
    """Name the workshop and set its time zone."""
    with ctx.db.writing() as session:
        store.open_workshop(session, body.name, body.time_zone, ctx.now_s)
    return body


@router.post("/api/places", status_code=201)
def make_place(ctx: Ctx, body: s.PlaceIn) -> s.PlaceOut:
    """Make a place with its rods and set point."""
    with ctx.db.writing() as session:
        made = store.make_place(
            session,
            body.name,
            body.kind,
            body.hooks_per_rod,
            body.hook_spacing_mm,
            (body.setpoint.temperature_c, body.setpoint.rh_percent),
            body.by,
            ctx.now_s,
        )
        return views.place_out(session, made, 0, ctx.now_s)


@router.post("/api/places/{place_id}/setpoint")
def set_place(ctx: Ctx, place_id: Id, body: s.SetpointIn) -> Room:
    """Note that a place was set anew; the earlier set points stay on record."""
    with ctx.db.writing() as session:
        store.change_setpoint(session, place_id, body.temperature_c, body.rh_percent, body.by, ctx.now_s)
    with ctx.db.reading() as session:
        return room_view(ctx, session, place_id)


@router.get("/api/places/{place_id}/climate")
def climate(
    ctx: Ctx,
    response: Response,
    place_id: Id,
    from_s: Annotated[int, Query(ge=0, le=2**40)],
    to_s: Annotated[int, Query(ge=0, le=2**40)],
    points: Annotated[int, Query(ge=10, le=4000)] = 1000,
) -> s.ClimateOut:
    """The climate of a place between two times, in as many points as the chart has pixels."""
    began = time.perf_counter()
    with ctx.db.reading() as session:
        store.place(session, place_id)
        found = views.climate_out(series(session, place_id, from_s, max(to_s, from_s + 60), points))
    response.headers["Server-Timing"] = f"series;dur={(time.perf_counter() - began) * 1000:.1f}"
    return found
