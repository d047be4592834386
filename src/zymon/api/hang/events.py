"""Inspection by taps, and what is done at the hook: turned, wiped, wrapped, patched, held, released."""

from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Literal

import orjson
from fastapi import APIRouter
from pydantic import BaseModel, Field, StringConstraints
from sqlalchemy.orm import Session

from zymon.core.drying.judge import TOO_FAST_RING
from zymon.core.errors import OutOfRangeError
from zymon.core.faults import DAMP_RH, Act, Evidence, Feel, Found, Mould, MouldHow, Smell, Surface, advise
from zymon.store import hang as pieces
from zymon.store import hang_events as store
from zymon.store.hang_models import HangEvent

from ..context import Context, Ctx, Id, moment
from ..schemas import RowId, StrikeIn, Uid, Who

router = APIRouter(prefix="/api", tags=["hang"])

HangKind = Literal["inspect", "turn", "wipe", "wrap", "patch", "hold", "release"]
LOOK_BACK_S = 7 * 86_400


class FoundIn(BaseModel):
    """The taps of an inspection; null where it was not looked at."""

    firm_rim: Feel | None = None
    firm_core: Feel | None = None
    smell: Smell | None = None
    surface: Surface | None = None
    mould: Mould | None = None
    mould_how: MouldHow | None = None
    sag: bool = False
    cracks: bool = False
    salt_spots: bool = False


class HangEventIn(BaseModel):
    """Something seen or done, on one piece or on several, all or none."""

    uid: Uid
    pieces: Annotated[list[RowId], Field(min_length=1, max_length=500)]
    kind: HangKind
    found: FoundIn | None = None
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)] = ""
    at: datetime | None = None
    by: Who


class HangEventOut(BaseModel):
    """Something seen or done."""

    id: int
    kind: HangKind
    at: datetime
    found: FoundIn | None
    note: str
    by: str
    struck_reason: str | None


class AdviceOut(BaseModel):
    """What to do, and the evidence."""

    act: Act
    what: str
    because: str


class AtTheHook(BaseModel):
    """What was seen and done, whether it is held, and the advice on the last inspection."""

    events: list[HangEventOut]
    held: bool
    advice: list[AdviceOut]


@router.get("/pieces/{piece_id}/hook")
def at_the_hook(ctx: Ctx, piece_id: Id) -> AtTheHook:
    """What was seen on a piece and done to it."""
    with ctx.db.reading() as session:
        return _at_the_hook(ctx, session, piece_id)


def _at_the_hook(ctx: Context, session: Session, piece_id: int) -> AtTheHook:
    of = pieces.piece(session, piece_id)
    found = store.events_of(session, piece_id)
    looked = [e for e in found if e.kind == "inspect" and e.struck_s is None]
    advice = []
    if looked and looked[-1].found:
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
        advice = [AdviceOut(**asdict(a)) for a in advise(Found(**orjson.loads(last.found or "{}")), evidence)]
    return AtTheHook(
        events=[
            HangEventOut(
                id=e.id,
                kind=e.kind,  # type: ignore[arg-type] # checked on entry
                at=moment(e.at_s),
                found=None if e.found is None else FoundIn.model_validate_json(e.found),
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
                found=None if body.found is None else body.found.model_dump_json(),
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
