"""The ledger as the page shows it: hurdles as codes and values, the time line, what it goes by."""

from dataclasses import asdict

from zymon.core import course as told
from zymon.core.errors import OutOfRangeError
from zymon.core.keeping import LabActivity, keeping_at, losses_to
from zymon.core.ledger import batch as judged
from zymon.core.ledger.acid import believed
from zymon.core.ledger.hurdle import Hurdle
from zymon.core.ledger.laboratory import UNITS
from zymon.core.limits import LimitProfile, milder_than_all
from zymon.core.say import Said
from zymon.limits import shipped
from zymon.store import bench, evidence, struck, warm
from zymon.store.database import Session
from zymon.store.evidence_models import DeviationStep, MeatNote, ParasiteStep
from zymon.store.models import Batch
from zymon.store.places import workshop

from ..premises import Premises, moment
from ..schemas import MadeOut, SaidOut, said_out
from . import schemas as s
from .assemble import judged_now

# Which entries settle what is said to settle it, the best first
ENTRIES: dict[str, tuple[s.Entry, ...]] = {
    "settles.cold_mix": ("meat", "sign"),
    "settles.salt": ("went_in", "laboratory"),
    "settles.salt_free": ("laboratory", "sign"),
    "settles.nitrite": ("went_in", "sign"),
    "settles.nitrite_none": ("sign", "went_in"),
    "settles.species": ("went_in",),
    "settles.parasite": ("parasites", "sign"),
    "settles.certificate": ("parasites",),
    "settles.cure": ("sign",),
    "settles.log_or_sign": ("readings", "meat", "sign"),
    "settles.wait_salt": ("salt",),
    "settles.core": ("salt", "sign"),
    "settles.core_by": ("salt", "sign"),
    "settles.sign": ("sign",),
    "settles.warm": ("warm",),
    "settles.cold_hung": ("measure_ph", "sign"),
    "settles.allowance": ("laboratory",),
    "settles.ph": ("measure_ph",),
    "settles.ph_again": ("measure_ph",),
    "settles.hang": ("weigh",),
    "settles.weigh": ("weigh", "choices"),
    "settles.weigh_again": ("weigh",),
    "settles.weigh_or_feel": ("weigh", "feel", "sign"),
    "settles.wait_target": ("choices",),
    "settles.hang_again": ("weigh",),
    "settles.feel": ("weigh", "feel", "sign"),
    "settles.activity": ("weigh", "laboratory", "sign"),
    "settles.fat_salt": ("went_in", "laboratory", "sign"),
    "settles.dry": ("laboratory", "sign"),
    "settles.rest_and_feel": ("feel",),
    "settles.feel_again": ("feel",),
}
USUAL_TARGET_PERCENT = 40.0  # to which the keeping table goes where no piece has a target


def hurdles(shop: Premises, batch_id: int, made: list[MadeOut] | None = None) -> s.LedgerOut:
    """The ledger with what it goes by: limits, laboratory, keeping along the drying."""
    with shop.db.reading() as session:
        return ledger_out(shop, session, bench.batch(session, batch_id), made or [])


def ledger_out(shop: Premises, session: Session, of: Batch, made: list[MadeOut]) -> s.LedgerOut:
    """The ledger of a batch for the page."""
    now_s = shop.now_s
    found = judged_now(session, shop.dates, of.id, now_s)
    course, batch, ledger = found.course, found.batch, found.ledger
    keeping, by = _keeping(session, batch, of)
    house = workshop(session)
    return s.LedgerOut(
        made=made,
        code=of.code,
        ready=ledger.ready,
        verdict=ledger.verdict,
        use=batch.use,
        done_by=of.done_by,
        goods=batch.goods,
        made_here=bench.has_making(session, of.id),
        asks_what_went_in=_asks(course),
        species=sorted({p.species for p in batch.parts if p.species is not None}),
        why=[s.AgainstOut(hurdle=name, says=said_out(says)) for name, says in ledger.why],
        check=said_out(ledger.check),
        hurdles=[_hurdle(h) for h in ledger.hurdles],
        stages=[_stage(stage) for stage in course.stages],
        ends=moment(course.ends_s(now_s)),
        profile=_profile(evidence.profile(session, of.profile)),
        people=None if house is None else house.people,
        steps=[_step(step) for step in evidence.deviation_steps(session, of.id)],
        parasites=[_parasites(step) for step in evidence.parasite_steps(session, of.id)],
        laboratory=[_laboratory(r) for r in evidence.lab_results(session, of.id)],
        meat=[_meat(one) for one in evidence.meat_notes(session, of.id)],
        keeping=keeping,
        keeping_by=by,  # type: ignore[arg-type] # one of the two
        lab_units={what: list(units) for what, units in UNITS.items()},
    )


def _asks(course: told.Course) -> bool:
    """Whether somebody has to say what went in, because it never lay on the Bench."""
    return not course.formulations or not all(f.curing_known for f in course.formulations)


def _maybe(of: Said | None) -> SaidOut | None:
    return None if of is None else said_out(of)


