"""People: put on record, given a role, signed in and out, and the tablets on which a PIN will do."""

from functools import cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from zymon.core.errors import ZymonError
from zymon.core.house.people import PIN_SESSION_S, SESSION_S, check_passphrase, check_pin, may, wait_s
from zymon.store import people as store
from zymon.store.database import Session
from zymon.store.house_models import Person, SignIn, Tablet
from zymon.store.places import ClashError
from zymon.work.premises import Premises, moment

from . import schemas as s
from .door import NotAllowedError, Visitor

HASHER = PasswordHasher()  # argon2id, as strong as the library holds right
MACHINE = "this machine"  # who the command line is


class WrongSecretError(ZymonError, PermissionError):
    """The name and the passphrase or PIN do not belong together."""


class WaitError(ZymonError, RuntimeError):
    """Too many wrong tries: for a while none is looked at."""


def secret_hash(passphrase: str) -> str:
    """What is kept of a passphrase."""
    return HASHER.hash(passphrase)


@cache
def _nobodys() -> str:
    """What is compared with where there is no such name, which then takes as long."""
    return HASHER.hash("nobody's")


def _fits(kept: str | None, given: str) -> bool:
    try:
        return HASHER.verify(kept or _nobodys(), given) and kept is not None
    except (VerificationError, InvalidHashError):
        return False


def door(shop: Premises, visitor: Visitor | None, tablet_token: str | None) -> s.DoorOut:
    """Whether one signs in here, who is, and on a trusted tablet who can by PIN."""
    with shop.db.reading() as session:
        tablet = store.tablet_of(session, tablet_token) if tablet_token else None
        return s.DoorOut(
            locked=store.anybody(session),
            me=None if visitor is None else _me(store.person(session, visitor.person_id), visitor),
            tablet=None if tablet is None else tablet.name,
            by_pin=[]
            if tablet is None
            else [p.name for p in store.people(session) if p.pin_hash is not None and p.ended_s is None],
        )


def _me(person: Person, visitor: Visitor) -> s.MeOut:
    return s.MeOut(
        id=person.id,
        name=person.name,
        role=person.role,
        by_pin=visitor.tablet_id is not None,
        may_write=may(person.role, "write"),
        may_sign=may(person.role, "sign"),
        may_keep_house=may(person.role, "keep_house"),
        has_pin=person.pin_hash is not None,
        shows=person.shows,
    )


def show_so(shop: Premises, visitor: Visitor, shows: str) -> None:
    """Keep in which language and units somebody reads. Parameters: shows, as a query."""
    with shop.changing(visitor.name) as session:
        store.person(session, visitor.person_id).shows = shows


def sign_in(shop: Premises, body: s.SignInIn, tablet_token: str | None, browser: str) -> tuple[str, int]:
    """Sign somebody in: the token for their browser, and how long it holds [s]. Raises WrongSecretError, WaitError."""
    with shop.db.reading() as session:
        known = store.person_named(session, body.name)
        tablet = store.tablet_of(session, tablet_token) if tablet_token else None
    if body.pin is not None and tablet is None:
        raise WrongSecretError("refused.pin_not_here")
    if known is not None and known.passphrase_hash is None and body.passphrase is not None:
        raise WrongSecretError("refused.no_passphrase_yet", name=known.name)
    _wait(known, shop.now_s)
    kept = None if known is None else known.pin_hash if body.pin is not None else known.passphrase_hash
    if not _fits(kept, body.pin or body.passphrase or ""):
        if known is not None:
            _note_failure(shop, known.id)
        raise WrongSecretError("refused.wrong_secret")
    assert known is not None
    by_pin = body.pin is not None
    lasts_s = PIN_SESSION_S if by_pin else SESSION_S
    with shop.db.writing(known.name, shop.now_s) as session:
        person = store.person(session, known.id)
        person.failures = 0
        token = store.new_sign_in(
            session, person, "browser", browser, shop.now_s, lasts_s, tablet if by_pin and tablet else None
        )
    return token, lasts_s


