"""How the finished goods keep, by the upper water activity and the latest pH. It never blocks."""

from dataclasses import replace

from ..say import said
from ..water import keep_class
from .acid import believed
from .activity import activity_of
from .hurdle import Hurdle
from .marks import DAY_S, OLD_PH_DAYS
from .view import View

SOURCE = "Leistner (1995)"


def keeping(view: View) -> Hurdle:
    """The class in which the wettest of the pieces keep. Parameters: view."""
    base = Hurdle("keeping", "unknown", source=SOURCE, limit=said("limit.keeping"))
    found = [activity_of(view, p) for p in view.pieces]
    known = [a for a in found if a is not None]
    if not known or len(known) < len(found):
        return replace(base, why=said("hurdle.keeping.unknown"), settles=said("settles.activity"))
    worst = max(known, key=lambda a: a.upper)
    ph = _latest_ph(view)
    carried = None if ph is None or not ph[1] else ph[0]
    value = keep_class(worst.upper, carried)
    if ph is not None and value == "max_5_c" and keep_class(worst.upper, ph[0]) != "max_5_c":
        value = "max_10_c"  # an old reading may not carry “unchilled”, the next class it may
    cautions = () if worst.known == "laboratory" else (said("caution.by_estimate"),)
    if ph is not None and not ph[1]:
        cautions = (*cautions, said("caution.old_ph"))
    return replace(base, state="pass", value=value, known=worst.known, cautions=cautions)


def _latest_ph(view: View) -> tuple[float, bool] | None:
    """The latest pH of the product, and whether it carries “unchilled”; None where there is none."""
    batch = view.batch
    lab = batch.lab("ph")
    readings = believed(batch.ph, batch.now_s)
    if lab and (not readings or lab[-1].at_s >= readings[-1].at_s):
        at_s, value = lab[-1].at_s, lab[-1].value
    elif readings:
        at_s, value = readings[-1].at_s, readings[-1].value
    else:
        return None
    warm = any(a <= at_s <= b for s in view.stages("warm") for a, b in [view.span(s)])
    old = batch.now_s - at_s > OLD_PH_DAYS * DAY_S
    return value, not old and not (batch.moulded and warm)
