"""Tables of the stock: packs and what became of them, costs of a batch, words of the maker for allergens."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.stock.packs import Form, KeepAt, Wrap
from zymon.core.stock.yields import CostKind

from .kinds import PackEventKind
from .models import Base, Batch, Piece, Place, Struck


class Packed(Struck, Base):
    """Packs alike of one piece: how many, how heavy, how and where they are kept."""

    __tablename__ = "pack"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    parent_id: Mapped[int | None] = mapped_column(ForeignKey("pack.id"))  # moved from these
    at_s: Mapped[int]  # packed on
    number: Mapped[int]
    net_g: Mapped[float]
    form: Mapped[Form] = mapped_column(String(8))
    wrap: Mapped[Wrap] = mapped_column(String(8))
    keep_at: Mapped[KeepAt] = mapped_column(String(8))
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"), index=True)
    period_days: Mapped[int | None]  # the maker's own; None: none was given
    ingredients: Mapped[str | None] = mapped_column(String(2000))  # typed, where no sheet has them
    note: Mapped[str] = mapped_column(String(300))
    piece: Mapped[Piece] = relationship()
    place: Mapped[Place | None] = relationship()
    events: Mapped[list["PackEvent"]] = relationship(back_populates="pack", order_by="PackEvent.at_s, PackEvent.id")


class PackEvent(Struck, Base):
    """Something that became of packs: opened, or went out: eaten, given, sold, discarded, moved."""

    __tablename__ = "pack_event"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    pack_id: Mapped[int] = mapped_column(ForeignKey("pack.id"), index=True)
    kind: Mapped[PackEventKind] = mapped_column(String(8))
    how: Mapped[str] = mapped_column(String(10))
    at_s: Mapped[int]
    number: Mapped[int]
    to_whom: Mapped[str] = mapped_column(String(120))
    note: Mapped[str] = mapped_column(String(300))
    pack: Mapped[Packed] = relationship(back_populates="events")

    @property
    def piece_id(self) -> int:
        """The piece it was cut from."""
        return self.pack.piece_id


class BatchCost(Struck, Base):
    """What a batch cost beside its ingredients: casing, work, energy."""

    __tablename__ = "batch_cost"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    kind: Mapped[CostKind] = mapped_column(String(8))
    amount: Mapped[float]
    note: Mapped[str] = mapped_column(String(200))
    at_s: Mapped[int]
    batch: Mapped[Batch] = relationship()


class AllergenWord(Struck, Base):
    """A word of the maker and the allergens that it means, separated by commas."""

    __tablename__ = "allergen_word"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    word: Mapped[str] = mapped_column(String(80))
    allergens: Mapped[str] = mapped_column(String(200))
    at_s: Mapped[int]
