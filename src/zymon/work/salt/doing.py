"""What is done at the Salt: put in, look after, take out, trim, send to the hook; each recorded once."""

from zymon.core.bench.families import FAMILIES
from zymon.core.errors import OutOfRangeError
from zymon.core.pieces import net_weight, target_by_basis
from zymon.core.salting.clock import salt_clocks
from zymon.core.salting.shed import could_have_gained, judge_weight
from zymon.core.say import Said, said
from zymon.formats.family_sheet import SaidOfSalt, family_sheet
from zymon.formats.recipe_file import SheetCuring, SheetModel
from zymon.store import bench
from zymon.store import salt as store
from zymon.store.bench_models import MadePiece, Making
from zymon.store.database import Session
from zymon.store.places import NotFoundError, place
from zymon.store.salt_models import SaltEvent, SaltPiece

from ..premises import Premises, Recording
from ..schemas import StrikeIn
from . import schemas as s
from . import views
from .bags import bag_of, colds_for

WEIGHED = ("weigh", "out", "trim")
WITH_VALUE = {
    "soak": "refused.how_many_hours",
    "weigh": "refused.what_weighs",
    "out": "refused.what_weighs",
    "trim": "refused.what_is_left",
}


def piece(shop: Premises, piece_id: int) -> s.SaltDetail:
    """One piece in salt."""
    with shop.db.reading() as session:
        return views.detail(session, store.salt_piece(session, piece_id), shop.now_s)


def put_in(shop: Premises, body: s.PutInIn) -> s.SaltOut:
    """Put muscles in salt, all or none."""
    with shop.recording(body, "into salt") as entry:
        if entry.new:
            _put_in(entry, body)
    return views.salt_out(shop, entry.named)


def _put_in(entry: Recording, body: s.PutInIn) -> None:
    at_s = entry.at(body.at)
    place(entry.session, body.place_id)
    making = _making(entry.session, body, at_s)
    tags = store.next_tags(entry.session, making, len(body.muscles))
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
            entered_s=entry.now_s,
        )
        new = store.NewSaltPiece(
            tag=muscle.tag or next_tag,
            geometry=body.geometry,
            across_mm=muscle.across_mm,
            raw_g=muscle.raw_g,
            skin_share=body.skin_share,
            pierced=body.pierced,
            rules=tuple(body.rules),
            margin_percent=body.margin_percent,
        )
        entry.came("salt_piece", store.add_piece(entry.session, making, new, into, entry.now_s).id)


def _making(session: Session, body: s.PutInIn, at_s: int) -> Making:
    if body.batch_id is not None:
        making = bench.making(session, body.batch_id)
        if SheetModel.model_validate_json(making.sheet).plan.salting == "in_the_mince":
            raise OutOfRangeError("refused.salt_in_mince")
        return making
    if body.quick is None:
        raise OutOfRangeError("refused.which_batch")
    quick = body.quick
    family = next((f for f in FAMILIES if f.id == quick.family and not f.minced), None)
    if family is None:
        raise NotFoundError("refused.no_such_goods")
    weights_g = [m.raw_g for m in body.muscles]
    across_mm = body.muscles[0].across_mm
    said_of = _said_of_salt(quick)
    sheet = family_sheet(family, quick.product, weights_g, across_mm, body.way, body.percent, said_of, quick.species)
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


def _said_of_salt(quick: s.QuickBatch) -> SaidOfSalt:
    """What was said of the salt; a curing salt that nobody weighed is in it, in an amount that is not known."""
    if quick.curing == "weighed":
        if quick.curing_salt is None:
            raise OutOfRangeError("refused.which_curing_salt")
        return SaidOfSalt(SheetCuring(**quick.curing_salt.model_dump()), True, quick.dose_known)
    return SaidOfSalt(None, quick.curing == "none", quick.dose_known)


