"""A batch as the ledger sees it, from everything the stations have recorded."""

from dataclasses import replace

from sqlalchemy.orm import Session

from zymon.core.fermentation.meter import PLAUSIBLE_PH, medians
from zymon.core.ledger import batch as core
from zymon.core.ledger.clocks import worst_cure
from zymon.core.ledger.judge import Ledger, judge
from zymon.core.salting.clock import salt_clocks
from zymon.formats.recipe_file import SheetModel
from zymon.store import evidence, salt, warm
from zymon.store.bench_models import Making


def ledger_of(session: Session, of: Making, now_s: int) -> Ledger:
    """Every hurdle of a batch as of now. An open hold and the bin stand against it whatever the hurdles say."""
    found = judge(batch_of(session, of, now_s))
    gone = warm.discarded(session, of.batch_id)
    against = [f"thrown away: {gone.note}"] if gone is not None else []
    against += [f"held: {hold.text}" for hold in of.holds if hold.answered_s is None]
    return replace(found, ready=found.ready and not against, why=(*against, *found.why))


def batch_of(session: Session, of: Making, now_s: int) -> core.Batch:
    """What is known of a batch; what no station recorded is not known."""
    sheet = SheetModel.model_validate_json(of.sheet)
    plan, curing = sheet.plan, sheet.curing
    meat_g = sum(part.weight_g for part in sheet.parts)
    cure, core_salt = _salted(session, of, now_s)
    minced = plan.goods == "minced"
    return core.Batch(
        id=of.batch.code,
        goods="minced" if minced else "intact",
        species=(plan.species,),
        profile=evidence.profile(session, of.profile),
        now_hour=(now_s - of.made_s) / 3600,
        bowl=core.Bowl(
            meat_g=meat_g,
            plain_salt_g=meat_g * sheet.salt_percent / 100,  # as made: the salt stands beside the curing salt
            curing_salt_g=meat_g * curing.percent / 100 if curing else 0.0,
            nitrite_fraction=curing.nitrite_fraction if curing else 0.0,
            nitrate_fraction=curing.nitrate_fraction if curing else 0.0,
            belly=plan.goods == "belly",
        ),
        mix_temperature_c=None if of.weigh_out is None else of.weigh_out.meat_temperature_c,
        parasite=_parasite(session, of),
        cure=cure,
        warm=_warm(session, of, now_s, plan.warm == "none") if minced else None,
        pieces=_pieces(of),
        laboratory=tuple(
            core.LabValue(r.what, r.value) for r in warm.counted(evidence.lab_results(session, of.batch_id))
        ),
        signatures=tuple(core.Signature(v.hurdle, v.by, v.reason) for v in of.signatures),
        core_salt=core_salt,
    )


def _pieces(of: Making) -> tuple[core.HungPiece, ...]:
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
        for piece in of.batch.pieces
    ]
    return (*waiting, *hanging)


def _parasite(session: Session, of: Making) -> core.Parasite | None:
    step = evidence.parasite_step(session, of.batch_id)
    if step is None:
        return None
    return core.Parasite(step.way, step.temperature_c, step.days, step.thickness_cm)  # type: ignore[arg-type] # checked on entry


def _warm(session: Session, of: Making, now_s: int, cold_hung: bool) -> core.WarmStage | None:
    """The warm stage with every reading of the box, and the medians of repeated pH readings that can be."""
    stage = warm.stage(session, of.batch_id)
    done = warm.counted(warm.events(session, of.batch_id))
    if stage is None:
        if cold_hung or any(e.kind == "hang_cold" for e in done):
            return core.WarmStage("none", 0.0, (), ())
        return None
    begin = (stage.stuffed_s - of.made_s) / 3600
    log = warm.box_log(session, stage.place_id, stage.stuffed_s, warm.end_of(done) or now_s, bin_s=60)
    found = medians(warm.measured(warm.readings(session, of.batch_id), stage.stuffed_s))
    low, high = PLAUSIBLE_PH
    return core.WarmStage(
        None,
        begin,
        tuple((begin + hour, c) for hour, c in log),
        tuple((begin + m.hour, m.ph) for m in found if low <= m.ph <= high),
    )


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
