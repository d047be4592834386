"""Generated courses: sound ones are ready, and whatever fault is planted is found where it was planted."""

import json

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from planting import INTACT, MINCED, planted, sound
from zymon.formats.ledger_file import judge_bytes

CASES = [(True, name) for name in MINCED] + [(False, name) for name in INTACT]
EVERYTHING = sorted({where for where, _, _ in (*MINCED.values(), *INTACT.values())})


def judged(file: dict) -> dict:
    return json.loads(judge_bytes(json.dumps(file).encode()))


@settings(max_examples=150, deadline=None)
@given(st.integers(0, 10_000), st.booleans())
def test_a_sound_course_is_ready(seed: int, minced: bool) -> None:
    found = judged(sound(seed, minced))
    assert found["ready"], found["why"]


@pytest.mark.parametrize(("minced", "name"), CASES, ids=[name for _, name in CASES])
def test_each_fault_is_found_where_it_was_planted_and_no_pile_of_signatures_makes_a_fail_good(minced, name) -> None:
    where, how, _ = (MINCED if minced else INTACT)[name]
    for seed in range(4):
        file = planted(seed, minced, [name])
        found = judged(file)
        assert not found["ready"]
        assert next(h["state"] for h in found["hurdles"] if h["name"] == where) == how
        assert any(why.startswith(f"{where}: ") for why in found["why"])
        signatures = [{"hurdle": h, "by": "Bo", "at": file["now"], "reason": "seen"} for h in EVERYTHING]
        if how in ("fail", "pending"):
            assert not judged({**file, "signatures": signatures})["ready"]
        if how == "unknown":
            hurdle = next(h for h in found["hurdles"] if h["name"] == where)
            assert hurdle["settles"]


@settings(max_examples=120, deadline=None)
@given(st.integers(0, 10_000), st.booleans(), st.data())
def test_faults_together_are_never_ready(seed: int, minced: bool, data) -> None:
    table = MINCED if minced else INTACT
    names = data.draw(st.lists(st.sampled_from(sorted(table)), min_size=1, max_size=3, unique=True))
    file = planted(seed, minced, [n for n in names if n != "no salt noted"] or names)
    assert not judged(file)["ready"]
