"""What the charts show, as tables: a piece's drying, a batch's pH, with their windows."""

from zymon.formats.tables import csv_table

from .hang import doing
from .premises import Premises
from .warm import views as warm


def drying(shop: Premises, piece_id: int) -> tuple[str, str]:
    """The tag of a piece, and its expected loss over time with its window as CSV. Raises NotFoundError."""
    of = doing.piece(shop, piece_id)
    curve = of.curve
    rows = zip(curve.at, curve.low, curve.middle, curve.high, strict=True)
    head = ("at", "loss_p10_percent", "loss_p50_percent", "loss_p90_percent")
    return of.card.tag, csv_table(head, ((at.isoformat(), *loss) for at, *loss in rows))


def souring(shop: Premises, batch_id: int) -> tuple[str, str]:
    """The code of a batch, and its expected pH over time with its window as CSV. Raises NotFoundError."""
    of = warm.detail(shop, batch_id)
    curve = of.curve
    rows = zip(curve.at, curve.low, curve.middle, curve.high, strict=True)
    return of.card.batch, csv_table(("at", "ph_p10", "ph_p50", "ph_p90"), ((at.isoformat(), *ph) for at, *ph in rows))
