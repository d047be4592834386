"""What is refused before anything is read, and that what people type can always be shown."""

import re
from collections.abc import Iterator
from typing import get_args

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st
from pydantic import BaseModel, TypeAdapter, ValidationError

from support import NOW, iso, piece_body
from zymon.api.guard import FILE_BYTES, JSON_BYTES, PHOTO_BYTES, most_bytes, name_of_host
from zymon.work.schemas import Address, Name, Note


@pytest.mark.parametrize("host", ["localhost", "127.0.0.1:8420", "[::1]:8420", "LOCALHOST:1"])
def test_this_machine_is_answered_under_its_own_names(client: TestClient, host: str) -> None:
    assert client.get("/api/line", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize("host", ["evil.test", "localhost.evil.test", "192.168.1.20", "", "a@localhost:x", "[::2]"])
def test_a_foreign_name_is_not_answered(client: TestClient, host: str) -> None:
    for path in ("/api/line", "/", "/health"):
        answer = client.get(path, headers={"Host": host})
        assert (answer.status_code, answer.json()["code"]) == (400, "foreign_host")


def test_the_address_for_tablets_is_answered_and_stands_on_what_is_printed(client: TestClient, chamber: dict) -> None:
    for bad in ("cellar", "ftp://cellar", "http://", "http://u:p@cellar", "http://cellar/x", "http://cellar\n"):
        body = {"name": "W", "time_zone": "UTC", "by": "Ida", "address": bad}
        assert client.put("/api/workshop", json=body).status_code == (200 if bad.endswith("\n") else 422), bad
    body["address"] = "https://cellar.test"
    client.put("/api/workshop", json=body).raise_for_status()
    assert client.get("/api/line", headers={"Host": "cellar.test"}).status_code == 200
    assert client.post("/api/me/calendar").json()["address"] == "https://cellar.test/api/today.ics"
    lines = client.get("/api/changes").json()["lines"]
    assert any(f["field"] == "address" for line in lines for f in line["fields"])
    # from two browsers at once: the second is told what is there now
    was = {"name": "W", "time_zone": "UTC", "address": None, "people": None}
    both = client.put("/api/workshop", json={**body, "name": "V", "was": was})
    assert (both.status_code, both.json()["code"]) == (409, "changed_meanwhile")
    assert "https://cellar.test" in both.json()["detail"]
    was["address"] = "https://cellar.test"
    assert client.put("/api/workshop", json={**body, "was": was}).status_code == 200
    # behind a server that speaks https for us, the page's origin has no port and the name is ours
    origin = {"Origin": "https://cellar.test", "Host": "cellar.test"}
    assert client.put("/api/workshop", json=body, headers=origin).status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://evil.test"},
        {"Origin": "null"},
        {"Origin": "http://localhost:9999"},  # another program on this machine
        {"Origin": "http://localhost.evil.test"},
        {"Origin": "http://[bad"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
)
def test_another_page_enters_nothing(client: TestClient, chamber: dict, headers: dict) -> None:
    for send in (
        lambda: client.post("/api/devices/1/token", json={"by": "x"}, headers=headers),
        lambda: client.post("/api/sign-out", headers=headers),
        lambda: client.post("/api/pieces/1/photos", files={"photo": b"x"}, data={"by": "x"}, headers=headers),
        lambda: client.post("/device/v1/readings", json={}, headers=headers),
    ):
        assert (send().status_code, send().json()["code"]) == (403, "foreign_page")
    assert client.get("/api/line", headers=headers).status_code == 200  # the browser itself keeps it from that page


def test_our_own_page_and_programs_that_are_no_page_enter(client: TestClient, chamber: dict) -> None:
    body = {"name": "W", "time_zone": "UTC", "by": "Ida"}
    for headers in ({}, {"Origin": "http://localhost", "Host": "localhost"}, {"Sec-Fetch-Site": "same-origin"}):
        assert client.put("/api/workshop", json=body, headers=headers).status_code == 200


@pytest.mark.parametrize("path", ["/%00", "/api/tags/a%00b", "/api/tags/a%0Ab", "/assets/%1f", "/a%7F"])
def test_a_path_that_nobody_can_type_leads_nowhere(client: TestClient, path: str) -> None:
    answer = client.get(path)
    assert answer.status_code == 404
    assert answer.json()["detail"] == "there is nothing at this address"


def test_a_question_that_cannot_be_shown_is_refused(client: TestClient) -> None:
    assert client.get("/api/find?words=a%00b").status_code == 422
    assert client.get("/api/find?words=a+%C3%BC").status_code == 200


def test_too_much_is_refused_before_it_is_read(client: TestClient, chamber: dict) -> None:
    whole = b'{"name": "' + b"x" * JSON_BYTES
    refused = client.put("/api/workshop", content=whole, headers={"Content-Type": "application/json"})
    assert (refused.status_code, refused.json()["code"]) == (413, "too_much")
    assert "1 MB" in refused.json()["detail"]

    def piece_by_piece():
        yield b"{}"

    assert client.put("/api/workshop", content=piece_by_piece()).status_code == 411
    negative = client.put("/api/workshop", content=b"{}", headers={"Content-Length": "-1"})
    assert negative.status_code == 411
    assert most_bytes("/api/pieces/7/photos", 200) == PHOTO_BYTES
    assert most_bytes("/api/imports/preview", 200) == 201_000_000
    assert most_bytes("/api/judge", 200) == FILE_BYTES
    assert most_bytes("/api/round", 200) == JSON_BYTES


def test_every_answer_forbids_a_browser_what_it_need_not_do(client: TestClient, chamber: dict) -> None:
    for path in ("/", "/api/line", "/api/nothing", "/health"):
        headers = client.get(path).headers
        policy = dict(part.strip().split(" ", 1) for part in headers["content-security-policy"].split(";"))
        assert policy["script-src"] == "'self'"
        assert policy["frame-ancestors"] == policy["object-src"] == policy["base-uri"] == "'none'"
        assert headers["x-content-type-options"] == "nosniff"
        assert headers["referrer-policy"] == "no-referrer"
    assert client.get("/api/line").headers["cache-control"] == "no-store"
    assert client.get("/").headers["cache-control"] == "no-cache"


def test_an_address_that_is_not_there_says_so_in_words(client: TestClient) -> None:
    for method, path, status in (("GET", "/api/nothing", 404), ("DELETE", "/api/line", 405)):
        answer = client.request(method, path)
        assert answer.status_code == status
        assert answer.headers["content-type"] == "application/problem+json"
        assert re.search(r"at this address", answer.json()["detail"])


def test_a_log_line_stays_one_line(client: TestClient, caplog: pytest.LogCaptureFixture) -> None:
    caplog.set_level("INFO", "zymon")
    client.get("/api/tags/x%0A2026-01-01%20INFO%20forged")
    client.get("/api/tags/caf\u00e9")
    lines = [record.getMessage() for record in caplog.records if record.name == "zymon"]
    assert len(lines) == 2
    assert all("\n" not in line for line in lines)
    assert "%0A" in lines[0]


def _bodies(client: TestClient) -> set[str]:
    """The names of everything that is sent to the interface as JSON."""
    operations = [told for methods in client.app.openapi()["paths"].values() for told in methods.values()]
    sent = [told.get("requestBody", {}).get("content", {}).get("application/json", {}) for told in operations]
    return {of.get("schema", {}).get("$ref", "").rpartition("/")[2] for of in sent} - {""}


def _kinds(of: type[BaseModel]) -> Iterator[type[BaseModel]]:
    for kind in of.__subclasses__():
        yield kind
        yield from _kinds(kind)


def _all_within(of: object) -> Iterator[type[BaseModel]]:
    """What is sent, and whatever it holds."""
    if isinstance(of, type) and issubclass(of, BaseModel):
        yield of
        for field in of.model_fields.values():
            yield from _all_within(field.annotation)
    for part in get_args(of):
        yield from _all_within(part)


def test_no_text_that_is_sent_may_hold_what_cannot_be_shown(client: TestClient) -> None:
    wanted, looked_at = _bodies(client), 0
    sent = [one for one in _kinds(BaseModel) if one.__name__ in wanted and one.__module__.startswith("zymon")]
    for kind in {inner for one in sent for inner in _all_within(one)}:
        for field, of in kind.model_json_schema()["properties"].items():
            kinds = [of, *of.get("anyOf", [])]
            if not any(k.get("type") == "string" and not {"format", "enum", "const"} & k.keys() for k in kinds):
                continue
            with pytest.raises(ValidationError) as refused:
                kind.model_validate({field: "bad\x00text"})
            assert any(error["loc"][0] == field for error in refused.value.errors()), (kind, field)
            looked_at += 1
    assert looked_at > 100


@given(st.text(max_size=30))
def test_a_name_that_is_taken_has_one_line_of_what_can_be_shown(text: str) -> None:
    try:
        taken = TypeAdapter(Name).validate_python(text)
    except ValidationError:
        return
    assert taken == taken.strip()
    assert not re.search(r"[\x00-\x1f\x7f-\x9f]", taken)
    taken.encode()


def test_a_note_may_have_several_lines_and_an_address_none() -> None:
    assert TypeAdapter(Note).validate_python("first\nsecond\tthird") == "first\nsecond\tthird"
    with pytest.raises(ValidationError):
        TypeAdapter(Note).validate_python("bell\x07")
    with pytest.raises(ValidationError):
        TypeAdapter(Address).validate_python("http://a\nb")
    assert name_of_host("[::1") == ""


@pytest.mark.parametrize("tag", ["=1+1", "+1", "-1", "@SUM(A1)", "J-14"])
def test_a_spreadsheet_that_opens_our_tables_runs_no_formula_and_the_tag_comes_back(
    client: TestClient, chamber: dict, tag: str
) -> None:
    hung = client.post("/api/pieces", json=piece_body(chamber, tag=tag, at=iso(NOW - 40 * 86_400)))
    piece = hung.json()["card"]
    body = {"gross_g": 700, "by": "=Ida", "sure": True, "at": iso(NOW - 86_400)}
    client.post(f"/api/pieces/{piece['id']}/weighings", json=body).raise_for_status()
    of_place = client.get("/api/places/1/weights.csv").text
    of_batch = client.get("/api/batches/1/weights.csv").text
    for table in (of_place, of_batch):
        for cell in table.replace("\n", ",").split(","):
            assert not cell.startswith(("=", "+", "@", "\t"))
            assert not cell.startswith("-")
    seen = client.post(
        "/api/imports/preview", files={"file": ("w.csv", of_place.encode(), "text/csv")}, data={"place_id": "1"}
    )
    assert (seen.json()["same"], seen.json()["error_count"]) == (1, 0), seen.text
