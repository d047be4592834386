"""Photos of pieces: kept small and bare, struck through but never lost."""

from datetime import datetime

from pydantic import BaseModel

from zymon.formats.photo import kept_photo
from zymon.store import photos as store
from zymon.store.hang_models import Photo

from ..premises import Premises, moment
from ..schemas import RecordIn, StrikeIn


class PhotoOut(BaseModel):
    """That there is a photo; the picture has an address of its own."""

    id: int
    at: datetime
    by: str
    struck_reason: str | None


def photos(shop: Premises, piece_id: int) -> list[PhotoOut]:
    """The photos of a piece, the latest first."""
    with shop.db.reading() as session:
        return [
            PhotoOut(id=p.id, at=moment(p.at_s), by=p.by, struck_reason=p.struck_reason)
            for p in store.photos_of(session, piece_id)
        ]


def add(shop: Premises, piece_id: int, body: RecordIn, picture: bytes) -> list[PhotoOut]:
    """Keep a photo of a piece. What the camera wrote into it is taken out."""
    jpeg = kept_photo(picture)
    with shop.recording(body, f"photo {piece_id}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            new = Photo(uid=body.uid, piece_id=piece_id, at_s=at_s, jpeg=jpeg, by=body.by, entered_s=entry.now_s)
            store.add_photo(entry.session, new)
            entry.came("photo", new.id)
    return photos(shop, piece_id)


def picture(shop: Premises, photo_id: int) -> bytes:
    """The picture itself, as JPEG."""
    with shop.db.reading() as session:
        return store.photo(session, photo_id).jpeg


def strike(shop: Premises, photo_id: int, body: StrikeIn) -> list[PhotoOut]:
    """Strike a photo through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        piece_id = store.strike_photo(session, photo_id, body.reason, body.by, shop.now_s)
    return photos(shop, piece_id)
