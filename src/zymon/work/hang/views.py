"""From what is stored and forecast to what the Hang station shows of a piece."""

from collections.abc import Mapping, Sequence

from zymon.core.drying.explain import explain
from zymon.core.drying.forecast import Fitted, PieceForecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.inside import inside
from zymon.core.drying.judge import in_doubt, judge, on_the_scale, outline, worth_feeling_s
from zymon.core.drying.mend import passes_over_s
from zymon.core.drying.reach import reaching
from zymon.core.drying.rest import vacuum_rest
from zymon.core.life import State
from zymon.core.pieces import at_target, tag_grams
from zymon.core.say import Said
from zymon.store import models
from zymon.store.climate import series_along
from zymon.store.database import Session
from zymon.store.hang import (
    hanging_now,
    last_hanging,
    taken_down_at,
)
from zymon.store.places import place, setpoint_at
from zymon.store.told import told
from zymon.store.weighings import standing

from ..as_forecast import confirmed_ids, core_piece, lost_at, on_a_hook, target_gross
from ..life import state_of
from ..places import climate_out, ready_of, ready_out
from ..premises import Premises, moment
from ..schemas import ClimateOut, SaidOut, Setpoint, all_said, read_said, said_out
from . import schemas as s

CURVE_PAST_WINDOW = 1.15  # the curve is shown a little past the end of the window
CLIMATE_POINTS = 360


def life_out(state: State) -> s.LifeOut:
    """What a piece is now."""
    return s.LifeOut(kind=state.kind, how=state.how, since=moment(state.from_s), place=state.place, by=state.by)


def scale_out(piece: models.Piece, made: PieceForecast | None, core: CorePiece | None = None) -> s.ScaleOut | None:
    """What the scale said last of a piece, and whether that is in doubt.

    Parameters: made, None where nobody asked; core, the piece as the forecast sees it where that is known already.
    """
    stand = standing(piece)
    if not stand:
        return None
    last = stand[-1]
    sure = last.id in confirmed_ids(piece)
    doubt = last.kept and not sure
    if made is not None and on_a_hook(piece, last):
        said = on_the_scale(core or core_piece(piece), last.at_s)
        doubt = said is not None and in_doubt(said, made)
    return s.ScaleOut(
        at=moment(last.at_s),
        gross_g=last.gross_g,
        loss_percent=lost_at(piece, last),
        doubt=doubt,
        confirmed=sure,
    )


def card(piece: models.Piece, core: CorePiece, made: PieceForecast, now_s: int) -> s.PieceCard:
    """A piece as it hangs, or as it was when it came down. The scale's word comes first, the model's beside it."""
    hangs = hanging_now(piece) is not None
    at_s = now_s if hangs else (taken_down_at(piece) or now_s)
    judged = judge(core, made, at_s)
    said = scale_out(piece, made, core)
    model_g = None if core.start_weight_g is None else round(core.gross_at(made.loss_percent / 100), 1)
    believed = None if said is None or said.doubt else said  # a reading in doubt is shown, yet draws no piece
    lost = made.loss_percent if believed is None or believed.loss_percent is None else believed.loss_percent
    worth = None if core.by_weight or not hangs else worth_feeling_s(core, made)
    size = outline(core, lost / 100)
    where = last_hanging(piece)
    over_s = passes_over_s(core, made) if hangs else None
    return s.PieceCard(
        id=piece.id,
        tag=piece.tag,
        batch=piece.batch.code,
        product=piece.batch.product,
        kind=core.kind,
        shape=core.shape,
        rod=where.rod.number,
        hook=where.hook,
        hung_at=moment(piece.hung_s),
        length_mm=round(size.length_mm, 1),
        width_mm=round(size.width_mm, 1),
        girth_now=round(size.girth_now, 4),
        girth_target=round(size.girth_target, 4),
        start_weight_g=piece.start_weight_g,
        scale=said,
        weight_now_g=model_g if believed is None else believed.gross_g,
        loss_percent=round(lost, 2),
        model_weight_g=model_g,
        model_loss_percent=round(made.loss_percent, 2),
        model_loss_low_percent=round(made.loss_p10_percent, 2),
        model_loss_high_percent=round(made.loss_p90_percent, 2),
        target_weight_g=target_out(made.target_weight_g),
        tag_g=tag_out(made.target_weight_g),
        tare_g=piece.tare_g,
        target_loss_percent=piece.target_loss_percent,
        aim_percent=core.aim_percent,
        done_by=piece.done_by or piece.batch.done_by,
        done_days=piece.done_days,
        feel_from=None if worth is None else moment(worth[0]),
        feel_to=None if worth is None else moment(worth[1]),
        pace_percent_per_day=round(made.rate_percent_per_day, 3) if hangs else 0.0,
        safe_percent_per_day=round(made.safe_percent_per_day, 3),
        ring_risk=round(made.ring_risk, 3),
        state=judged.state,
        wants=list(judged.wants) if hangs else [],
        days_left=None
        if judged.days_left is None or not hangs
        else s.DaysLeftOut(value=judged.days_left.value, unit=judged.days_left.unit, about=judged.days_left.about),
        ready=ready_out(made) if hangs else ready_of(None, None, None),
        over_at=None if over_s is None else moment(over_s),
        last_weighed_at=None if said is None else said.at,
        life=life_out(state_of(piece)),
    )


