"""The ledger of a batch: every hurdle with its limit, its value and how it is known; and what settles them."""

from dataclasses import asdict
from typing import Any

from fastapi import APIRouter
from sqlalchemy.orm import Session

from zymon.core.errors import OutOfRangeError
from zymon.core.keeping import LabActivity, keeping_at, losses_to
from zymon.formats.batch_file import LedgerFile, ledger_out
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench as store
from zymon.store import evidence, warm
from zymon.store.bench_models import Making
from zymon.store.places import ClashError
from zymon.store.warm_models import LabResult, ParasiteStep

from ..bench import making_schemas as m
from ..context import Ctx, Id, moment
from ..schemas import StrikeIn
from . import schemas as s
from .assemble import batch_of, ledger_of

router = APIRouter(prefix="/api", tags=["ledger"])


def _ledger(session: Session, batch_id: int, now_s: int) -> LedgerFile:
    return ledger_out(ledger_of(session, store.making(session, batch_id), now_s))


def _whole(session: Session, batch_id: int, now_s: int) -> s.LedgerOut:
    of = store.making(session, batch_id)
    lab = evidence.lab_results(session, batch_id)
    keeping, by = _keeping(session, of, now_s)
    return s.LedgerOut(
        ledger=_ledger(session, batch_id, now_s),
        profile=of.profile,
        laboratory=[
            s.LabOut(
                id=r.id,
                what=r.what,  # type: ignore[arg-type] # checked on entry
                value=r.value,
                loss_percent=r.loss_percent,
                note=r.note,
                at=moment(r.at_s),
                by=r.by,
                struck_reason=r.struck_reason,
            )
            for r in lab
        ],
        keeping=keeping,
        keeping_by=by,  # type: ignore[arg-type] # one of the two
    )


def _keeping(session: Session, of: Making, now_s: int) -> tuple[list[s.KeepingOut], str]:
    """Water activity and the rest from the bowl to past the target; empty where fat or salt are not known."""
    plan = SheetModel.model_validate_json(of.sheet).plan
    fat, salt = of.batch.fat_percent, of.batch.salt_percent
    if fat is None or salt is None:
        return [], "estimate"
    known = batch_of(session, of, now_s)
    ph = known.lab("ph") or (known.warm.ph[-1][1] if known.warm is not None and known.warm.ph else None)
    values = [
        r for r in warm.counted(evidence.lab_results(session, of.batch_id))
        if r.what == "water_activity" and r.loss_percent is not None
    ]  # fmt: skip
    lab = LabActivity(values[-1].loss_percent or 0.0, values[-1].value) if values else None
    out = []
    for loss in losses_to(min(plan.target_loss_percent, 60.0)):
        try:
            out.append(s.KeepingOut(**asdict(keeping_at(fat, salt, loss, ph, lab))))
        except OutOfRangeError:
            break  # there is not so much water in it
    return out, "estimate" if lab is None else "laboratory"


@router.get("/batches/{batch_id}/ledger")
def ledger(ctx: Ctx, batch_id: Id) -> LedgerFile:
    """Every hurdle of a batch, and whether it is ready."""
    with ctx.db.reading() as session:
        return _ledger(session, batch_id, ctx.now_s)


@router.get("/batches/{batch_id}/hurdles")
def hurdles(ctx: Ctx, batch_id: Id) -> s.LedgerOut:
    """The ledger with what it goes by: limits, laboratory, keeping along the drying."""
    with ctx.db.reading() as session:
        return _whole(session, batch_id, ctx.now_s)


@router.post("/batches/{batch_id}/signatures", status_code=201)
def sign(ctx: Ctx, batch_id: Id, body: m.SignIn) -> s.LedgerOut:
    """Sign for an unknown hurdle, with a reason; what fails or is pending cannot be signed for."""
    with ctx.db.writing() as session:
        found = _ledger(session, batch_id, ctx.now_s)
        state = next((h.state for h in found.hurdles if h.name == body.hurdle), None)
        if state != "unknown":
            raise ClashError(f"only an unknown can be signed for; this one is {state or 'not on the ledger'}")
        store.sign(session, batch_id, body.hurdle, body.reason, body.by, ctx.now_s)
        session.flush()
        return _whole(session, batch_id, ctx.now_s)


