"""What is felt, smelled and seen on a hanging piece, what may be behind it, and what to do: the table of faults."""

from dataclasses import dataclass
from typing import Literal

Feel = Literal["soft", "yielding", "firm", "hard"]
CoreFeel = Literal["wet", "soft", "yielding", "firm", "hard"]
Smell = Literal["clean", "sour", "off"]
Surface = Literal["dry", "damp", "slimy"]
Mould = Literal["none", "white", "green", "black", "pink"]
MouldHow = Literal["dry", "furry", "wet"]
Act = Literal["nothing", "watch", "mend", "hold", "discard"]

RING_RISK = 0.5
BIG_LOSS_PERCENT = 30.0
DAMP_RH = 85.0
MANY_DAMP_HOURS = 24.0
COAT_DAYS = 3.0
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
    """What the records of the piece say: loss [%], ring risk 0…1, hours of damp air lately, days since it was hung."""

    loss_percent: float
    ring_risk: float
    damp_hours: float
    days: float


@dataclass(frozen=True)
class Advice:
    """What to do, why, and the evidence in this piece's own records."""

    act: Act
    what: str
    because: str


def advise(found: Found, evidence: Evidence) -> list[Advice]:
    """Advice on an inspection, the gravest first.

    Parameters: found, the inspection; evidence, of the piece. Source: table of faults as makers know it; in doubt a
    piece is held, not tasted.

    >>> advise(Found(mould="black", mould_how="wet"), Evidence(20, 0.1, 40, 12))[0].act
    'hold'
    """
    said = [*_rot(found), *_mould(found, evidence), *_ring(found, evidence), *_skin(found, evidence)]
    if not said:
        said = [Advice("nothing", "all well: hang it back", "")]
    return sorted(said, key=lambda a: -_RANK.index(a.act))


def _rot(found: Found) -> list[Advice]:
    if found.smell == "off":
        return [
            Advice("discard", "do not taste; discard it, and look at its mates", "a foul smell is no fault to mend")
        ]
    if found.smell == "sour":
        return [Advice("watch", "smell again tomorrow", "sour may be the culture, or the begin of rot")]
    return []


def _mould(found: Found, evidence: Evidence) -> list[Advice]:
    if found.mould in (None, "none"):
        return []
    if found.mould == "white" and found.mould_how in (None, "dry"):
        return [Advice("nothing", "leave the mould: white and dry is good", "")]
    damp = (
        f"{evidence.damp_hours:.0f} h over {DAMP_RH:g} % in the last days"
        if evidence.damp_hours > MANY_DAMP_HOURS
        else ""
    )
    what = "wipe with vinegar, dry the air, keep pieces apart, look again in two days"
    if found.mould in ("black", "pink") or found.mould_how == "wet":
        return [Advice("hold", f"hold it; {what}; discard it in doubt", damp or f"{found.mould} mould is not noble")]
    return [Advice("mend", what, damp or "still air, touching pieces, or damp")]


def _ring(found: Found, evidence: Evidence) -> list[Advice]:
    soft = found.firm_core in ("soft", "wet")
    hard_soft = found.firm_rim == "hard" and soft
    if not hard_soft:
        if soft and evidence.loss_percent >= BIG_LOSS_PERCENT:
            return [
                Advice(
                    "hold",
                    "hold it, do not taste; cut one of the batch to see",
                    f"soft inside after {evidence.loss_percent:.0f} % of loss: a dry ring, or a poor bind",
                )
            ]
        return []
    because = (
        f"its pace was over the safe one (ring risk {100 * evidence.ring_risk:.0f} %)"
        if evidence.ring_risk >= RING_RISK
        else "air too dry, too strong or too warm at its hook"
    )
    if evidence.loss_percent >= BIG_LOSS_PERCENT:
        return [Advice("hold", "vacuum rest for 4–8 weeks, then cut to check", because)]
    return [Advice("mend", "raise the humidity 5–8 points, slow the air, move or wrap it", because)]


def _skin(found: Found, evidence: Evidence) -> list[Advice]:
    out = []
    if found.surface == "slimy":
        out.append(
            Advice("hold", "wipe with vinegar, dry the air, keep apart; discard it if slime comes back", "too damp")
        )
    elif found.surface == "damp":
        out.append(Advice("mend", "more air, less humidity, nothing touching", "a damp skin grows what it should not"))
    if found.cracks:
        late = evidence.days > COAT_DAYS
        what = "patch what falls off and leave the rest alone" if late else "patch the cracks now, then leave it alone"
        out.append(Advice("mend", what, "coats crack in their first days, when moved or dried fast"))
    if found.sag:
        out.append(Advice("watch", "turn it end for end, tie it tighter", "it hangs out of shape while it is soft"))
    if found.salt_spots:
        out.append(Advice("watch", "brush the salt off; soak the slices", "more salt on it than it took up"))
    return out
