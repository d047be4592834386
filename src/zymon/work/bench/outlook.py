"""How long a piece of a sheet would hang in a place, by the workshop's own forecast."""

import dataclasses

from zymon.core.bench.sheet import work
from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.store.places import hooks_free

from ..dates import history_of
from ..premises import Premises
from ..schemas import all_said
from . import schemas as s


def weeks(shop: Premises, body: s.WeeksIn) -> s.WeeksOut:
    """How long a piece of this sheet would hang in a place, by the forecast; nothing is stored."""
    sheet, plan = body.sheet, body.sheet.plan
    worked = work(sheet.to_core())
    made = worked.formulation
    flat = plan.shape == "slab"
    trial = CorePiece(
        tag="\u0000trial", batch="\u0000trial", kind=plan.kind, shape=plan.shape, casing=plan.casing,
        fat_percent=min(worked.fat_percent, 80.0),
        salt_percent=None if made is None else min(made.sodium_chloride_percent_of_meat, 15.0),
        diameter_mm=None if flat else plan.across_mm, thickness_mm=plan.across_mm if flat else None, length_mm=None,
        start_weight_g=plan.piece_g, tare_g=0.0, hung_at_s=float(shop.now_s),
        target_loss_percent=plan.target_loss_percent,
    )  # fmt: skip
    with shop.db.reading() as session:
        history = history_of(session, body.place_id, shop.now_s)
        free = hooks_free(session, body.place_id)
    found = forecast(dataclasses.replace(history, pieces=(*history.pieces, trial)))[-1]

    def in_weeks(seconds: float | None) -> float | None:
        return None if seconds is None else round((seconds - shop.now_s) / 86_400 / 7, 2)

    return s.WeeksOut(
        low=in_weeks(found.ready_p10_s),
        middle=in_weeks(found.ready_p50_s),
        high=in_weeks(found.ready_p90_s),
        hooks_free=free,
        reaches=None if found.reaches is None else round(found.reaches, 3),
        assumed=all_said((*history.assumed, *trial.assumed)),
    )
