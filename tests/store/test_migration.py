"""A workshop as the program before left it: every row is there, and what ended a hanging in words became a state."""

import shutil
import sqlite3
from pathlib import Path

import pytest

from support import DATA
from zymon.store.database import Database

OLD = DATA / "workshops" / "revision_0008.db"
NINTH = DATA / "workshops" / "revision_0009.db"
TENTH = DATA / "workshops" / "revision_0010.db"
RENAMED = {("weighing", "confirmed"): "kept"}
MOVED = {("making", "profile")}  # it stands with the batch
TOLD_ANEW = {
    ("lab_result", "what"),
    ("hang_event", "found"),
    ("making", "sheet"),
}  # the same under another word, see below
AS_TEXT = {("correction", "was"), ("correction", "now")}  # casing and shape can be corrected too


def rows(file: Path) -> dict[str, list[dict[str, object]]]:
    with sqlite3.connect(file) as db:
        db.row_factory = sqlite3.Row
        names = [name for (name,) in db.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        return {name: [dict(row) for row in db.execute(f'SELECT * FROM "{name}"')] for name in names}


def brought_up(old: Path, folder: Path) -> tuple[dict, dict]:
    file = folder / "w.db"
    shutil.copy(old, file)
    before = rows(file)
    Database(file).close()
    return before, rows(file)


@pytest.fixture(scope="module")
def both(tmp_path_factory: pytest.TempPathFactory) -> tuple[dict, dict]:
    return brought_up(OLD, tmp_path_factory.mktemp("old"))


@pytest.fixture(scope="module")
def ninth(tmp_path_factory: pytest.TempPathFactory) -> tuple[dict, dict]:
    return brought_up(NINTH, tmp_path_factory.mktemp("ninth"))


@pytest.fixture(scope="module")
def tenth(tmp_path_factory: pytest.TempPathFactory) -> tuple[dict, dict]:
    return brought_up(TENTH, tmp_path_factory.mktemp("tenth"))


def test_a_hold_of_before_keeps_its_words_and_has_no_code(tenth: tuple[dict, dict]) -> None:
    before, after = tenth
    assert len(before["hold"]) == 2
    assert all(hold["says"] is None and "nitrite" in hold["text"] for hold in after["hold"])


@pytest.mark.parametrize("workshop", ["both", "ninth", "tenth"])
def test_no_row_and_no_value_is_lost(workshop: str, request: pytest.FixtureRequest) -> None:
    before, after = request.getfixturevalue(workshop)
    lost = []
    for table, old in before.items():
        if table == "alembic_version":
            continue
        assert len(after[table]) == len(old), table
        for was, now in zip(old, after[table], strict=True):
            for column, value in was.items():
                name = RENAMED.get((table, column), column)
                if (table, column) in MOVED | TOLD_ANEW:
                    continue
                if name not in now:
                    lost.append((table, column, value))
                elif (table, column) in AS_TEXT:
                    assert value is None or float(now[name]) == float(value)
                elif now[name] != value:
                    lost.append((table, column, value, now[name]))
    assert [one for one in lost if one[:2] != ("reading", "source")] == []


def test_how_a_hanging_ended_became_a_state(both: tuple[dict, dict]) -> None:
    before, after = both
    became = {
        "done": ("down", ""), "to rest": ("resting", "unknown"), "cut to check": ("cut", ""),
        "discarded": ("gone", "discarded"),
    }  # fmt: skip
    states = {state["piece_id"]: state for state in after["piece_state"]}
    seen = set()
    for hanging in before["hanging"]:
        reason = (hanging["end_reason"] or "").split(" (")[0]
        ended = next(h for h in after["hanging"] if h["id"] == hanging["id"])["ended_as"]
        if reason not in became:
            assert ended == ("moved" if hanging["to_s"] is not None else None)
            continue
        seen.add(reason)
        state = states[hanging["piece_id"]]
        assert (state["kind"], state["how"]) == became[reason]
        assert state["from_s"] == hanging["to_s"]
        again = [
            h["from_s"] for h in before["hanging"] if h["piece_id"] == hanging["piece_id"] and h["id"] > hanging["id"]
        ]
        assert state["to_s"] == min(again, default=None)  # until it was put back on a hook
        assert (state["struck_s"], state["by"], ended) == (None, "Ida", "down")
    assert seen == set(became)
    assert len(states) == sum((h["end_reason"] or "").split(" (")[0] in became for h in before["hanging"])


def test_a_piece_starts_with_its_batchs_shape_and_casing_and_a_reading_with_its_source(both: tuple[dict, dict]) -> None:
    _, after = both
    batches = {batch["id"]: batch for batch in after["batch"]}
    for piece in (*after["piece"], *after["made_piece"]):
        own = batches[piece["batch_id"]]
        assert (piece["shape"], piece["casing"]) == (own["shape"], own["casing"])
    assert {w["source"] for w in after["weighing"]} <= {"hand", "file", "round", "scale"}
    assert all((w["source"] == "file") == (w["import_id"] is not None) for w in after["weighing"])
    assert any(r["device_id"] is not None for r in after["reading"])
    assert all(r["import_id"] is None or r["device_id"] is None for r in after["reading"])
    assert after["journal_line"] == after["sent"] == []


def test_the_ledger_belongs_to_the_batch_and_says_what_was_measured_of_what(ninth: tuple[dict, dict]) -> None:
    before, after = ninth
    profiles = {row["batch_id"]: row["profile"] for row in before["making"]}
    assert {b["id"]: b["profile"] for b in after["batch"]} == {b["id"]: "us" for b in after["batch"]} | profiles
    assert all((b["use"], b["done_by"]) == ("raw", "weight") for b in after["batch"])
    lab = {(was["what"], was["value"]): now for was, now in zip(before["lab_result"], after["lab_result"], strict=True)}
    for was, now in {
        ("nitrite_in", 140.0): ("nitrite", "mg/kg", "mix"),
        ("residual_nitrite", 30.0): ("nitrite", "mg/kg", "product"),
        ("listeria", 0.0): ("listeria", "in 25 g", "product"),
        ("listeria", 300.0): ("listeria", "cfu/g", "product"),
        ("salmonella", 0.0): ("salmonella", "in 25 g", "product"),
        ("moisture_protein", 1.8): ("moisture_protein", "", "product"),
    }.items():
        assert (lab[was]["what"], lab[was]["unit"], lab[was]["taken_of"]) == now
    felt = [e["found"] for e in after["hang_event"] if e["kind"] == "inspect" and e["found"]]
    assert sum('"firm_core":"yielding"' in f for f in felt) == 2  # neither soft nor hard, and nobody called it firm
    assert not any('"even"' in f for f in felt)
    salted = {row["batch_id"] for row in after["salt_piece"]}
    for making in after["making"]:
        invented = making["batch_id"] in salted and making["weigh_out_id"] is None
        assert ('"curing_known":false' in making["sheet"].replace(" ", "")) == invented
    assert salted
    species = {row["batch_id"]: row["species"] for row in after["parasite_step"]}
    assert set(species.values()) <= {"pork", "beef", "poultry", "venison", "sheep"}
