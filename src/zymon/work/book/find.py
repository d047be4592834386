"""The one box: batches, pieces, lots, recipes, places, people, notes and days, by the first letters of words."""

import re
from collections.abc import Iterable
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from dateutil import parser
from pydantic import BaseModel

from zymon.store import words as store
from zymon.store.database import Session

from ..premises import Premises, moment

LEAST_LETTERS = 2
SHOWN = 24
FIRST: dict[store.Kind, int] = {
    "batch": 0, "piece": 1, "lot": 2, "recipe": 3, "place": 4, "person": 5, "note": 6,
}  # fmt: skip
_DAY = re.compile(r"(\d{1,2}\.?\s+)?[^\W\d]{3,9}\.?(\s+\d{4})?|\d{1,4}[./-]\d{1,2}([./-]\d{1,4})?\.?")


class FoundOut(BaseModel):
    """Something that fits; `batch_id` and `piece_id` say whose it is, `id` is its own."""

    kind: store.Kind
    id: int | None
    title: str
    detail: str
    batch_id: int | None
    piece_id: int | None
    at: datetime | None
    by: str | None
    struck: bool


class FindOut(BaseModel):
    """What fits, the likeliest first; `day` the day or month that was understood, if one was."""

    found: list[FoundOut]
    day: datetime | None


def find(shop: Premises, words: str) -> FindOut:
    """Everything that holds words beginning so, or that happened on the day they name."""
    wanted = words.strip()
    span = span_named(wanted, shop.now_s, shop.zone)
    with shop.db.reading() as session:
        found = list(_found(session, wanted, span))
    return FindOut(found=found[:SHOWN], day=None if span is None else moment(span[0]))


def _found(session: Session, wanted: str, span: tuple[int, int] | None) -> Iterable[FoundOut]:
    known: set[int] = set()
    if len(wanted) >= LEAST_LETTERS:
        hits = _once(store.by_words(session, wanted))
        exact = wanted.casefold()
        for hit in sorted(hits, key=lambda h: (h.title.casefold() != exact, h.struck, FIRST[h.kind])):
            known |= {hit.row_id} if hit.kind == "batch" else set()
            yield _out(hit)
        for name in store.people(session, wanted):
            yield FoundOut(
                kind="person", id=None, title=name, detail="", batch_id=None, piece_id=None, at=None, by=None,
                struck=False,
            )  # fmt: skip
    for batch in [] if span is None else store.batches_between(session, *span):
        if batch.id not in known:
            yield FoundOut(
                kind="batch", id=batch.id, title=batch.code, detail=batch.product, batch_id=batch.id, piece_id=None,
                at=moment(batch.created_s), by=None, struck=False,
            )  # fmt: skip


def _once(hits: Iterable[store.Hit]) -> list[store.Hit]:
    """A tag once, however often it is written: as it hangs, else as it was tagged or salted."""
    best: dict[tuple[str, str, int | None], store.Hit] = {}
    for hit in hits:
        key = (hit.kind, hit.title, hit.batch_id if hit.kind in ("piece", "note") else hit.row_id)
        if key not in best or (best[key].piece_id is None and hit.piece_id is not None):
            best[key] = hit
    return list(best.values())


def _out(hit: store.Hit) -> FoundOut:
    return FoundOut(
        kind=hit.kind, id=hit.row_id, title=hit.title, detail=hit.detail, batch_id=hit.batch_id, piece_id=hit.piece_id,
        at=None if hit.at_s is None else moment(hit.at_s), by=hit.by, struck=hit.struck,
    )  # fmt: skip


def span_named(words: str, now_s: int, zone: ZoneInfo) -> tuple[int, int] | None:
    """The day or the month that words name, as seconds from its first to its last; None where they name none.

    A day without a year is the last such day; days come before months, as in 12.10.
    """
    if not _DAY.fullmatch(words):
        return None
    now = datetime.fromtimestamp(now_s, zone)
    with_first, with_last = (
        now.replace(month=1, day=1, hour=0, minute=0),
        now.replace(month=1, day=28, hour=0, minute=0),
    )
    year_first = not re.match(r"\d{4}", words)
    try:
        first = parser.parse(words, dayfirst=year_first, default=with_first.replace(tzinfo=None))
        last = parser.parse(words, dayfirst=year_first, default=with_last.replace(tzinfo=None))
    except (parser.ParserError, OverflowError):
        return None
    begins = first.replace(hour=0, minute=0, second=0, microsecond=0, tzinfo=zone)
    if not re.search(r"\d{4}", words) and begins > now:
        begins = begins.replace(year=begins.year - 1)
    month_only = first.day != last.day
    ends = (begins + timedelta(days=32)).replace(day=1) if month_only else begins + timedelta(days=1)
    return int(begins.astimezone(UTC).timestamp()), int(ends.astimezone(UTC).timestamp()) - 1
