"""Nightly copies of the record: taken by itself, looked through, thinned out; what the page says of them."""

import logging
import threading
import time
from datetime import datetime
from pathlib import Path

from pydantic import BaseModel

from zymon.core.house.copies import KEPT_DAYS, KEPT_WEEKS, due, kept, old
from zymon.store.copies import CopyError, nightly_copies, nightly_name, take_copy
from zymon.store.places import workshop
from zymon.words import told
from zymon.work.premises import Premises, moment

log = logging.getLogger("zymon")
LOOK_EVERY_S = 300.0


class CopyOut(BaseModel):
    """A nightly copy that is whole."""

    name: str
    at: datetime
    bytes: int


class CopiesOut(BaseModel):
    """The copies of the record, the latest first.

    `failed`: why the latest try came to nothing; `took_s`: how long the latest took, where this server took it.
    """

    nightly: bool  # whether this server takes them
    folder: str
    file: str
    kept_days: int
    kept_weeks: int
    old: bool
    failed: str | None
    took_s: float | None
    copies: list[CopyOut]


class Nightly:
    """Takes the copies of one workshop."""

    def __init__(self, shop: Premises, folder: Path) -> None:
        self.shop, self.folder = shop, folder
        self.failed: str | None = None
        self.took_s: float | None = None
        self._stop = threading.Event()
        self._one_at_a_time = threading.Lock()

    def begin(self) -> None:
        """Look every few minutes whether one is due, for as long as the workshop is open."""
        threading.Thread(target=self._watch, name="copies", daemon=True).start()

    def end(self) -> None:
        """Take no more."""
        self._stop.set()

    def _watch(self) -> None:
        while not self._stop.is_set():
            self.look()
            self._stop.wait(LOOK_EVERY_S)

    def look(self) -> None:
        """Take a copy if one is due."""
        zone = self.shop.zone
        last_s = max(self.taken(), default=None)
        if due(None if last_s is None else moment(last_s).astimezone(zone), moment(self.shop.now_s).astimezone(zone)):
            self.take()

    def taken(self) -> dict[int, Path]:
        """The copies that are whole, by when they were taken [s]."""
        return nightly_copies(self.folder, self.shop.db.file)

    def take(self) -> bool:
        """Take a copy and let go of those no longer kept; whether it came to be. Why not is kept for the page."""
        db, now_s = self.shop.db.file, self.shop.now_s
        with self._one_at_a_time:
            began = time.monotonic()
            try:
                take_copy(db, self.folder / nightly_name(db, now_s))
                taken = self.taken()
                for at_s in taken.keys() - kept(taken):
                    taken[at_s].unlink(missing_ok=True)
            except (CopyError, OSError) as error:
                self.failed = told(error) if isinstance(error, CopyError) else str(error)
                log.error("no copy of the record: %s", self.failed.replace("\n", " "))
                return False
            self.failed, self.took_s = None, time.monotonic() - began
        return True

    def is_old(self) -> bool:
        """Whether the last good copy is so old that it has to be said."""
        with self.shop.db.reading() as session:
            begun = workshop(session)
        if begun is None:
            return False
        return old(max(self.taken(), default=None), begun.created_s, self.shop.now_s)


def copies(shop: Premises, folder: Path) -> CopiesOut:
    """What copies there are."""
    taken = nightly_copies(folder, shop.db.file)
    return CopiesOut(
        nightly=shop.copies is not None,
        folder=str(folder.resolve()),
        file=str(shop.db.file.resolve()),
        kept_days=KEPT_DAYS,
        kept_weeks=KEPT_WEEKS,
        old=shop.copies is not None and shop.copies.is_old(),
        failed=None if shop.copies is None else shop.copies.failed,
        took_s=None if shop.copies is None else shop.copies.took_s,
        copies=[
            CopyOut(name=file.name, at=moment(at_s), bytes=file.stat().st_size)
            for at_s, file in sorted(taken.items(), reverse=True)
        ],
    )
