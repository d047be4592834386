"""Recipes: versions with their reasons, compared, sent and read back."""

from typing import Annotated

from fastapi import APIRouter, File, Query, Response, UploadFile

from zymon.formats.recipe_file import MAX_RECIPE_BYTES, RecipeFile, read_recipe
from zymon.work.bench import recipes as work
from zymon.work.bench import schemas as s

from ..attachment import attachment
from ..context import Ctx, Id

router = APIRouter(prefix="/api", tags=["bench"])
Version = Annotated[int, Query(ge=1, le=100_000)]


@router.get("/recipes")
def recipes(ctx: Ctx) -> list[s.RecipeOut]:
    """All recipes with their versions."""
    return work.recipes(ctx)


@router.post("/recipes", status_code=201)
def add_recipe(ctx: Ctx, body: s.RecipeIn) -> s.RecipeOut:
    """Keep a sheet under a name."""
    return work.add(ctx, body)


@router.post("/recipes/{recipe_id}/versions", status_code=201)
def add_version(ctx: Ctx, recipe_id: Id, body: s.VersionIn) -> s.RecipeOut:
    """A new version of a recipe, with the reason for the change; 409 where somebody saved another meanwhile."""
    return work.change(ctx, recipe_id, body)


@router.get("/recipes/{recipe_id}/compare")
def compare_versions(ctx: Ctx, recipe_id: Id, before: Version, after: Version) -> list[s.DifferenceOut]:
    """Two versions of a recipe line by line."""
    return work.differences(ctx, recipe_id, before, after)


@router.get("/recipes/{recipe_id}/file", response_class=Response)
def recipe_file(ctx: Ctx, recipe_id: Id, version: Version) -> Response:
    """A version as a recipe file."""
    data, name = work.as_file(ctx, recipe_id, version)
    return Response(data, media_type="application/json", headers=attachment(name))


@router.post("/recipes/read")
async def read_recipe_file(file: Annotated[UploadFile, File()]) -> RecipeFile:
    """Read a recipe file onto the sheet; nothing is stored."""
    return read_recipe(await file.read(MAX_RECIPE_BYTES + 1))
