"""Photos of pieces: kept small and bare, struck through but never lost."""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, File, Form, Response, UploadFile
from pydantic import BaseModel
from sqlalchemy.orm import Session

from zymon.formats.photo import MOST_BYTES, kept_photo
from zymon.store import photos as store
from zymon.store.hang_models import Photo

from ..context import Ctx, Id, moment
from ..schemas import StrikeIn, Uid, Who

router = APIRouter(prefix="/api", tags=["hang"])


class PhotoOut(BaseModel):
    """That there is a photo; the picture has an address of its own."""

    id: int
    at: datetime
    by: str
    struck_reason: str | None


def _photos(session: Session, piece_id: int) -> list[PhotoOut]:
    return [
        PhotoOut(id=p.id, at=moment(p.at_s), by=p.by, struck_reason=p.struck_reason)
        for p in store.photos_of(session, piece_id)
    ]


@router.get("/pieces/{piece_id}/photos")
def photos(ctx: Ctx, piece_id: Id) -> list[PhotoOut]:
    """The photos of a piece, the latest first."""
    with ctx.db.reading() as session:
        return _photos(session, piece_id)


@router.post("/pieces/{piece_id}/photos", status_code=201)
def add(
    ctx: Ctx,
    piece_id: Id,
    file: Annotated[UploadFile, File()],
    uid: Annotated[Uid, Form()],
    by: Annotated[Who, Form()],
) -> list[PhotoOut]:
    """Keep a photo of a piece. What the camera wrote into it is taken out."""
    jpeg = kept_photo(file.file.read(MOST_BYTES + 1))
    with ctx.db.writing() as session:
        new = Photo(uid=uid, piece_id=piece_id, at_s=ctx.now_s, jpeg=jpeg, by=by, entered_s=ctx.now_s)
        store.add_photo(session, new)
        return _photos(session, piece_id)


@router.get("/photos/{photo_id}.jpg", response_class=Response, responses={200: {"content": {"image/jpeg": {}}}})
def picture(ctx: Ctx, photo_id: Id) -> Response:
    """The picture itself."""
    with ctx.db.reading() as session:
        jpeg = store.photo(session, photo_id).jpeg
    return Response(jpeg, media_type="image/jpeg", headers={"Cache-Control": "private, max-age=31536000, immutable"})


@router.post("/photos/{photo_id}/strike")
def strike(ctx: Ctx, photo_id: Id, body: StrikeIn) -> list[PhotoOut]:
    """Strike a photo through; it stays on record."""
    with ctx.db.writing() as session:
        piece_id = store.strike_photo(session, photo_id, body.reason, body.by, ctx.now_s)
        return _photos(session, piece_id)
