"""Tables. A new table or column comes with a migration and a note in it."""

from typing import TYPE_CHECKING

from sqlalchemy import CheckConstraint, ForeignKey, Index, String, UniqueConstraint, text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship

from zymon.core.drying.forecast import Status
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.drying.surroundings import Sort, Stirring
from zymon.core.ledger.batch import DoneBy, Use
from zymon.core.life import How
from zymon.core.life import Kind as LifeKind

from .kinds import EndedAs, ImportKind, PlaceKind, WeighedBy

if TYPE_CHECKING:
    from .hang_models import HangEvent


class Base(DeclarativeBase):
    """Base of all tables."""


class Struck:
    """Columns of an entry that can be struck through, never changed."""

    by: Mapped[str] = mapped_column(String(60))
    entered_s: Mapped[int]
    struck_s: Mapped[int | None]
    struck_by: Mapped[str | None] = mapped_column(String(60))
    struck_reason: Mapped[str | None] = mapped_column(String(200))


class Workshop(Base):
    """The one workshop that this database belongs to."""

    __tablename__ = "workshop"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    time_zone: Mapped[str] = mapped_column(String(60))
    created_s: Mapped[int]
    people: Mapped[int | None]  # who work in it; None: nobody said
    address: Mapped[str | None] = mapped_column(String(200))  # by which tablets reach this machine
    shows: Mapped[str | None] = mapped_column(String(200))  # language and units of mails and calendars; None: as usual


