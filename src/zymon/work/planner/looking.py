"""A wish looked at: the start it needs, the chance of every start, the places where it could hang. Nothing is kept."""

from dataclasses import replace
from datetime import datetime

import numpy as np

from zymon.core.drying.climate import Log
from zymon.core.errors import OutOfRangeError
from zymon.core.place_fit import Verdict, suits
from zymon.store import plans
from zymon.store.models import Place
from zymon.store.places import NotFoundError
from zymon.store.plan_models import Plan

from ..premises import Premises, moment
from . import schemas as s
from .survey import Planned, Setting, Survey
from .views import moments_of, plan_out, when, window_out
from .ways import LOOKS_AHEAD_S

DAY_S = 86_400
SUITS_BY_S = 30 * DAY_S  # of the log of a place, by which it is judged what suits it


def look(shop: Premises, wish: s.Wish) -> s.LookedAt:
    """What a wish comes to. Raises OutOfRangeError, NotFoundError."""
    with shop.db.reading() as session:
        return look_in(Survey(shop, session, shop.ways), wish)


def look_again(shop: Premises, plan_id: int, wish: s.Wish) -> s.LookedAt:
    """What a plan comes to if it is set anew. Raises as `look`, and ClashError for one that was given up."""
    with shop.db.reading() as session:
        return look_in(Survey(shop, session, shop.ways), wish, plans.plan(session, plan_id))


def look_in(survey: Survey, wish: s.Wish, plan: Plan | None = None) -> s.LookedAt:
    """The same within a survey."""
    of = planned(survey, wish, plan)
    starts, wanted_s = of.way.starts, of.set.wanted_s
    latest_s = starts.latest(wanted_s, wish.chance)
    return s.LookedAt(
        plan=plan_out(survey, of),
        days=days_of(of),
        latest_start=None if latest_s is None else moment(latest_s),
        in_time_by=when(np.ceil(starts.done_by(float(starts.begin_s[0]), wish.chance))),
    )


def planned(survey: Survey, wish: s.Wish, plan: Plan | None) -> Planned:
    """A wish with its way: at the place that suits best and begun at the latest start, where nothing else is said."""
    place_id = wish.place_id
    if place_id is None:
        offers = _offers(survey, wish, None if plan is None else plan.id)
        if not offers:
            raise NotFoundError("refused.no_place_to_hang")
        place_id = offers[0].place_id
    if place_id not in survey.places:
        raise NotFoundError("refused.no_place")
    number = survey.number_in(wish.occasion, None if plan is None else plan.id)
    of = survey.look(_setting(survey, wish, place_id, plan), plan, number=number)
    if wish.start is None and of.standing is None:
        start_s = of.way.starts.latest(of.set.wanted_s, wish.chance)
        at_s = of.way.starts.begin_s[0] if start_s is None else start_s
        of = replace(of, set=replace(of.set, start_s=int(at_s)))
    return of


def days_of(planned: Planned) -> list[s.DayOut]:
    """The days on which a plan could be begun, each with its chance; none of what was begun."""
    if planned.standing is not None or planned.set.wanted_s <= planned.way.starts.begin_s[0]:
        return []
    return [
        s.DayOut(start=moment(at), chance=round(chance, 3))
        for at, chance in planned.way.starts.days(planned.set.wanted_s)
    ]


def _setting(survey: Survey, wish: s.Wish, place_id: int, plan: Plan | None) -> Setting:
    wanted_s = int(wish.wanted.timestamp())
    if wanted_s <= survey.now_s:
        raise OutOfRangeError("refused.wanted_past")
    if wanted_s > survey.now_s + LOOKS_AHEAD_S:
        raise OutOfRangeError("refused.wanted_too_far")
    return Setting(
        occasion=wish.occasion,
        product=wish.product,
        sheet=wish.sheet.model_dump_json(),
        pieces=wish.pieces,
        table_g=wish.table_g,
        place_id=place_id,
        wanted_s=wanted_s,
        start_s=survey.now_s if wish.start is None else _begin(survey, wish.start, wanted_s, plan),
        wait_s=round(wish.wait_days * DAY_S),
        rest_s=round(wish.rest_days * DAY_S),
        frozen=wish.frozen,
        order_days=wish.order_days,
        asked=wish.chance,
    )


def _begin(survey: Survey, start: datetime, wanted_s: int, plan: Plan | None) -> int:
    """When it would be begun: not before today, not after the day it is wanted; a plan that slipped begins now."""
    start_s = int(start.timestamp())
    if start_s < survey.now_s - DAY_S and plan is None:
        raise OutOfRangeError("refused.start_past")
    if start_s > wanted_s:
        raise OutOfRangeError("refused.start_after_wanted")
    return max(start_s, survey.now_s)


def places(shop: Premises, wish: s.Wish, plan_id: int | None) -> list[s.PlaceOffer]:
    """Where a wish could hang, the best first. Parameters: plan_id, of the plan it is a change of. Raises as `look`."""
    with shop.db.reading() as session:
        return _offers(Survey(shop, session, shop.ways), wish, plan_id)


def _offers(survey: Survey, wish: s.Wish, own: int | None) -> list[s.PlaceOffer]:
    """Where it could hang, the best first: suits the goods, has hooks free all the time, is likely in time."""
    found = []
    for place in survey.places.values():
        if place.kind != "chamber":
            continue
        of = planned(survey, wish.model_copy(update={"place_id": place.id}), None)
        found.append(_offer(survey, of, place, own))
    ranked = {"fit": 0, None: 1, "with_care": 2, "unfit": 3}

    def key(offer: s.PlaceOffer) -> tuple[int, int, float]:
        return ranked[offer.verdict], 0 if offer.hooks_free >= wish.pieces else 1, -offer.chance

    return sorted(found, key=key)


def _offer(survey: Survey, planned: Planned, place: Place, own: int | None) -> s.PlaceOffer:
    stays = planned.stays
    during = (survey.days >= stays[0].from_s) & (survey.days <= max(stay.until_s for stay in stays))
    used = survey.used(place.id, own)[during]
    hooks = survey.hooks(place.id)
    latest_s = planned.way.starts.latest(planned.set.wanted_s, planned.set.asked)
    return s.PlaceOffer(
        place_id=place.id,
        name=place.name,
        verdict=_verdict(survey, planned),
        hooks_free=planned.set.pieces if hooks is None else hooks - int(used.max(initial=0)),
        chance=round(planned.chance, 3),
        start=None if latest_s is None else moment(latest_s),
        table=window_out(moments_of(planned).table),
    )


def _verdict(survey: Survey, planned: Planned) -> Verdict | None:
    log = survey.ways.log(survey.session, planned.set.place_id, planned.goods, survey.now_s)
    lately = log.time_s >= survey.now_s - SUITS_BY_S
    log = Log(log.time_s[lately], log.temperature_c[lately], log.rh_percent[lately])
    return next((one.verdict for one in suits(log) if one.family == planned.goods.sheet.plan.family), None)
