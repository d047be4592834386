"""The batch file and `zymon judge`: read, refused by place, judged."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from zymon.formats.batch_file import BatchFileError
from zymon.formats.ledger_file import judge_bytes

ZYMON = Path(sys.executable).with_name("zymon")
BATCH = {
    "format": "zymon-batch/1", "id": "J-16", "goods": "minced", "species": ["pork"], "limit_profile": "us",
    "now": "2026-10-20T09:00:00Z",
    "formulation": {
        "meat_g": 5200, "plain_salt_g": 127.4, "curing_salt_g": 13.0, "nitrite_fraction": 0.0625,
        "nitrate_fraction": 0.04, "belly": False,
    },
    "mix_temperature_c": 2.0,
    "parasite": {"way": "frozen", "temperature_c": -23, "days": 14, "thickness_cm": 12},
    "cure": None,
    "warm": {
        "from": "2026-09-03T15:00:00Z",
        "temperature": [[f"2026-09-{3 + (15 + h) // 24:02d}T{(15 + h) % 24:02d}:00:00Z", 24.0] for h in range(20)],
        "ph": [["2026-09-04T09:00:00Z", 5.22]],
    },
    "hang": {
        "pieces": [
            {"tag": "J-16-01", "start_weight_g": 905, "tare_g": 10, "target_loss_percent": 35,
             "weights": [["2026-10-19T08:00:00Z", 571], ["2026-10-21T08:00:00Z", 900]]},
        ],
    },
    "laboratory": [{"at": "2026-10-20T08:00:00Z", "what": "water_activity", "value": 0.89}],
    "signatures": [],
    "bench_note": "unknown keys are kept",
}  # fmt: skip


def judged(**changes) -> dict:
    return json.loads(judge_bytes(json.dumps({**BATCH, **changes}).encode()))


def test_a_batch_is_judged_and_nothing_after_now_is_used() -> None:
    found = judged()
    assert (found["format"], found["id"], found["ready"], found["why"]) == ("zymon-ledger/1", "J-16", True, [])
    by = {h["name"]: h for h in found["hurdles"]}
    assert list(by) == [
        *("cold_mix", "salt", "nitrite_in", "nitrate_in", "degree_hours", "parasite", "target_loss", "keeping"),
    ]
    assert by["degree_hours"]["value"] == pytest.approx(18 * (24 * 1.8 + 32 - 60))
    assert by["keeping"]["known"] == "laboratory"
    late = judged(laboratory=[{"at": "2026-10-21T08:00:00Z", "what": "water_activity", "value": 0.89}])
    assert next(h for h in late["hurdles"] if h["name"] == "keeping")["known"] == "estimated"


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"goods": "fish"}, "goods: input should be 'minced' or 'intact', got 'fish'"),
        ({"limit_profile": "moon"}, "limit_profile: 'moon' is not known; known are us, eu"),
        ({"formulation": {"meat_g": -5}}, "formulation.meat_g: must be above 0, got -5"),
        ({"warm": {"ph": [["2026-09-04T09:00:00Z", 53]]}}, "warm.ph[0][1]: must be 9 or less, got 53"),
        (
            {"hang": {"pieces": [{"tag": "A", "start_weight_g": 10, "tare_g": 20}]}},
            "hang.pieces[0].tare_g: must be below the start weight",
        ),
        (
            {"cure": {"way": "measured", "from": "2026-09-03T15:00:00Z", "to": "2026-08-03T15:00:00Z"}},
            "cure.to: 2026-08-03T15:00:00Z lies before the cure began",
        ),
    ],
)
def test_refusals_name_the_place(changes: dict, words: str) -> None:
    with pytest.raises(BatchFileError) as error:
        judged(**changes)
    assert words in str(error.value)


def test_parts_that_are_missing_are_not_known() -> None:
    bare = {k: v for k, v in BATCH.items() if k in ("format", "id", "goods", "now")}
    found = json.loads(judge_bytes(json.dumps(bare).encode()))
    assert not found["ready"]
    assert {h["state"] for h in found["hurdles"]} == {"unknown", "pending"}


def test_the_shell_answers_one_line_a_file_and_goes_on_after_a_bad_one(tmp_path: Path) -> None:
    good, bad = tmp_path / "good.json", tmp_path / "bad.json"
    good.write_text(json.dumps(BATCH))
    bad.write_text("{}")
    run = subprocess.run([ZYMON, "judge", bad, good], capture_output=True, text=True, check=False)
    assert run.returncode == 1
    assert "format: expected 'zymon-batch/2' or 'zymon-batch/1'" in run.stderr
    assert json.loads(run.stdout)["ready"]
