"""The weigh round: what to weigh, and many weights at once, each counted once however often it is sent."""

from typing import NamedTuple

from zymon.core import scale
from zymon.core.drying.judge import ask_range, judge
from zymon.core.drying.sentinels import sentinels
from zymon.core.errors import OutOfRangeError, ZymonError
from zymon.core.order import CLOCK_AHEAD_S, clock_off_s, moment_of
from zymon.core.say import Said, said
from zymon.store import hang as store
from zymon.store import weighings
from zymon.store.database import Session
from zymon.store.models import Piece, Weighing
from zymon.store.places import ClashError, NotFoundError, place

from ..as_forecast import core_piece
from ..places import ready_out
from ..premises import Premises, moment
from ..schemas import said_out
from . import round_schemas as s
from .views import scale_out, tag_out

TWICE_S = 1800  # two weights of one piece within this are of the same round


def round_of(shop: Premises, place_id: int) -> s.RoundOut:
    """Every piece of a place in hook order, with what is expected; those worth weighing say why."""
    now_s = shop.now_s
    with shop.db.reading() as session:
        of = place(session, place_id)
        # of one whose start nobody weighed the scale tells nothing
        hanging = [p for p in store.pieces_hanging(session, place_id) if p.start_weight_g is not None]
        made = shop.dates.of_place(session, place_id, now_s).by_tag()
        cores = [core_piece(p) for p in hanging]
        forecasts = [made[p.tag] for p in hanging]
        why = {x.index: x.why for x in sentinels(cores, forecasts, now_s)}
        pieces = []
        for i, (piece, core, forecast) in enumerate(zip(hanging, cores, forecasts, strict=True)):
            low, _, high = forecast.loss_at(now_s)
            ask_low, ask_high = ask_range(core, forecast, now_s)
            stand = weighings.standing(piece)
            last = stand[-1] if stand else None
            where = store.last_hanging(piece)
            pieces.append(
                s.RoundPiece(
                    id=piece.id,
                    tag=piece.tag,
                    batch=piece.batch.code,
                    product=piece.batch.product,
                    rod=where.rod.number,
                    hook=where.hook,
                    start_weight_g=core.net_start_g + core.tare_g,
                    tare_g=piece.tare_g,
                    tag_g=tag_out(forecast.target_weight_g),
                    last_g=None if last is None else last.gross_g,
                    last_at=None if last is None else moment(last.at_s),
                    expected_low_g=round(core.gross_at(high), 1),
                    expected_high_g=round(core.gross_at(low), 1),
                    ask_low_g=round(ask_low, 1),
                    ask_high_g=round(ask_high, 1),
                    why=why.get(i),
                )
            )
        return s.RoundOut(place_id=place_id, place=of.name, at=moment(now_s), pieces=pieces)


class Stored(NamedTuple):
    """What came of one weight of a round."""

    outcome: s.Outcome
    says: Said | None = None
    weighing_id: int | None = None


class TypedByOtherError(ZymonError, PermissionError):
    """Weights that somebody typed without a connection, sent while somebody else is signed in."""


def enter(shop: Premises, body: s.RoundIn) -> s.RoundAnswer:
    """Store the weights of a round. One that cannot be stored is refused for itself; the others count."""
    if body.typed_by is not None and body.typed_by != body.by:
        raise TypedByOtherError("refused.typed_by_other", name=body.typed_by)
    stored: dict[str, Stored] = {}
    off_s = 0.0 if body.sent_at is None else clock_off_s(body.sent_at.timestamp(), shop.now_s)
    with shop.changing(body.by) as session:
        for entry in body.entries:
            stored[entry.uid] = _store(session, entry, off_s, body.by, shop.now_s)
    with shop.db.reading() as session:
        return s.RoundAnswer(answers=[_answer(shop, session, e, stored[e.uid]) for e in body.entries])


def _store(session: Session, entry: s.RoundEntry, off_s: float, by: str, now_s: int) -> Stored:
    known = weighings.weighing_of_uid(session, entry.uid)
    if known is not None:
        return Stored("same", None, known.id)
    at_s = int(moment_of(entry.at.timestamp() - off_s, now_s))
    try:
        of = store.piece(session, entry.piece_id)
        if at_s > now_s + CLOCK_AHEAD_S:
            hours = (at_s - now_s) / 3600
            raise OutOfRangeError("refused.clock_ahead", hours=round(hours, 1))
        gone = store.taken_down_at(of)
        if gone is not None and at_s > gone:
            raise ClashError("refused.down_before_weighed", tag=of.tag)
        twice = _twice(of, at_s)
        new = weighings.NewWeighing(entry.gross_g, at_s, "round", entry.confirmed, entry.uid)
        made = weighings.add_weighing(session, of, new, by, now_s)
    except (OutOfRangeError, NotFoundError, ClashError) as error:
        return Stored("refused", error.said)
    if twice is None:
        off = said("round.clock_off", hours=round(off_s / 3600, 1)) if off_s else None
        return Stored("stored", off, made.id)
    says = said("round.twice", by=twice.by, gross_g=twice.gross_g)
    agree = scale.agree(scale.Reading(twice.at_s, twice.gross_g), scale.Reading(at_s, entry.gross_g))
    return Stored("again" if agree else "conflict", says, made.id)


def _twice(piece: Piece, at_s: int) -> Weighing | None:
    near = [w for w in weighings.standing(piece) if abs(w.at_s - at_s) <= TWICE_S]
    return near[-1] if near else None


def _answer(shop: Premises, session: Session, entry: s.RoundEntry, stored: Stored) -> s.EntryAnswer:
    says = None if stored.says is None else said_out(stored.says)
    try:
        of = store.piece(session, entry.piece_id)
    except NotFoundError:
        return s.EntryAnswer(
            uid=entry.uid, piece_id=entry.piece_id, tag="", outcome=stored.outcome, says=says, weighing_id=None,
            loss_percent=None, ready=None, state=None, wants=[],
        )  # fmt: skip
    made = shop.dates.of_piece(session, of, shop.now_s)
    judged = judge(core_piece(of), made, shop.now_s)
    last = scale_out(of, made)
    return s.EntryAnswer(
        uid=entry.uid,
        piece_id=of.id,
        tag=of.tag,
        outcome=stored.outcome,
        says=says,
        weighing_id=stored.weighing_id,
        loss_percent=None if last is None or last.loss_percent is None else round(last.loss_percent, 1),
        ready=ready_out(made),
        state=judged.state,
        wants=list(judged.wants),
    )
