"""Hurdles of the bowl: cold at mixing, salt, nitrite and nitrate going in, parasites."""

from ...limits import NITRATE_ION_SHARE, NITRITE_ION_SHARE, Goods, over_limit
from ...salting.ways import REGISTRY
from ..marks import COLD_MIX_C, NITRITE_LITTLE, SALT_LEAST, SALT_MINCED, SALT_MOST, WARM_MIX_C
from ..parasites import FREEZING, FREEZING_SOURCE, SPECIES, THICK_CM, THIN_CM
from ..species import species_of
from .batch import Batch, Bowl, Hurdle, State

PRACTICE = "usual practice for dried goods"


def cold_mix(batch: Batch) -> Hurdle:
    """Cold at mixing. Parameters: batch."""
    c = batch.mix_temperature_c
    limit, unit = f"≤ {COLD_MIX_C:g} °C", "°C"
    if c is None:
        says = "measure the meat before it is mixed; for this batch somebody may sign for it"
        return Hurdle("cold_mix", "unknown", None, limit, unit, "not known", PRACTICE, says=says)
    if c > WARM_MIX_C:
        return Hurdle("cold_mix", "fail", c, limit, unit, "measured", PRACTICE, says=f"mixed at {c:g} °C")
    caution = f"{c:g} °C is above 4 °C: chill the meat before mixing" if c > COLD_MIX_C else None
    return Hurdle("cold_mix", "pass", c, limit, unit, "measured", PRACTICE, caution)


def sodium_chloride_percent(bowl: Bowl) -> float:
    """Sodium chloride of the meat [%]. Parameters: bowl."""
    common_g = bowl.curing_salt_g * (1 - bowl.nitrite_fraction - bowl.nitrate_fraction)
    return 100 * (bowl.plain_salt_g + common_g) / bowl.meat_g


def dose_is_known(way: str | None) -> bool:
    """Whether what went in is known from what was weighed, by the way it was salted. Parameters: way, None if unsaid.

    >>> dose_is_known("measured"), dose_is_known("rub_and_drain")
    (True, False)
    """
    return way is None or way not in REGISTRY or REGISTRY[way].dose_is_known


def salt(batch: Batch) -> Hurdle:
    """Salt. Parameters: batch."""
    limit, unit = f"≥ {SALT_LEAST:g} % of the meat", "%"
    lab = batch.lab("salt", "sodium_chloride")
    minced = batch.goods == "minced"
    if lab is not None:
        value, known = lab, "laboratory"
    elif batch.bowl is None:
        return Hurdle("salt", "unknown", None, limit, unit, "not known", PRACTICE, says="weigh what goes in")
    else:
        value, known = sodium_chloride_percent(batch.bowl), "computed"
    way = batch.cure.way if batch.cure is not None else None
    caution = None
    if value < SALT_MINCED and minced:
        caution = "under 2.5 %: little for minced goods"
    elif value > SALT_MOST:
        caution = "over 4.5 %: very salty once dry"
    if lab is None and not minced and not dose_is_known(way):
        says = "free salt: known once the core is reached, or when somebody signs for it"
        return Hurdle("salt", "unknown", value, limit, unit, "not known", PRACTICE, caution, says)
    if value < SALT_LEAST - 1e-9:
        measured = lab is not None or minced or way == "measured"
        state: State = "fail" if measured else "unknown"
        return Hurdle("salt", state, value, limit, unit, known, PRACTICE, None, f"only {value:.2f} % of salt")  # type: ignore[arg-type]
    return Hurdle("salt", "pass", value, limit, unit, known, PRACTICE, caution)  # type: ignore[arg-type]


def limits_for(batch: Batch) -> Goods:
    """Under which limits the goods fall. Parameters: batch."""
    if batch.goods == "minced":
        return "minced"
    return "belly" if batch.bowl is not None and batch.bowl.belly else "intact"


def _ingoing(batch: Batch, bowl: Bowl, fraction: float, ion_share: float) -> tuple[float, float]:
    """As sodium salt, and as the profile counts it [mg/kg]."""
    as_salt = 1e6 * bowl.curing_salt_g * fraction / bowl.meat_g
    return as_salt, as_salt * ion_share if batch.profile.counted_as == "ion" else as_salt


