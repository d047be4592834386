"""Makers of histories for the forecast's tests."""

from dataclasses import replace

import numpy as np

from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import History, Piece, Weighing

DAY = 86_400.0


def salame(tag: str = "A-01", **changes: object) -> Piece:
    """A usual salame hung at time 0, never weighed."""
    values: dict = {
        "tag": tag,
        "batch": "A",
        "kind": "salame",
        "shape": "cylinder",
        "casing": "natural",
        "fat_percent": 26.0,
        "salt_percent": 2.7,
        "diameter_mm": 58.0,
        "thickness_mm": None,
        "length_mm": 300.0,
        "start_weight_g": 842.0,
        "tare_g": 11.0,
        "hung_at_s": 0.0,
        "target_loss_percent": 35.0,
    }
    return Piece(**{**values, **changes})


def steady_log(days: float, temperature_c: float = 13.0, rh_percent: float = 78.0) -> Log:
    """An hourly log that never changes."""
    at = np.arange(0, days * DAY + 1, 3600.0)
    return Log(at, np.full_like(at, temperature_c), np.full_like(at, rh_percent))


def history(*pieces: Piece, now_days: float = 0.0, temperature_c: float = 13.0, rh_percent: float = 78.0) -> History:
    """Pieces in a place that keeps its set point."""
    log = steady_log(now_days, temperature_c, rh_percent)
    return History(pieces, log, temperature_c, rh_percent, now_days * DAY)


def weighed(piece: Piece, *readings: tuple[float, float]) -> Piece:
    """The piece with weighings of (day, gross g)."""
    return replace(piece, weighings=tuple(Weighing(day * DAY, gross) for day, gross in readings))


def neck(shape: str = "irregular", tag: str = "N-01") -> Piece:
    """A whole neck, never weighed."""
    return salame(
        tag, kind="whole_muscle", shape=shape, diameter_mm=90.0, length_mm=None, start_weight_g=1800.0, tare_g=0.0,
        fat_percent=8.0,
    )  # fmt: skip


def as_foretold(piece: Piece, way: float) -> tuple[Piece, float]:
    """A piece weighed four times just as foretold up to a share of its way, and the day it is then."""
    (foretold,) = forecast(history(piece))
    assert foretold.ready_p50_s is not None
    now = foretold.ready_p50_s / DAY * way
    at = [now * quarter for quarter in (0.25, 0.5, 0.75, 1.0)] if way else []
    return weighed(piece, *((d, piece.gross_at(foretold.loss_at(d * DAY)[1])) for d in at)), now
