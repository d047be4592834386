"""The Hang station: the room, its pieces, their weighings."""

from dataclasses import replace
from datetime import date, datetime
from datetime import time as clock_time
from typing import Annotated
from zoneinfo import ZoneInfo

from fastapi import APIRouter, Query

from zymon.core.drying.forecast import Change, forecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.judge import ask_about, judge
from zymon.core.drying.priors import CASINGS
from zymon.core.drying.rest import REST_TEMPERATURE_C
from zymon.core.errors import OutOfRangeError
from zymon.core.pieces import net_weight, target_weight
from zymon.store import hang as store
from zymon.store.board import core_piece, history_of, hook_name, record
from zymon.store.places import workshop

from ..context import Context, Ctx, Id, moment
from ..errors import DoubtfulError
from ..schemas import ByIn, StrikeIn
from ..views import ready_out
from . import schemas as s
from . import views

router = APIRouter(prefix="/api", tags=["hang"])

MORNING = clock_time(9)  # a piece hung on an earlier day is taken to have been hung in the morning


@router.get("/places/{place_id}/room")
def room(ctx: Ctx, place_id: Id) -> s.Room:
    """A place as it is: rods, hooks and pieces with their dates."""
    with ctx.db.reading() as session:
        return views.room(ctx, session, place_id)


@router.get("/pieces/{piece_id}")
def piece(ctx: Ctx, piece_id: Id) -> s.PieceOut:
    """All there is to know of a piece."""
    return _piece(ctx, piece_id)


def _piece(ctx: Context, piece_id: int) -> s.PieceOut:
    with ctx.db.reading() as session:
        return views.piece_out(ctx, session, store.piece(session, piece_id))


def _new(ctx: Context, body: s.PieceIn) -> store.NewPiece:
    return store.NewPiece(
        **body.model_dump(exclude={"hung_on", "rod_id", "hook", "by"}), hung_s=_hung_s(ctx, body.hung_on)
    )


def _hung_s(ctx: Context, hung_on: date | None) -> int:
    """The moment of hanging: now, or on an earlier day the morning, by the workshop's clock."""
    with ctx.db.reading() as session:
        shop = workshop(session)
    zone = ZoneInfo(shop.time_zone if shop else "UTC")
    if hung_on is None or hung_on == moment(ctx.now_s).astimezone(zone).date():
        return ctx.now_s
    return int(datetime.combine(hung_on, MORNING, zone).timestamp())


def _core(new: store.NewPiece) -> CorePiece:
    values = {k: v for k, v in vars(new).items() if k not in ("batch_code", "product", "hung_s")}
    return CorePiece(**values, batch=new.batch_code, hung_at_s=new.hung_s)


@router.post("/places/{place_id}/tag")
def preview_tag(ctx: Ctx, place_id: Id, body: s.PieceIn) -> s.TagPreview:
    """What the tag of a piece would say, and when it would be ready; nothing is stored."""
    new = _new(ctx, body)
    target = target_weight(new.start_weight_g, new.tare_g, new.target_loss_percent)
    if new.hung_s > ctx.now_s + 60:
        raise OutOfRangeError("hung in the future: give the day it was hung")
    with ctx.db.reading() as session:
        history = history_of(session, place_id, ctx.now_s)
    made = forecast(replace(history, pieces=(*history.pieces, _core(new))))[-1]
    weeks = None if made.ready_p50_s is None else (made.ready_p50_s - new.hung_s) / 86_400 / 7
    return s.TagPreview(
        target_weight_g=round(target.target_gross_g, 1),
        net_start_g=net_weight(new.start_weight_g, new.tare_g),
        weeks=weeks,
        ready=ready_out(made),
    )


@router.post("/pieces", status_code=201)
def hang(ctx: Ctx, body: s.PieceIn) -> s.PieceOut:
    """Hang a piece on a free hook."""
    new = _new(ctx, body)
    _core(new)  # refuses what no piece can be, before anything is stored
    with ctx.db.writing() as session:
        piece_id = store.hang_piece(session, new, body.rod_id, body.hook, body.by, ctx.now_s).id
    _record(ctx, piece_id, None)
    return _piece(ctx, piece_id)


@router.post("/pieces/{piece_id}/move")
def move(ctx: Ctx, piece_id: Id, body: s.MoveIn) -> s.PieceOut:
    """Move a piece to a free hook."""
    with ctx.db.writing() as session:
        store.move_piece(session, piece_id, body.rod_id, body.hook, body.by, ctx.now_s)
    return _piece(ctx, piece_id)


@router.post("/pieces/{piece_id}/correct")
def correct(ctx: Ctx, piece_id: Id, body: s.CorrectionIn) -> s.PieceOut:
    """Correct what was declared of a piece; the wrong value stays on record with the reason."""
    with ctx.db.writing() as session:
        of = store.correct_piece(session, piece_id, body.field, body.value, body.reason, body.by, ctx.now_s)
        core_piece(of)  # refuses what no piece can be; nothing is stored then
    return _piece(ctx, piece_id)


