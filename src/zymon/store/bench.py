"""The Bench's records: recipes, lots, weigh-outs, batches as made, pieces before they hang."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from zymon.core.errors import OutOfRangeError
from zymon.core.pieces import net_weight, target_weight
from zymon.core.say import said
from zymon.store.bench_models import Mix

from .bench_models import Hold, Lot, MadePiece, Making, Recipe, RecipeVersion, WeighEntry, WeighOut
from .models import Batch, Piece
from .once import sent_before
from .places import ChangedMeanwhileError, ClashError, flush_or_clash, place, there


def recipes(session: Session) -> list[Recipe]:
    """All recipes by name, with their versions."""
    query = select(Recipe).options(selectinload(Recipe.versions)).order_by(Recipe.name)
    return list(session.scalars(query))


def recipe(session: Session, recipe_id: int) -> Recipe:
    """One recipe. Raises NotFoundError."""
    return there(session, Recipe, recipe_id, "refused.no_recipe")


def add_recipe(session: Session, name: str, sheet: str, reason: str, by: str, now_s: int) -> Recipe:
    """A new recipe with its first version. Raises ClashError when the name is taken."""
    if session.scalar(select(Recipe.id).where(Recipe.name == name)) is not None:
        raise ClashError("refused.recipe_name_taken", name=name)
    made = Recipe(name=name, created_s=now_s)
    made.versions = [RecipeVersion(number=1, sheet=sheet, reason=reason, by=by, at_s=now_s)]
    session.add(made)
    session.flush()
    return made


def add_version(
    session: Session, recipe_id: int, base: int, sheet: str, reason: str, by: str, now_s: int
) -> RecipeVersion:
    """A new version of a recipe; the ones before stay as they were.

    Parameters: base, the number of the version that the change began from. Raises ChangedMeanwhileError when there is
    a later one.
    """
    of = recipe(session, recipe_id)
    last = of.versions[-1]
    if last.number != base:
        raise ChangedMeanwhileError(
            "refused.version_saved_meanwhile",
            name=of.name,
            number=last.number,
            by=last.by,
            reason=last.reason,
            base=base,
        )
    if of.versions[-1].sheet == sheet:
        raise ClashError("refused.nothing_differs", number=of.versions[-1].number, name=of.name)
    made = RecipeVersion(number=of.versions[-1].number + 1, sheet=sheet, reason=reason, by=by, at_s=now_s)
    of.versions.append(made)
    flush_or_clash(session, said("refused.version_meanwhile", name=of.name))
    return made


def lots(session: Session) -> list[Lot]:
    """All lots, the latest first."""
    return list(session.scalars(select(Lot).order_by(Lot.at_s.desc(), Lot.id.desc())))


def lot_for(session: Session, code: str, kind: str, what: str, by: str, now_s: int) -> Lot:
    """The lot of a code, noted down when it is new. Raises ClashError when it is of another kind of goods."""
    found = session.scalar(select(Lot).where(Lot.code == code))
    if found is None:
        found = Lot(kind=kind, code=code, what=what, by=by, at_s=now_s)
        session.add(found)
        session.flush()
    elif found.kind != kind:
        raise ClashError("refused.lot_of_other_kind", code=code, what_it_is=found.what)
    return found


def makings_of_lot(session: Session, lot_id: int) -> list[Making]:
    """The batches that hold something of a lot."""
    query = (
        select(Making)
        .outerjoin(Mix, Mix.batch_id == Making.batch_id)
        .join(WeighEntry, WeighEntry.weigh_out_id.in_((Making.weigh_out_id, Mix.weigh_out_id)))
        .where(WeighEntry.lot_id == lot_id, WeighEntry.struck_s.is_(None))
        .distinct()
        .order_by(Making.made_s)
    )
    return list(session.scalars(query))


def lot(session: Session, lot_id: int) -> Lot:
    """One lot. Raises NotFoundError."""
    return there(session, Lot, lot_id, "refused.no_lot")


def open_weigh_outs(session: Session) -> list[WeighOut]:
    """Weigh-outs that were begun and not ended, the latest first."""
    return list(session.scalars(select(WeighOut).where(WeighOut.ended_s.is_(None)).order_by(WeighOut.id.desc())))


def weigh_out(session: Session, weigh_out_id: int, to_change: bool = False) -> WeighOut:
    """One weigh-out. Raises NotFoundError, and ClashError for one that has ended and is to be changed."""
    found = there(session, WeighOut, weigh_out_id, "refused.no_weigh_out")
    if to_change and found.ended_s is not None:
        raise ClashError("refused.weigh_out_ended")
    return found


def counted(weigh_out: WeighOut) -> list[WeighEntry]:
    """The entries that count: those not struck through."""
    return [entry for entry in weigh_out.entries if entry.struck_s is None]


def rescale_of(weigh_out: WeighOut) -> float:
    """By how much the sheet has been rescaled so far."""
    return next((entry.rescale for entry in reversed(counted(weigh_out)) if entry.rescale is not None), 1.0)


def add_entry(session: Session, weigh_out: WeighOut, entry: WeighEntry) -> None:
    """Note what went into the bowl; an entry sent twice counts once. Raises ClashError for another bowl's entry."""
    if not sent_before(session, WeighEntry.uid, WeighEntry.weigh_out_id, entry.uid, weigh_out.id):
        weigh_out.entries.append(entry)
        session.flush()


