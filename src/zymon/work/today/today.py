"""Today's round as a page and as a calendar."""

from datetime import UTC, datetime

from zymon.core.say import said
from zymon.core.schedule import in_walking_order, replanned, when
from zymon.formats.calendar_file import Entry, calendar_bytes
from zymon.store.alarms import open_events
from zymon.store.places import workshop
from zymon.words import sentence

from ..alarms.telling import meaning_of, title_of
from ..premises import Premises, moment
from ..schemas import said_out
from . import schemas as s
from .line import LineOfRound
from .lines import round_lines


def today_json(shop: Premises) -> bytes:
    """What is due and what comes next, as it is sent; asked for by several at once it is worked out once."""

    def version() -> tuple[object, ...]:
        return shop.db.version(), shop.dates.all_versions()

    return shop.shared.get("today", version, lambda: today(shop).model_dump_json().encode())


def today(shop: Premises) -> s.TodayOut:
    """What is due, in walking order, and what comes next."""
    with shop.db.reading() as session:
        lines = {line.chore.id: line for line in round_lines(shop, session)}
    now_s = shop.now_s
    order = in_walking_order([line.chore for line in lines.values() if line.shown_from_s <= now_s], now_s)
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
        title=said_out(line.title),
        detail=None if line.detail is None else said_out(line.detail),
        elasticity=chore.elasticity,
        when=when(chore, now_s),
        due_from=moment(chore.from_s),
        best=moment(replanned(chore, now_s)),
        latest=None if chore.latest_s is None else moment(chore.latest_s),
        cost=None if line.cost is None else said_out(line.cost),
        missed=line.missed,
        last=line.last,
        action=line.action,
        link=line.link,
    )


def calendar(shop: Premises) -> bytes:
    """The round and the days ahead as iCalendar, to subscribe to or to keep."""
    with shop.db.reading() as session:
        lines = round_lines(shop, session)
        owner = workshop(session)
        wrong = [(one.id, title_of(one), meaning_of(one), one.begun_s) for one in open_events(session)]
    zone = shop.zone
    entries = [
        Entry(f"alarm-{number}", sentence(title, zone), sentence(means, zone), moment(begun_s))
        for number, title, means, begun_s in wrong
    ]
    for line in sorted(lines, key=lambda x: x.chore.id):
        chore = line.chore
        best = datetime.fromtimestamp(replanned(chore, shop.now_s), UTC)
        whole_day = chore.elasticity == "weight_led"
        start = best.astimezone(zone).date() if whole_day else best
        entries.append(Entry(chore.id, sentence(line.title, zone), _text(line, shop), start))
    name = owner.name if owner else "Zymon"
    return calendar_bytes(entries, name, zone, moment(shop.now_s), f"zymon-{owner.created_s if owner else 0}")


def _text(line: LineOfRound, shop: Premises) -> str:
    parts = [
        "" if line.detail is None else sentence(line.detail, shop.zone),
        line.place or "",
        "" if line.cost is None else sentence(said("today.put_off", cost=sentence(line.cost, shop.zone))),
    ]
    return "\n".join(part for part in parts if part)
