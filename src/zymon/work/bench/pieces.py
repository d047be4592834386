"""Every piece of a batch in whatever state, whichever stations know it."""

from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from zymon.core.life import State
from zymon.store import bench as store
from zymon.store import salt, warm
from zymon.store.bench_models import MadePiece, Making
from zymon.store.database import Session
from zymon.store.hang import last_hanging
from zymon.store.models import Batch, Piece
from zymon.store.salt_models import SaltPiece

from ..as_forecast import target_gross
from ..hang.views import life_out, scale_out, tag_out
from ..life import Before, batch_before, life_before, of_piece, state_of
from . import making_schemas as m


@dataclass(frozen=True)
class OfBatch:
    """What the stations before the hook know of a batch: how it was made, what lay in salt, what became of it."""

    making: Making | None
    salted: Sequence[SaltPiece]
    before: Before


def known_of(session: Session, batch_id: int) -> OfBatch:
    """The same of one batch."""
    return OfBatch(
        store.making_of(session, batch_id), salt.pieces_of_batch(session, batch_id), batch_before(session, batch_id)
    )


def known_of_all(session: Session) -> Callable[[int], OfBatch]:
    """The same of every batch, asked for at once: a list of hundreds does not ask for each."""
    makings = {one.batch_id: one for one in store.makings(session)}
    salted: defaultdict[int, list[SaltPiece]] = defaultdict(list)
    for piece in salt.pieces_ever(session):
        salted[piece.batch_id].append(piece)
    warmed = warm.batches_known(session)

    def known(batch_id: int) -> OfBatch:
        before = batch_before(session, batch_id) if batch_id in warmed else Before()
        return OfBatch(makings.get(batch_id), salted.get(batch_id, ()), before)

    return known


def pieces_of(session: Session, batch: Batch, now_s: int) -> list[m.PieceOfBatch]:
    """Every piece of a batch in whatever state, by tag; each once, though several stations know it."""
    return pieces_told(batch, known_of(session, batch.id), now_s)


def states_now(batch: Batch, tables: OfBatch, now_s: int) -> list[State]:
    """What each piece of a batch is now, without its weights."""
    return [state_of(piece) for piece in batch.pieces] + list(_not_hung(batch, tables, now_s).values())


def _not_hung(batch: Batch, tables: OfBatch, now_s: int) -> dict[str, State]:
    """What the pieces are, by tag, that the stations before the hook know and that never hung."""
    salted, tagged = _by_tag(tables)
    found = {}
    for tag in (salted.keys() | tagged.keys()) - {piece.tag for piece in batch.pieces}:
        state = life_before(of_piece(tables.before, salted.get(tag), tagged.get(tag)), now_s).last
        if state is not None:
            found[tag] = state
    return found


def _by_tag(tables: OfBatch) -> tuple[dict[str, SaltPiece], dict[str, MadePiece]]:
    tagged = tables.making.pieces if tables.making is not None else []
    return {one.tag: one for one in tables.salted}, {one.tag: one for one in tagged}


def pieces_told(batch: Batch, tables: OfBatch, now_s: int) -> list[m.PieceOfBatch]:
    """The same with what is known of its batch already."""
    salted, tagged = _by_tag(tables)
    mixes = {mix.id: mix.name for mix in tables.making.mixes} if tables.making is not None else {}
    found = {piece.tag: _hung(piece) for piece in batch.pieces}
    for tag, state in _not_hung(batch, tables, now_s).items():
        found[tag] = _tagged(tagged[tag], state) if tag in tagged else _salted(salted[tag], state)
    ids = {tag: one.id for tag, one in salted.items()}
    of_mix = {tag: mixes.get(one.mix_id) for tag, one in tagged.items() if one.mix_id is not None}
    return [found[tag].model_copy(update={"salt_id": ids.get(tag), "mix": of_mix.get(tag)}) for tag in sorted(found)]


def _salted(piece: SaltPiece, state: State) -> m.PieceOfBatch:
    weighed = [e.value for e in salt.events(piece, "weigh", "out", "trim") if e.value is not None]
    return m.PieceOfBatch(
        tag=piece.tag,
        mix=None,
        life=life_out(state),
        casing=None,
        across_mm=piece.across_mm,
        start_g=piece.raw_g,
        weight_g=weighed[-1] if weighed else None,
        loss_percent=None,
        tag_g=None,
        target_loss_percent=None,
        piece_id=None,
        place_id=None,
        salt_id=piece.id,
    )


def _tagged(piece: MadePiece, state: State) -> m.PieceOfBatch:
    return m.PieceOfBatch(
        tag=piece.tag,
        mix=None,
        life=life_out(state),
        casing=piece.casing,
        across_mm=piece.diameter_mm or piece.thickness_mm,
        start_g=piece.gross_g,
        weight_g=None,
        loss_percent=None,
        tag_g=tag_out(store.target_gross(piece)),
        target_loss_percent=piece.target_loss_percent,
        piece_id=None,
        place_id=None,
        salt_id=None,
    )


def _hung(piece: Piece) -> m.PieceOfBatch:
    said = scale_out(piece, None)
    return m.PieceOfBatch(
        tag=piece.tag,
        mix=None,
        life=life_out(state_of(piece)),
        casing=piece.casing,
        across_mm=piece.diameter_mm or piece.thickness_mm,
        start_g=piece.start_weight_g,
        weight_g=None if said is None else said.gross_g,
        loss_percent=None if said is None else said.loss_percent,
        tag_g=tag_out(target_gross(piece)),
        target_loss_percent=piece.target_loss_percent,
        piece_id=piece.id,
        place_id=last_hanging(piece).place_id,
        salt_id=None,
    )
