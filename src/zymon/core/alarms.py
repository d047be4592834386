"""Alarms: when a place leaves its band for too long, falls silent or stands open; when one is told, and when not.

Everything here is a function of readings, rules and the time; what is on record of it stands in the store.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Kind = Literal[
    "frost", "too_warm", "too_cold", "too_dry", "too_damp", "door", "silence", "allowance", "salt_due", "past_target",
]  # fmt: skip
KINDS: tuple[Kind, ...] = (
    "frost", "too_warm", "too_cold", "too_dry", "too_damp", "door", "silence", "allowance", "salt_due", "past_target",
)  # fmt: skip
# what spoils goods within a night: told in quiet hours too, where somebody may be woken
URGENT: frozenset[Kind] = frozenset({"frost", "too_warm", "allowance", "silence"})

FROST_C = 0.0  # water freezes; meat a little below it
DOOR_C, DOOR_RH = 1.5, 8.0  # a step within DOOR_STEP_S that no controller makes; estimate from logs of chambers
# a step of a door takes no longer [s], and the air before it is looked at so long [s]; estimates from logs
DOOR_STEP_S, DOOR_BEFORE_S = 900.0, 3600.0
GAP_S = 1800.0  # over a longer silence a band is not known to be left, unless its logger sends as seldom
STORM_S = 2 * 3600.0  # what begins again so soon is the same event
MOST_AN_HOUR = 6  # messages to one person; what comes besides is gathered into the next
SECOND_AFTER_S = 1800.0  # what nobody acknowledged by then is told a second person, once
TRY_AGAIN_S = (60.0, 300.0, 900.0, 3600.0)  # after a message that certainly did not go

Row = tuple[float, float, float | None]  # at [s], temperature [°C], humidity [%] where it was measured


@dataclass(frozen=True)
class Band:
    """What is watched at a place. A limit of None is not watched; nor silence or door where they say None.

    Limits [°C], [%]; `for_s`, how long one is left before it is told [s]; `silent_s`, `door_s` [s].
    """

    low_c: float | None = None
    high_c: float | None = None
    low_rh: float | None = None
    high_rh: float | None = None
    for_s: float = 3600.0
    frost: bool = True
    silent_s: float | None = 1800.0
    door_s: float | None = None


@dataclass(frozen=True)
class Trouble:
    """Something that is so now: its kind, since when [s], and how far it went (°C, %, hours; None where none says)."""

    kind: Kind
    since_s: float
    worst: float | None


def troubles(band: Band, rows: Sequence[Row], now_s: float, last_s: float | None) -> list[Trouble]:
    """What is wrong at a place now.

    Parameters: band; rows, its readings of the last hours in time order; now_s [s]; last_s [s], when it was heard
    last at all, None for a place whose readings come from no device. A limit counts as left when every reading of the
    last `for_s` lies beyond it, without a silence longer than GAP_S or than its logger
    may be silent, and the last of them is no older than that.
    """
    found: list[Trouble] = []
    lately = [row for row in rows if row[0] <= now_s]
    gap_s = max(GAP_S, band.silent_s or 0.0)  # a logger that may be silent for so long sends as seldom
    beyond: list[tuple[Kind, int, float | None, bool, float]] = [
        ("too_warm", 1, band.high_c, True, band.for_s),
        ("too_cold", 1, band.low_c, False, band.for_s),
        ("too_damp", 2, band.high_rh, True, band.for_s),
        ("too_dry", 2, band.low_rh, False, band.for_s),
        ("frost", 1, FROST_C if band.frost else None, False, 0.0),
    ]
    for kind, column, limit, above, for_s in beyond:
        if limit is not None:
            trouble = _beyond(kind, lately, column, limit, above, for_s, now_s, gap_s)
            if trouble is not None:
                found.append(trouble)
    if any(one.kind == "frost" for one in found):
        found = [one for one in found if one.kind != "too_cold"]
    if band.silent_s is not None and last_s is not None and now_s - last_s > band.silent_s:
        found.append(Trouble("silence", last_s, round((now_s - last_s) / 3600, 1)))
    door_s = band.door_s
    if door_s is not None:
        opened = _opened(lately, now_s)
        if opened is not None and now_s - opened >= door_s:
            found.append(Trouble("door", opened, None))
    return found


def _beyond(
    kind: Kind, rows: Sequence[Row], column: int, limit: float, above: bool, for_s: float, now_s: float, gap_s: float
) -> Trouble | None:
    """A limit that every reading lies beyond, back to where one did not or nobody knows."""
    since_s, worst, after_s = None, None, now_s
    for row in reversed(rows):
        value = row[column]
        if value is None:
            continue
        out = value > limit if above else value < limit
        if not out or after_s - row[0] > gap_s:
            break
        since_s, after_s = row[0], row[0]
        worst = value if worst is None else max(worst, value) if above else min(worst, value)
    return None if since_s is None or now_s - since_s < for_s else Trouble(kind, since_s, worst)


def _opened(rows: Sequence[Row], now_s: float) -> float | None:
    """Since when a door seems to stand open [s]: the air stepped away from what it was, and is not back."""
    for i in range(1, len(rows)):
        at_s, c, rh = rows[i]
        before = [row for row in rows[:i] if at_s - row[0] <= DOOR_BEFORE_S]
        step = [row for row in before if at_s - row[0] <= DOOR_STEP_S]
        if not step or len(before) < 3 or now_s - rows[-1][0] > GAP_S:
            continue
        usual_c = sorted(row[1] for row in before)[len(before) // 2]
        humid = sorted(row[2] for row in before if row[2] is not None)
        usual_rh = humid[len(humid) // 2] if humid else None
        if _away(c, rh, usual_c, usual_rh) and all(_away(r[1], r[2], usual_c, usual_rh) for r in rows[i:]):
            return at_s
    return None


def _away(c: float, rh: float | None, usual_c: float, usual_rh: float | None) -> bool:
    if abs(c - usual_c) >= DOOR_C:
        return True
    return rh is not None and usual_rh is not None and abs(rh - usual_rh) >= DOOR_RH


def again(ended_s: float | None, begins_s: float) -> bool:
    """Whether trouble that begins is the event that ended before it, which is told no second time.

    Parameters: ended_s [s], None while it goes on; begins_s [s].
    """
    return ended_s is None or begins_s - ended_s < STORM_S


def quiet(minute: int, quiet_from: int | None, quiet_to: int | None) -> bool:
    """Whether a minute of the day lies in somebody's quiet hours, which may go over midnight.

    Parameters: minute, quiet_from, quiet_to [minutes since midnight]; None where somebody has none.

    >>> quiet(23 * 60, 22 * 60, 6 * 60), quiet(7 * 60, 22 * 60, 6 * 60), quiet(6 * 60, 22 * 60, 6 * 60)
    (True, False, False)
    """
    if quiet_from is None or quiet_to is None or quiet_from == quiet_to:
        return False
    if quiet_from < quiet_to:
        return quiet_from <= minute < quiet_to
    return minute >= quiet_from or minute < quiet_to


def held(kind: Kind, minute: int, quiet_from: int | None, quiet_to: int | None, woken: bool) -> bool:
    """Whether a message waits for the end of quiet hours.

    Parameters: kind; minute, quiet_from, quiet_to, as of `quiet`; woken, whether urgent ones are told all the same.
    """
    return quiet(minute, quiet_from, quiet_to) and not (woken and kind in URGENT)


def may_send(sent_s: Sequence[float], now_s: float) -> bool:
    """Whether one person can be sent one more message. Parameters: sent_s, when earlier ones went [s]; now_s [s]."""
    return sum(1 for at in sent_s if now_s - at < 3600) < MOST_AN_HOUR


def try_again_s(tries: int) -> float | None:
    """How long to wait after so many attempts that failed [s]; None when it is given up. Parameters: tries."""
    return TRY_AGAIN_S[tries - 1] if 1 <= tries <= len(TRY_AGAIN_S) else None
