"""An alarm from outage to acknowledgement: told once, held in quiet hours, never a storm, never twice."""

import base64
import json
from collections.abc import Iterator
from pathlib import Path

import pytest
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.serialization import Encoding, PublicFormat
from fastapi.testclient import TestClient

from support import Clock, iso
from zymon.core.alarms import MOST_AN_HOUR, SECOND_AFTER_S, STORM_S
from zymon.core.say import said
from zymon.core.schedule import Chore
from zymon.links.call import by_call, signature
from zymon.links.mail import MailServer, by_mail
from zymon.links.push import PushKey, by_push
from zymon.standins.sinks import CallSink, MailSink, call_sink, mail_sink
from zymon.store.alarm_models import AlarmPerson
from zymon.work.alarms import watch as watching
from zymon.work.alarms import watching as looking
from zymon.work.alarms.telling import NotSentError, Told, UnsureError
from zymon.work.alarms.watch import Watch
from zymon.work.today.line import LineOfRound

BY = {"by": "Ida"}
DAY = 86_400


@pytest.fixture
def called() -> Iterator[CallSink]:
    with call_sink() as sink:
        yield sink


@pytest.fixture
def mailed() -> Iterator[MailSink]:
    with mail_sink() as sink:
        yield sink


class House:
    """A workshop with a logger in its cellar, and its watch."""

    def __init__(self, client: TestClient, clock: Clock, chamber: dict, mailed: MailSink | None = None) -> None:
        self.client, self.clock, self.place = client, clock, chamber["place"]["id"]
        body = {"name": "Logger", "kind": "climate", "place_id": self.place, **BY}
        self.token = client.post("/api/devices", json=body).json()["token"]
        self.context = client.app.state.context  # type: ignore[attr-defined]
        self.context.senders["mail"] = by_mail(
            MailServer("127.0.0.1", mailed.port if mailed else 9, "zymon@cellar.test", "none"), lambda: "Test cellar"
        )
        self.watch = self.another_watch()

    def another_watch(self) -> Watch:
        """As after a restart: nothing is remembered but what is on record."""
        return Watch(self.context, self.context.senders, lambda: "http://cellar.test")

    def band(self, **values: float | bool | None) -> None:
        self.client.put(f"/api/alarms/bands/{self.place}", json={**values, **BY}).raise_for_status()

    def air(self, c: float, rh: float = 78.0, minutes: int = 70) -> None:
        """A logger that sent this for so long, up to now."""
        self.clock.now += minutes * 60
        readings = [
            {"at": iso(self.clock.now - 300 * i), "temperature_c": c, "rh_percent": rh} for i in range(minutes // 5 + 1)
        ]
        head = {"Authorization": f"Bearer {self.token}"}
        self.client.post("/device/v1/readings", json={"readings": readings}, headers=head).raise_for_status()

    def tell(self, way: str, address: str, **more: object) -> dict:
        body = {"name": f"{way} {address}"[:60], "way": way, "address": address, **BY, **more}
        answer = self.client.post("/api/alarms/people", json=body)
        assert answer.status_code == 201, answer.text
        return answer.json()

    def events(self) -> list[dict]:
        return self.client.get("/api/alarms").json()["events"]


@pytest.fixture
def house(client: TestClient, clock: Clock, chamber: dict, mailed: MailSink) -> House:
    return House(client, clock, chamber, mailed)


def test_from_outage_to_acknowledgement(house: House, mailed: MailSink, called: CallSink) -> None:
    house.band(low_c=10, high_c=15)
    secret = house.tell("call", called.url)["secret"]
    house.tell("mail", "ida@cellar.test")
    house.tell("mail", "otto@cellar.test", second=True)
    house.air(13.0)
    assert (house.watch.look(), house.events()) == (0, [])
    house.air(19.5, minutes=65)
    assert house.watch.look() == 2
    (event,) = house.events()
    assert (event["kind"], event["ended_at"], event["acknowledged_by"]) == ("too_warm", None, None)
    assert {(m["way"], m["state"]) for m in event["messages"]} == {("call", "gone"), ("mail", "gone")}
    # what was told
    (head, body), told = called.calls[0], called.bodies()[0]
    assert head["zymon-signature"] == signature(secret, int(head["zymon-time"]), body)
    assert told["alarms"] == [{"id": event["id"], "kind": "too_warm", "begun": told["alarms"][0]["begun"]}]
    assert (told["title"], told["test"]) == ("Too warm in Cellar: 19.5 °C", False)
    assert told["link"] == f"http://cellar.test/hang/{house.place}/climate"
    (mail,) = mailed.mails
    assert (mail["To"], mail["Subject"]) == ("ida@cellar.test", "Test cellar: Too warm in Cellar: 19.5 °C")
    assert "fat runs" in mail.get_content()
    # on every screen, and in the calendar
    (short,) = house.client.get("/api/line").json()["alarms"]
    assert (short["id"], short["ended"], short["acknowledged_by"]) == (event["id"], False, None)
    assert "SUMMARY:Too warm in Cellar" in house.client.get("/api/today.ics").text
    # it goes on: nobody is told again; the second one is told once, when nobody took care
    house.air(19.5, minutes=25)
    assert house.watch.look() == 0
    house.air(19.5, minutes=5)
    assert house.watch.look() == 1
    assert mailed.mails[-1]["To"] == "otto@cellar.test"
    done = house.client.post(f"/api/alarms/{event['id']}/acknowledge", json={"by": "Otto"}).json()
    assert done["acknowledged_by"] == "Otto"
    house.client.post(f"/api/alarms/{event['id']}/acknowledge", json={"by": "Ida"})
    assert house.events()[0]["acknowledged_by"] == "Otto"  # the first who took care stays on record
    house.air(19.5, minutes=120)
    assert house.watch.look() == 0
    house.air(13.0, minutes=10)
    assert house.watch.look() == 0
    assert house.events()[0]["ended_at"] is not None
    assert house.client.get("/api/line").json()["alarms"] == []


def test_who_takes_care_before_the_second_is_told_spares_them(house: House, mailed: MailSink) -> None:
    house.band(high_c=15)
    house.tell("mail", "ida@cellar.test")
    house.tell("mail", "otto@cellar.test", second=True)
    house.air(19.5)
    house.watch.look()
    house.client.post(f"/api/alarms/{house.events()[0]['id']}/acknowledge", json=BY)
    house.air(19.5, minutes=int(SECOND_AFTER_S / 60) + 30)
    house.watch.look()
    assert [mail["To"] for mail in mailed.mails] == ["ida@cellar.test"]


def test_what_begins_again_soon_is_one_event_told_once_and_later_another(house: House, called: CallSink) -> None:
    house.band(high_c=15, for_minutes=10)
    house.tell("call", called.url)
    for _ in range(3):
        house.air(19.5, minutes=20)
        house.watch.look()
        house.air(13.0, minutes=20)
        house.watch.look()
    assert (len(house.events()), len(called.calls)) == (1, 1)
    house.air(13.0, minutes=int(STORM_S / 60))
    house.watch.look()
    house.air(19.5, minutes=20)
    house.watch.look()
    assert (len(house.events()), len(called.calls)) == (2, 2)


def test_several_at_once_are_one_message_and_six_an_hour_the_most(house: House, called: CallSink) -> None:
    house.band(high_c=15, high_rh=85, for_minutes=10)
    house.tell("call", called.url)
    house.air(19.5, rh=95, minutes=20)
    assert house.watch.look() == 1
    assert (called.bodies()[0]["title"], len(called.bodies()[0]["alarms"])) == ("2 alarms", 2)
    context = house.context
    for number in range(2 * MOST_AN_HOUR):
        place = house.client.post("/api/places", json={"name": f"P{number}", "hooks_per_rod": [4], **BY}).json()["id"]
        body = {"at": iso(context.now_s), "temperature_c": -3.0, **BY}
        house.client.post(f"/api/places/{place}/readings", json=body).raise_for_status()
        house.clock.now += 20
        house.watch.look()
    assert len(called.calls) == MOST_AN_HOUR
    assert sum(len(body["alarms"]) for body in called.bodies()) == MOST_AN_HOUR + 1
    house.clock.now += 3601
    house.watch.look()
    assert len(called.calls) == MOST_AN_HOUR + 1  # the rest, gathered


def test_quiet_hours_hold_what_can_wait_and_wake_for_what_cannot(house: House, called: CallSink) -> None:
    house.clock.now -= house.clock.now % DAY - 22 * 3600  # ten in the evening, UTC
    house.client.put("/api/workshop", json={"name": "W", "time_zone": "UTC", **BY}).raise_for_status()
    house.band(high_c=15, high_rh=85)
    house.tell("call", called.url, quiet_from=22 * 60, quiet_to=6 * 60)
    house.tell("call", called.url + "?sleeps", quiet_from=22 * 60, quiet_to=6 * 60, woken=False)
    house.air(13.0, rh=95)
    assert (house.watch.look(), len(house.events())) == (0, 1)
    house.air(19.5, rh=95)
    assert house.watch.look() == 1  # too warm wakes who wants to be woken; too damp waits
    assert [a["kind"] for a in called.bodies()[0]["alarms"]] == ["too_warm"]
    house.air(19.5, rh=95, minutes=6 * 60)
    assert house.watch.look() == 2
    assert [len(body["alarms"]) for body in called.bodies()[1:]] == [1, 2]


def test_a_restart_tells_nothing_twice_and_loses_nothing(house: House, called: CallSink) -> None:
    house.band(high_c=15)
    house.tell("call", called.url)
    house.air(19.5)
    house.watch.look()
    assert house.another_watch().look() == 0
    assert len(called.calls) == 1


def test_cut_off_between_sending_and_noting_it_is_not_sent_again(house: House) -> None:
    """As when the power fails: the message was begun, and nobody knows whether it went."""
    house.band(high_c=15)
    house.tell("call", "http://127.0.0.1:9/alarm")
    sent = []

    def dies(_to: AlarmPerson, told: Told) -> None:
        sent.append(told)
        raise KeyboardInterrupt

    house.context.senders["call"] = dies
    house.air(19.5)
    with pytest.raises(KeyboardInterrupt):
        house.watch.look()
    after = house.another_watch()
    after.senders["call"] = lambda _to, told: sent.append(told)
    assert (after.look(), len(sent)) == (0, 1)
    assert [m["state"] for m in house.events()[0]["messages"]] == ["unsure"]


def test_what_certainly_did_not_go_is_tried_again_ever_later_and_given_up(house: House, mailed: MailSink) -> None:
    mailed.refuses = 1
    house.band(high_c=15)
    house.tell("mail", "ida@cellar.test")
    house.air(19.5)
    assert (house.watch.look(), mailed.mails) == (0, [])
    message = house.events()[0]["messages"][0]
    assert (message["state"], "450 later" in message["trouble"]) == ("waits", True)
    house.clock.now += 59
    assert house.watch.look() == 0
    house.clock.now += 1
    assert (house.watch.look(), len(mailed.mails)) == (1, 1)
    assert house.events()[0]["messages"][0]["trouble"] == ""


def test_a_mail_server_that_hangs_up_after_the_text_leaves_it_unsure(house: House, mailed: MailSink) -> None:
    mailed.cuts = True
    house.band(high_c=15, silent_minutes=None)
    house.tell("mail", "ida@cellar.test")
    house.air(19.5)
    house.watch.look()
    house.clock.now += DAY
    house.watch.look()
    assert len(mailed.mails) == 1
    assert house.events()[-1]["messages"][0]["state"] == "unsure"


def test_a_mail_server_that_leaves_without_a_word_has_taken_the_mail_all_the_same(
    house: House, mailed: MailSink
) -> None:
    mailed.leaves = True
    house.band(high_c=15, silent_minutes=None)
    house.tell("mail", "ida@cellar.test")
    house.air(19.5)
    assert house.watch.look() == 1
    house.clock.now += DAY
    assert house.watch.look() == 0
    assert [m["state"] for m in house.events()[-1]["messages"]] == ["gone"]
    assert len(mailed.mails) == 1


def test_silence_frost_and_a_typed_place(house: House, clock: Clock) -> None:
    house.air(13.0)
    clock.now += 1801
    house.watch.look()
    assert [(e["kind"], "heard last" in str(e["title"])) for e in house.events()] == [("silence", False)]
    house.air(-1.0, minutes=5)
    house.watch.look()
    assert {e["kind"]: e["ended_at"] is None for e in house.events()} == {"frost": True, "silence": False}


def test_goods_that_cannot_wait_and_the_round_is_made_every_few_minutes_only(
    house: House, called: CallSink, monkeypatch: pytest.MonkeyPatch
) -> None:
    """What the round says is told: here a line of each kind that is, and two that are not."""
    now_s = house.clock.now

    def line(code: str, elasticity: str, best_s: float, **values: str) -> LineOfRound:
        chore = Chore(code + str(best_s), "salt", 0, elasticity, best_s, best_s, best_s + DAY)  # type: ignore[arg-type]
        return LineOfRound(chore, said(code, **values), place="Cellar", link="/salt/3")

    lines = [
        line("today.over_allowance", "firm", now_s - 60, batch="J-14"),
        line("today.out_of_salt", "firm", now_s - 60, tag="C-1"),
        line("today.out_of_salt", "firm", now_s + 3600, tag="C-2"),  # tomorrow
        line("today.out_of_salt", "elastic", now_s - 60, tag="C-3"),  # in balance it may wait
        line("today.over", "weight_led", now_s, tags="S-1"),
    ]
    made = []
    monkeypatch.setattr(looking, "round_lines", lambda *_: made.append(1) or lines)
    house.tell("call", called.url)
    assert house.watch.look() == 1
    told = {(e["kind"], e["title"]["values"]["about"]) for e in house.events()}
    assert told == {("allowance", "J-14"), ("salt_due", "C-1"), ("past_target", "")}
    assert {e["link"] for e in house.events()} == {"/salt/3"}
    house.clock.now += watching.GOODS_EVERY_S - 1
    house.watch.look()
    assert len(made) == 1
    house.clock.now += 1
    house.watch.look()
    assert len(made) == 2


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ({"way": "mail", "address": "ida at cellar"}, "no mail address"),
        ({"way": "mail", "address": "a@b.test, c@d.test"}, "no mail address"),
        ({"way": "call", "address": "ftp://cellar.test"}, "no address to call"),
        ({"way": "push", "address": "somewhere"}, "push is asked for"),
        ({"way": "call", "address": "http://x.test", "quiet_from": 1440}, "quiet"),
    ],
)
def test_addresses_that_are_none_are_refused(house: House, body: dict, words: str) -> None:
    answer = house.client.post("/api/alarms/people", json={"name": "Ida", **BY, **body})
    assert answer.status_code == 422
    assert words in answer.json()["detail"]


