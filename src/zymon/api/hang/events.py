"""Inspection by taps, and what is done at the hook: turned, wiped, wrapped, patched, held, released."""

from datetime import datetime
from typing import Annotated, Literal

import orjson
from fastapi import APIRouter
from pydantic import BaseModel, Field, StringConstraints
from sqlalchemy.orm import Session

from zymon.core.drying.judge import TOO_FAST_RING
from zymon.core.errors import OutOfRangeError
from zymon.core.faults import DAMP_RH, Advice, Evidence, Found, advise
from zymon.store import hang as pieces
from zymon.store import hang_events as store
from zymon.store.hang_models import HangEvent

from ..context import Context, Ctx, Id, moment
from ..schemas import RowId, StrikeIn, Uid, Who

router = APIRouter(prefix="/api", tags=["hang"])

HangKind = Literal["inspect", "turn", "wipe", "wrap", "patch", "hold", "release"]
LOOK_BACK_S = 7 * 86_400


class HangEventIn(BaseModel):
    """Something seen or done, on one piece or on several, all or none."""

    uid: Uid
    pieces: Annotated[list[RowId], Field(min_length=1, max_length=500)]
    kind: HangKind
    found: Found | None = None
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)] = ""
    at: datetime | None = None
    by: Who


class HangEventOut(BaseModel):
    """Something seen or done."""

    id: int
    kind: HangKind
    at: datetime
    found: Found | None
    note: str
    by: str
    struck_reason: str | None


class AtTheHook(BaseModel):
    """What was seen and done, whether it is held, and the advice on the last inspection."""

    events: list[HangEventOut]
    held: bool
    advice: list[Advice]


@router.get("/pieces/{piece_id}/hook")
def at_the_hook(ctx: Ctx, piece_id: Id) -> AtTheHook:
    """What was seen on a piece and done to it."""
    with ctx.db.reading() as session:
        return _at_the_hook(ctx, session, piece_id)


def _found(kept: str | None) -> Found:
    return Found(**orjson.loads(kept or "{}"))


def _at_the_hook(ctx: Context, session: Session, piece_id: int) -> AtTheHook:
    of = pieces.piece(session, piece_id)
    found = store.events_of(session, piece_id)
    looked = [e for e in found if e.kind == "inspect" and e.struck_s is None]
    advice: list[Advice] = []
    if looked:
        last = looked[-1]
        made = ctx.board.of_piece(session, of, ctx.now_s)
        place_id = pieces.last_hanging(of).place_id
        evidence = Evidence(
            loss_percent=made.loss_at(float(last.at_s))[1] * 100,
            ring_risk=max(
                made.ring_risk, TOO_FAST_RING if made.rate_percent_per_day > made.safe_percent_per_day else 0
            ),
            damp_hours=store.damp_hours(session, place_id, DAMP_RH, last.at_s - LOOK_BACK_S, last.at_s),
            days=(last.at_s - of.hung_s) / 86_400,
        )
        advice = advise(_found(last.found), evidence)
    return AtTheHook(
        events=[
            HangEventOut(
                id=e.id,
                kind=e.kind,  # type: ignore[arg-type] # checked on entry
                at=moment(e.at_s),
                found=None if e.found is None else _found(e.found),
                note=e.note,
                by=e.by,
                struck_reason=e.struck_reason,
            )
            for e in reversed(found)
        ],
        held=store.held(session, piece_id),
        advice=advice,
    )


@router.post("/hook-events", status_code=201)
def note(ctx: Ctx, body: HangEventIn) -> AtTheHook:
    """Note something seen or done; the answer is of the first piece."""
    if body.kind == "inspect" and body.found is None:
        raise OutOfRangeError("tap what you felt, smelled or saw")
    if body.kind == "hold" and not body.note:
        raise OutOfRangeError("say why it is held")
    at_s = ctx.now_s if body.at is None else int(body.at.timestamp())
    with ctx.db.writing() as session:
        for piece_id in body.pieces:
            entry = HangEvent(
                uid=f"{body.uid}-{piece_id}",
                piece_id=piece_id,
                kind=body.kind,
                at_s=at_s,
                found=None if body.found is None else orjson.dumps(body.found).decode(),
                note=body.note,
                by=body.by,
                entered_s=ctx.now_s,
            )
            store.note(session, entry, ctx.now_s)
    with ctx.db.reading() as session:
        return _at_the_hook(ctx, session, body.pieces[0])


@router.post("/hook-events/{event_id}/strike")
def strike(ctx: Ctx, event_id: Id, body: StrikeIn) -> AtTheHook:
    """Strike an entry through; it stays on record."""
    with ctx.db.writing() as session:
        piece_id = store.strike_event(session, event_id, body.reason, body.by, ctx.now_s)
    with ctx.db.reading() as session:
        return _at_the_hook(ctx, session, piece_id)
