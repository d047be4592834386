"""Who comes in, what each may do, and that an entry is theirs whatever it says."""

import importlib.util
import re
from collections.abc import Callable, Iterator

import pytest
from argon2 import Type, extract_parameters
from benchmarks.maker import Maker
from fastapi.testclient import TestClient

from support import Clock, piece_body
from zymon.api.rights import right_for

OWNER = {"name": "Ida", "passphrase": "hay and juniper smoke"}
OTHERS = {"Bruno": "maker", "Nives": "helper", "Okafor": "inspector"}
PASSPHRASE = "three words long"


@pytest.fixture
def owner(client: TestClient, chamber: dict) -> TestClient:
    """The owner's browser, in a workshop with a person of each role."""
    assert client.post("/api/people", json={**OWNER, "role": "owner", "by": "maker"}).status_code == 201
    for name, role in OTHERS.items():
        body = {"name": name, "role": role, "passphrase": PASSPHRASE, "by": "x"}
        assert client.post("/api/people", json=body).status_code == 201
    return client


@pytest.fixture
def browser(owner: TestClient) -> Iterator[Callable[[str | None], TestClient]]:
    """Another browser, signed in as somebody or as nobody."""
    opened: list[TestClient] = []

    def come_in(name: str | None) -> TestClient:
        other = Maker(owner.app)
        opened.append(other)
        if name is not None:
            body = {"name": name, "passphrase": OWNER["passphrase"] if name == "Ida" else PASSPHRASE}
            assert other.post("/api/sign-in", json=body).status_code == 200
        return other

    yield come_in
    for one in opened:
        one.close()


def test_alone_on_the_machine_nobody_signs_in_until_somebody_is_on_record(client: TestClient, chamber: dict) -> None:
    assert client.get("/api/door").json() == {"locked": False, "me": None, "tablet": None, "by_pin": []}
    refused = client.post(
        "/api/people", json={"name": "Nives", "role": "helper", "passphrase": PASSPHRASE, "by": "maker"}
    )
    assert refused.status_code == 409
    assert "an owner" in refused.json()["detail"]
    client.post("/api/people", json={**OWNER, "role": "owner", "by": "maker"}).raise_for_status()
    door = client.get("/api/door").json()
    assert door["locked"] is True
    assert door["me"]["name"] == "Ida"  # in at once: nobody is locked out by making the first person


def test_without_signing_in_no_data_leaves_and_nothing_comes_in(browser: Callable, owner: TestClient) -> None:
    stranger = browser(None)
    for method, route in every_route(owner):
        path = as_asked(route)
        answer = stranger.request(method, path, json={} if method != "GET" else None)
        if path in ("/api/door", "/api/sign-out"):
            assert answer.status_code in (200, 204)
        elif path == "/api/sign-in":
            assert answer.status_code == 422
        else:
            assert answer.status_code == 401, (method, path)
            assert answer.json()["detail"] == "sign in first"
            assert answer.headers["content-type"] == "application/problem+json"


def every_route(client: TestClient) -> list[tuple[str, str]]:
    """Every method and path of the interface, with parts in braces."""
    paths = client.app.openapi()["paths"].items()
    found = [(method.upper(), path) for path, methods in paths for method in methods if path.startswith("/api/")]
    assert len(found) > 170
    return found


def as_asked(route: str) -> str:
    return re.sub(r"\{\w+\}", "1", route)


def test_every_change_is_refused_to_whoever_only_looks_and_all_but_notes_to_a_helper(
    browser: Callable, owner: TestClient
) -> None:
    helper, inspector = browser("Nives"), browser("Okafor")
    notes = set()
    for method, route in every_route(owner):
        right = right_for(method, route)
        if right == "note":
            notes.add(route)
        if right == "read":
            continue
        answer = inspector.request(method, as_asked(route), json={})
        assert answer.status_code == 403, (method, route, answer.text)
        if right != "note":
            answer = helper.request(method, as_asked(route), json={})
            assert answer.status_code == 403, (method, route, answer.text)
            assert answer.json()["detail"].startswith("Nives")
    # weigh, measure, tick, look: whatever is added here is looked at by a person first
    assert notes == {
        "/api/round", "/api/undo", "/api/hook-events", "/api/salt/events", "/api/pieces/{piece_id}/weighings",
        "/api/pieces/{piece_id}/photos", "/api/places/{place_id}/readings", "/api/warm/{batch_id}/readings",
        "/api/weigh-outs/{weigh_out_id}/entries", "/api/weigh-outs/{weigh_out_id}/temperature",
        "/api/standins/weigh/{piece_id}", "/api/standins/dip/{batch_id}", "/api/alarms/{event_id}/acknowledge",
    }  # fmt: skip


