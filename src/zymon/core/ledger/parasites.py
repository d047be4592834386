"""Parasites, each species by itself: certified, frozen by the table, or not asked."""

from dataclasses import replace
from typing import Literal

from ..say import Said, said
from .batch import ParasiteStep, State
from .hurdle import Hurdle
from .view import View

Asked = Literal["table", "certificate", "tapeworm", "no"]
# What each species wants: pork a certificate or the freezing table; game that freezing does not make safe a certificate
SPECIES: dict[str, Asked] = {
    "pork": "table",
    "wild boar": "certificate",
    "bear": "certificate",
    "walrus": "certificate",
    "horse": "certificate",
    "other": "certificate",
    "beef": "tapeworm",
    "veal": "tapeworm",
    "venison": "no",
    "sheep": "no",
    "goat": "no",
    "poultry": "no",
    "rabbit": "no",
}
# Days at or under a temperature [°C], for meat up to 15 cm and up to 68 cm thick; steps, nothing between them
FREEZING: tuple[tuple[float, float, float], ...] = ((-29.0, 6, 12), (-23.0, 10, 20), (-15.0, 20, 30))
THIN_CM, THICK_CM = 15.0, 68.0
FREEZING_SOURCE = "9 CFR 318.10(c)(3)(iv)"
TAPEWORM_C, TAPEWORM_DAYS = -10.0, 10.0


def parasite(view: View) -> Hurdle:
    """Parasites of every species in the batch; the worst of them. Parameters: view."""
    species = list(dict.fromkeys(p.species for p in view.parts))
    base = Hurdle("parasite", "unknown", source=FREEZING_SOURCE, limit=said("limit.parasite"))
    if not species or None in species:
        return replace(base, why=said("hurdle.parasite.species"), settles=said("settles.species"), signable=False)
    found = [_of_species(view, base, s) for s in species if s is not None]
    order: tuple[State, ...] = ("fail", "unknown", "pass")
    worst = min(found, key=lambda h: (order.index(h.state), h.signable))
    return replace(worst, cautions=tuple(c for h in found for c in h.cautions))


def _of_species(view: View, base: Hurdle, species: str) -> Hurdle:
    asked = SPECIES[species]
    steps = [s for s in view.batch.parasite if s.species == species and s.way is not None]
    if asked == "no":
        return replace(base, state="pass", value=species, known="stated")
    if asked == "tapeworm":
        answered = any(s.way == "certified" or _kills_tapeworm(s) for s in steps)
        cautions: tuple[Said, ...] = () if answered else (said("caution.tapeworm", species=species),)
        return replace(base, state="pass", value=species, known="stated", cautions=cautions)
    if any(s.way == "none" for s in steps):
        return replace(
            base, state="fail", value="none", known="stated", why=said("hurdle.parasite.none", species=species)
        )
    if asked == "certificate":
        if any(s.way == "certified" for s in steps):
            return replace(base, state="pass", value="certified", known="stated")
        why = said("hurdle.parasite.certificate", species=species)
        return replace(base, why=why, settles=said("settles.certificate", species=species), signable=False)
    frozen = [s for s in steps if s.way == "frozen"]
    if not steps:
        return replace(base, why=said("hurdle.parasite.unknown", species=species), settles=said("settles.parasite"))
    if not frozen:
        return replace(base, state="pass", value="certified", known="stated")
    judged = [_frozen(base, s) for s in frozen]
    return min(judged, key=lambda h: ("fail", "unknown", "pass").index(h.state))


def _kills_tapeworm(step: ParasiteStep) -> bool:
    c, days = step.temperature_c, step.days
    return step.way == "frozen" and c is not None and days is not None and c <= TAPEWORM_C and days >= TAPEWORM_DAYS


def _frozen(base: Hurdle, step: ParasiteStep) -> Hurdle:
    """A freezing held against the table. Parameters: base, the hurdle so far; step."""
    c, days, thick = step.temperature_c, step.days, step.thickness_cm
    base = replace(base, value="frozen", known="stated")
    if c is None or days is None:
        return replace(
            base, known="not known", why=said("hurdle.parasite.how_frozen"), settles=said("settles.parasite")
        )
    rows = [row for row in FREEZING if c <= row[0]]
    if not rows:
        return replace(base, state="fail", why=said("hurdle.parasite.too_warm", c=c, limit_c=FREEZING[-1][0]))
    _, thin_days, thick_days = rows[0]
    if thick is not None and thick > THICK_CM:
        why = said("hurdle.parasite.too_thick", thick_mm=10 * thick, limit_mm=10 * THICK_CM)
        return replace(base, why=why, settles=said("settles.certificate", species=step.species))
    needed = thick_days if thick is None or thick > THIN_CM else thin_days
    if days >= needed:
        return replace(base, state="pass")
    if thick is None and days >= thin_days:
        return replace(base, why=said("hurdle.parasite.how_thick"), settles=said("settles.parasite"))
    least = thin_days if thick is None else needed
    return replace(base, state="fail", why=said("hurdle.parasite.too_short", c=c, days=days, needed_days=least))
