"""What is done at the Hang station: hang, move, weigh, slice, take down, hang again; each recorded once."""

from collections.abc import Callable
from dataclasses import replace

from zymon.core import scale
from zymon.core.drying.forecast import forecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.judge import ask_about, in_doubt, on_the_scale
from zymon.core.errors import OutOfRangeError
from zymon.core.life import BAGS, WENT
from zymon.core.order import check_hanging, odd_hanging, odd_taking_down
from zymon.core.pieces import at_target, loss_percent, net_weight, tag_grams, target_weight
from zymon.core.say import Said, said
from zymon.store import bench, rods, salt, struck, weighings
from zymon.store import hang as store
from zymon.store.database import Session
from zymon.store.models import Piece
from zymon.store.places import touch

from ..as_forecast import confirmed_ids, core_piece, start_at
from ..dates import history_of
from ..ledger.assemble import ledger_of
from ..life import before_the_hook
from ..places import ready_out
from ..premises import Premises, Recording, moment
from ..schemas import MadeOut, StrikeIn, kept_said, said_out
from . import entries as e
from . import schemas as s
from . import views

DAY_S = 86_400


def piece(shop: Premises, piece_id: int, made: list[MadeOut] | None = None) -> s.PieceOut:
    """All there is to know of a piece."""
    with shop.db.reading() as session:
        found = views.piece_out(shop, session, store.piece(session, piece_id))
    return found.model_copy(update={"made": made or []})


def _answer(shop: Premises, piece_id: int, entry: Recording) -> s.PieceOut:
    return piece(shop, piece_id, entry.named)


# -- hanging


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
        history = history_of(session, place_id, shop.now_s)
    made = forecast(replace(history, pieces=(*history.pieces, _core(new))))[-1]
    weeks = None if made.ready_p50_s is None else (made.ready_p50_s - new.hung_s) / DAY_S / 7
    return s.TagPreview(
        target_weight_g=round(target.target_gross_g, 1),
        tag_g=tag_grams(target.target_gross_g),
        net_start_g=net_weight(new.start_weight_g, new.tare_g),
        weeks=weeks,
        ready=ready_out(made),
    )


def hang(shop: Premises, body: e.PieceIn) -> s.PieceOut:
    """Hang a piece on a free hook, now or as it was noted. Raises ClashError, OutOfRangeError, DoubtfulError."""
    with shop.recording(body, f"hang {body.tag}") as entry:
        if entry.new:
            hung_s = entry.at(body.at)
            new = _new(body, hung_s)
            _core(new)  # refuses what no piece can be, before anything is stored
            _check_order(entry, new)
            entry.came("piece", store.hang_piece(entry.session, new, body.rod_id, body.hook, body.by, entry.now_s).id)
    return _answer(shop, entry.made[0].id, entry)


def _check_order(entry: Recording, new: store.NewPiece) -> None:
    """A piece hangs after it was salted, stuffed, made. Raises OutOfRangeError, DoubtfulError."""
    batch = bench.batch_of_code(entry.session, new.batch_code)
    before = before_the_hook(entry.session, new.tag, None if batch is None else batch.id)
    out = None if before.salted is None else salt.out_at(before.salted)
    check_hanging(new.tag, new.hung_s, None if out is None else out.at_s, before.stuffed_s)
    making = None if batch is None else bench.making_of(entry.session, batch.id)
    entry.ask(odd_hanging(new.tag, new.hung_s, None if making is None else making.made_s, before.warm_until_s))


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
    return _answer(shop, piece_id, entry)


