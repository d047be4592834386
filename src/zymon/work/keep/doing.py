"""Packing and what becomes of packs: opened, moved, taken out; costs and words for allergens."""

from zymon.core.say import said
from zymon.core.stock.allergens import WORDS
from zymon.core.stock.packs import check_fits
from zymon.store import bench, hang
from zymon.store import keep as store
from zymon.store.keep_models import AllergenWord, BatchCost, Packed, PackEvent
from zymon.store.models import Piece
from zymon.store.places import ClashError
from zymon.store.struck import counted

from ..ledger.assemble import ledger_of
from ..premises import Premises, Recording
from ..schemas import StrikeIn
from . import schemas as s
from . import views, yields


def pack(shop: Premises, piece_id: int, body: s.PackIn) -> s.PackingOut:
    """Pack a piece, or slices of one that goes on. Raises ClashError, OutOfRangeError, DoubtfulError."""
    with shop.recording(body, f"pack {piece_id}") as entry:
        if entry.new:
            of = hang.piece(entry.session, piece_id)
            at_s = entry.at(body.at)
            store.check_packable(entry.session, of)
            check_fits(
                views.packed_g(store.packs(entry.session, [of.id])), body.number * body.net_g, views.usable_g(of)
            )
            _ask_what_failed(shop, entry, of)
            made = store.add_pack(
                entry.session,
                Packed(
                    **body.model_dump(exclude={"at", "sure"}), piece_id=of.id, parent_id=None, at_s=at_s,
                    entered_s=entry.now_s,
                ),
            )  # fmt: skip
            entry.came("pack", made.id)
            now = hang.state_now(of)
            if now is not None and now.kind in ("down", "cut"):
                new = hang.NewState("kept", place_id=body.place_id)
                hang.become(entry.session, of, new, max(at_s, now.from_s), body.by, entry.now_s)
                entry.came("state", of.states[-1].id)
    return views.packing(shop, piece_id).model_copy(update={"made": entry.named})


def _ask_what_failed(shop: Premises, entry: Recording, piece: Piece) -> None:
    """A batch of which a hurdle failed is asked about before it is packed."""
    ledger = ledger_of(entry.session, shop.dates, piece.batch_id, entry.now_s)
    failed = [h for h in ledger.hurdles if h.state == "fail" and h.blocks and (not h.pieces or piece.tag in h.pieces)]
    if failed:
        entry.ask(said("ask.pack_failed", tag=piece.tag, hurdle=failed[0].name))


