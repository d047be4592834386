"""The place itself: its rods, its set points, its sensor, what its log says, what another climate would do."""

from typing import Annotated

from fastapi import APIRouter, Query

from zymon.work.hang import place, rods
from zymon.work.hang import schemas as s
from zymon.work.schemas import SetpointIn, StrikeIn

from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["hang"])


@router.get("/places/{place_id}/facts")
def facts(ctx: Ctx, place_id: Id, days: Annotated[int, Query(ge=1, le=400)] = 30) -> place.FactsOut:
    """What the log of a place says of its last days."""
    return place.facts(ctx, place_id, days)


@router.post("/places/{place_id}/setpoint")
def set_place(ctx: Ctx, place_id: Id, body: SetpointIn) -> s.Room:
    """Note what a place was set to from a moment on; the earlier set points stay on record."""
    return place.set_place(ctx, place_id, body)


@router.post("/setpoints/{setpoint_id}/strike")
def strike_setpoint(ctx: Ctx, setpoint_id: Id, body: StrikeIn) -> place.FactsOut:
    """Strike a set point through: the one before holds instead."""
    return place.strike_setpoint(ctx, setpoint_id, body)


@router.post("/places/{place_id}/sensor-tests", status_code=201)
def test_sensor(ctx: Ctx, place_id: Id, body: place.SensorTestIn) -> place.FactsOut:
    """Note a sensor's test; the log stays as it is, what is worked out from it is corrected."""
    return place.test_sensor(ctx, place_id, body)


@router.post("/places/{place_id}/sensor-tests/{test_id}/strike")
def strike_test(ctx: Ctx, place_id: Id, test_id: Id, body: StrikeIn) -> place.FactsOut:
    """Strike a test through; it stays on record."""
    return place.strike_test(ctx, place_id, test_id, body)


@router.post("/places/{place_id}/what-if")
def what_if(ctx: Ctx, place_id: Id, body: place.RoomWhatIfIn) -> list[place.PieceShift]:
    """What another climate from now on would do to every piece of a place; nothing is stored."""
    return place.what_if(ctx, place_id, body)


@router.post("/places/{place_id}/rods", status_code=201)
def add_rod(ctx: Ctx, place_id: Id, body: rods.RodIn) -> s.Room:
    """Put another rod up."""
    return rods.add(ctx, place_id, body)


@router.put("/rods/{rod_id}")
def change_rod(ctx: Ctx, rod_id: Id, body: rods.RodIn) -> s.Room:
    """Give a rod more or fewer hooks, or say how far apart they are; a hook in use is not taken away."""
    return rods.change(ctx, rod_id, body)
