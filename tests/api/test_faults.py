"""What is wrong with an entry is said by the name of its field, in the language and the units of whoever sent it."""

import json
from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient

from making import made
from support import Clock, piece_body, sheet_body
from zymon.app import make_app
from zymon.core.say import Said
from zymon.settings import Settings
from zymon.words import LANGUAGES, names, sentence
from zymon.work.schemas import said_out

BY = {"by": "Ida"}
ENGLISH, ITALIAN, AMERICAN = "language=en", "language=it", "mass=oz&temperature=F&length=in"


def refused(client: TestClient, room: dict, reads: str, **changes: Any) -> dict:
    """What is said to somebody who reads so of a piece that cannot be hung."""
    client.cookies.set("zymon_shows", reads)
    body = {**piece_body(room), **changes}
    answer = client.post("/api/pieces", json={k: v for k, v in body.items() if v is not ...})
    assert answer.status_code == 422, answer.text
    return answer.json()


@pytest.mark.parametrize(
    ("reads", "changes", "said"),
    [
        (ENGLISH, {"start_weight_g": -5}, "start weight must be above 0 g, got -5"),
        (ITALIAN, {"start_weight_g": -5}, "peso iniziale: deve stare sopra 0 g, qui -5"),
        (AMERICAN, {"start_weight_g": -28.35}, "start weight must be above 0 oz, got -1 oz"),
        (ITALIAN, {"diameter_mm": 3000}, "diametro: deve essere al massimo 600 mm, qui 3000"),
        (AMERICAN, {"diameter_mm": 762}, "diameter must be 23.62 in or less, got 30 in"),
        (ITALIAN, {"target_loss_percent": "molto"}, "calo da raggiungere: deve essere un numero, qui 'molto'"),
        (ITALIAN, {"tag": ...}, "cartellino: manca"),
        (ENGLISH, {"tag": ""}, "tag is empty or too short"),
        (ENGLISH, {"tag": "x" * 41}, "tag is longer than 40 characters"),
        (ITALIAN, {"tag": "J\n1"}, "cartellino: è una riga sola, togliere ciò che la spezza"),
        (ITALIAN, {"tag": "J\x07"}, "cartellino: contiene un carattere che non si può mostrare, riscrivere"),
        (ENGLISH, {"rod_id": 1.5}, "rod must be a whole number, got 1.5"),
        (ITALIAN, {"at": "ieri"}, "momento: non è un momento: 'ieri'"),
        (ITALIAN, {"at": "2026-10-01T12:00:00"}, "momento: manca il fuso orario"),
        (ITALIAN, {"at": "0001-01-01T00:00:00Z"}, "prima del 1970 o dopo il 2199: verificare l’anno"),
        (ENGLISH, {"at": "9999-12-31T23:59:59Z"}, "before 1970 or after 2199: check the year"),
        (ENGLISH, {"kind": "sausage of the moon"}, "kind cannot be 'sausage of the moon'"),
        (ENGLISH, {"tag": ["J"] * 99}, "tag must be a text"),
    ],
)  # fmt: skip
def test_a_fault_is_named_in_the_language_and_units_of_whoever_sent_it(
    client: TestClient, chamber: dict, reads: str, changes: dict, said: str
) -> None:
    problem = refused(client, chamber, reads, **changes)
    assert problem["detail"] == said
    assert sentence(Said(**problem["said"])) != problem["said"]["code"]  # the page has the same, to say it itself
    assert client.get("/api/book").json()["batches"] == []  # nothing is stored by half


def test_a_fault_in_a_list_tells_its_row(client: TestClient) -> None:
    batch = made(client, sheet_body(), "S-01")["id"]
    good = {"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36}
    body = {"pieces": [good, good, {**good, "gross_g": -1}], **BY}
    answer = client.post(f"/api/batches/{batch}/pieces", json=body)
    assert answer.json()["detail"] == "3: weight must be above 0 g, got -1"
    assert answer.json()["where"] == "pieces[2].gross_g"
    assert client.post(f"/api/batches/{batch}/pieces", json={"pieces": [], **BY}).json()["detail"] == (
        "pieces must hold 1 or more"
    )


def test_what_is_no_entry_at_all_is_said_so(client: TestClient) -> None:
    damaged = client.post("/api/pieces", content=b'{"tag": ', headers={"content-type": "application/json"})
    assert damaged.json()["detail"] == "what was sent is damaged and cannot be read"
    assert client.put("/api/workshop", json={"name": "A", "time_zone": "Middle/Earth", **BY}).json()["detail"] == (
        "time zone is not known: 'Middle/Earth'"
    )
    assert client.get("/api/book", params={"most": "many"}).json()["detail"] == (
        "at most must be a whole number, got 'many'"
    )


def test_a_secret_is_not_shown_again(client: TestClient) -> None:
    answer = client.post("/api/sign-in", json={"name": "Ida", "passphrase": 7_391_246})
    assert answer.status_code == 422
    assert answer.json()["detail"] == "passphrase must be a text"
    for pin in ("73-91", 739.1):
        told = client.post("/api/people", json={"name": "Bo", "role": "helper", "pin": pin, **BY})
        assert told.status_code == 422, told.text
        assert str(pin) not in told.text


def test_meat_too_light_for_any_scale_is_no_meat_to_scale_from(client: TestClient) -> None:
    sheet = sheet_body()
    for part in sheet["parts"]:
        part.update(weight_g=1e-217, bought_g=None)
    answer = client.post("/api/bench/scale", json={"sheet": sheet, "meat_g": 1000.0})
    assert answer.status_code == 422
    assert answer.json()["detail"] == "meat must be above 0 g: weigh the trimmed meat first"


@pytest.mark.parametrize(("value", "english"), [(5.6e216, "5.6e+216"), (float("inf"), "inf"), (float("nan"), "nan")])
def test_a_value_that_nobody_can_mean_can_still_be_told(value: float, english: str) -> None:
    said = Said("refused.not_between", {"what": "tare", "low": 0, "high": 5, "unit": " g", "value": value})
    assert sentence(said).endswith(f"got {english}")
    assert json.dumps(said_out(said).model_dump(), allow_nan=False)


def asked_for(schema: Any, schemas: dict, seen: set[str]) -> Iterator[str]:
    """The names of all fields within a schema of the interface."""
    if isinstance(schema, list):
        for one in schema:
            yield from asked_for(one, schemas, seen)
    if not isinstance(schema, dict):
        return
    yield from schema.get("properties", {})
    named = schema.get("$ref", "").rpartition("/")[2]
    if named and named not in seen:
        seen.add(named)
        yield from asked_for(schemas[named], schemas, seen)
    for one in schema.values():
        yield from asked_for(one, schemas, seen)


@pytest.mark.parametrize("language", LANGUAGES)
def test_every_field_that_can_be_sent_has_a_name(language: Any, tmp_path) -> None:
    app = make_app(Settings(db=tmp_path / "workshop.db"), Clock())
    described = app.openapi()
    app.state.context.close()
    fields: set[str] = set()
    for methods in described["paths"].values():
        for call in methods.values():
            fields |= {one["name"] for one in call.get("parameters", []) if one["in"] == "query"}
            fields |= set(asked_for(call.get("requestBody", {}), described["components"]["schemas"], set()))
    assert len(fields) > 200
    assert fields - names(language)["field"].keys() == set()
