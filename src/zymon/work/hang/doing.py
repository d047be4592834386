"""Hanging a piece: on which hook, moved, swapped, hung again; what was declared of it, corrected; stays taken back."""

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from typing import get_args

from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import CASINGS
from zymon.core.drying.judge import worth_feeling_s
from zymon.core.errors import OutOfRangeError
from zymon.core.ledger.batch import DoneBy
from zymon.core.order import check_hanging, odd_hanging
from zymon.store import bench, rods, salt, stays, weighings
from zymon.store import hang as store
from zymon.store.models import Batch, Piece

from ..as_forecast import core_of_new, core_piece
from ..dates import history_of
from ..life import before_the_hook
from ..places import ready_out
from ..premises import Premises, Recording, moment
from ..schemas import MadeOut, all_said
from . import entries as e
from . import schemas as s
from . import views

DAY_S = 86_400
MOST_DAYS = 730  # on a hook, where a piece is done by days


def piece(shop: Premises, piece_id: int, made: list[MadeOut] | None = None) -> s.PieceOut:
    """All there is to know of a piece."""
    with shop.db.reading() as session:
        found = views.piece_out(shop, session, store.piece(session, piece_id))
    return found.model_copy(update={"made": made or []})


def _new(body: e.PieceIn, hung_s: int) -> store.NewPiece:
    return store.NewPiece(**body.model_dump(exclude={"at", "rod_id", "hook", "by", "uid", "sure"}), hung_s=hung_s)


def _check_done_by(body: e.PieceIn) -> None:
    """What says that a piece is done must be there. Raises OutOfRangeError."""
    if body.done_by == "weight" and (body.start_weight_g is None or body.target_loss_percent is None):
        raise OutOfRangeError("refused.weight_needs_scale", tag=body.tag)
    if body.done_by == "days" and body.done_days is None:
        raise OutOfRangeError("refused.days_needs_days", tag=body.tag)
    if body.done_by != "weight" and body.target_loss_percent is not None:
        raise OutOfRangeError("refused.target_is_weight", tag=body.tag)


def preview_tag(shop: Premises, place_id: int, body: e.PieceIn) -> s.TagPreview:
    """What the tag of a piece would say, and when it would be ready; nothing is stored."""
    hung_s = shop.now_s if body.at is None else min(int(body.at.timestamp()), shop.now_s)
    _check_done_by(body)
    new = _new(body, hung_s)
    core = core_of_new(new)
    with shop.db.reading() as session:
        history = history_of(session, place_id, shop.now_s, since_s=hung_s)
    made = forecast(replace(history, pieces=(*history.pieces, core)))[-1]
    worth = None if core.by_weight else worth_feeling_s(core, made)
    weeks = None if made.ready_p50_s is None else (made.ready_p50_s - new.hung_s) / DAY_S / 7
    return s.TagPreview(
        target_weight_g=views.target_out(core.target_gross_g),
        tag_g=views.tag_out(core.target_gross_g),
        net_start_g=None if core.start_weight_g is None else core.net_start_g,
        weeks=weeks,
        ready=ready_out(made),
        feel_from=None if worth is None else moment(worth[0]),
        feel_to=None if worth is None else moment(worth[1]),
        reaches=None if made.reaches is None else round(made.reaches, 3),
        assumed=all_said((*history.assumed, *core.assumed)),
    )


def hang(shop: Premises, body: e.PieceIn) -> s.PieceOut:
    """Hang a piece on a free hook, now or as it was noted. Raises ClashError, OutOfRangeError, DoubtfulError."""
    with shop.recording(body, f"hang {body.tag}") as entry:
        if entry.new:
            hung_s = entry.at(body.at)
            _check_done_by(body)
            new = _new(body, hung_s)
            core_of_new(new)  # refuses what no piece can be, before anything is stored
            _check_order(entry, new.tag, hung_s, bench.batch_of_code(entry.session, new.batch_code))
            entry.came("piece", store.hang_piece(entry.session, new, body.rod_id, body.hook, body.by, entry.now_s).id)
    return piece(shop, entry.made[0].id, entry.named)


