"""A sheet for muscles that never lay on the Bench: their weights, and the rest as their family has it."""

from zymon.core.bench.families import CURING_SALTS, Family, SaltingWay

from .recipe_file import SheetCuring, SheetModel, SheetPart, SheetPlan


def family_sheet(
    family: Family, product: str, weights_g: list[float], across_mm: float, way: SaltingWay, salt_percent: float
) -> SheetModel:
    """The sheet of a family for given muscles.

    Parameters: family; product, what it is called; weights_g [g], trimmed; across_mm [mm]; way; salt_percent [%].
    """
    curing = next((c for c in CURING_SALTS if c.id == family.curing_salt), None)
    return SheetModel(
        parts=[SheetPart(name=product, weight_g=sum(weights_g), fat_percent=family.fat_percent)],
        salt_percent=salt_percent,
        curing=None
        if curing is None
        else SheetCuring(
            name=curing.name,
            percent=family.curing_salt_percent,
            nitrite_fraction=curing.nitrite_fraction,
            nitrate_fraction=curing.nitrate_fraction,
        ),
        plan=SheetPlan(
            family=family.id,
            goods="belly" if family.belly else "intact",
            species=family.species,  # type: ignore[arg-type] # of the registry
            kind=family.kind,
            shape=family.shape,
            casing=family.casing,
            salting=way,
            warm="none",
            surface=family.surface,
            target_loss_percent=family.target_loss_percent,
            across_mm=across_mm,
            piece_g=weights_g[0],
        ),
    )
