"""Docstrings and documents that must agree with the code."""

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
