"""The planner's own record: what was told of a plan when its batch was begun, and what happened."""

from zymon.core.planning.way import Window
from zymon.store import plans as store
from zymon.store.bench import making_of
from zymon.store.plan_models import Plan
from zymon.store.struck import counted

from ..premises import Premises, moment
from . import ahead_schemas as s
from .survey import Planned, Survey, setting_of
from .views import window_out

DAY_S = 86_400


def against(shop: Premises) -> s.PlansAgainst:
    """Every plan whose batch came off its hooks, the latest first."""
    with shop.db.reading() as session:
        survey = Survey(shop, session, shop.ways)
        done = []
        for plan in store.plans(session):
            if plan.batch is None:
                continue
            stored = store.set_now(plan)
            found = survey.look(setting_of(stored), plan, stored)
            if found.standing is not None and found.standing.down_s is not None:
                done.append(_one(survey, plan, found))
    counted_ones = [one for one in done if one.in_time is not None]
    told = [one.told_chance for one in counted_ones]
    return s.PlansAgainst(
        plans=sorted(done, key=lambda one: one.started, reverse=True),
        in_time=sum(bool(one.in_time) for one in counted_ones),
        counted=len(counted_ones),
        told_chance=round(sum(told) / len(told), 3) if told else None,
        inside=sum(bool(one.inside) for one in counted_ones),
    )


def _one(survey: Survey, plan: Plan, planned: Planned) -> s.PlanAgainst:
    standing, batch = planned.standing, plan.batch
    assert standing is not None
    assert standing.down_s is not None
    assert batch is not None
    made = making_of(survey.session, batch.id)
    told = store.set_at(plan, made.made_s if made is not None else standing.started_s)
    table_s = float(planned.table_s.max())
    at_table = table_s if table_s < 2**40 else None
    window = (told.told_done_p10_s, told.told_done_p50_s, told.told_done_p90_s)
    low, middle, high = (float("inf") if one is None else float(one) for one in window)
    return s.PlanAgainst(
        plan_id=plan.id,
        batch_id=batch.id,
        batch=batch.code,
        product=told.product,
        place=told.place.name,
        pieces=told.pieces,
        wanted=moment(planned.set.wanted_s),
        told_chance=told.told_chance,
        start_planned=moment(told.start_s),
        started=moment(standing.started_s),
        done_told=window_out(Window(low, middle, high)),
        done=moment(standing.down_s),
        at_table=None if at_table is None else moment(at_table),
        in_time=at_table is not None and at_table <= told.wanted_s + DAY_S / 2,
        inside=low <= standing.down_s <= high,
        moved=len(counted(plan.settings)) - 1,
    )
