"""Files out: the hang file, climate and weights as CSV."""

from typing import Annotated

from fastapi import APIRouter, Query, Response
from fastapi.responses import StreamingResponse

from zymon.work import charts
from zymon.work import files as work
from zymon.work.premises import moment

from .attachment import attachment, file_stem
from .context import Ctx, Id

router = APIRouter(prefix="/api", tags=["files"])
CSV = "text/csv; charset=utf-8"


@router.get("/places/{place_id}/hang-file")
def hang_file(ctx: Ctx, place_id: Id, finished: bool = False) -> StreamingResponse:
    """The place, its climate and its pieces as a `zymon-hang/1` file; `finished`: those that came down too."""
    name, body = work.hang_file(ctx, place_id, finished)
    stem = file_stem(name, moment(ctx.now_s))
    return StreamingResponse(body, media_type="application/json", headers=attachment(f"{stem}.json"))


@router.get("/places/{place_id}/climate.csv")
def climate_file(
    ctx: Ctx,
    place_id: Id,
    from_s: Annotated[int, Query(ge=0, le=2**40)] = 0,
    to_s: Annotated[int, Query(ge=0, le=2**40)] = 2**40,
) -> StreamingResponse:
    """The readings of a place that count, all of them or those of a span, as CSV."""
    name, body = work.climate(ctx, place_id, from_s, to_s)
    stem = file_stem(name, moment(ctx.now_s))
    return StreamingResponse(body, media_type=CSV, headers=attachment(f"{stem}-climate.csv"))


@router.get("/places/{place_id}/weights.csv")
def weights_file(ctx: Ctx, place_id: Id, finished: bool = False) -> Response:
    """The weighings of a place's pieces as CSV, struck ones left out; `finished`: of those that came down too."""
    name, body = work.weights(ctx, place_id, finished)
    stem = file_stem(name, moment(ctx.now_s))
    return Response(body, media_type=CSV, headers=attachment(f"{stem}-weights.csv"))


@router.get("/pieces/{piece_id}/curve.csv", response_class=Response)
def drying_file(ctx: Ctx, piece_id: Id) -> Response:
    """A piece's expected loss over time with its window, as CSV."""
    tag, body = charts.drying(ctx, piece_id)
    return Response(body, media_type=CSV, headers=attachment(f"{file_stem(tag, moment(ctx.now_s))}-curve.csv"))


@router.get("/warm/{batch_id}/curve.csv", response_class=Response)
def souring_file(ctx: Ctx, batch_id: Id) -> Response:
    """A batch's expected pH over time with its window, as CSV."""
    code, body = charts.souring(ctx, batch_id)
    return Response(body, media_type=CSV, headers=attachment(f"{file_stem(code, moment(ctx.now_s))}-ph-curve.csv"))
