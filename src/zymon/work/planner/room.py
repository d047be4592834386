"""Whether a planned batch finds room: hooks and the water of its place, the salt and the warm before; ways out."""

from zymon.core.constants import SECONDS_PER_DAY
from zymon.core.planning.ahead import Clash, Counts, clash, days_later, how_many_fit, in_use, much_water
from zymon.core.planning.before import PartKind
from zymon.core.planning.way import Stay
from zymon.core.say import said

from ..premises import moment
from ..schemas import SaidOut, said_out
from . import schemas as s
from .survey import Planned, Survey


def clash_out(survey: Survey, planned: Planned) -> s.ClashOut | None:
    """Where a plan finds no room, with ways out; None where it likely does, or nobody said how much room there is.

    A plan that is kept minds those that hang before it; one that is looked at minds all.
    """
    own = None if planned.plan is None else planned.plan.id
    if planned.standing is not None and (planned.standing.hangs or planned.standing.down_s is not None):
        return None
    hooks = survey.hooks(planned.set.place_id)
    used = survey.used(planned.set.place_id, own, None if planned.stored is None else planned)
    found = None if hooks is None else clash(used, planned.stays, hooks, survey.days)
    if found is None or hooks is None:
        return _before_the_hook(survey, planned, own)
    return _told(survey, found, planned.set.place_id, _ways_out(survey, planned, used, hooks, own))


def _told(survey: Survey, clash: Clash, place_id: int, ways: list[s.WayOutOut]) -> s.ClashOut:
    code = "plan.no_hooks" if survey.places[place_id].rods else "plan.no_room"
    says = said(
        code, pieces=clash.pieces, hooks=clash.hooks, place=survey.places[place_id].name, from_day_s=clash.from_s,
        to_day_s=clash.to_s - SECONDS_PER_DAY,
    )  # fmt: skip
    return s.ClashOut(says=said_out(says), place_id=place_id, at=moment(clash.from_s), ways=ways)


def _ways_out(survey: Survey, planned: Planned, used: Counts, hooks: int, own: int | None) -> list[s.WayOutOut]:
    """Later, elsewhere, smaller: those that there are."""
    ways = _later(planned, days_later(used, planned.stays, hooks, survey.days)) if planned.standing is None else []
    for place in survey.places.values():
        room = survey.hooks(place.id)
        if place.id == planned.set.place_id or place.kind != "chamber" or room is None:
            continue
        if clash(survey.used(place.id, own), planned.stays, room, survey.days) is None:
            elsewhere = said("plan.way_elsewhere", place=place.name)
            ways.append(s.WayOutOut(kind="elsewhere", says=said_out(elsewhere), place_id=place.id))
            break
    fit = how_many_fit(used, planned.stays, hooks, survey.days)
    if 0 < fit < planned.set.pieces and planned.standing is None:
        smaller = said("plan.way_smaller", pieces=fit)
        ways.append(s.WayOutOut(kind="smaller", says=said_out(smaller), pieces=fit))
    return ways


def _later(planned: Planned, days: int | None) -> list[s.WayOutOut]:
    if days is None:
        return []
    start_s = planned.start_s + days * SECONDS_PER_DAY
    percent = round(100 * planned.way.starts.chance(start_s, planned.set.wanted_s))
    says = said_out(said("plan.way_later", start_day_s=start_s, percent=percent))
    return [s.WayOutOut(kind="later", says=says, start=moment(start_s))]


def _before_the_hook(survey: Survey, planned: Planned, own: int | None) -> s.ClashOut | None:
    """Whether the salt or the warm has too little room, where somebody said how much there is."""
    for kind, _ in planned.before_the_hook:
        place, mine = survey.rooms.of(kind), before_stays(planned, kind)
        room = None if place is None else survey.hooks(place.id)
        if place is None or room is None:
            continue
        beside = [one for one in survey.plans if one.plan is None or one.plan.id != own]
        others = [*survey.lying_stays(place.id), *(stay for one in beside for stay in before_stays(one, kind))]
        used = in_use(others, survey.days).likely
        found = clash(used, mine, room, survey.days)
        if found is not None:
            return _told(survey, found, place.id, _later(planned, days_later(used, mine, room, survey.days)))
    return None


def before_stays(planned: Planned, kind: PartKind) -> list[Stay]:
    """The room that a plan takes in the salt or in the warm before its hook, piece by piece."""
    return [stay for part, stay in planned.before_the_hook if part == kind for _ in range(planned.set.pieces)]


def water_out(survey: Survey, planned: Planned) -> SaidOut | None:
    """That its place would have to take more water in a day than it ever was seen to; None where it has not."""
    if not planned.stays:
        return None
    managed_g = survey.managed_g(planned.set.place_id)
    if managed_g is None:
        return None
    own_g = planned.way.water_g(planned.start_s, survey.days)
    others_g = survey.water(planned.set.place_id, None if planned.plan is None else planned.plan.id)
    found = much_water(own_g, others_g, managed_g, survey.days)
    if found is None:
        return None
    at_s, most_g = found
    return said_out(said("plan.much_water", water_g=round(most_g), managed_g=round(managed_g), at_day_s=at_s))
