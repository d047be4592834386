"""What a sheet will mean: against the limits, in the acid, after drying, in casing, hooks and money."""

from dataclasses import dataclass
from typing import Literal

from ..drying.feel import Firmness, feels
from ..errors import OutOfRangeError
from ..formulation import BUFFER_MMOL_PER_KG_PER_PH, acid_ceiling, cost_per_kg, pieces_from
from ..limits import Goods, LimitProfile, over_limit
from ..pieces import filled_length
from ..say import Said, said
from ..water import (
    DRY_IN_LEAN,
    PROTEIN_IN_LEAN,
    WATER_IN_LEAN,
    KeepClass,
    brine_in_meat,
    keep_class,
    meat_water_activity,
)
from .families import Warm
from .sheet import Sheet, Worked
from .sugars import dextrose_percent, not_dextrose

Standing = Literal["pass", "caution", "fail"]

WATER_IN_WINE = 0.87  # mass fraction; usual of dry wine
SMALL_REST = 0.2  # of a piece: so little makes no piece of its own; practice
LOWEST_POSSIBLE_PH = 4.3  # no culture sours meat below it: its acid stops it; usual practice
MOST_SUGAR_PER_KG = 100.0  # g; beyond it the sum is of no use
START_PH = 5.8  # usual of fresh pork and beef
LITTLE_PROTECTION_MG_PER_KG = 100.0  # ingoing nitrite beneath which little protection is usually counted on
SALT_LEAST_PERCENT, SALT_USUAL_PERCENT, SALT_MOST_PERCENT = 2.0, 2.5, 4.5  # of the meat; usual practice of dried goods
TIE_MM, SPARE_SHARE = 80.0, 0.10  # casing for knots and loop; and for bursts and short ends
LOSSES = (30.0, 35.0, 40.0)  # percent; the losses that recipes usually name
SALT_CAUTIONS = {
    "gauge.salt_too_little": "bench.salt_too_little",
    "gauge.salt_little": "bench.salt_little",
    "gauge.salt_much": "bench.salt_much",
}


@dataclass(frozen=True)
class Plan:
    """What is to become of the bowl."""

    goods: Goods
    warm: Warm
    target_loss_percent: float
    across_mm: float
    piece_g: float
    cased: bool


@dataclass(frozen=True)
class Figure:
    """A figure with where it comes from."""

    name: str
    value: float
    unit: Said
    formula: Said
    inputs: Said
    source: Said


@dataclass(frozen=True)
class AcidBound:
    """How far the sugar can sour the goods. `instead`: said where no pH can be so low; `notes`: taken as usual."""

    figure: Figure
    instead: Said | None
    notes: tuple[Said, ...]


@dataclass(frozen=True)
class Gauge:
    """A figure against the limit of the chosen profile."""

    figure: Figure
    limit: float
    standing: Standing
    says: Said


@dataclass(frozen=True)
class Outlook:
    """The goods after a loss, by estimate."""

    loss_percent: float
    water_activity: float
    water_activity_sd: float
    water_phase_salt_percent: float
    moisture_protein_ratio: float
    firmness: Firmness
    keeps: KeepClass


@dataclass(frozen=True)
class Caution:
    """Something to be said where it happens. A hold keeps the batch red until it is answered."""

    where: str
    says: Said
    hold: bool
    source: Said


@dataclass(frozen=True)
class Consequences:
    """All that follows from a sheet and a plan."""

    salt: Gauge
    nitrite: Gauge
    nitrate: Gauge
    acid: AcidBound | None
    outlooks: tuple[Outlook, ...]
    casing_mm: float | None
    pieces: int
    finished_g: float
    cost: float | None
    cost_per_finished_kg: float | None
    cautions: tuple[Caution, ...]


def consequences(sheet: Sheet, worked: Worked, plan: Plan, profile: LimitProfile) -> Consequences | None:
    """What a worked sheet will mean; None while meat, salt or curing salt are in trouble.

    Parameters: sheet; worked, the same sheet worked out; plan; profile, of limits.
    """
    made = worked.formulation
    if made is None:
        return None
    salt, nitrite, nitrate = _gauges(sheet, worked, plan.goods, profile)
    acid = _acid(sheet, worked) if plan.goods == "minced" else None
    end_ph = max(acid.figure.value, 4.9) if acid is not None and plan.warm == "culture" else None
    losses = sorted({*LOSSES, plan.target_loss_percent})
    outlooks = [o for o in (_outlook(sheet, worked, loss, end_ph) for loss in losses) if o is not None]
    pieces = pieces_of(worked, plan)
    casing_mm = None
    if plan.cased:
        casing_mm = casing_length(worked.total_g, plan.across_mm, pieces)
    finished_g = worked.total_g * (1 - plan.target_loss_percent / 100)
    cost = ingredients_cost(sheet, worked)
    return Consequences(
        salt=salt,
        nitrite=nitrite,
        nitrate=nitrate,
        acid=acid,
        outlooks=tuple(outlooks),
        casing_mm=casing_mm,
        pieces=pieces,
        finished_g=finished_g,
        cost=cost,
        cost_per_finished_kg=None if cost is None or finished_g <= 0 else cost_per_kg(cost, finished_g),
        cautions=_cautions(sheet, worked, plan, (salt, nitrite, nitrate), profile),
    )


