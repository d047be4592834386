"""Plans: batches that are to be made, as they are set now; what they became."""

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload, selectinload

from .places import ClashError, place, there
from .plan_models import Plan, PlanSetting
from .struck import counted, strike

_LOADED = (
    selectinload(Plan.settings).options(joinedload(PlanSetting.place), joinedload(PlanSetting.recipe_version)),
    joinedload(Plan.batch),
    joinedload(Plan.weigh_out),
)


def plans(session: Session) -> list[Plan]:
    """The plans that stand, the first first."""
    query = select(Plan).where(Plan.struck_s.is_(None)).options(*_LOADED).order_by(Plan.id)
    return list(session.scalars(query).unique())


def plan(session: Session, plan_id: int) -> Plan:
    """One plan. Raises NotFoundError, and ClashError for one that was given up."""
    found = there(session, Plan, plan_id, "refused.no_plan")
    if found.struck_s is not None:
        raise ClashError("refused.plan_given_up")
    return found


def set_now(plan: Plan) -> PlanSetting:
    """How a plan is set now: the latest setting that stands."""
    return counted(plan.settings)[-1]


def set_at(plan: Plan, at_s: int) -> PlanSetting:
    """How a plan was set at a time; at first, before that. Parameters: at_s [s]."""
    standing = counted(plan.settings)
    return next((one for one in reversed(standing) if one.at_s <= at_s), standing[0])


def add_setting(session: Session, plan: Plan, new: PlanSetting) -> PlanSetting:
    """Set a plan anew. Raises NotFoundError for a place that is not there."""
    place(session, new.place_id)
    plan.settings.append(new)
    session.add(plan)
    session.flush()
    return new


def strike_setting(session: Session, setting_id: int, reason: str, by: str, now_s: int) -> PlanSetting:
    """Take a setting back: the one before counts. Raises ClashError for an older one, or the only one."""
    found = there(session, PlanSetting, setting_id, "refused.no_plan")
    standing = counted(found.plan.settings)
    if not standing or standing[-1].id != found.id:
        raise ClashError("refused.plan_set_since")
    if len(standing) == 1:
        strike(found.plan, reason, by, now_s)
        return found
    strike(found, reason, by, now_s)
    return found


def plan_of_weigh_out(session: Session, weigh_out_id: int) -> Plan | None:
    """The plan that a weigh-out was begun from."""
    return session.scalar(select(Plan).where(Plan.weigh_out_id == weigh_out_id, Plan.struck_s.is_(None)))


def plan_became(session: Session, weigh_out_id: int, batch_id: int) -> None:
    """What was weighed out from a plan is its batch, unless that came of another plan."""
    of = plan_of_weigh_out(session, weigh_out_id)
    if of is not None and batch_id not in batches_of_plans(session):
        of.batch_id = batch_id


def batches_of_plans(session: Session) -> set[int]:
    """The batches that came of a plan."""
    query = select(Plan.batch_id).where(Plan.batch_id.is_not(None), Plan.struck_s.is_(None))
    return {found for found in session.scalars(query) if found is not None}
