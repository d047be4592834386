"""What goes wrong with a piece, on what evidence, and what each way of mending it would do."""

from datetime import datetime

from pydantic import BaseModel

from zymon.core.drying.mend import Mend, Trouble, Way, mending
from zymon.store import hang as store
from zymon.store.models import Rod

from ..as_forecast import hook_name
from ..bench.prices import finished_price_per_kg
from ..premises import Premises, moment
from ..schemas import SaidOut, all_said


class HookRef(BaseModel):
    """A hook to move to."""

    rod_id: int
    rod: int
    hook: int


class MendOut(BaseModel):
    """One thing to do: the new date, how many days later, and the strongest ring index still to come."""

    way: Way
    hook: HookRef | None
    rh_percent: float | None
    ready: datetime | None
    days_later: float | None
    ring_index: float | None
    weeks: float | None


class MendingOut(BaseModel):
    """The trouble of a piece; ring index as it is now going, and when it is past its target."""

    trouble: Trouble
    evidence: list[SaidOut]
    place_wide: bool
    ring_index: float
    over_at: datetime | None
    loss_g_per_day: float
    loss_money_per_day: float | None  # by the prices of its sheet; null where it has none
    mends: list[MendOut]


class WellOrNot(BaseModel):
    """What is wrong with a piece; null where nothing is."""

    mending: MendingOut | None


def mend(shop: Premises, piece_id: int) -> WellOrNot:
    """What goes wrong with a hanging piece and what would mend it; null for one that dries well or was taken down."""
    with shop.db.reading() as session:
        of = store.piece(session, piece_id)
        if store.hanging_now(of) is None:
            return WellOrNot(mending=None)
        place = store.last_hanging(of).rod.place
        fit, index = shop.dates.fitted_piece(session, of, shop.now_s)
        hanging = store.pieces_hanging(session, place.id)
        tags = {p.tag: i for i, p in enumerate(fit.arrays.pieces)}
        taken = {hook_name(store.last_hanging(p)) for p in hanging}
        rods = {rod.id: rod for rod in place.rods}
        free = [f"{rod.id}/{n}" for rod in place.rods for n in range(1, rod.hooks + 1)]
        price = finished_price_per_kg(session, of.batch_id)
        mates = [tags[p.tag] for p in hanging if p.id != of.id and p.tag in tags]
    found = mending(fit, index, [name for name in free if name not in taken], mates)
    if found is None:
        return WellOrNot(mending=None)
    return WellOrNot(
        mending=MendingOut(
            trouble=found.trouble,
            evidence=all_said(found.evidence),
            place_wide=found.place_wide,
            ring_index=round(found.ring_index, 3),
            over_at=None if found.over_at_s is None else moment(found.over_at_s),
            loss_g_per_day=round(found.loss_g_per_day, 1),
            loss_money_per_day=None if price is None else round(price * found.loss_g_per_day / 1000, 3),
            mends=[_mend_out(m, rods) for m in found.mends],
        )
    )


def _mend_out(mend: Mend, rods: dict[int, Rod]) -> MendOut:
    hook = None
    if mend.hook is not None:
        rod_id, number = (int(part) for part in mend.hook.split("/"))
        hook = HookRef(rod_id=rod_id, rod=rods[rod_id].number, hook=number)
    return MendOut(
        way=mend.way,
        hook=hook,
        rh_percent=mend.rh_percent,
        ready=None if mend.ready_p50_s is None else moment(mend.ready_p50_s),
        days_later=None if mend.days_later is None else round(mend.days_later, 1),
        ring_index=None if mend.ring_index is None else round(mend.ring_index, 3),
        weeks=None if mend.weeks is None else round(mend.weeks, 1),
    )
