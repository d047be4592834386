"""The course of a batch, put together from what every station recorded: the one place where that is done."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import replace

import orjson
from sqlalchemy import select

from zymon.core import course as core
from zymon.core.drying.climate import Log
from zymon.core.life import Life
from zymon.core.salting.clock import salt_clocks
from zymon.core.scale import Reading
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench, evidence, hang, hang_events, journal, salt, warm
from zymon.store.bench_models import Making
from zymon.store.climate import hourly_log
from zymon.store.database import Session
from zymon.store.evidence_models import MeatNote, WentIn
from zymon.store.models import Batch, Piece
from zymon.store.salt_models import SaltPiece
from zymon.store.struck import counted
from zymon.store.weighings import standing

from .as_forecast import confirmed_ids, core_piece
from .life import all_before_the_hook, life_before, life_of
from .mixes import mixes_of
from .salt.bags import bag_of, colds_for

MINCED_KINDS = ("salame", "thin_sausage")


def course_of(session: Session, batch_id: int, now_s: int) -> core.Course:
    """The course of a batch as of now. Raises NotFoundError."""
    batch = bench.batch(session, batch_id)
    hung = hang.pieces_of_batch(session, batch_id)
    making = bench.making_of(session, batch_id)
    sheet = None if making is None else SheetModel.model_validate_json(making.sheet)
    salted = salt.pieces_of_batch(session, batch_id)
    gone = warm.discarded(session, batch_id)
    noted = counted(evidence.meat_notes(session, batch_id))
    if making is None:
        parts, mixes = _parts_as_hung(batch, hung), _formulation_as_hung(batch, hung)
    else:
        parts, mixes = mixes_of(making, salted)
    parts, mixes = _said(parts, mixes, evidence.went_in(session, batch_id))
    done = counted(warm.events(session, batch_id))
    return core.Course(
        code=batch.code,
        product=batch.product,
        minced=batch.kind in MINCED_KINDS if sheet is None else sheet.plan.goods == "minced",
        made_s=float(_begun(batch, hung) if making is None else making.made_s),
        profile=batch.profile,
        stages=_stages(session, batch, hung, salted, now_s),
        pieces=_pieces(session, batch, hung, making, salted, now_s),
        parts=parts,
        formulations=mixes,
        saltings=_saltings(session, salted, now_s),
        mix_temperature_c=_mixed_at(making, noted),
        acidity=tuple(
            core.Acidity(r.at_s, r.ph, r.meter_id, r.confirmed) for r in counted(warm.readings(session, batch_id))
        ),
        doings=_doings(session, batch, hung, salted),
        laboratory=tuple(
            core.Result(r.what, r.value, r.at_s, r.unit, r.taken_of, r.tag)
            for r in counted(evidence.lab_results(session, batch_id))
        ),
        parasites=tuple(
            core.Parasites(p.species, p.way, p.temperature_c, p.days, p.thickness_cm)
            for p in counted(evidence.parasite_steps(session, batch_id))
        ),
        signatures=tuple(core.Signed(x.hurdle, x.by, x.reason, x.at_s) for x in evidence.signatures(session, batch_id)),
        released=tuple(
            core.Undone(c.hurdle, c.at_s, c.by, c.reason, c.was) for c in evidence.corrections(session, batch_id)
        ),
        corrections=_corrections(session, batch_id),
        people=_people(hung, making),
        family="" if sheet is None else sheet.plan.family,
        use=batch.use,
        done_by=batch.done_by,
        moulded=any(e.kind == "mould" for e in done),
        cold_hung=any(e.kind == "hang_cold" for e in done) or (sheet is not None and sheet.plan.warm == "none"),
        discarded=None if gone is None else gone.note,
    )


def _begun(batch: Batch, hung: list[Piece]) -> int:
    """When a batch that was hung as it came began, as far as anybody knows [s]: not when it was written down."""
    return min([batch.created_s, *(p.hung_s for p in hung)])


def climate_of(session: Session, stage: core.Stage, now_s: int) -> Log | None:
    """The log of a stage's place while it lasted, by the hour; None where it has no place."""
    if stage.place_id is None:
        return None
    return hourly_log(session, stage.place_id, int(stage.from_s), int(now_s if stage.to_s is None else stage.to_s))


