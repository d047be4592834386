"""A lot's recall on one sheet: every batch, piece and pack that holds something of it, and where each is or went."""

from collections.abc import Iterable
from zoneinfo import ZoneInfo

from zymon.formats.record.contents import Record
from zymon.store.places import workshop
from zymon.words import name_of, on_paper, showing
from zymon.words.written import day, net_weight

from ..keep.schemas import HeldPiece, RecallOut
from ..keep.tracing import recall
from ..premises import Premises, moment
from .tables import table


def recall_pdf(shop: Premises, lot_id: int) -> tuple[bytes, str]:
    """The recall of a lot as PDF, and its name. Raises NotFoundError."""
    from zymon.formats.record.sheet import record_pdf  # not at the start of Zymon: it takes half a second to read

    found = recall(shop, lot_id)
    with shop.db.reading() as session:
        house = workshop(session)
    zone = shop.zone
    pieces = [piece for batch in found.batches for piece in batch.pieces]
    here = sum(pack.left for piece in pieces for pack in piece.packs)
    record = Record(
        workshop="" if house is None else house.name,
        title=on_paper("recall", lot=found.code),
        lines=(
            on_paper("recall_line", what=found.what, batches=len(found.batches), pieces=len(pieces), packs=here),
        ),
        printed=moment(shop.now_s).astimezone(zone),
        time_line=None,
        tables=(
            table(
                "where", {"batch": 24, "made": 26, "piece": 30, "is_now": 34, "packs_here": 26, "packs_went": 38},
                tuple(_rows(found, zone)),
            ),
        ),
        caution=on_paper("recall_caution"),
    )  # fmt: skip
    return record_pdf(record), f"recall-{found.code}.pdf"


def _rows(recall_out: RecallOut, zone: ZoneInfo) -> Iterable[tuple[str, ...]]:
    for batch in recall_out.batches:
        for piece in batch.pieces:
            made = day(batch.made_at.astimezone(zone), showing())
            yield batch.batch, made, piece.tag, _now(piece), _here(piece), _went(piece)


def _now(piece: HeldPiece) -> str:
    kind, _, how = piece.state.partition(", ")
    words = name_of("became", kind) + (f", {name_of('how', how)}" if how else "")
    return f"{words}, {piece.place}" if piece.place else words


def _here(piece: HeldPiece) -> str:
    return "; ".join(
        on_paper(
            "packs_of",
            packs=p.left,
            net=net_weight(p.net_g or 0, showing()),
            place=p.place or name_of("keep_at", p.keep_at),
        )
        for p in piece.packs
        if p.left
    )


def _went(piece: HeldPiece) -> str:
    events = [e for p in piece.packs for e in p.events if e.kind == "out" and e.how != "moved" and not e.struck_reason]
    return "; ".join(
        on_paper(
            "went_to" if e.to_whom else "went", packs=e.number, how=e.how, whom=e.to_whom, day=day(e.at, showing())
        )
        for e in events
    )
