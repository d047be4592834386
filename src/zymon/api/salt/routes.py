"""The Salt station: put in, look after, take out, send to the hook."""

from fastapi import APIRouter

from zymon.work.salt import doing, views
from zymon.work.salt import schemas as s
from zymon.work.schemas import StrikeIn

from ..context import Ctx, Id

router = APIRouter(prefix="/api/salt", tags=["salt"])


@router.get("")
def salt(ctx: Ctx) -> s.SaltOut:
    """Everything in salt."""
    return views.salt_out(ctx)


@router.get("/{piece_id}")
def piece(ctx: Ctx, piece_id: Id) -> s.SaltDetail:
    """One piece in salt."""
    return doing.piece(ctx, piece_id)


@router.post("", status_code=201)
def put_in(ctx: Ctx, body: s.PutInIn) -> s.SaltOut:
    """Put muscles in salt, all or none."""
    return doing.put_in(ctx, body)


@router.post("/events", status_code=201)
def note(ctx: Ctx, body: s.NoteIn) -> s.SaltOut:
    """Note something done to pieces, all or none. A weight outside what is expected is asked about first."""
    return doing.note(ctx, body)


@router.post("/events/{event_id}/strike")
def strike(ctx: Ctx, event_id: Id, body: StrikeIn) -> s.SaltOut:
    """Strike an entry through; it stays on record."""
    return doing.strike(ctx, event_id, body)


@router.put("/{piece_id}/rules")
def choose_rules(ctx: Ctx, piece_id: Id, body: s.RulesIn) -> s.SaltDetail:
    """Choose which rules count for a piece."""
    return doing.choose_rules(ctx, piece_id, body)


@router.post("/{piece_id}/hook", status_code=201)
def to_hook(ctx: Ctx, piece_id: Id, body: s.ToHookIn) -> s.ToHookOut:
    """Case, tie and tag a piece that is out of the salt: from here it waits for its hook."""
    return doing.to_hook(ctx, piece_id, body)
