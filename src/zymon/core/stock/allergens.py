"""Allergens by the words of an ingredient's name: a shipped list that a maker can add words to."""

import re
import tomllib
from collections.abc import Mapping, Sequence
from importlib.resources import files
from typing import Literal

Allergen = Literal[
    "gluten", "crustaceans", "egg", "fish", "peanut", "soy", "milk", "nuts", "celery", "mustard", "sesame", "sulphites",
    "lupin", "molluscs",
]  # fmt: skip


def _read() -> tuple[dict[Allergen, tuple[str, ...]], dict[Allergen, tuple[str, ...]]]:
    data = tomllib.loads((files("zymon.core.stock") / "allergens.toml").read_text("utf-8"))
    words: dict[Allergen, tuple[str, ...]] = {}
    but: dict[Allergen, tuple[str, ...]] = {}
    for name, one in data.items():
        words[name], but[name] = tuple(one["words"]), tuple(one.get("except", ()))  # type: ignore[index] # tested
    return words, but


WORDS, EXCEPT = _read()


def allergens_in(name: str, own: Mapping[str, Sequence[Allergen]]) -> tuple[Allergen, ...]:
    """The allergens that the name of an ingredient means, in the order of the list.

    Parameters: name, as the maker calls it; own, words of the maker with what they mean.

    >>> allergens_in("Skim milk powder", {}), allergens_in("Coconut milk", {}), allergens_in("Gin", {})
    (('milk',), (), ())
    """
    spelt = " ".join(name.lower().split())
    found = [
        allergen
        for allergen, words in WORDS.items()
        if any(_has(_without(spelt, EXCEPT[allergen]), word) for word in words)
    ]
    added = {allergen for word, meant in own.items() if _has(spelt, word.lower()) for allergen in meant}
    return tuple(a for a in WORDS if a in found or a in added)


def _without(text: str, phrases: tuple[str, ...]) -> str:
    """A text without what means nothing in it: what stands beside that still counts."""
    for phrase in phrases:
        text = text.replace(phrase, " ")
    return text


def _has(text: str, word: str) -> bool:
    return re.search(rf"\b{re.escape(word)}", text) is not None
