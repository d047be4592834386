"""What to do with the piece that was cut: never better than what was measured of it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..drying.judge import BIG_LOSS_PERCENT
from ..say import Said, said
from .table import Sign

NowAct = Literal["discard", "hold", "rest", "soak", "eat_soon", "look", "eat"]
LONGEST_REST_WEEKS = 26.0  # a rest that would take longer is no mending; estimate
USUAL_REST_WEEKS = (4, 8)  # where the model cannot tell; practice


@dataclass(frozen=True)
class Standing:
    """How the piece stands: its loss by the scale [%], weeks until it is even, what its hurdles say.

    None where it is not known. `fails`, `open`: names of hurdles that failed, and that are not settled.
    """

    loss_percent: float | None
    minced: bool | None
    rest_weeks: float | None
    fails: tuple[str, ...]
    open: tuple[str, ...]


@dataclass(frozen=True)
class NowAdvice:
    """What to do now."""

    act: NowAct
    says: Said


def with_it_now(seen: Sequence[Sign], standing: Standing) -> list[NowAdvice]:
    """What to do with the piece, the gravest first; in doubt it is held, not tasted. "Eat" rests on all hurdles.

    Parameters: seen, the signs; standing, how the piece stands.

    >>> with_it_now(("smell_off",), Standing(40, True, None, (), ()))[0].act
    'discard'
    """
    if "smell_off" in seen:
        return [NowAdvice("discard", said("now.discard"))]
    found = []
    if standing.fails:
        found.append(NowAdvice("hold", said("now.hold_fails", hurdle=standing.fails[0], many=len(standing.fails))))
    soft = "soft_core" in seen
    if soft:
        late = standing.loss_percent is None or standing.loss_percent >= BIG_LOSS_PERCENT
        found.append(NowAdvice("hold", said("now.hold_soft" if late else "now.hang_on_soft")))
    if "mould_inside" in seen:
        found.append(NowAdvice("hold", said("now.hold_mould")))
    if "ring" in seen:
        found.append(NowAdvice("rest", _rest(standing.rest_weeks)))
    if "salt_high" in seen or "salt_spots" in seen:
        found.append(NowAdvice("soak", said("now.soak")))
    if "rancid" in seen or "yellow_fat" in seen:
        found.append(NowAdvice("eat_soon", said("now.rancid")))
    if any(one.act == "hold" for one in found):
        return found
    if standing.open:
        return [*found, NowAdvice("look", said("now.open", hurdle=standing.open[0], many=len(standing.open)))]
    return [*found, NowAdvice("eat", said("now.eat_when" if found else "now.eat"))]


def _rest(weeks: float | None) -> Said:
    if weeks is None or weeks > LONGEST_REST_WEEKS:
        return said("now.rest_usual", first=USUAL_REST_WEEKS[0], last=USUAL_REST_WEEKS[1])
    return said("now.rest", weeks=max(1, round(weeks)))
