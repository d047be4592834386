"""The recipe file, `zymon-recipe/1`: a sheet and what is to become of it, to keep, send and read back."""

from collections.abc import Mapping
from typing import Annotated, Any, Literal

import orjson
from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from zymon.core.bench import sheet as core
from zymon.core.bench import weighing
from zymon.core.bench.consequences import Plan
from zymon.core.bench.families import SaltingWay, Surface, Warm
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.formulation import LineBasis, SaltBasis
from zymon.core.ledger.batch import DoneBy, Use
from zymon.core.limits import Goods
from zymon.core.planning.amounts import LossBasis

from .hang_file import fault_words, place_of
from .texts import LINES, ONE_LINE

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80), ONE_LINE]
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300), LINES]
# Any finite number: what it may be is judged with the sheet, at its field, so that a slip disturbs nothing else
Number = Annotated[float, Field(allow_inf_nan=False)]
# pork until it is said: then the parasite step is asked for
Species = Literal[
    "pork", "wild boar", "bear", "walrus", "horse", "beef", "veal", "venison", "sheep", "goat", "poultry", "rabbit",
    "other",
]  # fmt: skip
MAX_RECIPE_BYTES = 200_000


class RecipeFileError(ValueError):
    """A recipe file that cannot be read, in words, with the place in the file."""


class _Open(BaseModel):
    model_config = ConfigDict(extra="ignore")


class SheetPart(_Open):
    """A part of the meat block."""

    name: Name
    weight_g: Number
    fat_percent: Number
    price_per_kg: Number | None = None
    bought_g: Number | None = None
    lot: Annotated[str, StringConstraints(strip_whitespace=True, max_length=40), ONE_LINE] = ""
    species: Species | None = None  # None: that of the plan


class SheetLine(_Open):
    """A line besides salt and curing salt; amount in its basis: % of the meat, g per kg, or g."""

    name: Name
    role: core.Role = "spice"
    basis: LineBasis = "percent"
    amount: Number
    price_per_kg: Number | None = None
    note: Note = ""
    salt_percent: Number = 0.0  # common salt in it


class SheetCuring(_Open):
    """The curing salt: percent of the meat, and its sodium nitrite and nitrate as parts of 1."""

    name: Name
    percent: Number
    nitrite_fraction: Number
    nitrate_fraction: Number
    by_spoon: bool = False


class SheetPlan(_Open):
    """What is to become of it: family, salting, warm stage, shape, target."""

    family: Annotated[str, StringConstraints(max_length=40), ONE_LINE]
    goods: Goods
    species: Species = "pork"
    kind: Kind
    shape: Shape
    casing: Casing
    salting: SaltingWay
    warm: Warm
    surface: Surface = "leave"
    loss_basis: LossBasis = "hung"
    target_loss_percent: Annotated[float, Field(gt=0, le=80)]
    across_mm: Annotated[float, Field(gt=0, le=600)]
    piece_g: Annotated[float, Field(gt=0, le=200_000)]
    use: Use = "raw"
    done_by: DoneBy = "weight"

    def to_core(self) -> Plan:
        """The plan as the rules see it."""
        return Plan(
            goods=self.goods,
            warm=self.warm,
            target_loss_percent=self.target_loss_percent,
            across_mm=self.across_mm,
            piece_g=self.piece_g,
            cased=self.casing not in ("none", "coating", "cloth"),
        )


class SheetModel(_Open):
    """The sheet with its plan."""

    parts: Annotated[list[SheetPart], Field(max_length=12)]
    salt_percent: Number
    salt_basis: SaltBasis = "exact"
    curing: SheetCuring | None = None
    curing_known: bool = True  # false: nobody said whether curing salt went in
    dose_known: bool = True  # false: salt that nobody weighed
    lines: Annotated[list[SheetLine], Field(max_length=40)] = []
    plan: SheetPlan
    note: Annotated[str, StringConstraints(max_length=2000), LINES] = ""

    def to_core(self) -> core.Sheet:
        """The sheet as the rules see it."""
        return core.Sheet(
            parts=tuple(core.MeatPart(**part.model_dump()) for part in self.parts),
            salt_percent=self.salt_percent,
            salt_basis=self.salt_basis,
            curing=None if self.curing is None else core.CuringChoice(**self.curing.model_dump()),
            lines=tuple(core.Line(**line.model_dump()) for line in self.lines),
        )

    def as_made(self, poured: Mapping[str, float]) -> "SheetModel":
        """The sheet with what really went in [g], by the keys of its things."""
        made = weighing.as_made(self.to_core(), poured)
        curing = None
        if self.curing is not None and made.curing is not None:
            curing = self.curing.model_copy(update={"percent": made.curing.percent})
        return self.model_copy(
            update={
                "parts": [SheetPart(**vars(part)) for part in made.parts],
                "salt_percent": made.salt_percent,
                "salt_basis": made.salt_basis,
                "curing": curing,
                "lines": [SheetLine(**vars(line)) for line in made.lines],
            }
        )

    def scaled(self, factor: float) -> "SheetModel":
        """The same sheet for more or less meat."""
        made = core.scaled(self.to_core(), factor)
        parts = [SheetPart(**vars(part)) for part in made.parts]
        lines = [SheetLine(**vars(line)) for line in made.lines]
        return self.model_copy(update={"parts": parts, "lines": lines})


class RecipeFile(_Open):
    """A recipe as a file."""

    format: Literal["zymon-recipe/1"] = "zymon-recipe/1"
    name: Name
    version: Annotated[int, Field(ge=1)] = 1
    reason: Note = ""
    sheet: SheetModel


def read_recipe(data: bytes) -> RecipeFile:
    """Read a recipe file. Raises RecipeFileError, naming the place in the file."""
    if len(data) > MAX_RECIPE_BYTES:
        raise RecipeFileError("this file is too large to be a recipe")
    try:
        raw: Any = orjson.loads(data)
    except orjson.JSONDecodeError as error:
        raise RecipeFileError(f"not JSON: {error}") from error
    if not isinstance(raw, Mapping) or raw.get("format") != "zymon-recipe/1":
        raise RecipeFileError('format: must be "zymon-recipe/1"')
    try:
        return RecipeFile.model_validate(raw)
    except ValidationError as error:
        fault = error.errors()[0]
        raise RecipeFileError(f"{place_of(fault['loc'])}: {fault_words(fault)}") from error


def write_recipe(recipe: RecipeFile) -> bytes:
    """A recipe file, readable by people too."""
    return orjson.dumps(recipe.model_dump(), option=orjson.OPT_INDENT_2) + b"\n"
