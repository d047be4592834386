"""Sinks to try alarms with: a mail server and an address that is called, each of which keeps what it was given."""

import json
import socketserver
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from email import message_from_bytes, policy
from email.message import EmailMessage
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any


@dataclass
class MailSink:
    """A mail server. `refuses`: how many mails it turns away first; `cuts`: it hangs up once it has the
    text; `leaves`: it hangs up once it has said that the mail is taken.
    """

    port: int = 0
    mails: list[EmailMessage] = field(default_factory=list)
    refuses: int = 0
    cuts: bool = False
    leaves: bool = False


@contextmanager
def mail_sink() -> Iterator[MailSink]:
    """A mail server on loopback."""
    sink = MailSink()

    class Session(socketserver.StreamRequestHandler):
        def handle(self) -> None:
            """One mail after the other, until it is said good-bye."""

            def say(text: str) -> None:
                self.wfile.write(f"{text}\r\n".encode())

            say("220 sink")
            while line := self.rfile.readline():
                word = line.split()[0].upper() if line.split() else b""
                if word == b"EHLO":
                    say("250 sink")
                elif word == b"RCPT" and sink.refuses:
                    sink.refuses -= 1
                    say("450 later")
                elif word == b"DATA":
                    say("354 go on")
                    text = b""
                    while not text.endswith(b"\r\n.\r\n"):
                        text += self.rfile.readline()
                    mail = message_from_bytes(text[:-5], policy=policy.default)
                    assert isinstance(mail, EmailMessage)
                    sink.mails.append(mail)
                    if sink.cuts:
                        return
                    say("250 taken")
                    if sink.leaves:
                        return
                elif word == b"QUIT":
                    say("221 bye")
                    return
                else:
                    say("250 fine")

    with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Session) as server:
        server.daemon_threads = True
        sink.port = server.server_address[1]
        threading.Thread(target=server.serve_forever, args=(0.05,), daemon=True).start()
        yield sink
        server.shutdown()


@dataclass
class CallSink:
    """An address that is called. `answers`: with which status."""

    url: str = ""
    calls: list[tuple[dict[str, str], bytes]] = field(default_factory=list)
    answers: int = 204

    def bodies(self) -> list[dict[str, Any]]:
        """What it was told."""
        return [json.loads(body) for _, body in self.calls]


@contextmanager
def call_sink() -> Iterator[CallSink]:
    """An address on loopback."""
    sink = CallSink()

    class Handler(BaseHTTPRequestHandler):
        def do_POST(self) -> None:
            """Keep what it was called with."""
            body = self.rfile.read(int(self.headers["Content-Length"]))
            sink.calls.append(({name.lower(): value for name, value in self.headers.items()}, body))
            self.send_response(sink.answers)
            self.end_headers()

        def log_message(self, format: str, *args: object) -> None:
            """Nothing on standard error."""

    with ThreadingHTTPServer(("127.0.0.1", 0), Handler) as server:
        server.daemon_threads = True
        sink.url = f"http://127.0.0.1:{server.server_address[1]}/alarm"
        threading.Thread(target=server.serve_forever, args=(0.05,), daemon=True).start()
        yield sink
        server.shutdown()
