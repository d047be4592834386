"""The room that the record takes on the disk, and the log of the air thinned on somebody's wish."""

import logging
import shutil
import threading
import time
from datetime import datetime
from pathlib import Path

from pydantic import BaseModel
from sqlalchemy import text

from zymon.core.errors import OutOfRangeError
from zymon.core.house.thinning import WORTH_READINGS, full_since
from zymon.core.say import said
from zymon.store import thinning as store
from zymon.store.copies import companions, nightly_copies
from zymon.store.database import Session, StoreError
from zymon.store.thinned_models import Thinning
from zymon.work.premises import Premises, moment
from zymon.work.schemas import RecordIn

log = logging.getLogger("zymon")

BYTES_A_READING = 33  # in the file, as measured with ten years of minutes
BYTES_A_MEAN = 57  # what it stands for besides
READINGS_A_MEAN = 5  # of a logger that tells every minute
BREATH_S = 0.02  # between two stretches, for whoever waits to enter something


class ThinningOut(BaseModel):
    """A thinning of readings older than `before`: how many became how many means; `ended`: None part way."""

    before: datetime
    by: str
    at: datetime
    readings_before: int
    readings_after: int
    ended: datetime | None


class DiskOut(BaseModel):
    """The room on the disk [bytes]; `unused_bytes` lie in the record's file and are filled first.

    Readings older than `full_since` may be thinned: about so many `would_go`. `share_done`: of a thinning under way.
    """

    record_bytes: int
    unused_bytes: int
    copies: int
    copies_bytes: int
    free_bytes: int
    readings: int
    full_since: datetime
    would_go: int
    would_free_bytes: int
    share_done: float | None
    failed: str | None
    thinnings: list[ThinningOut]


class Thinner:
    """Thins the log of one workshop, stretch by stretch, while entries go on."""

    def __init__(self, shop: Premises) -> None:
        self.shop = shop
        self.share_done: float | None = None
        self.failed: str | None = None
        self._thread: threading.Thread | None = None
        self._begins = threading.Lock()
        self._stop = threading.Event()

    def begin(self, act_id: int) -> None:
        """Carry a thinning out behind the scenes, one at a time."""
        with self._begins:
            if self._thread is not None and self._thread.is_alive():
                return
            self.share_done, self.failed = 0.0, None
            self._thread = threading.Thread(target=self._thin, args=(act_id,), name="thinning", daemon=True)
            self._thread.start()

    def end(self) -> None:
        """Stop after the stretch that is under way; what is left can be gone on with."""
        self._stop.set()
        if self._thread is not None:
            self._thread.join(timeout=10)

    def _thin(self, act_id: int) -> None:
        try:
            self._thin_all(act_id)
        except StoreError as error:
            self.failed = str(error.orig)
            log.exception("the log of the air could not be thinned")
        finally:
            self.share_done = None

    def _thin_all(self, act_id: int) -> None:
        shop = self.shop
        with shop.db.reading() as session:
            act = session.get_one(Thinning, act_id)
            parts = store.stretches(session, act.before_s)
        for done, part in enumerate(parts):
            if self._stop.is_set():
                return
            self.share_done = done / len(parts)
            with shop.db.writing(act.by, shop.now_s) as session:
                store.thin(session, session.get_one(Thinning, act_id), part)
            time.sleep(BREATH_S)
        with shop.db.writing(act.by, shop.now_s) as session:
            session.get_one(Thinning, act_id).ended_s = shop.now_s


def disk(shop: Premises, copies: Path, thinner: Thinner) -> DiskOut:
    """The room that the record and its copies take, and what thinning would bring."""
    file = shop.db.file
    since = full_since(moment(shop.now_s).astimezone(shop.zone))
    share_done, failed = thinner.share_done, thinner.failed  # before the record is read: an end is not told too early
    kept = list(nightly_copies(copies, file).values())
    with shop.db.reading() as session:
        go = store.would_go(session, int(since.timestamp()))
        go = go if go >= WORTH_READINGS else 0
        return DiskOut(
            record_bytes=sum(one.stat().st_size for one in (file, *companions(file)) if one.exists()),
            unused_bytes=_pragma(session, "freelist_count") * _pragma(session, "page_size"),
            copies=len(kept),
            copies_bytes=sum(one.stat().st_size for one in kept),
            free_bytes=shutil.disk_usage(file.parent).free,
            readings=store.readings_kept(session),
            full_since=since,
            would_go=go,
            would_free_bytes=max(round(go * (BYTES_A_READING - BYTES_A_MEAN / (READINGS_A_MEAN - 1))), 0),
            share_done=share_done,
            failed=failed,
            thinnings=[_out(one) for one in store.thinnings(session)],
        )


def _pragma(session: Session, name: str) -> int:
    return int(session.execute(text(f"PRAGMA {name}")).scalar_one())


def _out(act: Thinning) -> ThinningOut:
    return ThinningOut(
        before=moment(act.before_s),
        by=act.by,
        at=moment(act.entered_s),
        readings_before=act.readings_before,
        readings_after=act.readings_after,
        ended=None if act.ended_s is None else moment(act.ended_s),
    )


def thin(shop: Premises, body: RecordIn, thinner: Thinner) -> None:
    """Begin to thin what is old, or go on with it. Raises DoubtfulError until it is wished in full knowledge."""
    since = full_since(moment(shop.now_s).astimezone(shop.zone))
    before_s = int(since.timestamp())
    with shop.recording(body, "thinning") as entry:
        begun = store.unfinished(entry.session)
        if entry.new and begun is None:
            go = store.would_go(entry.session, before_s)
            if go < WORTH_READINGS:
                raise OutOfRangeError("refused.nothing_to_thin", since_s=before_s)
            entry.ask(said("doubt.thinning", since_s=before_s, readings=f"{go:,}"))
            begun = Thinning(before_s=before_s, by=entry.by, entered_s=entry.now_s, readings_before=0, readings_after=0)
            entry.session.add(begun)
            entry.session.flush()
        act_id = None if begun is None else begun.id
    if act_id is not None:
        thinner.begin(act_id)
