"""What went into the pieces of a batch: its mixes, each of its own pieces; what a way of salting makes known of it."""

from collections import defaultdict
from collections.abc import Sequence

from zymon.core import course as core
from zymon.core.bench.sheet import work
from zymon.core.formulation import sodium_chloride_g
from zymon.core.salting.ways import REGISTRY, is_free
from zymon.formats.recipe_file import SheetModel
from zymon.store import salt
from zymon.store.bench_models import Making
from zymon.store.salt_models import SaltPiece

ROUNDED = 1e-4  # of the meat: the Salt shows a dose in hundredths of a percent
Mixes = tuple[tuple[core.Part, ...], tuple[core.Formulation, ...]]


def mixes_of(making: Making, salted: Sequence[SaltPiece]) -> Mixes:
    """Meat and salt of a batch that was made here, by the pieces they are in."""
    first = SheetModel.model_validate_json(making.sheet)
    if not making.mixes:
        return _parts(first, ()), _by_way(first, [one for one in salted if not salt.ended(one)])
    code = making.batch.code
    of_mixes = {p.tag for mix in making.mixes for p in mix.pieces}
    tags = {p.tag for p in making.pieces} | {p.tag for p in making.batch.pieces}
    rows = [(first, tuple(sorted(tags - of_mixes)), code)]
    rows += [
        (SheetModel.model_validate_json(m.sheet), tuple(p.tag for p in m.pieces), f"{code} {m.name}")
        for m in making.mixes
    ]
    if tags:  # of a mix that nothing is tagged of, nothing is judged but what hangs
        rows = [row for row in rows if row[1]]
    named = [(sheet, some or (name,)) for sheet, some, name in rows]
    parts = tuple(part for sheet, some in named for part in _parts(sheet, some))
    return parts, tuple(_formulation(sheet, some) for sheet, some in named)


def _parts(sheet: SheetModel, tags: tuple[str, ...]) -> tuple[core.Part, ...]:
    species = sheet.plan.species
    return tuple(core.Part(p.name, p.species or species, p.weight_g, p.fat_percent, tags) for p in sheet.parts)


def _formulation(
    sheet: SheetModel, tags: tuple[str, ...], percent: float | None = None, weighed: bool = True
) -> core.Formulation:
    """A sheet's salt. Parameters: sheet; tags; percent, sodium chloride in all where the Salt laid another; weighed."""
    meat_g = sum(part.weight_g for part in sheet.parts)
    curing = sheet.curing
    curing_g = meat_g * curing.percent / 100 if curing else 0.0
    nitrite, nitrate = (curing.nitrite_fraction, curing.nitrate_fraction) if curing else (0.0, 0.0)
    plain_g = meat_g * sheet.salt_percent / 100  # as made: the salt stands beside the curing salt
    other_g = work(sheet.to_core()).other_salt_g
    beside_g = sodium_chloride_g(curing_g, nitrite, nitrate) + other_g
    if percent is not None and abs(meat_g * percent / 100 - plain_g - beside_g) > ROUNDED * meat_g:
        plain_g = max(meat_g * percent / 100 - beside_g, 0.0)
    return core.Formulation(
        meat_g=meat_g,
        plain_salt_g=plain_g,
        curing_salt_g=curing_g,
        nitrite_fraction=nitrite,
        nitrate_fraction=nitrate,
        belly=sheet.plan.goods == "belly",
        other_salt_g=other_g,
        curing_known=sheet.curing_known,
        dose_known=sheet.dose_known and weighed,
        curing_salt=curing is not None,
        tags=tags,
    )


def _by_way(sheet: SheetModel, salted: Sequence[SaltPiece]) -> tuple[core.Formulation, ...]:
    """One formulation for the pieces that were salted alike: where the salt lay free, nobody weighed what went in."""
    alike: dict[tuple[bool, float], list[str]] = defaultdict(list)
    for one in salted:
        laid = salt.events(one, "in", "way")
        weighed = all(_weighed(e.way, bool(e.free_salt)) for e in laid)
        alike[weighed, round(laid[-1].percent or 0.0, 3)].append(one.tag)
    if not alike:
        return (_formulation(sheet, ()),)
    alone = len(alike) == 1
    return tuple(
        _formulation(sheet, () if alone else tuple(tags), percent, weighed)
        for (weighed, percent), tags in alike.items()
    )


def _weighed(way: str | None, free_salt: bool) -> bool:
    return way is None or (way in REGISTRY and REGISTRY[way].dose_is_known and not is_free(way, free_salt))