def _hurdle(h: Hurdle) -> s.HurdleOut:
    signed, was = h.signed, h.was_fail
    return s.HurdleOut(
        name=h.name,
        state=h.state,
        blocks=h.blocks,
        signable=(h.state == "unknown" and h.signable) or (was is not None and h.state == "pass"),
        value=round(h.value, 3) if isinstance(h.value, float) else h.value,
        limit=said_out(h.limit) if isinstance(h.limit, Said) else h.limit,
        unit=h.unit,
        known=h.known,
        source=h.source,
        why=_maybe(h.why),
        settles=_maybe(h.settles),
        entries=_entries(h),
        cautions=[said_out(c) for c in h.cautions],
        evidence=[
            s.EvidenceOut(from_at=moment(e.from_s), to_at=moment(e.to_s), says=said_out(e.says)) for e in h.evidence
        ],
        pieces=None if h.pieces is None else list(h.pieces),
        was_fail=None if was is None else s.WasFailOut(until=moment(was.until_s), by=was.by, reason=was.reason),
        signed=None if signed is None else s.SignedOut(by=signed.by, at=moment(signed.at_s), reason=signed.reason),
    )


def _entries(h: Hurdle) -> list[s.Entry]:
    """Which entries settle a hurdle; what failed, or is in doubt, also has what was done about it."""
    found = [] if h.settles is None else [e for e in ENTRIES.get(h.settles.code, ()) if e != "sign" or h.signable]
    if h.was_fail is not None and h.state == "pass" and h.signed is None:
        found.append("sign")
    return [*found, *(["step"] if h.state == "fail" or h.was_fail is not None or h.cautions else [])]  # type: ignore[list-item] # of Entry


def _stage(stage: told.Stage) -> s.StageOut:
    to_at = None if stage.to_s is None else moment(stage.to_s)
    return s.StageOut(
        kind=stage.kind, from_at=moment(stage.from_s), to_at=to_at, place=stage.place, pieces=list(stage.tags)
    )


def _profile(limit_profile: LimitProfile) -> s.ProfileShown:
    own = limit_profile.id not in shipped()
    return s.ProfileShown(
        id=limit_profile.id,
        name=limit_profile.name,
        source=limit_profile.source,
        as_of=limit_profile.as_of,
        check=limit_profile.check,
        does_not_know=list(limit_profile.does_not_know),
        milder=list(milder_than_all(limit_profile, shipped().values())) if own else [],
        made_by=limit_profile.made_by,
    )


def _step(deviation_step: DeviationStep) -> s.StepOut:
    return s.StepOut(
        id=deviation_step.id,
        hurdle=deviation_step.hurdle,
        step=deviation_step.step,
        note=deviation_step.note,
        at=moment(deviation_step.at_s),
        by=deviation_step.by,
        struck_reason=deviation_step.struck_reason,
    )


def _meat(meat_note: MeatNote) -> s.MeatOut:
    return s.MeatOut(
        id=meat_note.id,
        kind=meat_note.kind,
        at=moment(meat_note.at_s),
        to_at=None if meat_note.to_s is None else moment(meat_note.to_s),
        place=None if meat_note.place is None else meat_note.place.name,
        temperature_c=meat_note.temperature_c,
        note=meat_note.note,
        by=meat_note.by,
        struck_reason=meat_note.struck_reason,
    )


def _parasites(parasite_step: ParasiteStep) -> s.ParasiteOut:
    return s.ParasiteOut.model_validate(parasite_step, from_attributes=True)


def _laboratory(of: object) -> s.LabOut:
    return s.LabOut.model_validate({**vars(of), "at": moment(of.at_s)})  # type: ignore[attr-defined] # a row of it


def acid_and_activity(session: Session, batch_id: int, now_s: int) -> tuple[float | None, LabActivity | None]:
    """The latest pH of a batch, and the latest water activity of a laboratory; None where there is none."""
    read = [judged.Ph(r.at_s, r.ph, "unknown") for r in struck.counted(warm.readings(session, batch_id))]
    readings = believed(read, now_s)
    results = sorted(struck.counted(evidence.lab_results(session, batch_id)), key=lambda r: r.at_s)
    told = [r for r in results if r.at_s <= now_s]
    lab_ph = [r for r in told if r.what == "ph" and r.taken_of == "product"]
    ph = lab_ph[-1].value if lab_ph else (readings[-1].value if readings else None)
    values = [r for r in results if r.what == "water_activity" and r.loss_percent is not None]
    lab = LabActivity(values[-1].loss_percent or 0.0, values[-1].value) if values else None
    return ph, lab


def _keeping(session: Session, batch: judged.Batch, of: Batch) -> tuple[list[s.KeepingOut], str]:
    """Water activity and the rest from the bowl to past the target; empty where fat or salt are not known."""
    fat, salt = of.fat_percent, of.salt_percent
    if fat is None or salt is None:
        return [], "estimate"
    ph, lab = acid_and_activity(session, of.id, int(batch.now_s))
    target = max((p.target_loss_percent or 0.0 for p in batch.pieces), default=0.0) or USUAL_TARGET_PERCENT
    out = []
    for loss in losses_to(min(target, 60.0)):
        try:
            out.append(s.KeepingOut(**asdict(keeping_at(fat, salt, loss, ph, lab))))
        except OutOfRangeError:
            break  # there is not so much water in it
    return out, "estimate" if lab is None else "laboratory"
