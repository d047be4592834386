"""What has to be bought for the plans that begin in a span."""

from datetime import datetime

from zymon.core.errors import OutOfRangeError
from zymon.core.planning.shopping import Batch, shopping
from zymon.formats.tables import csv_table

from ..premises import Premises
from . import ahead_schemas as s
from .survey import Planned, Survey


def buying(shop: Premises, start: datetime, end: datetime, culture_pack_g: float) -> s.ShoppingOut:
    """The list of a span, of plans that are not begun. Raises OutOfRangeError for a span that ends before it begins."""
    if end < start:
        raise OutOfRangeError("refused.span_backwards")
    with shop.db.reading() as session:
        survey = Survey(shop, session, shop.ways)
        chosen = [
            one
            for one in survey.plans
            if one.standing is None and not one.weighing and start.timestamp() <= one.set.start_s <= end.timestamp()
        ]
    items = shopping([_batch(one) for one in chosen], culture_pack_g)
    return s.ShoppingOut(
        start=start,
        end=end,
        plans=len(chosen),
        culture_pack_g=culture_pack_g,
        lines=[
            s.ShoppingLine(
                goods=item.goods, what=item.what, amount=round(item.amount, 1), unit=item.unit,
                batches=list(item.batches), usual_trim=None if item.trim is None else round(100 * item.trim, 1),
            )
            for item in items
        ],
    )  # fmt: skip


def as_csv(shopping_out: s.ShoppingOut) -> str:
    """A list as CSV."""
    rows = ([x.goods, x.what, x.amount, x.unit, "; ".join(x.batches), x.usual_trim] for x in shopping_out.lines)
    return csv_table(["goods", "what", "amount", "unit", "for", "usual trim %"], rows)


def _batch(of: Planned) -> Batch:
    plan = of.goods.sheet.plan
    name = f"{of.set.pieces} × {of.set.product}"
    return Batch(
        name=name,
        sheet=of.goods.sheet.to_core(),
        plan=plan.to_core(),
        casing=plan.casing,
        salted_in_bag=plan.salting == "measured",
        rests_in_bag=of.set.rest_s > 0,
    )
