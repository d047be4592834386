"""Tables of the Salt: pieces in salt, and everything that was done to them."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.curing import Geometry
from zymon.core.salting.ways import Way

from .bench_models import Making
from .kinds import SaltEventKind
from .models import Base, Place


class SaltPiece(Base):
    """A muscle that was put in salt; `made_piece_id` once it is cased and tagged for the hook."""

    __tablename__ = "salt_piece"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("making.batch_id"), index=True)
    tag: Mapped[str] = mapped_column(String(40), unique=True)
    geometry: Mapped[Geometry] = mapped_column(String(10))
    across_mm: Mapped[float]
    raw_g: Mapped[float]
    skin_share: Mapped[float]
    rules: Mapped[str] = mapped_column(String(60))  # the rules of thumb that count, by name
    margin_percent: Mapped[float]
    pierced: Mapped[bool] = mapped_column(default=False)
    by: Mapped[str] = mapped_column(String(60))
    entered_s: Mapped[int]
    made_piece_id: Mapped[int | None] = mapped_column(ForeignKey("made_piece.id"), unique=True)
    making: Mapped[Making] = relationship()
    events: Mapped[list["SaltEvent"]] = relationship(back_populates="piece", order_by="SaltEvent.at_s, SaltEvent.id")


class SaltEvent(Base):
    """Something done to a piece in salt, or seen on it. Struck through, never changed.

    `value` by kind: liquid [g] of drain, temperature [°C] of check, hours of soak, weight [g] of weigh and out, weight
    [g] after a trim, dry coat [g] of coat. An `in` carries place, way and percent; a `way` carries way and percent; a
    `move` carries place.
    """

    __tablename__ = "salt_event"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)  # made where it is tapped: sent twice, it counts once
    salt_piece_id: Mapped[int] = mapped_column(ForeignKey("salt_piece.id"), index=True)
    kind: Mapped[SaltEventKind] = mapped_column(String(12))
    at_s: Mapped[int]
    value: Mapped[float | None]
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"), index=True)
    container: Mapped[str | None] = mapped_column(String(40))
    way: Mapped[Way | None] = mapped_column(String(20))
    free_salt: Mapped[bool | None]
    percent: Mapped[float | None]
    note: Mapped[str] = mapped_column(String(300), default="")
    by: Mapped[str] = mapped_column(String(60))
    entered_s: Mapped[int]
    struck_s: Mapped[int | None]
    struck_by: Mapped[str | None] = mapped_column(String(60))
    struck_reason: Mapped[str | None] = mapped_column(String(200))
    piece: Mapped[SaltPiece] = relationship(back_populates="events")
    place: Mapped[Place | None] = relationship()
