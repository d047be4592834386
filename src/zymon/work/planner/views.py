"""A plan as it is shown: its steps with their windows, its chance, where it clashes, what slipped."""

from datetime import datetime

import numpy as np

from zymon.core.bench.consequences import casing_length
from zymon.core.bench.sheet import work
from zymon.core.constants import SECONDS_PER_DAY
from zymon.core.planning.before import stretches, thaw_days
from zymon.core.planning.slip import outlook, slip
from zymon.core.planning.way import Moments, Window, window
from zymon.core.say import Said, said
from zymon.core.schedule import Elasticity

from ..premises import moment
from ..schemas import all_said, said_out
from . import schemas as s
from .room import clash_out, water_out
from .survey import Planned, Survey

NO_STEP_S = 60.0


def when(seconds: float) -> datetime | None:
    """A moment as it is sent; None where nobody can say. Parameters: seconds [s], inf for never."""
    return moment(seconds) if np.isfinite(seconds) else None


def window_out(window: Window) -> s.MomentOut:
    """A window as it is sent."""
    return s.MomentOut(p10=when(window.p10), p50=when(window.p50), p90=when(window.p90))


def plan_out(survey: Survey, planned: Planned) -> s.PlanOut:
    """A plan as it stands, or as it would be."""
    setting, goods, plan = planned.set, planned.goods, planned.plan
    moments = moments_of(planned)
    worked = work(goods.sheet.to_core())
    cased = goods.sheet.plan.to_core().cased
    return s.PlanOut(
        id=None if plan is None else plan.id,
        setting_id=None if planned.stored is None else planned.stored.id,
        state=state_of(planned),
        batch_id=None if plan is None else plan.batch_id,
        batch=None if plan is None or plan.batch is None else plan.batch.code,
        weigh_out_id=None if plan is None else plan.weigh_out_id,
        occasion=setting.occasion,
        product=setting.product,
        kind=goods.sheet.plan.kind,
        shape=goods.sheet.plan.shape,
        family=goods.sheet.plan.family,
        minced=goods.in_the_mince,
        across_mm=goods.sheet.plan.across_mm,
        pieces=setting.pieces,
        table_g=round(goods.piece.table_g, 1),
        piece_g=round(goods.piece.raw_g, 1),
        hung_g=round(goods.piece.hung_g, 1),
        meat_g=round(worked.meat_g, 1),
        casing_mm=casing_length(worked.total_g, goods.sheet.plan.across_mm, setting.pieces) if cased else None,
        target_loss_percent=goods.sheet.plan.target_loss_percent,
        wanted=moment(setting.wanted_s),
        start=moment(planned.start_s if planned.standing else setting.start_s),
        wait_days=setting.wait_s / SECONDS_PER_DAY,
        rest_days=setting.rest_s / SECONDS_PER_DAY,
        frozen=setting.frozen,
        order_days=setting.order_days,
        asked_chance=setting.asked,
        chance=round(planned.chance, 3),
        place_id=setting.place_id,
        place=survey.places[setting.place_id].name,
        by="" if planned.stored is None else planned.stored.by,
        steps=steps_of(planned, moments),
        hung=window_out(moments.hung),
        done=window_out(moments.done),
        table=window_out(moments.table),
        before=_before(survey, planned),
        hanging=s.LyingSpan(
            place_id=setting.place_id,
            start=moment(moments.hung.p50),
            until=when(moments.done.p50),
            latest=when(moments.done.p90),
        ),
        stretches=stretches(goods.parts),
        clash=clash_out(survey, planned),
        water=water_out(survey, planned),
        slip=slip_of(planned, survey.now_s),
        assumed=all_said(survey.assumed(planned)),
    )


def moments_of(planned: Planned) -> Moments:
    """When its steps are: those that happened as they did, the others as they are drawn."""
    if planned.standing is None:
        return planned.way.moments(planned.start_s)
    table = planned.table_s.max(axis=1)
    hung = planned.standing.hung_s
    ahead = Window(hung, hung, hung) if hung is not None else window(planned.start_s + planned.way.before_s)
    return Moments(ahead, window(table - planned.set.rest_s), window(table))


def state_of(planned: Planned) -> s.PlanState:
    """What has become of a plan so far."""
    if planned.standing is None:
        return "weighing" if planned.weighing else "planned"
    if planned.standing.down_s is not None:
        return "done"
    return "hanging" if planned.standing.hangs else "made"


