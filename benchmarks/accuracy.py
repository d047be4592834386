"""How true the dates are, on simulated histories of physics other than the engine's, beside what hands can do."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import History, Piece

from . import hand_methods
from .physics import PHYSICS
from .simulator import DAY, WAY, Truth, simulate

ROOMS = 11  # of each physics: one for each of the simulator's goods
CUTS = (0.0, 0.2, 0.4, 0.6, 0.8)


@dataclass(frozen=True)
class Row:
    """One answer: error, whether the truth lay inside, and the Winkler score, in % of the whole drying time."""

    cut: float
    weighed: bool
    error: float
    inside: bool
    winkler: float


Method = Callable[[History], list[tuple[float, float, float] | None]]


def zymon(history: History) -> list[tuple[float, float, float] | None]:
    """The engine: days since hanging as p10, p50, p90."""
    found = []
    for piece, made in zip(history.pieces, forecast(history), strict=True):
        dates = (made.ready_p10_s, made.ready_p50_s, made.ready_p90_s)
        days = [(d - piece.hung_at_s) / DAY for d in dates if d is not None]
        found.append((days[0], days[1], days[2]) if len(days) == 3 else None)
    return found


def by_hand(rule: Callable[..., float | None]) -> Method:
    """A hand method with the window people give, 15 % of what is left; a mate's date where none was weighed."""

    def answer(history: History) -> list[tuple[float, float, float] | None]:
        raw = [_one(rule, piece, history.now_s) for piece in history.pieces]
        out: list[tuple[float, float, float] | None] = []
        for piece, days in zip(history.pieces, raw, strict=True):
            mates = [d for p, d in zip(history.pieces, raw, strict=True) if p.batch == piece.batch and d is not None]
            known = days if days is not None else float(np.median(mates)) if mates else _card(piece)
            gone = (history.now_s - piece.hung_at_s) / DAY
            known = min(max(known, gone), 1500.0)
            left = known - gone
            out.append((gone + 0.85 * left, known, gone + 1.15 * left))
        return out

    return answer


def _card(piece: Piece) -> float:
    across = piece.diameter_mm or piece.thickness_mm or {"salame": 60.0, "belly": 35.0}.get(piece.kind, 80.0)
    return hand_methods.table_of_weeks(piece.kind, across)


def _one(rule: Callable[..., float | None], piece: Piece, now_s: float) -> float | None:
    if rule is hand_methods.table_of_weeks:
        return _card(piece)
    seen = [w for w in piece.weighings if w.at_s <= now_s]
    days = np.array([0.0] + [(w.at_s - piece.hung_at_s) / DAY for w in seen])
    loss = np.array([0.0] + [piece.loss_fraction(w.gross_g) for w in seen])
    return rule(days, loss, piece.aim_percent / 100)


def cut_history(truth: Truth, batch: str, cut: float) -> tuple[History, list[int]] | None:
    """The history as it stood when a batch had lost `cut` of its target, and which pieces are asked about."""
    index = [i for i, p in enumerate(truth.history.pieces) if p.batch == batch]
    if not index:
        return None
    hung = truth.history.pieces[index[0]].hung_at_s
    now_s = hung + float(np.interp(cut, WAY, truth.way[batch])) * DAY
    kept = [i for i, p in enumerate(truth.history.pieces) if p.hung_at_s <= now_s]
    pieces = tuple(
        replace(p, weighings=tuple(w for w in p.weighings if w.at_s <= now_s))
        for p in (truth.history.pieces[i] for i in kept)
    )
    asked = [kept.index(i) for i in index if truth.days[i] * DAY + hung > now_s]
    return replace(truth.history, pieces=pieces, log=truth.history.log.until(now_s), now_s=now_s), asked


def rows_of(method: Method, physics: str, rooms: int = ROOMS) -> list[Row]:
    """Every answer of a method over the rooms of a physics, all batches and stages."""
    rows = []
    for seed in range(rooms):
        truth = simulate(physics, seed)
        days = {p.tag: d for p, d in zip(truth.history.pieces, truth.days, strict=True)}
        for batch in ("B0", "B1"):
            for cut in CUTS:
                found = cut_history(truth, batch, cut)
                if found is None:
                    continue
                history, asked = found
                answers = method(history)
                for i in asked:
                    piece = history.pieces[i]
                    rows.append(_row(cut, bool(piece.weighings), days[piece.tag], answers[i]))
    return rows


def _row(cut: float, weighed: bool, total: float, got: tuple[float, float, float] | None) -> Row:
    if got is None:
        return Row(cut, weighed, 100.0, False, 200.0)
    low, mid, high = got
    winkler = high - low + 10 * max(low - total, 0) + 10 * max(total - high, 0)
    return Row(
        cut, weighed, 100 * abs(mid - total) / total, low <= total <= high, min(100 * winkler / total, 1000)
    )  # fmt: skip


def measure() -> str:
    """The tables of accuracy, one for each physics."""
    methods: list[tuple[str, Method]] = [
        ("Zymon", zymon),
        ("last two weights", by_hand(hand_methods.last_two)),
        ("line through all", by_hand(hand_methods.line)),
        ("exponential", by_hand(hand_methods.exponential)),
        ("table of weeks", by_hand(hand_methods.table_of_weeks)),
    ]
    lines = [
        "Median error in % of a piece's whole drying time, by how much of its target a batch has lost; truth inside "
        "the 80 % window, at those stages and overall; Winkler score (lower is better). "
        f"{ROOMS} simulated rooms of two batches for each of three kinds of physics, none of them the engine's; "
        "fixed seeds.",
    ]
    for physics in PHYSICS:
        lines += [
            f"\n**{physics.capitalize()}**\n",
            "| method | 0 % | 20 % | 40 % | 60 % | 80 % | unweighed 20–80 % | inside, by stage | overall | Winkler |",
            "|---|---|---|---|---|---|---|---|---|---|",
        ]
        lines += [_line(name, rows_of(method, physics)) for name, method in methods]
    return "\n".join(lines) + "\n"


def _line(name: str, rows: list[Row]) -> str:
    cells = [f"{np.median([r.error for r in rows if r.cut == cut]):.1f}" for cut in CUTS]
    cells.append(f"{np.median([r.error for r in rows if r.cut > 0 and not r.weighed]):.1f}")
    cells.append(" / ".join(f"{100 * np.mean([r.inside for r in rows if r.cut == cut]):.0f}" for cut in CUTS))
    cells.append(f"{100 * np.mean([r.inside for r in rows]):.0f} %")
    cells.append(f"{np.mean([r.winkler for r in rows]):.0f}")
    return f"| {name} | {' | '.join(cells)} |"
