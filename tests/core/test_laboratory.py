"""What a laboratory can have found, and what is a slip of the hand."""

import pytest

from zymon.core.ledger.batch import LabWhat
from zymon.core.ledger.laboratory import SPANS, UNITS, allowed

SPAN_OF: dict[LabWhat, tuple[str, float, float]] = {
    "water_activity": ("", 0.5, 1.0),
    "ph": ("", 3.0, 9.0),
    "salt": ("%", 0.0, 40.0),
    "nitrite": ("mg/kg", 0.0, 10_000.0),
    "listeria": ("cfu/g", 0.0, 1e9),
    "moisture": ("%", 0.0, 100.0),
    "protein": ("%", 0.0, 100.0),
    "fat": ("%", 0.0, 100.0),
}
SEEN_OR_NOT: dict[LabWhat, str] = {
    "listeria": "in 25 g", "salmonella": "in 25 g", "stec": "in 25 g", "staphylococcal_enterotoxin": "",
}  # fmt: skip


def test_all_that_a_laboratory_tells_is_asked_about_here() -> None:
    assert set(SPANS) == set(UNITS) == {*SPAN_OF, *SEEN_OR_NOT}
    # of the fields of a form, too, what is found or not is 0 or 1
    assert {SPANS[what] for what in SEEN_OR_NOT if what != "listeria"} == {(0.0, 1.0)}


@pytest.mark.parametrize(("what", "unit", "low", "high"), [(what, *span) for what, span in SPAN_OF.items()])
def test_a_value_within_its_span_is_taken_and_none_beyond(what: LabWhat, unit: str, low: float, high: float) -> None:
    a_hair = 1e-6 * high
    assert allowed(what, low, unit)
    assert allowed(what, high, unit)
    assert not allowed(what, low - a_hair, unit)
    assert not allowed(what, high + a_hair, unit)
    assert not allowed(what, (low + high) / 2, "g")
    assert not allowed(what, float("nan"), unit)


@pytest.mark.parametrize(("what", "unit"), SEEN_OR_NOT.items())
def test_what_is_looked_for_is_found_or_not(what: LabWhat, unit: str) -> None:
    assert allowed(what, 0.0, unit)
    assert allowed(what, 1.0, unit)
    assert not allowed(what, 0.5, unit)
    assert not allowed(what, 2.0, unit)
