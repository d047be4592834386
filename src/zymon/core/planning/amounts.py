"""From what is wanted at the table back to what is weighed at the bench: what salt and drying take is put on again."""

from dataclasses import dataclass
from typing import Literal

from ..bench.families import SaltingWay
from ..errors import require
from ..pieces import MAX_TARGET_LOSS_PERCENT
from ..salting.ways import REGISTRY

LossBasis = Literal["hung", "cured", "raw"]


@dataclass(frozen=True)
class Piece:
    """What one piece weighs on its way [g], and the loss from the hook to its target [%]."""

    raw_g: float
    hung_g: float
    table_g: float
    loss_percent: float


def kept_in_salt(salting: SaltingWay) -> float:
    """What is left of a piece after its salt, as a share of its raw weight. Parameters: salting [-].

    Source: liquid shed as makers report it, by way; the middle of the range.

    >>> kept_in_salt("in_the_mince")
    1.0
    """
    if salting == "in_the_mince":
        return 1.0
    low, high = REGISTRY[salting].shed_percent
    return 1 - (low + high) / 200


def piece_of(salting: SaltingWay, basis: LossBasis, loss_percent: float, table_g: float) -> Piece:
    """What a piece has to weigh at first to weigh what is wanted in the end.

    Parameters: salting [-]; basis, of which weight the loss is told; loss_percent [%] above 0…80; table_g [g] above 0.
    Equation: raw = table / ((1 − loss)·kept), kept being what salt leaves; where the loss counts from the raw weight,
    raw = table / (1 − loss). Raises OutOfRangeError where salt alone takes more than that loss.

    >>> round(piece_of("in_the_mince", "hung", 35, 650).raw_g)
    1000
    """
    require("weight at the table", table_g, 0.0, 50_000.0, "g", open_low=True)
    require("target loss", loss_percent, 0.0, MAX_TARGET_LOSS_PERCENT, "%", open_low=True)
    kept = kept_in_salt(salting)
    left = 1 - loss_percent / 100
    raw_g = table_g / left if basis == "raw" else table_g / left / kept
    hung_g = raw_g * kept
    require("target loss from the hook", 100 * (1 - table_g / hung_g), 0.0, 100.0, "%", open_low=True)
    return Piece(raw_g, hung_g, table_g, 100 * (1 - table_g / hung_g))
