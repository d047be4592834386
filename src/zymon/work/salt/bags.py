"""Pieces in salt as the rules see them: their salt, their cold, their clock."""

from collections.abc import Sequence

import numpy as np

from zymon.core.curing import Geometry
from zymon.core.drying.climate import Log
from zymon.core.ledger.batch import Stage
from zymon.core.salting.bag import Bag, Cold, Step
from zymon.store import salt as store
from zymon.store.climate import hourly_log
from zymon.store.database import Session
from zymon.store.places import place, setpoint_at
from zymon.store.salt_models import SaltPiece

USUAL_COLD_C = 3.0  # of a place that neither logs nor has a set point
HABIT_S = 2 * 86_400  # the place stays what it was on the last days


class Colds:
    """The cold of every place, read once however many pieces lie in it."""

    def __init__(self, session: Session, since_s: int, now_s: int) -> None:
        self.session, self.since_s, self.now_s = session, since_s, now_s
        self._kept: dict[int, tuple[Log, float]] = {}

    def of(self, place_id: int) -> tuple[Log, float]:
        """The log of a place, and what it is expected to be [°C]."""
        if place_id not in self._kept:
            log = hourly_log(self.session, place_id, self.since_s, self.now_s)
            recent = log.temperature_c[log.time_s > self.now_s - HABIT_S]
            setpoint = setpoint_at(place(self.session, place_id), self.now_s)
            set_c = setpoint.temperature_c if setpoint else None
            ahead_c = float(np.mean(recent)) if len(recent) else (USUAL_COLD_C if set_c is None else set_c)
            self._kept[place_id] = (log, ahead_c)
        return self._kept[place_id]


def cold_of(piece: SaltPiece, colds: Colds) -> Cold:
    """The temperature along the piece's way through its places, after its salt too."""
    parts = []
    ahead_c = USUAL_COLD_C
    for where, _, from_s, to_s in store.stays(piece):
        log, ahead_c = colds.of(where.id)
        end_s = colds.now_s if to_s is None else to_s
        here = (log.time_s >= from_s - 3600) & (log.time_s <= end_s)
        parts.append(Log(log.time_s[here], log.temperature_c[here], log.rh_percent[here]))
    joined = [np.concatenate([getattr(p, name) for p in parts]) for name in ("time_s", "temperature_c", "rh_percent")]
    order = np.argsort(joined[0], kind="stable")
    return Cold(Log(joined[0][order], joined[1][order], joined[2][order]), ahead_c)


def steps_of(piece: SaltPiece) -> tuple[Step, ...]:
    """What moves the salt, in time order."""
    found = []
    for e in store.events(piece, "in", "way", "soak", "out"):
        if e.kind in ("in", "way"):
            found.append(Step(e.at_s, "lay", e.way or "measured", e.percent or 0.0, bool(e.free_salt)))
        elif e.kind == "soak":
            found.append(Step(e.at_s, "soak", hours=e.value or 0.0))
        else:
            found.append(Step(e.at_s, "out"))
    return tuple(found)


def bag_of(piece: SaltPiece, colds: Colds) -> Bag:
    """A piece as the rules see it."""
    geometry: Geometry = piece.geometry
    return Bag(
        geometry=geometry,
        across_mm=piece.across_mm,
        weight_g=piece.raw_g,
        fat_percent=min(piece.making.batch.fat_percent or 0.0, 80.0),
        steps=steps_of(piece),
        cold=cold_of(piece, colds),
        rules=tuple(piece.rules.split(",")),
        margin_percent=piece.margin_percent,
        skin_share=piece.skin_share,
        pierced=piece.pierced,
    )


def colds_for(session: Session, pieces: Sequence[SaltPiece], now_s: int) -> Colds:
    """The cold from the oldest of the pieces on."""
    return Colds(session, min((store.put_in(p).at_s for p in pieces), default=now_s), now_s)


def cure_of(piece: SaltPiece, colds: Colds) -> Stage:
    """A piece's time in salt as the ledger sees it, by the hour."""
    log = cold_of(piece, colds).log
    out = store.out_at(piece)
    into_s, out_s = float(store.put_in(piece).at_s), None if out is None else float(out.at_s)
    return Stage("cure", into_s, out_s, tuple(zip(log.time_s.tolist(), log.temperature_c.tolist(), strict=True)))
