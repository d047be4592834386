"""The hang file: what it accepts, what it refuses and in which words, and the command that reads it."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from support import DATA
from zymon.formats.hang_file import HangFileError, forecast_bytes, read_hang_file

ZYMON = Path(sys.executable).with_name("zymon")


def document(**piece: object) -> dict:
    return {
        "format": "zymon-hang/1",
        "chamber": {"name": "Wheel Pit", "setpoint": {"temperature_c": 13.0, "rh_percent": 78}},
        "climate": [["2026-09-01T18:00:00Z", 13.2, 81.0], ["2026-09-01T19:00:00Z", 13.1, 79.5]],
        "batches": [
            {
                "id": "J-14",
                "kind": "salame",
                "shape": "cylinder",
                "casing": "fibrous",
                "fat_percent": 26,
                "salt_percent": None,
                "pieces": [
                    {
                        "tag": "J-14-03",
                        "diameter_mm": 58,
                        "thickness_mm": None,
                        "length_mm": 300,
                        "start_weight_g": 842,
                        "tare_g": 11,
                        "hung_at": "2026-09-01T18:00:00Z",
                        "target_loss_percent": 36,
                        "weights": [["2026-09-06T08:10:00Z", 795], ["2026-09-12T08:05:00Z", 741]],
                        **piece,
                    }
                ],
            }
        ],
        "now": "2026-09-12T09:00:00Z",
    }


def test_the_answer_has_the_published_shape() -> None:
    made = json.loads(forecast_bytes(json.dumps(document()).encode()))
    assert made["format"] == "zymon-forecast/1"
    (piece,) = made["pieces"]
    assert piece["tag"] == "J-14-03"
    assert piece["target_weight_g"] == pytest.approx(542.84)
    assert piece["status"] == "drying"
    assert made["now"] < piece["ready_at"]["p10"] < piece["ready_at"]["p50"] < piece["ready_at"]["p90"]
    assert piece["loss_percent"] == pytest.approx(12.2, abs=0.6)
    assert set(piece) == {
        *("tag", "loss_percent", "target_weight_g", "rate_percent_per_day", "ready_at"),
        *("status", "ring_risk", "doubtful_weights", "reaches", "assumed", "outside"),
        *("loss_p10_percent", "loss_p90_percent", "rate_p10_percent_per_day", "rate_p90_percent_per_day"),
    }


@pytest.mark.parametrize("lacks", [{"start_weight_g": None}, {"target_loss_percent": None}])
def test_without_start_or_target_shares_are_told_with_their_spread_and_no_date(lacks: dict) -> None:
    (piece,) = json.loads(forecast_bytes(json.dumps(document(**lacks)).encode()))["pieces"]
    assert (piece["target_weight_g"], piece["reaches"], piece["status"]) == (None, None, "drying")
    assert piece["ready_at"] == {"p10": None, "p50": None, "p90": None}
    assert piece["loss_p10_percent"] < piece["loss_percent"] < piece["loss_p90_percent"]
    assert any("nobody weighed it" in text or "no target is set" in text for text in piece["assumed"])


def test_skin_makes_it_slower_and_a_leg_on_the_bone_lies_outside() -> None:
    def told(**piece: object) -> dict:
        (found,) = json.loads(forecast_bytes(json.dumps(document(weights=[], **piece)).encode()))["pieces"]
        return found

    assert told(skin=True)["loss_percent"] < told(skin=False)["loss_percent"]
    assert told(bone=True, start_weight_g=7000, length_mm=None)["outside"]
    assert not told(bone=False, start_weight_g=7000, length_mm=None)["outside"]


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        (
            {"weights": [["2026-09-06T08:10:00Z", 795], ["2026-09-07T08:00:00Z", -3]]},
            "weights[1][1]: must be above 0, got -3",
        ),
        (
            {"weights": [["2026-08-06T08:10:00Z", 795]]},
            "weights[0]: weighed at 2026-08-06T08:10:00Z, before it was hung",
        ),
        ({"weights": [["2026-09-06T08:10:00Z", 9]]}, "weights[0]: 9 g is no more than the tare of 11 g"),
        ({"weights": [["yesterday", 795]]}, "weights[0][0]: "),
        ({"tare_g": 900}, "tare_g: must be below the start weight of 842 g, got 900"),
        ({"diameter_mm": 3000}, "diameter_mm: must be 600 or less, got 3000"),
        ({"target_loss_percent": 90}, "target_loss_percent: must be 80 or less, got 90"),
        ({"start_weight_g": "heavy"}, "start_weight_g: must be a number, got 'heavy'"),
        ({"hung_at": "2026-09-20T18:00:00Z"}, "hung_at: 2026-09-20T18:00:00Z lies after now"),
    ],
)
def test_a_wrong_piece_is_named_by_its_place(changes: dict, words: str) -> None:
    with pytest.raises(HangFileError) as error:
        read_hang_file(json.dumps(document(**changes)).encode())
    assert f"batches[0].pieces[0].{words}" in str(error.value)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "line 1: not JSON"),
        (b"[1, 2]", "file: a hang file is a JSON object"),
        (b'{"format": "other/1"}', "format: expected 'zymon-hang/1', got 'other/1'"),
        (b'{"format": "zymon-hang/1", "now": "2026-09-12T09:00:00Z"}', "batches: is missing"),
        (b'{"format": "zymon-hang/1", "batches": [', "not JSON"),
    ],
)
def test_what_is_no_hang_file_is_refused(data: bytes, words: str) -> None:
    with pytest.raises(HangFileError) as error:
        read_hang_file(data)
    assert words in str(error.value)


def test_the_same_tag_twice_is_refused() -> None:
    doubled = document()
    doubled["batches"][0]["pieces"] *= 2
    with pytest.raises(HangFileError, match=r"pieces\[1\]\.tag: 'J-14-03' stands already at batches\[0\]\.pieces\[0\]"):
        read_hang_file(json.dumps(doubled).encode())


def test_the_command_does_the_good_files_and_names_the_bad(tmp_path: Path) -> None:
    good, bad, empty = tmp_path / "good.json", tmp_path / "bad.json", tmp_path / "empty.json"
    good.write_text(json.dumps(document()))
    bad.write_text(json.dumps(document(start_weight_g=0)))
    empty.write_text(json.dumps({**document(), "batches": []}))
    files = [good, bad, tmp_path / "gone.json", empty, DATA / "hang_three_batches.json"]
    run = subprocess.run([ZYMON, "forecast", *files], capture_output=True, text=True, check=False)
    assert run.returncode == 1
    lines = [json.loads(line) for line in run.stdout.splitlines()]
    assert [len(line["pieces"]) for line in lines] == [1, 0, 10]
    wrong = run.stderr.splitlines()
    assert len(wrong) == 2
    assert "bad.json: batches[0].pieces[0].start_weight_g: must be above 0, got 0" in wrong[0]
    assert "gone.json: No such file" in wrong[1]


def test_the_calculator_works_what_it_can_and_says_what_it_cannot(tmp_path: Path) -> None:
    file = tmp_path / "air.json"
    cases = [{"temperature_c": 13, "rh_percent": 75, "expect": {"old": 1}}, {"temperature_c": 13, "rh_percent": 130}]
    file.write_text(json.dumps({"about": "mine", "cases": cases}))
    run = subprocess.run([ZYMON, "calc", "air", file], capture_output=True, text=True, check=False)
    made = json.loads(run.stdout)
    assert run.returncode == 1
    assert made["about"] == "mine"
    assert made["cases"][0]["expect"]["dew_point_c"] == pytest.approx(8.68, abs=0.02)
    assert made["cases"][1] == {
        "temperature_c": 13,
        "rh_percent": 130,
        "error": "humidity must be between 0 and 100 %, got 130",
    }
    unknown = subprocess.run([ZYMON, "calc", "wine", file], capture_output=True, text=True, check=False)
    assert unknown.returncode == 1
    assert "'wine' is not a kind the calculator knows" in unknown.stderr
