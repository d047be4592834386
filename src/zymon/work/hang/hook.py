"""Inspection by taps, and what is done at the hook: turned, wiped, wrapped, patched, held, released."""

from datetime import datetime
from typing import Annotated

import orjson
from pydantic import BaseModel, Field

from zymon.core.causes.ranking import speaks_for
from zymon.core.drying.judge import TOO_FAST_RING
from zymon.core.errors import OutOfRangeError
from zymon.core.faults import DAMP_RH, Act, Evidence, Found, advise
from zymon.store import hang as pieces
from zymon.store import hang_events as store
from zymon.store.database import Session
from zymon.store.hang_models import HangEvent
from zymon.store.kinds import HangKind

from ..premises import Premises, moment
from ..records import of_the_drying
from ..schemas import MadeOut, Note, RecordIn, RowId, SaidOut, StrikeIn, WithMade, all_said, said_out

LOOK_BACK_S = 7 * 86_400


class HangEventIn(RecordIn):
    """Something seen or done, on one piece or on several, all or none."""

    pieces: Annotated[list[RowId], Field(min_length=1, max_length=500)]
    kind: HangKind
    found: Found | None = None
    note: Note = ""


class HangEventOut(BaseModel):
    """Something seen or done."""

    id: int
    kind: HangKind
    at: datetime
    found: Found | None
    note: str
    by: str
    struck_reason: str | None


class AdviceOut(BaseModel):
    """What to do about what was found, and why."""

    act: Act
    what: SaidOut
    because: list[SaidOut]


class AtTheHook(WithMade):
    """What was seen and done, whether it is held, and the advice on the last inspection."""

    events: list[HangEventOut]
    held: bool
    advice: list[AdviceOut]


def at_the_hook(shop: Premises, piece_id: int, made: list[MadeOut] | None = None) -> AtTheHook:
    """What was seen on a piece and done to it."""
    with shop.db.reading() as session:
        found = store.events_of(session, piece_id)
        return AtTheHook(
            made=made or [],
            events=[_event_out(e) for e in reversed(found)],
            held=store.held(session, piece_id),
            advice=_advice(shop, session, piece_id, found),
        )


def _event_out(hang_event: HangEvent) -> HangEventOut:
    return HangEventOut(
        id=hang_event.id,
        kind=hang_event.kind,
        at=moment(hang_event.at_s),
        found=None if hang_event.found is None else _found(hang_event.found),
        note=hang_event.note,
        by=hang_event.by,
        struck_reason=hang_event.struck_reason,
    )


def _found(kept: str | None) -> Found:
    return Found(**orjson.loads(kept or "{}"))


def _advice(shop: Premises, session: Session, piece_id: int, events: list[HangEvent]) -> list[AdviceOut]:
    looked = [e for e in events if e.kind == "inspect" and e.struck_s is None]
    if not looked:
        return []
    last = looked[-1]
    of = pieces.piece(session, piece_id)
    fit, index = shop.dates.fitted_piece(session, of, shop.now_s)
    made = fit.forecasts[index]
    place_id = pieces.last_hanging(of).place_id
    ran_ahead = made.rate_percent_per_day > made.safe_percent_per_day
    evidence = Evidence(
        loss_percent=made.loss_at(float(last.at_s))[1] * 100,
        ring_risk=max(made.ring_risk, TOO_FAST_RING if ran_ahead else 0),
        damp_hours=store.damp_hours(session, place_id, DAMP_RH, last.at_s - LOOK_BACK_S, last.at_s),
        days=(last.at_s - of.hung_s) / 86_400,
        dried_by=speaks_for(("dried_fast", "warm_dry"), of_the_drying(session, fit, index, of.batch_id)),
    )
    return [
        AdviceOut(act=a.act, what=said_out(a.what), because=all_said(a.because))
        for a in advise(_found(last.found), evidence)
    ]


def note(shop: Premises, body: HangEventIn) -> AtTheHook:
    """Note something seen or done; the answer is of the first piece."""
    if body.kind == "inspect" and body.found is None:
        raise OutOfRangeError("refused.tap_something")
    if body.kind == "hold" and not body.note:
        raise OutOfRangeError("refused.why_held")
    with shop.recording(body, f"hook {body.kind} {min(body.pieces)}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            for piece_id in body.pieces:
                made = HangEvent(
                    uid=f"{body.uid}-{piece_id}",
                    piece_id=piece_id,
                    kind=body.kind,
                    at_s=at_s,
                    found=None if body.found is None else orjson.dumps(body.found).decode(),
                    note=body.note,
                    by=body.by,
                    entered_s=entry.now_s,
                )
                store.note(entry.session, made)
                entry.came("hang_event", made.id)
    return at_the_hook(shop, body.pieces[0], entry.named)


def strike(shop: Premises, event_id: int, body: StrikeIn) -> AtTheHook:
    """Strike an entry through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        piece_id = store.strike_event(session, event_id, body.reason, body.by, shop.now_s)
    return at_the_hook(shop, piece_id)