class Place(Base):
    """A chamber, cupboard, fridge or store, with a climate of its own."""

    __tablename__ = "place"
    __table_args__ = (CheckConstraint("kind IN ('chamber', 'warm', 'salt', 'store')"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    kind: Mapped[PlaceKind] = mapped_column(String(16))
    sort: Mapped[Sort | None] = mapped_column(String(20))  # what it is, of those that pieces hang in; None: nobody said
    stirring: Mapped[Stirring | None] = mapped_column(String(8))  # how its air moves; None: as is usual there
    room: Mapped[int | None]  # how many pieces go in where there are no hooks; None: nobody said
    elsewhere: Mapped[bool] = mapped_column(default=False)  # no place of the workshop: where other people's goods hung
    position: Mapped[int]
    revision: Mapped[int] = mapped_column(default=0)  # rises with everything that can move a date
    rods: Mapped[list["Rod"]] = relationship(back_populates="place", order_by="Rod.number")
    setpoints: Mapped[list["Setpoint"]] = relationship(order_by="Setpoint.at_s")


class Setpoint(Struck, Base):
    """What the controller of a place was set to from a time on."""

    __tablename__ = "setpoint"
    id: Mapped[int] = mapped_column(primary_key=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), index=True)
    at_s: Mapped[int]
    temperature_c: Mapped[float | None]
    rh_percent: Mapped[float | None]


class Rod(Base):
    """A rod with numbered hooks."""

    __tablename__ = "rod"
    __table_args__ = (UniqueConstraint("place_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"))
    number: Mapped[int]
    hooks: Mapped[int]
    hook_spacing_mm: Mapped[float | None]
    place: Mapped[Place] = relationship(back_populates="rods")


class Batch(Base):
    """Pieces of one making; shape and casing are what most of its pieces have."""

    __tablename__ = "batch"
    id: Mapped[int] = mapped_column(primary_key=True)
    code: Mapped[str] = mapped_column(String(40), unique=True)
    product: Mapped[str] = mapped_column(String(120))
    kind: Mapped[Kind] = mapped_column(String(20))
    shape: Mapped[Shape] = mapped_column(String(20))
    casing: Mapped[Casing] = mapped_column(String(20))
    fat_percent: Mapped[float | None]
    salt_percent: Mapped[float | None]
    created_s: Mapped[int]
    profile: Mapped[str] = mapped_column(String(20), default="us")  # the limits it is judged by
    use: Mapped[Use] = mapped_column(String(8), default="raw")
    done_by: Mapped[DoneBy] = mapped_column(String(8), default="weight")
    pieces: Mapped[list["Piece"]] = relationship(back_populates="batch", order_by="Piece.tag")


class Piece(Base):
    """A tagged piece, as it was when hung."""

    __tablename__ = "piece"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    tag: Mapped[str] = mapped_column(String(40), unique=True)
    shape: Mapped[Shape] = mapped_column(String(20))
    casing: Mapped[Casing] = mapped_column(String(20))
    diameter_mm: Mapped[float | None]
    thickness_mm: Mapped[float | None]
    length_mm: Mapped[float | None]
    start_weight_g: Mapped[float | None]  # None: nobody weighed it
    tare_g: Mapped[float]
    target_loss_percent: Mapped[float | None]  # None: not done by weight
    done_by: Mapped[DoneBy | None] = mapped_column(String(8))  # None: as its batch
    done_days: Mapped[int | None]
    skin: Mapped[bool | None]
    bone: Mapped[bool | None]
    hung_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    batch: Mapped[Batch] = relationship(back_populates="pieces")
    hangings: Mapped[list["Hanging"]] = relationship(
        back_populates="piece",
        order_by="Hanging.from_s, Hanging.id",
        primaryjoin="and_(Piece.id == Hanging.piece_id, Hanging.struck_s.is_(None))",
    )
    struck_hangings: Mapped[list["Hanging"]] = relationship(
        order_by="Hanging.from_s",
        primaryjoin="and_(Piece.id == Hanging.piece_id, Hanging.struck_s.is_not(None))",
        viewonly=True,
    )
    weighings: Mapped[list["Weighing"]] = relationship(back_populates="piece", order_by="Weighing.at_s, Weighing.id")
    corrections: Mapped[list["Correction"]] = relationship(order_by="Correction.id")
    states: Mapped[list["PieceState"]] = relationship(
        back_populates="piece", order_by="PieceState.from_s, PieceState.id"
    )
    felt: Mapped[list["HangEvent"]] = relationship(
        order_by="HangEvent.at_s, HangEvent.id",
        primaryjoin="and_(Piece.id == HangEvent.piece_id, HangEvent.kind == 'inspect', HangEvent.struck_s.is_(None))",
        viewonly=True,
    )
    cuts: Mapped[list["PieceCut"]] = relationship(back_populates="piece", order_by="PieceCut.at_s, PieceCut.id")


class Correction(Base):
    """A declared value of a piece that was wrong: what it was, what it is, who said so and why."""

    __tablename__ = "correction"
    id: Mapped[int] = mapped_column(primary_key=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    field: Mapped[str] = mapped_column(String(30))
    was: Mapped[str | None] = mapped_column(String(40))
    now: Mapped[str | None] = mapped_column(String(40))
    reason: Mapped[str] = mapped_column(String(200))
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]


class Hanging(Base):
    """Where a piece hung, from when to when; open while it hangs there. One that is struck ends where it began."""

    __tablename__ = "hanging"
    __table_args__ = (
        Index("one_piece_per_hook", "rod_id", "hook", unique=True, sqlite_where=text("to_s IS NULL")),
        Index("one_hook_per_piece", "piece_id", unique=True, sqlite_where=text("to_s IS NULL")),
    )
    id: Mapped[int] = mapped_column(primary_key=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), index=True)
    rod_id: Mapped[int] = mapped_column(ForeignKey("rod.id"))
    hook: Mapped[int]
    from_s: Mapped[int]
    to_s: Mapped[int | None]
    ended_as: Mapped[EndedAs | None] = mapped_column(String(10))
    ended_by: Mapped[str | None] = mapped_column(String(60))
    end_reason: Mapped[str | None] = mapped_column(String(200))  # as it was worded before states were kept
    by: Mapped[str] = mapped_column(String(60))
    entered_s: Mapped[int]
    struck_s: Mapped[int | None]
    struck_by: Mapped[str | None] = mapped_column(String(60))
    struck_reason: Mapped[str | None] = mapped_column(String(200))
    piece: Mapped[Piece] = relationship(back_populates="hangings")
    rod: Mapped[Rod] = relationship()