def _check_order(entry: Recording, tag: str, hung_s: int, batch: Batch | None) -> None:
    """A piece hangs after it was salted, stuffed, made. Raises OutOfRangeError, DoubtfulError."""
    before = before_the_hook(entry.session, tag, None if batch is None else batch.id)
    out = None if before.salted is None else salt.out_at(before.salted)
    check_hanging(tag, hung_s, None if out is None else out.at_s, before.stuffed_s)
    making = None if batch is None else bench.making_of(entry.session, batch.id)
    entry.ask(odd_hanging(tag, hung_s, None if making is None else making.made_s, before.warm_until_s))


def move(shop: Premises, piece_id: int, body: e.HookIn) -> s.PieceOut:
    """Move a piece to a free hook."""
    return _onto_hook(shop, piece_id, body, "move", store.move_piece)


def hang_again(shop: Premises, piece_id: int, body: e.HookIn) -> s.PieceOut:
    """Hang a piece that was off its hook again, under its own tag."""
    return _onto_hook(shop, piece_id, body, "hang again", store.hang_again)


def _onto_hook(shop: Premises, piece_id: int, body: e.HookIn, what: str, put: Callable[..., Piece]) -> s.PieceOut:
    with shop.recording(body, f"{what} {piece_id}") as entry:
        if entry.new:
            of = store.piece(entry.session, piece_id)
            put(entry.session, of, body.rod_id, body.hook, entry.at(body.at), body.by, entry.now_s)
            entry.came("hanging", store.last_hanging(of).id)
    return piece(shop, piece_id, entry.named)


def swap(shop: Premises, piece_id: int, body: e.SwapIn) -> s.PieceOut:
    """Two pieces change places; the answer is of the first, and names both stays."""
    with shop.recording(body, f"swap {piece_id} {body.other_id}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            for swapped in rods.swap(entry.session, piece_id, body.other_id, at_s, body.by, entry.now_s):
                entry.came("hanging", swapped.hangings[-1].id)
    return piece(shop, piece_id, entry.named)


CHOSEN: dict[str, tuple[str, ...]] = {
    "casing": CASINGS, "done_by": get_args(DoneBy), "skin": get_args(e.YesNo), "bone": get_args(e.YesNo),
}  # fmt: skip


def _corrected(field: str, value: float | str | datetime | None) -> float | bool | str | datetime | None:
    """A corrected value as it is kept. Raises OutOfRangeError for what the field cannot be."""
    if field in ("skin", "bone") and value is None:
        return None
    if field in CHOSEN:
        if value not in CHOSEN[field]:
            raise OutOfRangeError("refused.not_of_the_list")
        return value == "yes" if field in ("skin", "bone") else value
    if not isinstance(value, datetime if field == "hung_at" else float | None):
        raise OutOfRangeError("refused.not_of_the_list")
    if field == "done_days" and isinstance(value, float):
        if not (value.is_integer() and 1 <= value <= MOST_DAYS):
            raise OutOfRangeError("refused.not_of_the_list")
        return int(value)
    return value


def correct(shop: Premises, piece_id: int, body: e.CorrectionIn) -> s.PieceOut:
    """Correct what was declared of a piece; the wrong value stays on record with the reason."""
    value = _corrected(body.field, body.value)
    with shop.recording(body, f"correct {piece_id} {body.field}", body.reason) as entry:
        if entry.new:
            of = store.piece(entry.session, piece_id)
            if isinstance(value, datetime):
                hung_s = entry.at(value)
                _check_order(entry, of.tag, hung_s, of.batch)
                stays.correct_hung_at(entry.session, of, hung_s, body.reason, body.by, entry.now_s)
            else:
                weighings.correct_piece(entry.session, of, body.field, value, body.reason, body.by, entry.now_s)
            core_piece(of)  # refuses what no piece can be; nothing is stored then
    return piece(shop, piece_id, entry.named)
