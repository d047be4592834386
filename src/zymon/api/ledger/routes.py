"""The ledger of a batch: every hurdle with its limit, its value and how it is known; and what settles them."""

from fastapi import APIRouter

from zymon.formats.batch_file import LedgerFile
from zymon.work.bench import making_schemas as m
from zymon.work.ledger import schemas as s
from zymon.work.ledger import settling
from zymon.work.schemas import StrikeIn

from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["ledger"])


@router.get("/batches/{batch_id}/ledger")
def ledger(ctx: Ctx, batch_id: Id) -> LedgerFile:
    """Every hurdle of a batch, and whether it is ready."""
    return settling.ledger(ctx, batch_id)


@router.get("/batches/{batch_id}/hurdles")
def hurdles(ctx: Ctx, batch_id: Id) -> s.LedgerOut:
    """The ledger with what it goes by: limits, laboratory, keeping along the drying."""
    return settling.hurdles(ctx, batch_id)


@router.post("/batches/{batch_id}/signatures", status_code=201)
def sign(ctx: Ctx, batch_id: Id, body: m.SignIn) -> s.LedgerOut:
    """Sign for an unknown hurdle, with a reason; what fails or is pending cannot be signed for."""
    return settling.sign(ctx, batch_id, body)


@router.post("/batches/{batch_id}/laboratory", status_code=201)
def laboratory(ctx: Ctx, batch_id: Id, body: s.LabIn) -> s.LedgerOut:
    """Enter a value from a laboratory; it overrides the estimate and may answer a hurdle."""
    return settling.laboratory(ctx, batch_id, body)


@router.post("/laboratory/{result_id}/strike")
def strike_laboratory(ctx: Ctx, result_id: Id, body: StrikeIn) -> s.LedgerOut:
    """Strike a laboratory value through; it stays on record."""
    return settling.strike_laboratory(ctx, result_id, body)


@router.post("/batches/{batch_id}/parasites", status_code=201)
def parasites(ctx: Ctx, batch_id: Id, body: s.ParasiteIn) -> s.LedgerOut:
    """Say what was done about parasites."""
    return settling.parasites(ctx, batch_id, body)


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
