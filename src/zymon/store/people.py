"""People of the workshop, the browsers they are signed in from, and the tablets that an owner has trusted."""

from collections.abc import Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session, joinedload

from zymon.core.house.people import Role

from .house_models import Person, SignIn, Tablet, Use
from .places import ClashError, there
from .tokens import hashed, new_token


def anybody(session: Session) -> bool:
    """Whether anybody is on record, so that one signs in."""
    return session.scalar(select(Person.id).where(Person.ended_s.is_(None)).limit(1)) is not None


def people(session: Session) -> Sequence[Person]:
    """Everybody, also who left, by name."""
    return session.scalars(select(Person).order_by(func.lower(Person.name), Person.id)).all()


def person(session: Session, person_id: int) -> Person:
    """One person. Raises NotFoundError."""
    return there(session, Person, person_id, "refused.no_person")


def person_named(session: Session, name: str) -> Person | None:
    """Who works here under a name, however it is capitalised; None if nobody does."""
    known = session.scalars(select(Person).where(Person.ended_s.is_(None)))
    return next((one for one in known if one.name.casefold() == name.strip().casefold()), None)


def add_person(session: Session, name: str, role: Role, by: str, now_s: int) -> Person:
    """Put somebody on record. Raises ClashError for a name that somebody has, and for a first one who is no owner."""
    if any(one.name.casefold() == name.casefold() for one in people(session)):  # of those who left too
        raise ClashError("refused.person_name_taken", name=name)
    if role != "owner" and not anybody(session):
        raise ClashError("refused.first_is_owner")
    made = Person(name=name, role=role, by=by, made_s=now_s, failures=0)
    session.add(made)
    session.flush()
    return made


def _an_owner_stays(session: Session, changed: Person) -> None:
    others = session.scalar(
        select(func.count())
        .select_from(Person)
        .where(Person.role == "owner", Person.ended_s.is_(None), Person.id != changed.id)
    )
    if changed.role == "owner" and not others:
        raise ClashError("refused.last_owner", name=changed.name)


def give_role(session: Session, person_id: int, role: Role) -> Person:
    """Give somebody another role. Raises NotFoundError, ClashError for the last owner."""
    changed = person(session, person_id)
    if role != "owner":
        _an_owner_stays(session, changed)
    changed.role = role
    return changed


def end_person(session: Session, person_id: int, by: str, now_s: int) -> Person:
    """Somebody works here no more: signed out everywhere. Raises NotFoundError, ClashError for the last owner."""
    gone = person(session, person_id)
    if gone.ended_s is not None:
        return gone
    _an_owner_stays(session, gone)
    gone.ended_s, gone.ended_by = now_s, by
    end_sign_ins(session, person_id, by, now_s)
    return gone


def new_sign_in(
    session: Session,
    person: Person,
    use: Use,
    browser: str,
    now_s: int,
    lasts_s: int | None,
    tablet: Tablet | None = None,
) -> str:
    """Sign somebody in; the token is given back this once."""
    token = new_token()
    session.add(
        SignIn(
            person_id=person.id, tablet_id=None if tablet is None else tablet.id, use=use, token_sha256=hashed(token),
            browser=browser[:120], began_s=now_s, ends_s=None if lasts_s is None else now_s + lasts_s, last_s=now_s,
        )
    )  # fmt: skip
    session.flush()
    return token


def sign_in_of(session: Session, token: str, now_s: int) -> SignIn | None:
    """Who is signed in by a token, None if nobody is (any more)."""
    found = session.scalar(
        select(SignIn)
        .where(SignIn.token_sha256 == hashed(token), SignIn.ended_s.is_(None))
        .options(joinedload(SignIn.person), joinedload(SignIn.tablet))
    )
    if found is None or found.person.ended_s is not None:
        return None
    if found.tablet is not None and found.tablet.ended_s is not None:
        return None
    return found if found.ends_s is None or found.ends_s > now_s else None


def sign_ins(session: Session, now_s: int) -> Sequence[SignIn]:
    """All browsers and calendars that are signed in, the latest used first."""
    return session.scalars(
        select(SignIn)
        .where(SignIn.ended_s.is_(None), SignIn.ends_s.is_(None) | (SignIn.ends_s > now_s))
        .options(joinedload(SignIn.person), joinedload(SignIn.tablet))
        .order_by(SignIn.last_s.desc(), SignIn.id.desc())
    ).all()


def sign_in(session: Session, sign_in_id: int) -> SignIn:
    """One of them. Raises NotFoundError."""
    return there(session, SignIn, sign_in_id, "refused.no_sign_in")


def end_sign_in(ended: SignIn, by: str, now_s: int) -> None:
    """Sign a browser out."""
    if ended.ended_s is None:
        ended.ended_s, ended.ended_by = now_s, by


def end_sign_ins(session: Session, person_id: int, by: str, now_s: int, but: int | None = None) -> None:
    """Sign somebody out everywhere, but for one of their browsers if it is named."""
    for one in session.scalars(select(SignIn).where(SignIn.person_id == person_id, SignIn.ended_s.is_(None))):
        if one.id != but:
            end_sign_in(one, by, now_s)


def tablets(session: Session) -> Sequence[Tablet]:
    """The tablets that are trusted."""
    return session.scalars(select(Tablet).where(Tablet.ended_s.is_(None)).order_by(Tablet.name)).all()


def tablet_of(session: Session, token: str) -> Tablet | None:
    """The trusted tablet of a token, None if it is none (any more)."""
    return session.scalar(select(Tablet).where(Tablet.token_sha256 == hashed(token), Tablet.ended_s.is_(None)))


def trust_tablet(session: Session, name: str, by: str, now_s: int) -> str:
    """Trust a tablet; its token is given back this once."""
    token = new_token()
    session.add(Tablet(name=name, token_sha256=hashed(token), by=by, made_s=now_s))
    session.flush()
    return token


def end_tablet(session: Session, tablet_id: int, by: str, now_s: int) -> None:
    """Trust a tablet no more; who is signed in there by PIN is signed out. Raises NotFoundError."""
    ended = there(session, Tablet, tablet_id, "refused.no_tablet")
    if ended.ended_s is None:
        ended.ended_s, ended.ended_by = now_s, by
