"""The catalogue: a sentence for every code that the program can send, none besides, and a name for every quantity."""

import ast
import re
from pathlib import Path

import pytest

from zymon.core.errors import OutOfRangeError, require
from zymon.core.say import said
from zymon.words import NAMES, SENTENCES, sentence, told

SOURCE = Path(__file__).resolve().parents[2] / "src" / "zymon"
CODE = re.compile(r"^[a-z]+(\.[a-z_]+)+$")
FAMILIES = {code.split(".")[0] for code in SENTENCES}


def written() -> tuple[set[str], set[str]]:
    """The strings of the sources outside the catalogue and the tables: the whole ones; patterns of composed ones."""
    whole: set[str] = set()
    composed: set[str] = set()
    for file in SOURCE.rglob("*.py"):
        if file.parent.name in ("words", "versions") or file.name.endswith("models.py"):
            continue
        tree = ast.parse(file.read_text())
        joined = [node for node in ast.walk(tree) if isinstance(node, ast.JoinedStr)]
        parts = {id(part) for node in joined for part in node.values}
        composed |= {
            "".join(re.escape(str(p.value)) if isinstance(p, ast.Constant) else r"\w+" for p in node.values)
            for node in joined
        }
        whole |= {
            node.value
            for node in ast.walk(tree)
            if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in parts
        }
    return whole, {pattern for pattern in composed if pattern.split(r"\.")[0] in FAMILIES}


def test_every_code_that_is_written_somewhere_has_its_sentence_and_every_sentence_is_used() -> None:
    whole, composed = written()
    used = {text for text in whole if CODE.match(text) and text.split(".")[0] in FAMILIES}
    assert used - SENTENCES.keys() - {"today.air", "round.ics"} == set()  # the beginning of others; a file
    composed.add(r"today\.air_\w+")
    left = {code for code in SENTENCES if code not in used and not any(re.fullmatch(p, code) for p in composed)}
    assert left == set()


def test_a_quantity_that_a_rule_names_is_in_the_catalogue_of_names() -> None:
    named = set()
    for file in SOURCE.rglob("*.py"):
        for node in ast.walk(ast.parse(file.read_text())):
            if isinstance(node, ast.Call) and ast.unparse(node.func) in ("require", "faults.ok"):
                first = node.args[0 if ast.unparse(node.func) == "require" else 1]
                if isinstance(first, ast.Constant):
                    named.add(first.value)
    assert len(named) > 40
    assert named - NAMES["what"].keys() == set()


def test_an_error_is_a_code_with_values_and_is_told_in_words() -> None:
    with pytest.raises(OutOfRangeError) as caught:
        require("humidity", 120.0, 0.0, 100.0, "%")
    assert caught.value.said == said(
        "refused.not_between", what="humidity", low=0.0, high=100.0, value=120.0, unit=" %"
    )
    assert told(caught.value) == "humidity must be between 0 and 100 %, got 120"


def test_what_has_a_code_of_its_own_is_told_by_its_name() -> None:
    assert sentence(said("against.hurdle", hurdle="core_salt", state="unknown")) == "salt in the core: not known"
    assert sentence(said("refused.two_states", became="resting", was="hanging")) == (
        "it cannot be at rest while it is hanging: check the times"
    )
    assert sentence(said("today.ready", tags="J-1, J-2", more=4)).endswith("J-1, J-2 and 4 more")
