"""Files out: the hang file, climate and weights as CSV."""

from fastapi import APIRouter, Response
from fastapi.responses import StreamingResponse

from zymon.work import files as work
from zymon.work.premises import moment

from .attachment import attachment, file_stem
from .context import Ctx, Id

router = APIRouter(prefix="/api/places", tags=["files"])
CSV = "text/csv; charset=utf-8"


@router.get("/{place_id}/hang-file")
def hang_file(ctx: Ctx, place_id: Id, finished: bool = False) -> StreamingResponse:
    """The place, its climate and its pieces as a `zymon-hang/1` file; `finished`: those that came down too."""
    name, body = work.hang_file(ctx, place_id, finished)
    stem = file_stem(name, moment(ctx.now_s))
    return StreamingResponse(body, media_type="application/json", headers=attachment(f"{stem}.json"))


@router.get("/{place_id}/climate.csv")
def climate_file(ctx: Ctx, place_id: Id) -> StreamingResponse:
    """Every reading of a place that counts, as CSV."""
    name, body = work.climate(ctx, place_id)
    stem = file_stem(name, moment(ctx.now_s))
    return StreamingResponse(body, media_type=CSV, headers=attachment(f"{stem}-climate.csv"))


@router.get("/{place_id}/weights.csv")
def weights_file(ctx: Ctx, place_id: Id, finished: bool = False) -> Response:
    """The weighings of a place's pieces as CSV, struck ones left out; `finished`: of those that came down too."""
    name, body = work.weights(ctx, place_id, finished)
    stem = file_stem(name, moment(ctx.now_s))
    return Response(body, media_type=CSV, headers=attachment(f"{stem}-weights.csv"))
