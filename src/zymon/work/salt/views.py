"""From pieces in salt and their clocks to what the Salt shows."""

from collections.abc import Sequence
from datetime import datetime

from zymon.core.bench.sheet import work
from zymon.core.ledger.cold import cold_along
from zymon.core.salting.care import care_due, runs_dry
from zymon.core.salting.clock import SaltClock, salt_clocks
from zymon.core.salting.shed import ExpectedWeight, could_have_gained, expected_weight, judge_weight
from zymon.core.salting.ways import REGISTRY, Way, is_free, out_is_early
from zymon.core.say import said
from zymon.formats.recipe_file import SheetModel
from zymon.store import salt as store
from zymon.store.bench import next_code
from zymon.store.bench_models import Making
from zymon.store.database import Session
from zymon.store.salt_models import SaltEvent, SaltPiece

from ..premises import Premises, moment
from ..schemas import MadeOut, SaidOut, said_out
from . import schemas as s
from .bags import Colds, bag_of, colds_for, cure_of

CURVE_PAST = 1.3  # the curve is shown so much further than the last day that matters


def _moment(seconds: float | None) -> datetime | None:
    return None if seconds is None else moment(seconds)


def cards(session: Session, pieces: Sequence[SaltPiece], now_s: int) -> list[s.SaltCard]:
    """All pieces, their clocks worked at once."""
    colds = colds_for(session, pieces, now_s)
    clocks = salt_clocks([bag_of(p, colds) for p in pieces], now_s)
    return [card(p, clock, colds, now_s) for p, clock in zip(pieces, clocks, strict=True)]


def expected_now(piece: SaltPiece, clock: SaltClock, at_s: float) -> ExpectedWeight:
    """What a piece should weigh at a time."""
    way: Way = store.events(piece, "in", "way")[-1].way  # type: ignore[assignment] # checked on entry
    best = clock.best_s or at_s
    in_s = store.put_in(piece).at_s
    progress = min(max((at_s - in_s) / max(best - in_s, 1.0), 0.0), 1.0)
    return expected_weight(way, piece.raw_g, clock.at(at_s)[0], progress, bool(store.events(piece, "soak")))


def _salt_g_per_kg(sheet: SheetModel) -> float | None:
    """Plain and curing salt of a sheet for a kilogram of its meat [g]; None where it cannot be worked."""
    worked = work(sheet.to_core())
    made = worked.formulation
    return None if made is None else round(1000 * (made.plain_salt_g + made.curing_salt_g) / worked.meat_g, 3)


def went_in_g(piece: SaltPiece) -> float:
    """What went into the bag with a piece: its dose of salt and its share of everything else on the sheet [g]."""
    core = SheetModel.model_validate_json(piece.making.sheet).to_core()
    worked = work(core)
    others_g = sum(g for key, g in worked.grams.items() if not key.startswith("meat-"))
    return others_g * piece.raw_g / worked.meat_g if worked.meat_g > 0 else 0.0


def gain_said(piece: SaltPiece, weight_g: float) -> SaidOut | None:
    """Why a piece can weigh more than it went in with; None where it does not."""
    if weight_g <= piece.raw_g:
        return None
    could = could_have_gained(piece.raw_g, weight_g, went_in_g(piece))
    code = "salt.took_up" if could else "salt.gained_too_much"
    return said_out(said(code, gained_g=round(weight_g - piece.raw_g), went_in_g=round(went_in_g(piece))))


