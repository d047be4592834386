"""Rooms: who hangs too close, who changes places with whom, what a place suits."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from zymon.core.drying.climate import Log
from zymon.core.place_fit import suits
from zymon.core.rod_room import rod_room
from zymon.core.rotation import WORTH_RATIO, Hanging, blind_exchanges, exchanges

DAY = 86_400.0


def log(days: float, c: float, rh: float, swing_c: float = 0.0) -> Log:
    t = np.arange(-days * DAY, 1, 1800.0)
    return Log(t, c + swing_c * np.sin(2 * np.pi * t / DAY), np.full(len(t), rh))


@given(st.dictionaries(st.integers(1, 12), st.floats(20, 200)), st.floats(40, 300))
def test_hooks_further_apart_never_bring_pieces_closer(widths: dict[int, float], spacing_mm: float) -> None:
    near, far = (rod_room(widths, 12, s) for s in (spacing_mm, spacing_mm * 1.3))
    assert set(far.close) <= set(near.close)
    assert far.short_mm <= near.short_mm


HANGING = st.builds(
    Hanging, st.uuids().map(str), st.floats(0.4, 2.5), st.floats(0, 30), st.floats(0, 1.2), st.booleans()
)


@given(st.lists(HANGING, max_size=20))
def test_exchanges_share_the_air_and_move_nobody_twice(hanging: list[Hanging]) -> None:
    pairs = exchanges(hanging)
    by_tag = {h.tag: h for h in hanging}
    assert len({tag for pair in pairs for tag in pair}) == 2 * len(pairs)
    for strong, weak in pairs:
        assert by_tag[strong].air >= WORTH_RATIO * by_tag[weak].air
        assert not by_tag[weak].too_fast  # none that dries too fast is put into stronger air
        assert min(by_tag[t].days_there for t in (strong, weak)) >= 7


@given(st.lists(st.tuples(st.integers(1, 3), st.integers(1, 12), st.floats(0, 30), st.floats(0, 1.2)), max_size=20))
def test_while_no_hook_is_known_pieces_change_along_their_rod(rows: list[tuple[int, int, float, float]]) -> None:
    at = {(rod, hook): (days, done) for rod, hook, days, done in rows}
    hanging = [Hanging(f"{r}/{h}", 1.0, days, done, rod=r, hook=h) for (r, h), (days, done) in at.items()]
    pairs = blind_exchanges(hanging)
    assert len({tag for pair in pairs for tag in pair}) == 2 * len(pairs)
    by_tag = {h.tag: h for h in hanging}
    for a, b in ((by_tag[a], by_tag[b]) for a, b in pairs):
        assert a.rod == b.rod
        assert b.hook - a.hook > 1
        assert min(a.days_there, b.days_there) >= 7
        assert max(a.done_share, b.done_share) < 0.9


def test_what_a_place_suits_by_its_log() -> None:
    def verdict(of: Log, family: str) -> tuple[str, str | None]:
        found = next(s for s in suits(of) if s.family == family)
        return found.verdict, found.mostly

    assert verdict(log(20, 13, 79), "salame") == ("fit", None)
    assert verdict(log(20, 4, 55), "leg_piece") == ("fit", None)
    assert verdict(log(20, 13, 55), "salame") == ("unfit", "dry")
    assert verdict(log(20, 14, 79, swing_c=5), "salame")[0] == "unfit"  # hot hours spoil, however good the mean
    assert verdict(log(20, 35, 35), "thin_sausage_dehydrator") == ("fit", None)
    assert suits(log(0.5, 13, 79)) == []
