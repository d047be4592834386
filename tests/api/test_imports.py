"""Files in and out through the API: preview, confirmation, all or nothing."""

import json
import os
import time
from datetime import UTC, datetime, timedelta

import pytest
from fastapi.testclient import TestClient

from support import DATA, NOW, piece_body
from zymon.formats.measured import reading
from zymon.work.imports import KEEP_STAGED_S, MOST_STAGED, sweep

START = datetime.fromtimestamp(NOW, UTC).replace(minute=0, second=0) - timedelta(days=10)


def climate(rows: int = 240, **changes: str) -> str:
    lines = [
        f"{(START + timedelta(hours=i)):%Y-%m-%dT%H:%M:%SZ},{13 + i % 3 / 10:.1f},{78 + i % 5}" for i in range(rows)
    ]
    for line, text in changes.items():
        lines[int(line[1:])] = text
    return "time,temperature (°C),humidity\n" + "\n".join(lines) + "\n"


def preview(client: TestClient, room: dict, content: str | bytes, name: str = "log.csv", **more):
    return client.post(
        "/api/imports/preview", files={"file": (name, content)}, data={"place_id": room["place"]["id"], **more}
    )


def confirm(client: TestClient, token: str, **more):
    return client.post(f"/api/imports/{token}", json={"by": "Ida", **more})


def series(client: TestClient, room: dict) -> dict:
    query = {"from_s": int(START.timestamp()) - 9, "to_s": NOW, "points": 1000}
    return client.get(f"/api/places/{room['place']['id']}/climate", params=query).json()


def test_a_log_is_shown_then_brought_in_once(client: TestClient, chamber: dict) -> None:
    seen = preview(client, chamber, climate()).json()
    assert (seen["kind"], seen["new"], seen["same"], seen["error_count"]) == ("climate", 240, 0, 0)
    assert series(client, chamber)["at_s"] == []
    assert confirm(client, seen["token"]).status_code == 201
    assert len(series(client, chamber)["at_s"]) == 240
    again = preview(client, chamber, climate()).json()
    assert (again["new"], again["same"]) == (0, 240)
    assert confirm(client, again["token"]).json()["detail"] == "there is nothing new in this file"
    assert confirm(client, seen["token"]).status_code == 409
    assert [r["rows_new"] for r in client.get("/api/imports").json()] == [240]
    assert client.get("/api/line").json()["places"][0]["air"]["rh_percent"] == pytest.approx(80, abs=2.1)


def test_faulty_lines_stop_the_whole_file_unless_left_out(client: TestClient, chamber: dict) -> None:
    seen = preview(client, chamber, climate(_7="2026-09-25T99:00Z,13,78", _9="broken")).json()
    assert (seen["new"], seen["error_count"]) == (238, 2)
    assert [e["line"] for e in seen["errors"]] == [9, 11]
    stopped = confirm(client, seen["token"])
    assert stopped.json()["detail"] == "2 lines are faulty: mend the file, or say that they are left out"
    assert series(client, chamber)["at_s"] == []
    assert confirm(client, seen["token"], leave_out_faults=True).json()["rows_left_out"] == 2


def test_differing_readings_keep_what_is_stored_and_gaps_are_told(client: TestClient, chamber: dict) -> None:
    confirm(client, preview(client, chamber, climate(100)).json()["token"])
    other = climate(240).replace(",13.0,78\n", ",14.0,78\n", 1)
    lines = other.splitlines()
    del lines[150:190]
    seen = preview(client, chamber, "\n".join(lines)).json()
    assert (seen["conflict"], seen["same"], seen["new"]) == (1, 99, 100)
    assert any("gap of 41 hours" in note for note in seen["notes"])
    confirm(client, seen["token"])
    assert series(client, chamber)["temperature_c"][0] == 13.0


def test_what_a_file_leaves_open_is_asked_once_and_remembered_for_its_head(client: TestClient, chamber: dict) -> None:
    text = climate(20).replace(" (°C)", "").replace(",13.", ",55.")
    seen = preview(client, chamber, text).json()
    assert [(q["asked"], q["answer"]) for q in seen["questions"]] == [("unit_temperature", None)]
    assert "55.0: is that °C or °F?" in seen["questions"][0]["text"]
    assert seen["first_rows"][0]["cells"][1] == "55.0"
    assert "answer first" in confirm(client, seen["token"]).json()["detail"]
    told = preview(client, chamber, text, answers='{"unit_temperature": "F"}').json()
    assert told["questions"][0]["answer"] == "F"
    assert told["first_rows"][0]["values"] == ["12.8 °C", "78 %"]
    assert confirm(client, told["token"]).status_code == 201
    assert series(client, chamber)["temperature_c"][0] == pytest.approx(12.8, abs=0.2)
    next_one = preview(client, chamber, text.replace("T00", "T00").replace(",55.", ",57.")).json()
    assert (next_one["questions"][0]["answer"], next_one["said_before"]["by"]) == ("F", "Ida")
    anew = preview(client, chamber, text, answers='{"unit_temperature": "C"}').json()
    assert anew["questions"][0]["answer"] == "C"  # what is said now goes before what was said then
    assert anew["said_before"] is None


