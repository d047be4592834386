"""Hand-made batches of the second edition: sound ones are ready, careless and ill-meaning ones are not."""

import json
from pathlib import Path

import pytest

from zymon.formats.ledger_file import judge_bytes

FOLDER = Path(__file__).resolve().parents[1] / "data" / "vectors" / "ready"
CASES = json.loads((FOLDER / "expect.json").read_text())["cases"]


@pytest.mark.parametrize("name", CASES)
def test_a_batch_is_judged_as_its_contract_says(name: str) -> None:
    case = CASES[name]
    found = json.loads(judge_bytes((FOLDER / case["file"]).read_bytes()))
    states = {h["name"]: h["state"] for h in found["hurdles"]}
    assert {k: states.get(k) for k in case["states"]} == case["states"]
    assert found["ready"] == case["ready"], found["why"]
    assert found["check"] == "check with your authority"
    assert bool(found["why"]) != found["ready"]
    for hurdle in found["hurdles"]:
        if hurdle["state"] in ("unknown", "pending"):
            assert hurdle["settles"], hurdle["name"]  # no hold without a way out
