"""Lots, batches in whatever state, their pieces, and the tags."""

from fastapi import APIRouter, Response

from zymon.formats.labels import Paper
from zymon.store import bench as store
from zymon.work import finding
from zymon.work.bench import making, views
from zymon.work.bench import making_schemas as m

from ..attachment import attachment
from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["bench"])


@router.get("/lots")
def lots(ctx: Ctx) -> list[m.LotOut]:
    """All lots, the latest first."""
    with ctx.db.reading() as session:
        return [views.lot_out(lot) for lot in store.lots(session)]


@router.get("/batches/{batch_id}")
def batch(ctx: Ctx, batch_id: Id) -> m.BatchOut:
    """A batch, made here or hung as it came, with its pieces in whatever state."""
    return making.batch(ctx, batch_id)


@router.put("/batches/{batch_id}/pinch")
def pinch(ctx: Ctx, batch_id: Id, body: m.PinchIn) -> m.BatchOut:
    """Where the pinch for pH lies."""
    return making.put_pinch(ctx, batch_id, body)


@router.post("/holds/{hold_id}/answer")
def answer(ctx: Ctx, hold_id: Id, body: m.AnswerIn) -> m.BatchOut:
    """Answer a hold with a reason and its legal basis."""
    return making.answer_hold(ctx, hold_id, body)


@router.post("/batches/{batch_id}/pieces", status_code=201)
def tag_pieces(ctx: Ctx, batch_id: Id, body: m.MadePiecesIn) -> m.BatchOut:
    """Tag pieces of a batch, all or none; a piece without a tag gets the next of the batch."""
    return making.tag_pieces(ctx, batch_id, body)


@router.get("/batches/{batch_id}/tags.pdf", response_class=Response)
def tags(ctx: Ctx, batch_id: Id, paper: Paper = "a4") -> Response:
    """The tags of a batch as PDF: A4 sheets, or 62 mm roll."""
    data, name = making.tags(ctx, batch_id, paper, ctx.address + "/")
    return Response(data, media_type="application/pdf", headers=attachment(name))


@router.get("/bench/waiting")
def waiting(ctx: Ctx) -> list[m.WaitingPiece]:
    """Pieces that are tagged and do not hang yet."""
    with ctx.db.reading() as session:
        return making.waiting(session)


@router.get("/tags/{tag}")
def find_tag(ctx: Ctx, tag: str) -> m.TagFound:
    """Where a tag leads, whatever became of its piece."""
    return finding.tag(ctx, tag)
