"""A sample of the limits of safety, each changed by a fifth: a test notices. `make mutants` tries them all."""

from pathlib import Path

import pytest
from scripts.mutants import MODULES, ROOT, Mutant, mutants, sources, unnoticed

ALL = mutants()
SAMPLE = ("COLD_C", "HOT_STRETCH_HOURS", "DRY_ACTIVITY")
AT_THE_MARKS = ("tests/core/test_ready.py",)


def test_every_figure_of_the_marks_is_among_them() -> None:
    names = {m.name.split("[")[0] for m in ALL if m.file in MODULES}
    assert set(SAMPLE) <= names
    assert {"FREEZING", "LISTERIA_CFU_PER_G", "BELIEVED_PH", "HOUSEHOLD_MARK_C"} <= names
    assert len(ALL) > 150
    for mutant in ALL:
        text = (ROOT / mutant.file).read_text()
        assert float(text[mutant.start : mutant.end]) != float(mutant.instead)


@pytest.mark.drill
@pytest.mark.parametrize("name", SAMPLE)
def test_a_changed_limit_is_noticed(name: str, tmp_path: Path) -> None:
    mutant = next(m for m in ALL if m.name == name and float(m.instead) < _value(m))
    assert not unnoticed(mutant, sources(tmp_path), AT_THE_MARKS)


@pytest.mark.drill
def test_what_is_not_changed_goes_unnoticed(tmp_path: Path) -> None:
    one = next(m for m in ALL if m.name == "COLD_C")
    text = (ROOT / one.file).read_text()
    same = Mutant(one.file, one.name, one.start, one.end, text[one.start : one.end])
    assert unnoticed(same, sources(tmp_path), AT_THE_MARKS)


def _value(mutant: Mutant) -> float:
    return float((ROOT / mutant.file).read_text()[mutant.start : mutant.end])
