"""The dates of a place: made anew behind the scenes whenever something changes that can move one, and kept."""

import logging
import threading
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import Fitted, PieceForecast, fitted
from zymon.core.drying.history import History
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.hooks import HookAir
from zymon.core.drying.season import COMPARED_WEEKS, WEEK_S, YEAR_S
from zymon.store.climate import hourly_log
from zymon.store.database import Session
from zymon.store.hang import (
    hanging_now,
    last_hanging,
    pieces_finished,
    pieces_hanging,
    tags_hanging,
    taken_down_at,
)
from zymon.store.models import Piece
from zymon.store.places import place, revisions, setpoint_at
from zymon.store.sensors import offset_rh
from zymon.store.told import not_told_yet, record

from .apart import Apart
from .as_forecast import core_piece
from .follow import Happening
from .places import surroundings_of

if TYPE_CHECKING:
    from .premises import Premises

log = logging.getLogger("zymon.dates")

EMPTY_LOOKS_BACK_S = 30 * 86_400  # how much of its log tells of a place in which nothing hangs
FRESH_FOR_S = 900  # dates are made anew when they are older than this, though nothing changed


def history_of(
    session: Session, place_id: int, now_s: int, alone: Piece | None = None, since_s: int | None = None
) -> History:
    """Everything the dates of a place rest on at a time, or those of one piece that hung there.

    Parameters: since_s [s], from when on its log is wanted whatever hangs there.
    """
    known = [*pieces_hanging(session, place_id), *pieces_finished(session, place_id, now_s)]
    pieces = [core_piece(p) for p in ([alone] if alone else known)]
    first = min((int(p.hung_at_s) for p in pieces), default=now_s - EMPTY_LOOKS_BACK_S)
    first = first if since_s is None else min(first, since_s)
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
        surroundings=surroundings_of(place(session, place_id)),
    )


def _true_log(session: Session, place_id: int, from_s: int, to_s: int) -> Log:
    """The log of a place as the test of its sensor corrects it."""
    logged, offset = hourly_log(session, place_id, from_s, to_s), offset_rh(session, place_id)
    if not offset:
        return logged
    return Log(logged.time_s, logged.temperature_c, np.clip(logged.rh_percent + offset, 0.0, 100.0))


@dataclass(frozen=True)
class PlaceDates:
    """The dates of a place as they were made last; `fit` is None where nothing hangs."""

    revision: int
    made_s: int
    fit: Fitted | None
    index: dict[str, int]

    def by_tag(self) -> dict[str, PieceForecast]:
        """The forecasts by tag."""
        return {} if self.fit is None else {tag: self.fit.forecasts[i] for tag, i in self.index.items()}

    def core(self, piece: Piece, revision: int) -> CorePiece:
        """A piece as the forecast sees it: as it was seen when the dates were made, if nothing changed since."""
        if self.fit is None or self.revision != revision or piece.tag not in self.index:
            return core_piece(piece)
        return self.fit.history.pieces[self.index[piece.tag]]

    def hooks(self) -> dict[tuple[int, int], HookAir]:
        """What each hook was learned to do, by rod id and hook."""
        found = {} if self.fit is None else self.fit.hooks
        return {(int(name.split("/")[0]), int(name.split("/")[1])): air for name, air in found.items()}


