"""Today's round as a page and as a calendar."""

from fastapi import APIRouter, Response

from zymon.work.today import schemas as s
from zymon.work.today import today as work

from ..attachment import attachment
from ..context import Ctx

router = APIRouter(prefix="/api", tags=["today"])


@router.get("/today", response_model=s.TodayOut)
def today(ctx: Ctx) -> Response:
    """What is due, in walking order, and what comes next."""
    return Response(work.today_json(ctx), media_type="application/json")


@router.get("/today.ics", response_class=Response)
def calendar(ctx: Ctx) -> Response:
    """The round and the days ahead as iCalendar, to subscribe to or to keep."""
    data = work.calendar(ctx)
    return Response(data, media_type="text/calendar; charset=utf-8", headers=attachment("round.ics"))
