"""What the planner sees at one look: every plan with its way, every hook that is in use, the water of each place."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from zymon.core.constants import SECONDS_PER_DAY
from zymon.core.drying.forecast import PieceForecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.planning.ahead import Counts, days_ahead, in_use
from zymon.core.planning.before import PartKind
from zymon.core.planning.way import Stay, Way, window
from zymon.core.say import Said
from zymon.store import plans as store
from zymon.store.database import Session
from zymon.store.hang import pieces_hanging
from zymon.store.models import Piece, Place
from zymon.store.places import places
from zymon.store.plan_models import Plan, PlanSetting
from zymon.store.sensors import most_removed

from ..as_forecast import core_piece
from ..premises import Premises
from .goods import Goods, Rooms, goods_of, rooms_of
from .lying import Lying, hanging, in_salt, in_the_warm, stays_until
from .standing import Standing, stand
from .ways import Ways

Array = npt.NDArray[np.float64]
WEEKS = 26  # that are looked at


@dataclass(frozen=True)
class Setting:
    """How a batch is or would be planned; times in seconds."""

    occasion: str
    product: str
    sheet: str  # as JSON
    pieces: int
    table_g: float
    place_id: int
    wanted_s: int
    start_s: int
    wait_s: int
    rest_s: int
    frozen: bool
    order_days: int
    asked: float


def setting_of(plan_setting: PlanSetting) -> Setting:
    """A stored setting as the planner sees it."""
    return Setting(
        plan_setting.occasion,
        plan_setting.product,
        plan_setting.sheet,
        plan_setting.pieces,
        plan_setting.table_g,
        plan_setting.place_id,
        plan_setting.wanted_s,
        plan_setting.start_s,
        plan_setting.wait_s,
        plan_setting.rest_s,
        plan_setting.frozen,
        plan_setting.order_days,
        plan_setting.asked_chance,
    )


@dataclass(frozen=True)
class Planned:
    """A batch as it is or would be planned, with its way; `standing` once it was begun."""

    plan: Plan | None
    stored: PlanSetting | None
    set: Setting
    goods: Goods
    way: Way
    standing: Standing | None
    now_s: int

    @property
    def start_s(self) -> float:
        """When it was or is to be begun; what should have been begun by now is begun now at the earliest [s]."""
        if self.standing is not None:
            return self.standing.started_s
        return max(float(self.set.start_s), float(self.way.starts.begin_s[0]))

    @cached_property
    def table_s(self) -> Array:
        """When each piece is at the table in each future [s] (draws, pieces)."""
        if self.standing is None:
            return self.way.tables(self.start_s)
        came = self.standing.table_s
        missing = max(self.set.pieces - came.shape[1], 0)  # wanted, and never made
        ranked = np.sort(np.pad(came, ((0, 0), (0, missing)), constant_values=np.inf), axis=1)
        return ranked[:, : self.set.pieces]  # of more than are wanted the first count

    @cached_property
    def chance(self) -> float:
        """The chance that all that is wanted is in time."""
        return float((self.table_s.max(axis=1) <= self.set.wanted_s).mean())

    @property
    def weighing(self) -> bool:
        """Whether it is being weighed out."""
        begun = None if self.plan is None else self.plan.weigh_out
        return self.standing is None and begun is not None and begun.ended_s is None

    @property
    def done(self) -> bool:
        """Whether all of it is off its hooks, and none of what is wanted missing."""
        down = self.standing is not None and self.standing.down_s is not None
        return down and bool(np.isfinite(self.table_s).all())

    @cached_property
    def before_the_hook(self) -> list[tuple[PartKind, Stay]]:
        """Its steps before the hook, each with its time; none of what was begun, of which its own station tells."""
        found: list[tuple[PartKind, Stay]] = []
        at_s = self.start_s
        for part in () if self.standing is not None else self.goods.parts:
            ends = window(at_s + part.takes_s)
            found.append((part.kind, Stay(at_s, ends.p50, at_s, ends.p90)))
            at_s += part.usual_s
        return found

    @cached_property
    def stays(self) -> tuple[Stay, ...]:
        """The hooks it will take; none of what hangs already, which counts as what hangs."""
        if self.standing is None:
            return self.way.stays(self.start_s)
        if self.standing.hangs or self.standing.down_s is not None:
            return ()
        hung_s = self.standing.started_s + float(np.median(self.way.before_s))
        down = np.sort(self.standing.table_s - self.set.rest_s, axis=0)
        low, high = round(0.5 * (len(down) - 1)), round(0.9 * (len(down) - 1))
        from_s = max(hung_s, float(self.now_s))
        return tuple(Stay(from_s, float(one[low]), from_s, float(one[high])) for one in down.T)


class Survey:
    """One look at everything that is planned and hangs; it lasts as long as its session."""

    def __init__(self, shop: Premises, session: Session, ways: Ways) -> None:
        self.shop, self.session, self.ways = shop, session, ways
        self.now_s = shop.now_s
        self.days = days_ahead(self.now_s, WEEKS)
        self.rooms: Rooms = rooms_of(session, self.now_s)
        self.places: dict[int, Place] = {place.id: place for place in places(session)}
        self._hanging: dict[int, list[tuple[Piece, PieceForecast]]] = {}
        self._lying: dict[int, list[Lying]] = {}
        self._assumed: dict[tuple[int, CorePiece], tuple[Said, ...]] = {}
        self._of_plans: dict[int, tuple[Counts, Array]] = {}
        self._water: dict[int, Array] = {}
        self._managed: dict[int, float | None] = {}

    def look(
        self, setting: Setting, plan: Plan | None = None, stored: PlanSetting | None = None, number: int = 0
    ) -> Planned:
        """A setting with its way. Parameters: number, of it among what is planned together. Raises OutOfRangeError."""
        goods = goods_of(setting.sheet, setting.pieces, setting.table_g, self.rooms.warmth)
        way = self.ways.of(self.session, setting.place_id, goods, self.now_s, setting.rest_s, setting.wait_s, number)
        standing = None
        if plan is not None and plan.batch is not None:
            standing = stand(
                self.shop, self.session, self.ways, plan.batch, goods, setting.place_id, setting.rest_s, number
            )  # fmt: skip
        return Planned(plan, stored, setting, goods, way, standing, self.now_s)

    @cached_property
    def plans(self) -> list[Planned]:
        """Every plan that stands and is not done, the first to start first."""
        stored = {plan: store.set_now(plan) for plan in self._kept}
        found = [
            self.look(setting_of(one), plan, one, self.number_in(one.occasion, plan.id)) for plan, one in stored.items()
        ]
        return sorted((one for one in found if not one.done), key=lambda one: one.start_s)

    @cached_property
    def _kept(self) -> list[Plan]:
        return store.plans(self.session)

    def number_in(self, occasion: str, plan_id: int | None) -> int:
        """The number of a plan among those of its occasion, done or not; the next for a new one."""
        if not occasion:
            return 0
        ids = [plan.id for plan in self._kept if store.set_now(plan).occasion == occasion]
        return ids.index(plan_id) if plan_id in ids else len(ids)

    def hanging(self, place_id: int) -> list[tuple[Piece, PieceForecast]]:
        """What hangs in a place, with its forecast."""
        if place_id not in self._hanging:
            made = self.shop.dates.of_place(self.session, place_id, self.now_s).by_tag()
            self._hanging[place_id] = [(p, made[p.tag]) for p in pieces_hanging(self.session, place_id)]
        return self._hanging[place_id]

    @cached_property
    def _before_hooks(self) -> dict[int, list[Lying]]:
        salted, warmed = in_salt(self.session, self.now_s), in_the_warm(self.session, self.now_s)
        return {place_id: salted.get(place_id, []) + warmed.get(place_id, []) for place_id in salted | warmed}

    def lying(self, place_id: int) -> list[Lying]:
        """What is in a place now, batch by batch."""
        if place_id not in self._lying:
            before = self._before_hooks.get(place_id, [])
            self._lying[place_id] = [*hanging(self.hanging(place_id), self.now_s), *before]
        return self._lying[place_id]

    def lying_stays(self, place_id: int) -> list[Stay]:
        """The same piece by piece."""
        return [stay for one in self.lying(place_id) for stay in one.stays]

    def assumed(self, planned: Planned) -> tuple[Said, ...]:
        """What is taken as usual of a plan and of the air of its place because nobody gave it."""
        key = (planned.set.place_id, planned.goods.wanted[0])
        if key not in self._assumed:
            self._assumed[key] = self.ways.assumed(self.session, planned.set.place_id, planned.goods, self.now_s)
        return (*planned.goods.assumed, *self._assumed[key])

    def hooks(self, place_id: int) -> int | None:
        """How many pieces go into a place: its hooks, else what was said; None: nobody said."""
        of = self.places[place_id]
        return sum(rod.hooks for rod in of.rods) or of.room

    def others(self, place_id: int, without: int | None, before: Planned | None) -> list[Planned]:
        """The plans of a place beside one.

        Parameters: without, its id, None where it is not kept; before, only those that hang before this one.
        """
        return [
            one
            for one in self.plans
            if one.set.place_id == place_id
            and (one.plan is None or one.plan.id != without)
            and (before is None or _first(one, before))
        ]

    def used(self, place_id: int, without: int | None = None, before: Planned | None = None) -> Counts:
        """How many hooks of a place are likely in use on each of the days ahead. Parameters: as of `others`."""
        total = in_use(self.lying_stays(place_id), self.days).likely
        for one in self.others(place_id, without, before):
            total = total + self._own(one)[0]
        return total

    def water(self, place_id: int, without: int | None = None) -> Array:
        """The water that a place has to take on each of the days ahead [g]."""
        total = self._water_of_what_hangs(place_id)
        for one in self.others(place_id, without, None):
            total = total + self._own(one)[1]
        return total

    def _own(self, planned: Planned) -> tuple[Counts, Array]:
        """The hooks and the water of a plan on each of the days ahead."""
        if id(planned) not in self._of_plans:
            water = planned.way.water_g(planned.start_s, self.days) if planned.stays else np.zeros(len(self.days))
            self._of_plans[id(planned)] = (in_use(planned.stays, self.days).likely, water)
        return self._of_plans[id(planned)]

    def _water_of_what_hangs(self, place_id: int) -> Array:
        if place_id not in self._water:
            total = np.zeros(len(self.days))
            for piece, forecast in self.hanging(place_id):
                net_g, until = core_piece(piece).net_start_g, stays_until(forecast)[0]
                ends = np.stack([self.days, self.days + SECONDS_PER_DAY]).clip(max=until)
                lost = np.interp(ends, forecast.curve_s, forecast.curve_p50)
                total += net_g * (lost[1] - lost[0])
            self._water[place_id] = total
        return self._water[place_id]

    def managed_g(self, place_id: int) -> float | None:
        """The most water that a place was seen to take from its pieces in a day [g]; None: too little was weighed."""
        if place_id not in self._managed:
            self._managed[place_id] = most_removed(self.session, place_id)
        return self._managed[place_id]


def _first(one: Planned, other: Planned) -> bool:
    """Whether a plan hangs before another; of two that hang together the older one."""
    if not one.stays or not other.stays:
        return bool(one.stays)
    mine, theirs = one.stays[0].from_s, other.stays[0].from_s
    ids = [p.plan.id if p.plan is not None else 2**31 for p in (one, other)]
    return (mine, ids[0]) < (theirs, ids[1])
