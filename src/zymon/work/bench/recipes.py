"""Recipes: kept, changed with a reason, compared; a change begun from an older version is told of the newer one."""

from zymon.core.bench.compare import compare
from zymon.formats.recipe_file import RecipeFile, write_recipe
from zymon.store import bench as store
from zymon.store.places import NotFoundError

from ..premises import Premises
from ..schemas import said_out
from . import schemas as s
from . import views


def recipes(shop: Premises) -> list[s.RecipeOut]:
    """All recipes with their versions."""
    with shop.db.reading() as session:
        return [views.recipe_out(r) for r in store.recipes(session)]


def recipe(shop: Premises, recipe_id: int) -> s.RecipeOut:
    """One recipe with its versions."""
    with shop.db.reading() as session:
        return views.recipe_out(store.recipe(session, recipe_id))


def add(shop: Premises, body: s.RecipeIn) -> s.RecipeOut:
    """Keep a sheet under a name."""
    with shop.recording(body, f"recipe {body.name}"[:60]) as entry:
        if entry.new:
            made = store.add_recipe(
                entry.session, body.name, body.sheet.model_dump_json(), body.reason, body.by, entry.at(body.at)
            )
            entry.came("recipe", made.id)
    return recipe(shop, entry.made[0].id)


def change(shop: Premises, recipe_id: int, body: s.VersionIn) -> s.RecipeOut:
    """A new version of a recipe, with the reason for the change. Raises ChangedMeanwhileError."""
    with shop.recording(body, f"version of {recipe_id}") as entry:
        if entry.new:
            made = store.add_version(
                entry.session, recipe_id, body.base, body.sheet.model_dump_json(), body.reason, body.by,
                entry.at(body.at),
            )  # fmt: skip
            entry.came("recipe_version", made.id)
    return recipe(shop, recipe_id)


def _version(recipe_out: s.RecipeOut, number: int) -> s.VersionOut:
    found = next((v for v in recipe_out.versions if v.number == number), None)
    if found is None:
        raise NotFoundError("refused.no_such_version", name=recipe_out.name, number=number)
    return found


def differences(shop: Premises, recipe_id: int, before: int, after: int) -> list[s.DifferenceOut]:
    """Two versions of a recipe line by line."""
    of = recipe(shop, recipe_id)
    found = compare(_version(of, before).sheet.to_core(), _version(of, after).sheet.to_core())
    return [
        s.DifferenceOut(
            what=said_out(one.what),
            was=None if one.was is None else said_out(one.was),
            now=None if one.now is None else said_out(one.now),
        )
        for one in found
    ]


def as_file(shop: Premises, recipe_id: int, number: int) -> tuple[bytes, str]:
    """A version as a recipe file, and a name for it."""
    of = recipe(shop, recipe_id)
    found = _version(of, number)
    data = write_recipe(RecipeFile(name=of.name, version=number, reason=found.reason, sheet=found.sheet))
    return data, f"{of.name}-{number}.json"
