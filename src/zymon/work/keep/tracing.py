"""From a lot to everything that holds something of it, and from a pack back to its lots."""

from collections import defaultdict
from zoneinfo import ZoneInfo

from zymon.store import bench, hang
from zymon.store import keep as store
from zymon.store.bench_models import Lot, Making
from zymon.store.models import Piece

from ..life import all_before_the_hook, life_before, state_of
from ..premises import Premises, moment
from . import schemas as s
from .views import Keeps, pack_out


def recall(shop: Premises, lot_id: int) -> s.RecallOut:
    """Where everything of a lot is or went. Raises NotFoundError."""
    zone = shop.zone
    with shop.db.reading() as session:
        lot = bench.lot(session, lot_id)
        keeps = Keeps(shop, session)
        return s.RecallOut(
            lot_id=lot.id,
            code=lot.code,
            what=lot.what,
            kind=lot.kind,
            batches=[_batch(making, lot, keeps, zone) for making in bench.makings_of_lot(session, lot_id)],
        )


def _batch(making: Making, lot: Lot, keeps: Keeps, zone: ZoneInfo) -> s.RecallBatch:
    holds = _holders(making, lot)
    hung = {p.tag: p for p in making.batch.pieces if holds is None or p.tag in holds}
    waiting = sorted({p.tag for p in making.pieces if holds is None or p.tag in holds} - hung.keys())
    packs = defaultdict(list)
    for one in store.packs(keeps.session, [p.id for p in hung.values()]):
        packs[one.piece_id].append(pack_out(one, keeps, zone))
    pieces = [_piece(p, packs[p.id]) for p in hung.values()]
    for tag, before in all_before_the_hook(keeps.session, waiting, making.batch_id).items():
        last = life_before(before, keeps.shop.now_s).last
        pieces.append(
            s.HeldPiece(
                piece_id=None, tag=tag, state="waiting" if last is None else last.kind,
                place=None if last is None else last.place, packs=[],
            )
        )  # fmt: skip
    return s.RecallBatch(
        batch_id=making.batch_id,
        batch=making.batch.code,
        product=making.batch.product,
        made_at=moment(making.made_s),
        grams=sum(e.grams for bowl, _ in bench.bowls(making) for e in bench.counted(bowl) if e.lot_id == lot.id),
        pieces=sorted(pieces, key=lambda p: p.tag),
    )


def _holders(making: Making, lot: Lot) -> set[str] | None:
    """The tags of the mixes that a lot went into; None where the batch is of one mix."""
    if not making.mixes:
        return None
    others = {mix.id: {p.tag for p in mix.pieces} for mix in making.mixes}
    mixed = {tag for tags in others.values() for tag in tags}
    found: set[str] = set()
    for bowl, mix in bench.bowls(making):
        if any(e.lot_id == lot.id for e in bench.counted(bowl)):
            found |= {p.tag for p in making.batch.pieces} - mixed if mix is None else others[mix.id]
            found |= {p.tag for p in making.pieces} - mixed if mix is None else set()
    return found


def _piece(piece: Piece, packs: list[s.PackOut]) -> s.HeldPiece:
    state = state_of(piece)
    how = f"{state.kind}, {state.how}" if state.kind == "gone" and state.how else state.kind
    return s.HeldPiece(piece_id=piece.id, tag=piece.tag, state=how, place=state.place, packs=packs)


def trace(shop: Premises, piece_id: int) -> s.TraceOut:
    """What a piece is made of, back to the lots. Raises NotFoundError."""
    with shop.db.reading() as session:
        of = hang.piece(session, piece_id)
        making = bench.making_of(session, of.batch_id)
        found: dict[int, s.TraceLot] = {}
        mixed = None if making is None else next((m for m in making.mixes if of.tag in {p.tag for p in m.pieces}), None)
        for bowl, mix in [] if making is None else bench.bowls(making):
            if making is not None and making.mixes and mix is not mixed:
                continue  # of another mix than this piece
            for entry in bench.counted(bowl):
                if entry.lot is None:
                    continue
                one = found.setdefault(
                    entry.lot.id,
                    s.TraceLot(id=entry.lot.id, code=entry.lot.code, kind=entry.lot.kind, what=entry.lot.what, grams=0),
                )
                one.grams += entry.grams
        return s.TraceOut(
            piece_id=of.id,
            tag=of.tag,
            batch_id=of.batch_id,
            batch=of.batch.code,
            product=of.batch.product,
            made_at=moment(of.batch.created_s if making is None else making.made_s),
            lots=list(found.values()),
        )