def casing_length(total_g: float, across_mm: float, pieces: int) -> float:
    """Casing for a bowl with its knots and a spare for bursts and short ends [mm].

    Parameters: total_g [g], of what is filled; across_mm [mm], filled; pieces [-].
    """
    return (filled_length(total_g, across_mm) + pieces * TIE_MM) * (1 + SPARE_SHARE)


def pieces_of(worked: Worked, plan: Plan) -> int:
    """How many pieces come of it: of whole meat by its own weight, of mince by the bowl; a small rest joins others.

    Parameters: worked, the sheet worked out; plan.
    """
    mass_g = worked.total_g if plan.goods == "minced" else worked.meat_g
    return pieces_from(max(mass_g - SMALL_REST * plan.piece_g, 1e-6), plan.piece_g)


def _gauges(sheet: Sheet, worked: Worked, goods: Goods, profile: LimitProfile) -> tuple[Gauge, Gauge, Gauge]:
    made = worked.formulation
    assert made is not None
    chloride = worked.sodium_chloride_percent
    standing: Standing = "pass"
    says = "gauge.usual"
    if chloride < SALT_LEAST_PERCENT:
        standing, says = "fail", "gauge.salt_too_little"
    elif goods == "minced" and chloride < SALT_USUAL_PERCENT:
        standing, says = "caution", "gauge.salt_little"
    elif chloride > SALT_MOST_PERCENT:
        standing, says = "caution", "gauge.salt_much"
    salt = Gauge(
        Figure(
            "salt",
            chloride,
            said("unit.percent_of_meat"),
            said("formula.chloride"),
            said(
                "inputs.salt",
                salt_g=round(made.plain_salt_g, 1),
                curing_g=round(made.curing_salt_g, 2),
                meat_g=round(worked.meat_g),
            ),
            said("source.computed"),
        ),
        SALT_LEAST_PERCENT,
        standing,
        said(says),
    )
    nitrite, nitrate = (_ingoing(name, sheet, worked, goods, profile) for name in ("nitrite", "nitrate"))
    return salt, nitrite, nitrate


def _ingoing(
    name: Literal["nitrite", "nitrate"], sheet: Sheet, worked: Worked, goods: Goods, profile: LimitProfile
) -> Gauge:
    made, curing = worked.formulation, sheet.curing
    assert made is not None
    as_ion, limits = profile.counted_as == "ion", profile.ingoing(goods)
    salt_mg, ion_mg, limit = (
        (made.nitrite_mg_per_kg_meat, made.nitrite_ion_mg_per_kg_meat, limits.nitrite_mg_per_kg)
        if name == "nitrite"
        else (made.nitrate_mg_per_kg_meat, made.nitrate_ion_mg_per_kg_meat, limits.nitrate_mg_per_kg)
    )
    value = ion_mg if as_ion else salt_mg
    standing: Standing = "pass"
    says = "gauge.within"
    if over_limit(value, limit):
        standing, says = "fail", "gauge.over"
    elif name == "nitrite" and goods == "minced" and salt_mg <= 0:
        standing, says = "fail", "gauge.none_in_mince"
    elif name == "nitrite" and goods == "minced" and salt_mg < LITTLE_PROTECTION_MG_PER_KG:
        standing, says = "caution", "gauge.little_protection"
    elif value <= 0:
        says = "gauge.none"
    inputs = said(
        "inputs.curing_salt",
        curing_g=round(made.curing_salt_g, 2),
        nitrite_percent=100 * curing.nitrite_fraction if curing else 0.0,
        nitrate_percent=100 * curing.nitrate_fraction if curing else 0.0,
        meat_g=round(worked.meat_g),
    )
    unit = said("unit.mg_per_kg_ion" if as_ion else "unit.mg_per_kg_salt")
    formula = said("formula.ingoing_ion" if as_ion else "formula.ingoing")
    figure = Figure(name, value, unit, formula, inputs, said("source.as_said", source=profile.source))
    return Gauge(figure, limit, standing, said(says))


