"""Tables of alarms: what is watched, what happened, who is told and what was sent."""

from sqlalchemy import ForeignKey, String, Text, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.alarms import Kind as AlarmKind

from .kinds import MessageWay
from .models import Base, Place


class AlarmBand(Base):
    """What is watched at a place; a limit that is empty is not watched."""

    __tablename__ = "alarm_band"
    place_id: Mapped[int] = mapped_column(ForeignKey("place.id"), primary_key=True)
    low_c: Mapped[float | None]
    high_c: Mapped[float | None]
    low_rh: Mapped[float | None]
    high_rh: Mapped[float | None]
    for_minutes: Mapped[int]
    frost: Mapped[bool]
    silent_minutes: Mapped[int | None]
    door_minutes: Mapped[int | None]
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]


class AlarmEvent(Base):
    """Something that was wrong: from when to when, how far, and who has seen it."""

    __tablename__ = "alarm_event"
    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[AlarmKind] = mapped_column(String(16))
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    about: Mapped[str] = mapped_column(String(60))  # of one batch or piece: its code or tag; else empty
    link: Mapped[str] = mapped_column(String(120))
    begun_s: Mapped[int]
    seen_s: Mapped[int]
    ended_s: Mapped[int | None]
    worst: Mapped[float | None]
    acknowledged_s: Mapped[int | None]
    acknowledged_by: Mapped[str | None] = mapped_column(String(60))
    place: Mapped[Place | None] = relationship()


class AlarmPerson(Base):
    """Somebody who is told, one way each; those of the second step when nobody has acknowledged."""

    __tablename__ = "alarm_person"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    way: Mapped[MessageWay] = mapped_column(String(8))
    address: Mapped[str] = mapped_column(Text)
    secret: Mapped[str] = mapped_column(String(100))  # with which calls are signed
    second: Mapped[bool]
    quiet_from: Mapped[int | None]  # minutes since midnight
    quiet_to: Mapped[int | None]
    woken: Mapped[bool]
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]
    ended_s: Mapped[int | None]
    ended_by: Mapped[str | None] = mapped_column(String(60))


class AlarmMessage(Base):
    """One event told one person: due, begun to be sent, gone. There is never a second one."""

    __tablename__ = "alarm_message"
    __table_args__ = (UniqueConstraint("event_id", "person_id"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    event_id: Mapped[int] = mapped_column(ForeignKey("alarm_event.id"), index=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("alarm_person.id"))
    due_s: Mapped[int]
    begun_s: Mapped[int | None]  # begun and not gone: nobody knows whether it went, so it is not sent again
    gone_s: Mapped[int | None]
    tries: Mapped[int]
    trouble: Mapped[str] = mapped_column(String(300))
    event: Mapped[AlarmEvent] = relationship()
    person: Mapped[AlarmPerson] = relationship()
