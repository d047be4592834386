"""Tables of the Bench: recipes with versions, lots, weigh-outs, batches as made, pieces before they hang."""

from sqlalchemy import CheckConstraint, ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.drying.geometry import Shape
from zymon.core.drying.history import Casing
from zymon.core.planning.amounts import LossBasis

from .models import Base, Batch


class Recipe(Base):
    """A recipe by name; what it says stands in its versions."""

    __tablename__ = "recipe"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    created_s: Mapped[int]
    versions: Mapped[list["RecipeVersion"]] = relationship(back_populates="recipe", order_by="RecipeVersion.number")


class RecipeVersion(Base):
    """A recipe as it was at a time, and why it was changed. Never altered."""

    __tablename__ = "recipe_version"
    __table_args__ = (UniqueConstraint("recipe_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    recipe_id: Mapped[int] = mapped_column(ForeignKey("recipe.id"), index=True)
    number: Mapped[int]
    sheet: Mapped[str]  # the JSON of the recipe file's sheet
    reason: Mapped[str] = mapped_column(String(300))
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]
    recipe: Mapped[Recipe] = relationship(back_populates="versions")


class Lot(Base):
    """A delivery that can be traced: meat, curing salt, culture, casing, spice."""

    __tablename__ = "lot"
    __table_args__ = (
        UniqueConstraint("code"),
        CheckConstraint("kind IN ('meat', 'curing_salt', 'culture', 'casing', 'other')"),
    )
    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(16))
    code: Mapped[str] = mapped_column(String(40))
    what: Mapped[str] = mapped_column(String(120))
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]


class WeighOut(Base):
    """A sheet being weighed out, one thing at a time; it can be left and taken up again."""

    __tablename__ = "weigh_out"
    id: Mapped[int] = mapped_column(primary_key=True)
    recipe_version_id: Mapped[int | None] = mapped_column(ForeignKey("recipe_version.id"))
    product: Mapped[str] = mapped_column(String(120))
    sheet: Mapped[str]
    profile: Mapped[str] = mapped_column(String(20))
    started_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    meat_temperature_c: Mapped[float | None]
    meat_temperature_s: Mapped[int | None]  # when it was measured
    ended_s: Mapped[int | None]
    end: Mapped[str | None] = mapped_column(String(200))  # "made", or why it was given up
    entries: Mapped[list["WeighEntry"]] = relationship(back_populates="weigh_out", order_by="WeighEntry.id")
    making: Mapped["Making | None"] = relationship(back_populates="weigh_out")


class WeighEntry(Base):
    """What went into the bowl, or by how much the rest was rescaled. Struck through, never changed."""

    __tablename__ = "weigh_entry"
    id: Mapped[int] = mapped_column(primary_key=True)
    weigh_out_id: Mapped[int] = mapped_column(ForeignKey("weigh_out.id"), index=True)
    uid: Mapped[str] = mapped_column(String(40), unique=True)  # made where it is typed: sent twice, it counts once
    key: Mapped[str] = mapped_column(String(40))
    grams: Mapped[float]
    rescale: Mapped[float | None]  # factor on everything not yet weighed from here on
    lot_id: Mapped[int | None] = mapped_column(ForeignKey("lot.id"), index=True)
    at_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    struck_s: Mapped[int | None]
    struck_by: Mapped[str | None] = mapped_column(String(60))
    struck_reason: Mapped[str | None] = mapped_column(String(200))
    weigh_out: Mapped[WeighOut] = relationship(back_populates="entries")
    lot: Mapped[Lot | None] = relationship()


class Making(Base):
    """How a batch was made: its sheet with what really went in, its pinch for pH."""

    __tablename__ = "making"
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), primary_key=True)
    weigh_out_id: Mapped[int | None] = mapped_column(ForeignKey("weigh_out.id"), unique=True)
    sheet: Mapped[str]
    made_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    pinch_place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    batch: Mapped[Batch] = relationship()
    weigh_out: Mapped[WeighOut | None] = relationship(back_populates="making")
    holds: Mapped[list["Hold"]] = relationship(order_by="Hold.id")
    pieces: Mapped[list["MadePiece"]] = relationship(order_by="MadePiece.id")
    mixes: Mapped[list["Mix"]] = relationship(order_by="Mix.id")


class Mix(Base):
    """Another mix of a batch: weighed out by itself, hung under the batch's code."""

    __tablename__ = "mix"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("making.batch_id"), index=True)
    name: Mapped[str] = mapped_column(String(80))
    weigh_out_id: Mapped[int] = mapped_column(ForeignKey("weigh_out.id"), unique=True)
    sheet: Mapped[str]
    made_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    weigh_out: Mapped[WeighOut] = relationship()
    pieces: Mapped[list["MadePiece"]] = relationship(order_by="MadePiece.id")


class Hold(Base):
    """A red hold on a batch; only a stated reason with its legal basis answers it."""

    __tablename__ = "hold"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("making.batch_id"), index=True)
    text: Mapped[str] = mapped_column(String(300))  # as it was told
    says: Mapped[str | None] = mapped_column(String(500))  # as code and values, JSON; older ones have none
    source: Mapped[str] = mapped_column(String(300))
    at_s: Mapped[int]
    answered_s: Mapped[int | None]
    answered_by: Mapped[str | None] = mapped_column(String(60))
    reason: Mapped[str | None] = mapped_column(String(200))
    legal_basis: Mapped[str | None] = mapped_column(String(200))


class MadePiece(Base):
    """A piece that is tagged and does not hang yet; `piece_id` once it does."""

    __tablename__ = "made_piece"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("making.batch_id"), index=True)
    mix_id: Mapped[int | None] = mapped_column(ForeignKey("mix.id"))  # None: of the first mix
    tag: Mapped[str] = mapped_column(String(40), unique=True)
    shape: Mapped[Shape] = mapped_column(String(20))
    casing: Mapped[Casing] = mapped_column(String(20))
    gross_g: Mapped[float | None]  # None: not weighed, to be hung without a scale
    casing_g: Mapped[float]
    net_g: Mapped[float]
    string_g: Mapped[float]
    coat_g: Mapped[float]
    raw_g: Mapped[float | None]
    cured_g: Mapped[float | None]
    diameter_mm: Mapped[float | None]
    thickness_mm: Mapped[float | None]
    length_mm: Mapped[float | None]
    target_loss_percent: Mapped[float | None]  # None: done by feel or days
    loss_basis: Mapped[LossBasis] = mapped_column(String(8))
    made_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    piece_id: Mapped[int | None] = mapped_column(ForeignKey("piece.id"), unique=True)

    @property
    def tare_g(self) -> float:
        """Casing, net, string and the dry matter of a coat [g]."""
        return self.casing_g + self.net_g + self.string_g + self.coat_g