def _acid(sheet: Sheet, worked: Worked) -> AcidBound | None:
    per_kg = 10 * dextrose_percent(sheet.lines, worked.grams, worked.meat_g)
    if not per_kg > 0:
        return None
    made = acid_ceiling(min(per_kg, MOST_SUGAR_PER_KG), START_PH)
    possible = made.end_ph_if_all_used >= LOWEST_POSSIBLE_PH
    figure = Figure(
        "acid",
        made.end_ph_if_all_used if possible else LOWEST_POSSIBLE_PH,
        said("unit.lowest_ph"),
        said("formula.acid"),
        said(
            "inputs.acid",
            sugar_per_kg_g=round(per_kg, 1),
            acid_mmol=round(made.lactic_acid_mmol_per_kg),
            start_ph=START_PH,
            buffer=BUFFER_MMOL_PER_KG_PER_PH,
        ),
        said("source.acid"),
    )
    return AcidBound(
        figure,
        instead=None if possible else said("bench.more_sugar_than_acid", ph=LOWEST_POSSIBLE_PH),
        notes=tuple(
            said("bench.sugar_counts", name=one.name, worth=one.dextrose_g_per_g) for one in not_dextrose(sheet.lines)
        ),
    )


def _outlook(sheet: Sheet, worked: Worked, loss_percent: float, end_ph: float | None) -> Outlook | None:
    """The goods after a loss of water, per 100 g of the bowl; None where there is not so much water."""
    share = 100 / worked.total_g
    grams = worked.grams
    lean = worked.meat_g * (1 - worked.fat_percent / 100) * share
    wine = sum(grams.get(f"line-{i}", 0.0) for i, line in enumerate(sheet.lines) if line.role == "wine") * share
    water = WATER_IN_LEAN * lean + WATER_IN_WINE * wine - loss_percent
    salt = worked.sodium_chloride_percent / 100 * worked.meat_g * share
    dry = DRY_IN_LEAN * lean
    try:
        brine = brine_in_meat(salt, water)
        activity = meat_water_activity(salt, water, dry)
    except OutOfRangeError:
        return None
    return Outlook(
        loss_percent=loss_percent,
        water_activity=activity.value,
        water_activity_sd=activity.sd,
        water_phase_salt_percent=brine.water_phase_salt_percent,
        moisture_protein_ratio=water / (PROTEIN_IN_LEAN * lean),
        firmness=feels(water / (dry + salt)),
        keeps=keep_class(activity.upper, end_ph),
    )


def ingredients_cost(sheet: Sheet, worked: Worked) -> float | None:
    """What went in, at its prices; None while no price is given. Parameters: sheet; worked, the same worked out."""
    grams = worked.grams
    priced = [
        (part.bought_g or part.weight_g, part.price_per_kg)
        for i, part in enumerate(sheet.parts)
        if f"meat-{i}" in grams and part.price_per_kg is not None
    ]
    priced += [
        (grams[f"line-{i}"], line.price_per_kg)
        for i, line in enumerate(sheet.lines)
        if f"line-{i}" in grams and line.price_per_kg is not None
    ]
    good = [(g, price) for g, price in priced if price >= 0]
    return sum(g / 1000 * price for g, price in good) if good else None


def _cautions(
    sheet: Sheet, worked: Worked, plan: Plan, gauges: tuple[Gauge, ...], profile: LimitProfile
) -> tuple[Caution, ...]:
    salt, nitrite, nitrate = gauges
    found: list[Caution] = []
    curing = sheet.curing
    law, practice = said("source.as_said", source=profile.source), said("source.practice")
    if nitrite.standing == "fail" and nitrite.figure.value <= 0:
        found.append(Caution("curing", said("bench.no_nitrite"), True, law))
    for gauge in (nitrite, nitrate):
        if gauge.standing == "fail" and gauge.figure.value > 0:
            over = said(
                f"bench.{gauge.figure.name}_over",
                value=round(gauge.figure.value),
                limit=round(gauge.limit),
                counted_as=profile.counted_as,
                profile=profile.name,
            )
            found.append(Caution("curing.percent", over, True, law))
    if nitrite.standing == "caution":
        little = said("bench.little_nitrite", least=LITTLE_PROTECTION_MG_PER_KG)
        found.append(Caution("curing.percent", little, False, practice))
    if salt.standing != "pass":
        dose = said(SALT_CAUTIONS[salt.says.code], percent=round(salt.figure.value, 2))
        found.append(Caution("salt_percent", dose, salt.standing == "fail", practice))
    if curing is not None and curing.by_spoon:
        found.append(Caution("curing.by_spoon", said("bench.spoon"), False, practice))
    if curing is not None and curing.nitrite_fraction == 0 and curing.nitrate_fraction > 0:
        found.append(Caution("curing", said("bench.saltpetre"), False, practice))
    if curing is None and plan.goods != "minced":
        found.append(Caution("curing", said("bench.without_curing_salt"), False, practice))
    for line in worked.lines:
        if line.key == "curing" and line.worst_error_percent > 5:
            fine = said("bench.too_fine", curing_g=float(f"{line.grams:.3g}"))
            found.append(Caution("curing.percent", fine, False, practice))
    return tuple(found)
