"""Finding what is there: where a tag leads, and every batch in whatever state, by words that stand on it."""

from collections.abc import Sequence
from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from zymon.core.drying.geometry import Kind, Shape
from zymon.store import bench, salt, warm
from zymon.store import hang as store
from zymon.store.finding import batches_by_words
from zymon.store.models import Batch
from zymon.store.places import NotFoundError

from .bench.making_schemas import PieceOfBatch, TagFound
from .bench.pieces import OfBatch, known_of_all, pieces_told
from .premises import Premises, moment

Filter = Literal["all", "going", "after", "finished", "discarded"]
GOING = ("in_salt", "out", "waiting", "warm", "hanging")
AFTER = ("down", "resting", "cut", "kept")


def tag(shop: Premises, wanted: str) -> TagFound:
    """Where a tag leads, whatever became of its piece. Raises NotFoundError."""
    with shop.db.reading() as session:
        piece_id, batch_id = bench.find_tag(session, wanted)
        salted = salt.piece_of_tag(session, wanted)
        if piece_id is not None:
            of = store.piece(session, piece_id)
            return TagFound(
                tag=wanted, piece_id=piece_id, place_id=store.last_hanging(of).place_id, batch_id=of.batch_id,
                salt_id=None,
            )  # fmt: skip
    if batch_id is None and salted is None:
        raise NotFoundError("refused.no_such_tag", tag=wanted)
    if batch_id is None and salted is not None:
        batch_id = salted.batch_id
    in_salt = None if salted is None or salted.made_piece_id is not None else salted.id
    return TagFound(tag=wanted, piece_id=None, place_id=None, batch_id=batch_id, salt_id=in_salt)


class BatchFound(BaseModel):
    """A batch in the list: what it is, since when, and its pieces in whatever state."""

    id: int
    code: str
    product: str
    kind: Kind
    shape: Shape
    made_at: datetime
    last_at: datetime  # when one of its pieces became what it is
    discarded: bool
    pieces: list[PieceOfBatch]
    states: dict[str, int]  # how many pieces are what


class BatchesFound(BaseModel):
    """Batches that fit, the latest first, and how many there are in each drawer."""

    batches: list[BatchFound]
    counts: dict[Filter, int]


def find(shop: Premises, words: str, drawer: Filter) -> BatchesFound:
    """Batches whose code, product, tags, lots, people or notes hold the words; of one drawer, or of all."""
    with shop.db.reading() as session:
        gone = warm.discarded_batches(session)
        known = known_of_all(session)
        found = [_found(b, known(b.id), b.id in gone, shop.now_s) for b in batches_by_words(session, words)]
    drawers: dict[Filter, list[BatchFound]] = {"all": found, "going": [], "after": [], "finished": [], "discarded": []}
    for batch in found:
        drawers[drawer_of(batch)].append(batch)
    chosen = sorted(drawers[drawer], key=lambda b: b.last_at, reverse=True)
    return BatchesFound(batches=chosen, counts={name: len(some) for name, some in drawers.items()})


def drawer_of(of: BatchFound) -> Filter:
    """In which drawer a batch lies: as far as the piece that is furthest behind."""
    kinds = {p.life.kind for p in of.pieces}
    if of.discarded or (kinds == {"gone"} and all(p.life.how == "discarded" for p in of.pieces)):
        return "discarded"
    if not kinds or kinds & set(GOING):
        return "going"
    return "after" if kinds & set(AFTER) else "finished"


def _found(batch: Batch, known: OfBatch, discarded: bool, now_s: int) -> BatchFound:
    pieces = pieces_told(batch, known, now_s)
    made_s = batch.created_s if known.making is None else known.making.made_s
    return BatchFound(
        id=batch.id,
        code=batch.code,
        product=batch.product,
        kind=batch.kind,  # type: ignore[arg-type] # checked on entry
        shape=batch.shape,  # type: ignore[arg-type]
        made_at=moment(made_s),
        last_at=max((p.life.since for p in pieces), default=moment(made_s)),
        discarded=discarded,
        pieces=pieces,
        states=_counts(pieces),
    )


def _counts(pieces: Sequence[PieceOfBatch]) -> dict[str, int]:
    counts: dict[str, int] = {}
    for piece in pieces:
        counts[piece.life.kind] = counts.get(piece.life.kind, 0) + 1
    return counts
