"""Constants and makers shared by the tests."""

from pathlib import Path

DATA = Path(__file__).parent / "data"
NOW = 1_791_000_000  # 3 October 2026


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
