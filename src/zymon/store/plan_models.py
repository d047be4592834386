"""Tables of the planner: batches that are to be made, each as it was set and set again."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .bench_models import RecipeVersion, WeighOut
from .models import Base, Batch, Place, Struck


class Plan(Struck, Base):
    """A batch that is to be made, and what it became. How it is set stands in its settings."""

    __tablename__ = "plan"
    id: Mapped[int] = mapped_column(primary_key=True)
    weigh_out_id: Mapped[int | None] = mapped_column(ForeignKey("weigh_out.id"), index=True)
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batch.id"), index=True)
    settings: Mapped[list["PlanSetting"]] = relationship(back_populates="plan", order_by="PlanSetting.id")
    weigh_out: Mapped[WeighOut | None] = relationship()
    batch: Mapped[Batch | None] = relationship()


class PlanSetting(Struck, Base):
    """How a plan was set from a time on, and what was told of it then; the latest that stands counts.

    Moments that most of the futures never reach are empty.
    """

    __tablename__ = "plan_setting"
    id: Mapped[int] = mapped_column(primary_key=True)
    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    at_s: Mapped[int]
    reason: Mapped[str] = mapped_column(String(200))
    occasion: Mapped[str] = mapped_column(String(120))
    product: Mapped[str] = mapped_column(String(120))
    sheet: Mapped[str]  # the JSON of the recipe file's sheet, for all pieces
    recipe_version_id: Mapped[int | None] = mapped_column(ForeignKey("recipe_version.id"))
    pieces: Mapped[int]
    table_g: Mapped[float]  # of each piece
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"))
    wanted_s: Mapped[int]
    start_s: Mapped[int]
    wait_s: Mapped[int]  # from the start to the hook at the least
    rest_s: Mapped[int]
    frozen: Mapped[bool]  # the meat, so that it has to be thawed
    order_days: Mapped[int]  # before the start
    asked_chance: Mapped[float]
    told_chance: Mapped[float]
    told_hung_s: Mapped[int | None]
    told_done_p10_s: Mapped[int | None]
    told_done_p50_s: Mapped[int | None]
    told_done_p90_s: Mapped[int | None]
    plan: Mapped[Plan] = relationship(back_populates="settings")
    place: Mapped[Place] = relationship()
    recipe_version: Mapped[RecipeVersion | None] = relationship()
