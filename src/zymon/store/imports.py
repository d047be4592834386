"""Imports: bringing in what a file holds, all or nothing; its report; and taking it back whole."""

from sqlalchemy import select, text
from sqlalchemy.orm import Session

from .climate import reading_strikes, restore_readings, strike_readings
from .import_plans import Plan
from .models import ImportReport, ReadingStrike, Weighing
from .places import ClashError, there
from .struck import strike
from .warm_models import PhReading
from .weighings import restore_weighing, strike_weighing


def bring_in(session: Session, plan: Plan, report: ImportReport) -> ImportReport:
    """Carry a plan out inside the session's transaction and keep its report."""
    report.rows_new, report.rows_same, report.rows_conflict = plan.new, plan.same, plan.conflict
    report.rows_left_out = plan.error_count
    session.add(report)
    session.flush()
    plan.apply(session, report.id)
    session.flush()
    return report


def reports(session: Session) -> list[ImportReport]:
    """The latest imports, newest first."""
    return list(session.scalars(select(ImportReport).order_by(ImportReport.id.desc()).limit(50)))


def report(session: Session, report_id: int) -> ImportReport:
    """One import. Raises NotFoundError."""
    return there(session, ImportReport, report_id, "refused.no_import")


def take_back(session: Session, report: ImportReport, reason: str, by: str, now_s: int) -> ImportReport:
    """Take back whole what a file brought: its weights and pH are struck, its air counts no more. Raises ClashError.

    Pieces that it hung stay, since they may have been moved, weighed or taken down since.
    """
    if report.taken_back_s is not None:
        raise ClashError("refused.file_taken_back")
    for weighing in _weighings(session, report):
        if weighing.struck_s is None:
            strike_weighing(session, weighing.id, reason, by, now_s)
    for reading in _ph_readings(session, report):
        if reading.struck_s is None:
            strike(reading, reason, by, now_s)
    span = session.execute(
        text("SELECT min(at_s), max(at_s) FROM reading WHERE import_id = :i AND place_id = :p"),
        {"i": report.id, "p": report.place_id},
    ).one()
    if report.place_id is not None and span[0] is not None:
        strike_readings(
            session,
            ReadingStrike(
                place_id=report.place_id, from_s=span[0], to_s=span[1], import_id=report.id, reason=reason, readings=0,
                by=by, entered_s=now_s,
            ),
        )  # fmt: skip
    report.taken_back_s, report.taken_back_by, report.taken_back_reason = now_s, by, reason
    session.flush()
    return report


def bring_back(session: Session, report: ImportReport, reason: str, by: str, now_s: int) -> ImportReport:
    """Let a file that was taken back count again; a second time changes nothing."""
    if report.taken_back_s is None:
        return report
    for weighing in _weighings(session, report):
        if weighing.struck_s == report.taken_back_s and weighing.struck_reason == report.taken_back_reason:
            restore_weighing(session, weighing.id, by, now_s)
    for reading in _ph_readings(session, report):
        if reading.struck_s == report.taken_back_s and reading.struck_reason == report.taken_back_reason:
            session.add(_again(reading, by, now_s))
    if report.place_id is not None:
        for stretch in reading_strikes(session, report.place_id):
            if stretch.import_id == report.id and stretch.struck_s is None:
                restore_readings(session, stretch, reason, by, now_s)
    report.taken_back_s = report.taken_back_by = report.taken_back_reason = None
    session.flush()
    return report


def _weighings(session: Session, report: ImportReport) -> list[Weighing]:
    return list(session.scalars(select(Weighing).where(Weighing.import_id == report.id)))


def _ph_readings(session: Session, report: ImportReport) -> list[PhReading]:
    return list(session.scalars(select(PhReading).where(PhReading.import_id == report.id)))


def _again(struck: PhReading, by: str, now_s: int) -> PhReading:
    """A struck reading entered anew beside itself."""
    return PhReading(
        uid=f"{struck.uid} again {now_s}"[:60], batch_id=struck.batch_id, at_s=struck.at_s, ph=struck.ph,
        sample_c=struck.sample_c, meter_id=struck.meter_id, confirmed=struck.confirmed, import_id=struck.import_id,
        by=by, entered_s=now_s,
    )  # fmt: skip
