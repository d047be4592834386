"""What a label says: ingredients by falling weight, as they went in, with their allergens."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from ..bench.sheet import Sheet, Worked
from .allergens import Allergen, allergens_in

NITRITE, NITRATE = "sodium nitrite (E 250)", "sodium nitrate (E 251)"


@dataclass(frozen=True)
class Ingredient:
    """An ingredient as it is named, how much went in [g], its allergens."""

    name: str
    grams: float
    allergens: tuple[Allergen, ...]


def ingredients(
    mixes: Iterable[tuple[Sheet, Worked, str]], own: Mapping[str, Sequence[Allergen]]
) -> tuple[Ingredient, ...]:
    """The ingredients of some mixes by falling weight; meat by its animal, salts together.

    Parameters: mixes, each a sheet, the same worked out, the animal of its plan; own, words of the maker for allergens.
    """
    grams: dict[str, float] = {}
    for sheet, worked, species in mixes:
        for i, part in enumerate(sheet.parts):
            _add(grams, part.species or species, worked.grams.get(f"meat-{i}", 0.0))
        _add(grams, "salt", worked.grams.get("salt", 0.0))
        curing = sheet.curing
        if curing is not None:
            agents = [name for name, share in ((NITRITE, curing.nitrite_fraction), (NITRATE, curing.nitrate_fraction))
                      if share > 0]  # fmt: skip
            name = f"curing salt (salt, {', '.join(agents)})" if agents else "salt"
            _add(grams, name, worked.grams.get("curing", 0.0))
        for i, line in enumerate(sheet.lines):
            named = "starter culture" if line.role == "culture" else line.name.strip().lower()
            _add(grams, named, worked.grams.get(f"line-{i}", 0.0))
    return tuple(
        Ingredient(name, g, allergens_in(name, own)) for name, g in sorted(grams.items(), key=lambda x: (-x[1], x[0]))
    )


def _add(grams: dict[str, float], name: str, more_g: float) -> None:
    if more_g > 0:
        grams[name] = grams.get(name, 0.0) + more_g
