"""The round at the planner: what is to be ordered, thawed and begun; whom to tell that it will not be in time."""

from collections.abc import Iterable

from zymon.core.constants import SECONDS_PER_DAY
from zymon.core.say import said
from zymon.core.schedule import Chore, Elasticity
from zymon.store.database import Session

from ..planner.schemas import PlanOut
from ..planner.survey import Survey
from ..planner.views import plan_out
from ..premises import Premises
from .line import LineOfRound

COMES_S = 7 * SECONDS_PER_DAY  # from when on a step is shown as coming
BEFORE_NOON_S = SECONDS_PER_DAY / 2


def plan_lines(shop: Premises, session: Session) -> Iterable[LineOfRound]:
    """What the plans want: each step on its day, and a word to whoever waits in vain."""
    survey = Survey(shop, session, shop.ways)
    for one in survey.plans:
        told = plan_out(survey, one)
        yield from _steps(told, shop.now_s)
        if told.slip is not None and told.state != "planned":
            yield _slipped(told, shop.now_s)


def _steps(of: PlanOut, now_s: int) -> Iterable[LineOfRound]:
    if of.state != "planned":
        return
    for step in of.steps:
        if step.kind not in ("order", "thaw", "start") or step.when.p50 is None:
            continue
        start = of.start if step.kind == "start" else step.when.p50
        best_s = start.timestamp()
        if best_s > now_s + COMES_S:
            continue
        elasticity: Elasticity = "firm"
        chore = Chore(
            f"plan-{step.kind}-{of.id}", "bench", 5, elasticity, best_s - BEFORE_NOON_S, best_s, best_s + BEFORE_NOON_S
        )
        yield LineOfRound(
            chore,
            said(f"today.plan_{step.kind}", product=of.product, pieces=of.pieces),
            said("today.plan_for", wanted_day_s=of.wanted.timestamp(), percent=round(100 * of.chance)),
            of.place if step.kind == "start" else None,
            said("cost.plan_later"),
            link=f"/ahead?plan={of.id}",
        )


def _slipped(of: PlanOut, now_s: int) -> LineOfRound:
    assert of.slip is not None
    chore = Chore(f"plan-slip-{of.id}", "bench", 6, "elastic", now_s, now_s, now_s + SECONDS_PER_DAY)
    return LineOfRound(
        chore,
        said("today.plan_slipped", product=of.product, wanted_day_s=of.wanted.timestamp(), pieces=of.pieces),
        said(of.slip.customer.code, **of.slip.customer.values),
        cost=said("cost.customer_waits"),
        link=f"/ahead?plan={of.id}",
    )
