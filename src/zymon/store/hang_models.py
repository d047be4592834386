"""Tables of what is seen and done at the hook, of devices that send readings, and of sensors put to the test."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.devices import Kind as DeviceKind

from .kinds import HangKind
from .models import Base, Piece, Place, Struck


class HangEvent(Struck, Base):
    """Something seen on a hanging piece or done to it; `found` holds the taps of an inspection as JSON."""

    __tablename__ = "hang_event"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    kind: Mapped[HangKind] = mapped_column(String(12))
    at_s: Mapped[int]
    found: Mapped[str | None]
    note: Mapped[str] = mapped_column(String(300))
    piece: Mapped[Piece] = relationship()


class RestProfile(Base):
    """What a piece was when it was sealed to rest, as JSON; worked out, not entered."""

    __tablename__ = "rest_profile"
    state_id: Mapped[int] = mapped_column(ForeignKey("piece_state.id"), primary_key=True)
    made_s: Mapped[int]
    sealed: Mapped[str]


class Photo(Struck, Base):
    """A photo of a piece, made small and without what the camera adds of itself."""

    __tablename__ = "photo"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(60), unique=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    at_s: Mapped[int]
    jpeg: Mapped[bytes] = mapped_column(deferred=True)


class Device(Base):
    """A sensor, scale or meter that sends by the open interface. Its token is kept as a hash only."""

    __tablename__ = "device"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60), unique=True)
    kind: Mapped[DeviceKind] = mapped_column(String(10))
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"), index=True)
    token_sha256: Mapped[str] = mapped_column(String(64), unique=True)
    simulated: Mapped[bool]
    by: Mapped[str] = mapped_column(String(60))
    made_s: Mapped[int]
    last_s: Mapped[int | None]  # when it was last heard of
    taken: Mapped[int] = mapped_column(default=0)
    repeated: Mapped[int] = mapped_column(default=0)
    late: Mapped[int] = mapped_column(default=0)
    impossible: Mapped[int] = mapped_column(default=0)
    value: Mapped[float | None]  # a scale's or meter's last one
    value_s: Mapped[int | None]
    ended_s: Mapped[int | None]  # since when it is switched off: its token opens nothing, what it sent stays
    ended_by: Mapped[str | None] = mapped_column(String(60))
    place: Mapped[Place | None] = relationship()


class SensorTest(Struck, Base):
    """A sensor of a place put to the test: what it showed against what is true; applied without touching the log."""

    __tablename__ = "sensor_test"
    id: Mapped[int] = mapped_column(primary_key=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), index=True)
    at_s: Mapped[int]
    shown_rh_percent: Mapped[float]
    true_rh_percent: Mapped[float]
