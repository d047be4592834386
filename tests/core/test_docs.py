"""Docstrings and documents that must agree with the code."""

import ast
import importlib
import inspect
import pkgutil
from pathlib import Path

import pytest

import zymon.core
from zymon.settings import Settings

ROOT = Path(__file__).resolve().parents[2]
MODULES = [
    importlib.import_module(m.name) for m in pkgutil.walk_packages(zymon.core.__path__, "zymon.core.") if not m.ispkg
]
CORE = [one for one in sorted((ROOT / "src/zymon/core").rglob("*.py")) if one.name != "__init__.py"]
FUNCTIONS = [
    (f"{module.__name__}.{name}", function)
    for module in MODULES
    for name, function in inspect.getmembers(module, inspect.isfunction)
    if function.__module__ == module.__name__ and not name.startswith("_")
]


@pytest.mark.parametrize(("name", "function"), FUNCTIONS, ids=[n for n, _ in FUNCTIONS])
def test_every_parameter_of_the_core_is_told(name: str, function) -> None:
    text = inspect.getdoc(function) or ""
    missing = [p for p in inspect.signature(function).parameters if p not in text]
    assert not missing, f"{name} says nothing of {missing}"


def test_every_parameter_stands_in_the_glossary() -> None:
    glossary = (ROOT / "src/zymon/core/glossary.md").read_text()
    names = {p for _, f in FUNCTIONS for p in inspect.signature(f).parameters}
    assert not sorted(n for n in names if f"`{n}`" not in glossary)


def test_every_setting_is_told() -> None:
    text = (ROOT / "docs/settings.md").read_text()
    for name, field in Settings.model_fields.items():
        assert f"`ZYMON_{name.upper()}`" in text
        assert field.description in text


@pytest.mark.parametrize(("name", "function"), FUNCTIONS, ids=[n for n, _ in FUNCTIONS])
def test_every_refusal_of_the_core_is_told(name: str, function) -> None:
    refuses = any(line.strip().startswith("raise ") for line in inspect.getsource(function).splitlines())
    assert not refuses or "Raises" in (inspect.getdoc(function) or ""), f"{name} does not say what it raises"


#: What needs no word: so many seconds are a day.
PLAIN = {"SECONDS_PER_DAY", "HOUR_S", "DAY_S", "YEAR_S"}


def unexplained(text: str) -> list[str]:
    """Names of the module's figures with no word beside or above them that says what they are and where from."""
    lines = text.splitlines()
    found = []
    for node in ast.parse(text).body:
        if not isinstance(node, ast.Assign | ast.AnnAssign) or node.value is None:
            continue
        first = node.targets[0] if isinstance(node, ast.Assign) else node.target
        name = ast.unparse(first.elts[0] if isinstance(first, ast.Tuple) else first)
        figures = [
            one for one in ast.walk(node.value) if isinstance(one, ast.Constant) and isinstance(one.value, float)
        ]
        if not name.isupper() or name in PLAIN or not figures:
            continue
        above = node.lineno - 2
        while above >= 0 and lines[above] and not lines[above].startswith("#"):
            above -= 1  # a word stands for all the lines beneath it, up to an empty one
        beside = any(
            "  # " in line and not line.endswith("# fmt: skip") for line in lines[node.lineno - 1 : node.end_lineno]
        )
        if not beside and not (above >= 0 and lines[above].startswith("#")):
            found.append(name)
    return found


@pytest.mark.parametrize("path", CORE, ids=[str(path.relative_to(ROOT)) for path in CORE])
def test_no_figure_of_the_core_stands_without_a_word(path: Path) -> None:
    assert unexplained(path.read_text()) == []


TOLD_AND_BARE = """
A = 1.5

B = 2.5  # percent; usual practice

# of the meat
C, D = 0.5, 0.1
"""


def test_a_bare_figure_is_noticed() -> None:
    assert unexplained(TOLD_AND_BARE) == ["A"]
