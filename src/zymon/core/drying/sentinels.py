"""Which pieces to weigh so that few weighings tell most, and why each."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..constants import SECONDS_PER_DAY
from .forecast import PieceForecast
from .history import Piece
from .judge import SOON_DAYS, WEIGH_AFTER_SHARE, judge

Why = Literal["doubtful", "too_fast", "ready_soon", "batch_never", "batch_long_ago", "second"]
RECENT_DAYS = 3.0  # days in which a weighing is not worth repeating; estimate
BIG_BATCH = 6  # from which a second piece, dried otherwise, is worth the walk


@dataclass(frozen=True)
class Sentinel:
    """A piece worth weighing: its index, and why."""

    index: int
    why: Why


def sentinels(pieces: Sequence[Piece], made: Sequence[PieceForecast], now_s: float) -> list[Sentinel]:
    """The pieces worth weighing now.

    Parameters: pieces and their forecasts `made`, in the same order; now_s [s]. A piece in doubt, one that dries too
    fast, one that is nearly ready; and of every batch that nobody weighed lately the one with the widest window, in a
    big batch also the one whose pace differs most from it.
    """
    out: dict[int, Why] = {}
    for i, (piece, forecast) in enumerate(zip(pieces, made, strict=True)):
        judged = judge(piece, forecast, now_s)
        since_days = (now_s - _last(piece)) / SECONDS_PER_DAY
        if piece.start_weight_g is None:
            continue  # the scale would tell nothing of it
        if "doubtful" in judged.wants:
            out[i] = "doubtful"
        elif "too_fast" in judged.wants and since_days > 1:
            out[i] = "too_fast"
        elif judged.state == "soon" and since_days > RECENT_DAYS:
            out[i] = "ready_soon"
    for batch in dict.fromkeys(p.batch for p in pieces):
        weighable = [i for i, p in enumerate(pieces) if p.batch == batch and p.start_weight_g is not None]
        mates = [i for i in weighable if made[i].status == "drying"]
        if not mates or any(i in out for i in mates):
            continue
        never = all(not pieces[i].weighings for i in mates)
        if not never and now_s - max(_last(pieces[i]) for i in mates) < WEIGH_AFTER_SHARE * _way(pieces, made, mates):
            continue
        first = max(mates, key=lambda i: _width(made[i]))
        out[first] = "batch_never" if never else "batch_long_ago"
        if len(mates) >= BIG_BATCH:
            pace = made[first].rate_percent_per_day
            out[max((i for i in mates if i != first), key=lambda i: abs(made[i].rate_percent_per_day - pace))] = (
                "second"
            )
    return [Sentinel(i, out[i]) for i in sorted(out)]


def _last(piece: Piece) -> float:
    return max((w.at_s for w in piece.weighings), default=piece.hung_at_s)


def _width(made: PieceForecast) -> float:
    return (made.ready_p90_s or 0.0) - (made.ready_p10_s or 0.0)


def _way(pieces: Sequence[Piece], made: Sequence[PieceForecast], mates: Sequence[int]) -> float:
    ends = [made[i].ready_p50_s for i in mates]
    spans = [end - pieces[i].hung_at_s for i, end in zip(mates, ends, strict=True) if end is not None]
    return max(spans, default=SOON_DAYS * SECONDS_PER_DAY)