def test_a_file_is_read_once_whatever_is_remembered_of_its_head(
    client: TestClient, chamber: dict, monkeypatch: pytest.MonkeyPatch
) -> None:
    text = climate(20).replace(" (°C)", "")
    first = preview(client, chamber, text, answers='{"unit_temperature": "C"}').json()
    confirm(client, first["token"]).raise_for_status()
    rows = []
    monkeypatch.setattr(reading, "_read_at_once", lambda out, *_: rows.append(out.kind) and False)
    again = preview(client, chamber, text).json()
    assert (again["questions"][0]["answer"], again["same"], rows) == ("C", 20, ["climate"])


@pytest.mark.parametrize("answers", ["[1]", "{", '{"zone": 3}', '{"zone": "Atlantis"}'])
def test_answers_that_are_none_are_refused_in_words(client: TestClient, chamber: dict, answers: str) -> None:
    text = climate(3).replace("Z,", ",")
    refused = preview(client, chamber, text, answers=answers)
    assert refused.status_code == 422
    assert refused.json()["code"] == "file_unusable"


def test_a_thermometer_alone_gives_dates_with_the_usual_humidity_said(client: TestClient, chamber: dict) -> None:
    piece = client.post("/api/pieces", json=piece_body(chamber, at="2026-09-20T07:00:00Z")).json()
    log = "time,temp (°C)\n" + "".join(
        f"{(START + timedelta(hours=i)):%Y-%m-%dT%H:%M:%SZ},{13 + i % 3 / 10:.1f}\n" for i in range(240)
    )
    seen = preview(client, chamber, log).json()
    assert any("No humidity" in one for one in seen["understood"])
    confirm(client, seen["token"]).raise_for_status()
    assert set(series(client, chamber)["rh_percent"]) == {None}
    air = client.get("/api/line").json()["places"][0]["air"]
    assert (air["rh_percent"], air["trend_rh"]) == (None, None)
    shown = client.get(f"/api/pieces/{piece['card']['id']}").json()
    assert "assumed.humidity_as_set" in [one["code"] for one in shown["assumed"]]
    out = client.get(f"/api/places/{chamber['place']['id']}/climate.csv").text
    assert out.splitlines()[1].endswith(",")
    assert preview(client, chamber, out).json()["same"] == 240


def test_a_weight_in_doubt_is_held_until_somebody_says_whether_it_counts(client: TestClient, chamber: dict) -> None:
    piece = client.post("/api/pieces", json=piece_body(chamber, at="2026-09-10T07:00:00Z")).json()
    text = (
        "tag,at,gross_g\nJ-14-03,2026-09-16T08:00:00Z,795\nJ-14-03,2026-09-20T08:00:00Z,199999\n"
        "J-14-03,2026-09-22T08:00:00Z,471\n"
    )
    seen = preview(client, chamber, text).json()
    assert (seen["new"], [row["line"] for row in seen["doubtful"]]) == (1, [3, 4])
    assert "digits swapped? 741 g" in seen["doubtful"][1]["question"]
    held = confirm(client, seen["token"], keep=[4])
    assert (held.status_code, "line 3" in held.json()["detail"]) == (409, True)
    assert client.get(f"/api/pieces/{piece['card']['id']}").json()["weighings"] == []
    done = confirm(client, seen["token"], keep=[4], leave=[3]).json()
    assert done["rows_new"] == 2
    stored = client.get(f"/api/pieces/{piece['card']['id']}").json()["weighings"]
    assert [w["gross_g"] for w in stored] == [471.0, 795.0]


