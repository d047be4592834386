"""Few weighings that tell most: which pieces, and why each."""

import pytest

from strategies import DAY, history, salame, weighed
from zymon.core.drying.forecast import Change, fitted
from zymon.core.drying.history import History, Piece
from zymon.core.drying.inside import ring_ahead, rings_ahead
from zymon.core.drying.sentinels import sentinels

READINGS = ((6.0, 771.0), (13.0, 711.0), (20.0, 665.0))


def asked(*pieces: Piece, now_days: float) -> dict[str, str]:
    h = history(*pieces, now_days=now_days)
    found = sentinels(pieces, fitted(h).forecasts, h.now_s)
    return {pieces[one.index].tag: one.why for one in found}


def test_one_tells_for_a_batch_that_nobody_weighed_and_a_second_for_a_big_one() -> None:
    few = [salame(f"A-{i}") for i in range(4)]
    assert list(asked(*few, now_days=10).values()) == ["batch_never"]
    many = [salame(f"A-{i}", diameter_mm=52 + 2 * i) for i in range(8)]
    assert sorted(asked(*many, now_days=10).values()) == ["batch_never", "second"]


def test_a_batch_weighed_a_moment_ago_is_left_in_peace() -> None:
    mates = [weighed(salame("A-1"), *READINGS), salame("A-2"), salame("A-3")]
    assert asked(*mates, now_days=21) == {}
    assert "batch_long_ago" in asked(*mates, now_days=34).values()  # two weeks later it is not


def test_a_weight_in_doubt_is_asked_for_first_and_spares_its_mates() -> None:
    wrong = weighed(salame("A-1"), *READINGS, (27.0, 926.0))
    assert asked(wrong, salame("A-2"), now_days=28) == {"A-1": "doubtful"}


def test_every_batch_is_looked_at_by_itself() -> None:
    pieces = [salame("A-1"), salame("A-2"), salame("B-1", batch="B"), salame("B-2", batch="B")]
    found = asked(*pieces, now_days=12)
    assert {tag[0] for tag in found} == {"A", "B"}
    assert len(found) == 2


def test_many_asked_at_once_are_told_what_each_is_told_alone() -> None:
    pieces = (weighed(salame("A-1"), *READINGS), salame("A-2", diameter_mm=70.0), salame("B-1", batch="B"))
    place = fitted(History(pieces, history(now_days=21).log, 13.0, 78.0, 21 * DAY))
    change = Change(rh_percent=70)
    together = place.what_ifs([0, 1, 2], change)
    for i, told in enumerate(together):
        alone = place.what_if(i, change)
        dates = [(made.ready_p10_s, made.ready_p50_s, made.ready_p90_s) for made in (told, alone)]
        assert dates[0] == pytest.approx(dates[1], rel=1e-12)  # but for the order in which numbers are added
    rings = rings_ahead(place, [0, 1, 2], change)
    assert rings == pytest.approx([ring_ahead(place, i, change) for i in range(3)], abs=1e-9)
    assert all(drier > now for drier, now in zip(rings, rings_ahead(place, [0, 1, 2], Change()), strict=True))
