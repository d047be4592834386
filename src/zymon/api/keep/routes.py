"""The stock: packs and what becomes of them, labels, yield and cost, recall both ways, allergens."""

from typing import Annotated

from fastapi import APIRouter, Query, Response

from zymon.formats.labels import Paper
from zymon.work.keep import doing, labels, tracing, views, yields
from zymon.work.keep import schemas as s
from zymon.work.schemas import RowId, StrikeIn

from ..attachment import attachment
from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["keep"])


@router.get("/stock")
def stock(ctx: Ctx) -> s.StockOut:
    """Everything that is there, what to use first at the front."""
    return views.stock(ctx)


@router.get("/pieces/{piece_id}/packs")
def packing(ctx: Ctx, piece_id: Id) -> s.PackingOut:
    """A piece that is packed: what it weighs, what is in packs."""
    return views.packing(ctx, piece_id)


@router.post("/pieces/{piece_id}/packs", status_code=201)
def pack(ctx: Ctx, piece_id: Id, body: s.PackIn) -> s.PackingOut:
    """Pack a piece, or slices of one that goes on."""
    return doing.pack(ctx, piece_id, body)


@router.get("/packs/labels.pdf", response_class=Response)
def labels_pdf(
    ctx: Ctx,
    ids: Annotated[list[RowId], Query(min_length=1, max_length=100)],
    paper: Paper = "a4",
) -> Response:
    """Labels as PDF, one for each pack that is left."""
    data, name = labels.labels(ctx, ids, paper, ctx.address + "/")
    return Response(data, media_type="application/pdf", headers=attachment(name))


@router.get("/packs/{pack_id}/label")
def label_of(ctx: Ctx, pack_id: Id) -> s.LabelOut:
    """Whether packs get a label."""
    return views.label_of(ctx, pack_id)


@router.post("/packs/{pack_id}/out", status_code=201)
def take_out(ctx: Ctx, pack_id: Id, body: s.OutIn) -> s.StockOut:
    """Packs go out: eaten, given, sold, thrown away."""
    return doing.take_out(ctx, pack_id, body)


@router.post("/packs/{pack_id}/open", status_code=201)
def open_pack(ctx: Ctx, pack_id: Id, body: s.OpenIn) -> s.StockOut:
    """Packs are opened: their two weeks begin."""
    return doing.open_pack(ctx, pack_id, body)


@router.post("/packs/{pack_id}/move", status_code=201)
def move(ctx: Ctx, pack_id: Id, body: s.MoveIn) -> s.StockOut:
    """Packs are kept elsewhere from now on."""
    return doing.move(ctx, pack_id, body)


@router.post("/packs/{pack_id}/strike")
def strike_pack(ctx: Ctx, pack_id: Id, body: StrikeIn) -> s.StockOut:
    """Strike packs through that were never there."""
    return doing.strike_pack(ctx, pack_id, body)


@router.post("/pack-events/{event_id}/strike")
def strike_event(ctx: Ctx, event_id: Id, body: StrikeIn) -> s.StockOut:
    """Strike what became of packs."""
    return doing.strike_event(ctx, event_id, body)


@router.get("/batches/{batch_id}/yield")
def yield_of(ctx: Ctx, batch_id: Id) -> s.YieldOut:
    """What came of a batch, from the shop to the plate, and what it cost."""
    return yields.yield_of(ctx, batch_id)


@router.post("/batches/{batch_id}/costs", status_code=201)
def add_cost(ctx: Ctx, batch_id: Id, body: s.CostIn) -> s.YieldOut:
    """Note what a batch cost beside its ingredients."""
    return doing.add_cost(ctx, batch_id, body)


@router.post("/costs/{cost_id}/strike")
def strike_cost(ctx: Ctx, cost_id: Id, body: StrikeIn) -> s.YieldOut:
    """Strike a cost through."""
    return doing.strike_cost(ctx, cost_id, body)


@router.get("/lots/{lot_id}")
def recall(ctx: Ctx, lot_id: Id) -> s.RecallOut:
    """Where everything of a lot is or went."""
    return tracing.recall(ctx, lot_id)


@router.get("/pieces/{piece_id}/lots")
def trace(ctx: Ctx, piece_id: Id) -> s.TraceOut:
    """What a piece is made of, back to the lots."""
    return tracing.trace(ctx, piece_id)


@router.get("/allergens")
def allergens(ctx: Ctx) -> s.AllergensOut:
    """The shipped list with its words, and the maker's own."""
    return doing.allergens(ctx)


@router.post("/allergens", status_code=201)
def add_word(ctx: Ctx, body: s.AllergenWordIn) -> s.AllergensOut:
    """Add a word and the allergens that it means."""
    return doing.add_word(ctx, body)


@router.post("/allergens/{word_id}/strike")
def strike_word(ctx: Ctx, word_id: Id, body: StrikeIn) -> s.AllergensOut:
    """Strike a word through."""
    return doing.strike_word(ctx, word_id, body)
