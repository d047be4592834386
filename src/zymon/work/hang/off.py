"""Off the hook: taken down with its weight, what it becomes, and taking that back."""

from zymon.core.drying.judge import felt_firm, in_doubt, on_the_scale
from zymon.core.errors import OutOfRangeError
from zymon.core.life import BAGS, WENT
from zymon.core.order import odd_taking_down
from zymon.core.pieces import at_target
from zymon.core.say import Said, said
from zymon.store import bench, weighings
from zymon.store import hang as store
from zymon.store.database import Session
from zymon.store.models import Piece

from ..as_forecast import core_piece
from ..ledger.assemble import ledger_of
from ..premises import Premises
from ..schemas import StrikeIn, kept_said, said_out
from . import entries as e
from . import schemas as s
from . import views
from .doing import piece
from .weighing import weigh_at


def against(shop: Premises, piece_id: int, gross_g: float | None) -> s.Against:
    """What stands against taking a piece down now, at a weight if one is given."""
    with shop.db.reading() as session:
        of = store.piece(session, piece_id)
        found = _against(shop, session, of, gross_g)
        made = shop.dates.of_piece(session, of, shop.now_s)
        return s.Against(against=[said_out(x) for x in found], last=views.scale_out(of, made))


def _against(shop: Premises, session: Session, piece: Piece, gross_g: float | None) -> list[Said]:
    core = core_piece(piece)
    target_g = core.target_gross_g
    tag_g = views.tag_out(target_g)
    found = []
    last = on_the_scale(core, shop.now_s)
    if tag_g is None:
        if not felt_firm(core, shop.now_s):
            found.append(said("against.not_felt"))
    elif gross_g is None and last is None:
        found.append(said("against.never_weighed", tag_g=tag_g))
    elif gross_g is None and last is not None and in_doubt(last, shop.dates.of_piece(session, piece, shop.now_s)):
        found.append(said("against.doubt", gross_g=last.gross_g))
    weight_g = gross_g if gross_g is not None else (None if last is None else last.gross_g)
    if weight_g is not None and target_g is not None and tag_g is not None and not at_target(weight_g, target_g):
        found.append(said("against.over_target", gross_g=weight_g, tag_g=tag_g))
    if not bench.has_making(session, piece.batch_id):
        found.append(said("against.no_record"))
    ledger = ledger_of(session, shop.dates, piece.batch_id, shop.now_s)
    found += [
        said("against.hurdle", hurdle=h.name, state=h.state)
        for h in ledger.hurdles
        if h.name != "target_loss" and h.blocks and (not h.pieces or piece.tag in h.pieces)
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
                    weigh_at(shop, entry, of, body.gross_g, body.first_g, at_s)
            new = _state(body, _against(shop, entry.session, of, body.gross_g))
            store.take_down(entry.session, of, new, at_s, body.by, entry.now_s)
            entry.came("state", of.states[-1].id)
    return piece(shop, piece_id, entry.named)


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
    return piece(shop, piece_id, entry.named)


def take_back(shop: Premises, piece_id: int, body: StrikeIn) -> s.PieceOut:
    """Take back what a piece became last, as entered by mistake: struck through, and it is what it was before."""
    with shop.changing(body.by, body.reason) as session:
        of = store.piece(session, piece_id)
        store.strike_state(session, of, body.reason, body.by, shop.now_s)
    return piece(shop, piece_id)
