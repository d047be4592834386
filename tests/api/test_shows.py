"""In whose language and units the server writes: the browser's, the person's, the workshop's; files keep their own."""

import io

import pytest
from benchmarks.maker import Maker
from fastapi.testclient import TestClient
from pypdfium2 import PdfDocument

from making import made
from support import Clock, iso, piece_body, sheet_body

ITALIAN = "language=it"
AMERICAN = "mass=oz&temperature=F&length=in&hours=12"
PASSPHRASE = "three words long"
BY = {"by": "Ida"}


@pytest.fixture
def piece(client: TestClient, chamber: dict) -> int:
    answer = client.post("/api/pieces", json=piece_body(chamber))
    return answer.json()["card"]["id"]


def refused(client: TestClient, piece: int, gross_g: float) -> str:
    """What is said of a weight that cannot be."""
    answer = client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": gross_g, **BY})
    assert answer.status_code in (409, 422), answer.text
    return answer.json()["detail"]


def calendar(client: TestClient, address: str = "/api/today.ics") -> str:
    return client.get(address).text.replace("\r\n ", "")


def text_of(pdf: bytes) -> str:
    return " ".join(page.get_textpage().get_text_range() for page in PdfDocument(io.BytesIO(pdf)))


def test_a_refusal_is_in_the_words_and_units_of_the_browser(client: TestClient, piece: int) -> None:
    assert refused(client, piece, 8.0) == "8 g is no more than the tare of 11 g: weigh again"
    client.cookies.set("zymon_shows", ITALIAN)
    assert refused(client, piece, 8.0) == "8 g non è più della tara di 11 g: ripesare"
    client.cookies.set("zymon_shows", AMERICAN.replace("&", "%26").replace("=", "%3D"))
    assert refused(client, piece, 8.0) == "0.28 oz is no more than the tare of 0.39 oz: weigh again"
    client.cookies.set("zymon_shows", "language=klingon&mass=stone")
    assert refused(client, piece, 8.0).startswith("8 g is no more")


def test_a_tag_is_printed_in_the_language_and_units_of_whoever_prints_it(client: TestClient) -> None:
    batch = made(client, sheet_body(), "S-01")["id"]
    body = {"pieces": [{"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36}], **BY}
    client.post(f"/api/batches/{batch}/pieces", json=body).raise_for_status()
    address = f"/api/batches/{batch}/tags.pdf"
    usual = text_of(client.get(address).content)
    assert "done when the scale shows" in usual
    assert "543 g" in usual
    client.cookies.set("zymon_shows", f"{ITALIAN}%26mass%3Doz")
    printed = text_of(client.get(address).content)
    assert "fatto quando la bilancia segna" in printed
    assert "19,1 oz" in printed


def test_what_nobody_asks_for_with_a_browser_is_as_the_workshop_has_it(client: TestClient, chamber: dict) -> None:
    assert "SUMMARY:Look after the copies" not in calendar(client)
    line = client.get("/api/line").json()["workshop"]
    assert line["shows"] is None
    client.put("/api/workshop", json={**line, "shows": ITALIAN, "by": "Ida"}).raise_for_status()
    body = piece_body(chamber, tag="J-14-05", hook=2, at=iso(client.app.state.context.now_s - 86_400))
    client.post("/api/pieces", json=body).raise_for_status()
    assert "SUMMARY:Capovolgere J-14-05" in calendar(client)
    assert client.get("/api/line").json()["workshop"]["shows"].startswith("language=it&mass=g")
    # left out, it stays
    client.put("/api/workshop", json={"name": "Cellar", "time_zone": "Europe/Rome", "by": "Ida"}).raise_for_status()
    assert "SUMMARY:Capovolgere" in calendar(client)


def test_what_somebody_chose_goes_where_they_sign_in_and_into_their_calendar(client: TestClient, chamber: dict) -> None:
    body = {"name": "Ida", "passphrase": PASSPHRASE, "role": "owner", "by": "maker"}
    client.post("/api/people", json=body).raise_for_status()
    assert client.get("/api/door").json()["me"]["shows"] is None
    assert client.put("/api/me/shows", json={"shows": f"{ITALIAN}&mass=oz"}).status_code == 204
    other = Maker(client.app)
    with other:
        me = other.post("/api/sign-in", json={"name": "Ida", "passphrase": PASSPHRASE}).json()["me"]
        assert me["shows"].startswith("language=it&mass=oz&temperature=C")
    key = client.post("/api/me/calendar").json()["address"].partition("/api/")[2]
    body = piece_body(chamber, tag="J-14-05", hook=2, at=iso(client.app.state.context.now_s - 86_400))
    client.post("/api/pieces", json=body).raise_for_status()
    client.cookies.clear()
    assert "SUMMARY:Capovolgere J-14-05" in calendar(client, f"/api/{key}")


def test_files_are_the_same_for_every_reader(client: TestClient, piece: int, chamber: dict, clock: Clock) -> None:
    clock.now += 86_400
    place = chamber["place"]["id"]
    addresses = [f"/api/places/{place}/hang-file", f"/api/places/{place}/climate.csv"]
    usual = [client.get(address).content for address in addresses]
    assert all(usual)
    client.cookies.set("zymon_shows", f"{ITALIAN}%26mass%3Doz%26temperature%3DF")
    assert [client.get(address).content for address in addresses] == usual