def nitrite_in(batch: Batch) -> Hurdle:
    """Nitrite going in. Parameters: batch."""
    most = batch.profile.ingoing(limits_for(batch)).nitrite_mg_per_kg
    limit, unit = f"≤ {most:g} mg/kg", "mg/kg"
    source = batch.profile.source
    lab = batch.lab("nitrite_in", "residual_nitrite", "nitrite")
    if batch.bowl is None:
        says = "weigh what goes in"
        return Hurdle("nitrite_in", "unknown", None, limit, unit, "not known", source, says=says)
    as_salt, value = _ingoing(batch, batch.bowl, batch.bowl.nitrite_fraction, NITRITE_ION_SHARE)
    if as_salt <= 0:
        if batch.goods == "minced":
            says = "minced goods without nitrite: nothing holds botulism back"
            return Hurdle("nitrite_in", "fail", 0.0, limit, unit, "computed", source, says=says)
        says = "made without nitrite: a choice that somebody must sign for"
        return Hurdle("nitrite_in", "unknown", 0.0, limit, unit, "computed", source, says=says)
    if over_limit(value, most):
        if lab is not None and not over_limit(lab, most):
            answered = f"{value:.0f} mg/kg went in; the laboratory found {lab:g} mg/kg left"
            return Hurdle("nitrite_in", "pass", lab, limit, unit, "laboratory", source, answered)
        says = f"{value:.0f} mg/kg is over the limit of {most:g}"
        return Hurdle("nitrite_in", "fail", value, limit, unit, "computed", source, says=says)
    caution = None
    if batch.goods == "minced" and as_salt < NITRITE_LITTLE:
        caution = "under 100 mg/kg: little protection"
    return Hurdle("nitrite_in", "pass", value, limit, unit, "computed", source, caution)


def nitrate_in(batch: Batch) -> Hurdle:
    """Nitrate going in. Parameters: batch."""
    most = batch.profile.ingoing(limits_for(batch)).nitrate_mg_per_kg
    limit, unit = f"≤ {most:g} mg/kg", "mg/kg"
    source = batch.profile.source
    if batch.bowl is None:
        says = "weigh what goes in"
        return Hurdle("nitrate_in", "unknown", None, limit, unit, "not known", source, says=says)
    _, value = _ingoing(batch, batch.bowl, batch.bowl.nitrate_fraction, NITRATE_ION_SHARE)
    if over_limit(value, most):
        says = f"{value:.0f} mg/kg is over the limit of {most:g}"
        return Hurdle("nitrate_in", "fail", value, limit, unit, "computed", source, says=says)
    return Hurdle("nitrate_in", "pass", value, limit, unit, "computed", source)


def parasite(batch: Batch) -> Hurdle | None:
    """Parasites; None for goods that need no such step. Parameters: batch.

    Of several species the one that asks for most; game that freezing does not make safe wants a certificate.
    """
    species = [species_of(s) or "other" for s in batch.species]
    asked = [SPECIES[s] for s in species if SPECIES[s] in ("table", "certificate")]
    if not asked:
        return None
    limit, source, step = "certified, or frozen by the table", FREEZING_SOURCE, batch.parasite
    if step is None or step.way is None:
        says, only = "say whether the meat is certified or how it was frozen", "certificate" not in asked
        return Hurdle("parasite", "unknown", None, limit, "", "not known", source, says=says, signable=only)
    if step.way == "certified":
        return Hurdle("parasite", "pass", "certified", limit, "", "declared", source)
    if step.way == "none":
        says = "nothing was done about parasites"
        return Hurdle("parasite", "fail", "none", limit, "", "declared", source, says=says)
    if "certificate" in asked:
        says = "freezing does not make this meat safe: only a certificate answers"
        return Hurdle("parasite", "unknown", "frozen", limit, "", "declared", source, says=says, signable=False)
    state, value, says = frozen(step.temperature_c, step.days, step.thickness_cm)
    return Hurdle("parasite", state, value, limit, "", "declared", source, says=says)


def frozen(c: float | None, days: float | None, thick: float | None) -> tuple[State, str, str]:
    """A freezing of pork held against the table: state, value, why. Parameters: c [°C]; days; thick [cm]."""
    if c is None or days is None:
        return "unknown", "frozen", "at what temperature, and for how many days?"
    if c > FREEZING[-1][0]:
        return "fail", f"frozen at {c:g} °C", f"{c:g} °C is not cold enough"
    _, thin_days, thick_days = next(row for row in FREEZING if c <= row[0])
    value = f"frozen at {c:g} °C for {days:g} days"
    if thick is not None and thick > THICK_CM:
        return "unknown", value, f"the table ends at {THICK_CM:g} cm"
    needed = thick_days if thick is None or thick > THIN_CM else thin_days
    if days >= needed:
        return "pass", value, ""
    if thick is None and days >= thin_days:
        return "unknown", value, "how thick was it?"
    return "fail", value, f"{needed:g} days are needed"
