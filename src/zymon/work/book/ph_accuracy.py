"""How good the hours of the fall were: 5.3 as it was crossed between two readings, against what each reading told."""

from collections.abc import Iterable
from dataclasses import replace

from pydantic import BaseModel

from zymon.core.degree_hours import HURDLE_PH
from zymon.core.fermentation.curve import Fermentation
from zymon.core.fermentation.forecast import forecast_fermentation
from zymon.core.limits import DegreeHourTable
from zymon.store import evidence, warm
from zymon.store.database import Session

MOST_STAGES = 40  # the latest: each is worked out anew, with what was known then


class PhChecked(BaseModel):
    """What was told of a fall after a reading: hours off (positive: it took longer), and whether the window held it."""

    batch_id: int
    batch: str
    hour: float
    crossed_hour: float
    told_hour: float
    error_hours: float
    inside: bool


def ph_checked(session: Session, now_s: int) -> list[PhChecked]:
    """Every fall that crossed the mark, as it was told after each reading before."""
    found: list[PhChecked] = []
    for stage in warm.stages(session)[:MOST_STAGES]:
        known = warm.warm_batch(session, stage, now_s, coarse=True)
        allowed = evidence.profile(session, stage.making.batch.profile).degree_hours
        found += _of_stage(stage.batch_id, stage.making.batch.code, known.fermentation, allowed)
    return found


def _of_stage(batch_id: int, code: str, fermentation: Fermentation, allowed: DegreeHourTable) -> Iterable[PhChecked]:
    crossed = crossing(fermentation)
    if crossed is None:
        return
    for i, reading in enumerate(fermentation.readings):
        if reading.hour >= crossed or reading.ph <= HURDLE_PH:
            break
        then = replace(
            fermentation, readings=fermentation.readings[: i + 1], now_hour=reading.hour,
            temperature=tuple(t for t in fermentation.temperature if t[0] <= reading.hour),
        )  # fmt: skip
        told = forecast_fermentation(then, allowed).crosses
        if told.p10 is None or told.p50 is None or told.p90 is None:
            continue
        yield PhChecked(
            batch_id=batch_id, batch=code, hour=round(reading.hour, 1), crossed_hour=round(crossed, 1),
            told_hour=round(told.p50, 1), error_hours=round(crossed - told.p50, 1),
            inside=told.p10 <= crossed <= told.p90,
        )  # fmt: skip


def crossing(fermentation: Fermentation) -> float | None:
    """When the mark was crossed, in proportion between two readings [h]; None where no reading lay on either side."""
    for before, after in zip(fermentation.readings, fermentation.readings[1:], strict=False):
        if before.ph > HURDLE_PH >= after.ph:
            share = (before.ph - HURDLE_PH) / (before.ph - after.ph)
            return before.hour + share * (after.hour - before.hour)
    return None
