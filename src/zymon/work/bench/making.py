"""What is done at the Bench: weigh out, make a batch, tag its pieces, keep recipes; each recorded once."""

from dataclasses import dataclass
from datetime import UTC, datetime

from zymon.core.bench import weighing
from zymon.core.bench.consequences import consequences
from zymon.core.bench.sheet import work
from zymon.core.errors import OutOfRangeError
from zymon.core.say import said
from zymon.formats.labels import Paper, Tag, tags_pdf
from zymon.formats.recipe_file import SheetModel, SheetPlan
from zymon.store import bench as store
from zymon.store.bench_models import MadePiece, Mix, WeighEntry, WeighOut
from zymon.store.database import Session
from zymon.store.evidence import profile
from zymon.store.places import ChangedMeanwhileError, ClashError, NotFoundError, workshop
from zymon.store.plans import plan_became
from zymon.store.warm import refuse_discarded
from zymon.words import USUAL, sentence

from ..premises import Premises, Recording
from ..schemas import MadeOut, kept_said
from . import making_schemas as m
from . import views

SAME_G = 0.005  # two figures of one bowl that differ by less are the same


def weigh_out(shop: Premises, weigh_out_id: int, made: list[MadeOut] | None = None) -> m.WeighOutOut:
    """A weigh-out as it stands."""
    with shop.db.reading() as session:
        return views.weigh_out_out(session, store.weigh_out(session, weigh_out_id), shop.now_s, made)


def begin(shop: Premises, body: m.WeighOutIn) -> m.WeighOutOut:
    """Begin to weigh a sheet out."""
    with shop.recording(body, "weigh out") as entry:
        if entry.new:
            entry.came("weigh_out", begin_in(entry, body))
    return weigh_out(shop, entry.made[0].id, entry.named)


def begin_in(entry: Recording, body: m.WeighOutIn) -> int:
    """The same within an entry; the id of the weigh-out."""
    weighing.things(body.sheet.to_core(), [])  # refuses a sheet that cannot be weighed out
    session = entry.session
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
        started_s=entry.at(body.at),
        by=body.by,
    )
    session.add(made)
    session.flush()
    return made.id


def _thing(weigh_out: WeighOut, key: str) -> weighing.Thing:
    found = next((thing for thing in views.things_of(weigh_out) if thing.key == key), None)
    if found is None:
        raise NotFoundError("refused.not_on_sheet")
    return found


def pour(shop: Premises, weigh_out_id: int, body: m.EntryIn) -> m.WeighOutOut:
    """Note what was poured; two screens at one thing are told of each other before anything counts twice."""
    with shop.recording(body, f"pour {weigh_out_id} {body.key}"[:60]) as entry:
        if entry.new:
            _pour(entry, store.weigh_out(entry.session, weigh_out_id, to_change=True), body)
    return weigh_out(shop, weigh_out_id, entry.named)


def _pour(entry: Recording, weigh_out: WeighOut, body: m.EntryIn) -> None:
    thing = _thing(weigh_out, body.key)
    there_g = thing.weighed_g or 0.0
    if body.seen_g is not None and abs(there_g - body.seen_g) > SAME_G:
        raise ChangedMeanwhileError("refused.poured_meanwhile", there_g=there_g, thing=thing.name)
    if there_g + body.grams < 0:
        raise OutOfRangeError("refused.only_in_the_bowl", there_g=there_g, thing=thing.name)
    if body.grams == 0:
        raise OutOfRangeError("refused.not_zero")
    kind = views.lot_kind(body.key, SheetModel.model_validate_json(weigh_out.sheet))
    lot_id = None
    if body.lot:
        lot_id = store.lot_for(entry.session, body.lot, kind, thing.name, body.by, entry.now_s).id
    poured = WeighEntry(
        uid=body.uid, key=body.key, grams=body.grams, lot_id=lot_id, at_s=entry.at(body.at), by=body.by, rescale=None
    )
    store.add_entry(entry.session, weigh_out, poured)
    entry.came("weigh_entry", poured.id)


def rescale(shop: Premises, weigh_out_id: int, body: m.RescaleIn) -> m.WeighOutOut:
    """Rescale the rest to what was really put in of one thing."""
    with shop.recording(body, f"rescale {weigh_out_id} {body.key}"[:60]) as entry:
        if entry.new:
            of = store.weigh_out(entry.session, weigh_out_id, to_change=True)
            factor = weighing.rescale_to(_thing(of, body.key), store.rescale_of(of))
            added = WeighEntry(
                uid=body.uid, key=body.key, grams=0.0, rescale=factor, at_s=entry.at(body.at), by=body.by
            )
            store.add_entry(entry.session, of, added)
            entry.came("weigh_entry", added.id)
    return weigh_out(shop, weigh_out_id, entry.named)


