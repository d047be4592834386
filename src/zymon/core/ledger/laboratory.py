"""What only a laboratory tells: pathogens, and the nitrite that is left. Neither is shown where nobody asked for it."""

from dataclasses import replace

from ..limits import NITRITE_ION_SHARE
from ..say import said
from .batch import Batch, LabValue, LabWhat
from .hurdle import Hurdle
from .marks import LISTERIA_CFU_PER_G

DETECTED: tuple[LabWhat, ...] = ("salmonella", "stec", "staphylococcal_enterotoxin")
# What a laboratory tells, and the units it is told in; the span a value may have
UNITS: dict[LabWhat, tuple[str, ...]] = {
    "water_activity": ("",),
    "ph": ("",),
    "salt": ("%",),
    "nitrite": ("mg/kg",),
    "listeria": ("cfu/g", "in 25 g"),
    "salmonella": ("in 25 g",),
    "stec": ("in 25 g",),
    "staphylococcal_enterotoxin": ("",),
    "moisture": ("%",),
    "protein": ("%",),
    "fat": ("%",),
}
SPANS: dict[LabWhat, tuple[float, float]] = {
    "water_activity": (0.5, 1.0),
    "ph": (3.0, 9.0),
    "salt": (0.0, 40.0),
    "nitrite": (0.0, 10_000.0),
    "listeria": (0.0, 1e9),
    "salmonella": (0.0, 1.0),
    "stec": (0.0, 1.0),
    "staphylococcal_enterotoxin": (0.0, 1.0),
    "moisture": (0.0, 100.0),
    "protein": (0.0, 100.0),
    "fat": (0.0, 100.0),
}


def allowed(what: LabWhat, value: float, unit: str) -> bool:
    """Whether a laboratory can have found a value in a unit; a detection is 0 or 1. Parameters: what; value; unit.

    >>> allowed("listeria", 120.0, "cfu/g"), allowed("listeria", 2.0, "in 25 g"), allowed("salt", 3.0, "g")
    (True, False, False)
    """
    if unit not in UNITS[what]:
        return False
    if unit == "in 25 g" or what == "staphylococcal_enterotoxin":
        return value in (0.0, 1.0)
    low, high = SPANS[what]
    return low <= value <= high


def pathogens(batch: Batch) -> Hurdle | None:
    """What was found of them; once found stays found. None where nobody had it looked at. Parameters: batch."""
    looked = [v for what in ("listeria", *DETECTED) for v in batch.lab(what, None)]
    if not looked:
        return None
    base = Hurdle("pathogens", "pass", 0.0, known="laboratory", source=batch.profile.source_of("listeria"))
    found = [v for v in looked if _found(batch, v)]
    if found:
        worst = found[0]
        why = said(f"hurdle.pathogens.{worst.what}", value=worst.value, unit=worst.unit)
        return replace(
            base,
            state="fail",
            value=worst.value,
            unit=worst.unit,
            why=why,
            settles=said("settles.discard"),
            signable=False,
        )
    counted = any(v.what == "listeria" and v.unit == "in 25 g" and v.value > 0 for v in looked)
    return replace(base, cautions=(said("caution.listeria_detected"),) if counted else ())


def _found(batch: Batch, result: LabValue) -> bool:
    if result.what != "listeria":
        return result.value > 0
    if batch.profile.listeria_zero:
        return result.value > 0
    return result.unit == "cfu/g" and result.value > LISTERIA_CFU_PER_G


def nitrite_left(batch: Batch) -> Hurdle | None:
    """Nitrite left in the product; never an answer to what went in. None where it was not tested. Parameters: batch."""
    values = batch.lab("nitrite")
    if not values:
        return None
    residual = batch.profile.residual_nitrite_mg_per_kg
    value = values[-1].value * (NITRITE_ION_SHARE if batch.profile.residual_as == "ion" else 1.0)
    base = Hurdle(
        "nitrite_left", "pass", round(value, 1), residual, "mg/kg", "laboratory", batch.profile.source_of("residual")
    )
    if residual is None:
        return replace(base, cautions=(said("caution.residual_unknown"),))
    if value > residual:
        return replace(base, state="fail", why=said("hurdle.nitrite_left.over", value=round(value, 1), limit=residual))
    return base
