"""Tables of who works here, from which browsers they are signed in, and which tablets an owner has trusted."""

from typing import Literal

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from zymon.core.house.people import Role

from .models import Base

Use = Literal["browser", "calendar"]


class Person(Base):
    """Somebody who works in the workshop or looks into its record. Passphrase and PIN are kept as hashes only."""

    __tablename__ = "person"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    role: Mapped[Role] = mapped_column(String(12))
    passphrase_hash: Mapped[str | None] = mapped_column(String(200))  # None: none yet, an owner gives the first
    pin_hash: Mapped[str | None] = mapped_column(String(200))
    shows: Mapped[str | None] = mapped_column(String(200))  # language and units they read in; None: never chosen
    by: Mapped[str] = mapped_column(String(60))
    made_s: Mapped[int]
    failures: Mapped[int] = mapped_column(default=0)  # wrong passphrases and PINs in a row
    failed_s: Mapped[int | None]  # when the latest was
    ended_s: Mapped[int | None]  # since when they work here no more; what they entered stays theirs
    ended_by: Mapped[str | None] = mapped_column(String(60))


class Tablet(Base):
    """A tablet that an owner has trusted: on it a PIN will do. Its token is kept as a hash only."""

    __tablename__ = "tablet"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    token_sha256: Mapped[str] = mapped_column(String(64), unique=True)
    by: Mapped[str] = mapped_column(String(60))
    made_s: Mapped[int]
    ended_s: Mapped[int | None]
    ended_by: Mapped[str | None] = mapped_column(String(60))


class SignIn(Base):
    """A browser somebody is signed in from, or a calendar that follows for them. Its token is kept as a hash only."""

    __tablename__ = "sign_in"
    id: Mapped[int] = mapped_column(primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), index=True)
    tablet_id: Mapped[int | None] = mapped_column(ForeignKey("tablet.id"))  # where it was by PIN
    use: Mapped[Use] = mapped_column(String(10))
    token_sha256: Mapped[str] = mapped_column(String(64), unique=True)
    browser: Mapped[str] = mapped_column(String(120))  # what it says of itself
    began_s: Mapped[int]
    ends_s: Mapped[int | None]  # None: of itself never
    last_s: Mapped[int]
    confirmed_s: Mapped[int | None]  # when the passphrase or PIN was given again, for a signature
    ended_s: Mapped[int | None]
    ended_by: Mapped[str | None] = mapped_column(String(60))
    person: Mapped[Person] = relationship()
    tablet: Mapped[Tablet | None] = relationship()


class BroughtIn(Base):
    """That this record was brought in from an archive: which one, and when. In no archive itself."""

    __tablename__ = "brought_in"
    id: Mapped[int] = mapped_column(primary_key=True)
    at_s: Mapped[int]
    file_name: Mapped[str] = mapped_column(String(200))
    sha256: Mapped[str] = mapped_column(String(64))
    made_s: Mapped[int]  # when the archive was written
