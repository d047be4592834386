"""The line itself: health, the workshop, its places, their climate, and what happens meanwhile."""

import asyncio
import time
from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import APIRouter, Query, Response
from fastapi.responses import StreamingResponse

from zymon import __version__
from zymon.work import line as work
from zymon.work import schemas as s

from .context import Ctx, Id

router = APIRouter(tags=["line"])

BEAT_S = 15.0  # a sign of life at least so often, so that a line that is cut is noticed


@router.get("/health")
def health(ctx: Ctx) -> s.Health:
    """Say that the server and its database are up."""
    return s.Health(version=__version__, pieces_hanging=work.pieces_hanging(ctx))


@router.get("/api/line")
def line(ctx: Ctx) -> s.Line:
    """The workshop and its places in walking order."""
    return work.line(ctx, ctx.standins is not None)


@router.get("/api/usual-air")
def usual_air() -> list[s.UsualAirOut]:
    """What the air usually is in each kind of place that pieces hang in."""
    return work.usual_air()


@router.get("/api/follow", response_class=StreamingResponse)
async def follow(ctx: Ctx) -> StreamingResponse:
    """What happens, as server-sent events: `making` and `made`, with the place whose dates are made anew."""
    return StreamingResponse(_events(ctx), media_type="text/event-stream", headers={"Cache-Control": "no-store"})


async def _events(ctx: Ctx) -> AsyncIterator[str]:
    mine = ctx.followers.join()
    try:
        yield ": here\n\n"
        while not ctx.followers.closed:
            try:
                happening = await asyncio.wait_for(mine.queue.get(), BEAT_S)
            except TimeoutError:
                yield ": still here\n\n"
                continue
            if happening is None:
                return
            yield f"event: {happening.what}\ndata: {happening.number}\n\n"
    finally:
        ctx.followers.leave(mine)


@router.put("/api/workshop")
def put_workshop(ctx: Ctx, body: s.WorkshopIn) -> s.WorkshopOut:
    """Name the workshop and set its time zone."""
    return work.name_workshop(ctx, body)


@router.post("/api/places", status_code=201)
def make_place(ctx: Ctx, body: s.PlaceIn) -> s.PlaceOut:
    """Make a place with its rods and set point."""
    return work.make_place(ctx, body)


@router.put("/api/places/{place_id}/what")
def say_what(ctx: Ctx, place_id: Id, body: s.WhatIn) -> s.PlaceOut:
    """Say what a place is, and how its air moves."""
    return work.say_what(ctx, place_id, body)


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
    found = work.climate(ctx, place_id, from_s, to_s, points)
    response.headers["Server-Timing"] = f"series;dur={(time.perf_counter() - began) * 1000:.1f}"
    return found


@router.get("/api/places/{place_id}/log")
def log_of(ctx: Ctx, place_id: Id, days: Annotated[int, Query(ge=1, le=4000)] = 400) -> work.LogOut:
    """Where the readings of a place came from, and which stretches do not count."""
    return work.log_of(ctx, place_id, days)


@router.post("/api/places/{place_id}/readings", status_code=201)
def type_reading(ctx: Ctx, place_id: Id, body: work.TypedIn) -> work.LogOut:
    """Note a reading by hand."""
    return work.type_reading(ctx, place_id, body)


@router.post("/api/places/{place_id}/log/strike", status_code=201)
def strike_stretch(ctx: Ctx, place_id: Id, body: work.StretchIn) -> work.LogOut:
    """Take a stretch of the log out of the count, with the reason."""
    return work.strike_stretch(ctx, place_id, body)


@router.post("/api/stretches/{strike_id}/restore")
def restore_stretch(ctx: Ctx, strike_id: Id, body: s.StrikeIn) -> work.LogOut:
    """Bring a struck stretch back."""
    return work.restore_stretch(ctx, strike_id, body)
