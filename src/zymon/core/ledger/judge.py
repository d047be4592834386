"""The whole ledger of a batch, and whether it is ready: every hurdle that its course needs is known to hold."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from ..say import Said, said
from .acid import acid, degree_hours_hurdle
from .batch import Batch, Inspection, Signature
from .bowl import cold_mix, nitrate_in, nitrite_in, nitrite_lasts, salt
from .cold import cold_cure, core_salt, warmth
from .hurdle import Hurdle, Released, Verdicts, WasFail, joined
from .keeps import keeping
from .laboratory import nitrite_left, pathogens
from .marks import SLACK
from .parasites import parasite
from .product import CLEAN, dry_enough, evenness, target_loss
from .view import View, views

LOOK = "firm"
Verdict = Literal["held", "under_way", "cautions", "ready"]
HELD = ("discarded", "held")  # the bin and an open hold stand against it whatever the hurdles say
CHECK = said("ledger.check")


@dataclass(frozen=True)
class Ledger:
    """Hurdles in the order of the work; ready only when nothing stands against it, else why not."""

    id: str
    ready: bool
    use: str
    why: tuple[tuple[str, Said], ...]  # hurdle and reason
    hurdles: tuple[Hurdle, ...]
    check: Said = CHECK

    @property
    def verdict(self) -> Verdict:
        """Held where something failed or is not known, under way where it only has to go on, else ready or nearly."""
        if not self.ready:
            if any(name in HELD for name, _ in self.why):
                return "held"
            drying = any(h.name == "target_loss" and h.state == "pending" for h in self.hurdles)
            # how dry it is, nobody can say before it is at its target
            states = {h.state for h in self.hurdles if h.blocks and not (drying and h.name == "dry_enough")}
            return "under_way" if states <= {"pending"} else "held"
        return "cautions" if any(h.cautions for h in self.hurdles) else "ready"


def judge(batch: Batch) -> Ledger:
    """Judge every hurdle of a batch as of its now, piece by piece; the worst is shown and names its pieces.

    Parameters: batch. A signature answers an unknown, or releases a correction; it never turns a fail.
    """
    verdicts = joined([*(_of_view(view) for view in views(batch)), _of_batch(batch)])
    answered = [Verdicts(v.name, tuple(_answered(batch, h) for h in v.each)) for v in verdicts]
    blocking = [h for v in answered for h in v.blocking]
    return Ledger(
        batch.id,
        not blocking,
        batch.use,
        tuple((h.name, _against(h)) for h in blocking),
        tuple(v.shown() for v in answered),
    )


def _of_view(view: View) -> list[Hurdle]:
    """Every hurdle of some pieces, in the order of the work."""
    batch = view.batch
    minced = batch.goods == "minced"
    cold, core = (None, None) if minced else (cold_cure(view), core_salt(view))
    cured_well = cold is not None and core is not None and cold.state == core.state == "pass"
    found: list[Hurdle | None] = [
        cold_mix(view) if minced else None,
        salt(view),
        nitrite_in(view),
        nitrate_in(view),
        nitrite_lasts(view),
        parasite(view),
        cold,
        core,
        degree_hours_hurdle(view) if minced else None,
        acid(view),
        warmth(view),
    ]
    if batch.use == "raw":
        found += _of_pieces(view, cured_well)
    found.append(keeping(view))
    return [h if h.pieces else replace(h, pieces=view.tags) for h in found if h is not None]


def _of_pieces(view: View, cured_well: bool) -> list[Hurdle | None]:
    if not view.batch.pieces:
        nothing = Hurdle(
            "target_loss", "pending", unit="%", why=said("hurdle.target.nothing"), settles=said("settles.hang")
        )
        return [nothing, replace(nothing, name="dry_enough", unit="")]
    return [
        *(target_loss(view, p) for p in view.pieces),
        *(dry_enough(view, p, cured_well) for p in view.pieces),
        *(evenness(view, p) for p in view.pieces),
    ]


def _of_batch(batch: Batch) -> list[Hurdle]:
    return [h for h in (pathogens(batch), nitrite_left(batch)) if h is not None]


def _answered(batch: Batch, hurdle: Hurdle) -> Hurdle:
    """A hurdle with what a correction left behind, and with the signature that answers for it."""
    corrected = [c for c in batch.corrections if (c.hurdle, c.was) == (hurdle.name, "fail") and c.at_s <= batch.now_s]
    last = max(corrected, key=lambda c: c.at_s, default=None)
    if last is not None:
        hurdle = replace(hurdle, was_fail=WasFail(last.at_s, last.by, last.reason))
    asks = hurdle.state == "unknown" or (hurdle.state == "pass" and last is not None)
    if not asks or (hurdle.state == "unknown" and not hurdle.signable):
        return hurdle
    counting = [s for s in batch.signatures if s.hurdle == hurdle.name and _counts(batch, hurdle, s)]
    if not counting:
        return hurdle
    newest = max(counting, key=lambda s: s.at_s)
    return replace(hurdle, signed=Released(newest.by, newest.at_s, newest.reason))


def _counts(batch: Batch, hurdle: Hurdle, signature: Signature) -> bool:
    """Whether a signature answers: with a reason, after what it answers for, by somebody who may."""
    was = hurdle.was_fail
    since_s = max([t for t in (hurdle.since_s, was.until_s if was else None) if t is not None], default=-math.inf)
    if not signature.reason.strip() or not since_s - SLACK <= signature.at_s <= batch.now_s:
        return False
    if was is not None and batch.people > 1 and _same(signature.by, was.by):
        return False
    return _looked_at(batch, hurdle, signature)


def _same(one: str, other: str) -> bool:
    return " ".join(one.split()).lower() == " ".join(other.split()).lower()


def _looked_at(batch: Batch, hurdle: Hurdle, signature: Signature) -> bool:
    """Whether every piece that has to be felt was found firm and clean before somebody signed for it."""
    asked = [p for p in batch.pieces if p.tag in hurdle.asks_look_of]
    return all(any(i.at_s <= signature.at_s and _firm(i) for i in p.inspections) for p in asked)


def _firm(look: Inspection) -> bool:
    return look.rim == LOOK and look.core == LOOK and look.smell.strip().lower() == CLEAN


def _against(hurdle: Hurdle) -> Said:
    """Why a hurdle stands against “ready”."""
    if hurdle.was_fail is not None and hurdle.state == "pass":
        return said("ledger.unreleased", by=hurdle.was_fail.by)
    if hurdle.why is not None:
        return hurdle.why
    return said("ledger.stands", state=hurdle.state)