def test_one_is_told_once_a_way_until_no_more(house: House, called: CallSink) -> None:
    made = house.tell("call", called.url)
    body = {"name": "again", "way": "call", "address": called.url, **BY}
    assert house.client.post("/api/alarms/people", json=body).status_code == 409
    assert house.client.get("/api/alarms").json()["people"][0]["secret"] is None  # it was shown that once
    went = house.client.post(f"/api/alarms/people/{made['id']}/test", json=BY).json()
    assert (went["went"], called.bodies()[0]["test"]) == (True, True)
    called.answers = 500
    assert "answered 500" in house.client.post(f"/api/alarms/people/{made['id']}/test", json=BY).json()["trouble"]
    assert house.client.post(f"/api/alarms/people/{made['id']}/end", json=BY).status_code == 204
    house.band(high_c=15)
    house.air(19.5)
    assert (house.watch.look(), len(called.calls)) == (0, 2)


def test_a_band_upside_down_is_refused_and_nothing_is_watched_unasked(house: House) -> None:
    answer = house.client.put(f"/api/alarms/bands/{house.place}", json={"low_c": 15, "high_c": 15, **BY})
    assert answer.status_code == 422
    (band,) = house.client.get("/api/alarms").json()["bands"]
    assert (band["by"], band["low_c"], band["high_c"], band["frost"], band["silent_minutes"]) == (
        None, None, None, True, 30,
    )  # fmt: skip
    assert (band["usual"]["low_c"], band["usual"]["high_rh"]) == (10.0, 88.0)


