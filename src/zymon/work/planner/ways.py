"""The ways of planned batches, kept: what costs a run of the drying model is run once for goods that are alike."""

import threading
from collections import OrderedDict
from collections.abc import Hashable
from dataclasses import dataclass, replace

from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import Fitted, fitted
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.planning.way import Way, find_way
from zymon.core.say import Said, said
from zymon.store.database import Session

from ..dates import FRESH_FOR_S, Dates, history_of
from .goods import Goods

LOOKS_AHEAD_S = 3 * 366 * 86_400  # the farthest day that is planned for
MOST_KEPT = 500


@dataclass(frozen=True)
class _Kept:
    made_s: int
    way: Way


class Ways:
    """The ways of planned batches by place and goods; none is older than a quarter of an hour."""

    def __init__(self, dates: Dates) -> None:
        self._dates = dates
        self._kept: OrderedDict[Hashable, _Kept] = OrderedDict()
        self._empty: dict[int, Fitted] = {}  # of places in which nothing hangs
        self._lock = threading.Lock()

    def of(
        self, session: Session, place_id: int, goods: Goods, now_s: int, rest_s: int, wait_s: int, batch: int = 0
    ) -> Way:
        """The way of goods that would hang in a place, for every start from now on.

        Parameters: batch, its number among those planned together. Raises OutOfRangeError, NotFoundError.
        """
        parts = tuple(part.takes_s.tobytes() for part in goods.parts)
        key = (place_id, goods.wanted[0], len(goods.wanted), parts, rest_s, wait_s, batch)
        with self._lock:
            kept = self._kept.get(key)
            if kept is None or not 0 <= now_s - kept.made_s < FRESH_FOR_S:
                fit = self._fit(session, place_id, goods.wanted[0], now_s)
                from_s = max(float(now_s), fit.arrays.now_s)
                until_s = from_s + LOOKS_AHEAD_S
                way = find_way(fit, goods.wanted, goods.parts, rest_s, from_s, until_s, wait_s, batch)
                kept = self._kept[key] = _Kept(now_s, way)
                while len(self._kept) > MOST_KEPT:
                    self._kept.popitem(last=False)
            self._kept.move_to_end(key)
            return kept.way

    def assumed(self, session: Session, place_id: int, goods: Goods, now_s: int) -> tuple[Said, ...]:
        """What is taken as usual of the air of a place because nobody measured it; that its dates are a guess."""
        with self._lock:
            history = self._fit(session, place_id, goods.wanted[0], now_s).history
        outside = history.outside(goods.wanted[0])
        return (*history.assumed, said("assumed.outside")) if outside else history.assumed

    def log(self, session: Session, place_id: int, goods: Goods, now_s: int) -> Log:
        """What was measured in a place, as the forecast uses it."""
        with self._lock:
            return self._fit(session, place_id, goods.wanted[0], now_s).history.log

    def _fit(self, session: Session, place_id: int, trial: CorePiece, now_s: int) -> Fitted:
        """What the weighings of a place taught; of one in which nothing hangs, its air alone."""
        fit = self._dates.of_place(session, place_id, now_s).fit
        if fit is not None:
            return fit
        kept = self._empty.get(place_id)
        if kept is None or not 0 <= now_s - kept.history.now_s < FRESH_FOR_S:
            history = history_of(session, place_id, now_s)
            kept = fitted(replace(history, pieces=(replace(trial, hung_at_s=float(now_s)),)))
            self._empty[place_id] = kept
        return kept
