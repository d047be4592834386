"""Plans: looked at, kept, set anew, begun; the weeks ahead; what has to be bought."""

from typing import Annotated

from fastapi import APIRouter, Query, Response

from zymon.core.planning.shopping import CULTURE_PACK_G
from zymon.work.planner import against, buying, doing, looking, strips
from zymon.work.planner import ahead_schemas as a
from zymon.work.planner import schemas as s
from zymon.work.schemas import Moment, RowId

from ..attachment import attachment
from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["planner"])

PackGrams = Annotated[float, Query(gt=0, le=10_000, allow_inf_nan=False)]


@router.get("/ahead")
def ahead(ctx: Ctx) -> a.AheadOut:
    """The weeks ahead: places with what lies there, hooks and water week by week, plans."""
    return strips.ahead(ctx)


@router.post("/plans/look")
def look(ctx: Ctx, body: s.Wish) -> s.LookedAt:
    """What a wish comes to; nothing is kept."""
    return looking.look(ctx, body)


@router.post("/plans/{plan_id}/look")
def look_again(ctx: Ctx, plan_id: Id, body: s.Wish) -> s.LookedAt:
    """What a plan comes to if it is set anew; nothing is kept."""
    return looking.look_again(ctx, plan_id, body)


@router.post("/plans/places")
def places(ctx: Ctx, body: s.Wish, plan_id: Annotated[RowId | None, Query()] = None) -> list[s.PlaceOffer]:
    """Where a wish could hang, the best first."""
    return looking.places(ctx, body, plan_id)


@router.get("/plans/against")
def planned_against(ctx: Ctx) -> a.PlansAgainst:
    """What was told of plans against what happened."""
    return against.against(ctx)


@router.get("/plans/shopping")
def shopping(ctx: Ctx, start: Moment, end: Moment, culture_pack_g: PackGrams = CULTURE_PACK_G) -> a.ShoppingOut:
    """What has to be bought for the plans that begin in a span."""
    return buying.buying(ctx, start, end, culture_pack_g)


@router.get("/plans/shopping.csv", response_class=Response)
def shopping_file(ctx: Ctx, start: Moment, end: Moment, culture_pack_g: PackGrams = CULTURE_PACK_G) -> Response:
    """The same as CSV."""
    data = buying.as_csv(buying.buying(ctx, start, end, culture_pack_g))
    return Response(data, media_type="text/csv; charset=utf-8", headers=attachment("shopping.csv"))


@router.post("/plans", status_code=201)
def keep(ctx: Ctx, body: s.PlanIn) -> s.PlanKept:
    """Keep a wish as a plan."""
    return doing.keep(ctx, body)


@router.get("/plans/{plan_id}")
def plan(ctx: Ctx, plan_id: Id) -> s.PlanKept:
    """A plan as it stands."""
    return doing.plan(ctx, plan_id)


@router.post("/plans/{plan_id}", status_code=201)
def change(ctx: Ctx, plan_id: Id, body: s.PlanChangeIn) -> s.PlanKept:
    """Set a plan anew."""
    return doing.change(ctx, plan_id, body)


@router.post("/plans/{plan_id}/give-up")
def give_up(ctx: Ctx, plan_id: Id, body: s.GiveUpIn) -> s.Done:
    """Give a plan up; it stays on record."""
    return s.Done(made=doing.give_up(ctx, plan_id, body))


@router.post("/plans/{plan_id}/begin", status_code=201)
def begin(ctx: Ctx, plan_id: Id, body: s.BeginIn) -> s.BegunOut:
    """Begin a plan: its sheet is weighed out."""
    return doing.begin(ctx, plan_id, body)


@router.post("/plans/{plan_id}/became", status_code=201)
def became(ctx: Ctx, plan_id: Id, body: s.BecameIn) -> s.PlanKept:
    """Say which batch came of a plan."""
    return doing.became(ctx, plan_id, body)


@router.post("/places/{place_id}/room-for", status_code=201)
def room(ctx: Ctx, place_id: Id, body: s.RoomIn) -> s.Done:
    """Say how many pieces go into a place without hooks."""
    return s.Done(made=doing.room(ctx, place_id, body))
