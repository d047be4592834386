"""When a carried device has come to rest, at its boundaries."""

import pytest

from zymon.core.devices import REGISTRY, Kind, at_rest


def shown(*values: float, every_s: float = 1.0) -> list[tuple[float, float]]:
    return [(i * every_s, value) for i, value in enumerate(values)]


@pytest.mark.parametrize(
    ("kind", "lately", "rest"),
    [
        ("scale", shown(812, 812, every_s=5), False),  # two readings are no rest, however long
        ("scale", shown(812, 812, 812), True),  # three over two seconds are
        ("scale", shown(812, 812, 812, every_s=0.99), False),
        ("scale", shown(811, 812, 812), True),  # within a gram
        ("scale", shown(810.9, 812, 812), False),
        ("scale", shown(1995, 1998, 2000), False),  # of two kilograms two grams
        ("scale", shown(1998, 1998, 2000), True),
        ("scale", shown(812, 812, 812, 700), False),  # something was taken off
        ("scale", [], False),
        ("ph", shown(5.10, 5.11, 5.12, every_s=5), True),
        ("ph", shown(5.09, 5.11, 5.12, every_s=5), False),
        ("ph", shown(5.12, 5.12, 5.12, every_s=4.9), False),
        ("climate", shown(13, 13, 13, 13), False),
    ],
)
def test_what_a_device_shows_is_at_rest(kind: Kind, lately: list[tuple[float, float]], rest: bool) -> None:
    assert at_rest(kind, lately) == rest


def test_one_carries_about_what_one_waits_for() -> None:
    for kind, of in REGISTRY.items():
        assert (of.steady_when is not None) == (not of.has_place), kind
