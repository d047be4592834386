"""Hurdles of the product: at its target, dry enough, even. Raw goods only: what is cooked is not judged by them."""

from dataclasses import replace

from ..pieces import at_target, target_weight
from ..say import said
from .acid import believed, confirmed_at
from .activity import Activity, activity_of, by_laboratory
from .batch import Batch, Inspection, Piece
from .bowl import loss_at
from .hurdle import Hurdle
from .marks import DRY_ACTIVITY, DRY_SOUR_ACTIVITY, DRY_SOUR_PH, NEARLY_DRY_ACTIVITY
from .view import View

CLEAN = "clean"
SPOILT_CORE = ("soft", "wet")


def latest(piece: Piece, now_s: float) -> tuple[float, float] | None:
    """The latest weighing of a piece up to now: moment [s], gross [g]. Parameters: piece; now_s [s]."""
    return next(((t, g) for t, g in reversed(piece.weights) if t <= now_s), None)


def reached(piece: Piece, gross_g: float) -> bool | None:
    """Whether a reading is at what the tag says; None where the piece has no target by weight.

    Parameters: piece; gross_g [g].
    """
    if piece.start_weight_g is None or piece.target_loss_percent is None:
        return None
    target = target_weight(piece.start_weight_g, piece.tare_g, piece.target_loss_percent)
    return at_target(gross_g, target.target_gross_g)


def reached_s(piece: Piece, now_s: float) -> float | None:
    """When the scale first showed the target [s], or None. Parameters: piece; now_s [s]."""
    return next((t for t, g in piece.weights if t <= now_s and t not in piece.doubtful and reached(piece, g)), None)


def target_loss(view: View, piece: Piece) -> Hurdle:
    """At its target by the scale. Parameters: view; piece."""
    batch = view.batch
    last, loss = latest(piece, batch.now_s), loss_at(piece, batch.now_s)
    base = Hurdle("target_loss", "pending", loss, piece.target_loss_percent, "%", pieces=(piece.tag,))
    base = replace(base, known="not known" if last is None else "measured")
    if last is not None and last[0] in piece.doubtful:
        return replace(base, why=said("hurdle.target.doubt", gross_g=last[1]), settles=said("settles.weigh_again"))
    at = None if last is None else reached(piece, last[1])
    if at:
        return replace(base, state="pass")
    if _laboratory_says_dry(view, piece) and (piece.done_by != "weight" or last is None):
        return replace(base, state="pass", known="laboratory", cautions=(said("caution.target_by_laboratory"),))
    if piece.done_by != "weight":
        why = said(f"hurdle.target.by_{piece.done_by}")
        return replace(base, state="unknown", why=why, settles=said("settles.feel"), asks_look_of=(piece.tag,))
    if last is None and any(_alike(batch, piece, mate) for mate in view.pieces):
        why = said("hurdle.target.unweighed_mate")
        return replace(base, state="unknown", why=why, settles=said("settles.weigh_or_feel"), asks_look_of=(piece.tag,))
    if last is None:
        return replace(base, why=said("hurdle.target.never_weighed"), settles=said("settles.weigh"))
    if at is None:
        return replace(base, why=said("hurdle.target.no_target"), settles=said("settles.set_target"))
    if piece.taken_down_s is not None and piece.taken_down_s <= batch.now_s:
        return replace(base, why=said("hurdle.target.down_short", gross_g=last[1]), settles=said("settles.hang_again"))
    return replace(base, why=said("hurdle.target.short", gross_g=last[1]), settles=said("settles.wait_target"))


def _alike(batch: Batch, piece: Piece, mate: Piece) -> bool:
    """Whether a mate of the same way was weighed, in the same casing."""
    return mate.tag != piece.tag and mate.casing == piece.casing and latest(mate, batch.now_s) is not None


def _laboratory_says_dry(view: View, piece: Piece) -> bool:
    found = by_laboratory(view, piece, view.batch.now_s)
    return found is not None and found.value <= DRY_ACTIVITY


def dry_enough(view: View, piece: Piece, cured_well: bool) -> Hurdle:
    """Dry enough that listeria stands still, or nearly.

    Parameters: view; piece; cured_well, whether cold_cure and core_salt of it passed, of intact goods.
    """
    activity = activity_of(view, piece)
    base = Hurdle("dry_enough", "unknown", None, DRY_ACTIVITY, "", pieces=(piece.tag,))
    if activity is None:
        never = latest(piece, view.batch.now_s) is None
        why = said("hurdle.dry.unweighed") if never else said("hurdle.dry.unknown")
        return replace(base, why=why, settles=said("settles.activity" if never else "settles.fat_salt"))
    base = replace(base, value=round(activity.upper, 3), known=activity.known)
    if activity.upper <= DRY_ACTIVITY:
        return replace(base, state="pass")
    if activity.upper <= DRY_SOUR_ACTIVITY and _sour(view.batch):
        return replace(base, state="pass", limit=DRY_SOUR_ACTIVITY)
    nearly = activity.upper <= NEARLY_DRY_ACTIVITY or (
        view.batch.goods == "intact" and cured_well and activity.mean <= NEARLY_DRY_ACTIVITY
    )
    if nearly:
        return replace(base, state="pass", limit=NEARLY_DRY_ACTIVITY, cautions=(said("caution.listeria"),))
    return replace(
        base, why=said("hurdle.dry.wet", upper=round(activity.upper, 3)), settles=said("settles.dry"),
        signable=signable(activity),
    )  # fmt: skip


def signable(activity: Activity) -> bool:
    """Whether anybody may sign for goods of this activity. Parameters: activity."""
    return activity.mean <= NEARLY_DRY_ACTIVITY


def _sour(batch: Batch) -> bool:
    return confirmed_at(believed(batch.ph, batch.now_s), DRY_SOUR_PH) is not None


def evenness(view: View, piece: Piece) -> Hurdle:
    """Even from rim to middle, and clean to the nose. Parameters: view; piece."""
    now_s = view.batch.now_s
    looks = sorted((i for i in piece.inspections if i.at_s <= now_s), key=lambda i: i.at_s)
    base = Hurdle("evenness", "pass", pieces=(piece.tag,), known="measured" if looks else "not known")
    cautions = (said("caution.ring"),) if piece.ring_past_bound else ()
    base = replace(base, cautions=cautions)
    done_s = reached_s(piece, now_s)
    last_bad: Inspection | None = None
    for look in looks:
        if _bad_smell(look) or (look.core in SPOILT_CORE and done_s is not None and look.at_s >= done_s):
            last_bad = look
        elif last_bad is not None and _clean_and_even(look):
            last_bad = None
    if last_bad is not None:
        code = "hurdle.even.smell" if _bad_smell(last_bad) else "hurdle.even.soft"
        return replace(base, state="fail", value=last_bad.core, why=said(code), settles=said("settles.rest_and_feel"))
    if done_s is None and looks and looks[-1].core in SPOILT_CORE:
        return replace(
            base,
            state="pending",
            value=looks[-1].core,
            why=said("hurdle.even.still_soft"),
            settles=said("settles.feel_again"),
        )
    if not looks:
        return replace(base, why=said("hurdle.even.not_felt"))
    return replace(base, value=looks[-1].core)


def _bad_smell(look: Inspection) -> bool:
    return bool(look.smell.strip()) and look.smell.strip().lower() != CLEAN


def _clean_and_even(look: Inspection) -> bool:
    return look.core is not None and look.core not in SPOILT_CORE and look.smell.strip().lower() == CLEAN
