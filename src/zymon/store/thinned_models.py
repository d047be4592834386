"""Tables of thinning: what somebody wished, and what a reading stands for that took the place of several."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .models import Base


class Thinning(Base):
    """Readings of long ago made fewer on somebody's wish: up to when, how many became how many means."""

    __tablename__ = "thinning"
    id: Mapped[int] = mapped_column(primary_key=True)
    before_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    entered_s: Mapped[int]
    readings_before: Mapped[int]
    readings_after: Mapped[int]
    ended_s: Mapped[int | None]


class ThinnedReading(Base):
    """What a reading of the log stands for that is the mean of several: their number, span and extremes."""

    __tablename__ = "thinned_reading"
    __table_args__ = {"sqlite_with_rowid": False}  # noqa: RUF012 -- SQLAlchemy reads it as declared
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), primary_key=True)
    at_s: Mapped[int] = mapped_column(primary_key=True)
    strike_id: Mapped[int] = mapped_column(primary_key=True)  # 0 while it counts
    to_s: Mapped[int]
    readings: Mapped[int]
    temperature_min_c: Mapped[float]
    temperature_max_c: Mapped[float]
    rh_min_percent: Mapped[float | None]
    rh_max_percent: Mapped[float | None]
