"""Tables of the ledger: signatures, laboratory, parasites, corrections, what was done about them, limit profiles."""

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.ledger.batch import ParasiteWay

from .kinds import Curing, DeviationAct, MeatNoteKind, TakenOf
from .models import Base, Place, Struck


class HurdleSignature(Base):
    """Somebody who answers for an unknown hurdle of a batch, or releases a correction, with a reason."""

    __tablename__ = "hurdle_signature"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    hurdle: Mapped[str] = mapped_column(String(30))
    reason: Mapped[str] = mapped_column(String(200))
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]


class HurdleCorrection(Base):
    """A hurdle that stopped failing because something entered was changed: by whom, why. Never altered."""

    __tablename__ = "hurdle_correction"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    hurdle: Mapped[str] = mapped_column(String(30))
    was: Mapped[str] = mapped_column(String(10))
    reason: Mapped[str] = mapped_column(String(300))
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]


class DeviationStep(Struck, Base):
    """What was done about a hurdle that failed or is in doubt: held, cooled, discarded, tested."""

    __tablename__ = "deviation_step"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    hurdle: Mapped[str] = mapped_column(String(30))
    at_s: Mapped[int]
    step: Mapped[DeviationAct] = mapped_column(String(12))
    note: Mapped[str] = mapped_column(String(300))


class LabResult(Struck, Base):
    """A value from a laboratory, with the loss the batch's pieces had then where it matters."""

    __tablename__ = "lab_result"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    at_s: Mapped[int]
    what: Mapped[str] = mapped_column(String(40))
    value: Mapped[float]
    unit: Mapped[str] = mapped_column(String(10), default="")
    taken_of: Mapped[TakenOf] = mapped_column(String(8), default="product")
    tag: Mapped[str | None] = mapped_column(String(40))  # of one piece; None: of the batch
    loss_percent: Mapped[float | None]
    note: Mapped[str] = mapped_column(String(200))


class ParasiteStep(Struck, Base):
    """What was done about the parasites of a species; said again, each counts until it is struck."""

    __tablename__ = "parasite_step"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    species: Mapped[str] = mapped_column(String(20))
    way: Mapped[ParasiteWay] = mapped_column(String(12))
    temperature_c: Mapped[float | None]
    days: Mapped[float | None]
    thickness_cm: Mapped[float | None]
    note: Mapped[str] = mapped_column(String(200))


class WentIn(Struck, Base):
    """What went into meat that never lay on the Bench, as somebody says; said anew, the latest that stands counts.

    What is None was not said. `curing`: "" not said, none, weighed, unknown (some, but nobody weighed how much).
    """

    __tablename__ = "went_in"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    at_s: Mapped[int]
    species: Mapped[str | None] = mapped_column(String(20))
    fat_percent: Mapped[float | None]
    salt_percent: Mapped[float | None]
    curing: Mapped[Curing] = mapped_column(String(8))
    curing_percent: Mapped[float | None]
    nitrite_fraction: Mapped[float | None]
    nitrate_fraction: Mapped[float | None]


class MeatNote(Struck, Base):
    """Where the meat lay before it was salted, stuffed or hung, or how warm it was when it was mixed.

    `kind`: cold or room, from a time to a time in a place; or mix, with a temperature.
    """

    __tablename__ = "meat_note"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    kind: Mapped[MeatNoteKind] = mapped_column(String(8))
    at_s: Mapped[int]
    to_s: Mapped[int | None]
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    temperature_c: Mapped[float | None]
    note: Mapped[str] = mapped_column(String(200))
    place: Mapped[Place | None] = relationship()


class UserProfile(Base):
    """A limit profile that the maker added; its data as the shipped ones have it. Never altered: a new one is added."""

    __tablename__ = "user_profile"
    id: Mapped[str] = mapped_column(String(20), primary_key=True)
    data: Mapped[str]
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]


class ProfileChange(Base):
    """A batch that was judged by other limits from then on."""

    __tablename__ = "profile_change"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batch.id"), index=True)
    was: Mapped[str] = mapped_column(String(20))
    now: Mapped[str] = mapped_column(String(20))
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]