def test_an_entry_is_of_whoever_is_signed_in_whatever_it_says(
    browser: Callable, owner: TestClient, chamber: dict
) -> None:
    hung = owner.post("/api/pieces", json=piece_body(chamber, by="Bruno"))
    assert hung.status_code == 201, hung.text
    piece = hung.json()["card"]["id"]
    helper = browser("Nives")
    weighed = helper.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 800, "by": "Ida", "sure": True})
    assert weighed.status_code in (200, 201), weighed.text
    record = owner.get(f"/api/pieces/{piece}").json()
    assert [w["by"] for w in record["weighings"]] == ["Nives"]
    assert browser("Bruno").post("/api/devices", json={"name": "x", "kind": "scale", "by": "Ida"}).status_code == 403


def test_a_signature_asks_for_the_passphrase_again_and_once_for_two_minutes(
    browser: Callable, owner: TestClient, chamber: dict, clock: Clock
) -> None:
    owner.post("/api/pieces", json=piece_body(chamber)).raise_for_status()
    maker = browser("Bruno")
    body = {"hurdle": "parasites", "reason": "bought frozen", "by": "Bruno"}
    asked = maker.post("/api/batches/1/signatures", json=body)
    assert (asked.status_code, asked.json()["code"]) == (403, "confirm_needed")
    assert maker.post("/api/me/confirm", json={"secret": "not it at all"}).status_code == 403
    assert maker.post("/api/me/confirm", json={"secret": PASSPHRASE}).status_code == 204
    assert maker.post("/api/batches/1/signatures", json=body).json().get("code") != "confirm_needed"
    clock.now += 121
    assert maker.post("/api/batches/1/signatures", json=body).json()["code"] == "confirm_needed"


def test_wrong_tries_wait_and_never_lock_for_good(browser: Callable, owner: TestClient, clock: Clock) -> None:
    stranger = browser(None)
    tries = [stranger.post("/api/sign-in", json={"name": "bruno", "passphrase": f"wrong {n}"}) for n in range(5)]
    assert {t.status_code for t in tries} == {403}
    unknown = stranger.post("/api/sign-in", json={"name": "Nobody", "passphrase": "wrong"})
    assert unknown.json()["detail"] == tries[0].json()["detail"]  # who works here is told to nobody
    right = {"name": "Bruno", "passphrase": PASSPHRASE}
    held = stranger.post("/api/sign-in", json=right)
    assert (held.status_code, held.json()["code"]) == (429, "wait")
    clock.now += 30
    assert stranger.post("/api/sign-in", json=right).status_code == 200


def test_a_pin_will_do_on_a_trusted_tablet_and_nowhere_else(browser: Callable, owner: TestClient, clock: Clock) -> None:
    maker = browser("Bruno")
    secret = {"now": PASSPHRASE, "pin": "4931"}
    assert maker.put("/api/me/secret", json={**secret, "pin": "1111"}).status_code == 422
    assert maker.put("/api/me/secret", json=secret).status_code == 204
    by_pin = {"name": "Bruno", "pin": "4931"}
    assert browser(None).post("/api/sign-in", json=by_pin).status_code == 403
    tablet = browser("Ida")
    assert maker.post("/api/tablets", json={"name": "mine", "by": "x"}).status_code == 403  # an owner trusts it
    assert tablet.post("/api/tablets", json={"name": "Loft tablet", "by": "x"}).status_code == 204
    tablet.post("/api/sign-out")
    assert tablet.get("/api/door").json() == {"locked": True, "me": None, "tablet": "Loft tablet", "by_pin": ["Bruno"]}
    door = tablet.post("/api/sign-in", json=by_pin)
    assert door.json()["me"]["by_pin"] is True
    assert tablet.put("/api/me/secret", json=secret).status_code == 409  # a PIN does not change a passphrase
    clock.now += 4 * 3600
    owner.app.state.context.door.forget()
    assert tablet.get("/api/line").status_code == 401
    assert tablet.post("/api/sign-in", json=by_pin).status_code == 200
    number = owner.get("/api/tablets").json()[0]["id"]
    owner.post(f"/api/tablets/{number}/end", json={"by": "x"}).raise_for_status()
    assert tablet.get("/api/line").status_code == 401
    assert tablet.post("/api/sign-in", json=by_pin).status_code == 403


