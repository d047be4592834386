"""What is felt, smelled and seen on a hanging piece, what may be behind it by the table of faults, and what to do."""

from dataclasses import dataclass
from typing import Literal

from .causes.table import MARKS
from .drying.judge import BIG_LOSS_PERCENT
from .say import Said, said

Feel = Literal["soft", "yielding", "firm", "hard"]
CoreFeel = Literal["wet", "soft", "yielding", "firm", "hard"]
Smell = Literal["clean", "sour", "off"]
Surface = Literal["dry", "damp", "slimy"]
Mould = Literal["none", "white", "green", "black", "pink"]
MouldHow = Literal["dry", "furry", "wet"]
Act = Literal["nothing", "watch", "mend", "hold", "discard"]

RING_RISK = MARKS["ring_risk"]
DAMP_RH = MARKS["damp_rh_percent"]
MANY_DAMP_HOURS = MARKS["many_damp_hours"]
COAT_DAYS = MARKS["coat_days"]
_RANK = ("nothing", "watch", "mend", "hold", "discard")


@dataclass(frozen=True)
class Found:
    """An inspection: what was tapped; None where it was not looked at."""

    firm_rim: Feel | None = None
    firm_core: CoreFeel | None = None
    smell: Smell | None = None
    surface: Surface | None = None
    mould: Mould | None = None
    mould_how: MouldHow | None = None
    sag: bool = False
    cracks: bool = False
    salt_spots: bool = False


@dataclass(frozen=True)
class Evidence:
    """What the records of the piece say: loss [%], ring risk 0…1, hours of damp air lately, days since it was hung.

    `dried_by`: what dried its rim ahead of its middle by those records, the likeliest first; empty where nothing did,
    None where nothing was recorded that could tell.
    """

    loss_percent: float
    ring_risk: float
    damp_hours: float
    days: float
    dried_by: tuple[Said, ...] | None = ()


@dataclass(frozen=True)
class Advice:
    """What to do, why, and the evidence in this piece's own records, the weightiest first."""

    act: Act
    what: Said
    because: tuple[Said, ...] = ()


def advise(found: Found, evidence: Evidence) -> list[Advice]:
    """Advice on an inspection, the gravest first.

    Parameters: found, the inspection; evidence, of the piece. Source: table of faults as makers know it; in doubt a
    piece is held, not tasted.

    >>> advise(Found(mould="black", mould_how="wet"), Evidence(20, 0.1, 40, 12))[0].act
    'hold'
    """
    all_said = [*_rot(found), *_mould(found, evidence), *_ring(found, evidence), *_skin(found, evidence)]
    if not all_said:
        all_said = [Advice("nothing", said("advice.all_well"))]
    return sorted(all_said, key=lambda a: -_RANK.index(a.act))


def _rot(found: Found) -> list[Advice]:
    if found.smell == "off":
        return [Advice("discard", said("advice.discard_foul"), (said("because.foul"),))]
    if found.smell == "sour":
        return [Advice("watch", said("advice.smell_again"), (said("because.sour"),))]
    return []


def _mould(found: Found, evidence: Evidence) -> list[Advice]:
    if found.mould in (None, "none"):
        return []
    if found.mould == "white" and found.mould_how in (None, "dry"):
        return [Advice("nothing", said("advice.leave_mould"))]
    damp = (
        said("because.damp_hours", hours=round(evidence.damp_hours), rh_percent=DAMP_RH)
        if evidence.damp_hours > MANY_DAMP_HOURS
        else None
    )
    if found.mould in ("black", "pink") or found.mould_how == "wet":
        return [Advice("hold", said("advice.hold_mould"), (damp or said(f"because.mould_{found.mould}"),))]
    return [Advice("mend", said("advice.wipe_mould"), (damp or said("because.still_air"),))]


def _ring(found: Found, evidence: Evidence) -> list[Advice]:
    """A hard rim, a soft middle, or both: mended while little is lost, held after that."""
    soft, hard = found.firm_core in ("soft", "wet"), found.firm_rim == "hard"
    late = evidence.loss_percent >= BIG_LOSS_PERCENT
    if soft and late:
        stage = said("because.soft_late", loss_percent=round(evidence.loss_percent))
        what = said("advice.vacuum_rest" if hard else "advice.cut_one")
        return [Advice("hold", what, (stage, *_dried_by(evidence)))]
    if hard and not late:
        what = said("advice.damper_air" if soft else "advice.hard_rim")
        return [Advice("mend" if soft else "watch", what, _dried_by(evidence))]
    return []


def _dried_by(evidence: Evidence) -> tuple[Said, ...]:
    if evidence.dried_by:
        return evidence.dried_by
    if evidence.ring_risk >= RING_RISK:
        return (said("because.over_safe_pace", ring_percent=round(100 * evidence.ring_risk)),)
    return (said("because.nothing_recorded" if evidence.dried_by is None else "because.nothing_stands_out"),)


def _skin(found: Found, evidence: Evidence) -> list[Advice]:
    out = []
    if found.surface == "slimy":
        out.append(Advice("hold", said("advice.wipe_slime"), (said("because.too_damp"),)))
    elif found.surface == "damp":
        out.append(Advice("mend", said("advice.more_air"), (said("because.damp_skin"),)))
    if found.cracks:
        late = evidence.days > COAT_DAYS
        what = said("advice.patch_late" if late else "advice.patch_now")
        out.append(Advice("mend", what, (said("because.coats_crack"),)))
    if found.sag:
        out.append(Advice("watch", said("advice.tie_tighter"), (said("because.soft_yet"),)))
    if found.salt_spots:
        out.append(Advice("watch", said("advice.brush_salt"), (said("because.salt_left"),)))
    return out
