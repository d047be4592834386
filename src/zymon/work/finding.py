"""Finding what is there: where a tag leads, and every batch in whatever state, by words that stand on it."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from zymon.core.drying.geometry import Kind, Shape
from zymon.core.life import State
from zymon.store import bench, salt, warm
from zymon.store import hang as store
from zymon.store.finding import batches_by_words, load_weights
from zymon.store.models import Batch
from zymon.store.places import NotFoundError

from .bench.making_schemas import PieceOfBatch, TagFound
from .bench.pieces import OfBatch, known_of_all, pieces_told, states_now
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
    """The latest batches that fit, no more than were asked for, and how many there are in each drawer."""

    batches: list[BatchFound]
    counts: dict[Filter, int]


@dataclass(frozen=True)
class _Lying:
    """A batch that fits, with what its pieces are now: enough to know its drawer and how late it is."""

    batch: Batch
    known: OfBatch
    states: Sequence[State]
    discarded: bool

    @property
    def made_s(self) -> int:
        making = self.known.making
        return self.batch.created_s if making is None else making.made_s

    @property
    def last_s(self) -> int:
        return max((int(one.from_s) for one in self.states), default=self.made_s)


def find(shop: Premises, words: str, drawer: Filter, most: int) -> BatchesFound:
    """Batches whose code, product, tags, lots, people or notes hold the words; of one drawer, or of all.

    Parameters: most, how many are told: the latest; what lies in the drawers is counted in full.
    """
    with shop.db.reading() as session:
        gone, known = warm.discarded_batches(session), known_of_all(session)
        drawers: dict[Filter, list[_Lying]] = {"all": [], "going": [], "after": [], "finished": [], "discarded": []}
        for batch in batches_by_words(session, words):
            before = known(batch.id)
            lying = _Lying(batch, before, states_now(batch, before, shop.now_s), batch.id in gone)
            drawers["all"].append(lying)
            drawers[drawer_of(lying.states, lying.discarded)].append(lying)
        latest = sorted(drawers[drawer], key=lambda one: one.last_s, reverse=True)[:most]
        load_weights(session, [one.batch for one in latest])
        counts = {name: len(some) for name, some in drawers.items()}
        return BatchesFound(batches=[_found(one, shop.now_s) for one in latest], counts=counts)


def drawer_of(states: Sequence[State], discarded: bool) -> Filter:
    """In which drawer a batch lies: as far as the piece that is furthest behind. Parameters: states; discarded."""
    kinds = {one.kind for one in states}
    if discarded or (kinds == {"gone"} and all(one.how == "discarded" for one in states)):
        return "discarded"
    if not kinds or kinds & set(GOING):
        return "going"
    return "after" if kinds & set(AFTER) else "finished"


def _found(lying: _Lying, now_s: int) -> BatchFound:
    batch, pieces = lying.batch, pieces_told(lying.batch, lying.known, now_s)
    return BatchFound(
        id=batch.id,
        code=batch.code,
        product=batch.product,
        kind=batch.kind,
        shape=batch.shape,
        made_at=moment(lying.made_s),
        last_at=moment(lying.last_s),
        discarded=lying.discarded,
        pieces=pieces,
        states=Counter(state.kind for state in lying.states),
    )
