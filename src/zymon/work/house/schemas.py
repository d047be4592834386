"""Schemas of the house: who is at the door, people, browsers, tablets."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, StringConstraints

from zymon.core.house.people import Role
from zymon.formats.texts import ONE_LINE
from zymon.work.schemas import ByIn, RecordIn, ShowsText, Who

Secret = Annotated[str, StringConstraints(min_length=1, max_length=200), ONE_LINE]
NewName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), ONE_LINE]


class MeOut(BaseModel):
    """Who is signed in, and what they may do."""

    id: int
    name: str
    role: Role
    by_pin: bool
    may_write: bool
    may_sign: bool
    may_keep_house: bool
    has_pin: bool
    shows: str | None  # language and units they chose, as a query


class DoorOut(BaseModel):
    """Whether one signs in here, who is, and on a trusted tablet who can by PIN."""

    locked: bool
    me: MeOut | None
    tablet: str | None
    by_pin: list[str]


class SignInIn(BaseModel):
    """A name with a passphrase, or on a trusted tablet with a PIN."""

    name: NewName
    passphrase: Secret | None = None
    pin: Secret | None = None


class ShowsIn(BaseModel):
    """In which language and units somebody reads."""

    shows: ShowsText


class ConfirmIn(BaseModel):
    """The passphrase, or on a trusted tablet the PIN, once more."""

    secret: Secret


class PersonIn(RecordIn):
    """Somebody new. The first is an owner."""

    name: NewName
    role: Role
    passphrase: Secret


class RoleIn(ByIn):
    """What somebody is from now on."""

    role: Role


class PassphraseIn(ByIn):
    """A new passphrase."""

    passphrase: Secret


class OwnSecretIn(BaseModel):
    """A new passphrase or PIN of one's own, and the passphrase that holds until now; a PIN of null is given up."""

    now: Secret
    passphrase: Secret | None = None
    pin: Secret | None = None


class PersonOut(BaseModel):
    """Somebody who works here, or did."""

    id: int
    name: str
    role: Role
    has_passphrase: bool
    has_pin: bool
    made_at: datetime
    made_by: str
    ended_at: datetime | None
    ended_by: str | None
    waits_until: datetime | None  # after too many wrong tries


class SignedInOut(BaseModel):
    """A browser or calendar that is signed in."""

    id: int
    name: str
    calendar: bool
    tablet: str | None
    browser: str
    began_at: datetime
    last_at: datetime
    this_one: bool


class TabletIn(ByIn):
    """What the tablet in hand is called."""

    name: NewName


class TabletOut(BaseModel):
    """A tablet that is trusted."""

    id: int
    name: str
    by: Who
    made_at: datetime


class CalendarOut(BaseModel):
    """The address by which a calendar follows the round; shown this once where one signs in."""

    address: str


class BroughtInOut(BaseModel):
    """What an archive brought; `people` have to be given passphrases anew."""

    made: datetime
    rows: int
    people: int
    photos: int