def card(piece: SaltPiece, clock: SaltClock, colds: Colds, now_s: int) -> s.SaltCard:
    """One piece with its window, its cross-section, its cold and what is due."""
    into, out = store.put_in(piece), store.out_at(piece)
    laid = store.events(piece, "in", "way")[-1]
    way: Way = laid.way  # type: ignore[assignment] # checked on entry
    at_s = now_s if out is None else out.at_s
    expected = expected_now(piece, clock, at_s)
    weighed = store.events(piece, "weigh", "out", "trim")
    last = next((e for e in reversed(weighed) if e.value is not None), None)
    shed_g = sum(e.value or 0.0 for e in store.events(piece, "drain"))
    where = store.stays(piece)[-1]
    batch = piece.making.batch
    cold = cold_along([cure_of(piece, colds)], now_s)
    done = [(e.kind, float(e.at_s)) for e in store.events(piece, *store.CARE)]
    poured = [(float(e.at_s), e.value) for e in store.events(piece, "drain") if e.value is not None]
    care = [] if out is not None else care_due(way, into.at_s, done, now_s, runs_dry(poured, piece.raw_g))  # type: ignore[arg-type] # of CARE
    return s.SaltCard(
        id=piece.id,
        tag=piece.tag,
        batch_id=piece.batch_id,
        batch=batch.code,
        product=batch.product,
        kind=batch.kind,
        shape=batch.shape,
        geometry=piece.geometry,
        across_mm=piece.across_mm,
        raw_g=piece.raw_g,
        way=way,
        way_name=REGISTRY[way].name,
        free_salt=bool(laid.free_salt),
        open_salt=is_free(way, bool(laid.free_salt)),
        out_is_early=out_is_early(way, bool(laid.free_salt), clock.core_share),
        percent=laid.percent or 0.0,
        waits=clock.kind,
        waits_says=REGISTRY[way].waits,
        place_id=where[0].id,
        place=where[0].name,
        container=where[1],
        in_at=moment(into.at_s),
        out_at=None if out is None else moment(out.at_s),
        state=_state(clock, out, now_s),
        earliest=_moment(clock.earliest_s),
        best=_moment(clock.best_s),
        latest=_moment(clock.latest_s),
        core_at=[_moment(c) for c in clock.core_reached_s],
        leads=clock.leads,  # type: ignore[arg-type] # of the registry
        mean_percent=round(clock.mean_percent, 3),
        mean_low_percent=round(clock.mean_low_percent, 3),
        mean_high_percent=round(clock.mean_high_percent, 3),
        dose_known=REGISTRY[way].dose_is_known and not is_free(way, bool(laid.free_salt)),
        pierced=piece.pierced,
        core_percent=round(clock.core_percent, 3),
        core_share=round(clock.core_share, 4),
        settles_percent=round(clock.final_percent, 3),
        radius=[round(r, 4) for r in clock.radius.tolist()],
        profile=[round(p, 3) for p in clock.profile.tolist()],
        shed_g=round(shed_g, 1),
        shed_low_g=round(piece.raw_g * expected.shed_low_percent / 100, 1),
        shed_high_g=round(piece.raw_g * expected.shed_high_percent / 100, 1),
        expected_low_g=round(expected.low_g, 1),
        expected_high_g=round(expected.high_g, 1),
        weight_g=None if last is None else last.value,
        weight_verdict=None
        if last is None or last.value is None
        else judge_weight(piece.raw_g, last.value, expected_now(piece, clock, last.at_s)),
        gain=None if last is None or last.value is None else gain_said(piece, last.value),
        cold=s.ColdOut(state=cold.state, says=None if cold.why is None else said_out(cold.why)),
        care=[
            s.CareOut(
                kind=c.kind,
                due_from=moment(c.from_s),
                due=moment(c.best_s),
                latest=moment(c.latest_s),
                done=c.done,
                missed=c.missed,
                cost=said_out(c.cost),
                last=None if c.last_s is None else moment(c.last_s),
            )
            for c in care
        ],
        after=REGISTRY[way].after,
    )


def _state(clock: SaltClock, out: SaltEvent | None, now_s: int) -> s.SaltState:
    if out is not None:
        return "out"
    if clock.latest_s is not None and now_s > clock.latest_s:
        return "late"
    if clock.best_s is not None and now_s >= clock.best_s:
        return "right"
    return "may_come_out" if clock.earliest_s is not None and now_s >= clock.earliest_s else "early"


def event_out(salt_event: SaltEvent) -> s.SaltEventOut:
    """Something that was done."""
    return s.SaltEventOut(
        id=salt_event.id,
        kind=salt_event.kind,
        at=moment(salt_event.at_s),
        value=salt_event.value,
        place=None if salt_event.place is None else salt_event.place.name,
        container=salt_event.container,
        way=salt_event.way,
        percent=salt_event.percent,
        note=salt_event.note,
        by=salt_event.by,
        struck_reason=salt_event.struck_reason,
        struck_by=salt_event.struck_by,
    )