def take_out(shop: Premises, pack_id: int, body: s.OutIn) -> s.StockOut:
    """Packs go out of the stock: eaten, given, sold, thrown away with a reason. Raises ClashError."""
    if body.how == "discarded" and not body.note:
        raise ClashError("refused.why_thrown_away")
    with shop.recording(body, f"out {pack_id}") as entry:
        if entry.new:
            of = store.pack(entry.session, pack_id)
            event = PackEvent(
                uid=body.uid, kind="out", how=body.how, at_s=entry.at(body.at), number=body.number,
                to_whom=body.to_whom, note=body.note, by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            entry.came("pack_event", store.add_event(entry.session, of, event).id)
            _all_gone(entry, of, body, event.at_s)
    return views.stock(shop).model_copy(update={"made": entry.named})


def _all_gone(entry: Recording, packed: Packed, body: s.OutIn, at_s: int) -> None:
    """With its last pack a piece that was packed whole is gone."""
    piece = packed.piece
    packs = store.packs(entry.session, [piece.id])
    usable_g = views.usable_g(piece)
    whole = usable_g is not None and views.packed_g(packs) >= 0.9 * usable_g
    now = hang.state_now(piece)
    if whole and now is not None and now.kind == "kept" and all(views.core_pack(p).left == 0 for p in packs):
        new = hang.NewState("gone", body.how, note=body.note or body.to_whom)
        hang.become(entry.session, piece, new, max(at_s, now.from_s), body.by, entry.now_s)
        entry.came("state", piece.states[-1].id)


def open_pack(shop: Premises, pack_id: int, body: s.OpenIn) -> s.StockOut:
    """Packs are opened: their two weeks begin. Raises ClashError."""
    with shop.recording(body, f"open {pack_id}") as entry:
        if entry.new:
            of = store.pack(entry.session, pack_id)
            closed = views.core_pack(of).closed_left
            if body.number > closed:
                raise ClashError("refused.not_so_many_closed", many=closed)
            event = PackEvent(
                uid=body.uid, kind="opened", how="", at_s=entry.at(body.at), number=body.number, to_whom="", note="",
                by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            entry.came("pack_event", store.add_event(entry.session, of, event).id)
    return views.stock(shop).model_copy(update={"made": entry.named})


def move(shop: Premises, pack_id: int, body: s.MoveIn) -> s.StockOut:
    """Packs are kept elsewhere from now on: they leave these and are packs of their own. Raises ClashError."""
    with shop.recording(body, f"move {pack_id}") as entry:
        if entry.new:
            of = store.pack(entry.session, pack_id)
            at_s = entry.at(body.at)
            event = PackEvent(
                uid=f"{body.uid}-moved", kind="out", how="moved", at_s=at_s, number=body.number, to_whom="",
                note=body.keep_at, by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            entry.came("pack_event", store.add_event(entry.session, of, event).id)
            made = Packed(
                uid=body.uid, piece_id=of.piece_id, parent_id=of.id, at_s=of.at_s, number=body.number, net_g=of.net_g,
                form=of.form, wrap=of.wrap, keep_at=body.keep_at, place_id=body.place_id,
                period_days=body.period_days or of.period_days, ingredients=of.ingredients, note=of.note, by=body.by,
                entered_s=entry.now_s,
            )  # fmt: skip
            entry.came("pack", store.add_pack(entry.session, made).id)
    return views.stock(shop).model_copy(update={"made": entry.named})


def strike_pack(shop: Premises, pack_id: int, body: StrikeIn) -> s.StockOut:
    """Strike packs through that were never there."""
    with shop.changing(body.by, body.reason) as session:
        store.strike_pack(session, pack_id, body.reason, body.by, shop.now_s)
    return views.stock(shop)


def strike_event(shop: Premises, event_id: int, body: StrikeIn) -> s.StockOut:
    """Strike what became of packs; a move is struck with the packs that it made."""
    with shop.changing(body.by, body.reason) as session:
        event = store.strike_event(session, event_id, body.reason, body.by, shop.now_s)
        if event.how == "moved":
            for one in store.packs(session, [event.pack.piece_id]):
                if one.parent_id == event.pack_id and one.number == event.number and not counted(one.events):
                    store.strike_pack(session, one.id, body.reason, body.by, shop.now_s)
                    break
    return views.stock(shop)


def add_cost(shop: Premises, batch_id: int, body: s.CostIn) -> s.YieldOut:
    """Note what a batch cost beside its ingredients."""
    with shop.recording(body, f"cost {batch_id}") as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            new = BatchCost(
                uid=body.uid, batch_id=batch_id, kind=body.kind, amount=body.amount, note=body.note,
                at_s=entry.at(body.at), by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            entry.session.add(new)
            entry.session.flush()
            entry.came("batch_cost", new.id)
    return yields.yield_of(shop, batch_id).model_copy(update={"made": entry.named})


def strike_cost(shop: Premises, cost_id: int, body: StrikeIn) -> s.YieldOut:
    """Strike a cost through."""
    with shop.changing(body.by, body.reason) as session:
        batch_id = store.strike_cost(session, cost_id, body.reason, body.by, shop.now_s).batch_id
    return yields.yield_of(shop, batch_id)


def allergens(shop: Premises) -> s.AllergensOut:
    """The shipped list with its words, and the maker's own."""
    with shop.db.reading() as session:
        own = [
            s.AllergenWordOut(id=w.id, word=w.word, allergens=w.allergens.split(","), by=w.by)  # type: ignore[arg-type]
            for w in store.allergen_words(session)
        ]
    return s.AllergensOut(shipped={name: list(words) for name, words in WORDS.items()}, own=own)


def add_word(shop: Premises, body: s.AllergenWordIn) -> s.AllergensOut:
    """Add a word and the allergens that it means. Raises ClashError for one that is there."""
    with shop.recording(body, f"allergen {body.word}"[:60]) as entry:
        if entry.new:
            if any(w.word.lower() == body.word.lower() for w in store.allergen_words(entry.session)):
                raise ClashError("refused.word_there", word=body.word)
            new = AllergenWord(
                uid=body.uid, word=body.word, allergens=",".join(body.allergens), at_s=entry.at(body.at), by=body.by,
                entered_s=entry.now_s,
            )  # fmt: skip
            entry.session.add(new)
            entry.session.flush()
            entry.came("allergen_word", new.id)
    return allergens(shop).model_copy(update={"made": entry.named})


def strike_word(shop: Premises, word_id: int, body: StrikeIn) -> s.AllergensOut:
    """Strike a word through."""
    with shop.changing(body.by, body.reason) as session:
        store.strike_word(session, word_id, body.reason, body.by, shop.now_s)
    return allergens(shop)
