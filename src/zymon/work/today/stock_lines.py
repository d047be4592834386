"""The round at the stock: what was opened and must be used, what is past its best-before day or soon will be."""

from collections.abc import Iterable

from zymon.core.say import said
from zymon.core.schedule import Chore
from zymon.core.stock.packs import SOON_DAYS

from ..keep.schemas import PackOut
from ..keep.views import stock
from ..premises import Premises
from .line import DAY_S, LineOfRound


def stock_lines(shop: Premises) -> Iterable[LineOfRound]:
    """What the stock wants: the opened first."""
    for pack in stock(shop).packs:
        if pack.use_by is None or pack.id is None:
            continue
        use_by_s = int(pack.use_by.timestamp())
        if use_by_s > shop.now_s + SOON_DAYS * DAY_S:
            continue
        what = "opened" if pack.opened else "past" if use_by_s < shop.now_s else "soon"
        yield _line(pack, what, use_by_s, shop.now_s)


def _line(pack: PackOut, what: str, use_by_s: int, now_s: int) -> LineOfRound:
    begins_s = min(use_by_s - SOON_DAYS * DAY_S, now_s)
    chore = Chore(f"stock-{what}-{pack.id}", "rest", 90, "elastic", begins_s, max(use_by_s - DAY_S, now_s), use_by_s)
    return LineOfRound(
        chore,
        said(f"today.stock_{what}", tag=pack.tag, until_s=use_by_s),
        said("today.product", product=pack.product),
        pack.place,
        said(f"cost.stock_{what}"),
        link=f"/rest/stock/{pack.id}",
    )
