"""Thinning the log of the air: which readings are old enough, and what stays of them."""

from datetime import datetime

FULL_YEARS = 2  # younger readings stay as they came
SPAN_S = 300  # what becomes one reading, with the lowest and highest of it
SPANS_AN_HOUR = 3600 // SPAN_S
WORTH_READINGS = 10_000  # fewer are not worth asking about


def full_since(now: datetime) -> datetime:
    """Since when readings stay as they came: two years ago by the calendar, at the day's start.

    Parameters: now, in the workshop's time zone.

    >>> full_since(datetime(2028, 2, 29, 17, 30))
    datetime.datetime(2026, 2, 28, 0, 0)
    """
    day = now.replace(hour=0, minute=0, second=0, microsecond=0)
    leap_day = (day.month, day.day) == (2, 29)
    return day.replace(year=day.year - FULL_YEARS, day=28 if leap_day else day.day)
