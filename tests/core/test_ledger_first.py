"""The ledger: no bad batch is ever ready, good ones are, and what a person or a laboratory may answer."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from zymon.core.ledger.first.batch import (
    Batch,
    Bowl,
    Cure,
    HungPiece,
    LabValue,
    Parasite,
    Signature,
    WarmStage,
)
from zymon.core.ledger.first.judge import judge
from zymon.limits import shipped


def hourly(start: float, end: float, level, step: float = 1.0):
    return tuple((float(h), float(level)) for h in np.arange(start, end + step / 2, step))


def minced(**changes) -> Batch:
    good = Batch(
        id="J-16", goods="minced", species=("pork",), profile=shipped()["us"], now_hour=900.0,
        bowl=Bowl(5200, 127.4, 13.0, 0.0625, 0.04, False), mix_temperature_c=2.0,
        parasite=Parasite("certified", None, None, None), cure=None,
        warm=WarmStage(None, 0.0, hourly(0, 30, 24), ((14.0, 5.5), (20.0, 5.25))),
        pieces=(HungPiece("J-16-01", 905, 10, 35, ((500.0, 640), (890.0, 590))),), laboratory=(), signatures=(),
    )  # fmt: skip
    return replace(good, **changes)


def intact(**changes) -> Batch:
    good = minced(
        goods="intact", warm=None, mix_temperature_c=None, species=("beef",), parasite=None,
        cure=Cure("measured", 0.0, 200.0, hourly(0, 220, 3)), bowl=Bowl(2400, 60, 6, 0.0625, 0.04, False),
    )  # fmt: skip
    return replace(good, **changes)


def hurdle(batch: Batch, name: str):
    return next(h for h in judge(batch).hurdles if h.name == name)


def poor(bowl: Bowl, **changes) -> Bowl:
    return replace(bowl, **changes)


# every way the table knows in which a batch is not fit, and the hurdle that says so
MINCED_FAULTS = {
    "mixed warm": ("cold_mix", "fail", lambda b: replace(b, mix_temperature_c=7.1)),
    "mixed at nobody knows what": ("cold_mix", "unknown", lambda b: replace(b, mix_temperature_c=None)),
    "too little salt": ("salt", "fail", lambda b: replace(b, bowl=poor(b.bowl, plain_salt_g=80.0))),
    "no nitrite": ("nitrite_in", "fail", lambda b: replace(b, bowl=poor(b.bowl, curing_salt_g=0.0))),
    "too much nitrite": ("nitrite_in", "fail", lambda b: replace(b, bowl=poor(b.bowl, curing_salt_g=13.1))),
    "saltpetre by the spoon": (
        "nitrate_in",
        "fail",
        lambda b: replace(b, bowl=poor(b.bowl, nitrate_fraction=0.9)),
    ),
    "nothing weighed": ("salt", "unknown", lambda b: replace(b, bowl=None)),
    "pH never measured": ("degree_hours", "fail", lambda b: replace(b, warm=replace(b.warm, temperature=hourly(0, 896, 24), ph=()))),
    "pH too late": ("degree_hours", "fail", lambda b: replace(b, warm=replace(b.warm, temperature=hourly(0, 99, 24), ph=((99.0, 5.2),)))),
    "a gap in the log": ("degree_hours", "unknown", lambda b: replace(b, warm=replace(b.warm, temperature=((0.0, 24.0), (7.0, 24.0), (12.0, 24.0), (18.0, 24.0))))),
    "no log": ("degree_hours", "unknown", lambda b: replace(b, warm=replace(b.warm, temperature=()))),
    "no warm stage": ("degree_hours", "unknown", lambda b: replace(b, warm=WarmStage("none", 0.0, (), ()))),
    "still warm": ("degree_hours", "pending", lambda b: replace(b, now_hour=20.0, warm=replace(b.warm, temperature=hourly(0, 20, 24), ph=((14.0, 5.5),)))),
    "trichinae": ("parasite", "fail", lambda b: replace(b, parasite=Parasite("none", None, None, None))),
    "frozen too short": ("parasite", "fail", lambda b: replace(b, parasite=Parasite("frozen", -22.0, 14.0, 12.0))),
    "frozen too warm": ("parasite", "fail", lambda b: replace(b, parasite=Parasite("frozen", -12.0, 90.0, 12.0))),
    "frozen thick": ("parasite", "fail", lambda b: replace(b, parasite=Parasite("frozen", -23.0, 19.0, 20.0))),
    "parasites unknown": ("parasite", "unknown", lambda b: replace(b, parasite=None)),
    "bear": ("parasite", "unknown", lambda b: replace(b, species=("bear",), parasite=Parasite("frozen", -30.0, 90.0, 5.0))),
    "one piece short": ("target_loss", "pending", lambda b: replace(b, pieces=(*b.pieces, HungPiece("J-16-02", 905, 10, 35, ((890.0, 610),))))),
    "never weighed": ("target_loss", "pending", lambda b: replace(b, pieces=(replace(b.pieces[0], weights=()),))),
    "nothing hangs": ("target_loss", "pending", lambda b: replace(b, pieces=())),
}  # fmt: skip
INTACT_FAULTS = {
    "warm in salt": ("cold_cure", "fail", lambda b: replace(b, cure=replace(b.cure, temperature=(*hourly(0, 100, 3), *hourly(101, 106, 6), *hourly(107, 200, 3))))),
    "silent fridge": ("cold_cure", "unknown", lambda b: replace(b, cure=replace(b.cure, temperature=(*hourly(0, 100, 3), *hourly(131, 200, 3))))),
    "log ends early": ("cold_cure", "unknown", lambda b: replace(b, cure=replace(b.cure, temperature=hourly(0, 169, 3)))),
    "no cure known": ("cold_cure", "unknown", lambda b: replace(b, cure=None)),
    "still in salt": ("cold_cure", "pending", lambda b: replace(b, cure=Cure("measured", 0.0, None, hourly(0, 900, 3)))),
    "measured, too little": ("salt", "fail", lambda b: replace(b, bowl=poor(b.bowl, plain_salt_g=30.0))),
    "buried": ("salt", "unknown", lambda b: replace(b, cure=replace(b.cure, way="buried"))),
    "without nitrite": ("nitrite_in", "unknown", lambda b: replace(b, bowl=poor(b.bowl, curing_salt_g=0.0, plain_salt_g=66.0))),
    "nitrate in belly": ("nitrate_in", "fail", lambda b: replace(b, bowl=poor(b.bowl, belly=True, nitrate_fraction=0.04))),
    "European limits": ("nitrite_in", "fail", lambda b: replace(b, profile=shipped()["eu"])),
}  # fmt: skip
FAULTS = [("minced", n, *f) for n, f in MINCED_FAULTS.items()] + [("intact", n, *f) for n, f in INTACT_FAULTS.items()]


def test_good_batches_are_ready() -> None:
    for batch in (minced(), intact(), intact(species=("pork",), parasite=Parasite("frozen", -23.0, 10.0, 15.0))):
        found = judge(batch)
        assert found.ready, found.why
        assert found.why == ()


@pytest.mark.parametrize(("goods", "name", "where", "state", "spoil"), FAULTS, ids=[f"{f[0]}, {f[1]}" for f in FAULTS])
def test_each_fault_is_seen_where_it_is(goods, name, where, state, spoil) -> None:
    bad = spoil(minced() if goods == "minced" else intact())
    assert hurdle(bad, where).state == state
    assert not judge(bad).ready
    assert any(why.startswith(where) for why in judge(bad).why)
    # a signature answers an unknown, and nothing else
    signed = replace(bad, signatures=(Signature(where, "Ida", "asked the authority"),))
    assert hurdle(signed, where).state == state
    others = [
        h
        for h in judge(signed).hurdles
        if h.state in ("fail", "pending", "unknown") and h.name not in (where, "keeping")
    ]
    # game that freezing does not make safe wants a certificate, and no signature
    assert judge(signed).ready == (state == "unknown" and not others and name != "bear")
    assert not judge(replace(bad, signatures=(Signature(where, "Ida", "  "),))).ready


@settings(max_examples=600)
@given(
    st.booleans(), st.sets(st.integers(0, len(FAULTS) - 1), max_size=3), st.floats(16, 26), st.floats(2.1, 4.0),
    st.floats(125, 156), st.floats(35, 45),
)  # fmt: skip
def test_no_bad_batch_is_ever_ready(is_minced, picks, level_c, salt_percent, nitrite, loss) -> None:
    curing_g = nitrite * 5000 / 0.0625 / 1e6
    batch = minced() if is_minced else intact()
    batch = replace(
        batch,
        bowl=Bowl(5000, salt_percent * 50, curing_g, 0.0625, 0.0, False),
        warm=None if batch.warm is None else replace(batch.warm, temperature=hourly(0, 30, level_c)),
        pieces=(HungPiece("A", 1000, 0, 35, ((890.0, 1000 - 10 * loss),)),),
    )
    assert judge(batch).ready, judge(batch).why
    kind = "minced" if is_minced else "intact"
    # one fault a hurdle at most; those that take a whole part away come last
    faults = {f[2]: f for f in (FAULTS[i] for i in picks) if f[0] == kind}
    for _, _, _, _, spoil in sorted(faults.values(), key=lambda f: f[1] in ("nothing weighed", "no cure known")):
        batch = spoil(batch)
    assert judge(batch).ready == (not faults)


@pytest.mark.parametrize(
    ("changes", "name", "state", "caution"),
    [
        ({"mix_temperature_c": 5.5}, "cold_mix", "pass", True),
        ({"bowl": Bowl(5200, 104, 13.0, 0.0625, 0, False)}, "salt", "pass", True),
        ({"bowl": Bowl(5200, 240, 13.0, 0.0625, 0, False)}, "salt", "pass", True),
        ({"bowl": Bowl(5200, 127, 7.0, 0.0625, 0, False)}, "nitrite_in", "pass", True),
        ({"mix_temperature_c": 4.0}, "cold_mix", "pass", False),
    ],
)
def test_cautions(changes, name, state, caution) -> None:
    found = hurdle(minced(**changes), name)
    assert (found.state, found.caution is not None) == (state, caution)


def test_only_a_laboratory_answers_a_fail() -> None:
    slow = MINCED_FAULTS["pH too late"][2](minced())
    assert not judge(slow).ready
    clean = replace(slow, laboratory=(LabValue("staphylococcal_enterotoxin", 0.0),))
    assert judge(clean).ready
    assert hurdle(clean, "degree_hours").known == "laboratory"
    assert not judge(replace(slow, laboratory=(LabValue("staphylococcal_enterotoxin", 1.0),))).ready
    salty = MINCED_FAULTS["too much nitrite"][2](minced())
    assert judge(replace(salty, laboratory=(LabValue("residual_nitrite", 12.0),))).ready
    bare = MINCED_FAULTS["no nitrite"][2](minced())
    assert not judge(replace(bare, laboratory=(LabValue("residual_nitrite", 0.0),))).ready
    assert judge(intact(cure=Cure("buried", 0.0, 200.0, hourly(0, 220, 3)), laboratory=(LabValue("salt", 3.1),))).ready


def test_keeping_is_told_by_the_laboratory_before_the_estimate_and_never_blocks() -> None:
    estimated, measured = (
        hurdle(minced(), "keeping"),
        hurdle(minced(laboratory=(LabValue("water_activity", 0.89),)), "keeping"),
    )
    assert (estimated.known, measured.known) == ("estimated", "laboratory")
    assert measured.value == "keeps unchilled"
    unknown = intact(
        pieces=(HungPiece("A", 1000, 0, 35, ((890.0, 640.0),)),), bowl=None, laboratory=(LabValue("salt", 3),)
    )
    assert hurdle(unknown, "keeping").state == "unknown"
