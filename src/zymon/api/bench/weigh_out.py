"""Weighing out, one thing at a time, and the batch that comes of it."""

from fastapi import APIRouter

from zymon.core.bench import weighing
from zymon.core.bench.consequences import consequences
from zymon.core.bench.sheet import work
from zymon.core.errors import OutOfRangeError
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench as store
from zymon.store.bench_models import WeighEntry, WeighOut
from zymon.store.evidence import profile
from zymon.store.places import NotFoundError

from ..context import Ctx, Id
from . import making_schemas as m
from . import views

router = APIRouter(prefix="/api", tags=["bench"])


@router.post("/weigh-outs", status_code=201)
def begin(ctx: Ctx, body: m.WeighOutIn) -> m.WeighOutOut:
    """Begin to weigh a sheet out."""
    weighing.things(body.sheet.to_core(), [])  # refuses a sheet that cannot be weighed out
    with ctx.db.writing() as session:
        profile(session, body.profile)
        version_id = None
        if body.recipe_id is not None:
            of = store.recipe(session, body.recipe_id)
            version_id = next((v.id for v in of.versions if v.number == body.version), None)
        made = WeighOut(
            recipe_version_id=version_id,
            product=body.product,
            sheet=body.sheet.model_dump_json(),
            profile=body.profile,
            started_s=ctx.now_s,
            by=body.by,
        )
        session.add(made)
        session.flush()
        return views.weigh_out_out(session, made)


@router.get("/weigh-outs/{weigh_out_id}")
def weigh_out(ctx: Ctx, weigh_out_id: Id) -> m.WeighOutOut:
    """A weigh-out as it stands."""
    with ctx.db.reading() as session:
        return views.weigh_out_out(session, store.weigh_out(session, weigh_out_id))


def _thing(of: WeighOut, key: str) -> weighing.Thing:
    found = next((thing for thing in views.things_of(of) if thing.key == key), None)
    if found is None:
        raise NotFoundError("this is not on the sheet being weighed out")
    return found


@router.post("/weigh-outs/{weigh_out_id}/entries", status_code=201)
def pour(ctx: Ctx, weigh_out_id: Id, body: m.EntryIn) -> m.WeighOutOut:
    """Note what was poured; an entry sent twice counts once."""
    with ctx.db.writing() as session:
        of = store.weigh_out(session, weigh_out_id, to_change=True)
        thing = _thing(of, body.key)
        sent = any(e.uid == body.uid for e in of.entries)
        if not sent and (thing.weighed_g or 0.0) + body.grams < 0:
            raise OutOfRangeError(f"only {thing.weighed_g or 0:g} g of {thing.name} is in the bowl")
        if not sent and body.grams == 0:
            raise OutOfRangeError("weight must not be 0 g")
        kind = views.lot_kind(body.key, SheetModel.model_validate_json(of.sheet))
        lot_id = store.lot_for(session, body.lot, kind, thing.name, body.by, ctx.now_s).id if body.lot else None
        entry = WeighEntry(
            uid=body.uid, key=body.key, grams=body.grams, lot_id=lot_id, at_s=ctx.now_s, by=body.by, rescale=None
        )
        store.add_entry(session, of, entry)
        return views.weigh_out_out(session, of)


@router.post("/weigh-outs/{weigh_out_id}/rescale", status_code=201)
def rescale(ctx: Ctx, weigh_out_id: Id, body: m.RescaleIn) -> m.WeighOutOut:
    """Rescale the rest to what was really put in of one thing."""
    with ctx.db.writing() as session:
        of = store.weigh_out(session, weigh_out_id, to_change=True)
        factor = weighing.rescale_to(_thing(of, body.key), store.rescale_of(of))
        entry = WeighEntry(uid=body.uid, key=body.key, grams=0.0, rescale=factor, at_s=ctx.now_s, by=body.by)
        store.add_entry(session, of, entry)
        return views.weigh_out_out(session, of)


@router.post("/weigh-out-entries/{entry_id}/strike")
def strike_entry(ctx: Ctx, entry_id: Id, body: m.EndIn) -> m.WeighOutOut:
    """Strike an entry through; it stays on record."""
    with ctx.db.writing() as session:
        of = store.strike_entry(session, entry_id, body.reason, body.by, ctx.now_s)
        session.flush()
        return views.weigh_out_out(session, of)


@router.put("/weigh-outs/{weigh_out_id}/temperature")
def temperature(ctx: Ctx, weigh_out_id: Id, body: m.TemperatureIn) -> m.WeighOutOut:
    """Note the meat's temperature before it is mixed."""
    with ctx.db.writing() as session:
        of = store.weigh_out(session, weigh_out_id, to_change=True)
        of.meat_temperature_c = body.temperature_c
        return views.weigh_out_out(session, of)


@router.post("/weigh-outs/{weigh_out_id}/give-up")
def give_up(ctx: Ctx, weigh_out_id: Id, body: m.EndIn) -> m.WeighOutOut:
    """Give a weigh-out up; what was weighed stays on record."""
    with ctx.db.writing() as session:
        of = store.weigh_out(session, weigh_out_id, to_change=True)
        of.ended_s, of.end = ctx.now_s, f"{body.reason} ({body.by})"
        return views.weigh_out_out(session, of)


@router.post("/weigh-outs/{weigh_out_id}/batch", status_code=201)
def make_batch(ctx: Ctx, weigh_out_id: Id, body: m.BatchIn) -> m.BatchOut:
    """Make a batch of what was weighed out. What breaks the limits puts a red hold on it."""
    with ctx.db.writing() as session:
        of = store.weigh_out(session, weigh_out_id, to_change=True)
        found = views.things_of(of)
        missing = [thing.name for thing in found if thing.weighed_g is None]
        if missing:
            raise OutOfRangeError(f"not weighed out yet: {', '.join(missing)}")
        sheet = SheetModel.model_validate_json(of.sheet)
        poured = {thing.key: thing.weighed_g or 0.0 for thing in found}
        real = sheet.as_made(poured)
        worked = work(real.to_core())
        follows = consequences(real.to_core(), worked, sheet.plan.to_core(), profile(session, of.profile))
        if follows is None:
            raise OutOfRangeError(worked.problems[0].text if worked.problems else "the sheet is not complete")
        plan = sheet.plan
        new = store.NewMaking(
            code=body.code,
            product=of.product,
            kind=plan.kind,
            shape=plan.shape,
            casing=plan.casing,
            fat_percent=round(min(worked.fat_percent, 80.0), 1),
            salt_percent=round(min(follows.salt.figure.value, 15.0), 2),
            sheet=real.model_dump_json(),
            profile=of.profile,
            pinch_place_id=body.pinch_place_id,
            holds=tuple((c.text, c.source) for c in follows.cautions if c.hold),
        )
        made = store.make_batch(session, new, of, body.by, ctx.now_s)
        return views.batch_out(session, made)