# -- the ways themselves

TOLD = Told("Too warm", "It is", "http://cellar.test/x", (1,), ("2026-09-01T10:00:00+00:00",), ("too_warm",))


def somebody(way: str, address: str) -> AlarmPerson:
    return AlarmPerson(name="Ida", way=way, address=address, secret="s", second=False, woken=True, by="Ida", at_s=0)


def test_an_address_that_nobody_answers_certainly_was_not_told() -> None:
    with pytest.raises(NotSentError, match="does not answer"):
        by_call(lambda: "W")(somebody("call", "http://127.0.0.1:9/"), TOLD)
    with pytest.raises(NotSentError, match="mail server"):
        by_mail(MailServer("127.0.0.1", 9, "z@c.test", "none"), lambda: "W")(somebody("mail", "i@c.test"), TOLD)


def test_push_is_sealed_for_its_browser_and_signed_by_the_workshop(
    tmp_path: Path, called: CallSink, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The browser's subscription is made up; what is sent to its service is looked at there."""
    key = PushKey(tmp_path / "push.pem")
    assert PushKey(tmp_path / "push.pem").public == key.public  # the same after a restart
    assert (tmp_path / "push.pem").stat().st_mode & 0o077 == 0
    browser = ec.generate_private_key(ec.SECP256R1())
    point = browser.public_key().public_bytes(Encoding.X962, PublicFormat.UncompressedPoint)
    text = lambda data: base64.urlsafe_b64encode(data).rstrip(b"=").decode()  # noqa: E731
    keys = {"p256dh": text(point), "auth": text(b"0123456789abcdef")}
    subscription = json.dumps({"endpoint": called.url, "keys": keys})
    called.answers = 201
    by_push(key, lambda: "https://cellar.test")(somebody("push", subscription), TOLD)
    head, body = called.calls[0]
    assert head["content-encoding"] == "aes128gcm"
    assert key.public in head["authorization"]
    assert b"Too warm" not in body  # nobody on the way can read it
    called.answers = 410
    with pytest.raises(NotSentError, match="410"):
        by_push(key, lambda: "https://cellar.test")(somebody("push", subscription), TOLD)
    with pytest.raises(NotSentError, match="cannot be read"):
        by_push(key, lambda: "https://cellar.test")(somebody("push", "{"), TOLD)
    assert issubclass(UnsureError, RuntimeError)


def test_everybody_is_told_in_the_language_and_units_they_read(house: House, mailed: MailSink) -> None:
    line = house.client.get("/api/line").json()["workshop"]
    house.client.put("/api/workshop", json={**line, "shows": "temperature=F", **BY}).raise_for_status()
    owner = {"name": "Otto", "role": "owner", "passphrase": "three words long", **BY}
    house.client.post("/api/people", json=owner).raise_for_status()
    assert house.client.put("/api/me/shows", json={"shows": "language=it"}).status_code == 204
    house.band(high_c=15)
    house.tell("mail", "otto@cellar.test", name="Otto")
    house.tell("mail", "ida@cellar.test", name="Ida")
    house.air(19.5)
    assert house.watch.look() == 2
    assert {mail["To"]: mail["Subject"] for mail in mailed.mails} == {
        "otto@cellar.test": "Test cellar: Troppo caldo in Cellar: 19,5 °C",
        "ida@cellar.test": "Test cellar: Too warm in Cellar: 67.1 °F",
    }
