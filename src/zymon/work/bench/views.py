"""From what is stored and worked out to what the Bench shows."""

from collections.abc import Sequence
from dataclasses import asdict

from zymon.core.bench.consequences import consequences
from zymon.core.bench.sheet import work
from zymon.core.bench.weighing import Pour, Thing, things
from zymon.core.limits import LimitProfile
from zymon.core.pieces import loss_percent
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench as store
from zymon.store.bench_models import Hold, Lot, MadePiece, Making, Mix, Recipe, WeighOut
from zymon.store.database import Session
from zymon.store.places import place
from zymon.store.salt import batches_in_salt
from zymon.store.warm import discarded, discarded_batches

from ..bench.pieces import pieces_of
from ..premises import moment
from ..schemas import MadeOut, all_said, read_said, said_out
from . import making_schemas as m
from . import schemas as s


def worked_out(sheet: SheetModel, profile: LimitProfile) -> s.WorkedOut:
    """A sheet worked out with its consequences."""
    core = sheet.to_core()
    worked = work(core)
    found = None
    if worked.formulation is not None and worked.total_g > 0:
        found = consequences(core, worked, sheet.plan.to_core(), profile)
    return s.WorkedOut(
        meat_g=worked.meat_g,
        fat_percent=worked.fat_percent,
        total_g=worked.total_g,
        lines=[s.LineOut(**asdict(line)) for line in worked.lines],
        problems=[s.SheetProblem(where=p.where, said=said_out(p.said)) for p in worked.problems],
        consequences=None if found is None else s.ConsequencesOut.model_validate(asdict(found)),
    )


def recipe_out(recipe: Recipe) -> s.RecipeOut:
    """A recipe with its versions."""
    return s.RecipeOut(
        id=recipe.id,
        name=recipe.name,
        versions=[
            s.VersionOut(
                number=v.number,
                reason=v.reason,
                by=v.by,
                at=moment(v.at_s),
                sheet=SheetModel.model_validate_json(v.sheet),
            )
            for v in recipe.versions
        ],
    )


def lot_out(lot: Lot) -> m.LotOut:
    """A lot."""
    return m.LotOut(id=lot.id, kind=lot.kind, code=lot.code, what=lot.what, at=moment(lot.at_s))


def things_of(weigh_out: WeighOut) -> tuple[Thing, ...]:
    """How the things of a weigh-out stand."""
    pours = [Pour(e.key, e.grams) for e in store.counted(weigh_out) if e.rescale is None]
    return things(SheetModel.model_validate_json(weigh_out.sheet).to_core(), pours, store.rescale_of(weigh_out))


def lot_kind(key: str, sheet: SheetModel) -> str:
    """Of which kind the lots of a thing are."""
    kind, _, number = key.partition("-")
    if kind == "meat":
        return "meat"
    if kind == "curing":
        return "curing_salt"
    return "culture" if kind == "line" and sheet.lines[int(number)].role == "culture" else "other"


def weigh_out_out(
    session: Session, weigh_out: WeighOut, now_s: int, made: list[MadeOut] | None = None
) -> m.WeighOutOut:
    """A weigh-out as it stands."""
    sheet = SheetModel.model_validate_json(weigh_out.sheet)
    found = things_of(weigh_out)
    lots = {e.key: e.lot.code for e in store.counted(weigh_out) if e.lot is not None}
    planned = {f"meat-{i}": part.lot for i, part in enumerate(sheet.parts)}
    return m.WeighOutOut(
        made=made or [],
        id=weigh_out.id,
        product=weigh_out.product,
        by=weigh_out.by,
        started_at=moment(weigh_out.started_s),
        ended_at=None if weigh_out.ended_s is None else moment(weigh_out.ended_s),
        rescale=store.rescale_of(weigh_out),
        asks_temperature=sheet.plan.goods == "minced",
        meat_temperature_c=weigh_out.meat_temperature_c,
        meat_temperature_at=None if weigh_out.meat_temperature_s is None else moment(weigh_out.meat_temperature_s),
        things=[
            m.ThingOut(
                **asdict(thing),
                missing_g=thing.missing_g,
                lot=lots.get(thing.key) or planned.get(thing.key) or None,
                lot_kind=lot_kind(thing.key, sheet),  # type: ignore[arg-type] # one of the four
            )
            for thing in found
        ],
        entries=[
            m.EntryOut(
                id=e.id,
                key=e.key,
                grams=e.grams,
                rescale=e.rescale,
                lot=None if e.lot is None else e.lot.code,
                at=moment(e.at_s),
                by=e.by,
                struck_reason=e.struck_reason,
                struck_by=e.struck_by,
            )
            for e in weigh_out.entries
        ],
        left=sum(thing.state != "right" for thing in found),
        next_code=store.next_code(session, weigh_out.product),
        may_join=[
            m.JoinOut(id=one.batch_id, code=one.batch.code, product=one.batch.product)
            for one in store.may_be_joined(session, weigh_out, sheet.plan.kind, now_s)
        ],
    )


def next_tag(making: Making) -> str:
    """The tag of the next piece: the batch's code and a running number."""
    taken = [p.tag for p in making.pieces] + [p.tag for p in making.batch.pieces]
    return following_tag(making.batch.code, taken)


