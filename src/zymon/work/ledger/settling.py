"""What settles the hurdles of a batch: signatures, laboratory, parasites, what went in, what was done, limits."""

from dataclasses import asdict
from typing import Any

from zymon.core.errors import OutOfRangeError, require
from zymon.core.fermentation.meter import STORED_PH, ask_about_ph
from zymon.core.ledger.laboratory import SPANS, UNITS, allowed
from zymon.formats.batch_course import file_of
from zymon.formats.batch_file import BatchFile
from zymon.formats.ledger_file import LedgerFile, judge_file, ledger_out, read_batch
from zymon.store import bench, evidence, struck
from zymon.store.database import Session
from zymon.store.evidence_models import DeviationStep, HurdleSignature, LabResult, MeatNote, ParasiteStep, WentIn
from zymon.store.models import Batch
from zymon.store.places import ClashError, NotFoundError, place
from zymon.store.warm_models import PhReading

from ..premises import Premises, Recording
from ..schemas import StrikeIn
from . import schemas as s
from .assemble import batch_of, ledger_of
from .views import hurdles

USUAL_PH = (4.6, 6.0)  # of sausage from the bowl to the table


def ledger(shop: Premises, batch_id: int) -> LedgerFile:
    """Every hurdle of a batch, and whether it is ready, as a ledger file."""
    with shop.db.reading() as session:
        bench.batch(session, batch_id)
        return ledger_out(ledger_of(session, shop.dates, batch_id, shop.now_s))


def batch_file(shop: Premises, code: str) -> BatchFile:
    """The whole course of a batch as a batch file."""
    with shop.db.reading() as session:
        of = bench.batch_of_code(session, code)
        if of is None:
            raise NotFoundError("refused.no_such_batch", code=code)
        return file_of(batch_of(session, shop.dates, of.id, shop.now_s))


def judge_sent(document: dict[str, Any]) -> LedgerFile:
    """Judge a batch file that somebody sends. Raises BatchFileError."""
    return judge_file(read_batch(document))


def _answer(shop: Premises, batch_id: int, entry: Recording) -> s.LedgerOut:
    return hurdles(shop, batch_id, entry.named)


def _came(entry: Recording, what: str, row: Any) -> None:
    entry.session.add(row)
    entry.session.flush()
    entry.came(what, row.id)


def sign(shop: Premises, batch_id: int, body: s.SignIn) -> s.LedgerOut:
    """Sign for an unknown hurdle, or release a correction; what fails or is pending cannot be signed for."""
    with shop.recording(body, f"sign {batch_id} {body.hurdle}"[:60]) as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            found = ledger_of(entry.session, shop.dates, batch_id, entry.now_s)
            of = next((h for h in found.hurdles if h.name == body.hurdle), None)
            released = of is not None and of.was_fail is not None and of.state == "pass"
            if of is None or (of.state != "unknown" and not released):
                is_now = "not on the ledger" if of is None else of.state
                raise ClashError("refused.only_unknown_signed", is_now=is_now)
            if of.state == "unknown" and not of.signable:
                raise ClashError("refused.nobody_signs")
            made = HurdleSignature(
                batch_id=batch_id, hurdle=body.hurdle, reason=body.reason, by=body.by, at_s=entry.at(body.at)
            )
            _came(entry, "signature", made)
            _refuse_empty_signature(shop, entry, batch_id, body.hurdle)
    return _answer(shop, batch_id, entry)


def _refuse_empty_signature(shop: Premises, entry: Recording, batch_id: int, hurdle: str) -> None:
    """A signature that would not count is refused, and why. Raises ClashError."""
    now = next(h for h in ledger_of(entry.session, shop.dates, batch_id, entry.now_s).hurdles if h.name == hurdle)
    if now.signed is not None:
        return
    if now.was_fail is not None:
        raise ClashError("refused.signed_by_other", by=now.was_fail.by)
    if now.asks_look_of:
        raise ClashError("refused.feel_first")
    raise ClashError("refused.came_after")


