"""The sheet and what follows from it, worked while it is typed."""

import dataclasses

from fastapi import APIRouter

from zymon.core.bench.families import CURING_SALTS, FAMILIES, SCHOOLS
from zymon.core.errors import OutOfRangeError
from zymon.core.formulation import Part, blend_to_fat
from zymon.formats.recipe_file import SheetModel
from zymon.store.evidence import profile, profiles
from zymon.work.bench import making_schemas as m
from zymon.work.bench import outlook, views
from zymon.work.bench import schemas as s

from ..context import Ctx

router = APIRouter(prefix="/api", tags=["bench"])


@router.get("/bench")
def bench(ctx: Ctx) -> m.BenchOut:
    """What lies on the bench."""
    with ctx.db.reading() as session:
        return views.bench_out(session)


@router.get("/bench/reference")
def reference(ctx: Ctx) -> s.ReferenceOut:
    """Families, curing salts, schools and limit profiles to pick from."""
    with ctx.db.reading() as session:
        limits = profiles(session)
    return s.ReferenceOut(
        families=[s.FamilyOut.model_validate(dataclasses.asdict(f)) for f in FAMILIES],
        curing_salts=[s.CuringSaltOut(**dataclasses.asdict(c)) for c in CURING_SALTS],
        schools={k: [s.SchoolOut(**dataclasses.asdict(v)) for v in vs] for k, vs in SCHOOLS.items()},
        profiles=[
            s.ProfileOut(id=p.id, name=p.name, source=p.source, as_of=p.as_of, check=p.check) for p in limits.values()
        ],
    )


@router.post("/bench/work")
def work_sheet(ctx: Ctx, body: s.WorkIn) -> s.WorkedOut:
    """Work a sheet as it is typed; faults are told at their fields and nothing is stored."""
    with ctx.db.reading() as session:
        limits = profile(session, body.profile)
    return views.worked_out(body.sheet, limits)


@router.post("/bench/blend")
def blend(body: s.BlendIn) -> SheetModel:
    """The sheet with its meat block shifted to a wanted fat share, at the same total."""
    parts = blend_to_fat([Part(p.weight_g, p.fat_percent) for p in body.sheet.parts], body.fat_percent)
    shifted = [
        p.model_copy(update={"weight_g": round(new.weight_g, 1), "bought_g": None})
        for p, new in zip(body.sheet.parts, parts, strict=True)
    ]
    return body.sheet.model_copy(update={"parts": shifted})


@router.post("/bench/scale")
def scale(body: s.ScaleIn) -> SheetModel:
    """The sheet for another weight of meat: everything follows but fixed lines."""
    meat_g = sum(part.weight_g for part in body.sheet.parts)
    if meat_g < 1:  # lighter than any scale tells
        raise OutOfRangeError("refused.no_meat")
    return body.sheet.scaled(body.meat_g / meat_g)


@router.post("/bench/weeks")
def weeks(ctx: Ctx, body: s.WeeksIn) -> s.WeeksOut:
    """How long a piece of this sheet would hang in a place, by the forecast; nothing is stored."""
    return outlook.weeks(ctx, body)