def _stages(
    session: Session, batch: Batch, hung: list[Piece], salted: list[SaltPiece], now_s: int
) -> tuple[core.Stage, ...]:
    found = [*_cures(session, salted), *_hangs_and_rests(hung)]
    stage = warm.stage(session, batch.id)
    if stage is not None:
        ends = warm.left_the_warm(stage, warm.events(session, batch.id))
        found.append(core.Stage("warm", stage.stuffed_s, ends, stage.place_id, stage.place.name, by=stage.by))
    noted = [one for one in counted(evidence.meat_notes(session, batch.id)) if one.kind != "mix"]
    found += [_lay(one, [s.from_s for s in found if s.from_s > one.at_s]) for one in noted]
    gone = warm.discarded(session, batch.id)
    if gone is not None:  # what is thrown away is in no stage any more
        found = [_until(one, gone.at_s) for one in found if one.from_s < gone.at_s]
    return _together([s for s in found if s.from_s <= now_s])


def _lay(meat_note: MeatNote, later: list[float]) -> core.Stage:
    """Where the meat lay; where nobody said until when, until the next that is known of it."""
    place = None if meat_note.place is None else meat_note.place.name
    ends_s = meat_note.to_s if meat_note.to_s is not None else min(later, default=None)
    return core.Stage(
        "cold" if meat_note.kind == "cold" else "room",
        meat_note.at_s,
        ends_s,
        meat_note.place_id,
        place,
        by=meat_note.by,
    )


def _mixed_at(making: Making | None, noted: list[MeatNote]) -> float | None:
    """How warm the meat was when it was mixed [°C], the warmest of several mixes; None where one was not measured."""
    said = [one.temperature_c for one in noted if one.kind == "mix" and one.temperature_c is not None]
    if said:
        return max(said)
    bowls = [] if making is None else [making.weigh_out, *(mix.weigh_out for mix in making.mixes)]
    measured = [None if bowl is None else bowl.meat_temperature_c for bowl in bowls]
    known = [c for c in measured if c is not None]
    return max(known) if known and len(known) == len(measured) else None


def _until(stage: core.Stage, at_s: float) -> core.Stage:
    return replace(stage, to_s=at_s if stage.to_s is None else min(stage.to_s, at_s))


def _cures(session: Session, salted: Iterable[SaltPiece]) -> Iterable[core.Stage]:
    for one in salted:
        out = salt.out_at(one)
        for place, _, from_s, to_s in salt.stays(one):
            if out is not None and from_s >= out.at_s:
                continue
            ends = [t for t in (to_s, None if out is None else out.at_s) if t is not None]
            laid = [e for e in salt.events(one, "in", "way") if e.at_s <= from_s][-1]
            yield core.Stage(
                "cure", from_s, min(ends, default=None), place.id, place.name, laid.way, (one.tag,), laid.by
            )
        yield from _after_the_salt(session, one)


def _after_the_salt(session: Session, one: SaltPiece) -> Iterable[core.Stage]:
    """Where a piece lies from its salt to its hook: where it was last said to lie, in the cold or in the room."""
    out, ended = salt.out_at(one), salt.ended(one)
    if out is None or ended:
        return
    hung_s = session.scalar(select(Piece.hung_s).where(Piece.tag == one.tag))
    for place, _, from_s, to_s in salt.stays(one):
        begin_s = max(from_s, out.at_s)
        ends = [t for t in (to_s, hung_s) if t is not None]
        if (ends and min(ends) <= begin_s) or (to_s is not None and to_s <= out.at_s):
            continue
        kind: core.StageKind = "cold" if place.kind == "salt" else "room"
        yield core.Stage(kind, begin_s, min(ends, default=None), place.id, place.name, None, (one.tag,), out.by)


def _hangs_and_rests(hung: list[Piece]) -> Iterable[core.Stage]:
    for piece in hung:
        for h in piece.hangings:
            yield core.Stage("hang", h.from_s, h.to_s, h.place_id, h.rod.place.name, None, (piece.tag,), h.by)
        for state in counted(piece.states):
            if state.kind == "resting":
                place = None if state.place is None else state.place.name
                yield core.Stage(
                    "rest", state.from_s, state.to_s, state.place_id, place, state.how, (piece.tag,), state.by
                )


