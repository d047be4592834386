"""Advice on what is felt, smelled and seen, with the evidence of the piece; the order of the round."""

import pytest

from zymon.core.faults import Evidence, Found, advise
from zymon.core.schedule import Chore, in_walking_order, replanned, when
from zymon.words import sentence

WELL = Evidence(loss_percent=20, ring_risk=0.1, damp_hours=0, days=15)


@pytest.mark.parametrize(
    ("found", "evidence", "act", "says"),
    [
        (Found(firm_rim="firm", firm_core="firm", smell="clean", mould="white"), WELL, "nothing", "white and dry"),
        (Found(), WELL, "nothing", "all well"),
        (Found(smell="off", mould="white"), WELL, "discard", "do not taste"),
        (Found(firm_rim="hard", firm_core="soft"), WELL, "mend", "raise the humidity"),
        (Found(firm_rim="hard", firm_core="soft"), Evidence(36, 0.8, 0, 40), "hold", "vacuum rest"),
        (Found(firm_core="soft"), Evidence(45, 0.2, 0, 40), "hold", "do not taste"),
        (Found(mould="green"), Evidence(20, 0, 60, 15), "mend", "wipe with vinegar"),
        (Found(mould="pink"), WELL, "hold", "hold it"),
        (Found(mould="white", mould_how="wet"), WELL, "hold", "hold it"),
        (Found(surface="slimy"), WELL, "hold", "vinegar"),
        (Found(cracks=True), Evidence(3, 0, 0, 2), "mend", "patch the cracks now"),
    ],
)
def test_advice_follows_the_table_of_faults(found: Found, evidence: Evidence, act: str, says: str) -> None:
    first = advise(found, evidence)[0]
    assert first.act == act
    assert says in sentence(first.what)


def test_the_evidence_of_the_piece_is_named() -> None:
    damp = advise(Found(mould="green"), Evidence(20, 0, 60, 15))[0].because
    fast = advise(Found(firm_rim="hard", firm_core="soft"), Evidence(20, 0.8, 0, 15))[0].because
    assert "60 h over 85 %" in sentence(damp[0])
    assert "ring risk 80 %" in sentence(fast[0])


def test_the_gravest_comes_first() -> None:
    acts = [a.act for a in advise(Found(smell="sour", mould="black", cracks=True, surface="damp"), WELL)]
    assert acts[0] == "hold"
    assert acts[-1] == "watch"


def chore(name: str, station: str, order: int, kind: str, best: float, latest: float | None) -> Chore:
    return Chore(name, station, order, kind, 0.0, best, latest)  # type: ignore[arg-type]


def test_the_round_walks_the_line_and_late_firm_steps_come_first() -> None:
    chores = [
        chore("weigh", "hang", 2, "weight_led", 5, None),
        chore("turn", "salt", 0, "elastic", 1, 3),
        chore("out", "salt", 0, "firm", 2, 4),
        chore("ph", "warm", 1, "firm", 9, 20),
    ]
    assert [c.id for c in in_walking_order(chores, 10.0)] == ["out", "turn", "ph", "weigh"]
    assert [when(c, 10.0) for c in chores] == ["now", "late", "late", "now"]
    assert replanned(chores[1], 10.0) == 10.0
    assert replanned(chores[3], 3.0) == 9
