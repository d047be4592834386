"""Which nightly copies of the record are kept, and when the last good one is too old."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from zymon.core.constants import SECONDS_PER_DAY

KEPT_DAYS = 7
KEPT_WEEKS = 8
NIGHT_HOUR = 3  # when nobody weighs
OLD_S = 2 * SECONDS_PER_DAY  # of this age it is said on Today


def kept(copies_s: Iterable[int]) -> set[int]:
    """Which copies stay: the newest of each of the last seven days that have one, and of each of eight weeks.

    Days and weeks are those of the calendar, not counted back from the newest: a copy that stands for its week tonight
    stands for it tomorrow night too. A machine that was off for a month keeps what it has.
    Parameters: copies_s, when each was taken [s].

    >>> day = 86_400
    >>> sorted(s // day for s in kept(n * day for n in range(30)))
    [6, 13, 20, 23, 24, 25, 26, 27, 28, 29]
    """
    newest_first = sorted(copies_s, reverse=True)
    stays: set[int] = set()
    for span_s, many in ((SECONDS_PER_DAY, KEPT_DAYS), (7 * SECONDS_PER_DAY, KEPT_WEEKS)):
        newest_of_span: dict[int, int] = {}
        for at_s in newest_first:
            newest_of_span.setdefault(int(at_s // span_s), at_s)
        stays.update(list(newest_of_span.values())[:many])
    return stays


def due(last: datetime | None, now: datetime) -> bool:
    """Whether it is time for a copy: none was taken since three o'clock of last night.

    Where the machine was off by night, that is as soon as it is on.
    Parameters: last, when the last good one was taken, None if never; now; both in the workshop's time zone.

    >>> due(datetime(2026, 3, 1, 22), datetime(2026, 3, 2, 2)), due(datetime(2026, 3, 1, 22), datetime(2026, 3, 2, 3))
    (False, True)
    """
    night = now.replace(hour=NIGHT_HOUR, minute=0, second=0, microsecond=0)
    return last is None or last < (night if night <= now else night - timedelta(days=1))


def old(last_s: int | None, begun_s: int, now_s: int) -> bool:
    """Whether the last good copy is so old that it has to be said.

    Parameters: last_s, when it was taken [s], None if never; begun_s, since when there is anything to copy; now_s [s].

    >>> old(None, 0, 3600), old(None, 0, 3 * 86_400), old(80_000, 0, 86_400)
    (False, True, False)
    """
    return now_s - (begun_s if last_s is None else max(last_s, begun_s)) > OLD_S
