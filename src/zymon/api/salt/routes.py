"""The Salt station: put in, look after, take out, send to the hook."""

from fastapi import APIRouter
from sqlalchemy.orm import Session

from zymon.core.bench.families import FAMILIES
from zymon.core.errors import OutOfRangeError
from zymon.core.pieces import net_weight, target_by_basis
from zymon.core.salting.clock import salt_clocks
from zymon.core.salting.shed import judge_weight
from zymon.formats.family_sheet import family_sheet
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench
from zymon.store import salt as store
from zymon.store.bench_models import MadePiece, Making
from zymon.store.places import NotFoundError, place
from zymon.store.salt_models import SaltEvent, SaltPiece

from ..context import Ctx, Id
from ..errors import DoubtfulError
from ..schemas import StrikeIn
from . import schemas as s
from . import views

router = APIRouter(prefix="/api/salt", tags=["salt"])

GRAMS = ("weigh", "out")
WITH_VALUE = {"soak": "for how many hours?", "weigh": "what does it weigh?", "out": "what does it weigh?"}


@router.get("")
def salt(ctx: Ctx) -> s.SaltOut:
    """Everything in salt."""
    with ctx.db.reading() as session:
        return views.salt_out(session, ctx.now_s)


@router.get("/{piece_id}")
def piece(ctx: Ctx, piece_id: Id) -> s.SaltDetail:
    """One piece in salt."""
    with ctx.db.reading() as session:
        return views.detail(session, store.salt_piece(session, piece_id), ctx.now_s)


@router.post("", status_code=201)
def put_in(ctx: Ctx, body: s.PutInIn) -> s.SaltOut:
    """Put muscles in salt, all or none."""
    at_s = ctx.now_s if body.at is None else int(body.at.timestamp())
    with ctx.db.writing() as session:
        place(session, body.place_id)
        making = _making(session, body, at_s)
        tags = store.next_tags(session, making, len(body.muscles))
        for muscle, next_tag in zip(body.muscles, tags, strict=True):
            into = SaltEvent(
                uid=f"in-{making.batch_id}-{muscle.tag or next_tag}",
                kind="in",
                at_s=at_s,
                place_id=body.place_id,
                container=body.container or None,
                way=body.way,
                free_salt=body.free_salt,
                percent=body.percent,
                by=body.by,
                entered_s=ctx.now_s,
            )
            new = store.NewSaltPiece(
                tag=muscle.tag or next_tag,
                geometry=body.geometry,
                across_mm=muscle.across_mm,
                raw_g=muscle.raw_g,
                skin_share=body.skin_share,
                rules=tuple(body.rules),
                margin_percent=body.margin_percent,
            )
            store.add_piece(session, making, new, into, ctx.now_s)
        return views.salt_out(session, ctx.now_s)


def _making(session: Session, body: s.PutInIn, at_s: int) -> Making:
    if body.batch_id is not None:
        making = bench.making(session, body.batch_id)
        if SheetModel.model_validate_json(making.sheet).plan.salting == "in_the_mince":
            raise OutOfRangeError("this batch is minced: its salt is in it already")
        return making
    if body.quick is None:
        raise OutOfRangeError("which batch is it? Pick one of the Bench, or say what it is")
    quick = body.quick
    family = next((f for f in FAMILIES if f.id == quick.family and not f.minced), None)
    if family is None:
        raise NotFoundError("there are no such goods to salt whole")
    weights_g = [m.raw_g for m in body.muscles]
    sheet = family_sheet(family, quick.product, weights_g, body.muscles[0].across_mm, body.way, body.percent)
    new = bench.NewMaking(
        code=quick.code,
        product=quick.product,
        kind=family.kind,
        shape=family.shape,
        casing=family.casing,
        fat_percent=family.fat_percent,
        salt_percent=body.percent,
        sheet=sheet.model_dump_json(),
        profile="us",
        pinch_place_id=None,
        holds=(),
    )
    return bench.make_batch(session, new, None, body.by, at_s)


@router.post("/events", status_code=201)
def note(ctx: Ctx, body: s.NoteIn) -> s.SaltOut:
    """Note something done to pieces, all or none. A weight outside what is expected is asked about first."""
    with ctx.db.writing() as session:
        for piece_id in body.pieces:
            _note_one(session, store.salt_piece(session, piece_id), body, ctx.now_s)
        return views.salt_out(session, ctx.now_s)