def strike_entry(shop: Premises, entry_id: int, body: m.EndIn) -> m.WeighOutOut:
    """Strike an entry through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        weigh_out_id = store.strike_entry(session, entry_id, body.reason, body.by, shop.now_s).id
    return weigh_out(shop, weigh_out_id)


def temperature(shop: Premises, weigh_out_id: int, body: m.TemperatureIn) -> m.WeighOutOut:
    """Note the meat's temperature before it is mixed; what was noted before stays in the journal."""
    with shop.recording(body, f"meat temperature {weigh_out_id}") as entry:
        if entry.new:
            of = store.weigh_out(entry.session, weigh_out_id, to_change=True)
            of.meat_temperature_c, of.meat_temperature_s = body.temperature_c, entry.at(body.at)
            entry.came("weigh_out", of.id)
    return weigh_out(shop, weigh_out_id, entry.named)


def give_up(shop: Premises, weigh_out_id: int, body: m.EndIn) -> m.WeighOutOut:
    """Give a weigh-out up; what was weighed stays on record."""
    with shop.recording(body, f"give up {weigh_out_id}", body.reason) as entry:
        if entry.new:
            of = store.weigh_out(entry.session, weigh_out_id, to_change=True)
            of.ended_s, of.end = entry.at(body.at), f"{body.reason} ({body.by})"
            entry.came("weigh_out", of.id)
    return weigh_out(shop, weigh_out_id, entry.named)


def make_batch(shop: Premises, weigh_out_id: int, body: m.BatchIn) -> m.BatchOut:
    """Make a batch of what was weighed out. What breaks the limits puts a red hold on it."""
    with shop.recording(body, f"batch of {weigh_out_id}") as entry:
        if entry.new:
            entry.came("batch", _make_batch(entry, weigh_out_id, body))
    return batch(shop, entry.made[0].id, entry.named)


@dataclass(frozen=True)
class _Weighed:
    """What was weighed out: the sheet as made, worked out, and what keeps it red."""

    of: WeighOut
    plan: SheetPlan
    sheet: SheetModel
    fat_percent: float
    salt_percent: float
    holds: tuple[store.NewHold, ...]


def _weighed(session: Session, weigh_out_id: int) -> _Weighed:
    """A weigh-out in which everything is weighed. Raises OutOfRangeError."""
    of = store.weigh_out(session, weigh_out_id, to_change=True)
    found = views.things_of(of)
    missing = [thing.name for thing in found if thing.weighed_g is None]
    if missing:
        raise OutOfRangeError("refused.not_weighed_out", things=", ".join(missing))
    sheet = SheetModel.model_validate_json(of.sheet)
    poured = {thing.key: thing.weighed_g or 0.0 for thing in found}
    real = sheet.as_made(poured)
    worked = work(real.to_core())
    follows = consequences(real.to_core(), worked, sheet.plan.to_core(), profile(session, of.profile))
    if follows is None:
        raise OutOfRangeError(worked.problems[0].said if worked.problems else said("refused.not_complete"))
    return _Weighed(
        of,
        sheet.plan,
        real,
        fat_percent=round(min(worked.fat_percent, 80.0), 1),
        salt_percent=round(min(follows.salt.figure.value, 15.0), 2),
        holds=tuple(
            store.NewHold(sentence(c.says, shows=USUAL), kept_said([c.says]), sentence(c.source, shows=USUAL))
            for c in follows.cautions
            if c.hold
        ),
    )


def _make_batch(entry: Recording, weigh_out_id: int, body: m.BatchIn) -> int:
    made = _weighed(entry.session, weigh_out_id)
    plan = made.plan
    new = store.NewMaking(
        code=body.code,
        product=made.of.product,
        kind=plan.kind,
        shape=plan.shape,
        casing=plan.casing,
        fat_percent=made.fat_percent,
        salt_percent=made.salt_percent,
        sheet=made.sheet.model_dump_json(),
        profile=made.of.profile,
        pinch_place_id=body.pinch_place_id,
        holds=made.holds,
        use=plan.use,
        done_by=plan.done_by,
    )
    batch_id = store.make_batch(entry.session, new, made.of, body.by, entry.at(body.at)).batch_id
    plan_became(entry.session, weigh_out_id, batch_id)
    return batch_id


