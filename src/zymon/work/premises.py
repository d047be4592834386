"""One running workshop: its records, its forecasts, its clock; and the way in which anything is recorded."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import datetime
from pathlib import Path
from typing import Protocol
from zoneinfo import ZoneInfo

from zymon.core.errors import ZymonError
from zymon.core.order import moment_of, odd_clock, odd_moment
from zymon.core.say import Said
from zymon.store.database import Database, Session, Trouble
from zymon.store.journal import because
from zymon.store.once import Made, last_entry_s, made_before, remember
from zymon.store.places import workshop
from zymon.words.shows import USUAL, Shows, read_shows

from .dates import Dates
from .follow import Followers
from .ledger.corrections import keep_what_failed
from .moments import moment
from .planner.ways import Ways
from .schemas import MadeOut
from .shared import Shared

__all__ = ["DoubtfulError", "Premises", "Recording", "moment"]


class DoubtfulError(ZymonError, ValueError):
    """An entry that is asked about before it counts; what it says is the question."""


class Entry(Protocol):
    """What every entry brings: its identity, who enters it, and whether what was asked is answered."""

    uid: str
    by: str
    sure: bool


@dataclass
class Recording:
    """An entry on its way into the record: its session, who and when, and what came of it."""

    session: Session
    by: str
    now_s: int
    sure: bool
    made: list[Made]
    new: bool  # False: it arrived before, nothing is to be done

    def at(self, given: datetime | None) -> int:
        """The moment the entry is of [s]. Raises DoubtfulError for one to come, or long ago and not yet confirmed."""
        at_s = int(moment_of(None if given is None else given.timestamp(), self.now_s))
        question = odd_moment(at_s, self.now_s)
        if question is not None and not (self.sure and at_s <= self.now_s):
            raise DoubtfulError(question)
        return at_s

    def ask(self, question: Said | None) -> None:
        """Ask what is odd before it counts. Raises DoubtfulError unless it was answered."""
        if question is not None and not self.sure:
            raise DoubtfulError(question)

    def came(self, what: str, row_id: int) -> None:
        """Note what came of the entry, so that the answer can name it."""
        self.made.append(Made(what, row_id))

    @property
    def named(self) -> list[MadeOut]:
        """What came of the entry, as the answer names it."""
        return [MadeOut.model_validate(one) for one in self.made]


class Copies(Protocol):
    """Whoever takes the nightly copies of the record."""

    failed: str | None  # why the latest could not be taken
    took_s: float | None  # how long the latest took

    def taken(self) -> dict[int, Path]:
        """The copies that are whole, by when they were taken [s]."""

    def is_old(self) -> bool:
        """Whether the last good one is so old that it has to be said."""

    def take(self) -> bool:
        """Take one now; whether it came to be."""

    def end(self) -> None:
        """Take no more."""


@dataclass
class Premises:
    """One running workshop."""

    db: Database
    clock: Callable[[], float]
    dates: Dates = field(default_factory=Dates)
    followers: Followers = field(default_factory=Followers)
    copies: Copies | None = None  # where this server takes them
    trouble: Trouble | None = None  # why the latest entry could not be kept
    said_address: str | None = None  # the address for tablets, as the workshop has it
    shows: Shows = USUAL  # in which language and units it writes what nobody asked for just now
    _steady: Callable[[], float] | None = None
    _watched: tuple[float, float] | None = None  # the clock and steady seconds when somebody last looked at it

    def __post_init__(self) -> None:
        self.shared = Shared(self.clock)
        self.ways = Ways(self.dates)

    @property
    def now_s(self) -> int:
        """The present, in whole seconds since 1970."""
        return int(self.clock())

    @contextmanager
    def recording(self, entry: Entry, what: str, reason: str = "") -> Iterator[Recording]:
        """Record an entry once, however often it is sent: what it makes is kept under its identity, all or nothing.

        Parameters: entry; what it is entered as, and for whom; reason, of the changes it makes.
        """
        now_s = self.now_s
        with self.db.writing(entry.by, now_s) as session:
            because(session, reason)
            known = made_before(session, entry.uid, what)
            made = Recording(session, entry.by, now_s, entry.sure, known or [], known is None)
            if made.new:
                made.ask(odd_clock(now_s, last_entry_s(session), self._jumped_s()))
                self._watched = self._watch()  # whoever entered it looked at the clock
            yield made
            if made.new:
                self._keep_what_failed(session, entry.by, reason, now_s)
                remember(session, entry.uid, what, made.made, now_s)
        self.trouble = None
        self.dates.look_again()

    @contextmanager
    def changing(self, by: str, reason: str = "") -> Iterator[Session]:
        """A session for a change that is the same however often it is made: a strike, a setting."""
        with self.db.writing(by, self.now_s) as session:
            because(session, reason)
            yield session
            self._keep_what_failed(session, by, reason, self.now_s)
        self.trouble = None
        self.dates.look_again()

    def watch_clock(self, steady: Callable[[], float]) -> None:
        """Ask from now on when the clock jumps. Parameters: steady, seconds that go by whatever the clock is set to."""
        self._steady = steady
        self._watched = self._watch()

    def _watch(self) -> tuple[float, float] | None:
        return None if self._steady is None else (self.clock(), self._steady())

    def _jumped_s(self) -> float:
        """By how much the clock moved more than time went by since it was last looked at [s]."""
        if self._steady is None or self._watched is None:
            return 0.0
        return self.clock() - self._watched[0] - (self._steady() - self._watched[1])

    def _keep_what_failed(self, session: Session, by: str, reason: str, now_s: int) -> None:
        """A hurdle that fails before a change and not after it was corrected, whether anybody had looked or not."""
        with self.db.reading() as before:
            keep_what_failed(before, session, by, reason, now_s)

    def begin_anew(self) -> None:
        """Read anew what is kept in memory: the record was replaced as a whole."""
        self.db.replaced()
        with self.db.reading() as session:
            shop = workshop(session)
        self.said_address = None if shop is None else shop.address
        self.shows = read_shows(None if shop is None else shop.shows)
        self.dates.look_again()

    def open(self, behind_the_scenes: bool = True) -> None:
        """Begin to keep the dates made: behind the scenes, or as part of each entry."""
        self.begin_anew()
        self.dates.begin(self, behind_the_scenes)

    def close(self) -> None:
        """Shut the workshop: nobody follows any more, no date is made any more, the file is given back."""
        if self.copies is not None:
            self.copies.end()
        self.followers.close()
        self.dates.stop()
        self.db.close()

    @property
    def zone(self) -> ZoneInfo:
        """The workshop's time zone."""
        with self.db.reading() as session:
            shop = workshop(session)
        return ZoneInfo(shop.time_zone if shop else "UTC")