def target_out(target_g: float | None) -> float | None:
    """A target as it is told [g]; None where a piece is not done by weight."""
    return None if target_g is None else round(target_g, 1)


def tag_out(target_g: float | None) -> int | None:
    """The gram on the tag; None where a piece is not done by weight."""
    return None if target_g is None else tag_grams(target_g)


def weighings_out(piece: models.Piece, made: PieceForecast) -> list[s.WeighingOut]:
    """All weighings of a piece, newest first, with the doubts named; each loss of the start as it was then."""
    doubts: Mapping[float, Said] = {d.at_s: d.reason for d in made.doubts}
    sure = confirmed_ids(piece)
    return [
        s.WeighingOut(
            id=w.id,
            at=moment(w.at_s),
            gross_g=w.gross_g,
            loss_percent=lost_at(piece, w),
            by=w.by,
            confirmed=w.id in sure,
            kept=w.kept,
            imported=w.import_id is not None,
            struck_at=None if w.struck_s is None else moment(w.struck_s),
            struck_by=w.struck_by,
            struck_reason=w.struck_reason,
            doubt=_doubt_out(doubts.get(w.at_s)) if w.struck_s is None and w.id not in sure else None,
        )
        for w in sorted(piece.weighings, key=lambda w: (w.at_s, w.id), reverse=True)
    ]


def _doubt_out(of: Said | None) -> SaidOut | None:
    return None if of is None else said_out(of)


def _curve_end(piece: models.Piece, made: PieceForecast, now_s: int) -> float:
    """Where a curve ends: a little past the window, but a long tail does not squeeze the days that matter.

    That of a piece that came down ends there.
    """
    down_s = taken_down_at(piece)
    if down_s is not None:
        return float(min(down_s, now_s))
    hung_s = piece.hung_s
    if made.usual_s is not None:
        return max(hung_s + (made.usual_s[2] - hung_s) * CURVE_PAST_WINDOW, now_s + 86_400.0)
    if made.ready_p50_s is None or made.ready_p90_s is None:
        return max(now_s + 30 * 86_400.0, now_s + (now_s - hung_s))
    end = min(hung_s + (made.ready_p90_s - hung_s) * CURVE_PAST_WINDOW, hung_s + (made.ready_p50_s - hung_s) * 1.7)
    return max(end, now_s + 86_400.0)


def _curve(piece: models.Piece, made: PieceForecast, now_s: int) -> s.Curve:
    until = _curve_end(piece, made, now_s)
    shown = [i for i, t in enumerate(made.curve_s) if t <= until]
    if hanging_now(piece) is not None:
        shown.append(min(len(shown), len(made.curve_s) - 1))
    return s.Curve(
        at=[moment(made.curve_s[i]) for i in shown],
        low=[round(100 * float(made.curve_p10[i]), 3) for i in shown],
        middle=[round(100 * float(made.curve_p50[i]), 3) for i in shown],
        high=[round(100 * float(made.curve_p90[i]), 3) for i in shown],
    )


def piece_out(shop: Premises, session: Session, piece: models.Piece) -> s.PieceOut:
    """All there is to know of a piece; of one that came down as it was then."""
    now_s = shop.now_s
    where = last_hanging(piece)
    fit, index = shop.dates.fitted_piece(session, piece, now_s)
    made = fit.forecasts[index]
    core = core_piece(piece)
    home = place(session, where.place_id)
    hangs = hanging_now(piece) is not None
    until_s = now_s if hangs else min(taken_down_at(piece) or now_s, now_s)
    setpoint = setpoint_at(home, until_s)
    low, _, high = made.loss_at(until_s)
    stays = [(h.place_id, h.from_s, h.to_s or until_s) for h in piece.hangings]
    return s.PieceOut(
        card=card(piece, core, made, now_s),
        batch_id=piece.batch_id,
        place_id=where.place_id,
        dates_being_made=hangs and shop.dates.are_older(session, where.place_id, fit),
        casing=core.casing,
        fat_percent=piece.batch.fat_percent,
        salt_percent=piece.batch.salt_percent,
        diameter_mm=piece.diameter_mm,
        thickness_mm=piece.thickness_mm,
        declared_length_mm=piece.length_mm,
        skin=piece.skin,
        bone=piece.bone,
        hangs=hangs,
        expected_low_g=None if core.start_weight_g is None else round(core.gross_at(high), 1),
        expected_high_g=None if core.start_weight_g is None else round(core.gross_at(low), 1),
        weighings=weighings_out(piece, made),
        told=[
            s.ToldOut(at=moment(r.made_s), ready=ready_of(r.p10_s, r.p50_s, r.p90_s)) for r in told(session, piece.id)
        ],
        hangings=[_hanging_out(h) for h in sorted((*piece.hangings, *piece.struck_hangings), key=_by_time)],
        states=[_state_out(x) for x in piece.states],
        cuts=[
            s.CutOut(
                id=c.id, at=moment(c.at_s), before_g=c.before_g, after_g=c.after_g, note=c.note, by=c.by,
                struck_reason=c.struck_reason,
            )
            for c in piece.cuts
        ],
        corrections=[
            s.CorrectionOut(field=k.field, was=k.was, now=k.now, reason=k.reason, by=k.by, at=moment(k.at_s))
            for k in piece.corrections
        ],
        reaches=None if made.reaches is None else round(made.reaches, 3),
        assumed=all_said((*fit.history.assumed, *core.assumed)),
        outside=fit.history.outside(core),
        curve=_curve(piece, made, now_s),
        climate=shop.shared.get(
            ("air along", piece.id),
            lambda: (shop.db.version(frozenset({"weighing"})), hangs),
            lambda: _air_along(shop, stays),
        ),
        setpoint=None if setpoint is None else Setpoint.model_validate(setpoint, from_attributes=True),
        air_ahead=Setpoint(
            temperature_c=round(fit.arrays.air.ahead_temperature_c, 1),
            rh_percent=round(fit.arrays.air.ahead_rh_percent),
        ),
        inside=s.InsideOut.model_validate(inside(fit, index, until_s), from_attributes=True),
    )  # fmt: skip


