"""How the batch of a plan stands: what was begun, what hangs, what is down, when each piece is at the table."""

from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from zymon.core.planning.before import Part, hook_after, stretches
from zymon.core.planning.drying import still_to_hang
from zymon.core.schedule import Elasticity
from zymon.store import salt
from zymon.store.bench import making_of
from zymon.store.database import Session
from zymon.store.models import Batch

from ..bench.making_schemas import PieceOfBatch
from ..bench.pieces import pieces_of
from ..premises import Premises
from .goods import Goods
from .ways import Ways

Array = npt.NDArray[np.float64]
ON_THE_WAY = ("in_salt", "out", "waiting", "warm")
AT_THE_TABLE = ("cut", "kept", "gone")


@dataclass(frozen=True)
class Standing:
    """A batch that was begun: when [s], when it was hung and came down, when each piece is at the table."""

    started_s: int
    hung_s: float | None
    down_s: float | None  # when the last piece came off its hook; None while one hangs or is still to hang
    hangs: bool
    table_s: Array  # (draws, pieces)


def stand(
    shop: Premises, session: Session, ways: Ways, batch: Batch, goods: Goods, place_id: int, rest_s: int, number: int
) -> Standing:
    """How a batch stands.

    Parameters: batch; goods, as they were planned; place_id, where they are to hang; number, of it among those that
    are planned together.
    """
    now_s = shop.now_s
    pieces = pieces_of(session, batch, now_s)
    started_s = _started(session, batch)
    known: list[Array] = []
    hanging = [p for p in pieces if p.life.kind == "hanging"]
    for at in dict.fromkeys(p.place_id for p in hanging if p.place_id is not None):
        known.append(_hanging(shop, session, at, [p.tag for p in hanging if p.place_id == at], number) + rest_s)
    after = [p for p in pieces if p.life.kind not in ("hanging", *ON_THE_WAY)]
    known += [np.full((len(_draws(goods)), 1), _at_table(p, rest_s, now_s)) for p in after]
    to_hang = [p for p in pieces if p.life.kind in ON_THE_WAY]
    untagged = max(len(goods.wanted) - len(pieces), 0) if not hanging and not after else 0
    many = len(to_hang) + untagged
    if many:
        left = _left(goods, to_hang, started_s, now_s)
        ahead = replace(goods, parts=left, wanted=goods.wanted[:1] * many)
        known.append(ways.of(session, place_id, ahead, now_s, rest_s, 0, number).tables(now_s))
    downs = [p.life.since.timestamp() for p in after]
    hung = [h.from_s for p in batch.pieces for h in p.hangings[:1]]
    return Standing(
        started_s=started_s,
        hung_s=min(hung, default=None),
        down_s=None if hanging or many else max(downs, default=None),
        hangs=bool(hanging),
        table_s=np.concatenate(known, axis=1),
    )


def _started(session: Session, batch: Batch) -> int:
    into = [salt.put_in(one).at_s for one in salt.pieces_of_batch(session, batch.id)]
    made = making_of(session, batch.id)
    hung = [piece.hung_s for piece in batch.pieces]
    return int(min(into or ([made.made_s] if made is not None else hung or [batch.created_s])))


def _hanging(shop: Premises, session: Session, place_id: int, tags: list[str], number: int) -> Array:
    dates = shop.dates.of_place(session, place_id, shop.now_s)
    assert dates.fit is not None  # something hangs there
    return still_to_hang(dates.fit, [dates.index[tag] for tag in tags], number)


def _at_table(piece_of_batch: PieceOfBatch, rest_s: int, now_s: int) -> float:
    """When a piece that is off its hook is at the table [s]; what was thrown away never is."""
    if piece_of_batch.life.how == "discarded":
        return np.inf
    since_s = piece_of_batch.life.since.timestamp()
    if piece_of_batch.life.kind in AT_THE_TABLE:
        return since_s
    return (since_s if piece_of_batch.life.kind == "resting" else now_s) + rest_s


def _left(goods: Goods, to_hang: list[PieceOfBatch], started_s: int, now_s: int) -> tuple[Part, ...]:
    """What is left of the steps before the hook; nothing where it waits for its hook already."""
    if to_hang and all(p.life.kind in ("out", "waiting") for p in to_hang):
        return ()
    before = hook_after(goods.parts)
    kind: Elasticity = "elastic" if stretches(goods.parts) else "firm"
    left = np.maximum(before - (now_s - started_s), 0.0)
    return (Part("cold", kind, left),) if left.any() else ()


def _draws(goods: Goods) -> Array:
    return hook_after(goods.parts)
