"""The Hang station: the room, its pieces, their weighings, what becomes of them."""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Query, Response

from zymon.core.drying.rest import REST_TEMPERATURE_C
from zymon.work.hang import asking, doing, mending, off, weighing
from zymon.work.hang import entries as e
from zymon.work.hang import schemas as s
from zymon.work.hang.room import room_json
from zymon.work.schemas import ByIn, StrikeIn

from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["hang"])


@router.get("/places/{place_id}/room", response_model=s.Room)
def room(ctx: Ctx, place_id: Id) -> Response:
    """A place as it is: rods, hooks and pieces with their dates."""
    return Response(room_json(ctx, place_id), media_type="application/json")


@router.get("/pieces/{piece_id}")
def piece(ctx: Ctx, piece_id: Id) -> s.PieceOut:
    """All there is to know of a piece; of one that came down as it was then."""
    return doing.piece(ctx, piece_id)


@router.post("/places/{place_id}/tag")
def preview_tag(ctx: Ctx, place_id: Id, body: e.PieceIn) -> s.TagPreview:
    """What the tag of a piece would say, and when it would be ready; nothing is stored."""
    return doing.preview_tag(ctx, place_id, body)


@router.post("/pieces", status_code=201)
def hang(ctx: Ctx, body: e.PieceIn) -> s.PieceOut:
    """Hang a piece on a free hook, now or as it was noted."""
    return doing.hang(ctx, body)


@router.post("/pieces/{piece_id}/move")
def move(ctx: Ctx, piece_id: Id, body: e.HookIn) -> s.PieceOut:
    """Move a piece to a free hook."""
    return doing.move(ctx, piece_id, body)


@router.post("/pieces/{piece_id}/swap")
def swap(ctx: Ctx, piece_id: Id, body: e.SwapIn) -> s.PieceOut:
    """Two pieces change places; the answer is of the first."""
    return doing.swap(ctx, piece_id, body)


@router.post("/pieces/{piece_id}/correct")
def correct(ctx: Ctx, piece_id: Id, body: e.CorrectionIn) -> s.PieceOut:
    """Correct what was declared of a piece; the wrong value stays on record with the reason."""
    return doing.correct(ctx, piece_id, body)


@router.get("/pieces/{piece_id}/against")
def against(
    ctx: Ctx, piece_id: Id, gross_g: Annotated[float | None, Query(gt=0, le=200_000, allow_inf_nan=False)] = None
) -> s.Against:
    """What stands against taking a piece down now, at a weight if one is given."""
    return off.against(ctx, piece_id, gross_g)


@router.post("/pieces/{piece_id}/take-down")
def take_down(ctx: Ctx, piece_id: Id, body: e.TakeDownIn) -> s.PieceOut:
    """Take a piece off its hook, with its weight or said not to be weighed, and say what becomes of it."""
    return off.take_down(ctx, piece_id, body)


@router.post("/pieces/{piece_id}/become")
def become(ctx: Ctx, piece_id: Id, body: e.BecomeIn) -> s.PieceOut:
    """A piece off its hook begins to rest, is cut, kept, or goes."""
    return off.become(ctx, piece_id, body)


@router.post("/pieces/{piece_id}/take-back")
def take_back(ctx: Ctx, piece_id: Id, body: StrikeIn) -> s.PieceOut:
    """Take back what a piece became last, as entered by mistake: it is again what it was before."""
    return off.take_back(ctx, piece_id, body)


@router.post("/pieces/{piece_id}/hang-again")
def hang_again(ctx: Ctx, piece_id: Id, body: e.HookIn) -> s.PieceOut:
    """Hang a piece that was off its hook again, under its own tag."""
    return doing.hang_again(ctx, piece_id, body)


@router.post("/pieces/{piece_id}/slice")
def slice_off(ctx: Ctx, piece_id: Id, body: e.SliceIn) -> s.PieceOut:
    """A slice is taken off and the piece goes on: its loss stays true."""
    return weighing.slice_off(ctx, piece_id, body)


@router.post("/slices/{cut_id}/strike")
def strike_slice(ctx: Ctx, cut_id: Id, body: StrikeIn) -> s.PieceOut:
    """Strike a slice through, and the weight that was noted with it."""
    return weighing.strike_slice(ctx, cut_id, body)


@router.post("/pieces/{piece_id}/weighings", status_code=201)
def weigh(ctx: Ctx, piece_id: Id, body: e.WeighingIn) -> s.Weighed:
    """Store a weight and answer at once; one that cannot be right is asked about first (409 doubtful)."""
    return weighing.weigh(ctx, piece_id, body)


@router.post("/weighings/{weighing_id}/strike")
def strike(ctx: Ctx, weighing_id: Id, body: StrikeIn) -> s.PieceOut:
    """Strike a weighing through; it stays on record and counts no more."""
    return weighing.strike_weighing(ctx, weighing_id, body)


@router.post("/weighings/{weighing_id}/restore")
def restore(ctx: Ctx, weighing_id: Id, body: ByIn) -> s.PieceOut:
    """Take a strike back: the same weighing is entered again beside the struck one, once."""
    return weighing.restore_weighing(ctx, weighing_id, body.by)


@router.post("/pieces/{piece_id}/what-if")
def what_if(ctx: Ctx, piece_id: Id, body: e.WhatIfIn) -> s.WhatIfOut:
    """What a change from now on would do to the date of a piece; nothing is stored."""
    return asking.what_if(ctx, piece_id, body)


@router.get("/pieces/{piece_id}/explained")
def explained(ctx: Ctx, piece_id: Id) -> s.ExplainedOut:
    """What the date of a piece rests on, what would narrow it; for a stalled one, which air would bring it there."""
    return asking.explained(ctx, piece_id)


@router.get("/pieces/{piece_id}/inside")
def inside_at(
    ctx: Ctx,
    piece_id: Id,
    at: datetime | None = None,
    rest_c: Annotated[float, Query(ge=-2, le=25)] = REST_TEMPERATURE_C,
) -> s.InsideAtOut:
    """The inside of a piece at any time past or ahead, and what a vacuum rest from then on would do."""
    return asking.inside_at(ctx, piece_id, at, rest_c)


@router.get("/pieces/{piece_id}/mending")
def mend(ctx: Ctx, piece_id: Id) -> mending.WellOrNot:
    """What goes wrong with a hanging piece and what would mend it; null for one that dries well or was taken down."""
    return mending.mend(ctx, piece_id)
