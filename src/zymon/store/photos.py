"""Photos of pieces."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from .hang import piece
from .hang_models import Photo
from .once import sent_before
from .places import ClashError, there
from .struck import strike

MOST_OF_A_PIECE = 60


def photos_of(session: Session, piece_id: int) -> list[Photo]:
    """The photos of a piece, the latest first, struck ones too; the pictures themselves are not loaded."""
    query = select(Photo).where(Photo.piece_id == piece_id).order_by(Photo.at_s.desc(), Photo.id.desc())
    return list(session.scalars(query))


def photo(session: Session, photo_id: int) -> Photo:
    """One photo. Raises NotFoundError."""
    return there(session, Photo, photo_id, "refused.no_photo")


def add_photo(session: Session, new: Photo) -> bool:
    """Keep a photo; sent twice it counts once. Returns whether it was new. Raises ClashError, NotFoundError."""
    if sent_before(session, Photo.uid, Photo.piece_id, new.uid, new.piece_id):
        return False
    of = piece(session, new.piece_id)
    if len(photos_of(session, of.id)) >= MOST_OF_A_PIECE:
        raise ClashError("refused.many_photos", tag=of.tag, many=MOST_OF_A_PIECE)
    session.add(new)
    session.flush()
    return True


def strike_photo(session: Session, photo_id: int, reason: str, by: str, now_s: int) -> int:
    """Strike a photo through; gives the piece's id back. Raises NotFoundError, ClashError."""
    found = photo(session, photo_id)
    strike(found, reason, by, now_s)
    session.flush()
    return found.piece_id
