"""What is asked of a piece: what if, what its date rests on, what it is like inside."""

from dataclasses import replace
from datetime import datetime

from zymon.core.drying.forecast import Change
from zymon.core.drying.judge import judge
from zymon.core.drying.priors import CASINGS
from zymon.core.errors import OutOfRangeError
from zymon.store import hang as store

from ..as_forecast import hook_name
from ..places import ready_out
from ..premises import Premises
from . import entries as e
from . import schemas as s
from . import views

DAY_S = 86_400


def what_if(shop: Premises, piece_id: int, body: e.WhatIfIn) -> s.WhatIfOut:
    """What a change from now on would do to the date of a piece; nothing is stored."""
    with shop.db.reading() as session:
        of = store.piece(session, piece_id)
        fit, index = shop.dates.fitted_piece(session, of, shop.now_s)
        where = store.last_hanging(of)
    core = fit.arrays.pieces[index]
    air = body.air
    if body.rod_id is not None and body.hook is not None:
        air *= fit.air_at(f"{body.rod_id}/{body.hook}") / fit.air_at(hook_name(where))
    if body.casing is not None:
        air *= CASINGS[body.casing] / CASINGS[core.casing]  # what lets less water through is less air to the meat
    change = Change(body.temperature_c, body.rh_percent, air, body.target_loss_percent)
    made = fit.what_if(index, change)
    before = fit.forecasts[index].ready_p50_s
    later = None if made.ready_p50_s is None or before is None else (made.ready_p50_s - before) / DAY_S
    if body.target_loss_percent is not None:
        core = replace(core, target_loss_percent=body.target_loss_percent)
    return s.WhatIfOut(
        state=judge(core, made, shop.now_s).state,
        ready=ready_out(made),
        target_weight_g=views.target_out(made.target_weight_g),
        tag_g=views.tag_out(made.target_weight_g),
        pace_percent_per_day=round(made.rate_percent_per_day, 3),
        days_later=None if later is None else round(later, 2),
    )


def explained(shop: Premises, piece_id: int) -> s.ExplainedOut:
    """What the date of a piece rests on, what would narrow it; for a stalled one, which air would bring it there."""
    with shop.db.reading() as session:
        fit, index = shop.dates.fitted_piece(session, store.piece(session, piece_id), shop.now_s)
    return views.explained_out(fit, index)


def inside_at(shop: Premises, piece_id: int, at: datetime | None, rest_c: float) -> s.InsideAtOut:
    """The inside of a piece at any time past or ahead, and what a vacuum rest from then on would do.

    Of a piece that came down nothing is told later than that.
    """
    with shop.db.reading() as session:
        of = store.piece(session, piece_id)
        fit, index = shop.dates.fitted_piece(session, of, shop.now_s)
        down_s = store.taken_down_at(of)
    at_s = float(shop.now_s) if at is None else at.timestamp()
    if at_s < of.hung_s:
        raise OutOfRangeError("refused.before_hung")
    return views.inside_at_out(fit, index, at_s if down_s is None else min(at_s, float(down_s)), rest_c)
