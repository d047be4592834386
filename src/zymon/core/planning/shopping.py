"""What has to be bought for planned batches: meat with what trimming takes, salts, culture, casings, bags."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..bench.consequences import Plan, casing_length, pieces_of
from ..bench.sheet import Sheet, work
from ..drying.history import Casing

Goods = Literal["meat", "salt", "curing_salt", "culture", "spice", "casing", "bag"]
Unit = Literal["g", "mm", "pieces", "packs"]
ORDER: tuple[Goods, ...] = ("meat", "salt", "curing_salt", "culture", "spice", "casing", "bag")

USUAL_TRIM = 0.08  # of what is bought, for sinew, skin and edges; estimate of practice
CULTURE_PACK_G = 25.0  # usual sachet
BAG_SPARE = 0.1  # share of bags that leak or are cut wrong; estimate


@dataclass(frozen=True)
class Batch:
    """A planned batch as the list sees it: its sheet for all of it, its way with casing and bags."""

    name: str
    sheet: Sheet
    plan: Plan
    casing: Casing
    salted_in_bag: bool
    rests_in_bag: bool


@dataclass(frozen=True)
class Item:
    """Something to buy, for which batches; `trim`: the share that trimming is taken to take, None where it is known."""

    goods: Goods
    what: str
    amount: float
    unit: Unit
    batches: tuple[str, ...]
    trim: float | None = None


def shopping(batches: Sequence[Batch], culture_pack_g: float = CULTURE_PACK_G) -> list[Item]:
    """What has to be bought, the same things of several batches together.

    Parameters: batches; culture_pack_g [g], of a pack, above 0. Casings are told with their spare; of meat that was
    bought before the sheet's own share of trimming counts, else what is usual.
    """
    found: dict[tuple[Goods, str, Unit, float | None], tuple[float, list[str]]] = {}
    for batch in batches:
        for item in _items(batch):
            key = (item.goods, item.what.strip().casefold(), item.unit, item.trim)
            amount, names = found.setdefault(key, (0.0, []))
            if batch.name not in names:
                names.append(batch.name)
            found[key] = (amount + item.amount, names)
    names_of = {(i.goods, i.what.strip().casefold()): i.what.strip() for b in batches for i in _items(b)}
    items = [
        Item(goods, names_of[goods, what], amount, unit, tuple(names), trim)
        for (goods, what, unit, trim), (amount, names) in found.items()
    ]
    in_packs = [_packed(item, culture_pack_g) if item.goods == "culture" else item for item in items]
    return sorted(in_packs, key=lambda item: (ORDER.index(item.goods), item.what.casefold()))


def _packed(item: Item, pack_g: float) -> Item:
    packs = -int(-item.amount // pack_g)
    return Item(item.goods, item.what, float(packs), "packs", item.batches)


def _items(batch: Batch) -> list[Item]:
    worked = work(batch.sheet)
    grams, own = worked.grams, (batch.name,)
    items = []
    for part in batch.sheet.parts:
        if part.bought_g is not None:
            items.append(Item("meat", part.name, part.bought_g, "g", own))
        else:
            items.append(Item("meat", part.name, part.weight_g / (1 - USUAL_TRIM), "g", own, USUAL_TRIM))
    if grams.get("salt"):
        items.append(Item("salt", "salt", grams["salt"], "g", own))
    if batch.sheet.curing is not None and grams.get("curing"):
        items.append(Item("curing_salt", batch.sheet.curing.name, grams["curing"], "g", own))
    for i, line in enumerate(batch.sheet.lines):
        amount = grams.get(f"line-{i}", 0.0)
        if amount > 0:
            items.append(Item("culture" if line.role == "culture" else "spice", line.name, amount, "g", own))
    pieces = pieces_of(worked, batch.plan)
    if batch.plan.cased:
        length = casing_length(worked.total_g, batch.plan.across_mm, pieces)
        items.append(Item("casing", f"{batch.casing} ø {batch.plan.across_mm:.0f}", length, "mm", own))
    bags = pieces * (int(batch.salted_in_bag) + int(batch.rests_in_bag))
    if bags:
        items.append(Item("bag", "vacuum bag", float(-int(-bags * (1 + BAG_SPARE) // 1)), "pieces", own))
    return items
