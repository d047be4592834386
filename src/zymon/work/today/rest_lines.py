"""The round at the Rest: what is likely even and wants fingers, bags that leak, bags that lie too warm."""

from collections.abc import Iterable

from zymon.core.say import said
from zymon.core.schedule import Chore

from ..premises import Premises
from ..rest.schemas import RestCard
from ..rest.views import at_rest
from .line import DAY_S, LineOfRound

SQUEEZE_AGAIN_S = 7 * DAY_S  # after a squeeze that found it uneven


def rest_lines(shop: Premises, order: dict[str, int]) -> Iterable[LineOfRound]:
    """What rests and wants a hand; what evens out by itself may wait and is not told."""
    for card in at_rest(shop).pieces:
        place_order = order.get(card.place or "", 0)
        if card.state in ("leaks", "soft"):
            yield _line(card, card.state, place_order, shop.now_s, firm=True)
        elif card.state == "likely" and _not_just_squeezed(card, shop.now_s):
            yield _line(card, "squeeze", place_order, shop.now_s, firm=False)
        elif card.state == "even":
            yield _line(card, "even", place_order, shop.now_s, firm=False)
        if card.cautions:
            yield _line(card, "warm_bag", place_order, shop.now_s, firm=True)


def _not_just_squeezed(card: RestCard, now_s: int) -> bool:
    return card.squeezed is None or now_s - card.squeezed.at.timestamp() > SQUEEZE_AGAIN_S


def _line(card: RestCard, what: str, place_order: int, now_s: int, firm: bool) -> LineOfRound:
    kind, latest_s = ("firm", now_s + DAY_S) if firm else ("elastic", None)
    chore = Chore(f"rest-{what}-{card.id}", "rest", place_order, kind, now_s, now_s, latest_s)  # type: ignore[arg-type]
    return LineOfRound(
        chore,
        said(f"today.rest_{what}", tag=card.tag),
        said("today.product", product=card.product),
        card.place,
        said(f"cost.rest_{what}"),
        link=f"/rest/{card.id}",
    )
