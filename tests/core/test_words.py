"""The catalogue: a sentence for every code that the program can send, none besides, and a name for every quantity."""

import ast
import re
from pathlib import Path

import pytest

from zymon.core.bench.families import CURING_SALTS, SCHOOLS
from zymon.core.bench.families import FAMILIES as FAMILIES_OF_GOODS
from zymon.core.curing import RULES
from zymon.core.errors import OutOfRangeError, require
from zymon.core.ledger.cold import CORE_SOURCE
from zymon.core.salting.clock import CORE_REACHED
from zymon.core.salting.ways import REGISTRY as WAYS
from zymon.core.say import said
from zymon.core.stock.label import SALT, STARTER, curing_name
from zymon.limits import shipped
from zymon.words import LANGUAGES, Shows, filled, names, sentence, sentences, told

SOURCE = Path(__file__).resolve().parents[2] / "src" / "zymon"
CODE = re.compile(r"^[a-z]+(\.[a-z_]+)+$")
SENTENCES, NAMES = sentences(), names()
FAMILIES = {code.split(".")[0] for code in SENTENCES}


def written() -> tuple[set[str], set[str]]:
    """The strings of the sources outside the catalogue and the tables: the whole ones; patterns of composed ones."""
    whole: set[str] = set()
    composed: set[str] = set()
    for file in SOURCE.rglob("*.py"):
        if file.is_relative_to(SOURCE / "words") or file.parent.name == "versions" or file.name.endswith("models.py"):
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
    whole |= {"and_more"}  # said of tags by the catalogue itself
    used = {text for text in whole if text == "and_more" or (CODE.match(text) and text.split(".")[0] in FAMILIES)}
    assert used - SENTENCES.keys() - {"today.air", "round.ics"} == set()  # the beginning of others; a file
    used |= {f"paper.{code}" for code in whole}  # what stands on paper is named by its code alone
    begun = re.compile("|".join([*composed, r"today\.air_\w+"]))  # the beginning of others
    left = {code for code in SENTENCES if code not in used and not begun.fullmatch(code)}
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


GAP = re.compile(r"\{(-?[\w.]+)(?::(\w+))?(\|[^}]*)?\}")


def gaps(text: str) -> set[tuple[str, str]]:
    """The values that a text names, with how they are written; of a word that goes with a number only the number."""
    return {(name, way) for name, way, words in GAP.findall(text) if not words}


@pytest.mark.parametrize("language", [one for one in LANGUAGES if one != "en"])
def test_every_language_has_every_sentence_and_name_with_the_same_values(language: str) -> None:
    said_so, named = sentences(language), names(language)  # type: ignore[arg-type] # one of them
    assert said_so.keys() == SENTENCES.keys()
    for code, text in SENTENCES.items():
        assert gaps(said_so[code]) == gaps(text), code
        assert bool(said_so[code].strip()) == bool(text.strip()), code
    assert {kind: set(of) for kind, of in named.items() if kind != "text"} == {
        kind: set(of) for kind, of in NAMES.items() if kind != "text"
    }


def texts_of_the_tables() -> set[str]:
    """What the tables of the core and the limits say in English where a page shows it."""
    found = {text for family in FAMILIES_OF_GOODS for text in (family.name, family.before_hanging, family.hanging)}
    found |= {text for salt in CURING_SALTS for text in (salt.name, salt.says)}
    found |= {text for schools in SCHOOLS.values() for school in schools for text in (school.name, school.brings)}
    found |= {text for way in WAYS.values() for text in (way.name, way.says, way.clock, way.waits)}
    found |= {rule.says for rule in RULES.values()} | {f"core at {100 * CORE_REACHED:.0f} % of the level it settles at"}
    for profile in shipped().values():
        found |= {profile.name, profile.check, profile.unchilled, *profile.does_not_know}
    found |= {SALT, STARTER} | {curing_name(nitrite, nitrate) for nitrite in (0, 0.06) for nitrate in (0, 0.04)}
    found |= {"practice", CORE_SOURCE}  # sources that are no document
    return (found | {"Salt"}) - {""}  # salt is on each sheet, and nobody gave it a name


def test_what_the_tables_say_is_said_in_italian_and_nothing_besides() -> None:
    assert names("it")["text"].keys() == texts_of_the_tables()


AMERICAN = Shows(mass="oz", temperature="F", length="in", hours="12")


@pytest.mark.parametrize(
    ("text", "values", "metric", "american"),
    [
        ("{gross_g} on the scale", {"gross_g": 640.0}, "640 g on the scale", "22.58 oz on the scale"),
        ("under {5:c}", {}, "under 5 °C", "under 41 °F"),
        ("{by_c:k} warmer", {"by_c": 2.5}, "2.5 °C warmer", "4.5 °F warmer"),
        ("a ring of {ring_mm}", {"ring_mm": 12.7}, "a ring of 12.7 mm", "a ring of 0.5 in"),
        ("at most {most:kg}", {"most": 60}, "at most 60 kg", "at most 132.3 lb"),
        ("cost {low:per_kg}", {"low": 10}, "cost 10.00/kg", "cost 4.54/lb"),
        ("{low} to {high}{unit}", {"low": 3, "high": 400, "unit": " mm"}, "3 to 400 mm", "0.12 in to 15.75 in"),
        ("{at_s}", {"at_s": 1_791_000_000}, "Sat 3 Oct 2026 04:00", "Sat 3 Oct 2026 4:00 AM"),
        ("{on_day_s}", {"on_day_s": 1_791_000_000}, "Sat 3 Oct 2026", "Sat 3 Oct 2026"),
    ],
)
def test_values_are_written_in_the_units_of_the_reader(text: str, values: dict, metric: str, american: str) -> None:
    assert filled(text, values, Shows()) == metric
    assert filled(text, values, AMERICAN).replace("\u202f", " ") == american


def test_words_go_with_the_plural_of_a_number_and_marks_with_the_language() -> None:
    text = "{n} {n|pezzo|pezzi}, {ph}"
    assert filled(text, {"n": 1, "ph": 5.3}, Shows("it")) == "1 pezzo, 5,3"
    assert filled(text, {"n": 0, "ph": 5.0}, Shows("it")) == "0 pezzi, 5"
    assert sentence(said("today.ready", tags="J-1, J-2", more=4), shows=Shows("it")).endswith("J-1, J-2 e 4 in più")


def test_limits_keep_one_unit_for_whoever_reads_metric() -> None:
    values = {"what": "tare", "low": 3.5, "high": 400, "unit": " mm", "value": 2}
    assert sentence(said("refused.not_between", **values), shows=Shows("it")) == (
        "la tara deve stare fra 3,5 e 400 mm, qui 2"
    )
