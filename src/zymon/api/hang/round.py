"""The weigh round: what to weigh, and many weights at once, each counted once however often it is sent."""

from fastapi import APIRouter
from sqlalchemy.orm import Session

from zymon.core.drying.judge import ask_range, judge
from zymon.core.drying.sentinels import sentinels
from zymon.core.errors import OutOfRangeError
from zymon.store import hang as store
from zymon.store.board import core_piece, record
from zymon.store.models import Piece, Weighing
from zymon.store.places import NotFoundError, place

from ..context import Context, Ctx, Id, moment
from ..views import ready_out
from . import round_schemas as s

router = APIRouter(prefix="/api", tags=["hang"])

TWICE_S = 1800  # two weights of one piece within this are of the same round
SAME_SHARE = 0.01  # by which they may differ and still say the same


@router.get("/places/{place_id}/round")
def round_of(ctx: Ctx, place_id: Id) -> s.RoundOut:
    """Every piece of a place in hook order, with what is expected; those worth weighing say why."""
    now_s = ctx.now_s
    with ctx.db.reading() as session:
        of = place(session, place_id)
        hanging = store.pieces_hanging(session, place_id)
        made = ctx.board.of_place(session, place_id, now_s)
        cores = [core_piece(p) for p in hanging]
        forecasts = [made[p.tag] for p in hanging]
        why = {x.index: x.why for x in sentinels(cores, forecasts, now_s)}
        pieces = []
        for i, (piece, core, forecast) in enumerate(zip(hanging, cores, forecasts, strict=True)):
            low, _, high = forecast.loss_at(now_s)
            ask_low, ask_high = ask_range(core, forecast, now_s)
            counted = [w for w in piece.weighings if w.struck_s is None]
            last = counted[-1] if counted else None
            where = store.last_hanging(piece)
            pieces.append(
                s.RoundPiece(
                    id=piece.id,
                    tag=piece.tag,
                    batch=piece.batch.code,
                    product=piece.batch.product,
                    rod=where.rod.number,
                    hook=where.hook,
                    start_weight_g=piece.start_weight_g,
                    tare_g=piece.tare_g,
                    target_weight_g=round(forecast.target_weight_g, 1),
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


@router.post("/round", status_code=201)
def enter(ctx: Ctx, body: s.RoundIn) -> s.RoundAnswer:
    """Store the weights of a round. One that cannot be stored is refused for itself; the others count."""
    stored: dict[str, tuple[s.Outcome, str, int | None]] = {}
    with ctx.db.writing() as session:
        for entry in body.entries:
            stored[entry.uid] = _store(session, entry, body.by, ctx.now_s)
    with ctx.db.reading() as session:
        answers = [_answer(ctx, session, entry, *stored[entry.uid]) for entry in body.entries]
    _record_all(ctx, [a for a in answers if a.outcome in ("stored", "conflict", "again")])
    return s.RoundAnswer(answers=answers)


def _store(session: Session, entry: s.RoundEntry, by: str, now_s: int) -> tuple[s.Outcome, str, int | None]:
    known = store.weighing_of_uid(session, entry.uid)
    if known is not None:
        return "same", "", known.id
    at_s = min(int(entry.at.timestamp()), now_s)
    try:
        of = store.piece(session, entry.piece_id)
        gone = store.taken_down_at(of)
        if gone is not None and at_s > gone:
            return "refused", f"{of.tag} was taken down before it was weighed", None
        twice = _twice(of, at_s)
        made = store.add_weighing(session, of.id, entry.gross_g, at_s, by, now_s, entry.confirmed, entry.uid)
    except (OutOfRangeError, NotFoundError) as error:
        return "refused", str(error), None
    if twice is None:
        return "stored", "", made.id
    said = f"{twice.by} weighed it at the same time: {twice.gross_g:g} g"
    agree = abs(twice.gross_g - entry.gross_g) <= SAME_SHARE * twice.gross_g
    return ("again" if agree else "conflict"), said, made.id


def _twice(of: Piece, at_s: int) -> Weighing | None:
    near = [w for w in of.weighings if w.struck_s is None and abs(w.at_s - at_s) <= TWICE_S]
    return near[-1] if near else None


def _answer(
    ctx: Context, session: Session, entry: s.RoundEntry, outcome: s.Outcome, text: str, weighing_id: int | None
) -> s.EntryAnswer:
    try:
        of = store.piece(session, entry.piece_id)
    except NotFoundError:
        return s.EntryAnswer(
            uid=entry.uid, piece_id=entry.piece_id, tag="", outcome=outcome, text=text, weighing_id=None,
            loss_percent=None, ready=None, state=None, wants=[],
        )  # fmt: skip
    made = ctx.board.of_piece(session, of, ctx.now_s)
    judged = judge(core_piece(of), made, ctx.now_s)
    return s.EntryAnswer(
        uid=entry.uid,
        piece_id=of.id,
        tag=of.tag,
        outcome=outcome,
        text=text,
        weighing_id=weighing_id,
        loss_percent=round(made.loss_percent, 1),
        ready=ready_out(made),
        state=judged.state,
        wants=list(judged.wants),
    )


def _record_all(ctx: Context, answers: list[s.EntryAnswer]) -> None:
    """Keep what was forecast right after each weighing."""
    with ctx.db.reading() as session:
        made = [
            (a.piece_id, ctx.board.of_piece(session, store.piece(session, a.piece_id), ctx.now_s), a.weighing_id)
            for a in answers
        ]
    if made:
        with ctx.db.writing() as session:
            for piece_id, forecast, weighing_id in made:
                record(session, piece_id, forecast, weighing_id, ctx.now_s)
