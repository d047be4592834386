"""What settles a batch's hurdles: laboratory values, parasite steps, and the limits it is judged by."""

import json
from typing import TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from zymon.core.limits import LimitProfile
from zymon.limits import profile_from, shipped

from .evidence_models import (
    DeviationStep,
    HurdleCorrection,
    HurdleSignature,
    LabResult,
    MeatNote,
    ParasiteStep,
    ProfileChange,
    UserProfile,
    WentIn,
)
from .models import Batch
from .places import ClashError, NotFoundError, there
from .struck import counted


def lab_results(session: Session, batch_id: int) -> list[LabResult]:
    """Laboratory values of a batch, in time order, struck ones too."""
    return list(session.scalars(select(LabResult).where(LabResult.batch_id == batch_id).order_by(LabResult.at_s)))


Entry = TypeVar("Entry", LabResult, ParasiteStep, DeviationStep, MeatNote)


def entry(session: Session, table: type[Entry], row_id: int) -> Entry:
    """One entry of the ledger. Raises NotFoundError."""
    return there(session, table, row_id, "refused.no_entry")


def parasite_steps(session: Session, batch_id: int) -> list[ParasiteStep]:
    """What was said about parasites, in the order it was said, struck entries too."""
    query = select(ParasiteStep).where(ParasiteStep.batch_id == batch_id).order_by(ParasiteStep.id)
    return list(session.scalars(query))


def meat_notes(session: Session, batch_id: int) -> list[MeatNote]:
    """Where the meat of a batch lay and how warm it was mixed, in time order, struck entries too."""
    query = select(MeatNote).where(MeatNote.batch_id == batch_id).order_by(MeatNote.at_s, MeatNote.id)
    return list(session.scalars(query))


def signatures(session: Session, batch_id: int) -> list[HurdleSignature]:
    """Who signed for what of a batch, in time order."""
    query = select(HurdleSignature).where(HurdleSignature.batch_id == batch_id).order_by(HurdleSignature.at_s)
    return list(session.scalars(query))


def corrections(session: Session, batch_id: int) -> list[HurdleCorrection]:
    """Hurdles of a batch that stopped failing because something was corrected, in time order."""
    query = select(HurdleCorrection).where(HurdleCorrection.batch_id == batch_id).order_by(HurdleCorrection.at_s)
    return list(session.scalars(query))


def deviation_steps(session: Session, batch_id: int) -> list[DeviationStep]:
    """What was done about what failed or was in doubt, in time order, struck entries too."""
    query = select(DeviationStep).where(DeviationStep.batch_id == batch_id).order_by(DeviationStep.at_s)
    return list(session.scalars(query))


def went_in(session: Session, batch_id: int) -> WentIn | None:
    """What was last said to have gone into a batch that never lay on the Bench, or None."""
    query = select(WentIn).where(WentIn.batch_id == batch_id).order_by(WentIn.id)
    return next(iter(reversed(counted(session.scalars(query)))), None)


def profiles(session: Session) -> dict[str, LimitProfile]:
    """Every limit profile by id: those that come with Zymon, then the maker's own."""
    own = session.scalars(select(UserProfile).order_by(UserProfile.at_s))
    return {**shipped(), **{p.id: profile_from(json.loads(p.data)) for p in own}}


def profile(session: Session, profile_id: str) -> LimitProfile:
    """One profile. Raises NotFoundError."""
    found = profiles(session).get(profile_id)
    if found is None:
        raise NotFoundError("refused.no_limit_profile", profile=profile_id)
    return found


def add_profile(session: Session, data: dict[str, object], by: str, now_s: int) -> LimitProfile:
    """Add a profile of the maker's own. Raises ClashError when its id is taken."""
    made = profile_from(data)
    if made.id in profiles(session):
        raise ClashError("refused.limit_profile_taken", profile=made.id)
    session.add(UserProfile(id=made.id, data=json.dumps(data), by=by, at_s=now_s))
    session.flush()
    return made


def change_profile(session: Session, batch: Batch, profile_id: str, by: str, now_s: int) -> None:
    """Judge a batch by other limits from now on; by which it was judged before stays on record."""
    profile(session, profile_id)
    if batch.profile == profile_id:
        raise ClashError("refused.judged_by_these")
    session.add(ProfileChange(batch_id=batch.id, was=batch.profile, now=profile_id, by=by, at_s=now_s))
    batch.profile = profile_id
    session.flush()
