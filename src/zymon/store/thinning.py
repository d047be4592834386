"""Thinning the log of the air: readings of long ago become means of five minutes with their extremes."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import func, select, text
from sqlalchemy.orm import Session

from zymon.core.house.thinning import SPAN_S, SPANS_AN_HOUR

from .climate import HOUR_S, MEANS, READINGS
from .models import ReadingHour
from .thinned_models import Thinning

STRETCH_S = 14 * 24 * HOUR_S  # thinned in one transaction: who enters something meanwhile waits a tenth of a second

# each source keeps its own; what is a mean already stays as it is
_SPANS = text(
    f"""
    CREATE TEMP TABLE span AS
    SELECT min(r.at_s) AS at_s, max(coalesce(t.to_s, r.at_s)) AS to_s, count(*) AS rows_of_log, {MEANS},
           r.import_id, r.device_id
    FROM {READINGS} WHERE r.place_id = :place AND r.at_s >= :low AND r.at_s < :high
    GROUP BY r.at_s / :span, r.import_id, r.device_id
    """
)
_STEPS = (
    text("DELETE FROM thinned_reading WHERE place_id = :place AND at_s >= :low AND at_s < :high AND strike_id = 0"),
    text(
        "INSERT INTO thinned_reading SELECT :place, at_s, 0, to_s, readings, temperature_min_c, temperature_max_c,"
        " rh_min_percent, rh_max_percent FROM span WHERE readings > 1"
    ),
    text("DELETE FROM reading WHERE place_id = :place AND at_s >= :low AND at_s < :high"),
    text(
        "INSERT INTO reading (place_id, at_s, temperature_c, rh_percent, import_id, device_id)"
        " SELECT :place, at_s, temperature_c, rh_percent, import_id, device_id FROM span"
    ),
)


@dataclass(frozen=True)
class Stretch:
    """A part of the log of one place: from a time up to another [s]."""

    place_id: int
    low_s: int
    high_s: int


def stretches(session: Session, before_s: int) -> list[Stretch]:
    """The log before a time [s] in the parts in which it is thinned."""
    query = select(ReadingHour.place_id, func.min(ReadingHour.hour_s)).group_by(ReadingHour.place_id)
    return [
        Stretch(place_id, low_s, min(low_s + STRETCH_S, before_s))
        for place_id, first_s in session.execute(query)
        for low_s in range(first_s, before_s, STRETCH_S)
    ]


def thin(session: Session, act: Thinning, stretch: Stretch) -> None:
    """Thin a part of the log and count what became means; what was thinned before stays and is not counted again.

    The hourly means stay those of all readings there were. Parameters: act, whose wish it is; stretch.
    """
    values = {"place": stretch.place_id, "low": stretch.low_s, "high": stretch.high_s, "span": SPAN_S}
    session.execute(text("DROP TABLE IF EXISTS temp.span"))
    session.execute(_SPANS, values)
    became = text("SELECT coalesce(sum(rows_of_log), 0), count(*) FROM span WHERE rows_of_log > 1")
    before, after = session.execute(became).one()
    if not after:
        return
    for step in _STEPS:
        session.execute(step, values)
    act.readings_before += before
    act.readings_after += after


def thinnings(session: Session) -> Sequence[Thinning]:
    """What was thinned, the latest first."""
    return session.scalars(select(Thinning).order_by(Thinning.id.desc())).all()


def unfinished(session: Session) -> Thinning | None:
    """The thinning that was begun and did not come to its end."""
    return session.scalar(select(Thinning).where(Thinning.ended_s.is_(None)).order_by(Thinning.id.desc()))


def readings_kept(session: Session) -> int:
    """How many readings the log holds, those that stand for several counted once; by its hours, so at once."""
    came = session.scalar(select(func.coalesce(func.sum(ReadingHour.readings), 0))) or 0
    return int(came - _gone(session))


def would_go(session: Session, before_s: int) -> int:
    """About how many readings before a time [s] would be gone if the log were thinned."""
    spare = func.max(ReadingHour.readings - SPANS_AN_HOUR, 0)
    old = session.scalar(select(func.coalesce(func.sum(spare), 0)).where(ReadingHour.hour_s < before_s)) or 0
    return max(int(old - _gone(session)), 0)


def _gone(session: Session) -> int:
    """How many readings are gone, each of which is part of a mean."""
    return int(session.scalar(select(func.sum(Thinning.readings_before - Thinning.readings_after))) or 0)