def strike_entry(session: Session, entry_id: int, reason: str, by: str, now_s: int) -> WeighOut:
    """Strike an entry through. Raises NotFoundError, ClashError."""
    entry = there(session, WeighEntry, entry_id, "refused.no_entry")
    if entry.struck_s is not None:
        raise ClashError("refused.struck_already")
    weigh_out(session, entry.weigh_out_id, to_change=True)
    entry.struck_s, entry.struck_by, entry.struck_reason = now_s, by, reason
    return entry.weigh_out


@dataclass(frozen=True)
class NewHold:
    """A hold as it begins: what it says, in words and as code and values (JSON), and its source."""

    text: str
    says: str
    source: str


@dataclass(frozen=True)
class NewMaking:
    """A batch as made, and the holds it starts with."""

    code: str
    product: str
    kind: str
    shape: str
    casing: str
    fat_percent: float | None
    salt_percent: float | None
    sheet: str
    profile: str
    pinch_place_id: int | None
    holds: tuple[NewHold, ...]
    use: str = "raw"
    done_by: str = "weight"


def make_batch(session: Session, new: NewMaking, weigh_out: WeighOut | None, by: str, now_s: int) -> Making:
    """Make a batch of a weigh-out, which ends with it, or of trimmed muscles. Raises ClashError, NotFoundError."""
    if session.scalar(select(Batch.id).where(Batch.code == new.code)) is not None:
        raise ClashError("refused.batch_code_taken", batch=new.code)
    if new.pinch_place_id is not None:
        place(session, new.pinch_place_id)
    batch = Batch(
        code=new.code,
        product=new.product,
        kind=new.kind,
        shape=new.shape,
        casing=new.casing,
        fat_percent=new.fat_percent,
        salt_percent=new.salt_percent,
        created_s=now_s,
        profile=new.profile,
        use=new.use,
        done_by=new.done_by,
    )
    made = Making(
        batch=batch,
        weigh_out=weigh_out,
        sheet=new.sheet,
        made_s=now_s,
        by=by,
        pinch_place_id=new.pinch_place_id,
    )
    made.holds = [Hold(text=one.text, says=one.says, source=one.source, at_s=now_s) for one in new.holds]
    if weigh_out is not None:
        weigh_out.ended_s, weigh_out.end = now_s, "made"
    session.add(made)
    flush_or_clash(session, said("refused.batch_made_meanwhile", batch=new.code))
    return made


def makings(session: Session) -> list[Making]:
    """All batches made at the Bench with their pieces and mixes, the latest first."""
    loaded = (selectinload(Making.pieces), selectinload(Making.mixes))
    return list(session.scalars(select(Making).options(*loaded).order_by(Making.made_s.desc(), Making.batch_id.desc())))


def making(session: Session, batch_id: int) -> Making:
    """One batch as made. Raises NotFoundError."""
    return there(session, Making, batch_id, "refused.not_made_here")


def making_of(session: Session, batch_id: int) -> Making | None:
    """How a batch was made, or None of one that was hung as it came."""
    return session.get(Making, batch_id)


def batch_of_code(session: Session, code: str) -> Batch | None:
    """The batch of a code, if there is one."""
    return session.scalar(select(Batch).where(Batch.code == code))


def batch(session: Session, batch_id: int) -> Batch:
    """One batch, made here or hung as it came. Raises NotFoundError."""
    return there(session, Batch, batch_id, "refused.no_batch")


def neighbours(session: Session, batch: Batch) -> tuple[int | None, int | None]:
    """The batches of the same product that were made before and after one, by their ids."""
    same = select(Batch.id).where(Batch.product == batch.product, Batch.id != batch.id)
    before = same.where(Batch.created_s <= batch.created_s).order_by(Batch.created_s.desc(), Batch.id.desc())
    after = same.where(Batch.created_s > batch.created_s).order_by(Batch.created_s, Batch.id)
    return session.scalar(before.limit(1)), session.scalar(after.limit(1))


def has_making(session: Session, batch_id: int) -> bool:
    """Whether a batch was made here, rather than hung as it came."""
    return session.get(Making, batch_id) is not None


