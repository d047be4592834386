"""Sensors put to the test, and what a place has been seen to remove."""

import itertools

from sqlalchemy import select
from sqlalchemy.orm import Session

from .hang_models import SensorTest
from .models import Hanging, Weighing
from .places import place, there, touch
from .struck import counted, strike

MOST_OFFSET = 20.0  # points of humidity, from which a sensor is broken rather than off
LEAST_PIECES = 3
DAY_S = 86_400


def tests(session: Session, place_id: int) -> list[SensorTest]:
    """All tests of a place's sensor, in time order, struck ones too."""
    query = select(SensorTest).where(SensorTest.place_id == place_id).order_by(SensorTest.at_s, SensorTest.id)
    return list(session.scalars(query))


def offset_rh(session: Session, place_id: int) -> float:
    """What is added to a place's humidity as logged [points], by its latest test."""
    last = counted(tests(session, place_id))
    return last[-1].true_rh_percent - last[-1].shown_rh_percent if last else 0.0


def add_test(session: Session, place_id: int, shown: float, true: float, at_s: int, by: str, now_s: int) -> SensorTest:
    """Note a test; dates that rest on the humidity are made anew."""
    made = SensorTest(
        place_id=place_id, at_s=at_s, shown_rh_percent=shown, true_rh_percent=true, by=by, entered_s=now_s
    )
    session.add(made)
    touch(place(session, place_id))
    session.flush()
    return made


def strike_test(session: Session, test_id: int, reason: str, by: str, now_s: int) -> None:
    """Strike a test through. Raises NotFoundError, ClashError."""
    found = there(session, SensorTest, test_id, "refused.no_test")
    strike(found, reason, by, now_s)
    touch(place(session, found.place_id))
    session.flush()


def most_removed(session: Session, place_id: int) -> float | None:
    """The most water a place was seen to take from its pieces in a day [g], from weighings; None without enough."""
    hung = select(Hanging.piece_id).where(Hanging.place_id == place_id, Hanging.struck_s.is_(None))
    rows = session.execute(
        select(Weighing.piece_id, Weighing.at_s, Weighing.gross_g)
        .where(Weighing.piece_id.in_(hung), Weighing.struck_s.is_(None))
        .order_by(Weighing.piece_id, Weighing.at_s)
    ).all()
    by_day: dict[int, list[float]] = {}
    for (a_id, a_s, a_g), (b_id, b_s, b_g) in itertools.pairwise(rows):
        if a_id != b_id or b_s - a_s < DAY_S / 2 or not 0 < a_g - b_g < 0.4 * a_g:
            continue
        for day in range(a_s // DAY_S, b_s // DAY_S + 1):
            by_day.setdefault(day, []).append((a_g - b_g) / (b_s - a_s) * DAY_S)
    sums = [sum(v) for v in by_day.values() if len(v) >= LEAST_PIECES]
    return max(sums, default=None)