def _wait(known: Person | None, now_s: int) -> None:
    if known is None or known.failed_s is None:
        return
    left_s = known.failed_s + wait_s(known.failures) - now_s
    if left_s > 0:
        raise WaitError("refused.wait", name=known.name, seconds=left_s)


def _note_failure(shop: Premises, person_id: int) -> None:
    with shop.db.writing("nobody", shop.now_s) as session:
        person = store.person(session, person_id)
        person.failures, person.failed_s = person.failures + 1, shop.now_s


def sign_out(shop: Premises, visitor: Visitor) -> None:
    """Sign the browser out."""
    with shop.db.writing(visitor.name, shop.now_s) as session:
        store.end_sign_in(store.sign_in(session, visitor.sign_in_id), visitor.name, shop.now_s)


def confirm(shop: Premises, visitor: Visitor, secret: str) -> None:
    """The passphrase, or where one is in by PIN the PIN, once more. Raises WrongSecretError, WaitError."""
    _check_own(shop, visitor, secret)
    with shop.db.writing(visitor.name, shop.now_s) as session:
        store.sign_in(session, visitor.sign_in_id).confirmed_s = shop.now_s


def _check_own(shop: Premises, visitor: Visitor, secret: str) -> None:
    with shop.db.reading() as session:
        person = store.person(session, visitor.person_id)
    _wait(person, shop.now_s)
    if not _fits(person.passphrase_hash if visitor.tablet_id is None else person.pin_hash, secret):
        _note_failure(shop, person.id)
        raise WrongSecretError("refused.wrong_secret")
    with shop.db.writing(visitor.name, shop.now_s) as session:
        store.person(session, person.id).failures = 0


def own_secret(shop: Premises, visitor: Visitor, body: s.OwnSecretIn) -> None:
    """Another passphrase or PIN for oneself; with another passphrase one is signed out everywhere else."""
    if body.passphrase is not None:
        check_passphrase(body.passphrase)
    if body.pin is not None:
        check_pin(body.pin)
    if visitor.tablet_id is not None:
        raise ClashError("refused.secret_not_by_pin")
    _check_own(shop, visitor, body.now)
    with shop.db.writing(visitor.name, shop.now_s) as session:
        person = store.person(session, visitor.person_id)
        if body.passphrase is None:
            person.pin_hash = None if body.pin is None else secret_hash(body.pin)
        else:
            person.passphrase_hash = secret_hash(body.passphrase)
            store.end_sign_ins(session, person.id, visitor.name, shop.now_s, but=visitor.sign_in_id)


def add(shop: Premises, body: s.PersonIn) -> s.PersonOut:
    """Put somebody on record. Raises OutOfRangeError, ClashError."""
    check_passphrase(body.passphrase)
    kept = secret_hash(body.passphrase)
    with shop.recording(body, f"person {body.name}"[:60]) as entry:
        if entry.new:
            made = store.add_person(entry.session, body.name, body.role, body.by, entry.now_s)
            made.passphrase_hash = kept
            entry.came("person", made.id)
        return _person(store.person(entry.session, entry.made[0].id), shop.now_s)


def give_role(shop: Premises, person_id: int, body: s.RoleIn) -> s.PersonOut:
    """Give somebody another role."""
    with shop.changing(body.by) as session:
        return _person(store.give_role(session, person_id, body.role), shop.now_s)


def give_passphrase(shop: Premises, person_id: int, body: s.PassphraseIn) -> s.PersonOut:
    """Give somebody another passphrase: they are signed out everywhere, and wait no more."""
    check_passphrase(body.passphrase)
    kept = secret_hash(body.passphrase)
    with shop.changing(body.by) as session:
        changed = store.person(session, person_id)
        changed.passphrase_hash, changed.failures = kept, 0
        store.end_sign_ins(session, person_id, body.by, shop.now_s)
        return _person(changed, shop.now_s)


def end(shop: Premises, person_id: int, by: str) -> s.PersonOut:
    """Somebody works here no more; what they entered stays theirs."""
    with shop.changing(by) as session:
        return _person(store.end_person(session, person_id, by, shop.now_s), shop.now_s)


