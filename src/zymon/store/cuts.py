"""Cut faces and lines for next time."""

from sqlalchemy import or_, select
from sqlalchemy.orm import Session, selectinload

from .bench import making_of
from .bench_models import Recipe
from .cut_models import NextTimeNote, SeenFace
from .models import Piece, PieceState
from .places import there
from .struck import strike


def faces_of(session: Session, piece_id: int) -> list[SeenFace]:
    """The cut faces of a piece, the latest first, struck ones too."""
    query = select(SeenFace).where(SeenFace.piece_id == piece_id).order_by(SeenFace.at_s.desc(), SeenFace.id.desc())
    return list(session.scalars(query))


def face(session: Session, face_id: int) -> SeenFace:
    """One cut face. Raises NotFoundError."""
    return there(session, SeenFace, face_id, "refused.no_cut")


def strike_face(session: Session, face_id: int, reason: str, by: str, now_s: int) -> int:
    """Strike a cut face through; gives the piece's id back. Raises NotFoundError, ClashError."""
    found = face(session, face_id)
    strike(found, reason, by, now_s)
    session.flush()
    return found.piece_id


def pieces_to_cut(session: Session) -> list[Piece]:
    """The pieces off their hooks that nobody has looked into yet and that are not gone, by tag."""
    looked = select(SeenFace.piece_id).where(SeenFace.struck_s.is_(None))
    off = select(PieceState.piece_id).where(
        PieceState.to_s.is_(None), PieceState.struck_s.is_(None), PieceState.kind.in_(("down", "resting", "cut"))
    )
    query = select(Piece).where(Piece.id.in_(off), Piece.id.not_in(looked)).options(selectinload(Piece.states))
    return list(session.scalars(query.order_by(Piece.tag)))


def faces_lately(session: Session, many: int) -> list[SeenFace]:
    """The cut faces that were looked at last."""
    query = select(SeenFace).where(SeenFace.struck_s.is_(None)).order_by(SeenFace.at_s.desc(), SeenFace.id.desc())
    return list(session.scalars(query.limit(many)))


def recipe_of(session: Session, batch_id: int) -> Recipe | None:
    """The recipe a batch was made by; None where it was made, or hung, without one."""
    making = making_of(session, batch_id)
    if making is None or making.weigh_out is None or making.weigh_out.recipe_version_id is None:
        return None
    return session.scalar(
        select(Recipe).join(Recipe.versions).where(Recipe.versions.any(id=making.weigh_out.recipe_version_id))
    )


def notes_of_recipe(session: Session, recipe: Recipe) -> list[NextTimeNote]:
    """What is to be done otherwise next time: lines of a recipe, and of batches of its name made without one."""
    same = or_(
        NextTimeNote.recipe_id == recipe.id,
        NextTimeNote.recipe_id.is_(None) & (NextTimeNote.product == recipe.name),
    )
    query = select(NextTimeNote).where(same, NextTimeNote.struck_s.is_(None)).order_by(NextTimeNote.at_s.desc())
    return list(session.scalars(query))


def notes_of_faces(session: Session, face_ids: list[int]) -> list[NextTimeNote]:
    """The lines that were taken from some cut faces, struck ones left out."""
    query = select(NextTimeNote).where(NextTimeNote.face_id.in_(face_ids), NextTimeNote.struck_s.is_(None))
    return list(session.scalars(query.order_by(NextTimeNote.id)))


def strike_note(session: Session, note_id: int, reason: str, by: str, now_s: int) -> NextTimeNote:
    """Strike a line for next time: dealt with, or wrong. Raises NotFoundError, ClashError."""
    found = there(session, NextTimeNote, note_id, "refused.no_entry")
    strike(found, reason, by, now_s)
    session.flush()
    return found