def join(shop: Premises, weigh_out_id: int, body: m.MixIn) -> m.BatchOut:
    """What was weighed out joins a batch as another mix. What breaks the limits puts a red hold on the batch."""
    with shop.recording(body, f"mix of {weigh_out_id}") as entry:
        if entry.new:
            made = _weighed(entry.session, weigh_out_id)
            of = store.making(entry.session, body.batch_id)
            refuse_discarded(entry.session, body.batch_id)
            at_s = entry.at(body.at)
            if of not in store.may_be_joined(entry.session, made.of, made.plan.kind, at_s):
                raise ClashError("refused.not_joined")
            mix = Mix(
                name=body.name, weigh_out=made.of, sheet=made.sheet.model_dump_json(), made_s=at_s, by=body.by
            )  # fmt: skip
            entry.came("mix", store.add_mix(entry.session, of, mix, made.holds, at_s).id)
            plan_became(entry.session, weigh_out_id, body.batch_id)
    return batch(shop, body.batch_id, entry.named)


def batch(shop: Premises, batch_id: int, made: list[MadeOut] | None = None) -> m.BatchOut:
    """A batch with its pieces in whatever state."""
    with shop.db.reading() as session:
        return views.batch_out(session, batch_id, shop.now_s, made)


def put_pinch(shop: Premises, batch_id: int, body: m.PinchIn) -> m.BatchOut:
    """Where the pinch for pH lies; where it lay before stays in the journal."""
    with shop.recording(body, f"pinch {batch_id}") as entry:
        if entry.new:
            store.put_pinch(entry.session, store.making(entry.session, batch_id), body.place_id)
            entry.came("batch", batch_id)
    return batch(shop, batch_id, entry.named)


def answer_hold(shop: Premises, hold_id: int, body: m.AnswerIn) -> m.BatchOut:
    """Answer a hold with a reason and its legal basis."""
    with shop.recording(body, f"hold {hold_id}", body.reason) as entry:
        if entry.new:
            of = store.answer_hold(entry.session, hold_id, body.reason, body.legal_basis, body.by, entry.at(body.at))
            entry.came("batch", of.batch_id)
    return batch(shop, entry.made[0].id, entry.named)


def tag_pieces(shop: Premises, batch_id: int, body: m.MadePiecesIn) -> m.BatchOut:
    """Tag pieces of a batch, all or none; a piece without a tag gets the next of the batch."""
    with shop.recording(body, f"pieces of {batch_id}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            of = store.making(entry.session, batch_id)
            refuse_discarded(entry.session, batch_id)
            mixes = {mix.id for mix in of.mixes}
            for piece in body.pieces:
                if piece.mix_id is not None and piece.mix_id not in mixes:
                    raise NotFoundError("refused.no_mix")
                values = piece.model_dump(exclude={"tag", "shape", "casing"})
                new = MadePiece(
                    **values,
                    tag=piece.tag or views.next_tag(of),
                    shape=piece.shape or of.batch.shape,
                    casing=piece.casing or of.batch.casing,
                    made_s=at_s,
                    by=body.by,
                )
                store.add_piece(entry.session, of, new)
                entry.came("made_piece", new.id)
    return batch(shop, batch_id, entry.named)


def tags(shop: Premises, batch_id: int, paper: Paper, base_url: str) -> tuple[bytes, str]:
    """The tags of a batch as PDF, and a name for the file. Raises NotFoundError where none is tagged."""
    zone = shop.zone
    with shop.db.reading() as session:
        of = store.making(session, batch_id)
        made = [
            Tag(
                tag=p.tag,
                product=of.batch.product,
                batch=of.batch.code,
                made=datetime.fromtimestamp(p.made_s, UTC).astimezone(zone).date(),
                start_g=p.gross_g,
                target_g=store.target_gross(p),
                target_loss_percent=p.target_loss_percent,
                basis=p.loss_basis,
                url=f"{base_url}t/{p.tag}",
            )
            for p in of.pieces
        ]
        if not made:
            raise NotFoundError("refused.no_tag_yet")
        owner = workshop(session)
        return tags_pdf(made, paper, owner.name if owner else "Zymon"), f"tags-{of.batch.code}.pdf"


def waiting(session: Session) -> list[m.WaitingPiece]:
    """Pieces that are tagged and do not hang yet."""
    return [views.waiting_piece(p, one) for one in store.makings(session) for p in one.pieces if p.piece_id is None]
