"""The warm file and `zymon ferment`: read, refused by place, answered, and nothing of the future used."""

import json

import pytest

from zymon.formats.warm_file import WarmFileError, ferment_bytes

WARM = {
    "format": "zymon-warm/1", "id": "J-16", "culture": "medium", "dextrose_percent": 0.4, "salt_percent": 2.7,
    "start_ph": 5.8, "stuffed_at": "2026-09-03T15:00:00Z", "target_ph": 5.1, "setpoint_c": 25.0,
    "temperature": [["2026-09-03T15:00:00Z", 9.0], ["2026-09-03T16:00:00Z", 22.5], ["2026-09-04T06:00:00Z", 25.0]],
    "ph": [["2026-09-04T05:00:00Z", 5.46]],
    "now": "2026-09-04T06:00:00Z",
}  # fmt: skip


def answered(**changes) -> dict:
    return json.loads(ferment_bytes(json.dumps({**WARM, **changes}).encode()))


def test_a_warm_file_is_answered() -> None:
    found = answered()
    assert (found["format"], found["id"], found["state"]) == ("zymon-warm-forecast/1", "J-16", "falling")
    cross = found["crosses_5_3_at"]
    assert "2026-09-04T06:00:00Z" <= cross["p10"] <= cross["p50"] <= cross["p90"]
    assert found["degree_hours"]["limit"] == 1200
    assert found["degree_hours"]["unit"] == "F h"
    assert answered(limit_profile="eu")["degree_hours"]["unit"] == "C h"


def test_nothing_after_now_is_used() -> None:
    later = answered(
        ph=[*WARM["ph"], ["2026-09-04T12:00:00Z", 4.9]],
        temperature=[*WARM["temperature"], ["2026-09-04T12:00:00Z", 35.0]],
    )
    assert later == answered()


def test_what_is_not_known_widens_the_window() -> None:
    def width(found: dict) -> float:
        return sum(int(found["crosses_5_3_at"][k][8:10]) * 24 + int(found["crosses_5_3_at"][k][11:13]) for k in ["p90"])

    bare = answered(culture=None, dextrose_percent=None, salt_percent=None, start_ph=None, ph=[])
    assert width(bare) > width(answered(ph=[]))


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"culture": "lively"}, "culture: input should be 'slow'"),
        ({"now": "2026-09-01T06:00:00Z"}, "now: lies before it was stuffed"),
        ({"ph": [["2026-09-01T05:00:00Z", 5.46]]}, "ph[0]: measured at 2026-09-01T05:00:00Z, before it was stuffed"),
        ({"temperature": [["2026-09-03T15:00:00Z", 900.0]]}, "temperature[0][1]: must be 80 or less, got 900.0"),
        ({"format": "zymon-warm/9"}, "format: expected 'zymon-warm/1'"),
    ],
)
def test_refusals_name_the_place(changes: dict, words: str) -> None:
    with pytest.raises(WarmFileError) as error:
        answered(**changes)
    assert words in str(error.value)
