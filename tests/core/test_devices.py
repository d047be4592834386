"""When a carried device has come to rest, at its boundaries."""

import pytest

from zymon.core.devices import REGISTRY, Kind, at_rest, impossible


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


@pytest.mark.parametrize(
    ("kind", "name", "lowest", "highest", "beyond"),
    [
        ("climate", "temperature_c", -40.0, 60.0, 0.1),
        ("climate", "rh_percent", 0.0, 100.0, 0.1),
        ("thermometer", "temperature_c", -40.0, 60.0, 0.1),
        ("scale", "gross_g", 0.001, 1e6, 0.1),
        ("ph", "ph", 0.01, 14.0, 0.1),
    ],
)
def test_what_no_such_device_can_show_is_told_and_what_it_can_is_not(
    kind: Kind, name: str, lowest: float, highest: float, beyond: float
) -> None:
    usual: dict[str, float | None] = {"temperature_c": 13.0, "rh_percent": 78.0, "gross_g": 800.0, "ph": 5.3}
    assert impossible(kind, {**usual, name: lowest}) is None
    assert impossible(kind, {**usual, name: highest}) is None
    for value in (lowest - beyond, highest + beyond):
        refused = impossible(kind, {**usual, name: value})
        assert refused is not None
        assert refused.values == {"value": pytest.approx(value)}
    missing = impossible(kind, {**usual, name: None})
    assert missing is not None
    assert missing.code == "device.sends"


@pytest.mark.parametrize(
    ("kind", "value", "apart_s", "off", "rest"),
    [
        ("scale", 900.0, 1.0, 1.0, True),
        ("scale", 900.0, 1.0, 1.01, False),
        ("scale", 5000.0, 1.0, 5.0, True),  # of more than a kilogram a thousandth
        ("scale", 5000.0, 1.0, 5.01, False),
        ("scale", 900.0, 0.99, 0.0, False),  # within two seconds nothing is at rest
        ("ph", 5.3, 5.0, 0.02, True),
        ("ph", 5.3, 5.0, 0.021, False),
        ("ph", 5.3, 4.99, 0.0, False),  # an electrode creeps for ten
    ],
)
def test_rest_is_three_alike_over_as_long_as_the_device_creeps(
    kind: Kind, value: float, apart_s: float, off: float, rest: bool
) -> None:
    assert at_rest(kind, [(0.0, value + off), (apart_s, value), (2 * apart_s, value)]) == rest
    assert not at_rest(kind, [(0.0, value), (100.0, value)])


def test_one_carries_about_what_one_waits_for() -> None:
    for kind, of in REGISTRY.items():
        assert (of.steady_when is not None) == (not of.has_place), kind