def _air_along(shop: Premises, stays: Sequence[tuple[int, int, int]]) -> ClimateOut:
    """The air along the stays of a piece, by a session of its own."""
    with shop.db.reading() as own:
        return climate_out(series_along(own, stays, CLIMATE_POINTS))


def _by_time(hanging: models.Hanging) -> tuple[int, int]:
    return hanging.from_s, hanging.id


def _hanging_out(hanging: models.Hanging) -> s.HangingOut:
    return s.HangingOut(
        id=hanging.id,
        place=hanging.rod.place.name,
        rod_id=hanging.rod_id,
        rod=hanging.rod.number,
        hook=hanging.hook,
        from_at=moment(hanging.from_s),
        to_at=None if hanging.to_s is None else moment(hanging.to_s),
        ended_as=hanging.ended_as,
        by=hanging.by,
        ended_by=hanging.ended_by,
        struck_reason=hanging.struck_reason,
    )


def _state_out(piece_state: models.PieceState) -> s.StateOut:
    return s.StateOut(
        id=piece_state.id,
        kind=piece_state.kind,
        how=piece_state.how,
        since=moment(piece_state.from_s),
        to_at=None if piece_state.to_s is None else moment(piece_state.to_s),
        place=None if piece_state.place is None else piece_state.place.name,
        by=piece_state.by,
        note=piece_state.note,
        against=all_said(read_said(piece_state.against)),
        struck_reason=piece_state.struck_reason,
    )


def weighed_at_target(piece: models.Piece, gross_g: float) -> tuple[int | None, bool]:
    """The gram on the tag, and whether a reading is at it; None where it is not done by weight."""
    target_g = target_gross(piece)
    return tag_out(target_g), target_g is not None and at_target(gross_g, target_g)


def explained_out(fit: Fitted, index: int) -> s.ExplainedOut:
    """What a date rests on."""
    found = explain(fit, index)
    reach = reaching(fit, index) if fit.forecasts[index].status == "stalled" else None
    return s.ExplainedOut(
        prior_share=round(found.prior_share, 3),
        own_share=round(found.own_share, 3),
        mates_share=round(found.mates_share, 3),
        air_share=round(found.air_share, 3),
        own_weighings=found.own_weighings,
        mates_weighed=found.mates_weighed,
        window_days=found.window_days,
        narrowing=[s.NarrowingOut(by=n.by, window_days=n.window_days) for n in found.narrowing],
        reaching=None
        if reach is None
        else s.ReachingOut(
            rh_percent=reach.rh_percent,
            ready_at=None if reach.ready_p50_s is None else moment(reach.ready_p50_s),
            most_loss_percent=round(reach.most_loss_percent, 1),
        ),
    )


def inside_at_out(fit: Fitted, index: int, at_s: float, rest_c: float) -> s.InsideAtOut:
    """The inside at a time, and the rest from then on."""
    rest = vacuum_rest(fit, index, at_s, rest_c)
    return s.InsideAtOut(
        at=moment(at_s),
        loss_percent=round(100 * fit.forecasts[index].loss_at(at_s)[1], 2),
        inside=s.InsideOut.model_validate(inside(fit, index, at_s), from_attributes=True),
        rest=s.VacuumRestOut(
            temperature_c=rest_c,
            weeks=rest.weeks,
            ring_index=[round(r, 3) for r in rest.ring_index],
            rim_feels=rest.rim_feels,
            core_feels=rest.core_feels,
        ),
    )