@router.post("/pieces/{piece_id}/take-down")
def take_down(ctx: Ctx, piece_id: Id, body: s.TakeDownIn) -> s.PieceOut:
    """Take a piece off its hook."""
    with ctx.db.writing() as session:
        store.take_down(session, piece_id, f"{body.reason} ({body.by})", ctx.now_s)
    return _piece(ctx, piece_id)


@router.post("/pieces/{piece_id}/put-back")
def put_back(ctx: Ctx, piece_id: Id, body: ByIn) -> s.PieceOut:
    """Hang a piece that was taken down by mistake on its hook again."""
    with ctx.db.writing() as session:
        store.put_back(session, piece_id, body.by, ctx.now_s)
    return _piece(ctx, piece_id)


@router.post("/pieces/{piece_id}/weighings", status_code=201)
def weigh(ctx: Ctx, piece_id: Id, body: s.WeighingIn) -> s.PieceOut:
    """Store a weight; one that cannot be right is asked about first (409 doubtful)."""
    at_s = ctx.now_s if body.at is None else int(body.at.timestamp())
    with ctx.db.reading() as session:
        of = store.piece(session, piece_id)
        store.check_weight(of, body.gross_g, at_s, ctx.now_s)
        if not body.confirmed:
            made = ctx.board.of_piece(session, of, ctx.now_s)
            question = ask_about(core_piece(of), made, body.gross_g, at_s)
            if question:
                raise DoubtfulError(question)
    with ctx.db.writing() as session:
        entry = store.add_weighing(session, piece_id, body.gross_g, at_s, body.by, ctx.now_s, body.confirmed)
        weighing_id = entry.id
    _record(ctx, piece_id, weighing_id)
    return _piece(ctx, piece_id)


@router.post("/pieces/{piece_id}/what-if")
def what_if(ctx: Ctx, piece_id: Id, body: s.WhatIfIn) -> s.WhatIfOut:
    """What a change from now on would do to the date of a piece; nothing is stored."""
    with ctx.db.reading() as session:
        of = store.piece(session, piece_id)
        fit, index = ctx.board.fitted_piece(session, of, ctx.now_s)
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
    later = None if made.ready_p50_s is None or before is None else (made.ready_p50_s - before) / 86_400
    if body.target_loss_percent is not None:
        core = replace(core, target_loss_percent=body.target_loss_percent)
    return s.WhatIfOut(
        state=judge(core, made, ctx.now_s).state,
        ready=ready_out(made),
        target_weight_g=round(made.target_weight_g, 1),
        pace_percent_per_day=round(made.rate_percent_per_day, 3),
        days_later=None if later is None else round(later, 2),
    )


@router.get("/pieces/{piece_id}/explained")
def explained(ctx: Ctx, piece_id: Id) -> s.ExplainedOut:
    """What the date of a piece rests on, what would narrow it; for a stalled one, which air would bring it there."""
    with ctx.db.reading() as session:
        of = store.piece(session, piece_id)
        fit, index = ctx.board.fitted_piece(session, of, ctx.now_s)
    return views.explained_out(fit, index)


@router.get("/pieces/{piece_id}/inside")
def inside_at(
    ctx: Ctx,
    piece_id: Id,
    at: datetime | None = None,
    rest_c: Annotated[float, Query(ge=-2, le=25)] = REST_TEMPERATURE_C,
) -> s.InsideAtOut:
    """The inside of a piece at any time past or ahead, and what a vacuum rest from then on would do."""
    with ctx.db.reading() as session:
        of = store.piece(session, piece_id)
        fit, index = ctx.board.fitted_piece(session, of, ctx.now_s)
    at_s = float(ctx.now_s) if at is None else at.timestamp()
    if at_s < of.hung_s:
        raise OutOfRangeError("before it was hung there is nothing to show")
    return views.inside_at_out(fit, index, at_s, rest_c)


@router.post("/weighings/{weighing_id}/strike")
def strike(ctx: Ctx, weighing_id: Id, body: StrikeIn) -> s.PieceOut:
    """Strike a weighing through; it stays on record and counts no more."""
    with ctx.db.writing() as session:
        piece_id = store.strike_weighing(session, weighing_id, body.reason, body.by, ctx.now_s).piece_id
    return _piece(ctx, piece_id)


@router.post("/weighings/{weighing_id}/restore")
def restore(ctx: Ctx, weighing_id: Id, body: ByIn) -> s.PieceOut:
    """Take a strike back: the same weighing is entered again beside the struck one."""
    with ctx.db.writing() as session:
        piece_id = store.restore_weighing(session, weighing_id, body.by, ctx.now_s).piece_id
    return _piece(ctx, piece_id)


def _record(ctx: Context, piece_id: int, weighing_id: int | None) -> None:
    with ctx.db.reading() as session:
        of = store.piece(session, piece_id)
        made = ctx.board.of_piece(session, of, ctx.now_s)
    with ctx.db.writing() as session:
        record(session, piece_id, made, weighing_id, ctx.now_s)
