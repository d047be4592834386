"""Telling people: each event once to each, gathered where several are due, held in quiet hours, never a storm."""

import logging
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from itertools import groupby
from typing import Literal
from zoneinfo import ZoneInfo

from zymon.core.alarms import Kind, held, may_send, try_again_s
from zymon.core.say import Said, Value, said
from zymon.store import alarms as store
from zymon.store.alarm_models import AlarmEvent, AlarmMessage, AlarmPerson
from zymon.store.database import Database
from zymon.store.people import person_named
from zymon.store.places import workshop
from zymon.words import sentence
from zymon.words.shows import Shows, read_shows, shown_as

from ..moments import moment

log = logging.getLogger("zymon.alarms")

Way = Literal["mail", "call", "push"]


class NotSentError(RuntimeError):
    """A message that certainly did not go; says why."""


class UnsureError(RuntimeError):
    """A message that was cut off so late that nobody knows whether it went: it is not sent again."""


@dataclass(frozen=True)
class Told:
    """What somebody is told: one line, what it means for the goods, where to look. Events by number."""

    title: str
    text: str
    link: str
    events: tuple[int, ...]
    begun: tuple[str, ...]  # ISO 8601
    kinds: tuple[str, ...]
    test: bool = False


# tells one person; raises NotSentError where it certainly did not go, UnsureError where nobody knows
Sender = Callable[[AlarmPerson, Told], None]


def title_of(event: AlarmEvent) -> Said:
    """What is wrong, in a sentence."""
    values: dict[str, Value] = {"place": event.place.name if event.place else "", "about": event.about}
    if event.worst is not None:
        values["worst"] = round(event.worst, 1)
    return said(f"alarm.{event.kind}", **values)


def meaning_of(event: AlarmEvent) -> Said:
    """What it means for the goods, and what to do first."""
    return said(f"alarm_means.{event.kind}")


def tell(db: Database, senders: dict[Way, Sender], zone: ZoneInfo, address: str, now: Callable[[], int]) -> int:
    """Send what is due; how many messages went. Whatever happens in between, none is sent a second time."""
    went = 0
    now_s = now()
    with db.writing("Zymon", now_s) as session:
        store.make_due(session, now_s)
    for batch in _due(db, zone, now_s):
        ids = [one.id for one in batch]
        with db.writing("Zymon", now_s) as session:
            store.begin(session, ids, now_s)
        try:
            to = batch[0].person
            sender = senders.get(to.way)
            if sender is None:
                raise NotSentError(f"there is no way to send by {to.way}: see docs/alarms.md")
            with shown_as(_shows_of(db, to)):
                told = _gathered([one.event for one in batch], zone, address)
            sender(to, told)
        except NotSentError as error:
            log.warning("%s was not told: %s", batch[0].person.name, error)
            waits = {one.id: try_again_s(one.tries + 1) for one in batch}
            again = {one: None if wait is None else int(now_s + wait) for one, wait in waits.items()}
            with db.writing("Zymon", now_s) as session:
                store.not_gone(session, ids, str(error), again)
            continue
        except Exception:  # cut off, or a fault of ours: either way it may have gone
            log.exception("whether %s was told is not known", batch[0].person.name)
            continue
        with db.writing("Zymon", now_s) as session:
            store.gone(session, ids, now())
        went += 1
    return went


def _shows_of(db: Database, to: AlarmPerson) -> Shows:
    """In which language and units somebody is told: as they chose who work here, or as the workshop has it."""
    with db.reading() as session:
        known, shop = person_named(session, to.name), workshop(session)
        return read_shows((known and known.shows) or (shop and shop.shows) or None)


def _due(db: Database, zone: ZoneInfo, now_s: int) -> list[list[AlarmMessage]]:
    """What is due, gathered by person; nothing of somebody's quiet hours, nor past what one is sent in an hour."""
    at = moment(now_s).astimezone(zone)
    minute = at.hour * 60 + at.minute
    gathered: list[list[AlarmMessage]] = []
    with db.reading() as session:
        for _, messages in groupby(store.due(session, now_s), key=lambda one: one.person_id):
            waiting = [one for one in messages if not _held(one, minute)]
            if waiting and may_send(store.sent_s(session, waiting[0].person_id, now_s - 3600), now_s):
                gathered.append(waiting)
        session.expunge_all()
    return gathered


def _held(one: AlarmMessage, minute: int) -> bool:
    kind: Kind = one.event.kind
    return held(kind, minute, one.person.quiet_from, one.person.quiet_to, one.person.woken)


def _gathered(events: list[AlarmEvent], zone: ZoneInfo, address: str) -> Told:
    """One message of one event or of several."""
    titles = [sentence(title_of(one), zone) for one in events]
    title = titles[0] if len(titles) == 1 else sentence(said("alarm.several", many=len(titles)), zone)
    return Told(
        title=title,
        text="\n\n".join(_paragraphs(events, titles, zone)),
        link=f"{address}{events[0].link if len(events) == 1 else '/house/alarms'}",
        events=tuple(one.id for one in events),
        begun=tuple(moment(one.begun_s).isoformat() for one in events),
        kinds=tuple(one.kind for one in events),
    )


def _paragraphs(events: list[AlarmEvent], titles: list[str], zone: ZoneInfo) -> Iterable[str]:
    for one, title in zip(events, titles, strict=True):
        since = sentence(said("alarm.since", begun_s=one.begun_s), zone)
        yield f"{title}. {since}\n{sentence(meaning_of(one), zone)}"


def trial(zone: ZoneInfo, address: str, now_s: int) -> Told:
    """What is sent by the test button."""
    return Told(
        sentence(said("alarm.test"), zone),
        sentence(said("alarm.test_text"), zone),
        f"{address}/house/alarms",
        (),
        (moment(now_s).isoformat(),),
        ("test",),
        test=True,
    )
