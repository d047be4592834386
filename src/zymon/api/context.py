"""What every route needs: the workshop with its records, dates and clock, and what this server keeps besides."""

from collections import deque
from dataclasses import dataclass, field
from functools import cached_property
from typing import Annotated, Protocol
from urllib.parse import urlsplit

from fastapi import Depends, Path, Request

from zymon.links.call import by_call
from zymon.links.mail import MailServer, by_mail
from zymon.links.mqtt import Broker, Link
from zymon.links.push import PushKey, by_push
from zymon.settings import Settings, host_and_port, in_clear
from zymon.store.places import workshop
from zymon.work.alarms.telling import Sender, Way
from zymon.work.alarms.watch import Watch
from zymon.work.devices import ReadingsIn, ReceiptOut, receive
from zymon.work.house.copies import Nightly
from zymon.work.house.disk import Thinner
from zymon.work.house.door import Door
from zymon.work.premises import Premises
from zymon.work.showing import Showing


class Standins(Protocol):
    """A simulated workshop's chambers and instruments; all of them send by the open interface."""

    def forward(self, hours: float) -> int:
        """Run the workshop ahead; how many readings came in."""

    def weigh(self, piece_id: int) -> None:
        """Put a piece on the simulated scale, which sends its weight."""

    def dip(self, batch_id: int) -> None:
        """Dip the simulated meter into a batch's pinch; it sends the pH."""


@dataclass(kw_only=True)
class Context(Premises):
    """One running server."""

    settings: Settings
    # the last previewed file as it was read, by its token: confirmed at once, a million rows need not be read again;
    # after a restart or another preview the staged file is read anew
    latest_preview: tuple[str, object] | None = None
    device_calls: dict[int, deque[float]] = field(default_factory=dict)  # when each device called lately
    shown: Showing = field(default_factory=Showing)  # what carried devices showed lately
    watch: Watch | None = None  # whoever looks for what is wrong
    link: Link | None = None  # to the broker at which devices leave their readings
    standins: Standins | None = None  # where the workshop is simulated
    own_address: str = "http://127.0.0.1"  # by which this machine itself reaches the workshop
    door: Door = field(init=False)
    thinner: Thinner = field(init=False)

    def __post_init__(self) -> None:
        super().__post_init__()
        self.door = Door(self.db)
        self.thinner = Thinner(self)

    def begin_links(self) -> None:
        """Listen from now on where devices leave their readings."""
        if self.settings.mqtt is None:
            return
        at = self.settings
        broker = Broker(*host_and_port(self.settings.mqtt), at.mqtt_user, in_clear(at.mqtt_password), at.mqtt_tls)
        self.link = Link(broker, self._take)
        self.link.begin()

    def begin_alarms(self) -> None:
        """Watch from now on, and tell people."""
        self.watch = Watch(self, self.senders, lambda: self.address)
        self.watch.begin()

    @cached_property
    def senders(self) -> dict[Way, Sender]:
        """The ways in which this server can tell people."""
        ways: dict[Way, Sender] = {"call": by_call(self._workshop_name)}
        at = self.settings
        if at.smtp is not None and at.smtp_from is not None:
            where, password = host_and_port(at.smtp), in_clear(at.smtp_password)
            server = MailServer(*where, at.smtp_from, at.smtp_security, at.smtp_user, password)
            ways["mail"] = by_mail(server, self._workshop_name)
        if self.address.startswith("https://"):
            ways["push"] = by_push(self.push_key, lambda: self.address)
        return ways

    @cached_property
    def push_key(self) -> PushKey:
        """The key with which browsers know this workshop."""
        return PushKey(self.settings.push_key)

    def _workshop_name(self) -> str:
        with self.db.reading() as session:
            known = workshop(session)
        return known.name if known else "Zymon"

    def _take(self, device_id: int, secret: str, readings: ReadingsIn) -> ReceiptOut:
        return receive(self, self.device_calls, self.shown, secret, readings, device_id)

    def close(self) -> None:
        """Shut the workshop, and let go of what it is linked to."""
        if self.link is not None:
            self.link.end()
        if self.watch is not None:
            self.watch.end()
        self.thinner.end()
        super().close()

    def keep_copies(self) -> None:
        """Take a copy every night from now on."""
        nightly = Nightly(self, self.settings.backup_folder)
        nightly.begin()
        self.copies = nightly

    @property
    def address(self) -> str:
        """The address that tags, calendar and links carry: never one that a caller chose."""
        return (self.settings.address or self.said_address or self.own_address).rstrip("/")

    @property
    def hosts(self) -> frozenset[str]:
        """The names, besides those of this machine itself, by which the workshop may be asked for."""
        named = (self.settings.address, self.said_address)
        return frozenset(name for one in named if one and (name := urlsplit(one).hostname))


def _context(request: Request) -> Context:
    found = request.app.state.context
    assert isinstance(found, Context)
    return found


Ctx = Annotated[Context, Depends(_context)]
Id = Annotated[int, Path(ge=1, le=2**31 - 1)]  # larger ones overflow SQLite's integers
