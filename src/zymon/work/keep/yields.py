"""What came of a batch, from the shop to the plate, and what it cost; what was thrown away is in no total."""

from collections.abc import Iterable, Sequence

from zymon.core.bench.consequences import ingredients_cost
from zymon.core.bench.sheet import work
from zymon.core.pieces import net_weight
from zymon.core.stock.yields import Step, yielded
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench
from zymon.store import keep as store
from zymon.store.bench_models import Making
from zymon.store.hang import gone, state_now
from zymon.store.keep_models import Packed
from zymon.store.models import Piece
from zymon.store.struck import counted
from zymon.store.weighings import standing

from ..as_forecast import cuts_that_count
from ..premises import Premises, moment
from . import schemas as s
from .views import packed_g


def yield_of(shop: Premises, batch_id: int) -> s.YieldOut:
    """What came of a batch. Raises NotFoundError."""
    with shop.db.reading() as session:
        batch = bench.batch(session, batch_id)
        making = bench.making_of(session, batch_id)
        lost = [p for p in batch.pieces if thrown_away(p)]
        good = [p for p in batch.pieces if not thrown_away(p)]
        packs = store.packs(session, [p.id for p in good])
        thrown_g = sum(g for g in map(_finished_g, lost) if g is not None) + _thrown_packs_g(packs)
        costs = store.costs_of(session, batch_id)
        found = yielded(
            [*_bought(making), ("hung", _sum(map(_hung_g, good))), ("finished", _sum(map(_finished_g, good))),
             ("usable", _usable_g(good, packs))],
            _ingredients(making),
            sum(c.amount for c in counted(costs)),
            thrown_g,
        )  # fmt: skip
        return s.YieldOut(
            batch_id=batch_id,
            batch=batch.code,
            product=batch.product,
            pieces=len(good),
            discarded=len(lost),
            steps=[s.YieldStep(**vars(one)) for one in found.steps],
            ingredients_cost=found.ingredients_cost,
            costs=[
                s.CostOut(id=c.id, kind=c.kind, amount=c.amount, note=c.note, at=moment(c.at_s), by=c.by,
                          struck_reason=c.struck_reason)
                for c in costs
            ],
            cost_per_finished_kg=found.cost_per_finished_kg,
            cost_per_usable_kg=found.cost_per_usable_kg,
            thrown_g=round(thrown_g, 1),
        )  # fmt: skip


def thrown_away(piece: Piece) -> bool:
    """Whether a piece was thrown away."""
    last = gone(piece)
    return last is not None and last.how == "discarded"


def _sum(grams: Iterable[float | None]) -> float | None:
    """All together; None where one was not weighed: a part of them says nothing of a yield."""
    known = list(grams)
    return sum(g for g in known if g is not None) if known and all(g is not None for g in known) else None


def _hung_g(piece: Piece) -> float | None:
    return None if piece.start_weight_g is None else net_weight(piece.start_weight_g, piece.tare_g)


def _finished_g(piece: Piece) -> float | None:
    """What a piece weighed last, net, with what was sliced off it; None while it hangs or where nobody weighed it."""
    weighed = standing(piece)
    if not piece.states or not weighed:
        return None
    return net_weight(weighed[-1].gross_g, piece.tare_g) + sum(c.before_g - c.after_g for c in cuts_that_count(piece))


def _usable_g(good: Iterable[Piece], packs: Sequence[Packed]) -> float | None:
    """What was packed, and what was kept, eaten, given or sold as it was [g]; None while one hangs, rests or waits."""
    found: list[float | None] = []
    for of in good:
        own = [p for p in packs if p.piece_id == of.id]
        now = state_now(of)
        if own:
            found.append(packed_g(own) - _thrown_packs_g(own))
        else:
            found.append(_finished_g(of) if now is not None and now.kind in ("kept", "gone") else None)
    return _sum(found)


def _thrown_packs_g(packs: Iterable[Packed]) -> float:
    return sum(e.number * p.net_g for p in packs for e in counted(p.events) if e.how == "discarded")


def _bought(making: Making | None) -> list[tuple[Step, float | None]]:
    if making is None:
        return [("bought", None), ("trimmed", None)]
    sheets = [SheetModel.model_validate_json(kept) for kept in (making.sheet, *(m.sheet for m in making.mixes))]
    parts = [part for sheet in sheets for part in sheet.parts]
    total_g = sum(work(sheet.to_core()).total_g for sheet in sheets)
    steps: list[tuple[Step, float | None]] = [
        ("bought", sum(part.bought_g or part.weight_g for part in parts)),
        ("trimmed", sum(part.weight_g for part in parts)),
    ]
    return [*steps, ("bowl", total_g)] if sheets[0].plan.goods == "minced" else steps


def _ingredients(making: Making | None) -> float | None:
    if making is None:
        return None
    costs = [
        ingredients_cost(core, work(core))
        for kept in (making.sheet, *(m.sheet for m in making.mixes))
        for core in [SheetModel.model_validate_json(kept).to_core()]
    ]
    known = [c for c in costs if c is not None]
    return sum(known) if known and len(known) == len(costs) else None
