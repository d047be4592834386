"""A batch as the ledger sees it, from its course."""

from dataclasses import replace

from zymon.core.course import Course
from zymon.core.fermentation.meter import PLAUSIBLE_PH, Measured, medians
from zymon.core.ledger import batch as core
from zymon.core.ledger.clocks import worst_cure
from zymon.core.ledger.judge import Ledger, judge
from zymon.store import evidence, salt, warm
from zymon.store.bench_models import Making
from zymon.store.database import Session

from ..course import course_of
from ..salt.bags import colds_for, cure_of

HOUR_S = 3600.0


def ledger_of(session: Session, of: Making, now_s: int) -> Ledger:
    """Every hurdle of a batch as of now. An open hold and the bin stand against it whatever the hurdles say."""
    course = course_of(session, of.batch_id, now_s)
    found = judge(judged(session, of, course, now_s))
    against = [f"thrown away: {course.discarded}"] if course.discarded is not None else []
    against += [f"held: {hold.text}" for hold in of.holds if hold.answered_s is None]
    return replace(found, ready=found.ready and not against, why=(*against, *found.why))


def batch_of(session: Session, of: Making, now_s: int) -> core.Batch:
    """What is known of a batch; what no station recorded is not known."""
    return judged(session, of, course_of(session, of.batch_id, now_s), now_s)


def judged(session: Session, of: Making, course: Course, now_s: int) -> core.Batch:
    """A course as the ledger's batch, on a clock of hours since it was made."""
    mix, part = course.formulations[0], course.parts[0]
    return core.Batch(
        id=course.code,
        goods="minced" if course.minced else "intact",
        species=(part.species,),
        profile=evidence.profile(session, of.profile),
        now_hour=(now_s - course.made_s) / HOUR_S,
        bowl=core.Bowl(
            meat_g=mix.meat_g,
            plain_salt_g=mix.plain_salt_g,
            curing_salt_g=mix.curing_salt_g,
            nitrite_fraction=mix.nitrite_fraction,
            nitrate_fraction=mix.nitrate_fraction,
            belly=mix.belly,
        ),
        mix_temperature_c=course.mix_temperature_c,
        parasite=_parasite(course),
        cure=_cure(session, of, course, now_s),
        warm=_warm(session, course, now_s) if course.minced else None,
        pieces=_pieces(course),
        laboratory=tuple(core.LabValue(r.what, r.value) for r in course.laboratory),
        signatures=tuple(core.Signature(v.hurdle, v.by, v.reason) for v in course.signatures),
        core_salt=_core_salt(course),
    )


def _pieces(course: Course) -> tuple[core.HungPiece, ...]:
    return tuple(
        core.HungPiece(
            p.tag,
            p.start_weight_g,
            p.tare_g,
            p.target_loss_percent,
            tuple(((w.at_s - course.made_s) / HOUR_S, w.gross_g) for w in p.weighings),
            tuple((at_s - course.made_s) / HOUR_S for at_s in p.doubtful),
        )
        for p in course.pieces
        if p.start_weight_g is not None
    )


def _parasite(course: Course) -> core.Parasite | None:
    step = course.parasites
    if step is None:
        return None
    return core.Parasite(step.way, step.temperature_c, step.days, step.thickness_cm)  # type: ignore[arg-type] # checked on entry


def _warm(session: Session, course: Course, now_s: int) -> core.WarmStage | None:
    """The warm stage with every reading of the box, and the medians of repeated pH readings that can be."""
    stage = course.stage("warm")
    if stage is None or stage.place_id is None:
        return core.WarmStage("none", 0.0, (), ()) if course.cold_hung else None
    origin = int(stage.from_s)
    begin = (stage.from_s - course.made_s) / HOUR_S
    log = warm.box_log(session, stage.place_id, origin, int(now_s if stage.to_s is None else stage.to_s), bin_s=60)
    found = medians([Measured((r.at_s - origin) / HOUR_S, r.ph, r.meter_id) for r in course.acidity])
    low, high = PLAUSIBLE_PH
    return core.WarmStage(
        None,
        begin,
        tuple((begin + hour, c) for hour, c in log),
        tuple((begin + m.hour, m.ph) for m in found if low <= m.ph <= high),
    )


def _cure(session: Session, of: Making, course: Course, now_s: int) -> core.Cure | None:
    """The time in salt that says most against a batch, with the cold that each piece really had."""
    tags = {s.tag for s in course.saltings}
    pieces = [p for p in salt.pieces_of_batch(session, of.batch_id) if p.tag in tags]
    if not pieces:
        return None
    colds = colds_for(session, pieces, now_s)
    cures = [cure_of(p, colds, int(course.made_s)) for p in pieces]
    return worst_cure(cures, (now_s - course.made_s) / HOUR_S)


def _core_salt(course: Course) -> core.CoreSalt | None:
    """The core that is furthest behind."""
    shares = [core.CoreSalt(s.tag, s.core_share, out=s.to_s is not None) for s in course.saltings]
    return min(shares, key=lambda c: (c.out, c.share)) if shares else None