def test_a_browser_is_signed_out_from_afar_and_by_a_new_passphrase(browser: Callable, owner: TestClient) -> None:
    phone, laptop = browser("Bruno"), browser("Bruno")
    assert {one["name"] for one in phone.get("/api/sign-ins").json()} == {"Bruno"}  # of oneself only
    everybody = owner.get("/api/sign-ins").json()
    assert {one["name"] for one in everybody} == {"Ida", "Bruno"}
    mine = next(one["id"] for one in everybody if one["name"] == "Ida")
    assert phone.post(f"/api/sign-ins/{mine}/end").status_code == 403
    there = next(one["id"] for one in phone.get("/api/sign-ins").json() if not one["this_one"])
    assert phone.post(f"/api/sign-ins/{there}/end").status_code == 204
    assert laptop.get("/api/line").status_code == 401
    assert phone.get("/api/line").status_code == 200
    number = next(p["id"] for p in owner.get("/api/people").json() if p["name"] == "Bruno")
    given = owner.put(f"/api/people/{number}/passphrase", json={"passphrase": "quite another one", "by": "x"})
    assert given.status_code == 200
    assert phone.get("/api/line").status_code == 401


def test_whoever_leaves_is_out_and_the_last_owner_stays(browser: Callable, owner: TestClient) -> None:
    maker = browser("Bruno")
    ids = {p["name"]: p["id"] for p in owner.get("/api/people").json()}
    assert owner.post(f"/api/people/{ids['Ida']}/end", json={"by": "x"}).status_code == 409
    assert owner.put(f"/api/people/{ids['Ida']}/role", json={"role": "maker", "by": "x"}).status_code == 409
    gone = owner.post(f"/api/people/{ids['Bruno']}/end", json={"by": "x"}).json()
    assert gone["ended_by"] == "Ida"
    assert maker.get("/api/line").status_code == 401
    again = {"name": "bruno", "role": "helper", "passphrase": PASSPHRASE, "by": "x"}
    assert owner.post("/api/people", json=again).status_code == 409  # their entries are not mixed with another's
    lines = owner.get("/api/changes").json()["lines"]
    assert any(line["what"] == "person" and line["by"] == "Ida" for line in lines)


def test_a_calendar_reads_the_round_and_nothing_else(browser: Callable, owner: TestClient) -> None:
    address = browser("Nives").post("/api/me/calendar").json()["address"]
    assert address.startswith("http://127.0.0.1/api/today.ics?key=")
    path = address.removeprefix("http://127.0.0.1")
    stranger = browser(None)
    assert stranger.get(path).status_code == 200
    assert stranger.get("/api/today.ics?key=guessed").status_code == 401
    stranger.cookies.set("zymon_session", path.partition("key=")[2])
    assert stranger.post("/api/round", json={}).status_code == 403  # its key is no cookie to enter with
    calendar = next(one for one in owner.get("/api/sign-ins").json() if one["calendar"])
    owner.post(f"/api/sign-ins/{calendar['id']}/end").raise_for_status()
    assert stranger.get(path).status_code == 401


def test_a_stolen_passphrase_costs_whoever_guesses_at_it_dearly() -> None:
    """At least what RFC 9106 holds right where memory is short: 64 MiB, three passes."""
    source = importlib.util.find_spec("zymon.work.house.people")
    assert source is not None
    assert source.loader is not None
    as_shipped = importlib.util.module_from_spec(source)
    source.loader.exec_module(as_shipped)  # tests have a quick one
    kept = extract_parameters(as_shipped.secret_hash("hay and juniper smoke"))
    assert kept.type is Type.ID
    assert kept.memory_cost >= 64 * 1024
    assert kept.time_cost >= 3
    assert kept.hash_len >= 16
    assert kept.salt_len >= 16


def test_no_secret_is_kept_or_told(owner: TestClient) -> None:
    told = owner.get("/api/people").text + owner.get("/api/changes").text + owner.get("/api/sign-ins").text
    database = owner.app.state.context.db
    with database.engine.connect() as connection:
        kept = str(connection.exec_driver_sql("SELECT * FROM person").all())
        kept += str(connection.exec_driver_sql("SELECT * FROM sign_in").all())
    for secret in (OWNER["passphrase"], PASSPHRASE, owner.cookies["zymon_session"]):
        assert secret not in told
        assert secret not in kept
    assert "$argon2id$" in kept
    assert "$argon2id$" not in told
