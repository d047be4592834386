"""What the charts show, as files: the same figures, and a span of a log."""

import csv
import io

import pytest
from fastapi.testclient import TestClient

from support import NOW, iso, piece_body

HOUR = 3600


def table(text: str) -> list[dict[str, str]]:
    return list(csv.DictReader(io.StringIO(text)))


def test_a_piece_s_curve_is_the_one_on_screen(client: TestClient, chamber: dict) -> None:
    piece = client.post("/api/pieces", json=piece_body(chamber, at=iso(NOW - 20 * 24 * HOUR))).json()["card"]["id"]
    curve = client.get(f"/api/pieces/{piece}").json()["curve"]
    answer = client.get(f"/api/pieces/{piece}/curve.csv")
    assert "j-14-03" in answer.headers["content-disposition"]
    rows = table(answer.text)
    assert [float(row["loss_p50_percent"]) for row in rows] == curve["middle"]
    for row in rows:
        low, middle, high = (float(row[f"loss_{p}_percent"]) for p in ("p10", "p50", "p90"))
        assert low <= middle <= high
    assert client.get("/api/pieces/99/curve.csv").status_code == 404
    assert client.get("/api/warm/99/curve.csv").status_code == 404


@pytest.mark.parametrize(
    ("low", "high", "many"), [(0, 2**40, 5), (NOW - 3 * HOUR, NOW - HOUR, 3), (NOW + 1, NOW + 9, 0)]
)
def test_a_span_of_the_log_is_taken_out_alone(
    client: TestClient, chamber: dict, low: int, high: int, many: int
) -> None:
    for hours in range(5):
        body = {"temperature_c": 12 + hours, "rh_percent": 78, "by": "Ida", "at": iso(NOW - hours * HOUR)}
        client.post("/api/places/1/readings", json=body).raise_for_status()
    rows = table(client.get("/api/places/1/climate.csv", params={"from_s": low, "to_s": high}).text)
    assert len(rows) == many
    assert [row["at"] for row in rows] == sorted(row["at"] for row in rows)
