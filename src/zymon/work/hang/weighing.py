"""What the scale shows of a hanging piece: weighed, doubted, struck through, and a slice cut off it."""

from zymon.core import scale
from zymon.core.drying.judge import ask_about
from zymon.store import hang as store
from zymon.store import weighings
from zymon.store.models import Piece

from ..as_forecast import confirmed_ids, core_piece, lost_at
from ..premises import Premises, Recording, moment
from ..schemas import MadeOut, StrikeIn
from . import entries as e
from . import schemas as s
from . import views
from .doing import piece


def weigh_at(shop: Premises, entry: Recording, piece: Piece, gross_g: float, first_g: float | None, at_s: int) -> None:
    """Store a weight, and the first reading where a second agrees; one that cannot well be is asked about."""
    weighings.check_weight(piece, gross_g, at_s)
    second = first_g is not None and scale.agree(scale.Reading(at_s, first_g), scale.Reading(at_s, gross_g))
    kept = False
    if not second:
        question = ask_about(core_piece(piece), shop.dates.of_piece(entry.session, piece, entry.now_s), gross_g, at_s)
        entry.ask(question)
        kept = question is not None
    readings = [weighings.NewWeighing(gross_g, at_s, kept=kept)]
    if second and first_g is not None:
        readings.insert(0, weighings.NewWeighing(first_g, at_s))
    for reading in readings:
        entry.came("weighing", weighings.add_weighing(entry.session, piece, reading, entry.by, entry.now_s).id)


def weigh(shop: Premises, piece_id: int, body: e.WeighingIn) -> s.Weighed:
    """Store a weight and answer at once; the dates that it moves are made anew meanwhile."""
    with shop.recording(body, f"weigh {piece_id}") as entry:
        of = store.piece(entry.session, piece_id)
        if entry.new:
            weigh_at(shop, entry, of, body.gross_g, body.first_g, entry.at(body.at))
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
            loss_percent=lost_at(of, last),
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
    return piece(shop, piece_id, entry.named)


def strike_slice(shop: Premises, cut_id: int, body: StrikeIn) -> s.PieceOut:
    """Strike a slice through, and the weight that was noted with it."""
    with shop.changing(body.by, body.reason) as session:
        piece_id = weighings.strike_cut(session, cut_id, body.reason, body.by, shop.now_s).piece_id
    return piece(shop, piece_id)
