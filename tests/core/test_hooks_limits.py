"""Room on a rod, and who changes places: every figure at its boundary."""

import pytest

from support import refused
from zymon.core.faults import COAT_DAYS
from zymon.core.rod_room import rod_room
from zymon.core.rotation import Hanging, blind_exchanges, exchanges, wants_turning


@pytest.mark.parametrize(
    ("widths", "spacing_mm", "close"),
    [
        ({1: 80, 2: 80}, 100.0, ()),  # twenty millimetres of air between them are enough
        ({1: 81, 2: 80}, 100.0, ((1, 2),)),
        ({1: 180, 3: 180}, 100.0, ()),
        ({1: 181, 3: 180}, 100.0, ((1, 3),)),
        ({1: 60, 2: 100, 3: 60}, 100.0, ()),
        ({1: 60, 2: 101, 3: 60}, 100.0, ((1, 2), (2, 3))),
        ({2: 300}, 100.0, ()),
        ({}, 100.0, ()),
    ],
)
def test_neighbours_want_two_centimetres_between_them(
    widths: dict[int, float], spacing_mm: float, close: tuple
) -> None:
    assert rod_room(widths, 4, spacing_mm).close == close


def test_a_rod_is_too_short_by_what_its_pieces_and_their_air_need_more() -> None:
    assert rod_room({1: 80, 2: 80, 3: 80, 4: 80}, 4, 100.0).short_mm == 0
    assert rod_room({1: 90, 2: 90, 3: 90, 4: 90}, 4, 100.0).short_mm == pytest.approx(40)


@pytest.mark.parametrize("spacing_mm", [19.9, 2000.1, float("nan")])
def test_a_distance_that_no_rod_has_is_refused(spacing_mm: float) -> None:
    with refused("distance between hooks"):
        rod_room({1: 80}, 4, spacing_mm)


def pair(air: float = 1.6, other: float = 0.8, days: float = 7.0, done: float = 0.5, **more: bool) -> list[Hanging]:
    return [Hanging("A", air, days, 0.2), Hanging("B", other, 30.0, done, **more)]


@pytest.mark.parametrize(
    ("hanging", "changes"),
    [
        (pair(), True),
        (pair(days=6.9), False),  # once a week
        (pair(done=0.89), True),
        (pair(done=0.9), False),  # what is nearly done is left in peace
        (pair(air=1.25, other=1.0), True),
        (pair(air=1.24, other=1.0), False),  # not worth the walk
        (pair(too_fast=True), False),  # it would dry faster still
    ],
)
def test_places_are_changed_where_it_is_worth_the_walk(hanging: list[Hanging], changes: bool) -> None:
    assert exchanges(hanging) == ([("A", "B")] if changes else [])


def test_blind_pairs_hang_long_enough_dry_still_and_are_no_neighbours() -> None:
    row = [Hanging(tag, 1.0, 7.0, 0.89, hook=at) for at, tag in enumerate("ABCD", 1)]
    assert blind_exchanges(row) == [("A", "C"), ("B", "D")]
    assert blind_exchanges(row[:2]) == []  # side by side the air is the same
    fresh = [Hanging(h.tag, 1.0, 6.9, 0.89, hook=h.hook) for h in row]
    done = [Hanging(h.tag, 1.0, 7.0, 0.9, hook=h.hook) for h in row]
    assert blind_exchanges(fresh) == blind_exchanges(done) == []


@pytest.mark.parametrize(
    ("coated", "days", "set_c", "turned"),
    [
        (False, 6.9, 13.0, True),
        (False, 7.0, 13.0, False),
        (True, COAT_DAYS - 0.1, 13.0, True),  # and a coat is looked at while it sets
        (True, COAT_DAYS, 13.0, False),
        (False, 1.0, None, True),
        (False, 1.0, 27.9, True),
        (False, 1.0, 28.0, False),  # in such warmth it is done before it sags
    ],
)
def test_the_first_week_a_piece_is_turned_daily(coated: bool, days: float, set_c: float | None, turned: bool) -> None:
    assert wants_turning(coated, days, set_c) == turned
