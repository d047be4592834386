"""What the hand does in the warm besides measuring: a wet skin while it sours, then cool, skin and hook."""

import pytest

from zymon.core.fermentation.touches import Touch, touches


def by_way(done: dict[str, float], now: float, sour: float | None, rh: float | None) -> dict[tuple[str, ...], Touch]:
    return {touch.ways: touch for touch in touches(done, now, sour, rh)}


@pytest.mark.parametrize(("rh", "asks"), [(None, False), (95.0, False), (78.0, False), (77.9, True), (60.0, True)])
def test_water_on_the_skin_is_asked_for_where_the_box_is_known_to_be_dry(rh: float | None, asks: bool) -> None:
    assert bool(touches({}, 10.0, None, rh)) == asks


def test_the_first_spray_is_due_at_once_and_the_next_six_hours_after_the_last() -> None:
    spray = by_way({}, 10.0, None, 70.0)[("spray",)]
    assert (spray.from_hour, spray.latest_hour) == (10.0, 16.0)
    again = by_way({"spray": 9.0}, 10.0, None, 70.0)[("spray",)]
    assert (again.from_hour, again.latest_hour) == (15.0, 21.0)
    assert not again.firm
    assert again.cost.code == "cost.skin_closes"


def test_once_sour_it_is_cooled_within_four_hours_and_hung_within_a_day() -> None:
    due = by_way({}, 30.0, 28.0, 60.0)
    assert list(due) == [("cool",), ("mould", "vinegar"), ("hang",)]  # and no more water on the skin
    assert {ways: (t.from_hour, t.latest_hour) for ways, t in due.items()} == {
        ("cool",): (28.0, 32.0),
        ("mould", "vinegar"): (28.0, 52.0),
        ("hang",): (28.0, 52.0),
    }
    assert [ways for ways, touch in due.items() if touch.firm] == [("cool",)]
    assert [touch.cost.code for touch in due.values()] == [
        "cost.sours_on", "cost.first_mould", "cost.not_known_meanwhile",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("done", "left"),
    [
        ("cool", [("mould", "vinegar"), ("hang",)]),
        ("mould", [("cool",), ("hang",)]),
        ("vinegar", [("cool",), ("hang",)]),
        ("spray", [("cool",), ("mould", "vinegar"), ("hang",)]),
    ],
)
def test_what_was_done_is_not_asked_for_again_and_one_way_to_the_skin_is_enough(done: str, left: list) -> None:
    assert list(by_way({done: 29.0}, 30.0, 28.0, 90.0)) == left
