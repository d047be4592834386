"""The whole ledger of a batch, and whether it is ready."""

from dataclasses import dataclass, replace

from ...errors import OutOfRangeError
from ...pieces import at_target, loss_percent, target_weight
from ...water import DRY_IN_LEAN, WATER_IN_LEAN, keep_class, meat_water_activity
from .batch import Batch, HungPiece, Hurdle
from .bowl import cold_mix, nitrate_in, nitrite_in, parasite, salt, sodium_chloride_percent
from .clocks import cold_cure, degree_hours_hurdle

NEVER_BLOCKS = "keeping"
PRACTICE = "usual practice for dried goods"
USUAL_FAT = {"minced": 0.27, "intact": 0.08}  # where the batch does not tell; estimate
KEEPS = {"no_chill": "keeps unchilled", "max_10_c": "under 10 °C", "max_5_c": "under 5 °C"}


@dataclass(frozen=True)
class Ledger:
    """Hurdles in the order of the work; ready only when nothing stands against it, else why not."""

    id: str
    ready: bool
    why: tuple[str, ...]
    hurdles: tuple[Hurdle, ...]


def judge(batch: Batch) -> Ledger:
    """Judge every hurdle of a batch as of its now.

    Parameters: batch. A signature answers an unknown, never a fail.
    """
    if batch.goods == "minced":
        found = [cold_mix(batch), salt(batch), nitrite_in(batch), nitrate_in(batch), degree_hours_hurdle(batch)]
    else:
        found = [salt(batch), nitrite_in(batch), nitrate_in(batch), cold_cure(batch)]
    step = parasite(batch)
    hurdles = [*found, *([step] if step is not None else []), target_loss(batch), keeping(batch)]
    signed = tuple(_signed(batch, hurdle) for hurdle in hurdles)
    why = tuple(f"{h.name}: {h.says or h.state}" for h in signed if _blocks(h))
    return Ledger(batch.id, not why, why, signed)


def _signed(batch: Batch, hurdle: Hurdle) -> Hurdle:
    by = next((s for s in reversed(batch.signatures) if s.hurdle == hurdle.name and s.reason.strip()), None)
    if by is None or hurdle.state != "unknown" or not hurdle.signable:
        return hurdle
    return replace(hurdle, signed_by=by.by, signed_reason=by.reason)


def _blocks(hurdle: Hurdle) -> bool:
    if hurdle.name == NEVER_BLOCKS or hurdle.state == "pass":
        return False
    return not (hurdle.state == "unknown" and hurdle.signed_by is not None)


def _latest(piece: HungPiece, now_hour: float) -> tuple[float, float] | None:
    seen = [point for point in piece.weights if point[0] <= now_hour]
    return seen[-1] if seen else None


def _latest_loss(piece: HungPiece, now_hour: float) -> float | None:
    last = _latest(piece, now_hour)
    return None if last is None else loss_percent(piece.start_weight_g, piece.tare_g, last[1])


def target_loss(batch: Batch) -> Hurdle:
    """The target loss of every piece, by its latest weighing. Parameters: batch."""
    losses = [_latest_loss(p, batch.now_hour) for p in batch.pieces]
    limit, unit = "every piece at its target", "%"
    short = [p.tag for p in batch.pieces if not _reached(p, batch.now_hour)]
    known = [loss for loss in losses if loss is not None]
    value = min(known) if known else None
    if not batch.pieces:
        return Hurdle("target_loss", "pending", None, limit, unit, "not known", PRACTICE, says="nothing hangs yet")
    if short:
        shown = ", ".join(short[:3]) + (f" and {len(short) - 3} more" if len(short) > 3 else "")
        how = "measured" if known else "not known"
        says = f"not at the target by weight: {shown}"
        return Hurdle("target_loss", "pending", value, limit, unit, how, PRACTICE, says=says)  # type: ignore[arg-type]
    return Hurdle("target_loss", "pass", value, limit, unit, "measured", PRACTICE)


def _reached(piece: HungPiece, now_hour: float) -> bool:
    """Whether the scale showed the tag's gram or less."""
    last = _latest(piece, now_hour)
    if last is None or piece.target_loss_percent is None:
        return False
    target = target_weight(piece.start_weight_g, piece.tare_g, piece.target_loss_percent)
    return at_target(last[1], target.target_gross_g)


def keeping(batch: Batch) -> Hurdle:
    """The keep class, by laboratory or by estimate; it never blocks. Parameters: batch."""
    limit, source = "a keep class", "Leistner: pH 5.2 and aw 0.95, or aw 0.91, or pH 5.0"
    ph = batch.lab("ph")
    if ph is None and batch.warm is not None:
        ph = next((v for hour, v in reversed(batch.warm.ph) if hour <= batch.now_hour), None)
    activity, known = batch.lab("water_activity"), "laboratory"
    if activity is None:
        activity, known = _estimated_activity(batch), "estimated"
    if activity is None and not (ph is not None and ph <= 5.0):
        says = "weigh the pieces, or have the water activity measured"
        return Hurdle("keeping", "unknown", None, limit, "", "not known", source, says=says)
    if activity is None:
        activity, known = 0.99, "measured"
    caution = None if known == "laboratory" else "by estimate: not a test"
    value = KEEPS[keep_class(activity, ph)]
    return Hurdle("keeping", "pass", value, limit, "", known, source, caution)  # type: ignore[arg-type]


def _estimated_activity(batch: Batch) -> float | None:
    """Water activity of the least dry piece, from salt and loss; None where these are not known."""
    losses = [_latest_loss(p, batch.now_hour) for p in batch.pieces]
    if batch.bowl is None or not losses or any(loss is None for loss in losses):
        return None
    loss = min(v for v in losses if v is not None)
    lean = 100 * (1 - USUAL_FAT[batch.goods])
    try:
        return meat_water_activity(
            sodium_chloride_percent(batch.bowl), WATER_IN_LEAN * lean - loss, DRY_IN_LEAN * lean
        ).value
    except OutOfRangeError:
        return None