def make_owner(shop: Premises, name: str, passphrase: str) -> bool:
    """Make an owner, or give somebody a new passphrase and the owner's role; whether somebody new was made.

    For whoever sits at the machine itself, who holds the file anyway. Raises OutOfRangeError.
    """
    check_passphrase(passphrase)
    kept = secret_hash(passphrase)
    with shop.changing(MACHINE) as session:
        known = store.person_named(session, name)
        owner = known or store.add_person(session, name, "owner", MACHINE, shop.now_s)
        owner.role, owner.passphrase_hash, owner.failures = "owner", kept, 0
        store.end_sign_ins(session, owner.id, MACHINE, shop.now_s)
    return known is None


def has_owner(session: Session) -> bool:
    """Whether an owner can sign in."""
    return any(p.role == "owner" and p.ended_s is None and p.passphrase_hash for p in store.people(session))


def people(shop: Premises) -> list[s.PersonOut]:
    """Everybody, also who left."""
    with shop.db.reading() as session:
        return [_person(one, shop.now_s) for one in store.people(session)]


def _person(person: Person, now_s: int) -> s.PersonOut:
    until_s = (person.failed_s or 0) + wait_s(person.failures)
    return s.PersonOut(
        id=person.id,
        name=person.name,
        role=person.role,
        has_passphrase=person.passphrase_hash is not None,
        has_pin=person.pin_hash is not None,
        made_at=moment(person.made_s),
        made_by=person.by,
        ended_at=None if person.ended_s is None else moment(person.ended_s),
        ended_by=person.ended_by,
        waits_until=moment(until_s) if until_s > now_s else None,
    )


def signed_in(shop: Premises, visitor: Visitor) -> list[s.SignedInOut]:
    """Where one is signed in; an owner sees everybody's."""
    with shop.db.reading() as session:
        return [
            _signed_in(one, visitor)
            for one in store.sign_ins(session, shop.now_s)
            if may(visitor.role, "keep_house") or one.person_id == visitor.person_id
        ]


def _signed_in(sign_in: SignIn, visitor: Visitor) -> s.SignedInOut:
    return s.SignedInOut(
        id=sign_in.id,
        name=sign_in.person.name,
        calendar=sign_in.use == "calendar",
        tablet=None if sign_in.tablet is None else sign_in.tablet.name,
        browser=sign_in.browser,
        began_at=moment(sign_in.began_s),
        last_at=moment(sign_in.last_s),
        this_one=sign_in.id == visitor.sign_in_id,
    )


def end_signed_in(shop: Premises, visitor: Visitor, sign_in_id: int) -> None:
    """Sign a browser out from afar: one's own, or an owner anybody's. Raises NotFoundError, NotAllowedError."""
    with shop.db.writing(visitor.name, shop.now_s) as session:
        ended = store.sign_in(session, sign_in_id)
        if ended.person_id != visitor.person_id and not may(visitor.role, "keep_house"):
            raise NotAllowedError("refused.not_your_browser")
        store.end_sign_in(ended, visitor.name, shop.now_s)


def calendar_token(shop: Premises, visitor: Visitor) -> str:
    """A token by which a calendar reads the round; it opens nothing else and holds until it is ended."""
    with shop.db.writing(visitor.name, shop.now_s) as session:
        return store.new_sign_in(
            session, store.person(session, visitor.person_id), "calendar", "", shop.now_s, lasts_s=None
        )


def tablets(shop: Premises) -> list[s.TabletOut]:
    """The tablets that are trusted."""
    with shop.db.reading() as session:
        return [_tablet(one) for one in store.tablets(session)]


def _tablet(tablet: Tablet) -> s.TabletOut:
    return s.TabletOut(id=tablet.id, name=tablet.name, by=tablet.by, made_at=moment(tablet.made_s))


def trust_tablet(shop: Premises, body: s.TabletIn) -> str:
    """Trust the tablet in hand; the token for it."""
    with shop.changing(body.by) as session:
        return store.trust_tablet(session, body.name, body.by, shop.now_s)


def end_tablet(shop: Premises, tablet_id: int, by: str) -> None:
    """Trust a tablet no more."""
    with shop.changing(by) as session:
        store.end_tablet(session, tablet_id, by, shop.now_s)
