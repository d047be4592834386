"""The forecasts of a place, kept until something changes that can move a date."""

import threading
from dataclasses import dataclass

import numpy as np
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import Fitted, PieceForecast, fitted
from zymon.core.drying.history import History
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.history import Stay as CoreStay
from zymon.core.drying.history import Weighing as CoreWeighing
from zymon.core.drying.hooks import HookAir
from zymon.core.drying.season import COMPARED_WEEKS, WEEK_S, YEAR_S

from .climate import hourly_log
from .hang import last_hanging, pieces_finished, pieces_hanging
from .models import ForecastRecord, Hanging, Piece, Weighing
from .places import place, setpoint_at
from .sensors import offset_rh

FRESH_FOR_S = 900  # a forecast is made anew when it is older than this, though nothing changed


def core_piece(of: Piece) -> CorePiece:
    """A stored piece as the forecast sees it: struck weighings left out."""
    batch = of.batch
    here = last_hanging(of).place_id if of.hangings else None
    return CorePiece(
        tag=of.tag,
        batch=batch.code,
        kind=batch.kind,  # type: ignore[arg-type] # checked on entry against the same list
        shape=batch.shape,  # type: ignore[arg-type]
        casing=batch.casing,  # type: ignore[arg-type]
        fat_percent=batch.fat_percent,
        salt_percent=batch.salt_percent,
        diameter_mm=of.diameter_mm,
        thickness_mm=of.thickness_mm,
        length_mm=of.length_mm,
        start_weight_g=of.start_weight_g,
        tare_g=of.tare_g,
        hung_at_s=of.hung_s,
        target_loss_percent=of.target_loss_percent,
        weighings=tuple(
            CoreWeighing(w.at_s, w.gross_g)
            for w in sorted(of.weighings, key=lambda w: (w.at_s, w.id))
            if w.struck_s is None
        ),
        stays=tuple(
            CoreStay(max(h.from_s, of.hung_s), hook_name(h), "" if h.place_id == here else str(h.place_id))
            for h in of.hangings
        ),
    )


def hook_name(of: Hanging) -> str:
    """A hook's name all over the workshop."""
    return f"{of.rod_id}/{of.hook}"


def history_of(session: Session, place_id: int, now_s: int, alone: Piece | None = None) -> History:
    """Everything the forecasts of a place rest on at a time, or those of one piece that hung there."""
    known = [*pieces_hanging(session, place_id), *pieces_finished(session, place_id, now_s)]
    pieces = [core_piece(p) for p in ([alone] if alone else known)]
    first = min((int(p.hung_at_s) for p in pieces), default=now_s)
    setpoint = setpoint_at(place(session, place_id), now_s)
    if setpoint is None or setpoint.temperature_c is None:
        first = min(first, round(now_s - YEAR_S - COMPARED_WEEKS * WEEK_S))  # its season is that of the year before
    before = dict.fromkeys(stay.place for p in pieces for stay in p.stays if stay.place)
    return History(
        pieces=tuple(pieces),
        log=_true_log(session, place_id, first, now_s),
        setpoint_c=setpoint.temperature_c if setpoint else None,
        setpoint_rh_percent=setpoint.rh_percent if setpoint else None,
        now_s=now_s,
        elsewhere={name: _true_log(session, int(name), first, now_s) for name in before},
    )


def _true_log(session: Session, place_id: int, from_s: int, to_s: int) -> Log:
    """The log of a place as the test of its sensor corrects it."""
    log, offset = hourly_log(session, place_id, from_s, to_s), offset_rh(session, place_id)
    return Log(log.time_s, log.temperature_c, np.clip(log.rh_percent + offset, 0.0, 100.0)) if offset else log


@dataclass(frozen=True)
class _Kept:
    revision: int
    made_s: int
    place: Fitted | None  # None where there is nothing to forecast
    index: dict[str, int]


class Board:
    """Forecasts by place and tag, renewed when the place's revision rises or they grow old."""

    def __init__(self) -> None:
        self._kept: dict[int, _Kept] = {}
        self._lock = threading.Lock()

    def _of(self, session: Session, place_id: int, now_s: int) -> _Kept:
        revision = place(session, place_id).revision
        with self._lock:
            kept = self._kept.get(place_id)
            if kept is None or kept.revision != revision or not 0 <= now_s - kept.made_s < FRESH_FOR_S:
                history = history_of(session, place_id, now_s)
                made = fitted(history) if history.pieces else None
                kept = _Kept(revision, now_s, made, {p.tag: i for i, p in enumerate(history.pieces)})
                if made is not None:
                    made.forecasts  # noqa: B018 -- made under the lock, so that it is made once
                self._kept[place_id] = kept
            return kept

    def of_place(self, session: Session, place_id: int, now_s: int) -> dict[str, PieceForecast]:
        """The forecasts of all pieces of a place, by tag."""
        kept = self._of(session, place_id, now_s)
        return {} if kept.place is None else {tag: kept.place.forecasts[i] for tag, i in kept.index.items()}

    def hooks_of(self, session: Session, place_id: int, now_s: int) -> dict[tuple[int, int], HookAir]:
        """What each hook of a place was learned to do, by rod id and hook."""
        kept = self._of(session, place_id, now_s)
        found = {} if kept.place is None else kept.place.hooks
        return {(int(name.split("/")[0]), int(name.split("/")[1])): air for name, air in found.items()}

    def fitted_piece(self, session: Session, of: Piece, now_s: int) -> tuple[Fitted, int]:
        """The fitted place of a piece and its index there; the piece alone when its place learns from it no more."""
        place_id = last_hanging(of).place_id
        kept = self._of(session, place_id, now_s)
        if kept.place is not None and of.tag in kept.index:
            return kept.place, kept.index[of.tag]
        return fitted(history_of(session, place_id, now_s, alone=of)), 0

    def of_piece(self, session: Session, of: Piece, now_s: int) -> PieceForecast:
        """The forecast of one piece."""
        found, index = self.fitted_piece(session, of, now_s)
        return found.forecasts[index]


def record(session: Session, piece_id: int, made: PieceForecast, weighing_id: int | None, now_s: int) -> None:
    """Keep what was forecast right after a weighing."""

    def whole(seconds: float | None) -> int | None:
        return None if seconds is None else round(seconds)

    session.add(
        ForecastRecord(
            piece_id=piece_id,
            weighing_id=weighing_id,
            made_s=now_s,
            p10_s=whole(made.ready_p10_s),
            p50_s=whole(made.ready_p50_s),
            p90_s=whole(made.ready_p90_s),
            loss_percent=made.loss_percent,
            status=made.status,
        )
    )


def told(session: Session, piece_id: int) -> list[ForecastRecord]:
    """What was forecast for a piece at its hanging and after each weighing that still counts, oldest first."""
    return list(
        session.scalars(
            select(ForecastRecord)
            .outerjoin(Weighing, ForecastRecord.weighing_id == Weighing.id)
            .where(ForecastRecord.piece_id == piece_id, Weighing.struck_s.is_(None))
            .order_by(ForecastRecord.made_s, ForecastRecord.id)
        )
    )


def hanging_count(session: Session) -> int:
    """How many pieces hang in the workshop."""
    return session.scalar(select(func.count()).select_from(Hanging).where(Hanging.to_s.is_(None))) or 0
