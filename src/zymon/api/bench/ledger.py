"""The ledger of a batch: every hurdle with its limit, its value and how it is known."""

from fastapi import APIRouter
from sqlalchemy.orm import Session

from zymon.core.ledger import batch as core
from zymon.core.ledger.clocks import worst_cure
from zymon.core.ledger.judge import Ledger, judge
from zymon.core.salting.clock import salt_clocks
from zymon.formats.batch_file import LedgerFile, ledger_out
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench as store
from zymon.store import salt
from zymon.store.bench_models import Making
from zymon.store.places import ClashError

from ..context import Ctx, Id
from . import making_schemas as m
from .shared import profile

router = APIRouter(prefix="/api", tags=["bench"])


def _ledger(session: Session, batch_id: int, now_s: int) -> Ledger:
    return judge(_batch(session, store.making(session, batch_id), now_s))


def _salted(session: Session, of: Making, now_s: int) -> tuple[core.Cure | None, core.CoreSalt | None]:
    """The time in salt that says most against a batch, and the core that is furthest behind."""
    pieces = [p for p in salt.pieces_of_batch(session, of.batch_id) if not salt.ended(p)]
    if not pieces:
        return None, None
    colds = salt.colds_for(session, pieces, now_s)
    clocks = salt_clocks([salt.bag_of(p, colds) for p in pieces], now_s)
    cures = [salt.cure_of(p, colds, of.made_s) for p in pieces]
    shares = []
    for piece, clock in zip(pieces, clocks, strict=True):
        out = salt.out_at(piece)
        if out is None:
            shares.append(core.CoreSalt(piece.tag, clock.core_share, out=False))
        else:
            mean, middle = clock.at(out.at_s)
            shares.append(core.CoreSalt(piece.tag, middle / max(mean, 1e-9), out=True))
    behind = min(shares, key=lambda c: (c.out, c.share))
    return worst_cure(cures, (now_s - of.made_s) / 3600), behind


def _batch(session: Session, of: Making, now_s: int) -> core.Batch:
    """What is known of a batch today; what no station records yet is not known."""
    cure, core_salt = _salted(session, of, now_s)
    sheet = SheetModel.model_validate_json(of.sheet)
    plan, curing = sheet.plan, sheet.curing
    meat_g = sum(part.weight_g for part in sheet.parts)
    bowl = core.Bowl(
        meat_g=meat_g,
        plain_salt_g=meat_g * sheet.salt_percent / 100,  # as made: the salt stands beside the curing salt
        curing_salt_g=meat_g * curing.percent / 100 if curing else 0.0,
        nitrite_fraction=curing.nitrite_fraction if curing else 0.0,
        nitrate_fraction=curing.nitrate_fraction if curing else 0.0,
        belly=plan.goods == "belly",
    )
    hung = {piece.id: piece for piece in of.batch.pieces}
    waiting = [
        core.HungPiece(made.tag, made.gross_g, made.tare_g, made.target_loss_percent, ())
        for made in of.pieces
        if made.piece_id is None
    ]
    hanging = [
        core.HungPiece(
            piece.tag,
            piece.start_weight_g,
            piece.tare_g,
            piece.target_loss_percent,
            tuple(((w.at_s - of.made_s) / 3600, w.gross_g) for w in piece.weighings if w.struck_s is None),
        )
        for piece in hung.values()
    ]
    return core.Batch(
        id=of.batch.code,
        goods="minced" if plan.goods == "minced" else "intact",
        species=(plan.species,),
        profile=profile(of.profile),
        now_hour=(now_s - of.made_s) / 3600,
        bowl=bowl,
        mix_temperature_c=None if of.weigh_out is None else of.weigh_out.meat_temperature_c,
        parasite=None,
        cure=cure,
        warm=core.WarmStage("none", 0.0, (), ()) if plan.warm == "none" and plan.goods == "minced" else None,
        pieces=(*waiting, *hanging),
        laboratory=(),
        signatures=tuple(core.Signature(v.hurdle, v.by, v.reason) for v in of.signatures),
        core_salt=core_salt,
    )


@router.get("/batches/{batch_id}/ledger")
def ledger(ctx: Ctx, batch_id: Id) -> LedgerFile:
    """Every hurdle of a batch, and whether it is ready."""
    with ctx.db.reading() as session:
        return ledger_out(_ledger(session, batch_id, ctx.now_s))


@router.post("/batches/{batch_id}/signatures", status_code=201)
def sign(ctx: Ctx, batch_id: Id, body: m.SignIn) -> LedgerFile:
    """Sign for an unknown hurdle, with a reason; what fails or is pending cannot be signed for."""
    with ctx.db.writing() as session:
        found = _ledger(session, batch_id, ctx.now_s)
        state = next((h.state for h in found.hurdles if h.name == body.hurdle), None)
        if state != "unknown":
            raise ClashError(f"only an unknown can be signed for; this one is {state or 'not on the ledger'}")
        store.sign(session, batch_id, body.hurdle, body.reason, body.by, ctx.now_s)
        session.flush()
        return ledger_out(_ledger(session, batch_id, ctx.now_s))
