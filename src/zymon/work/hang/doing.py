"""Hanging a piece: on which hook, moved, swapped, hung again; what was declared of it, corrected; stays taken back."""

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime

from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.errors import OutOfRangeError
from zymon.core.order import check_hanging, odd_hanging
from zymon.core.pieces import net_weight, tag_grams, target_weight
from zymon.store import bench, rods, salt, stays, weighings
from zymon.store import hang as store
from zymon.store.models import Batch, Piece

from ..as_forecast import core_piece
from ..dates import history_of
from ..life import before_the_hook
from ..places import ready_out
from ..premises import Premises, Recording
from ..schemas import MadeOut, all_said
from . import entries as e
from . import schemas as s
from . import views

DAY_S = 86_400


def piece(shop: Premises, piece_id: int, made: list[MadeOut] | None = None) -> s.PieceOut:
    """All there is to know of a piece."""
    with shop.db.reading() as session:
        found = views.piece_out(shop, session, store.piece(session, piece_id))
    return found.model_copy(update={"made": made or []})


def _new(body: e.PieceIn, hung_s: int) -> store.NewPiece:
    return store.NewPiece(**body.model_dump(exclude={"at", "rod_id", "hook", "by", "uid", "sure"}), hung_s=hung_s)


def _core(new: store.NewPiece) -> CorePiece:
    values = {k: v for k, v in vars(new).items() if k not in ("batch_code", "product", "hung_s")}
    return CorePiece(**values, batch=new.batch_code, hung_at_s=new.hung_s)


def preview_tag(shop: Premises, place_id: int, body: e.PieceIn) -> s.TagPreview:
    """What the tag of a piece would say, and when it would be ready; nothing is stored."""
    hung_s = shop.now_s if body.at is None else min(int(body.at.timestamp()), shop.now_s)
    new = _new(body, hung_s)
    target = target_weight(new.start_weight_g, new.tare_g, new.target_loss_percent)
    with shop.db.reading() as session:
        history = history_of(session, place_id, shop.now_s, since_s=hung_s)
    made = forecast(replace(history, pieces=(*history.pieces, _core(new))))[-1]
    weeks = None if made.ready_p50_s is None else (made.ready_p50_s - new.hung_s) / DAY_S / 7
    return s.TagPreview(
        target_weight_g=round(target.target_gross_g, 1),
        tag_g=tag_grams(target.target_gross_g),
        net_start_g=net_weight(new.start_weight_g, new.tare_g),
        weeks=weeks,
        ready=ready_out(made),
        reaches=round(made.reaches, 3),
        assumed=all_said((*history.assumed, *_core(new).assumed)),
    )


def hang(shop: Premises, body: e.PieceIn) -> s.PieceOut:
    """Hang a piece on a free hook, now or as it was noted. Raises ClashError, OutOfRangeError, DoubtfulError."""
    with shop.recording(body, f"hang {body.tag}") as entry:
        if entry.new:
            hung_s = entry.at(body.at)
            new = _new(body, hung_s)
            _core(new)  # refuses what no piece can be, before anything is stored
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


def correct(shop: Premises, piece_id: int, body: e.CorrectionIn) -> s.PieceOut:
    """Correct what was declared of a piece; the wrong value stays on record with the reason."""
    wanted = {"hung_at": datetime, "casing": str}.get(body.field, float | None)
    if not isinstance(body.value, wanted):
        raise OutOfRangeError("refused.not_of_the_list")
    with shop.recording(body, f"correct {piece_id} {body.field}", body.reason) as entry:
        if entry.new:
            of = store.piece(entry.session, piece_id)
            if isinstance(body.value, datetime):
                hung_s = entry.at(body.value)
                _check_order(entry, of.tag, hung_s, of.batch)
                stays.correct_hung_at(entry.session, of, hung_s, body.reason, body.by, entry.now_s)
            else:
                weighings.correct_piece(entry.session, of, body.field, body.value, body.reason, body.by, entry.now_s)
            core_piece(of)  # refuses what no piece can be; nothing is stored then
    return piece(shop, piece_id, entry.named)