def steps_of(planned: Planned, moments: Moments) -> list[s.PlanStep]:
    """What is done, in the order of the work; what falls together with its start is no step of its own."""
    start_s, setting, steps = planned.start_s, planned.set, []

    def add(kind: s.StepKind, elasticity: Elasticity, title: Said, at: Window) -> None:
        steps.append(s.PlanStep(kind=kind, elasticity=elasticity, title=said_out(title), when=window_out(at)))

    def day(days_before: float) -> Window:
        early_s, late_s = (
            (start_s, start_s) if planned.standing is not None else planned.way.starts.between(setting.wanted_s)
        )
        around = (min(early_s, start_s), start_s, max(late_s, start_s))
        return Window(*(at_s - days_before * SECONDS_PER_DAY for at_s in around))

    heaviest_g = max((part.weight_g for part in planned.goods.sheet.parts), default=0.0)
    thaws = thaw_days(min(heaviest_g, planned.goods.piece.raw_g) if not planned.goods.in_the_mince else heaviest_g)
    before = thaws if setting.frozen else 0
    if planned.standing is None:
        if setting.order_days:
            add("order", "firm", said("plan.step_order"), day(setting.order_days + before))
        if setting.frozen:
            add("thaw", "elastic", said("plan.step_thaw"), day(thaws))
    minced = planned.goods.in_the_mince
    add("start", "firm" if minced else "elastic", said("plan.step_stuff" if minced else "plan.step_salt"), day(0))
    if moments.hung.p50 - start_s > NO_STEP_S:
        add("hang", "elastic" if stretches(planned.goods.parts) else "firm", said("plan.step_hang"), moments.hung)
    add("done", "weight_led", said("plan.step_done"), moments.done)
    if setting.rest_s:
        add("table", "elastic", said("plan.step_table", days=round(setting.rest_s / SECONDS_PER_DAY)), moments.table)
    return steps


def _before(survey: Survey, planned: Planned) -> list[s.LyingSpan]:
    """Where it lies before its hook."""
    placed = [(survey.rooms.of(kind), stay) for kind, stay in planned.before_the_hook]
    return [
        s.LyingSpan(place_id=place.id, start=moment(stay.from_s), until=when(stay.until_s), latest=when(stay.latest_s))
        for place, stay in placed
        if place is not None
    ]


def slip_of(planned: Planned, now_s: int) -> s.SlipOut | None:
    """What slipped of a plan that is kept, what can be done, what the customer should be told; None: nothing did."""
    if planned.plan is None:
        return None
    setting = planned.set
    stands = outlook(planned.table_s, setting.wanted_s, setting.asked)
    begun = planned.standing is not None or planned.weighing
    kind = slip(stands, setting.asked, setting.start_s, begun, now_s)
    if kind is None:
        return None
    percent = round(100 * stands.chance)
    says = said(f"plan.slip_{kind}", start_day_s=setting.start_s, percent=percent)
    asked, anew = round(100 * setting.asked), moment(now_s) if kind == "not_begun" else None
    ways, customer = [], said("plan.customer_none", product=setting.product)
    if np.isfinite(stands.all_by_s):
        by_s = float(np.ceil(stands.all_by_s / SECONDS_PER_DAY) * SECONDS_PER_DAY)
        customer = said("plan.customer_later", by_day_s=by_s, percent=asked, pieces=setting.pieces)
        later = said("plan.replan_later", by_day_s=by_s, percent=asked)
        ways.append(s.WayOutOut(kind="later", says=said_out(later), wanted=moment(by_s), start=anew))
    if 0 < stands.in_time < setting.pieces:
        fewer = said("plan.replan_smaller", pieces=stands.in_time, percent=asked, wanted_day_s=setting.wanted_s)
        ways.append(s.WayOutOut(kind="smaller", says=said_out(fewer), pieces=stands.in_time, start=anew))
        if customer.code == "plan.customer_later":
            customer = said(
                "plan.customer_some", fit=stands.in_time, wanted_day_s=setting.wanted_s, percent=asked,
                pieces=setting.pieces, by_day_s=customer.values["by_day_s"],
            )  # fmt: skip
    return s.SlipOut(kind=kind, says=said_out(says), customer=said_out(customer), ways=ways)
