"""Mail by the workshop's own server."""

import smtplib
import ssl
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from email.message import EmailMessage
from email.policy import SMTP
from email.utils import make_msgid
from typing import Literal

from zymon.store.alarm_models import AlarmPerson
from zymon.work.alarms.telling import NotSentError, Told, UnsureError

WAITS_S = 20.0


@dataclass(frozen=True)
class MailServer:
    """Where mail is handed in, and as whom."""

    host: str
    port: int
    sender: str
    security: Literal["starttls", "tls", "none"] = "starttls"
    user: str | None = None
    password: str | None = None


def by_mail(server: MailServer, workshop: Callable[[], str]) -> Callable[[AlarmPerson, Told], None]:
    """A way of telling by mail. Parameters: server; workshop, its name."""

    def send(to: AlarmPerson, told: Told) -> None:
        mail = EmailMessage(policy=SMTP)
        mail["Subject"] = " ".join(f"{workshop()}: {told.title}".split())
        mail["From"], mail["To"] = server.sender, to.address
        mail["Message-ID"] = make_msgid(domain=server.sender.rpartition("@")[2] or "zymon")
        mail.set_content(f"{told.text}\n\n{told.link}\n")
        with _session(server) as session:
            _hand_in(session, server.sender, to.address, mail.as_bytes())

    return send


def _hand_in(session: smtplib.SMTP, sender: str, to: str, mail: bytes) -> None:
    """Until the text is handed over it certainly did not go; cut off after that, nobody knows."""
    for code, said in (session.mail(sender), session.rcpt(to)):
        if code not in (250, 251):
            raise NotSentError(f"the mail server: {code} {said.decode(errors='replace')}"[:300])
    try:
        code, said = session.data(mail)
    except smtplib.SMTPDataError as error:
        raise NotSentError(f"the mail server: {error}"[:300]) from error
    except (smtplib.SMTPServerDisconnected, OSError) as error:
        raise UnsureError(str(error)) from error
    if code != 250:
        raise NotSentError(f"the mail server: {code} {said.decode(errors='replace')}"[:300])


@contextmanager
def _session(server: MailServer) -> Iterator[smtplib.SMTP]:
    try:
        context = ssl.create_default_context()
        if server.security == "tls":
            session: smtplib.SMTP = smtplib.SMTP_SSL(server.host, server.port, timeout=WAITS_S, context=context)
        else:
            session = smtplib.SMTP(server.host, server.port, timeout=WAITS_S)
    except (smtplib.SMTPException, OSError) as error:
        raise NotSentError(f"the mail server: {error}"[:300]) from error
    try:
        if server.security == "starttls":
            session.starttls(context=context)
        session.ehlo_or_helo_if_needed()
        if server.user:
            session.login(server.user, server.password or "")
        yield session
    except (smtplib.SMTPException, OSError) as error:
        raise NotSentError(f"the mail server: {error}"[:300]) from error
    else:
        with suppress(smtplib.SMTPException, OSError):  # the mail is taken: how they part does not matter
            session.quit()
    finally:
        session.close()
