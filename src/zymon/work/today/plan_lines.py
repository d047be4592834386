"""The round at the planner: what is to be ordered, thawed and begun; whom to tell that it will not be in time."""

from collections.abc import Iterable

from zymon.core.constants import SECONDS_PER_DAY
from zymon.core.say import said
from zymon.core.schedule import Chore
from zymon.store.database import Session

from ..planner.survey import Planned, Survey
from ..planner.views import moments_of, slip_of, state_of, steps_of
from ..premises import Premises
from .line import LineOfRound

SHOWN_BEFORE_S = 14 * SECONDS_PER_DAY  # a step is no matter of the day before that
HALF_A_DAY_S = SECONDS_PER_DAY / 2
OF_THE_ROUND = ("order", "thaw", "start")


def plan_lines(shop: Premises, session: Session) -> Iterable[LineOfRound]:
    """What the plans want: each step on its day, and a word to whoever waits in vain."""
    for one in Survey(shop, session, shop.ways).plans:
        if state_of(one) == "planned":
            yield from _steps(one)
        else:
            yield from _slipped(one, shop.now_s)


def _steps(of: Planned) -> Iterable[LineOfRound]:
    assert of.plan is not None
    chance = said("today.plan_for", wanted_day_s=of.set.wanted_s, percent=round(100 * of.chance))
    for step in steps_of(of, moments_of(of)):
        if step.kind not in OF_THE_ROUND or step.when.p50 is None:
            continue
        best_s = of.set.start_s if step.kind == "start" else step.when.p50.timestamp()
        chore = Chore(
            f"plan-{step.kind}-{of.plan.id}", "bench", 5, "firm", best_s - HALF_A_DAY_S, best_s, best_s + HALF_A_DAY_S
        )
        yield LineOfRound(
            chore,
            said(f"today.plan_{step.kind}", product=of.set.product, pieces=of.set.pieces),
            chance,
            cost=said("cost.plan_later"),
            link=f"/ahead?plan={of.plan.id}",
            shown_from_s=best_s - SHOWN_BEFORE_S,
        )


def _slipped(of: Planned, now_s: int) -> Iterable[LineOfRound]:
    assert of.plan is not None
    slip = slip_of(of, now_s)
    if slip is None:
        return
    chore = Chore(f"plan-slip-{of.plan.id}", "bench", 6, "elastic", now_s, now_s, now_s + SECONDS_PER_DAY)
    yield LineOfRound(
        chore,
        said("today.plan_slipped", product=of.set.product, wanted_day_s=of.set.wanted_s, pieces=of.set.pieces),
        said(slip.customer.code, **slip.customer.values),
        cost=said("cost.customer_waits"),
        link=f"/ahead?plan={of.plan.id}",
    )
