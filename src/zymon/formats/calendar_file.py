"""The round as a calendar: iCalendar with stable identifiers, in the workshop's own time zone."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo


@dataclass(frozen=True)
class Entry:
    """Something in the calendar: at a time, or on a day where `start` is a date."""

    id: str
    title: str
    text: str
    start: datetime | date
    minutes: int = 15


def calendar_bytes(entries: Sequence[Entry], name: str, zone: ZoneInfo, stamp: datetime, workshop_id: str) -> bytes:
    """An iCalendar file.

    Parameters: entries, times with a time zone; name of the calendar; zone in which they are shown; stamp, when it was
    made; workshop_id, which makes identifiers this workshop's own. The zone's rules go with the file, so that times
    stay right over a clock change.
    """
    from icalendar import Calendar, Event  # not at the start of Zymon: few ask for a calendar

    made = Calendar()
    made.add("prodid", "-//Zymon//Round//EN")
    made.add("version", "2.0")
    made.add("method", "PUBLISH")
    made.add("x-wr-calname", name)
    made.add("x-wr-timezone", str(zone))
    for entry in entries:
        event = Event()
        event.add("uid", f"{entry.id}@{workshop_id}")
        event.add("dtstamp", stamp)
        event.add("summary", entry.title)
        if entry.text:
            event.add("description", entry.text)
        if isinstance(entry.start, datetime):
            local = entry.start.astimezone(zone).replace(microsecond=0)
            event.add("dtstart", local)
            event.add("dtend", local + timedelta(minutes=entry.minutes))
        else:
            event.add("dtstart", entry.start)
            event.add("dtend", entry.start + timedelta(days=1))
            event.add("transp", "TRANSPARENT")
        made.add_component(event)
    made.add_missing_timezones(
        first_date=stamp.date() - timedelta(days=366), last_date=stamp.date() + 2 * timedelta(days=366)
    )
    return bytes(made.to_ical())
