"""The Book's beginning: every batch in whatever state, and what was changed."""

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Query, Response
from fastapi.responses import FileResponse
from starlette.background import BackgroundTask

from zymon.formats.warm_file import WarmFile
from zymon.work import changes as changes_of
from zymon.work import finding
from zymon.work.book import accuracy as owning_up
from zymon.work.book import compare as beside
from zymon.work.book import find as one_box
from zymon.work.book import spreadsheet, story_schemas
from zymon.work.book.recall import recall_pdf
from zymon.work.book.record import record as printed
from zymon.work.book.story import story as told_of
from zymon.work.schemas import MadeOut, RowId
from zymon.work.undo import UndoIn
from zymon.work.undo import undo as take_back
from zymon.work.warm.file import warm_file

from .attachment import attachment
from .context import Ctx, Id

CSV = "text/csv; charset=utf-8"
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"

router = APIRouter(prefix="/api", tags=["book"])


@router.get("/book")
def book(
    ctx: Ctx,
    words: Annotated[str, Query(max_length=100)] = "",
    drawer: finding.Filter = "all",
    most: Annotated[int, Query(ge=1, le=10_000)] = 50,
) -> finding.BatchesFound:
    """The latest batches whose code, product, tags, lots, people or notes hold the words, in whatever state."""
    return finding.find(ctx, words, drawer, most)


@router.get("/find")
def find(ctx: Ctx, words: Annotated[str, Query(max_length=100)] = "") -> one_box.FindOut:
    """Everything that holds words beginning so, or that happened on the day they name."""
    return one_box.find(ctx, words)


@router.get("/batches/{batch_id}/story")
def story(ctx: Ctx, batch_id: Id) -> story_schemas.StoryOut:
    """Everything of a batch on one time line."""
    return told_of(ctx, batch_id)


@router.get("/batches/{batch_id}/record.pdf", response_class=Response)
def record(ctx: Ctx, batch_id: Id) -> Response:
    """The record of a batch as PDF."""
    data, name = printed(ctx, batch_id)
    return Response(data, media_type="application/pdf", headers=attachment(name))


@router.get("/lots/{lot_id}/recall.pdf", response_class=Response)
def recall(ctx: Ctx, lot_id: Id) -> Response:
    """Where everything of a lot is or went, on one sheet."""
    data, name = recall_pdf(ctx, lot_id)
    return Response(data, media_type="application/pdf", headers=attachment(name))


@router.get("/batches/{batch_id}/weights.csv", response_class=Response)
def weights(ctx: Ctx, batch_id: Id) -> Response:
    """The weighings of a batch as CSV, struck ones with their reason."""
    code, body = spreadsheet.batch_weights(ctx, batch_id)
    return Response(body, media_type=CSV, headers=attachment(f"{code}-weights.csv"))


@router.get("/batches/{batch_id}/ph.csv", response_class=Response)
def ph(ctx: Ctx, batch_id: Id) -> Response:
    """The pH of a batch as CSV, struck readings with their reason."""
    code, body = spreadsheet.batch_ph(ctx, batch_id)
    return Response(body, media_type=CSV, headers=attachment(f"{code}-ph.csv"))


@router.get("/batches/{batch_id}/warm.json", response_model=WarmFile)
def warm_json(ctx: Ctx, batch_id: Id) -> Response:
    """The warm stage of a batch as a warm file."""
    content = warm_file(ctx, batch_id).model_dump_json()
    return Response(content, media_type="application/json")


@router.get("/workshop.xlsx", response_class=FileResponse)
def workshop_sheet(ctx: Ctx) -> FileResponse:
    """Pieces, weights, pH, climate by the hour and stock as a spreadsheet, with what its columns mean."""
    file = spreadsheet.workshop_sheet(ctx)
    away = BackgroundTask(file.unlink, missing_ok=True)
    return FileResponse(file, media_type=XLSX, filename="workshop.xlsx", background=away)


@router.get("/book/compare")
def compare(ctx: Ctx, batches: Annotated[list[RowId], Query(min_length=1, max_length=20)]) -> beside.CompareOut:
    """Up to six batches beside each other, and what differed."""
    return beside.compare(ctx, batches)


@router.get("/book/accuracy")
def accuracy(ctx: Ctx) -> owning_up.AccuracyOut:
    """How good the dates were, told against happened."""
    return owning_up.accuracy(ctx)


@router.post("/book/accuracy/afterwards")
def work_out(ctx: Ctx) -> owning_up.AccuracyOut:
    """Work out what was never told, with what was known then, for a while; `waiting` says how many are left."""
    return owning_up.work_out(ctx)


@router.get("/changes")
def changes(
    ctx: Ctx,
    batch_id: Annotated[int | None, Query(ge=1, le=2**31 - 1)] = None,
    day: date | None = None,
    by: Annotated[str | None, Query(max_length=60)] = None,
) -> changes_of.Changes:
    """What was changed of what had been entered: of a batch, on a day, by somebody, or lately."""
    return changes_of.changes(ctx, batch_id, day, by)


@router.post("/undo")
def undo(ctx: Ctx, body: UndoIn) -> list[MadeOut]:
    """Take back everything that came of an entry, as entered by mistake; it stays on record, struck through."""
    return take_back(ctx, body)
