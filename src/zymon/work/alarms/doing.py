"""What is done about alarms: watched otherwise, acknowledged, told to somebody, tried."""

from urllib.parse import urlsplit

from zymon.core.errors import OutOfRangeError
from zymon.store import alarms as store
from zymon.store.alarm_models import AlarmBand, AlarmEvent, AlarmMessage, AlarmPerson
from zymon.store.database import Session
from zymon.store.models import Place
from zymon.store.places import place, places, setpoint_at
from zymon.store.tokens import new_token

from ..premises import Premises, moment
from ..schemas import said_out
from . import schemas as s
from .telling import NotSentError, Sender, UnsureError, Way, meaning_of, title_of, trial

NEAR_C, NEAR_RH = 3.0, 10.0  # off the set point: a band to begin with, changed before it is taken


def alarms(shop: Premises, ways: dict[Way, Sender], push_key: str | None) -> s.AlarmsOut:
    """Everything the alarms' page shows."""
    with shop.db.reading() as session:
        events = store.events(session)
        messages = store.messages_of(session, [one.id for one in events])
        return s.AlarmsOut(
            events=[_event_out(one, messages.get(one.id, [])) for one in events],
            bands=[_band_out(session, one, shop.now_s) for one in places(session)],
            people=[_person_out(one) for one in store.people(session)],
            ways=sorted(ways),
            push_key=push_key,
        )


def _event_out(alarm_event: AlarmEvent, messages: list[AlarmMessage]) -> s.AlarmOut:
    return s.AlarmOut(
        id=alarm_event.id,
        kind=alarm_event.kind,
        title=said_out(title_of(alarm_event)),
        means=said_out(meaning_of(alarm_event)),
        link=alarm_event.link,
        begun_at=moment(alarm_event.begun_s),
        ended_at=None if alarm_event.ended_s is None else moment(alarm_event.ended_s),
        acknowledged_at=None if alarm_event.acknowledged_s is None else moment(alarm_event.acknowledged_s),
        acknowledged_by=alarm_event.acknowledged_by,
        messages=[_message_out(one) for one in messages],
    )


def _message_out(alarm_message: AlarmMessage) -> s.MessageOut:
    at_s = alarm_message.gone_s or alarm_message.begun_s
    state = (
        "gone"
        if alarm_message.gone_s
        else "waits"
        if alarm_message.begun_s is None
        else "failed"
        if alarm_message.trouble
        else "unsure"
    )
    return s.MessageOut(
        name=alarm_message.person.name,
        way=alarm_message.person.way,
        state=state,  # type: ignore[arg-type]
        at=None if at_s is None else moment(at_s),
        trouble=alarm_message.trouble,
    )


def _band_out(session: Session, place: Place, now_s: int) -> s.BandOut:
    band, row = store.band_of(session, place.id)
    setpoint = setpoint_at(place, now_s)
    c = setpoint.temperature_c if setpoint else None
    rh = setpoint.rh_percent if setpoint else None
    usual = s.BandValues(
        low_c=None if c is None else c - NEAR_C,
        high_c=None if c is None else c + NEAR_C,
        low_rh=None if rh is None else max(rh - NEAR_RH, 0.0),
        high_rh=None if rh is None else min(rh + NEAR_RH, 100.0),
    )
    return s.BandOut(
        place_id=place.id, place=place.name, by=None if row is None else row.by, usual=usual,
        low_c=band.low_c, high_c=band.high_c, low_rh=band.low_rh, high_rh=band.high_rh,
        for_minutes=round(band.for_s / 60), frost=band.frost,
        silent_minutes=None if band.silent_s is None else round(band.silent_s / 60),
        door_minutes=None if band.door_s is None else round(band.door_s / 60),
    )  # fmt: skip


def _person_out(alarm_person: AlarmPerson, secret: str | None = None) -> s.TellOut:
    return s.TellOut(
        id=alarm_person.id,
        name=alarm_person.name,
        way=alarm_person.way,
        address="" if alarm_person.way == "push" else alarm_person.address,
        second=alarm_person.second,
        quiet_from=alarm_person.quiet_from,
        quiet_to=alarm_person.quiet_to,
        woken=alarm_person.woken,
        secret=secret,
    )


def watch(shop: Premises, place_id: int, body: s.BandIn) -> s.BandOut:
    """Watch a place otherwise from now on."""
    with shop.recording(body, f"band {place_id}") as entry:
        if entry.new:
            values = body.model_dump(exclude={"uid", "at", "sure", "by"})
            store.set_band(entry.session, AlarmBand(place_id=place_id, by=body.by, at_s=entry.now_s, **values))
            entry.came("alarm_band", place_id)
    with shop.db.reading() as session:
        return _band_out(session, place(session, place_id), shop.now_s)


def acknowledge(shop: Premises, event_id: int, by: str) -> s.AlarmOut:
    """Somebody has seen it and takes care: nobody else is told."""
    with shop.changing(by) as session:
        store.acknowledge(session, event_id, by, shop.now_s)
    with shop.db.reading() as session:
        seen = store.event(session, event_id)
        return _event_out(seen, store.messages_of(session, [event_id]).get(event_id, []))


def tell_somebody(shop: Premises, body: s.TellIn) -> s.TellOut:
    """Tell somebody from now on; the secret with which calls are signed is shown this once."""
    _check_address(body)
    secret = new_token() if body.way == "call" else ""
    with shop.recording(body, f"told {body.name}"[:60]) as entry:
        if entry.new:
            values = body.model_dump(exclude={"uid", "at", "sure", "by"})
            made = AlarmPerson(**values, secret=secret, by=body.by, at_s=entry.now_s, ended_s=None, ended_by=None)
            entry.came("alarm_person", store.add_person(entry.session, made).id)
    with shop.db.reading() as session:
        return _person_out(store.person(session, entry.made[0].id), (secret or None) if entry.new else None)


def _check_address(body: s.TellIn) -> None:
    """An address must be one. Raises OutOfRangeError."""
    if body.way == "mail":
        name, _, host = body.address.rpartition("@")
        if not name or "." not in host or any(sign in body.address for sign in " ,;<>"):
            raise OutOfRangeError("refused.no_mail_address", address=body.address[:60])
    elif body.way == "call":
        url = urlsplit(body.address)
        if url.scheme not in ("http", "https") or not url.hostname:
            raise OutOfRangeError("refused.no_address_to_call", address=body.address[:60])
    elif not body.address.startswith("{"):
        raise OutOfRangeError("refused.no_push")


def tell_no_more(shop: Premises, person_id: int, by: str) -> None:
    """Tell somebody no more."""
    with shop.changing(by) as session:
        store.end_person(session, person_id, by, shop.now_s)


def attempt(shop: Premises, ways: dict[Way, Sender], person_id: int, address: str) -> s.TrialOut:
    """Send a test to somebody now, whatever the hour; whether it went."""
    with shop.db.reading() as session:
        to = store.person(session, person_id)
        session.expunge(to)
    sender = ways.get(to.way)
    try:
        if sender is None:
            raise NotSentError(f"there is no way to send by {to.way}: see docs/alarms.md")
        sender(to, trial(shop.zone, address, shop.now_s))
    except (NotSentError, UnsureError) as error:
        return s.TrialOut(went=False, trouble=str(error))
    return s.TrialOut(went=True, trouble="")