def _note_one(session: Session, of: SaltPiece, body: s.NoteIn, now_s: int) -> None:
    if body.kind in WITH_VALUE and body.value is None:
        raise OutOfRangeError(f"{of.tag}: {WITH_VALUE[body.kind]}")
    if body.kind in (*GRAMS, "soak", "drain", "coat") and body.value is not None and body.value <= 0:
        raise OutOfRangeError(f"{of.tag}: must be above 0, got {body.value:g}")
    if body.kind == "move":
        place(session, body.place_id or store.stays(of)[-1][0].id)
    if body.kind == "way" and (body.way is None or body.percent is None):
        raise OutOfRangeError("say how it is salted from now on, and with how much salt")
    if body.kind == "discard" and not body.note:
        raise OutOfRangeError("say why it is thrown away")
    event = SaltEvent(
        uid=f"{body.uid}-{of.id}",
        kind=body.kind,
        at_s=now_s if body.at is None else int(body.at.timestamp()),
        value=body.value,
        place_id=body.place_id or (store.stays(of)[-1][0].id if body.kind == "move" else None),
        container=body.container,
        way=body.way if body.kind == "way" else None,
        free_salt=body.free_salt if body.kind == "way" else None,
        percent=body.percent if body.kind == "way" else None,
        note=body.note,
        by=body.by,
        entered_s=now_s,
    )
    if store.note(session, of, event, now_s) and body.kind in GRAMS and not body.confirmed:
        _ask_about(session, of, event, now_s)


def _ask_about(session: Session, of: SaltPiece, event: SaltEvent, now_s: int) -> None:
    """Ask for a second weighing where the first cannot well be. Raises DoubtfulError."""
    colds = store.colds_for(session, [of], now_s)
    clock = salt_clocks([store.bag_of(of, colds)], now_s)[0]
    expected = views.expected_now(of, clock, event.at_s)
    weight_g = event.value or 0.0
    verdict = judge_weight(of.raw_g, weight_g, expected)
    if verdict == "as_expected":
        return
    between = f"{expected.low_g:.0f}–{expected.high_g:.0f} g"
    if verdict == "gained":
        raise DoubtfulError(
            f"{of.tag} went in with {of.raw_g:g} g and now shows {weight_g:g} g, where {between} is expected: look at "
            "the zero of the scale, wipe off salt and spice, weigh again"
        )
    raise DoubtfulError(f"{of.tag} shows {weight_g:g} g, where {between} is expected: weigh again")


@router.post("/events/{event_id}/strike")
def strike(ctx: Ctx, event_id: Id, body: StrikeIn) -> s.SaltOut:
    """Strike an entry through; it stays on record."""
    with ctx.db.writing() as session:
        store.strike(session, event_id, body.reason, body.by, ctx.now_s)
        session.flush()
        return views.salt_out(session, ctx.now_s)


@router.put("/{piece_id}/rules")
def choose_rules(ctx: Ctx, piece_id: Id, body: s.RulesIn) -> s.SaltDetail:
    """Choose which rules count for a piece."""
    with ctx.db.writing() as session:
        of = store.salt_piece(session, piece_id)
        of.rules, of.margin_percent = ",".join(dict.fromkeys(body.rules)), body.margin_percent
        return views.detail(session, of, ctx.now_s)


@router.post("/{piece_id}/hook", status_code=201)
def to_hook(ctx: Ctx, piece_id: Id, body: s.ToHookIn) -> s.ToHookOut:
    """Case, tie and tag a piece that is out of the salt: from here it waits for its hook."""
    with ctx.db.writing() as session:
        of = store.salt_piece(session, piece_id)
        cured_g = store.cured_weight(of)
        slab = of.making.batch.shape == "slab"
        made = MadePiece(
            tag=of.tag,
            gross_g=body.gross_g,
            casing_g=body.casing_g,
            net_g=body.net_g,
            string_g=body.string_g,
            coat_g=body.coat_g,
            raw_g=of.raw_g,
            cured_g=cured_g,
            diameter_mm=None if slab else body.across_mm,
            thickness_mm=body.across_mm if slab else None,
            length_mm=body.length_mm,
            target_loss_percent=body.target_loss_percent,
            loss_basis=body.loss_basis,
            made_s=ctx.now_s,
            by=body.by,
        )
        store.tag_for_hook(session, of, made)
        net_g = net_weight(made.gross_g, made.tare_g)
        by_basis = target_by_basis(of.raw_g, cured_g, net_g, body.target_loss_percent)
        return s.ToHookOut(
            tag=of.tag,
            batch_id=of.batch_id,
            target_gross_g=round(bench.target_gross(made), 1),
            by_basis={k: round(v + made.tare_g, 1) for k, v in by_basis.items()},  # type: ignore[misc]
        )
