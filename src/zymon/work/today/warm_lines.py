"""The round at the Warm: when to measure, what the hand does besides, what is wrong."""

from collections.abc import Iterable

from zymon.core.fermentation.touches import touches
from zymon.core.say import Said, said
from zymon.core.schedule import Chore, Elasticity
from zymon.store import warm
from zymon.store.database import Session
from zymon.store.places import air_now
from zymon.store.struck import counted

from ..places import STALE_S
from ..warm.schemas import WarmCard
from ..warm.views import card_of as warm_card
from ..warm.views import waiting as waiting_for_warmth
from .line import DAY_S, LineOfRound
from .schemas import ActionOut


def warm_lines(session: Session, order: dict[str, int], now_s: int) -> Iterable[LineOfRound]:
    """When to measure, what is wrong, what may go on; batches whose warm stage nobody declared."""
    for unwarmed in waiting_for_warmth(session):
        at = unwarmed.made_at.timestamp()
        chore = Chore(f"warm-{unwarmed.batch_id}", "warm", 0, "firm", at, at, at + DAY_S)
        yield LineOfRound(
            chore,
            said("today.declare_warm", batch=unwarmed.batch),
            said("today.product", product=unwarmed.product),
            cost=said("cost.degree_hours_uncounted"),
            link="/warm",
        )
    for stage in warm.in_the_warm(session, now_s):
        batch = warm.warm_batch(session, stage, now_s, coarse=True)
        card = warm_card(session, batch)
        place_order = order.get(card.place, 0)
        yield from _fermenting(card, place_order, now_s)
        if card.state != "over_allowance":
            yield from _touches(session, batch, card, place_order)


def _fermenting(card: WarmCard, place_order: int, now_s: int) -> Iterable[LineOfRound]:
    def line(name: str, title: Said, detail: Said, cost: Said, at: float, latest: float) -> LineOfRound:
        chore = Chore(f"{name}-{card.batch_id}", "warm", place_order, "firm", at - 1800, at, latest)
        return LineOfRound(chore, title, detail, card.place, cost, link=f"/warm/{card.batch_id}")

    if card.state == "over_allowance":
        over = said("today.over_allowance", batch=card.batch)
        yield line("over", over, said("today.product", product=card.product), said("cost.lost"), now_s, now_s)
    elif card.measured_at is None and card.measure_next is not None:
        at = card.measure_next.timestamp()
        first = card.causes[0] if card.causes else None
        why = said("today.product", product=card.product) if first is None else said(first.code, **first.values)
        name = f"ph-{card.last_at.timestamp():.0f}" if card.last_at else "ph-first"
        yield line(
            name, said("today.measure_ph", batch=card.batch), why, said("cost.allowance_runs"), at, at + 3 * 3600
        )


def _touches(session: Session, batch: warm.WarmBatch, card: WarmCard, place_order: int) -> Iterable[LineOfRound]:
    stuffed_s = batch.stage.stuffed_s

    def hour(at_s: float) -> float:
        return (at_s - stuffed_s) / 3600

    done: dict[str, float] = {e.kind: hour(e.at_s) for e in counted(batch.events)}
    now_hour = batch.fermentation.now_hour
    now_s = int(stuffed_s + now_hour * 3600)
    air = air_now(session, card.place_id, now_s)
    rh = air.rh_percent if air is not None and now_s - air.at_s < STALE_S else None
    measured = None if card.measured_at is None else hour(card.measured_at.timestamp())
    for turn, touch in enumerate(touches(done, now_hour, measured, rh)):
        from_s, latest_s = (stuffed_s + h * 3600 for h in (touch.from_hour, touch.latest_hour))
        name = f"{touch.ways[0]}-{card.batch_id}" + (f"-{from_s:.0f}" if touch.ways == ("spray",) else "")
        elasticity: Elasticity = "firm" if touch.firm or card.state == "too_low" else "elastic"
        detail = said("today.product", product=card.product)
        if touch.ways == ("spray",) and rh is not None:
            detail = said("today.box_at", product=card.product, rh_percent=round(rh))
        yield LineOfRound(
            Chore(name, "warm", place_order, elasticity, from_s, from_s + turn, latest_s),
            said(f"today.warm_{touch.ways[0]}", batch=card.batch),
            detail,
            card.place,
            touch.cost,
            action=ActionOut(station="warm", kinds=list(touch.ways), batch_id=card.batch_id),
            link=f"/warm/{card.batch_id}",
        )
