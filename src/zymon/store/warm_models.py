"""Tables of the Warm: stages, pH, meters, what was done."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.fermentation.curve import Culture

from .bench_models import Making
from .kinds import BatchEventKind
from .models import Base, Place, Struck


class WarmStage(Struck, Base):
    """The warm stage of a batch as declared; declared anew, the latest that is not struck counts."""

    __tablename__ = "warm_stage"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("making.batch_id"), index=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), index=True)
    stuffed_s: Mapped[int]
    culture: Mapped[Culture | None] = mapped_column(String(10))
    dextrose_percent: Mapped[float | None]
    salt_percent: Mapped[float | None]
    start_ph: Mapped[float | None]
    target_ph: Mapped[float]
    making: Mapped[Making] = relationship()
    place: Mapped[Place] = relationship()


class PhMeter(Base):
    """A pH meter by name."""

    __tablename__ = "ph_meter"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60), unique=True)
    by: Mapped[str] = mapped_column(String(60))
    calibrations: Mapped[list["MeterCalibration"]] = relationship(order_by="MeterCalibration.at_s")


class MeterCalibration(Base):
    """A two-point calibration: the slope it found, % of theory."""

    __tablename__ = "meter_calibration"
    id: Mapped[int] = mapped_column(primary_key=True)
    meter_id: Mapped[int] = mapped_column(ForeignKey("ph_meter.id"), index=True)
    at_s: Mapped[int]
    slope_percent: Mapped[float]
    by: Mapped[str] = mapped_column(String(60))


class PhReading(Struck, Base):
    """A reading of pH in the pinch of a batch."""

    __tablename__ = "ph_reading"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)  # made where it is typed: sent twice, it counts once
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    at_s: Mapped[int]
    ph: Mapped[float]
    sample_c: Mapped[float | None]
    meter_id: Mapped[int | None] = mapped_column(ForeignKey("ph_meter.id"))
    confirmed: Mapped[bool]  # asked about and kept all the same
    import_id: Mapped[int | None] = mapped_column(ForeignKey("import_report.id"))
    meter: Mapped[PhMeter | None] = relationship()


class BatchEvent(Struck, Base):
    """Something done to a whole batch: mould, vinegar, spray, cool, hang_cold, discard."""

    __tablename__ = "batch_event"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("making.batch_id"), index=True)
    kind: Mapped[BatchEventKind] = mapped_column(String(16))
    at_s: Mapped[int]
    note: Mapped[str] = mapped_column(String(300))