@router.post("/batches/{batch_id}/laboratory", status_code=201)
def laboratory(ctx: Ctx, batch_id: Id, body: s.LabIn) -> s.LedgerOut:
    """Enter a value from a laboratory; it overrides the estimate and may answer a hurdle."""
    if body.what == "water_activity" and not 0.5 <= body.value <= 1:
        raise OutOfRangeError(f"water activity must be between 0.5 and 1, got {body.value:g}")
    if body.what == "ph" and not 3 <= body.value <= 9:
        raise OutOfRangeError(f"pH must be between 3 and 9, got {body.value:g}")
    with ctx.db.writing() as session:
        store.making(session, batch_id)
        at_s = ctx.now_s if body.at is None else int(body.at.timestamp())
        session.add(
            LabResult(
                batch_id=batch_id, at_s=at_s, what=body.what, value=body.value, loss_percent=body.loss_percent,
                note=body.note, by=body.by, entered_s=ctx.now_s,
            )
        )  # fmt: skip
        session.flush()
        return _whole(session, batch_id, ctx.now_s)


@router.post("/laboratory/{result_id}/strike")
def strike_laboratory(ctx: Ctx, result_id: Id, body: StrikeIn) -> s.LedgerOut:
    """Strike a laboratory value through; it stays on record."""
    with ctx.db.writing() as session:
        found = evidence.lab_result(session, result_id)
        warm.strike(found, body.reason, body.by, ctx.now_s)
        session.flush()
        return _whole(session, found.batch_id, ctx.now_s)


@router.post("/batches/{batch_id}/parasites", status_code=201)
def parasites(ctx: Ctx, batch_id: Id, body: s.ParasiteIn) -> s.LedgerOut:
    """Say what was done about parasites."""
    with ctx.db.writing() as session:
        store.making(session, batch_id)
        session.add(ParasiteStep(batch_id=batch_id, entered_s=ctx.now_s, **body.model_dump()))
        session.flush()
        return _whole(session, batch_id, ctx.now_s)


@router.put("/batches/{batch_id}/profile")
def change_profile(ctx: Ctx, batch_id: Id, body: s.ProfileIn) -> s.ProfileChanged:
    """Judge a batch by other limits; says which hurdles stand otherwise by them."""
    with ctx.db.writing() as session:
        before = {h.name: h.state for h in _ledger(session, batch_id, ctx.now_s).hurdles}
        evidence.change_profile(session, store.making(session, batch_id), body.profile, body.by, ctx.now_s)
        found = _whole(session, batch_id, ctx.now_s)
    changed = [
        s.StandsOtherwise(name=h.name, was=before[h.name], now=h.state)
        for h in found.ledger.hurdles
        if before[h.name] != h.state
    ]
    return s.ProfileChanged(changed=changed, ledger=found)


@router.get("/limits")
def limits(ctx: Ctx) -> list[s.LimitProfileIn]:
    """Every limit profile with its figures."""
    with ctx.db.reading() as session:
        return [s.LimitProfileIn.model_validate(asdict(p)) for p in evidence.profiles(session).values()]


@router.post("/limits", status_code=201)
def add_limits(ctx: Ctx, body: s.LimitProfileNew) -> s.LimitProfileIn:
    """Add a limit profile of the maker's own."""
    data: dict[str, Any] = body.model_dump(exclude={"by"})
    steps = data["degree_hours"]["steps"]
    if any(step["below"] is None and step["up_to"] is None for step in steps[:-1]) or steps[-1]["below"] is not None:
        raise OutOfRangeError("each allowance but the last needs a temperature it holds to, and the last has none")
    with ctx.db.writing() as session:
        made = evidence.add_profile(session, data, body.by, ctx.now_s)
    return s.LimitProfileIn.model_validate(asdict(made))
