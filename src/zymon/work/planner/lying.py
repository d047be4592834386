"""Goods of batches that are in a place now, each with the time it will likely stay there."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime

import numpy as np

from zymon.core.drying.forecast import PieceForecast
from zymon.core.life import Kind as LifeKind
from zymon.core.planning.way import Stay
from zymon.store import salt, warm
from zymon.store.database import Session
from zymon.store.hang import last_hanging
from zymon.store.models import Batch, Piece

from ..salt.views import cards
from ..warm.views import card_of


@dataclass
class Lying:
    """A batch in a place: since when [s], how each of its pieces will stay, how far it is on its way 0…1."""

    batch: Batch
    state: LifeKind
    from_s: float
    stays: list[Stay] = field(default_factory=list)
    on_its_way: list[float] = field(default_factory=list)

    @property
    def share(self) -> float:
        """How far it is on its way, on average 0…1."""
        return float(np.mean(self.on_its_way)) if self.on_its_way else 0.0


def stays_until(piece_forecast: PieceForecast) -> tuple[float, float]:
    """Until when a piece likely hangs, and at the latest [s]; inf where nobody can say."""
    usual = piece_forecast.usual_s or (np.inf, np.inf, np.inf)
    likely = piece_forecast.ready_p50_s if piece_forecast.ready_p50_s is not None else usual[1]
    latest = piece_forecast.ready_p90_s if piece_forecast.ready_p90_s is not None else usual[2]
    return likely, latest


def hanging(pieces: Sequence[tuple[Piece, PieceForecast]], now_s: int) -> list[Lying]:
    """What hangs in a place, batch by batch."""
    found: dict[int, Lying] = {}
    for piece, forecast in pieces:
        since_s = last_hanging(piece).from_s
        one = found.setdefault(piece.batch_id, Lying(piece.batch, "hanging", since_s))
        one.from_s = min(one.from_s, since_s)
        until, latest = stays_until(forecast)
        one.stays.append(Stay(since_s, max(until, now_s), since_s, max(latest, now_s)))
        aim = piece.target_loss_percent or 35.0
        one.on_its_way.append(float(np.clip(forecast.loss_percent / aim, 0.0, 1.0)))
    return list(found.values())


def in_salt(session: Session, now_s: int) -> dict[int, list[Lying]]:
    """What lies in salt, by place and batch."""
    pieces = salt.pieces_in_salt(session)
    found: dict[int, dict[int, Lying]] = {}
    for piece, told in zip(pieces, cards(session, pieces, now_s), strict=True):
        if told.place_id is None:
            continue
        in_s, best_s = told.in_at.timestamp(), _seconds(told.best)
        one = found.setdefault(told.place_id, {}).setdefault(
            piece.batch_id, Lying(piece.making.batch, "in_salt", in_s)
        )  # fmt: skip
        one.from_s = min(one.from_s, in_s)
        one.stays.append(_stay(in_s, best_s, _seconds(told.latest or told.core_at[2]), now_s))
        one.on_its_way.append(min(told.core_share, 1.0))
    return {place_id: list(batches.values()) for place_id, batches in found.items()}


def in_the_warm(session: Session, now_s: int) -> dict[int, list[Lying]]:
    """What is in the warm, by place."""
    found: dict[int, list[Lying]] = {}
    for stage in warm.in_the_warm(session, now_s):
        told = card_of(session, warm.warm_batch(session, stage, now_s, coarse=True))
        goes = told.reaches_target
        stay = _stay(stage.stuffed_s, _seconds(goes.p50), _seconds(goes.p90), now_s)
        one = Lying(stage.making.batch, "warm", stage.stuffed_s, [stay] * max(len(stage.making.pieces), 1))
        passed = now_s - stage.stuffed_s
        one.on_its_way.append(passed / max(stay.until_s - stage.stuffed_s, passed, 1.0))
        found.setdefault(stage.place_id, []).append(one)
    return found


def _seconds(at: datetime | None) -> float:
    return np.inf if at is None else at.timestamp()


def _stay(from_s: float, until_s: float, latest_s: float, now_s: int) -> Stay:
    until_s = max(until_s, now_s)
    return Stay(from_s, until_s, from_s, max(latest_s, until_s) if np.isfinite(latest_s) else until_s)
