"""In which order things can have happened: what cannot be is refused, what is odd is asked."""

from .constants import SECONDS_PER_DAY
from .errors import OutOfRangeError
from .say import Said, said

CLOCK_AHEAD_S = 300.0  # by which a tablet's clock may be ahead: up to this it is now, beyond it is asked about
CLOCK_JUMP_S = 3600.0  # by which the clock of the machine itself may move of its own before it is asked about
EARLIEST_S, LATEST_S = 0.0, 7_258_118_400.0  # 1970 to 2200, beyond which no year is meant
LONG_AGO_S = 3 * 366 * SECONDS_PER_DAY  # an entry of more than three years back is rather a slip of the year


def moment_of(at_s: float | None, now_s: float) -> float:
    """The moment an entry is of [s]: now where none was given, or where a clock is a little ahead.

    Parameters: at_s [s] or None; now_s [s].

    >>> moment_of(None, 100.0), moment_of(350.0, 100.0), moment_of(40.0, 100.0)
    (100.0, 100.0, 40.0)
    """
    if at_s is None or now_s < at_s <= now_s + CLOCK_AHEAD_S:
        return now_s
    return at_s


def clock_off_s(sent_s: float, now_s: float) -> float:
    """By how much a clock is off [s] that timed what it sends; what a sending takes, and a little more, is nothing.

    Parameters: sent_s, when it was sent by that clock; now_s, when it came by ours [s].

    >>> clock_off_s(7300.0, 100.0), clock_off_s(350.0, 100.0), clock_off_s(100.0, 7300.0)
    (7200.0, 0.0, -7200.0)
    """
    off = sent_s - now_s
    return off if abs(off) > CLOCK_AHEAD_S else 0.0


def check_our_time(at_s: float) -> None:
    """Refuse a moment whose year cannot be meant. Parameters: at_s [s]. Raises OutOfRangeError."""
    if not EARLIEST_S <= at_s < LATEST_S:
        raise OutOfRangeError("refused.not_of_our_time")


def odd_moment(at_s: float, now_s: float) -> Said | None:
    """What is to be asked about the moment of an entry, None where nothing is. Parameters: at_s, now_s [s]."""
    if at_s > now_s + CLOCK_AHEAD_S:
        return said("ask.ahead", at_s=at_s, now_s=now_s)
    if at_s < now_s - LONG_AGO_S:
        return said("ask.long_ago", at_s=at_s)
    return None


def odd_clock(now_s: float, last_s: float | None, jumped_s: float) -> Said | None:
    """What is to be asked about the clock of the machine itself, None where nothing is.

    Parameters: now_s, by it [s]; last_s, when the last entry was made [s], None before any; jumped_s, by how much it
    moved while it was watched, more than time went by [s].

    >>> odd_clock(10_000.0, 13_600.0, 0.0) is None, odd_clock(10_000.0, 13_601.0, 0.0).code
    (True, 'ask.clock_behind')
    """
    if last_s is not None and now_s < last_s - CLOCK_JUMP_S:
        return said("ask.clock_behind", now_s=now_s, last_s=last_s)
    if jumped_s > CLOCK_JUMP_S:
        return said("ask.clock_jumped", now_s=now_s, hours=round(jumped_s / 3600))
    return None


def check_hanging(tag: str, hung_s: float, out_of_salt_s: float | None, stuffed_s: float | None) -> None:
    """Refuse a hanging that comes before what must come before it. Raises OutOfRangeError.

    Parameters: tag; hung_s [s]; out_of_salt_s, when it came out of the salt; stuffed_s, when its batch was stuffed [s].
    """
    if out_of_salt_s is not None and hung_s < out_of_salt_s:
        raise OutOfRangeError("refused.hung_while_in_salt", tag=tag)
    if stuffed_s is not None and hung_s < stuffed_s:
        raise OutOfRangeError("refused.hung_before_stuffed", tag=tag)


def odd_hanging(tag: str, hung_s: float, made_s: float | None, warm_until_s: float | None) -> Said | None:
    """What is to be asked about a hanging. Parameters: tag; hung_s; made_s, of its batch; warm_until_s [s]."""
    if made_s is not None and hung_s < made_s - CLOCK_AHEAD_S:
        return said("ask.hung_before_made", tag=tag, made_s=made_s)
    if warm_until_s is not None and hung_s < warm_until_s - CLOCK_AHEAD_S:
        return said("ask.hung_in_the_warm", tag=tag, until_s=warm_until_s)
    return None


def odd_taking_down(tag: str, down_s: float, last_weighed_s: float | None) -> Said | None:
    """What is to be asked about a taking down. Parameters: tag; down_s; last_weighed_s [s], None if never."""
    if last_weighed_s is not None and down_s < last_weighed_s:
        return said("ask.weighed_after_down", tag=tag, weighed_s=last_weighed_s)
    return None
