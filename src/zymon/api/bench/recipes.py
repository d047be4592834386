"""Recipes: versions with their reasons, compared, sent and read back."""

import dataclasses
from typing import Annotated

from fastapi import APIRouter, File, Query, Response, UploadFile

from zymon.core.bench.compare import compare
from zymon.formats.recipe_file import MAX_RECIPE_BYTES, RecipeFile, read_recipe, write_recipe
from zymon.store import bench as store
from zymon.store.places import NotFoundError

from ..context import Ctx, Id
from . import schemas as s
from . import views
from .shared import attachment

router = APIRouter(prefix="/api", tags=["bench"])


@router.get("/recipes")
def recipes(ctx: Ctx) -> list[s.RecipeOut]:
    """All recipes with their versions."""
    with ctx.db.reading() as session:
        return [views.recipe_out(r) for r in store.recipes(session)]


@router.post("/recipes", status_code=201)
def add_recipe(ctx: Ctx, body: s.RecipeIn) -> s.RecipeOut:
    """Keep a sheet under a name."""
    with ctx.db.writing() as session:
        made = store.add_recipe(session, body.name, body.sheet.model_dump_json(), body.reason, body.by, ctx.now_s)
        return views.recipe_out(made)


@router.post("/recipes/{recipe_id}/versions", status_code=201)
def add_version(ctx: Ctx, recipe_id: Id, body: s.VersionIn) -> s.RecipeOut:
    """A new version of a recipe, with the reason for the change."""
    with ctx.db.writing() as session:
        store.add_version(session, recipe_id, body.sheet.model_dump_json(), body.reason, body.by, ctx.now_s)
        return views.recipe_out(store.recipe(session, recipe_id))


Version = Annotated[int, Query(ge=1, le=100_000)]


def _version(recipe: s.RecipeOut, number: int) -> s.VersionOut:
    found = next((v for v in recipe.versions if v.number == number), None)
    if found is None:
        raise NotFoundError(f"{recipe.name} has no version {number}")
    return found


def _recipe(ctx: Ctx, recipe_id: int) -> s.RecipeOut:
    with ctx.db.reading() as session:
        return views.recipe_out(store.recipe(session, recipe_id))


@router.get("/recipes/{recipe_id}/compare")
def compare_versions(ctx: Ctx, recipe_id: Id, before: Version, after: Version) -> list[s.DifferenceOut]:
    """Two versions of a recipe line by line."""
    of = _recipe(ctx, recipe_id)
    found = compare(_version(of, before).sheet.to_core(), _version(of, after).sheet.to_core())
    return [s.DifferenceOut(**dataclasses.asdict(d)) for d in found]


@router.get("/recipes/{recipe_id}/file", response_class=Response)
def recipe_file(ctx: Ctx, recipe_id: Id, version: Version) -> Response:
    """A version as a recipe file."""
    of = _recipe(ctx, recipe_id)
    found = _version(of, version)
    data = write_recipe(RecipeFile(name=of.name, version=version, reason=found.reason, sheet=found.sheet))
    return Response(data, media_type="application/json", headers=attachment(f"{of.name}-{version}.json"))


@router.post("/recipes/read")
async def read_recipe_file(file: Annotated[UploadFile, File()]) -> RecipeFile:
    """Read a recipe file onto the sheet; nothing is stored."""
    return read_recipe(await file.read(MAX_RECIPE_BYTES + 1))