def laboratory(shop: Premises, batch_id: int, body: s.LabIn) -> s.LedgerOut:
    """Enter a value from a laboratory; it goes before a computed one."""
    _refuse_value(body)
    with shop.recording(body, f"laboratory {batch_id}") as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            values = body.model_dump(exclude={"uid", "at", "sure"})
            made = LabResult(batch_id=batch_id, at_s=entry.at(body.at), entered_s=entry.now_s, **values)
            _came(entry, "lab_result", made)
    return _answer(shop, batch_id, entry)


def _refuse_value(body: s.LabIn) -> None:
    if body.unit not in UNITS[body.what]:
        units = UNITS[body.what]
        raise OutOfRangeError(
            "refused.unit" if any(units) else "refused.no_unit", laboratory=body.what, units=", ".join(units)
        )
    if not allowed(body.what, body.value, body.unit):
        low, high = SPANS[body.what]
        if body.unit == "in 25 g" or (high == 1 and low == 0):
            raise OutOfRangeError("refused.found_or_not", laboratory=body.what, value=body.value)
        raise OutOfRangeError("refused.laboratory_span", laboratory=body.what, low=low, high=high, value=body.value)


def strike_laboratory(shop: Premises, result_id: int, body: StrikeIn) -> s.LedgerOut:
    """Strike a laboratory value through; it stays on record."""
    return _strike(shop, LabResult, result_id, body)


def strike_parasites(shop: Premises, step_id: int, body: StrikeIn) -> s.LedgerOut:
    """Strike through what was said about parasites; it stays on record."""
    return _strike(shop, ParasiteStep, step_id, body)


def strike_step(shop: Premises, step_id: int, body: StrikeIn) -> s.LedgerOut:
    """Strike through what was done about a hurdle; it stays on record."""
    return _strike(shop, DeviationStep, step_id, body)


def _strike(shop: Premises, table: type[evidence.Entry], row_id: int, body: StrikeIn) -> s.LedgerOut:
    with shop.changing(body.by, body.reason) as session:
        found = evidence.entry(session, table, row_id)
        struck.strike(found, body.reason, body.by, shop.now_s)
        batch_id = found.batch_id
    return hurdles(shop, batch_id)


def parasites(shop: Premises, batch_id: int, body: s.ParasiteIn) -> s.LedgerOut:
    """Say what was done about the parasites of a species."""
    with shop.recording(body, f"parasites {batch_id}") as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            entry.at(body.at)
            values = body.model_dump(exclude={"uid", "at", "sure"})
            _came(entry, "parasite_step", ParasiteStep(batch_id=batch_id, entered_s=entry.now_s, **values))
    return _answer(shop, batch_id, entry)