def test_weights_find_their_pieces_or_are_named(client: TestClient, chamber: dict) -> None:
    client.post("/api/pieces", json=piece_body(chamber, at="2026-09-10T07:00:00Z")).raise_for_status()
    text = (
        "tag,at,gross_g\nJ-14-03,2026-09-16T08:00:00Z,795\nJ-14-03,2026-09-22T08:00:00Z,741\n"
        "X-1,2026-09-22T08:00:00Z,700\nJ-14-03,2026-08-01T08:00:00Z,830\n"
    )
    seen = preview(client, chamber, text).json()
    assert (seen["kind"], seen["new"], seen["error_count"]) == ("weights", 2, 2)
    assert seen["errors"][0]["text"] == "no piece carries the tag X-1"
    confirm(client, seen["token"], leave_out_faults=True).raise_for_status()
    out = client.get(f"/api/places/{chamber['place']['id']}/weights.csv").text
    assert out.splitlines()[1:] == ["J-14-03,2026-09-16T08:00:00Z,795", "J-14-03,2026-09-22T08:00:00Z,741"]
    assert preview(client, chamber, out).json()["same"] == 2


def test_a_hang_file_comes_in_and_goes_out_again(client: TestClient) -> None:
    client.put("/api/workshop", json={"name": "W", "time_zone": "UTC"})
    place = client.post("/api/places", json={"name": "C", "hooks_per_rod": [12], "by": "Ida"}).json()
    room = {"place": place}
    data = (DATA / "hang_three_batches.json").read_bytes()
    seen = preview(client, room, data, "room.json").json()
    assert (seen["kind"], len(seen["forecasts"])) == ("hang", 10)
    assert confirm(client, seen["token"]).status_code == 201
    out = client.get(f"/api/places/{place['id']}/hang-file").json()
    before = {p["tag"]: p for b in json.loads(data)["batches"] for p in b["pieces"]}
    after = {p["tag"]: p for b in out["batches"] for p in b["pieces"]}
    assert before.keys() == after.keys()
    for tag, piece in before.items():
        assert after[tag]["weights"] == piece["weights"]
        assert {k: after[tag][k] for k in ("start_weight_g", "tare_g", "diameter_mm", "hung_at")} == {
            k: piece[k] for k in ("start_weight_g", "tare_g", "diameter_mm", "hung_at")
        }
    assert preview(client, room, data).json()["new"] == 0
    small = client.post("/api/places", json={"name": "D", "hooks_per_rod": [2], "by": "Ida"}).json()
    other = json.loads(data)
    for batch in other["batches"]:
        batch["id"] += "x"
        for piece in batch["pieces"]:
            piece["tag"] += "x"
    full = preview(client, {"place": small}, json.dumps(other))
    assert "D has 2 free hooks and the file 10 new pieces" in full.json()["detail"]


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"\x00\x01\x02" * 400, "not a text file"),
        (b"", "the file is empty"),
        (b"qwertz uiop\n" * 4_300_000, "line 1: a climate file has columns"),
        (b'{"format": "zymon-hang/1", "batches": 3, "now": "2026-01-01T00:00:00Z"}', "batches: must be a list"),
        (b"x" * 60_500_000, "larger than 60 MB"),
    ],
    ids=["binary", "empty", "50 MB of rubbish", "wrong hang file", "too large"],
)
def test_rubbish_is_refused_in_words_and_leaves_nothing(
    client: TestClient, chamber: dict, content: bytes, words: str
) -> None:
    answer = preview(client, chamber, content)
    assert answer.status_code == 422
    assert words in answer.json()["detail"]
    assert client.get("/api/imports").json() == []


def test_a_preview_that_is_gone_is_said(client: TestClient) -> None:
    assert confirm(client, "0" * 40).json()["detail"] == "this preview is gone; bring the file again"


def test_previews_that_nobody_confirms_are_let_go_of_after_an_hour_and_few_wait_at_a_time(
    client: TestClient, chamber: dict
) -> None:
    folder = client.app.state.context.settings.staging
    first = preview(client, chamber, b"at,temperature_c,rh_percent\n2026-01-01T00:00:00Z,12,70\n").json()["token"]
    for minute in range(1, 20):
        row = f"2026-01-01T00:{minute:02}:00Z,12,70\n".encode()
        last = preview(client, chamber, b"at,temperature_c,rh_percent\n" + row).json()["token"]
    assert len(list(folder.iterdir())) <= 2 * MOST_STAGED
    assert not (folder / first).exists()
    for file in folder.iterdir():
        os.utime(file, (time.time() - KEEP_STAGED_S + 60,) * 2)
    sweep(folder)
    assert (folder / last).exists()
    for file in folder.iterdir():
        os.utime(file, (time.time() - KEEP_STAGED_S - 1,) * 2)
    sweep(folder)
    assert list(folder.iterdir()) == []
    assert confirm(client, last).status_code == 404
