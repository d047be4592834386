"""Water activity of a piece as the ledger counts it: the laboratory's, or the estimate with its upper value."""

from dataclasses import dataclass

from ..errors import OutOfRangeError
from ..keeping import keeping_at
from ..water import SATURATED_MOLALITY, WaterActivity, brine_water_activity
from .batch import Known, LabValue, Piece
from .bowl import loss_at
from .marks import LEAST_ACTIVITY_SD
from .view import View


@dataclass(frozen=True)
class Activity:
    """Water activity: the mean, and the value it is held to be under."""

    mean: float
    upper: float
    known: Known


def by_laboratory(view: View, piece: Piece, at_s: float) -> LabValue | None:
    """The laboratory value that answers for a piece at a moment, or None. Parameters: view; piece; at_s [s].

    Its own; or one of the batch or of another piece that it has dried at least as far as by then. A piece never weighed
    is answered by its own alone.
    """
    values = [v for v in view.batch.lab("water_activity") if v.at_s <= at_s]
    loss = loss_at(piece, at_s)
    answering = [
        v for v in values
        if v.tag == piece.tag or (loss is not None and (v.tag is None or _dried_as_far(view, piece, loss, v)))
    ]  # fmt: skip
    return answering[-1] if answering else None


def _dried_as_far(view: View, piece: Piece, loss: float, result: LabValue) -> bool:
    tested = next((p for p in view.batch.pieces if p.tag == result.tag), None)
    if tested is None or tested.tag == piece.tag:
        return False
    had_lost = loss_at(tested, result.at_s)
    return had_lost is not None and loss >= had_lost


def activity_of(view: View, piece: Piece, at_s: float | None = None) -> Activity | None:
    """Water activity of a piece by its latest weighing up to a moment; None where it is not known.

    Parameters: view; piece; at_s [s], None for now. A laboratory value counts from its moment on.
    """
    moment_s = view.batch.now_s if at_s is None else at_s
    lab = by_laboratory(view, piece, moment_s)
    if lab is not None:
        return Activity(lab.value, lab.value, "laboratory")
    loss = loss_at(piece, moment_s)
    return None if loss is None else estimated(view, max(loss, 0.0))


def estimated(view: View, loss_percent: float) -> Activity | None:
    """The estimate at a loss, with the batch's own fat and salt; None where one of them is not known.

    Parameters: view; loss_percent [%].
    """
    salt = view.salt_percent if view.salt_percent is not None else view.taken_up_percent
    if salt is None or view.fat_percent is None:
        return None
    try:
        found = keeping_at(min(view.fat_percent, 70.0), salt, loss_percent, None)
        mean, sd = found.water_activity, max(found.water_activity_sd, LEAST_ACTIVITY_SD)
    except OutOfRangeError:
        # so dry that its salt no longer dissolves: its water is a saturated brine
        mean, sd = brine_water_activity(SATURATED_MOLALITY), LEAST_ACTIVITY_SD
    return Activity(mean, WaterActivity(mean, sd).upper, "estimated")
