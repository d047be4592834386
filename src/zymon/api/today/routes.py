"""Today's round as a page and as a calendar."""

from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from fastapi import APIRouter, Response

from zymon.core.schedule import in_walking_order, replanned, when
from zymon.formats.calendar_file import Entry, calendar_bytes
from zymon.store.places import workshop

from ..bench.shared import attachment
from ..context import Ctx, moment
from . import schemas as s
from .line import LineOfRound
from .lines import round_lines

router = APIRouter(prefix="/api", tags=["today"])


@router.get("/today")
def today(ctx: Ctx) -> s.TodayOut:
    """What is due, in walking order, and what comes next."""
    with ctx.db.reading() as session:
        lines = {line.chore.id: line for line in round_lines(ctx, session)}
    now_s = ctx.now_s
    order = in_walking_order([line.chore for line in lines.values()], now_s)
    due = [lines[c.id] for c in order if when(c, now_s) != "later"]
    later = [lines[c.id] for c in order if when(c, now_s) == "later"]
    later.sort(key=lambda line: line.chore.best_s)
    return s.TodayOut(now=moment(now_s), due=[_out(x, now_s) for x in due], later=[_out(x, now_s) for x in later])


def _out(line: LineOfRound, now_s: int) -> s.ChoreOut:
    chore = line.chore
    return s.ChoreOut(
        id=chore.id,
        station=chore.station,  # type: ignore[arg-type] # of STATIONS
        place=line.place,
        title=line.title,
        detail=line.detail,
        elasticity=chore.elasticity,
        when=when(chore, now_s),
        due_from=moment(chore.from_s),
        best=moment(replanned(chore, now_s)),
        latest=None if chore.latest_s is None else moment(chore.latest_s),
        cost=line.cost,
        missed=line.missed,
        action=line.action,
        link=line.link,
    )


@router.get("/today.ics", response_class=Response)
def calendar(ctx: Ctx) -> Response:
    """The round and the days ahead as iCalendar, to subscribe to or to keep."""
    with ctx.db.reading() as session:
        lines = round_lines(ctx, session)
        shop = workshop(session)
    zone = ZoneInfo(shop.time_zone if shop else "UTC")
    entries = []
    for line in sorted(lines, key=lambda x: x.chore.id):
        chore = line.chore
        best = datetime.fromtimestamp(replanned(chore, ctx.now_s), UTC)
        text = "\n".join(t for t in (line.detail, line.place or "", f"Put off: {line.cost}" if line.cost else "") if t)
        whole_day = chore.elasticity == "weight_led"
        entries.append(Entry(chore.id, line.title, text, best.astimezone(zone).date() if whole_day else best))
    name = shop.name if shop else "Zymon"
    data = calendar_bytes(entries, name, zone, moment(ctx.now_s), f"zymon-{shop.created_s if shop else 0}")
    return Response(data, media_type="text/calendar; charset=utf-8", headers=attachment("round.ics"))
