"""A lot's recall on one sheet: every batch, piece and pack that holds something of it, and where each is or went."""

from collections.abc import Iterable
from zoneinfo import ZoneInfo

from zymon.formats.record.sheet import Record, Table, record_pdf
from zymon.store.places import workshop
from zymon.words import NAMES

from ..keep.schemas import HeldPiece, RecallOut
from ..keep.tracing import recall
from ..premises import Premises, moment

CAUTION = "A recall is decided with your authority; this sheet says what is on record here."


def recall_pdf(shop: Premises, lot_id: int) -> tuple[bytes, str]:
    """The recall of a lot as PDF, and its name. Raises NotFoundError."""
    found = recall(shop, lot_id)
    with shop.db.reading() as session:
        house = workshop(session)
    zone = shop.zone
    pieces = [piece for batch in found.batches for piece in batch.pieces]
    here = sum(pack.left for piece in pieces for pack in piece.packs)
    record = Record(
        workshop="" if house is None else house.name,
        title=f"Recall of lot {found.code}",
        lines=(
            f"{found.what}. In {len(found.batches)} batches, {len(pieces)} pieces; {here} packs of them are here.",
        ),
        printed=moment(shop.now_s).astimezone(zone),
        time_line=None,
        tables=(
            Table(
                "Where it is, or went", ("batch", "made", "piece", "is now", "packs here", "packs that went"),
                (24, 26, 30, 34, 26, 38),
                tuple(_rows(found, zone)),
            ),
        ),
        caution=CAUTION,
    )  # fmt: skip
    return record_pdf(record), f"recall-{found.code}.pdf"


def _rows(found: RecallOut, zone: ZoneInfo) -> Iterable[tuple[str, ...]]:
    for batch in found.batches:
        for piece in batch.pieces:
            made = f"{batch.made_at.astimezone(zone):%-d %b %Y}"
            yield batch.batch, made, piece.tag, _now(piece), _here(piece), _went(piece)


def _now(piece: HeldPiece) -> str:
    kind, _, how = piece.state.partition(", ")
    words = NAMES["became"].get(kind, kind) + (f", {NAMES['how'].get(how, how)}" if how else "")
    return f"{words}, {piece.place}" if piece.place else words


def _here(piece: HeldPiece) -> str:
    return "; ".join(f"{p.left} × {p.net_g or 0:.0f} g, {p.place or p.keep_at}" for p in piece.packs if p.left)


def _went(piece: HeldPiece) -> str:
    events = [e for p in piece.packs for e in p.events if e.kind == "out" and e.how != "moved" and not e.struck_reason]
    return "; ".join(
        f"{e.number} {NAMES['how'].get(e.how, e.how)}{f' to {e.to_whom}' if e.to_whom else ''} {e.at:%-d %b %Y}"
        for e in events
    )