def note(shop: Premises, body: s.NoteIn) -> s.SaltOut:
    """Note something done to pieces, all or none. A weight outside what is expected is asked about first."""
    with shop.recording(body, f"salt {body.kind} {min(body.pieces)}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            for piece_id in body.pieces:
                _note_one(entry, store.salt_piece(entry.session, piece_id), body, at_s)
    return views.salt_out(shop, entry.named)


def _note_one(entry: Recording, of: SaltPiece, body: s.NoteIn, at_s: int) -> None:
    if body.kind in WITH_VALUE and body.value is None and not (body.kind == "out" and body.not_weighed):
        raise OutOfRangeError(WITH_VALUE[body.kind], tag=of.tag)
    if body.kind in (*WEIGHED, "soak", "coat") and body.value is not None and body.value <= 0:
        raise OutOfRangeError("refused.value_not_above", tag=of.tag, value=body.value)
    if body.kind == "drain" and body.value is not None and body.value < 0:
        raise OutOfRangeError("refused.value_below", tag=of.tag, value=body.value)
    if body.kind == "way" and (body.way is None or body.percent is None):
        raise OutOfRangeError("refused.how_salted_on")
    if body.kind == "discard" and not body.note:
        raise OutOfRangeError("refused.why_thrown_away")
    to_place = body.place_id or (store.stays(of)[-1][0].id if body.kind == "move" else None)
    if to_place is not None:
        place(entry.session, to_place)
    event = SaltEvent(
        uid=f"{body.uid}-{of.id}",
        kind=body.kind,
        at_s=at_s,
        value=body.value,
        place_id=to_place,
        container=body.container,
        way=body.way if body.kind == "way" else None,
        free_salt=body.free_salt if body.kind == "way" else None,
        percent=body.percent if body.kind == "way" else None,
        note=body.note,
        by=body.by,
        entered_s=entry.now_s,
    )
    if store.note(entry.session, of, event) and body.kind in ("weigh", "out") and event.value is not None:
        entry.ask(_question(entry.session, of, event, entry.now_s))
    entry.came("salt_event", event.id)


def _question(session: Session, piece: SaltPiece, event: SaltEvent, now_s: int) -> Said | None:
    """What to ask where a weight cannot well be; None where it can."""
    colds = colds_for(session, [piece], now_s)
    clock = salt_clocks([bag_of(piece, colds)], now_s)[0]
    expected = views.expected_now(piece, clock, event.at_s)
    weight_g = event.value or 0.0
    verdict = judge_weight(piece.raw_g, weight_g, expected)
    if verdict == "as_expected":
        return None
    code = "ask.salt_gained" if verdict == "gained" else "ask.salt_weight"
    went_in_g = views.went_in_g(piece)
    if verdict == "gained" and could_have_gained(piece.raw_g, weight_g, went_in_g):
        gained_g = round(weight_g - piece.raw_g)
        return said("ask.salt_took_up", tag=piece.tag, gross_g=weight_g, gained_g=gained_g, went_in_g=round(went_in_g))
    return said(
        code,
        tag=piece.tag,
        gross_g=weight_g,
        raw_g=piece.raw_g,
        low_g=round(expected.low_g),
        high_g=round(expected.high_g),
    )


def strike(shop: Premises, event_id: int, body: StrikeIn) -> s.SaltOut:
    """Strike an entry through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        store.strike(session, event_id, body.reason, body.by, shop.now_s)
    return views.salt_out(shop)


def choose_rules(shop: Premises, piece_id: int, body: s.RulesIn) -> s.SaltDetail:
    """Choose which rules count for a piece; which counted before stays in the journal."""
    with shop.recording(body, f"salt rules {piece_id}") as entry:
        if entry.new:
            of = store.salt_piece(entry.session, piece_id)
            of.rules, of.margin_percent = ",".join(dict.fromkeys(body.rules)), body.margin_percent
            entry.came("salt_piece", of.id)
    return piece(shop, piece_id)


def to_hook(shop: Premises, piece_id: int, body: s.ToHookIn) -> s.ToHookOut:
    """Case, tie and tag a piece that is out of the salt: from here it waits for its hook.

    What was typed before walks along: its measure across, its trimmed and cured weight, its casing.
    """
    with shop.recording(body, f"tag {piece_id}") as entry:
        of = store.salt_piece(entry.session, piece_id)
        if entry.new:
            _tag(entry, of, body)
        made = next(p for p in of.making.pieces if p.id == of.made_piece_id)
        raw_g, cured_g = made.raw_g or of.raw_g, made.cured_g or of.raw_g
        by_basis: dict[str, float] = {}
        if made.gross_g is not None and made.target_loss_percent is not None:
            net_g = net_weight(made.gross_g, made.tare_g)
            by_basis = target_by_basis(raw_g, cured_g, net_g, made.target_loss_percent)
        target_g = bench.target_gross(made)
        return s.ToHookOut(
            made=entry.named,
            tag=of.tag,
            batch_id=of.batch_id,
            target_gross_g=None if target_g is None else round(target_g, 1),
            by_basis={k: round(v + made.tare_g, 1) for k, v in by_basis.items()},  # type: ignore[misc]
        )


def _tag(entry: Recording, piece: SaltPiece, body: s.ToHookIn) -> None:
    store.cured_weight(piece)  # refuses one that is still in salt
    bases = store.bases(piece)
    batch = piece.making.batch
    slab = batch.shape == "slab"
    across_mm = body.across_mm if body.across_mm is not None else piece.across_mm
    made = MadePiece(
        tag=piece.tag,
        shape=batch.shape,
        casing=body.casing or batch.casing,
        gross_g=body.gross_g,
        casing_g=body.casing_g,
        net_g=body.net_g,
        string_g=body.string_g,
        coat_g=body.coat_g,
        raw_g=round(bases.raw_g, 1),
        cured_g=bases.cured_g,
        diameter_mm=None if slab else across_mm,
        thickness_mm=across_mm if slab else None,
        length_mm=body.length_mm,
        target_loss_percent=body.target_loss_percent,
        loss_basis=body.loss_basis,
        made_s=entry.at(body.at),
        by=body.by,
    )
    store.tag_for_hook(entry.session, piece, made)
    entry.came("made_piece", made.id)
