"""Tables of the Cut: faces as they were seen beside what was predicted, and what is to be done otherwise next time."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .bench_models import Recipe
from .kinds import CutVerdict
from .models import Base, Batch, Piece, Struck


class SeenFace(Struck, Base):
    """A cut face as it was seen. `seen`, `predicted`, `told`: taps, the inside, the causes as they were then; JSON."""

    __tablename__ = "cut_face"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    at_s: Mapped[int]
    seen: Mapped[str]
    predicted: Mapped[str]
    told: Mapped[str]
    verdict: Mapped[CutVerdict] = mapped_column(String(10))
    note: Mapped[str] = mapped_column(String(300))
    piece: Mapped[Piece] = relationship()


class NextTimeNote(Struck, Base):
    """A line for next time, told when its recipe is opened; struck when it was dealt with."""

    __tablename__ = "next_time"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    face_id: Mapped[int] = mapped_column(ForeignKey("cut_face.id"), index=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    recipe_id: Mapped[int | None] = mapped_column(ForeignKey("recipe.id"), index=True)  # None: made without one
    product: Mapped[str] = mapped_column(String(120), index=True)
    says: Mapped[str]  # code and values, JSON
    at_s: Mapped[int]
    version_id: Mapped[int | None] = mapped_column(ForeignKey("recipe_version.id"))  # the version it was made of
    face: Mapped[SeenFace] = relationship()
    batch: Mapped[Batch] = relationship()
    recipe: Mapped[Recipe | None] = relationship()