class PieceState(Struck, Base):
    """What a piece is since it came off its hook: down, resting, cut, kept, gone; open while it is that."""

    __tablename__ = "piece_state"
    __table_args__ = (
        Index("one_state_per_piece", "piece_id", unique=True, sqlite_where=text("to_s IS NULL AND struck_s IS NULL")),
    )
    id: Mapped[int] = mapped_column(primary_key=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    kind: Mapped[LifeKind] = mapped_column(String(10))
    how: Mapped[How] = mapped_column(String(12))  # resting: the bag; gone: eaten, given, sold, discarded; else ""
    from_s: Mapped[int]
    to_s: Mapped[int | None]
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"), index=True)
    note: Mapped[str] = mapped_column(String(300))
    against: Mapped[str] = mapped_column(String(400))  # what stood against it then, as codes; "" for nothing
    piece: Mapped[Piece] = relationship(back_populates="states")
    place: Mapped[Place | None] = relationship()


class PieceCut(Struck, Base):
    """A slice taken off a piece that goes on: what it weighed before and after, gross [g]."""

    __tablename__ = "piece_cut"
    id: Mapped[int] = mapped_column(primary_key=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    at_s: Mapped[int]
    before_g: Mapped[float]
    after_g: Mapped[float]
    note: Mapped[str] = mapped_column(String(300))
    piece: Mapped[Piece] = relationship(back_populates="cuts")


class Weighing(Base):
    """A reading of the scale. Struck through, never changed."""

    __tablename__ = "weighing"
    __table_args__ = (
        Index("weighing_uid", "uid", unique=True),
        Index("weighing_restores_once", "restores_id", unique=True),
    )
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str | None] = mapped_column(String(60))  # sent twice, it counts once
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    at_s: Mapped[int]
    gross_g: Mapped[float]
    by: Mapped[str] = mapped_column(String(60))
    entered_s: Mapped[int]
    kept: Mapped[bool] = mapped_column(default=False)  # asked about and kept all the same
    source: Mapped[WeighedBy] = mapped_column(String(10))
    import_id: Mapped[int | None] = mapped_column(ForeignKey("import_report.id"))
    restores_id: Mapped[int | None] = mapped_column(ForeignKey("weighing.id"))  # the struck one it repeats
    struck_s: Mapped[int | None]
    struck_by: Mapped[str | None] = mapped_column(String(60))
    struck_reason: Mapped[str | None] = mapped_column(String(200))
    piece: Mapped[Piece] = relationship(back_populates="weighings")


class ForecastRecord(Base):
    """What was forecast for a piece right after a weighing, so that the record can be shown later."""

    __tablename__ = "forecast_record"
    id: Mapped[int] = mapped_column(primary_key=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id"), index=True)
    weighing_id: Mapped[int | None] = mapped_column(ForeignKey("weighing.id"))
    made_s: Mapped[int]
    p10_s: Mapped[int | None]
    p50_s: Mapped[int | None]
    p90_s: Mapped[int | None]
    loss_percent: Mapped[float]
    status: Mapped[Status] = mapped_column(String(16))
    afterwards: Mapped[bool] = mapped_column(default=False)  # worked out later, with what was known then


class Reading(Base):
    """One reading of a climate sensor; bulk data, kept in time order by its key."""

    __tablename__ = "reading"
    __table_args__ = {"sqlite_with_rowid": False}  # noqa: RUF012 -- SQLAlchemy reads it as declared
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), primary_key=True)
    at_s: Mapped[int] = mapped_column(primary_key=True)
    temperature_c: Mapped[float]
    rh_percent: Mapped[float | None]  # none of a thermometer alone
    import_id: Mapped[int | None] = mapped_column(ForeignKey("import_report.id"))
    device_id: Mapped[int | None] = mapped_column(ForeignKey("device.id"))  # neither: typed by hand, or unknown


