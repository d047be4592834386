"""Which right each route asks for. What is not named here and changes anything is part of the work itself: `write`."""

import re
from typing import Annotated

from fastapi import Depends, Request

from zymon.core.house.people import Right
from zymon.work.house.door import NotSignedInError, Visitor

from .context import Ctx

READS = frozenset({"GET", "HEAD", "OPTIONS"})
# they work something out from what is sent, and keep nothing
WORKS_OUT = re.compile(
    r"/api/(bench/(blend|scale|weeks|work)|judge|recipes/read|plans/(\{plan_id\}/)?(look|places)"
    r"|places/\{place_id\}/(tag|what-if)"
    r"|pieces/\{piece_id\}/what-if|warm/\{batch_id\}/what-if)"
)
# what concerns nobody but whoever is signed in
OWN = re.compile(r"/api/(sign-in|sign-out|me/\w+|sign-ins/\{sign_in_id\}/end)")
# weighing, ticking, measuring, looking: what a helper does all day, and taking back what was tapped just now
NOTES = re.compile(
    r"/api/(round|alarms/\{event_id\}/acknowledge|undo|hook-events|salt/events|pieces/\{piece_id\}/(weighings|photos)|places/\{place_id\}/readings"
    r"|warm/\{batch_id\}/readings|weigh-outs/\{weigh_out_id\}/(entries|temperature)|standins/(weigh|dip)/\{\w+\})"
)
# a signature, or a change of what one rests on
SIGNS = re.compile(r"/api/(.*/(strike|restore|correct|take-back|bring-back)|batches/\{batch_id\}/signatures|holds/.*)")
HOUSE = re.compile(
    r"/api/(devices|alarms/people|people|tablets|limits|workshop|copies|disk|archive|standins/forward)(/.*)?"
)
ALL_OF_IT = "/api/archive.zip"
# signed with the passphrase or PIN given again: hurdles, and what their evidence was
CONFIRMED = re.compile(
    r"/api/(batches/\{batch_id\}/signatures|(laboratory|meat|parasites|steps|warm/readings)/\{\w+\}/strike)"
)


def right_for(method: str, path: str) -> Right:
    """The right that a route asks for. Parameters: method; path, with its parts as the route names them."""
    for right, pattern in (("read", OWN), ("read", WORKS_OUT), ("note", NOTES), ("keep_house", HOUSE), ("sign", SIGNS)):
        if method not in READS and pattern.fullmatch(path):
            return right  # type: ignore[return-value] # they are literals of the line above
    if path == ALL_OF_IT:
        return "keep_house"
    return "read" if method in READS else "write"


async def allowed(request: Request, ctx: Ctx) -> None:
    """Refuse what whoever is signed in may not do. Where nobody signs in, everything is theirs."""
    visitor: Visitor | None = request.state.visitor
    if visitor is None:
        return
    method, path = request.method, request.scope["route"].path
    visitor.check(right_for(method, path), method not in READS and bool(CONFIRMED.fullmatch(path)), ctx.now_s)


Allowed = Depends(allowed)


def signed_in_visitor(request: Request) -> Visitor:
    """Whoever is signed in. Raises NotSignedInError."""
    visitor: Visitor | None = request.state.visitor
    if visitor is None:
        raise NotSignedInError("refused.sign_in_first")
    return visitor


def maybe_visitor(request: Request) -> Visitor | None:
    """Whoever is signed in, if anybody is."""
    visitor: Visitor | None = request.state.visitor
    return visitor


SignedIn = Annotated[Visitor, Depends(signed_in_visitor)]
Somebody = Annotated[Visitor | None, Depends(maybe_visitor)]
