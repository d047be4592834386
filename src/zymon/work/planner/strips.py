"""The weeks ahead, place by place: what lies there, what is planned, hooks and water week by week."""

import numpy as np

from zymon.core.constants import SECONDS_PER_DAY
from zymon.core.planning.ahead import in_use, weekly_most
from zymon.core.planning.before import PartKind
from zymon.core.planning.way import Stay, in_time
from zymon.store.models import Place

from ..premises import Premises, moment
from . import ahead_schemas as s
from .lying import Lying
from .room import before_stays
from .schemas import LyingSpan
from .survey import WEEKS, Planned, Survey
from .views import plan_out, when


def ahead(shop: Premises) -> s.AheadOut:
    """The weeks ahead."""
    with shop.db.reading() as session:
        survey = Survey(shop, session, shop.ways)
        strips = [strip for place in survey.places.values() if (strip := _strip(survey, place)) is not None]
        return s.AheadOut(
            now=moment(survey.now_s),
            until=moment(survey.now_s + WEEKS * 7 * SECONDS_PER_DAY),
            strips=strips,
            plans=[plan_out(survey, one) for one in survey.plans],
            occasions=occasions(survey.plans),
        )


def occasions(plans: list[Planned]) -> list[s.OccasionOut]:
    """What is wanted together, with the chance of all of it, over the same futures."""
    by_name: dict[str, list[Planned]] = {}
    for one in plans:
        if one.set.occasion:
            by_name.setdefault(one.set.occasion, []).append(one)
    return [
        s.OccasionOut(
            name=name,
            wanted=moment(min(one.set.wanted_s for one in some)),
            plans=[one.plan.id for one in some if one.plan is not None],
            chance=round(in_time([one.table_s.max(axis=1) for one in some], [one.set.wanted_s for one in some]), 3),
        )
        for name, some in by_name.items()
    ]


def _strip(survey: Survey, place: Place) -> s.StripOut | None:
    """A place over the weeks ahead; None for one in which nothing hangs, is salted or warmed."""
    if place.kind not in ("chamber", "salt", "warm"):
        return None
    lying, room = survey.lying(place.id), survey.hooks(place.id)
    chamber = place.kind == "chamber"
    stays = survey.lying_stays(place.id) + _planned_stays(survey, place)
    used = in_use(stays, survey.days)
    water = [round(g, 1) for g in weekly_most(survey.water(place.id))] if chamber else [None] * WEEKS
    weeks = zip(survey.days[::7], weekly_most(used.likely), weekly_most(used.most), water, strict=True)
    managed_g = survey.managed_g(place.id) if chamber else None
    return s.StripOut(
        place_id=place.id,
        name=place.name,
        kind=place.kind,
        room=room,
        hooks=bool(place.rods),
        free=None if room is None else room - sum(len(one.stays) for one in lying),
        managed_g=None if managed_g is None else round(managed_g, 1),
        goods=[_lying(place.id, one) for one in sorted(lying, key=lambda one: one.from_s)],
        weeks=[
            s.WeekOut(start=moment(at), likely=int(likely), most=int(most), water_g=grams)
            for at, likely, most, grams in weeks
        ],
    )


def _planned_stays(survey: Survey, place: Place) -> list[Stay]:
    """The room that plans take in a place: on its hooks, or before them in the salt or the warm."""
    if place.kind == "chamber":
        return [stay for one in survey.others(place.id, None, None) for stay in one.stays]
    kind: PartKind = "salt" if place.kind == "salt" else "warm"
    first = survey.rooms.of(kind)
    if first is None or first.id != place.id:
        return []
    return [stay for one in survey.plans for stay in before_stays(one, kind)]


def _lying(place_id: int, lying: Lying) -> s.LyingOut:
    batch = lying.batch
    return s.LyingOut(
        batch_id=batch.id,
        code=batch.code,
        product=batch.product,
        kind=batch.kind,
        shape=batch.shape,
        state=lying.state,
        pieces=len(lying.stays),
        dried=round(lying.share, 3),
        span=LyingSpan(
            place_id=place_id,
            start=moment(lying.from_s),
            until=when(float(np.max([one.until_s for one in lying.stays]))),
            latest=when(float(np.max([one.latest_s for one in lying.stays]))),
        ),
    )