class Dates:
    """Dates by place. What is asked for is answered from what was made last, as long as it knows every piece."""

    def __init__(self) -> None:
        self._kept: dict[int, PlaceDates] = {}
        self._past: dict[int, tuple[int, int, Fitted]] = {}  # of pieces that came down: revision, until [s], fit
        self._locks: dict[int, threading.Lock] = {}
        self._guard = threading.Lock()
        self._changed = threading.Event()
        self._maker: threading.Thread | None = None
        self._stopped = False
        self._premises: Premises | None = None
        self._apart: Apart | None = None

    # -- made behind the scenes

    def begin(self, premises: "Premises", behind_the_scenes: bool = True) -> None:
        """Keep the dates of a workshop made, in a thread of their own, or as part of each entry."""
        self._premises = premises
        if behind_the_scenes:
            self._changed.set()  # while the first page is still on its way, every place's dates are made
            self._maker = threading.Thread(target=self._keep_making, name="dates", daemon=True)
            self._maker.start()

    def make_apart(self) -> None:
        """Make them from now on in a process of their own."""
        self._apart = Apart()

    def stop(self) -> None:
        """Make no more."""
        self._stopped = True
        self._changed.set()
        if self._maker is not None:
            self._maker.join(timeout=10)
        if self._apart is not None:
            self._apart.end()

    def look_again(self) -> None:
        """Something was recorded: dates that it can have moved are made anew."""
        if self._maker is not None:
            self._changed.set()
        elif self._premises is not None:
            self._make_what_changed(self._premises)

    def _keep_making(self) -> None:
        premises = self._premises
        assert premises is not None
        while not self._stopped:
            self._changed.wait(timeout=60)
            self._changed.clear()
            if self._stopped:
                return
            try:
                self._make_what_changed(premises)
            except Exception:
                log.exception("the dates could not be made anew")

    def _make_what_changed(self, premises: "Premises") -> None:
        with premises.db.reading() as session:
            waiting = [
                place_id for place_id, revision in revisions(session).items() if not self._is_new(place_id, revision)
            ]
        for place_id in waiting:
            premises.followers.tell(Happening("making", place_id))
            with premises.db.reading() as session:
                made = self._make(session, place_id, premises.now_s)
                untold = not_told_yet(session, place_id)
            if made.fit is not None and untold:
                by_tag = made.by_tag()
                with premises.db.writing("Zymon", premises.now_s) as session:
                    for piece in untold:
                        if piece.tag in by_tag:
                            record(session, piece.piece_id, by_tag[piece.tag], piece.weighing_id, made.made_s)
            premises.followers.tell(Happening("made", place_id))

    def _is_new(self, place_id: int, revision: int) -> bool:
        kept = self._kept.get(place_id)
        return kept is not None and kept.revision == revision

    def _lock(self, place_id: int) -> threading.Lock:
        with self._guard:
            return self._locks.setdefault(place_id, threading.Lock())

    def _make(self, session: Session, place_id: int, now_s: int) -> PlaceDates:
        """Make the dates of a place; others wait for this place alone."""
        with self._lock(place_id):
            revision = place(session, place_id).revision
            kept = self._kept.get(place_id)
            if kept is not None and kept.revision == revision and 0 <= now_s - kept.made_s < FRESH_FOR_S:
                return kept
            history = history_of(session, place_id, now_s)
            fit = self._fitted(history) if history.pieces else None
            if fit is not None:
                fit.forecasts  # noqa: B018 -- made under the lock, so that it is made once
            kept = PlaceDates(revision, now_s, fit, {p.tag: i for i, p in enumerate(history.pieces)})
            self._kept[place_id] = kept
            return kept

    def _fitted(self, history: History) -> Fitted:
        return fitted(history) if self._apart is None else self._apart.fitted(history)

    # -- asked for

    def of_place(self, session: Session, place_id: int, now_s: int) -> PlaceDates:
        """The dates of a place as made last, while they are made anew; waited for where a piece is not in them."""
        kept = self._kept.get(place_id)
        fresh = kept is not None and 0 <= now_s - kept.made_s < FRESH_FOR_S
        if (
            kept is not None
            and self._maker is not None
            and now_s >= kept.made_s
            and self._knows(session, kept, place_id)
        ):
            if not fresh:
                self._kept.pop(place_id, None)
                self._changed.set()
            return kept
        return self._make(session, place_id, now_s)

    def _knows(self, session: Session, kept: PlaceDates, place_id: int) -> bool:
        return all(tag in kept.index for tag in tags_hanging(session, place_id))

    def version(self, place_id: int) -> tuple[int, int] | None:
        """Which dates of a place are kept: of which revision, made when [s]."""
        kept = self._kept.get(place_id)
        return None if kept is None else (kept.revision, kept.made_s)

    def all_versions(self) -> tuple[tuple[int, int], ...]:
        """The same of all places."""
        return tuple((kept.revision, kept.made_s) for kept in list(self._kept.values()))

    def are_older(self, session: Session, place_id: int, fit: Fitted) -> bool:
        """Whether dates that were taken before, and are being told, are no longer those of the place as it is."""
        kept = self._kept.get(place_id)
        return kept is None or kept.fit is not fit or kept.revision != place(session, place_id).revision

    def fitted_piece(self, session: Session, piece: Piece, now_s: int) -> tuple[Fitted, int]:
        """The fitted place of a hanging piece and its index there; of one that came down, it alone, as it was then."""
        place_id = last_hanging(piece).place_id
        if hanging_now(piece) is not None:
            kept = self.of_place(session, place_id, now_s)
            if kept.fit is not None and piece.tag in kept.index:
                return kept.fit, kept.index[piece.tag]
        until_s = min(taken_down_at(piece) or now_s, now_s)
        revision = place(session, place_id).revision
        known = self._past.get(piece.id)
        if known is None or known[:2] != (revision, until_s):
            known = (revision, until_s, fitted(history_of(session, place_id, until_s, alone=piece)))
            self._past[piece.id] = known
        return known[2], 0

    def of_piece(self, session: Session, piece: Piece, now_s: int) -> PieceForecast:
        """The forecast of one piece, as of now or as of its taking down."""
        fit, index = self.fitted_piece(session, piece, now_s)
        return fit.forecasts[index]
