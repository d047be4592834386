"""How long a piece of a sheet would hang in a place, by the workshop's own forecast."""

import dataclasses

from zymon.core.bench.sheet import work
from zymon.core.drying.forecast import forecast
from zymon.store.places import hooks_free

from ..dates import history_of
from ..planner.goods import hung_piece
from ..premises import Premises
from ..schemas import all_said
from . import schemas as s


def weeks(shop: Premises, body: s.WeeksIn) -> s.WeeksOut:
    """How long a piece of this sheet would hang in a place, by the forecast; nothing is stored."""
    plan = body.sheet.plan
    made = hung_piece(body.sheet, plan.piece_g, plan.target_loss_percent, work(body.sheet.to_core()))
    trial = dataclasses.replace(made, hung_at_s=float(shop.now_s))
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