def _together(stages: Iterable[core.Stage]) -> tuple[core.Stage, ...]:
    """Stages that several pieces went through alike become one."""
    alike: dict[tuple[object, ...], list[core.Stage]] = defaultdict(list)
    for stage in stages:
        alike[(stage.kind, stage.from_s, stage.to_s, stage.place_id, stage.way)].append(stage)
    joined = [
        core.Stage(
            first.kind, first.from_s, first.to_s, first.place_id, first.place, first.way,
            tuple(tag for s in some for tag in s.tags), first.by,
        )
        for some in alike.values()
        for first in some[:1]
    ]  # fmt: skip
    return tuple(sorted(joined, key=lambda s: (s.from_s, s.kind)))


def _pieces(
    session: Session, batch: Batch, hung: list[Piece], making: Making | None, salted: list[SaltPiece], now_s: int
) -> tuple[core.Individual, ...]:
    made = [] if making is None else making.pieces
    tags = {one.tag for some in (salted, made, hung) for one in some}
    before = all_before_the_hook(session, tags, batch.id)
    found: dict[str, core.Individual] = {}
    for one in salted:
        if not salt.ended(one):
            found[one.tag] = core.Individual(one.tag, life_before(before[one.tag], now_s))
    for new in made:
        found[new.tag] = core.Individual(
            new.tag,
            life_before(before[new.tag], now_s),
            new.gross_g,
            new.tare_g,
            new.target_loss_percent,
            new.casing,
            done_by=None if new.target_loss_percent is not None or batch.done_by != "weight" else "feel",
        )
    for piece in hung:
        found[piece.tag] = _individual(session, piece, life_of(piece, before[piece.tag], now_s))
    return tuple(found[tag] for tag in sorted(found))


def _individual(session: Session, piece: Piece, life: Life) -> core.Individual:
    """A piece that hangs or hung, in terms of what is left of it after slices."""
    as_dried = core_piece(piece)
    sure = confirmed_ids(piece)
    stand = standing(piece)
    return core.Individual(
        piece.tag,
        life,
        as_dried.start_weight_g,
        as_dried.tare_g,
        as_dried.target_loss_percent,
        piece.casing,
        tuple(Reading(w.at_s, w.gross_g, w.kept) for w in as_dried.weighings),
        _felt(session, piece),
        tuple(float(w.at_s) for w in stand if w.kept and w.id not in sure),
        piece.done_by,
    )


def _felt(session: Session, piece: Piece) -> tuple[core.Felt, ...]:
    found = []
    for e in counted(hang_events.events_of(session, piece.id)):
        if e.kind == "inspect" and e.found:
            taps = orjson.loads(e.found)
            found.append(core.Felt(e.at_s, taps.get("firm_rim"), taps.get("firm_core"), taps.get("smell")))
    return tuple(found)


def _said(
    parts: tuple[core.Part, ...], mixes: tuple[core.Formulation, ...], word: WentIn | None
) -> tuple[tuple[core.Part, ...], tuple[core.Formulation, ...]]:
    """Meat and salt with what somebody said of them afterwards; what nobody said stays as it is."""
    if word is None:
        return parts, mixes
    parts = tuple(
        replace(
            p,
            species=word.species or p.species,
            fat_percent=p.fat_percent if word.fat_percent is None else word.fat_percent,
        )
        for p in parts
    )
    meat_g = sum(p.mass_g for p in parts)
    if not mixes and meat_g > 0:
        mixes = (core.Formulation(meat_g, 0.0, 0.0, 0.0, 0.0, curing_known=False, dose_known=False),)
    if word.salt_percent is not None:
        salt = word.salt_percent / 100
        mixes = tuple(replace(m, plain_salt_g=m.meat_g * salt, dose_known=True) for m in mixes)
    if word.curing == "none":
        mixes = tuple(replace(m, curing_salt=False, curing_known=True, curing_salt_g=0.0) for m in mixes)
    elif word.curing == "unknown":
        mixes = tuple(replace(m, curing_known=False) for m in mixes)
    elif word.curing == "weighed":
        mixes = tuple(
            replace(
                m,
                curing_known=True,
                curing_salt=True,
                curing_salt_g=m.meat_g * (word.curing_percent or 0.0) / 100,
                nitrite_fraction=word.nitrite_fraction or 0.0,
                nitrate_fraction=word.nitrate_fraction or 0.0,
            )
            for m in mixes
        )
    return parts, mixes