def following_tag(code: str, taken: Sequence[str]) -> str:
    """The tag after those taken. Parameters: code, of the batch; taken."""
    numbers = [int(t.rpartition("-")[2]) for t in taken if t.rpartition("-")[2].isdigit()]
    return f"{code}-{max(numbers, default=0) + 1:02d}"


def batch_out(session: Session, batch_id: int, now_s: int, made: list[MadeOut] | None = None) -> m.BatchOut:
    """A batch with everything that was recorded of its making, and its pieces in whatever state."""
    batch = store.batch(session, batch_id)
    of = store.making_of(session, batch_id)
    weigh_out = None if of is None else of.weigh_out
    sheet = None if of is None else SheetModel.model_validate_json(of.sheet)
    gone = discarded(session, batch_id)
    pinch_id = None if of is None else of.pinch_place_id
    pieces = pieces_of(session, batch, now_s)
    minced = sheet is not None and sheet.plan.goods == "minced"
    return m.BatchOut(
        made=made or [],
        id=batch.id,
        code=batch.code,
        product=batch.product,
        kind=batch.kind,
        shape=batch.shape,
        casing=batch.casing,
        made_at=moment(batch.created_s if of is None else of.made_s),
        by=None if of is None else of.by,
        profile=batch.profile,
        sheet=sheet,
        fat_percent=batch.fat_percent,
        salt_percent=batch.salt_percent,
        meat_temperature_c=None if weigh_out is None else weigh_out.meat_temperature_c,
        minced=minced,
        discarded=None if gone is None else f"{gone.by}: {gone.note}",
        pinch_place=None if pinch_id is None else place(session, pinch_id).name,
        asks_pinch=minced and pinch_id is None,
        used=[] if of is None else [lot for bowl, mix in store.bowls(of) for lot in _used(bowl, mix)],
        mixes=[] if of is None else [_mix_out(mix) for mix in of.mixes],
        holds=[] if of is None else [_hold_out(h) for h in of.holds],
        pieces=pieces,
        tagged=0 if of is None else len(of.pieces),
        next_tag=following_tag(batch.code, [p.tag for p in pieces]),
    )


def _mix_out(mix: Mix) -> m.MixOut:
    sheet = SheetModel.model_validate_json(mix.sheet)
    worked = work(sheet.to_core())
    return m.MixOut(
        id=mix.id,
        name=mix.name,
        made_at=moment(mix.made_s),
        by=mix.by,
        fat_percent=round(worked.fat_percent, 1),
        salt_percent=round(worked.sodium_chloride_percent, 2),
    )


def _used(weigh_out: WeighOut, mix: Mix | None) -> list[m.UsedLot]:
    names = {thing.key: thing.name for thing in things_of(weigh_out)}
    return [
        m.UsedLot(
            mix=None if mix is None else mix.name,
            name=names.get(e.key, e.key),
            grams=e.grams,
            lot_id=e.lot_id,
            lot=None if e.lot is None else e.lot.code,
        )
        for e in store.counted(weigh_out)
        if e.rescale is None
    ]


def _hold_out(hold: Hold) -> m.HoldOut:
    return m.HoldOut(
        id=hold.id,
        text=hold.text,
        says=next(iter(all_said(read_said(hold.says))), None),
        source=hold.source,
        at=moment(hold.at_s),
        answered_at=None if hold.answered_s is None else moment(hold.answered_s),
        answered_by=hold.answered_by,
        reason=hold.reason,
        legal_basis=hold.legal_basis,
    )


def bench_out(session: Session) -> m.BenchOut:
    """What lies on the bench: batches with nothing done to them yet or with pieces that wait; not those thrown away."""
    salted, gone = batches_in_salt(session), discarded_batches(session)
    return m.BenchOut(
        weigh_outs=[
            m.OpenWeighOut(
                id=w.id,
                product=w.product,
                started_at=moment(w.started_s),
                by=w.by,
                left=sum(thing.state != "right" for thing in things_of(w)),
            )
            for w in store.open_weigh_outs(session)
        ],
        batches=[
            m.BatchBrief(
                id=one.batch_id,
                code=one.batch.code,
                product=one.batch.product,
                made_at=moment(one.made_s),
                pieces=len(one.pieces),
                waiting=sum(p.piece_id is None for p in one.pieces),
                held=any(h.answered_s is None for h in one.holds),
            )
            for one in store.makings(session)
            if one.batch_id not in gone
            and (any(p.piece_id is None for p in one.pieces) or (not one.pieces and one.batch_id not in salted))
        ],
    )


def waiting_piece(piece: MadePiece, making: Making) -> m.WaitingPiece:
    """A piece on its way to the hook."""
    batch = making.batch
    target_g = store.target_gross(piece)
    return m.WaitingPiece(
        tag=piece.tag,
        batch=batch.code,
        product=batch.product,
        kind=batch.kind,
        shape=piece.shape,
        casing=piece.casing,
        fat_percent=batch.fat_percent,
        salt_percent=batch.salt_percent,
        gross_g=piece.gross_g,
        tare_g=piece.tare_g,
        diameter_mm=piece.diameter_mm,
        thickness_mm=piece.thickness_mm,
        length_mm=piece.length_mm,
        target_loss_percent=None
        if target_g is None or piece.gross_g is None
        else round(loss_percent(piece.gross_g, piece.tare_g, target_g), 2),
        target_gross_g=None if target_g is None else round(target_g, 1),
    )
