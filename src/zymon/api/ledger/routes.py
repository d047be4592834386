"""The ledger of a batch: every hurdle with its limit, its value and how it is known; and what settles them."""

from typing import Annotated, Any

from fastapi import APIRouter, Body, Response

from zymon.formats.batch_file import BatchFile
from zymon.formats.ledger_file import LedgerFile
from zymon.work.ledger import schemas as s
from zymon.work.ledger import settling, views
from zymon.work.schemas import StrikeIn

from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["ledger"])


@router.get("/batches/{batch_id}/ledger")
def ledger(ctx: Ctx, batch_id: Id) -> LedgerFile:
    """Every hurdle of a batch, and whether it is ready, in words."""
    return settling.ledger(ctx, batch_id)


@router.get("/batches/{code}/batch.json", response_model=BatchFile)
def batch_file(ctx: Ctx, code: str) -> Response:
    """The whole course of a batch as a batch file."""
    content = settling.batch_file(ctx, code).model_dump_json(by_alias=True)
    return Response(content, media_type="application/json")


@router.post("/judge")
def judge(document: Annotated[dict[str, Any], Body()]) -> LedgerFile:
    """Judge a batch file; nothing of it is stored."""
    return settling.judge_sent(document)


@router.get("/batches/{batch_id}/hurdles")
def hurdles(ctx: Ctx, batch_id: Id) -> s.LedgerOut:
    """The ledger with what it goes by: limits, laboratory, keeping along the drying."""
    return views.hurdles(ctx, batch_id)


@router.post("/batches/{batch_id}/signatures", status_code=201)
def sign(ctx: Ctx, batch_id: Id, body: s.SignIn) -> s.LedgerOut:
    """Sign for an unknown hurdle, or release a correction; what fails or is pending cannot be signed for."""
    return settling.sign(ctx, batch_id, body)


@router.post("/batches/{batch_id}/laboratory", status_code=201)
def laboratory(ctx: Ctx, batch_id: Id, body: s.LabIn) -> s.LedgerOut:
    """Enter a value from a laboratory; it goes before a computed one."""
    return settling.laboratory(ctx, batch_id, body)


@router.post("/laboratory/{result_id}/strike")
def strike_laboratory(ctx: Ctx, result_id: Id, body: StrikeIn) -> s.LedgerOut:
    """Strike a laboratory value through; it stays on record."""
    return settling.strike_laboratory(ctx, result_id, body)


@router.post("/batches/{batch_id}/parasites", status_code=201)
def parasites(ctx: Ctx, batch_id: Id, body: s.ParasiteIn) -> s.LedgerOut:
    """Say what was done about the parasites of a species."""
    return settling.parasites(ctx, batch_id, body)


@router.post("/parasites/{step_id}/strike")
def strike_parasites(ctx: Ctx, step_id: Id, body: StrikeIn) -> s.LedgerOut:
    """Strike through what was said about parasites; it stays on record."""
    return settling.strike_parasites(ctx, step_id, body)


@router.post("/batches/{batch_id}/went-in", status_code=201)
def went_in(ctx: Ctx, batch_id: Id, body: s.WentInIn) -> s.LedgerOut:
    """Say what went into meat that never lay on the Bench."""
    return settling.went_in(ctx, batch_id, body)


@router.post("/batches/{batch_id}/ph", status_code=201)
def measure_ph(ctx: Ctx, batch_id: Id, body: s.PhIn) -> s.LedgerOut:
    """A pH of a batch in whatever stage."""
    return settling.measure_ph(ctx, batch_id, body)


@router.post("/batches/{batch_id}/meat", status_code=201)
def meat(ctx: Ctx, batch_id: Id, body: s.MeatIn) -> s.LedgerOut:
    """Note where the meat lay before it was salted, stuffed or hung, or how warm it was when it was mixed."""
    return settling.meat(ctx, batch_id, body)


@router.post("/meat/{note_id}/strike")
def strike_meat(ctx: Ctx, note_id: Id, body: StrikeIn) -> s.LedgerOut:
    """Strike through where the meat lay; it stays on record."""
    return settling.strike_meat(ctx, note_id, body)


@router.post("/batches/{batch_id}/steps", status_code=201)
def step(ctx: Ctx, batch_id: Id, body: s.StepIn) -> s.LedgerOut:
    """Note what was done about a hurdle that failed or is in doubt."""
    return settling.step(ctx, batch_id, body)


@router.post("/steps/{step_id}/strike")
def strike_step(ctx: Ctx, step_id: Id, body: StrikeIn) -> s.LedgerOut:
    """Strike through what was done about a hurdle; it stays on record."""
    return settling.strike_step(ctx, step_id, body)


@router.put("/batches/{batch_id}/choices")
def choose(ctx: Ctx, batch_id: Id, body: s.ChoicesIn) -> s.LedgerOut:
    """Say how a batch is meant to be eaten, and what says that it is done."""
    return settling.choose(ctx, batch_id, body)


@router.put("/batches/{batch_id}/profile")
def change_profile(ctx: Ctx, batch_id: Id, body: s.ProfileIn) -> s.ProfileChanged:
    """Judge a batch by other limits; says which hurdles stand otherwise by them."""
    return settling.change_profile(ctx, batch_id, body)


@router.get("/limits")
def limits(ctx: Ctx) -> list[s.LimitProfileIn]:
    """Every limit profile with its figures."""
    return settling.limits(ctx)


@router.post("/limits", status_code=201)
def add_limits(ctx: Ctx, body: s.LimitProfileNew) -> s.LimitProfileIn:
    """Add a limit profile of the maker's own."""
    return settling.add_limits(ctx, body)
