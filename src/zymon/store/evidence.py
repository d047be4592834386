"""What settles a batch's hurdles: laboratory values, parasite steps, and the limits it is judged by."""

import json

from sqlalchemy import select
from sqlalchemy.orm import Session

from zymon.core.limits import LimitProfile
from zymon.limits import profile_from, shipped

from .bench_models import Making
from .places import ClashError, NotFoundError, there
from .struck import counted
from .warm_models import LabResult, ParasiteStep, ProfileChange, UserProfile


def lab_results(session: Session, batch_id: int) -> list[LabResult]:
    """Laboratory values of a batch, in time order, struck ones too."""
    return list(session.scalars(select(LabResult).where(LabResult.batch_id == batch_id).order_by(LabResult.at_s)))


def lab_result(session: Session, result_id: int) -> LabResult:
    """One laboratory value. Raises NotFoundError."""
    return there(session, LabResult, result_id, "this value is not there")


def parasite_step(session: Session, batch_id: int) -> ParasiteStep | None:
    """What was last said about parasites, or None."""
    query = select(ParasiteStep).where(ParasiteStep.batch_id == batch_id).order_by(ParasiteStep.id)
    return next(iter(reversed(counted(session.scalars(query)))), None)


def profiles(session: Session) -> dict[str, LimitProfile]:
    """Every limit profile by id: those that come with Zymon, then the maker's own."""
    own = session.scalars(select(UserProfile).order_by(UserProfile.at_s))
    return {**shipped(), **{p.id: profile_from(json.loads(p.data)) for p in own}}


def profile(session: Session, profile_id: str) -> LimitProfile:
    """One profile. Raises NotFoundError."""
    found = profiles(session).get(profile_id)
    if found is None:
        raise NotFoundError(f"there is no limit profile {profile_id}")
    return found


def add_profile(session: Session, data: dict[str, object], by: str, now_s: int) -> LimitProfile:
    """Add a profile of the maker's own. Raises ClashError when its id is taken."""
    made = profile_from(data)
    if made.id in profiles(session):
        raise ClashError(f"there is a profile {made.id} already: limits that changed get a name of their own")
    session.add(UserProfile(id=made.id, data=json.dumps(data), by=by, at_s=now_s))
    session.flush()
    return made


def change_profile(session: Session, of: Making, profile_id: str, by: str, now_s: int) -> None:
    """Judge a batch by other limits from now on; by which it was judged before stays on record."""
    profile(session, profile_id)
    if of.profile == profile_id:
        raise ClashError("it is judged by these limits already")
    session.add(ProfileChange(batch_id=of.batch_id, was=of.profile, now=profile_id, by=by, at_s=now_s))
    of.profile = profile_id
    session.flush()