def went_in(shop: Premises, batch_id: int, body: s.WentInIn) -> s.LedgerOut:
    """Say what went into meat that never lay on the Bench: animal, fat, salt, curing salt."""
    if body.curing == "weighed" and body.curing_salt is None:
        raise OutOfRangeError("refused.curing_salt_amount")
    with shop.recording(body, f"went in {batch_id}") as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            curing = body.curing_salt if body.curing == "weighed" else None
            made = WentIn(
                batch_id=batch_id, at_s=entry.at(body.at), species=body.species, fat_percent=body.fat_percent,
                salt_percent=body.salt_percent, curing=body.curing,
                curing_percent=None if curing is None else curing.percent,
                nitrite_fraction=None if curing is None else curing.nitrite_fraction,
                nitrate_fraction=None if curing is None else curing.nitrate_fraction,
                by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            _came(entry, "went_in", made)
    return _answer(shop, batch_id, entry)


def measure_ph(shop: Premises, batch_id: int, body: s.PhIn) -> s.LedgerOut:
    """A pH of a batch in whatever stage. Raises DoubtfulError for one that meat hardly has."""
    with shop.recording(body, f"pH {batch_id}") as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            entry.ask(ask_about_ph(body.ph, *USUAL_PH))
            require("pH", body.ph, *STORED_PH, "")
            made = PhReading(
                uid=body.uid, batch_id=batch_id, at_s=entry.at(body.at), ph=body.ph, sample_c=None,
                meter_id=body.meter_id, confirmed=body.sure, by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            _came(entry, "ph_reading", made)
    return _answer(shop, batch_id, entry)


def meat(shop: Premises, batch_id: int, body: s.MeatIn) -> s.LedgerOut:
    """Note where the meat lay before it was salted, stuffed or hung, or how warm it was when it was mixed."""
    if body.kind == "mix" and body.temperature_c is None:
        raise OutOfRangeError("refused.how_warm")
    if body.kind != "mix" and body.place_id is None:
        raise OutOfRangeError("refused.where_it_lay")
    with shop.recording(body, f"meat {batch_id}") as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            if body.place_id is not None:
                place(entry.session, body.place_id)
            at_s = entry.at(body.at)
            to_s = None if body.to_at is None else entry.at(body.to_at)
            if to_s is not None and to_s <= at_s:
                raise OutOfRangeError("refused.stretch_backwards")
            made = MeatNote(
                batch_id=batch_id, kind=body.kind, at_s=at_s, to_s=to_s, place_id=body.place_id,
                temperature_c=body.temperature_c, note=body.note, by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            _came(entry, "meat_note", made)
    return _answer(shop, batch_id, entry)


def strike_meat(shop: Premises, note_id: int, body: StrikeIn) -> s.LedgerOut:
    """Strike through where the meat lay; it stays on record."""
    return _strike(shop, MeatNote, note_id, body)


def step(shop: Premises, batch_id: int, body: s.StepIn) -> s.LedgerOut:
    """Note what was done about a hurdle that failed or is in doubt."""
    with shop.recording(body, f"step {batch_id}") as entry:
        if entry.new:
            bench.batch(entry.session, batch_id)
            made = DeviationStep(
                batch_id=batch_id, hurdle=body.hurdle, at_s=entry.at(body.at), step=body.step, note=body.note,
                by=body.by, entered_s=entry.now_s,
            )  # fmt: skip
            _came(entry, "deviation_step", made)
    return _answer(shop, batch_id, entry)


def choose(shop: Premises, batch_id: int, body: s.ChoicesIn) -> s.LedgerOut:
    """Say how a batch is meant to be eaten, and what says that it is done; what was said before is kept."""
    with shop.recording(body, f"choices {batch_id}") as entry:
        if entry.new:
            of = bench.batch(entry.session, batch_id)
            of.use, of.done_by = body.use, body.done_by
            entry.came("batch", of.id)
    return _answer(shop, batch_id, entry)


def change_profile(shop: Premises, batch_id: int, body: s.ProfileIn) -> s.ProfileChanged:
    """Judge a batch by other limits; says which hurdles stand otherwise by them."""
    with shop.changing(body.by) as session:
        of = bench.batch(session, batch_id)
        before = _states(shop, session, of)
        evidence.change_profile(session, of, body.profile, body.by, shop.now_s)
    found = hurdles(shop, batch_id)
    changed = [
        s.StandsOtherwise(name=h.name, was=before[h.name], now=h.state)
        for h in found.hurdles
        if h.name in before and before[h.name] != h.state
    ]
    return s.ProfileChanged(changed=changed, ledger=found)


def _states(shop: Premises, session: Session, batch: Batch) -> dict[str, Any]:
    return {h.name: h.state for h in ledger_of(session, shop.dates, batch.id, shop.now_s).hurdles}


def limits(shop: Premises) -> list[s.LimitProfileIn]:
    """Every limit profile with its figures."""
    with shop.db.reading() as session:
        return [s.LimitProfileIn.model_validate(asdict(p)) for p in evidence.profiles(session).values()]


def add_limits(shop: Premises, body: s.LimitProfileNew) -> s.LimitProfileIn:
    """Add a limit profile of the maker's own."""
    data: dict[str, Any] = {**body.model_dump(exclude={"by"}), "made_by": body.by}
    steps = data["degree_hours"]["steps"]
    if any(row["below"] is None and row["up_to"] is None for row in steps[:-1]) or steps[-1]["below"] is not None:
        raise OutOfRangeError("refused.allowance_order")
    with shop.changing(body.by) as session:
        made = evidence.add_profile(session, data, body.by, shop.now_s)
    return s.LimitProfileIn.model_validate(asdict(made))
