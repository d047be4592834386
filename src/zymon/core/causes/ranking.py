"""Causes of what was seen, the likeliest first, each with what this batch's records say for it and against it."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..say import Said, said
from .records import Records
from .table import CAUSES, Cause, CauseStage, Sign

COUNTS = 2.0  # natural logarithms of odds that a clue of weight 1 which speaks fully is worth; estimate
FAR_BEHIND = 4.0  # a cause so much less likely than the first is not told
MOST_TOLD = 5


@dataclass(frozen=True)
class Told:
    """What one clue says: −1 against … 1 for."""

    measure: str
    strength: float
    says: Said


@dataclass(frozen=True)
class Likely:
    """A cause, by name and stage, the signs it explains, what speaks for and against it, what was not recorded.

    `score`: logarithm of its odds beside the others.
    """

    name: str
    stage: CauseStage
    signs: tuple[Sign, ...]
    score: float
    evidence: tuple[Told, ...]
    unrecorded: tuple[str, ...]

    @property
    def recorded(self) -> bool:
        """Whether anything that was recorded speaks for or against it."""
        return bool(self.evidence)

    @property
    def speaks(self) -> float:
        """What all its evidence comes to; 0 where nothing was recorded."""
        return sum(told.strength for told in self.evidence)


def rank(seen: Sequence[Sign], records: Records, minced: bool | None = None) -> list[Likely]:
    """What may be behind some signs, the likeliest first; what lies far behind is left out, but not a sign's only one.

    Parameters: seen, the signs; records, the measures of the batch that were taken; minced, None where nobody said.
    """
    able = [c for c in CAUSES.values() if set(c.signs) & set(seen) and c.may_be(minced)]
    found = sorted((_likely(c, seen, records) for c in able), key=_order)
    near = [one for one in found if one.score >= found[0].score - FAR_BEHIND][:MOST_TOLD]
    for sign in seen:
        if not any(sign in one.signs for one in near):
            near += [one for one in found if sign in one.signs][:1]
    return near


def _order(likely: Likely) -> float:
    return -likely.score


def _likely(cause: Cause, seen: Sequence[Sign], records: Records) -> Likely:
    explained = tuple(sign for sign in seen if sign in cause.signs)
    evidence, unrecorded, score = [], [], 0.0
    # what a cause explains of all that is seen; a second sign counts, and what it leaves unexplained costs nothing
    score += math.log(1 - math.prod(1 - 0.95 * cause.signs[sign] for sign in explained))
    for clue in cause.clues:
        measured = records.get(clue.measure)
        if measured is None:
            unrecorded.append(clue.measure)
            continue
        strength = clue.speaks(measured.value)
        score += COUNTS * clue.weight * strength
        if strength:
            side = "for" if strength > 0 else "against"
            evidence.append(Told(clue.measure, strength, said(f"clue.{clue.measure}_{side}", **measured.says)))
    evidence.sort(key=lambda told: -told.strength)
    return Likely(cause.name, cause.stage, explained, score, tuple(evidence), tuple(unrecorded))


def speaks_for(causes: Iterable[str], records: Records) -> tuple[Said, ...] | None:
    """What speaks for some causes, the weightiest first; None where nothing was recorded that could tell.

    Parameters: causes, by name; records, the measures that were taken.
    """
    known = False
    found: list[tuple[float, Said]] = []
    for name in causes:
        likely = _likely(CAUSES[name], tuple(CAUSES[name].signs), records)
        known = known or len(likely.unrecorded) < len(CAUSES[name].clues)
        weights = {clue.measure: clue.weight for clue in CAUSES[name].clues}
        found += [(t.strength * weights[t.measure], t.says) for t in likely.evidence if t.strength > 0]
    return tuple(says for _, says in sorted(found, key=lambda one: -one[0])) if known else None
