"""Constants and makers shared by the tests."""

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

import pytest

from zymon.core.errors import OutOfRangeError
from zymon.core.say import Said
from zymon.words import sentence, told

DATA = Path(__file__).parent / "data"
NOW = 1_791_000_000  # 3 October 2026


def words(said: dict) -> str:
    """A sentence that was sent as code and values, in words."""
    return sentence(Said(said["code"], said["values"]))


@contextmanager
def refused(words: str) -> Iterator[None]:
    """Expect that a rule refuses what it is given, in these words."""
    with pytest.raises(OutOfRangeError) as caught:
        yield
    assert words in told(caught.value)


def iso(at_s: float) -> str:
    """A moment as the interface tells it."""
    return datetime.fromtimestamp(at_s, UTC).isoformat().replace("+00:00", "Z")


class Clock:
    """Time as the test sets it."""

    def __init__(self) -> None:
        self.now = float(NOW)

    def __call__(self) -> float:
        return self.now


def piece_body(room: dict, **changes: object) -> dict:
    """A salame to hang on rod 1 hook 1 of a room."""
    return {
        "tag": "J-14-03",
        "batch_code": "J-14",
        "product": "Juniper salame",
        "kind": "salame",
        "shape": "cylinder",
        "casing": "fibrous",
        "fat_percent": 26,
        "salt_percent": 2.7,
        "diameter_mm": 58,
        "length_mm": 300,
        "start_weight_g": 842,
        "tare_g": 11,
        "target_loss_percent": 36,
        "rod_id": room["rods"][0]["id"],
        "hook": 1,
        "by": "Ida",
        **changes,
    }


def sheet_body() -> dict:
    """A salame's sheet as the Bench sends it: 5 kg of meat in two parts."""
    return {
        "parts": [
            {"name": "Shoulder", "weight_g": 3800, "fat_percent": 8, "price_per_kg": 9.5},
            {"name": "Back fat", "weight_g": 1200, "fat_percent": 85, "price_per_kg": 4},
        ],
        "salt_percent": 2.7,
        "salt_basis": "exact",
        "curing": {"name": "Short type", "percent": 0.25, "nitrite_fraction": 0.0625, "nitrate_fraction": 0},
        "lines": [
            {"name": "Dextrose", "role": "sugar", "amount": 0.3},
            {"name": "Garlic", "amount": 0.2},
            {"name": "Culture", "role": "culture", "basis": "per_kg", "amount": 0.25},
            {"name": "Red wine", "role": "wine", "amount": 1.5},
        ],
        "plan": {
            "family": "salame", "goods": "minced", "kind": "salame", "shape": "cylinder", "casing": "natural",
            "salting": "in_the_mince", "warm": "culture", "surface": "mould", "target_loss_percent": 35,
            "across_mm": 60, "piece_g": 900,
        },
    }  # fmt: skip