JOINS_WITHIN_S = 3 * 86_400  # a mix is of the same day's work, or of the next


def may_be_joined(session: Session, weigh_out: WeighOut, kind: str, now_s: int) -> list[Making]:
    """The batches that a weigh-out may join as another mix: of its kind and limits, made lately, not thrown away."""
    query = (
        select(Making)
        .join(Batch, Batch.id == Making.batch_id)
        .where(
            Batch.kind == kind,
            Batch.profile == weigh_out.profile,
            Making.weigh_out_id.is_not(None),
            Making.made_s > now_s - JOINS_WITHIN_S,
        )
        .order_by(Making.made_s.desc())
    )
    return list(session.scalars(query))


def add_mix(session: Session, making: Making, mix: Mix, holds: Sequence[NewHold], now_s: int) -> Mix:
    """Another mix joins a batch; its weigh-out ends with it. Raises ClashError for a name that is there."""
    if any(one.name == mix.name for one in making.mixes):
        raise ClashError("refused.mix_name_taken", batch=making.batch.code, name=mix.name)
    making.mixes.append(mix)
    making.holds += [Hold(text=one.text, says=one.says, source=one.source, at_s=now_s) for one in holds]
    mix.weigh_out.ended_s, mix.weigh_out.end = now_s, "made"
    session.flush()
    return mix


def bowls(making: Making) -> list[tuple[WeighOut, Mix | None]]:
    """What a batch was weighed out in: its first bowl, then that of each further mix."""
    first: list[tuple[WeighOut, Mix | None]] = [] if making.weigh_out is None else [(making.weigh_out, None)]
    return [*first, *((mix.weigh_out, mix) for mix in making.mixes)]


def put_pinch(session: Session, making: Making, place_id: int) -> None:
    """Lay the pinch for pH of a batch beside its pieces. Raises NotFoundError."""
    place(session, place_id)
    making.pinch_place_id = place_id


def answer_hold(session: Session, hold_id: int, reason: str, legal_basis: str, by: str, now_s: int) -> Making:
    """Answer a hold with a reason and its legal basis; the hold stays on record."""
    hold = there(session, Hold, hold_id, "refused.no_hold")
    if hold.answered_s is not None:
        raise ClashError("refused.hold_answered")
    hold.answered_s, hold.answered_by, hold.reason, hold.legal_basis = now_s, by, reason, legal_basis
    return making(session, hold.batch_id)


def add_piece(session: Session, making: Making, new: MadePiece) -> None:
    """Tag a piece of a batch. Raises ClashError, OutOfRangeError."""
    target_gross(new)  # refuses what no piece can be
    taken = session.scalar(select(Piece.id).where(Piece.tag == new.tag))
    if taken is not None or session.scalar(select(MadePiece.id).where(MadePiece.tag == new.tag)) is not None:
        raise ClashError("refused.tag_taken", tag=new.tag)
    making.pieces.append(new)
    flush_or_clash(session, said("refused.tag_given_meanwhile", tag=new.tag))


def target_gross(piece: MadePiece) -> float | None:
    """What the scale must show when a piece is done, on the basis chosen for it [g]. Raises OutOfRangeError.

    None where nobody weighed it, or where it is done by feel or days.
    """
    if piece.gross_g is None or piece.target_loss_percent is None:
        return None
    net_g = net_weight(piece.gross_g, piece.tare_g)
    base = {"raw": piece.raw_g, "cured": piece.cured_g, "hung": net_g}[piece.loss_basis]
    if base is None:
        raise OutOfRangeError("refused.base_not_known", tag=piece.tag, basis=piece.loss_basis)
    target_g = target_weight(base, 0.0, piece.target_loss_percent).target_net_g
    if target_g >= net_g:
        raise OutOfRangeError("refused.at_target_already", tag=piece.tag, net_g=net_g, target_g=target_g)
    return target_g + piece.tare_g


def next_code(session: Session, product: str) -> str:
    """A code for the next batch of a product: its first letter and a running number, as on the tags."""
    letter = next((c for c in product.upper() if c.isalpha()), "B")
    numbers = [
        int(code.removeprefix(f"{letter}-"))
        for code in session.scalars(select(Batch.code).where(Batch.code.like(f"{letter}-%")))
        if code.removeprefix(f"{letter}-").isdigit()
    ]
    return f"{letter}-{max(numbers, default=0) + 1:02d}"


def find_tag(session: Session, tag: str) -> tuple[int | None, int | None]:
    """The piece that hangs or hung under a tag, and the batch of one that was made under it."""
    hung = session.scalar(select(Piece.id).where(Piece.tag == tag))
    made = session.scalar(select(MadePiece.batch_id).where(MadePiece.tag == tag))
    return hung, made
