"""A sheet for muscles that never lay on the Bench: weights, what went in as it was said, a family for the rest."""

from dataclasses import dataclass

from zymon.core.bench.families import Family, SaltingWay

from .recipe_file import SheetCuring, SheetModel, SheetPart, SheetPlan, Species


@dataclass(frozen=True)
class SaidOfSalt:
    """What somebody said of the salt: the curing salt in it, whether that is known, whether it was weighed."""

    curing: SheetCuring | None
    curing_known: bool
    dose_known: bool


def family_sheet(
    family: Family,
    product: str,
    weights_g: list[float],
    across_mm: float,
    way: SaltingWay,
    salt_percent: float,
    said: SaidOfSalt,
    species: Species | None = None,
) -> SheetModel:
    """The sheet of a family for given muscles; the salt is as it was said, never the family's.

    Parameters: family; product, what it is called; weights_g [g], trimmed; across_mm [mm]; way; salt_percent [%],
    beside any curing salt; said; species, None for the family's.
    """
    return SheetModel(
        parts=[SheetPart(name=product, weight_g=sum(weights_g), fat_percent=family.fat_percent)],
        salt_percent=salt_percent,
        salt_basis="on_top",
        curing=said.curing,
        curing_known=said.curing_known,
        dose_known=said.dose_known,
        plan=SheetPlan(
            family=family.id,
            goods="belly" if family.belly else "intact",
            species=species or family.species,  # type: ignore[arg-type] # of the registry
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