def detail(session: Session, piece: SaltPiece, now_s: int) -> s.SaltDetail:
    """One piece with all that is known of it."""
    colds = colds_for(session, [piece], now_s)
    clock = salt_clocks([bag_of(piece, colds)], now_s)[0]
    shown = card(piece, clock, colds, now_s)
    until_s = _curve_end(shown, now_s)
    few = clock.curve_s <= until_s
    plan = SheetModel.model_validate_json(piece.making.sheet).plan
    bases = store.bases(piece)

    def tidy(values: Sequence[float]) -> list[float]:
        return [round(v, 3) for v in values]

    return s.SaltDetail(
        card=shown,
        rules=[
            s.RuleOut(name=r.name, says=r.says, days=r.days, at=_moment(r.at_s), chosen=r.chosen)  # type: ignore[arg-type]
            for r in clock.rules
        ],
        margin_percent=piece.margin_percent,
        curve=s.CurveOut(
            at=[moment(t) for t in clock.curve_s[few].tolist()],
            mean=tidy(clock.mean[few].tolist()),
            core=tidy(clock.core[few].tolist()),
            core_low=tidy(clock.core_low[few].tolist()),
            core_high=tidy(clock.core_high[few].tolist()),
        ),
        events=[event_out(e) for e in sorted(piece.events, key=lambda e: (e.at_s, e.id), reverse=True)],
        bases=s.Bases(raw_g=round(bases.raw_g, 1), cured_g=bases.cured_g),
        loss_basis=plan.loss_basis,
        target_loss_percent=plan.target_loss_percent,
        next_steps=_next_steps(plan.kind, plan.casing),
        casing=piece.making.batch.casing,
        coat_g=next((e.value for e in reversed(store.events(piece, "coat")) if e.value is not None), None),
    )


def _curve_end(shown: s.SaltCard, now_s: int) -> float:
    """Where the curve of a piece in salt ends: a little past its day, or past now where that is later [s]."""
    in_s = shown.in_at.timestamp()
    last_s = max(now_s, *(x.timestamp() for x in (shown.best, shown.latest, shown.out_at) if x is not None))
    return in_s + (last_s - in_s) * CURVE_PAST


def _next_steps(kind: str, casing: str) -> list[str]:
    """What the family does between the salt and the hook, in order."""
    if kind == "coated" or casing == "coating":
        return ["coat", "rest"]
    return ["wrap"] if casing in ("cloth", "membrane") else []


def salt_out(shop: Premises, made: list[MadeOut] | None = None) -> s.SaltOut:
    """The whole station."""
    with shop.db.reading() as session:
        return _salt_out(session, shop.now_s, made or [])


def _salt_out(session: Session, now_s: int, made: list[MadeOut]) -> s.SaltOut:
    return s.SaltOut(
        made=made,
        pieces=cards(session, store.pieces_in_salt(session), now_s),
        ways=[
            s.WayOut(
                id=key,
                name=way.name,
                says=way.says,
                clock=way.clock,
                waits=way.waits,
                dose=way.dose,
                may_be_free=way.may_be_free,
            )
            for key, way in REGISTRY.items()
        ],
        waiting=[*waiting(session), *begun(session)],
        next_code=next_code(session, "Salted"),
    )


def waiting(session: Session) -> list[s.WaitingBatch]:
    """Batches of the Bench that wait for their salt."""
    return _whole(session, store.waiting_batches(session), begun=False)


def begun(session: Session) -> list[s.WaitingBatch]:
    """Batches of which some lies in salt: the rest of them can follow, by another way too."""
    return _whole(session, store.batches_begun(session), begun=True)


def _whole(session: Session, makings: list[Making], begun: bool) -> list[s.WaitingBatch]:
    sheets = [(m, SheetModel.model_validate_json(m.sheet)) for m in makings]
    return [_waiting(session, of, sheet, begun) for of, sheet in sheets if sheet.plan.salting != "in_the_mince"]


def _waiting(session: Session, making: Making, sheet: SheetModel, begun: bool) -> s.WaitingBatch:
    plan = sheet.plan
    return s.WaitingBatch(
        id=making.batch_id,
        code=making.batch.code,
        product=making.batch.product,
        made_at=moment(making.made_s),
        way=plan.salting,  # type: ignore[arg-type] # in the mince is left out above
        percent=round(min(max(making.batch.salt_percent or sheet.salt_percent, 0.3), 12.0), 2),
        across_mm=plan.across_mm,
        geometry="slab" if plan.shape == "slab" else "cylinder",
        piece_g=plan.piece_g,
        meat_g=sum(part.weight_g for part in sheet.parts),
        salt_g_per_kg=_salt_g_per_kg(sheet),
        next_tag=store.next_tags(session, making, 1)[0],
        begun=begun,
    )
