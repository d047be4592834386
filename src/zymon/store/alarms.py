"""Alarms on record: bands, events, who is told, and messages that are sent once."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import func, or_, select
from sqlalchemy.orm import Session, joinedload

from zymon.core.alarms import KINDS, SECOND_AFTER_S, STORM_S, Band, Kind, again
from zymon.core.devices import REGISTRY

from .alarm_models import AlarmBand, AlarmEvent, AlarmMessage, AlarmPerson
from .hang_models import Device
from .places import ClashError, place, there

SHOWN_EVENTS = 100


def band_of(session: Session, place_id: int) -> tuple[Band, AlarmBand | None]:
    """What is watched at a place, and who said so; frost and silence alone where nobody did."""
    row = session.get(AlarmBand, place_id)
    if row is None:
        return Band(), None
    return (
        Band(
            row.low_c, row.high_c, row.low_rh, row.high_rh, row.for_minutes * 60.0, row.frost,
            None if row.silent_minutes is None else row.silent_minutes * 60.0,
            None if row.door_minutes is None else row.door_minutes * 60.0,
        ),
        row,
    )  # fmt: skip


def set_band(session: Session, new: AlarmBand) -> AlarmBand:
    """Watch a place as said from now on; what was said before stays in the journal. Raises NotFoundError."""
    place(session, new.place_id)
    return session.merge(new)


def heard_s(session: Session, place_id: int) -> int | None:
    """When a device of a place was heard last; None where none that sends by itself belongs to it."""
    steady = [kind for kind, of in REGISTRY.items() if of.has_place and of.sends_itself]
    query = select(func.max(Device.last_s)).where(
        Device.place_id == place_id, Device.kind.in_(steady), Device.ended_s.is_(None)
    )
    return session.scalar(query)


@dataclass(frozen=True)
class Now:
    """Something that is wrong now: of a place, or about one batch or piece; `since_s` [s]."""

    kind: Kind
    place_id: int | None
    about: str
    link: str
    since_s: float
    worst: float | None


def open_events(session: Session) -> list[AlarmEvent]:
    """What is wrong, and what nobody has acknowledged; the worst kinds first."""
    query = (
        select(AlarmEvent)
        .where(or_(AlarmEvent.ended_s.is_(None), AlarmEvent.acknowledged_s.is_(None)))
        .options(joinedload(AlarmEvent.place))
    )
    order = {kind: i for i, kind in enumerate(KINDS)}
    return sorted(session.scalars(query), key=lambda e: (e.ended_s is not None, order.get(e.kind, 99), e.begun_s))


def events(session: Session) -> list[AlarmEvent]:
    """The latest events, newest first."""
    query = select(AlarmEvent).options(joinedload(AlarmEvent.place)).order_by(AlarmEvent.id.desc()).limit(SHOWN_EVENTS)
    return list(session.scalars(query))


def note(session: Session, troubles: Sequence[Now], now_s: int) -> list[AlarmEvent]:
    """Bring the record up to what is wrong now; the events that began just now.

    What goes on is seen again, what is no more has ended, and what begins again soon after goes on as the same event.
    """
    begun: list[AlarmEvent] = []
    last: dict[tuple[str, int | None, str], AlarmEvent] = {}
    lately = or_(AlarmEvent.ended_s.is_(None), AlarmEvent.ended_s > now_s - STORM_S)
    for event in session.scalars(select(AlarmEvent).where(lately).order_by(AlarmEvent.id)):
        last[event.kind, event.place_id, event.about] = event
    now = {(one.kind, one.place_id, one.about): one for one in troubles}
    for key, event in last.items():
        if event.ended_s is None and key not in now:
            event.ended_s = now_s
    for key, one in now.items():
        known = last.get(key)
        if known is not None and again(known.ended_s, now_s):
            known.ended_s, known.seen_s = None, now_s
            known.worst = _worse(one.kind, known.worst, one.worst)
            continue
        event = AlarmEvent(
            kind=one.kind, place_id=one.place_id, about=one.about, link=one.link, begun_s=int(one.since_s),
            seen_s=now_s, ended_s=None, worst=one.worst, acknowledged_s=None, acknowledged_by=None,
        )  # fmt: skip
        session.add(event)
        begun.append(event)
    session.flush()
    return begun


def _worse(kind: str, one: float | None, other: float | None) -> float | None:
    if one is None or other is None:
        return other if one is None else one
    return min(one, other) if kind in ("frost", "too_cold", "too_dry") else max(one, other)


def event(session: Session, event_id: int) -> AlarmEvent:
    """One event. Raises NotFoundError."""
    return there(session, AlarmEvent, event_id, "refused.no_alarm")


def acknowledge(session: Session, event_id: int, by: str, now_s: int) -> AlarmEvent:
    """Somebody has seen it and takes care; the first who says so stays on record. Raises NotFoundError."""
    seen = event(session, event_id)
    if seen.acknowledged_s is None:
        seen.acknowledged_s, seen.acknowledged_by = now_s, by
    return seen


def people(session: Session) -> list[AlarmPerson]:
    """Who is told now, the first ones first."""
    query = select(AlarmPerson).where(AlarmPerson.ended_s.is_(None)).order_by(AlarmPerson.second, AlarmPerson.id)
    return list(session.scalars(query))


def add_person(session: Session, new: AlarmPerson) -> AlarmPerson:
    """Tell somebody from now on. Raises ClashError where the same address is told already."""
    if any((one.way, one.address) == (new.way, new.address) for one in people(session)):
        raise ClashError("refused.told_already", name=new.name)
    session.add(new)
    session.flush()
    return new


def end_person(session: Session, person_id: int, by: str, now_s: int) -> AlarmPerson:
    """Tell somebody no more. Raises NotFoundError."""
    ended = person(session, person_id)
    if ended.ended_s is None:
        ended.ended_s, ended.ended_by = now_s, by
    return ended


def person(session: Session, person_id: int) -> AlarmPerson:
    """One who is or was told. Raises NotFoundError."""
    return there(session, AlarmPerson, person_id, "refused.nobody_told")


def make_due(session: Session, now_s: int) -> None:
    """A message of every event for everybody of the first step, and of the second where nobody acknowledged in time.

    Nobody is told of what began before they were entered, nor of what ended before it was due.
    """
    everybody = people(session)
    going_on = list(session.scalars(select(AlarmEvent).where(AlarmEvent.ended_s.is_(None))))
    sent = select(AlarmMessage).where(AlarmMessage.event_id.in_([one.id for one in going_on]))
    told = {(m.event_id, m.person_id) for m in session.scalars(sent)}
    for one in going_on:
        for somebody in everybody:
            if (one.id, somebody.id) in told or one.seen_s < somebody.at_s or one.acknowledged_s is not None:
                continue
            if somebody.second and now_s - _noted_s(session, one) < SECOND_AFTER_S:
                continue
            session.add(
                AlarmMessage(
                    event_id=one.id, person_id=somebody.id, due_s=now_s, begun_s=None, gone_s=None, tries=0, trouble=""
                )
            )
    session.flush()


def _noted_s(session: Session, alarm_event: AlarmEvent) -> float:
    """When the first was told of an event, or when it was noted where nobody was [s]."""
    first = session.scalar(select(func.min(AlarmMessage.due_s)).where(AlarmMessage.event_id == alarm_event.id))
    return alarm_event.begun_s if first is None else first


def due(session: Session, now_s: int) -> list[AlarmMessage]:
    """Messages to be sent now, by person; those of people who are told no more are not."""
    query = (
        select(AlarmMessage)
        .join(AlarmPerson)
        .where(AlarmMessage.begun_s.is_(None), AlarmMessage.due_s <= now_s, AlarmPerson.ended_s.is_(None))
        .options(joinedload(AlarmMessage.event).joinedload(AlarmEvent.place), joinedload(AlarmMessage.person))
        .order_by(AlarmMessage.person_id, AlarmMessage.id)
    )
    return list(session.scalars(query))


def sent_s(session: Session, person_id: int, since_s: int) -> list[int]:
    """When messages went to somebody since a time [s]; several events gathered into one count once."""
    query = select(AlarmMessage.begun_s).where(AlarmMessage.person_id == person_id, AlarmMessage.begun_s >= since_s)
    return sorted({at for at in session.scalars(query.distinct()) if at is not None})


def begin(session: Session, ids: Sequence[int], now_s: int) -> None:
    """Take messages to be sent: from now on nobody else sends them, not even after the power failed."""
    for one in session.scalars(select(AlarmMessage).where(AlarmMessage.id.in_(ids))):
        one.begun_s = now_s


def gone(session: Session, ids: Sequence[int], now_s: int) -> None:
    """They went."""
    for one in session.scalars(select(AlarmMessage).where(AlarmMessage.id.in_(ids))):
        one.gone_s, one.trouble = now_s, ""


def not_gone(session: Session, ids: Sequence[int], trouble: str, again_s: dict[int, int | None]) -> None:
    """They certainly did not go: due again when told, given up where None. Parameters: again_s [s], by message."""
    for one in session.scalars(select(AlarmMessage).where(AlarmMessage.id.in_(ids))):
        one.tries += 1
        one.trouble = trouble[:300]
        next_s = again_s[one.id]
        if next_s is not None:
            one.begun_s, one.due_s = None, next_s


def messages_of(session: Session, event_ids: Sequence[int]) -> dict[int, list[AlarmMessage]]:
    """The messages of events, by event."""
    query = select(AlarmMessage).where(AlarmMessage.event_id.in_(event_ids)).options(joinedload(AlarmMessage.person))
    found: dict[int, list[AlarmMessage]] = {}
    for one in session.scalars(query):
        found.setdefault(one.event_id, []).append(one)
    return found
