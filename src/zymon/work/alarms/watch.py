"""The watch: looks again and again, with no browser open, and has people told."""

import logging
import threading
from collections.abc import Callable

from zymon.store import alarms as store

from ..follow import Happening
from ..premises import Premises
from .telling import Sender, Way, tell
from .watching import of_goods, of_places

log = logging.getLogger("zymon.alarms")

LOOK_EVERY_S = 20.0
GOODS_EVERY_S = 300  # of what changes by the hour


class Watch:
    """Keeps the events of a workshop up to what is wrong, and sends what is due."""

    def __init__(self, shop: Premises, senders: dict[Way, Sender], address: Callable[[], str]) -> None:
        self.shop, self.senders, self.address = shop, senders, address
        self._goods: list[store.Now] = []
        self._goods_s = 0
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._run, name="alarms", daemon=True)
        self._one_at_a_time = threading.Lock()

    def begin(self) -> None:
        """Begin to watch."""
        self._thread.start()

    def end(self) -> None:
        """Watch no more."""
        self._stop.set()
        if self._thread.is_alive():
            self._thread.join(timeout=10)

    def _run(self) -> None:
        while not self._stop.wait(LOOK_EVERY_S):
            try:
                self.look()
            except Exception:
                log.exception("the watch could not look")

    def look(self) -> int:
        """Look once; how many messages went."""
        with self._one_at_a_time:
            now_s = self.shop.now_s
            with self.shop.db.reading() as session:
                wrong = list(of_places(session, now_s))
                if not 0 <= now_s - self._goods_s < GOODS_EVERY_S:
                    self._goods, self._goods_s = list(of_goods(self.shop, session)), now_s
                before = {event.id for event in store.open_events(session)}
            with self.shop.db.writing("Zymon", now_s) as session:
                store.note(session, [*wrong, *self._goods], now_s)
            with self.shop.db.reading() as session:
                after = {event.id for event in store.open_events(session)}
            if before != after:  # before anybody is sent anything, which may take its time
                self.shop.followers.tell(Happening("alarm", max(after ^ before)))
            went = tell(self.shop.db, self.senders, self.shop.zone, self.address(), lambda: self.shop.now_s)
            if went:
                self.shop.followers.tell(Happening("alarm", max(after, default=0)))
            return went