class ReadingStrike(Struck, Base):
    """A stretch of a climate log that does not count: a sensor in the sun, a wrong file. Brought back, it is ended."""

    __tablename__ = "reading_strike"
    id: Mapped[int] = mapped_column(primary_key=True)
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), index=True)
    from_s: Mapped[int]
    to_s: Mapped[int]
    import_id: Mapped[int | None] = mapped_column(ForeignKey("import_report.id"))
    reason: Mapped[str] = mapped_column(String(200))
    readings: Mapped[int]


class StruckReading(Base):
    """A reading that does not count, with the strike that took it out; its place in the log is free for another."""

    __tablename__ = "struck_reading"
    __table_args__ = {"sqlite_with_rowid": False}  # noqa: RUF012 -- SQLAlchemy reads it as declared
    strike_id: Mapped[int] = mapped_column(ForeignKey("reading_strike.id"), primary_key=True)
    at_s: Mapped[int] = mapped_column(primary_key=True)
    temperature_c: Mapped[float]
    rh_percent: Mapped[float | None]  # none of a thermometer alone
    import_id: Mapped[int | None] = mapped_column(ForeignKey("import_report.id"))
    device_id: Mapped[int | None] = mapped_column(ForeignKey("device.id"))


class ReadingHour(Base):
    """Roll-up of the readings of one hour; made again whenever readings of that hour come in."""

    __tablename__ = "reading_hour"
    __table_args__ = {"sqlite_with_rowid": False}  # noqa: RUF012 -- as above
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), primary_key=True)
    hour_s: Mapped[int] = mapped_column(primary_key=True)
    readings: Mapped[int]
    temperature_c: Mapped[float]
    temperature_min_c: Mapped[float]
    temperature_max_c: Mapped[float]
    rh_percent: Mapped[float | None]
    rh_min_percent: Mapped[float | None]
    rh_max_percent: Mapped[float | None]


class ImportReport(Base):
    """What a file brought: stays as the answer to "where does this come from?"."""

    __tablename__ = "import_report"
    id: Mapped[int] = mapped_column(primary_key=True)
    at_s: Mapped[int]
    by: Mapped[str] = mapped_column(String(60))
    kind: Mapped[ImportKind] = mapped_column(String(16))
    file_name: Mapped[str] = mapped_column(String(200))
    sha256: Mapped[str] = mapped_column(String(64))
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    rows_new: Mapped[int]
    rows_same: Mapped[int]
    rows_conflict: Mapped[int]
    rows_left_out: Mapped[int]
    taken_back_s: Mapped[int | None]
    taken_back_by: Mapped[str | None] = mapped_column(String(60))
    taken_back_reason: Mapped[str | None] = mapped_column(String(200))


class Sent(Base):
    """An entry that arrived, by the identity it was given where it was made, and what came of it as JSON."""

    __tablename__ = "sent"
    uid: Mapped[str] = mapped_column(String(60), primary_key=True)
    what: Mapped[str] = mapped_column(String(60))  # what it was entered as, and for whom
    made: Mapped[str]
    at_s: Mapped[int]


class JournalLine(Base):
    """What was changed of something entered: who, when, before, after, why. Added to, never changed or deleted."""

    __tablename__ = "journal_line"
    id: Mapped[int] = mapped_column(primary_key=True)
    at_s: Mapped[int] = mapped_column(index=True)
    by: Mapped[str] = mapped_column(String(60))
    what: Mapped[str] = mapped_column(String(40))  # the table
    row: Mapped[str] = mapped_column(String(80))  # its key
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batch.id"), index=True)
    piece_id: Mapped[int | None] = mapped_column(ForeignKey("piece.id"))
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    before: Mapped[str]
    after: Mapped[str]
    reason: Mapped[str] = mapped_column(String(300))
