"""Lots, batches as made, their pieces before they hang, and the tags."""

from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from fastapi import APIRouter, Request, Response

from zymon.formats.labels import Paper, Tag, tags_pdf
from zymon.store import bench as store
from zymon.store.bench_models import MadePiece
from zymon.store.hang import last_hanging
from zymon.store.hang import piece as hung_piece
from zymon.store.places import NotFoundError, workshop
from zymon.store.warm import refuse_discarded

from ..context import Ctx, Id
from . import making_schemas as m
from . import views
from .shared import attachment

router = APIRouter(prefix="/api", tags=["bench"])


@router.get("/lots")
def lots(ctx: Ctx) -> list[m.LotOut]:
    """All lots, the latest first."""
    with ctx.db.reading() as session:
        return [views.lot_out(lot) for lot in store.lots(session)]


@router.get("/lots/{lot_id}")
def lot(ctx: Ctx, lot_id: Id) -> m.LotTrace:
    """Where a lot went: batches and pieces."""
    with ctx.db.reading() as session:
        return views.lot_trace(store.lot(session, lot_id), store.makings_of_lot(session, lot_id))


@router.get("/batches/{batch_id}")
def batch(ctx: Ctx, batch_id: Id) -> m.BatchOut:
    """A batch as it was made."""
    with ctx.db.reading() as session:
        return views.batch_out(session, store.making(session, batch_id))


@router.put("/batches/{batch_id}/pinch")
def pinch(ctx: Ctx, batch_id: Id, body: m.PinchIn) -> m.BatchOut:
    """Where the pinch for pH lies."""
    with ctx.db.writing() as session:
        of = store.making(session, batch_id)
        store.put_pinch(session, of, body.place_id)
        return views.batch_out(session, of)


@router.post("/holds/{hold_id}/answer")
def answer(ctx: Ctx, hold_id: Id, body: m.AnswerIn) -> m.BatchOut:
    """Answer a hold with a reason and its legal basis."""
    with ctx.db.writing() as session:
        of = store.answer_hold(session, hold_id, body.reason, body.legal_basis, body.by, ctx.now_s)
        return views.batch_out(session, of)


@router.post("/batches/{batch_id}/pieces", status_code=201)
def make_pieces(ctx: Ctx, batch_id: Id, body: m.MadePiecesIn) -> m.BatchOut:
    """Tag pieces of a batch, all or none; a piece without a tag gets the next of the batch."""
    with ctx.db.writing() as session:
        of = store.making(session, batch_id)
        refuse_discarded(session, batch_id)
        for piece in body.pieces:
            values = piece.model_dump(exclude={"tag"})
            tag = piece.tag or views.next_tag(of)
            store.add_piece(session, of, MadePiece(**values, tag=tag, made_s=ctx.now_s, by=body.by))
        return views.batch_out(session, of)


@router.get("/batches/{batch_id}/tags.pdf", response_class=Response)
def tags(ctx: Ctx, request: Request, batch_id: Id, paper: Paper = "a4") -> Response:
    """The tags of a batch as PDF: A4 sheets, or 62 mm roll."""
    with ctx.db.reading() as session:
        of = store.making(session, batch_id)
        shop = workshop(session)
        zone = ZoneInfo(shop.time_zone if shop else "UTC")
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
                url=f"{request.base_url}t/{p.tag}",
            )
            for p in of.pieces
        ]
        if not made:
            raise NotFoundError("there is no piece to make a tag for yet")
        data = tags_pdf(made, paper, shop.name if shop else "Zymon")
        name = f"tags-{of.batch.code}.pdf"
    return Response(data, media_type="application/pdf", headers=attachment(name))


@router.get("/bench/waiting")
def waiting(ctx: Ctx) -> list[m.WaitingPiece]:
    """Pieces that are tagged and do not hang yet."""
    with ctx.db.reading() as session:
        return [views.waiting_piece(p, one) for one in store.makings(session) for p in one.pieces if p.piece_id is None]


@router.get("/tags/{tag}")
def find_tag(ctx: Ctx, tag: str) -> m.TagFound:
    """Where a tag leads."""
    with ctx.db.reading() as session:
        piece_id, batch_id = store.find_tag(session, tag)
        place_id = None if piece_id is None else last_hanging(hung_piece(session, piece_id)).place_id
    if piece_id is None and batch_id is None:
        raise NotFoundError(f"no piece carries the tag {tag}")
    return m.TagFound(tag=tag, piece_id=piece_id, place_id=place_id, batch_id=batch_id)
