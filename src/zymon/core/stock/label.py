"""What a label says: ingredients by falling weight, as they went in, with their allergens."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from ..bench.sheet import Sheet, Worked
from .allergens import Allergen, allergens_in

SALT, STARTER = "salt", "starter culture"
NITRITE, NITRATE = "sodium nitrite (E 250)", "sodium nitrate (E 251)"


def curing_name(nitrite_fraction: float, nitrate_fraction: float) -> str:
    """What a curing salt is called on a label. Parameters: nitrite_fraction, nitrate_fraction, by mass [-]."""
    agents = [name for name, share in ((NITRITE, nitrite_fraction), (NITRATE, nitrate_fraction)) if share > 0]
    return f"curing salt (salt, {', '.join(agents)})" if agents else SALT


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
        _add(grams, SALT, worked.grams.get("salt", 0.0))
        curing = sheet.curing
        if curing is not None:
            name = curing_name(curing.nitrite_fraction, curing.nitrate_fraction)
            _add(grams, name, worked.grams.get("curing", 0.0))
        for i, line in enumerate(sheet.lines):
            named = STARTER if line.role == "culture" else line.name.strip().lower()
            _add(grams, named, worked.grams.get(f"line-{i}", 0.0))
    return tuple(
        Ingredient(name, g, allergens_in(name, own)) for name, g in sorted(grams.items(), key=lambda x: (-x[1], x[0]))
    )


def _add(grams: dict[str, float], name: str, more_g: float) -> None:
    if more_g > 0:
        grams[name] = grams.get(name, 0.0) + more_g
