"""The ledger with what it goes by, and what settles its hurdles: signatures, laboratory, parasite steps, limits."""

from dataclasses import asdict
from typing import Any

from zymon.core.errors import OutOfRangeError
from zymon.core.keeping import LabActivity, keeping_at, losses_to
from zymon.formats.batch_file import LedgerFile, ledger_out
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench as store
from zymon.store import evidence, struck
from zymon.store.bench_models import Making
from zymon.store.database import Session
from zymon.store.places import ClashError
from zymon.store.warm_models import LabResult, ParasiteStep

from ..bench import making_schemas as m
from ..premises import Premises, Recording, moment
from ..schemas import MadeOut, StrikeIn
from . import schemas as s
from .assemble import batch_of, ledger_of


def ledger(shop: Premises, batch_id: int) -> LedgerFile:
    """Every hurdle of a batch, and whether it is ready."""
    with shop.db.reading() as session:
        return ledger_out(ledger_of(session, store.making(session, batch_id), shop.now_s))


def hurdles(shop: Premises, batch_id: int, made: list[MadeOut] | None = None) -> s.LedgerOut:
    """The ledger with what it goes by: limits, laboratory, keeping along the drying."""
    with shop.db.reading() as session:
        of = store.making(session, batch_id)
        keeping, by = _keeping(session, of, shop.now_s)
        return s.LedgerOut(
            made=made or [],
            ledger=ledger_out(ledger_of(session, of, shop.now_s)),
            profile=of.profile,
            laboratory=[_lab_out(r) for r in evidence.lab_results(session, batch_id)],
            keeping=keeping,
            keeping_by=by,  # type: ignore[arg-type] # one of the two
        )


def _lab_out(of: LabResult) -> s.LabOut:
    return s.LabOut(
        id=of.id,
        what=of.what,  # type: ignore[arg-type] # checked on entry
        value=of.value,
        loss_percent=of.loss_percent,
        note=of.note,
        at=moment(of.at_s),
        by=of.by,
        struck_reason=of.struck_reason,
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
        r for r in struck.counted(evidence.lab_results(session, of.batch_id))
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


def _answer(shop: Premises, batch_id: int, entry: Recording) -> s.LedgerOut:
    return hurdles(shop, batch_id, entry.named)


def sign(shop: Premises, batch_id: int, body: m.SignIn) -> s.LedgerOut:
    """Sign for an unknown hurdle, with a reason; what fails or is pending cannot be signed for."""
    with shop.recording(body, f"sign {batch_id} {body.hurdle}"[:60]) as entry:
        if entry.new:
            found = ledger_of(entry.session, store.making(entry.session, batch_id), entry.now_s)
            state = next((h.state for h in found.hurdles if h.name == body.hurdle), None)
            if state != "unknown":
                raise ClashError(f"only an unknown can be signed for; this one is {state or 'not on the ledger'}")
            made = store.sign(entry.session, batch_id, body.hurdle, body.reason, body.by, entry.at(body.at))
            entry.came("signature", made.id)
    return _answer(shop, batch_id, entry)


def laboratory(shop: Premises, batch_id: int, body: s.LabIn) -> s.LedgerOut:
    """Enter a value from a laboratory; it overrides the estimate and may answer a hurdle."""
    if body.what == "water_activity" and not 0.5 <= body.value <= 1:
        raise OutOfRangeError(f"water activity must be between 0.5 and 1, got {body.value:g}")
    if body.what == "ph" and not 3 <= body.value <= 9:
        raise OutOfRangeError(f"pH must be between 3 and 9, got {body.value:g}")
    with shop.recording(body, f"laboratory {batch_id}") as entry:
        if entry.new:
            store.making(entry.session, batch_id)
            made = LabResult(
                batch_id=batch_id, at_s=entry.at(body.at), what=body.what, value=body.value,
                loss_percent=body.loss_percent, note=body.note, by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            entry.session.add(made)
            entry.session.flush()
            entry.came("lab_result", made.id)
    return _answer(shop, batch_id, entry)


def strike_laboratory(shop: Premises, result_id: int, body: StrikeIn) -> s.LedgerOut:
    """Strike a laboratory value through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        found = evidence.lab_result(session, result_id)
        struck.strike(found, body.reason, body.by, shop.now_s)
        batch_id = found.batch_id
    return hurdles(shop, batch_id)


def parasites(shop: Premises, batch_id: int, body: s.ParasiteIn) -> s.LedgerOut:
    """Say what was done about parasites."""
    with shop.recording(body, f"parasites {batch_id}") as entry:
        if entry.new:
            store.making(entry.session, batch_id)
            entry.at(body.at)
            values = body.model_dump(exclude={"uid", "at", "sure"})
            made = ParasiteStep(batch_id=batch_id, entered_s=entry.now_s, **values)
            entry.session.add(made)
            entry.session.flush()
            entry.came("parasite_step", made.id)
    return _answer(shop, batch_id, entry)


def change_profile(shop: Premises, batch_id: int, body: s.ProfileIn) -> s.ProfileChanged:
    """Judge a batch by other limits; says which hurdles stand otherwise by them."""
    with shop.changing(body.by) as session:
        of = store.making(session, batch_id)
        before = {h.name: h.state for h in ledger_of(session, of, shop.now_s).hurdles}
        evidence.change_profile(session, of, body.profile, body.by, shop.now_s)
    found = hurdles(shop, batch_id)
    changed = [
        s.StandsOtherwise(name=h.name, was=before[h.name], now=h.state)
        for h in found.ledger.hurdles
        if before[h.name] != h.state
    ]
    return s.ProfileChanged(changed=changed, ledger=found)


def limits(shop: Premises) -> list[s.LimitProfileIn]:
    """Every limit profile with its figures."""
    with shop.db.reading() as session:
        return [s.LimitProfileIn.model_validate(asdict(p)) for p in evidence.profiles(session).values()]


def add_limits(shop: Premises, body: s.LimitProfileNew) -> s.LimitProfileIn:
    """Add a limit profile of the maker's own."""
    data: dict[str, Any] = body.model_dump(exclude={"by"})
    steps = data["degree_hours"]["steps"]
    if any(step["below"] is None and step["up_to"] is None for step in steps[:-1]) or steps[-1]["below"] is not None:
        raise OutOfRangeError("each allowance but the last needs a temperature it holds to, and the last has none")
    with shop.changing(body.by) as session:
        made = evidence.add_profile(session, data, body.by, shop.now_s)
    return s.LimitProfileIn.model_validate(asdict(made))
