"""Who changes places with whom, so that strong and weak air is shared among the pieces of a place."""

from collections.abc import Sequence
from dataclasses import dataclass

from .faults import COAT_DAYS

ROTATE_AFTER_DAYS = 7.0  # days; usual practice: once a week
WORTH_RATIO = 1.25  # of the air of two hooks, from which changing places is worth the walk
STILL_DRYING_SHARE = 0.9  # of the way to the target, after which a piece is left in peace


TURNED_DAYS = 7  # end for end, every day of the first week; practice
NOT_TURNED_FROM_C = 28.0  # in such warmth goods lie or hang for two days and are not turned; practice


def wants_turning(coated: bool, days_hung: float, set_c: float | None) -> bool:
    """Whether a piece is turned, or, if coated, looked at daily. Parameters: coated; days_hung; set_c [°C].

    A coat cracks when it is moved: it is looked at while it sets, patched, and left alone.

    >>> wants_turning(False, 3.0, 13.0), wants_turning(False, 8.0, 13.0), wants_turning(False, 1.0, 35.0)
    (True, False, False)
    """
    if set_c is not None and set_c >= NOT_TURNED_FROM_C:
        return False
    return days_hung < (COAT_DAYS if coated else TURNED_DAYS)


@dataclass(frozen=True)
class Hanging:
    """A piece at its hook: its air against the usual [-], days it hangs there, share of its way done, whether fast."""

    tag: str
    air: float
    days_there: float
    done_share: float
    too_fast: bool = False
    rod: int = 1
    hook: int = 1


def exchanges(hanging: Sequence[Hanging]) -> list[tuple[str, str]]:
    """Pairs of tags that should change places, the one in the stronger air first.

    Parameters: hanging, the pieces of one place. Pieces that hang long enough where they are; one that dries too fast
    leaves strong air and is not put there. Source: practice, chambers have draughty and still corners.

    >>> exchanges([Hanging("A", 1.6, 9, 0.3), Hanging("B", 0.8, 9, 0.4), Hanging("C", 1.0, 2, 0.1)])
    [('A', 'B')]
    """
    by_air = sorted(_may_move(hanging), key=lambda h: -h.air)
    strong, weak = 0, len(by_air) - 1
    pairs = []
    while strong < weak:
        a, b = by_air[strong], by_air[weak]
        if a.air < WORTH_RATIO * b.air:
            break
        if b.too_fast:
            weak -= 1
            continue
        pairs.append((a.tag, b.tag))
        strong, weak = strong + 1, weak - 1
    return pairs


def blind_exchanges(hanging: Sequence[Hanging]) -> list[tuple[str, str]]:
    """Pairs that change places where nobody knows yet how the hooks differ: half a rod apart, the longest there first.

    Parameters: hanging, the pieces of one place. Once they were weighed at both hooks, the hooks are known.
    Source: practice, pieces are moved around a chamber.

    >>> blind_exchanges([Hanging(tag, 1.0, 9, 0.3, hook=at) for at, tag in enumerate("ABCD", 1)])
    [('A', 'C'), ('B', 'D')]
    """
    there = sorted(_may_move(hanging), key=lambda h: (h.rod, h.hook))
    pairs = []
    for rod in dict.fromkeys(h.rod for h in there):
        row = [h for h in there if h.rod == rod]
        half = len(row) // 2
        pairs += [(a, b) for a, b in zip(row[:half], row[len(row) - half :], strict=True) if b.hook - a.hook > 1]
    pairs.sort(key=lambda pair: -min(pair[0].days_there, pair[1].days_there))
    return [(a.tag, b.tag) for a, b in pairs]


def _may_move(hanging: Sequence[Hanging]) -> list[Hanging]:
    return [h for h in hanging if h.done_share < STILL_DRYING_SHARE and h.days_there >= ROTATE_AFTER_DAYS]