def _weighed_as_hung_g(hung: list[Piece]) -> float:
    """What the pieces of a batch weighed when they were hung, net, as far as anybody weighed them [g]."""
    return sum(p.start_weight_g - p.tare_g for p in hung if p.start_weight_g is not None)


def _parts_as_hung(batch: Batch, hung: list[Piece]) -> tuple[core.Part, ...]:
    """The meat of pieces that were hung as they came: what hangs of it, of an animal that nobody named."""
    net_g = _weighed_as_hung_g(hung)
    return (core.Part(batch.product, None, net_g, batch.fat_percent),) if net_g > 0 else ()


def _formulation_as_hung(batch: Batch, hung: list[Piece]) -> tuple[core.Formulation, ...]:
    """The salt of pieces that were hung as they came, where somebody said how much of it is in them."""
    net_g = _weighed_as_hung_g(hung)
    if batch.salt_percent is None or net_g <= 0:
        return ()
    return (core.Formulation(net_g, net_g * batch.salt_percent / 100, 0.0, 0.0, 0.0, curing_known=False),)


def _saltings(session: Session, salted: list[SaltPiece], now_s: int) -> tuple[core.Salting, ...]:
    pieces = [p for p in salted if not salt.ended(p)]
    if not pieces:
        return ()
    colds = colds_for(session, pieces, now_s)
    bags = [bag_of(p, colds) for p in pieces]
    found = []
    for piece, bag, clock in zip(pieces, bags, salt_clocks(bags, now_s), strict=True):
        out = salt.out_at(piece)
        share = clock.core_share
        if out is not None:
            mean, middle = clock.at(out.at_s)
            share = middle / max(mean, 1e-9)
        way = "buried" if bag.free else bag.laid.way
        found.append(core.Salting(piece.tag, way, salt.put_in(piece).at_s, None if out is None else out.at_s, share))
    return tuple(found)


def _doings(session: Session, batch: Batch, hung: list[Piece], salted: list[SaltPiece]) -> tuple[core.Doing, ...]:
    found = [
        core.Doing(
            f"salt.{e.kind}", e.at_s, e.by, (one.tag,), {} if e.value is None else {"value": e.value},
            e.struck_s is not None,
        )
        for one in salted
        for e in one.events
    ]  # fmt: skip
    found += [
        core.Doing(f"batch.{e.kind}", e.at_s, e.by, (), {"note": e.note} if e.note else {}, e.struck_s is not None)
        for e in warm.events(session, batch.id)
    ]
    for piece in hung:
        found += [
            core.Doing(f"hook.{e.kind}", e.at_s, e.by, (piece.tag,), {"note": e.note}, e.struck_s is not None)
            for e in hang_events.events_of(session, piece.id)
        ]
        found += [
            core.Doing("weighed", w.at_s, w.by, (piece.tag,), {"gross_g": w.gross_g}, w.struck_s is not None)
            for w in piece.weighings
        ]
        found += [
            core.Doing(
                "sliced", c.at_s, c.by, (piece.tag,), {"before_g": c.before_g, "after_g": c.after_g},
                c.struck_s is not None,
            )
            for c in piece.cuts
        ]  # fmt: skip
        found += [
            core.Doing(
                f"became.{x.kind}", x.from_s, x.by, (piece.tag,), {"how": x.how, "note": x.note}, x.struck_s is not None
            )
            for x in piece.states
        ]
    return tuple(sorted(found, key=lambda d: (d.at_s, d.what)))


def _corrections(session: Session, batch_id: int) -> tuple[core.Corrected, ...]:
    return tuple(
        core.Corrected(f"{line.what}.{name}", line.at_s, line.by, str(before.get(name)), str(after), line.reason)
        for line in reversed(journal.lines(session, batch_id))
        for before in [orjson.loads(line.before)]
        for name, after in orjson.loads(line.after).items()
    )


def _people(hung: list[Piece], making: Making | None) -> tuple[str, ...]:
    names = [making.by] if making is not None else []
    names += [who for p in hung for who in (p.by, *(w.by for w in p.weighings), *(s.by for s in p.states))]
    return tuple(dict.fromkeys(names))