def swap(shop: Premises, piece_id: int, body: e.SwapIn) -> s.Room:
    """Two pieces change places; the answer is the place of the first."""
    with shop.recording(body, f"swap {piece_id} {body.other_id}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            first, _ = rods.swap(entry.session, piece_id, body.other_id, at_s, body.by, entry.now_s)
            entry.came("hanging", first.hangings[-1].id)
    with shop.db.reading() as session:
        return views.room(shop, session, store.last_hanging(store.piece(session, piece_id)).place_id)


# -- weighing


def _weigh(shop: Premises, entry: Recording, of: Piece, gross_g: float, first_g: float | None, at_s: int) -> None:
    """Store a weight, and the first reading where a second agrees; one that cannot well be is asked about."""
    weighings.check_weight(of, gross_g, at_s)
    second = first_g is not None and scale.agree(scale.Reading(at_s, first_g), scale.Reading(at_s, gross_g))
    kept = False
    if not second:
        question = ask_about(core_piece(of), shop.dates.of_piece(entry.session, of, entry.now_s), gross_g, at_s)
        entry.ask(question)
        kept = question is not None
    readings = [weighings.NewWeighing(gross_g, at_s, kept=kept)]
    if second and first_g is not None:
        readings.insert(0, weighings.NewWeighing(first_g, at_s))
    for reading in readings:
        entry.came("weighing", weighings.add_weighing(entry.session, of, reading, entry.by, entry.now_s).id)


def weigh(shop: Premises, piece_id: int, body: e.WeighingIn) -> s.Weighed:
    """Store a weight and answer at once; the dates that it moves are made anew meanwhile."""
    with shop.recording(body, f"weigh {piece_id}") as entry:
        of = store.piece(entry.session, piece_id)
        if entry.new:
            _weigh(shop, entry, of, body.gross_g, body.first_g, entry.at(body.at))
    with shop.db.reading() as session:
        of = store.piece(session, piece_id)
        last = next(w for w in of.weighings if w.id == entry.made[-1].id)
        tag_g, there = views.weighed_at_target(of, last.gross_g)
        sure = last.id in confirmed_ids(of)
        return s.Weighed(
            made=entry.named,
            piece_id=of.id,
            place_id=store.last_hanging(of).place_id,
            tag=of.tag,
            at=moment(last.at_s),
            gross_g=last.gross_g,
            loss_percent=round(loss_percent(start_at(of, last.at_s), of.tare_g, last.gross_g), 2),
            tag_g=tag_g,
            at_target=there and (sure or not last.kept),
            confirmed=sure,
        )


def strike_weighing(shop: Premises, weighing_id: int, body: StrikeIn) -> s.PieceOut:
    """Strike a weighing through; it stays on record and counts no more."""
    with shop.changing(body.by, body.reason) as session:
        piece_id = weighings.strike_weighing(session, weighing_id, body.reason, body.by, shop.now_s).piece_id
    return piece(shop, piece_id)


def restore_weighing(shop: Premises, weighing_id: int, by: str) -> s.PieceOut:
    """Take a strike back: the same weighing is entered again beside the struck one, once."""
    with shop.changing(by) as session:
        again = weighings.restore_weighing(session, weighing_id, by, shop.now_s)
        piece_id, made = again.piece_id, [MadeOut(what="weighing", id=again.id)]
    return piece(shop, piece_id, made)


def slice_off(shop: Premises, piece_id: int, body: e.SliceIn) -> s.PieceOut:
    """A slice is taken off and the piece goes on: its loss stays true."""
    with shop.recording(body, f"slice {piece_id}") as entry:
        if entry.new:
            of = store.piece(entry.session, piece_id)
            at_s = entry.at(body.at)
            made = weighings.slice_off(
                entry.session, of, body.before_g, body.after_g, at_s, body.note, body.by, entry.now_s
            )
            entry.came("cut", made.id)
            weighing = weighings.NewWeighing(body.after_g, at_s)
            entry.came("weighing", weighings.add_weighing(entry.session, of, weighing, body.by, entry.now_s).id)
    return _answer(shop, piece_id, entry)


def strike_slice(shop: Premises, cut_id: int, body: StrikeIn) -> s.PieceOut:
    """Strike a slice through, and the weight that was noted with it."""
    with shop.changing(body.by, body.reason) as session:
        found = weighings.cut(session, cut_id)
        struck.strike(found, body.reason, body.by, shop.now_s)
        for weighing in found.piece.weighings:
            if (weighing.at_s, weighing.gross_g, weighing.struck_s) == (found.at_s, found.after_g, None):
                weighings.strike_weighing(session, weighing.id, body.reason, body.by, shop.now_s)
        touch(store.last_hanging(found.piece).rod.place)
        piece_id = found.piece_id
    return piece(shop, piece_id)


def correct(shop: Premises, piece_id: int, body: e.CorrectionIn) -> s.PieceOut:
    """Correct what was declared of a piece; the wrong value stays on record with the reason."""
    if (body.field == "casing") != isinstance(body.value, str):
        raise OutOfRangeError("refused.not_of_the_list")
    with shop.recording(body, f"correct {piece_id} {body.field}", body.reason) as entry:
        if entry.new:
            of = store.piece(entry.session, piece_id)
            weighings.correct_piece(entry.session, of, body.field, body.value, body.reason, body.by, entry.now_s)
            core_piece(of)  # refuses what no piece can be; nothing is stored then
    return _answer(shop, piece_id, entry)


# -- off the hook


def against(shop: Premises, piece_id: int, gross_g: float | None) -> s.Against:
    """What stands against taking a piece down now, at a weight if one is given."""
    with shop.db.reading() as session:
        of = store.piece(session, piece_id)
        found = _against(shop, session, of, gross_g)
        made = shop.dates.of_piece(session, of, shop.now_s)
        return s.Against(against=[said_out(x) for x in found], last=views.scale_out(of, made))


def _against(shop: Premises, session: Session, of: Piece, gross_g: float | None) -> list[Said]:
    core = core_piece(of)
    tag_g = tag_grams(core.target_gross_g)
    found = []
    last = on_the_scale(core, shop.now_s)
    if gross_g is None and last is None:
        found.append(said("against.never_weighed", tag_g=tag_g))
    elif gross_g is None and last is not None and in_doubt(last, shop.dates.of_piece(session, of, shop.now_s)):
        found.append(said("against.doubt", gross_g=last.gross_g))
    weight_g = gross_g if gross_g is not None else (None if last is None else last.gross_g)
    if weight_g is not None and not at_target(weight_g, core.target_gross_g):
        found.append(said("against.over_target", gross_g=weight_g, tag_g=tag_g))
    if not bench.has_making(session, of.batch_id):
        found.append(said("against.no_record"))
    ledger = ledger_of(session, shop.dates, of.batch_id, shop.now_s)
    found += [
        said("against.hurdle", hurdle=h.name, state=h.state)
        for h in ledger.hurdles
        if h.name != "target_loss" and h.blocks and (not h.pieces or of.tag in h.pieces)
    ]
    return found


def _state(body: e.BecomeIn, stands: list[Said]) -> store.NewState:
    if body.kind == "resting" and body.how not in BAGS:
        raise OutOfRangeError("refused.how_it_rests")
    if body.kind == "gone" and body.how not in WENT:
        raise OutOfRangeError("refused.where_it_went")
    if body.kind not in ("resting", "gone") and body.how:
        raise OutOfRangeError("refused.how_of_others")
    if body.how == "discarded" and not body.note:
        raise OutOfRangeError("refused.why_thrown_away")
    return store.NewState(body.kind, body.how, body.place_id, body.note, kept_said(stands) if stands else "")


def take_down(shop: Premises, piece_id: int, body: e.TakeDownIn) -> s.PieceOut:
    """Take a piece off its hook with its weight, or said not to be weighed; what stands against it is kept."""
    if body.gross_g is None and not body.not_weighed:
        raise OutOfRangeError("refused.weigh_or_say")
    with shop.recording(body, f"take down {piece_id}") as entry:
        if entry.new:
            of = store.piece(entry.session, piece_id)
            at_s = entry.at(body.at)
            if store.hanging_now(of) is not None:
                stand = weighings.standing(of)
                entry.ask(odd_taking_down(of.tag, at_s, stand[-1].at_s if stand else None))
                if body.gross_g is not None:
                    _weigh(shop, entry, of, body.gross_g, body.first_g, at_s)
            new = _state(body, _against(shop, entry.session, of, body.gross_g))
            store.take_down(entry.session, of, new, at_s, body.by, entry.now_s)
            entry.came("state", of.states[-1].id)
    return _answer(shop, piece_id, entry)


def become(shop: Premises, piece_id: int, body: e.BecomeIn) -> s.PieceOut:
    """A piece that is off its hook begins to rest, is cut, kept, or goes."""
    with shop.recording(body, f"become {piece_id}") as entry:
        if entry.new:
            of = store.piece(entry.session, piece_id)
            if store.hanging_now(of) is not None:
                raise OutOfRangeError("refused.take_down_first", tag=of.tag)
            at_s = entry.at(body.at)
            store.become(entry.session, of, _state(body, []), at_s, body.by, entry.now_s)
            entry.came("state", of.states[-1].id)
    return _answer(shop, piece_id, entry)


def take_back(shop: Premises, piece_id: int, body: StrikeIn) -> s.PieceOut:
    """Take back what a piece became last, as entered by mistake: struck through, and it is what it was before."""
    with shop.changing(body.by, body.reason) as session:
        of = store.piece(session, piece_id)
        store.strike_state(session, of, body.reason, body.by, shop.now_s)
    return piece(shop, piece_id)
