"""At the hook: what is seen, felt, done, photographed; and the weigh round."""

from typing import Annotated

from fastapi import APIRouter, File, Form, Response, UploadFile

from zymon.formats.photo import MOST_BYTES
from zymon.work.hang import hook, photos, round_schemas
from zymon.work.hang import round as weigh_round
from zymon.work.schemas import Moment, RecordIn, StrikeIn, Uid, Who

from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["hang"])


@router.get("/pieces/{piece_id}/hook")
def at_the_hook(ctx: Ctx, piece_id: Id) -> hook.AtTheHook:
    """What was seen on a piece and done to it."""
    return hook.at_the_hook(ctx, piece_id)


@router.post("/hook-events", status_code=201)
def note(ctx: Ctx, body: hook.HangEventIn) -> hook.AtTheHook:
    """Note something seen or done; the answer is of the first piece."""
    return hook.note(ctx, body)


@router.post("/hook-events/{event_id}/strike")
def strike(ctx: Ctx, event_id: Id, body: StrikeIn) -> hook.AtTheHook:
    """Strike an entry through; it stays on record."""
    return hook.strike(ctx, event_id, body)


@router.get("/places/{place_id}/round")
def round_of(ctx: Ctx, place_id: Id) -> round_schemas.RoundOut:
    """Every piece of a place in hook order, with what is expected; those worth weighing say why."""
    return weigh_round.round_of(ctx, place_id)


@router.post("/round", status_code=201)
def enter(ctx: Ctx, body: round_schemas.RoundIn) -> round_schemas.RoundAnswer:
    """Store the weights of a round. One that cannot be stored is refused for itself; the others count."""
    return weigh_round.enter(ctx, body)


@router.get("/pieces/{piece_id}/photos")
def photos_of(ctx: Ctx, piece_id: Id) -> list[photos.PhotoOut]:
    """The photos of a piece, the latest first."""
    return photos.photos(ctx, piece_id)


@router.post("/pieces/{piece_id}/photos", status_code=201)
def add_photo(
    ctx: Ctx,
    piece_id: Id,
    file: Annotated[UploadFile, File()],
    uid: Annotated[Uid, Form()],
    by: Annotated[Who, Form()],
    at: Annotated[Moment | None, Form()] = None,
) -> list[photos.PhotoOut]:
    """Keep a photo of a piece. What the camera wrote into it is taken out."""
    return photos.add(ctx, piece_id, RecordIn(uid=uid, by=by, at=at), file.file.read(MOST_BYTES + 1))


@router.get("/photos/{photo_id}.jpg", response_class=Response, responses={200: {"content": {"image/jpeg": {}}}})
def picture(ctx: Ctx, photo_id: Id) -> Response:
    """The picture itself."""
    return Response(photos.picture(ctx, photo_id), media_type="image/jpeg")


@router.post("/photos/{photo_id}/strike")
def strike_photo(ctx: Ctx, photo_id: Id, body: StrikeIn) -> list[photos.PhotoOut]:
    """Strike a photo through; it stays on record."""
    return photos.strike(ctx, photo_id, body)
