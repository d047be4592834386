"""A stored piece as the forecast sees it: what stands and is confirmed, where it hung, what was cut off."""

from itertools import pairwise

import orjson

from zymon.core import scale
from zymon.core.drying.feel import Feel
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.history import Stay as CoreStay
from zymon.core.drying.history import Weighing as CoreWeighing
from zymon.core.pieces import loss_percent, net_weight, sliced, target_weight
from zymon.store.hang import NewPiece, last_hanging
from zymon.store.models import Hanging, Piece, PieceCut, Weighing
from zymon.store.struck import counted
from zymon.store.weighings import standing


def hook_name(of: Hanging) -> str:
    """A hook's name all over the workshop."""
    return f"{of.rod_id}/{of.hook}"


def cuts_that_count(piece: Piece) -> list[PieceCut]:
    """The slices taken off a piece, in time order."""
    return sorted(counted(piece.cuts), key=lambda c: (c.at_s, c.id or 2**62))


def start_at(piece: Piece, at_s: float) -> float | None:
    """The gross start weight that a weighing of a time is held against [g]: less for each slice taken off before.

    None where nobody weighed it when it was hung.
    """
    start_g = piece.start_weight_g
    if start_g is None:
        return None
    for cut in cuts_that_count(piece):
        if cut.at_s <= at_s:
            start_g = sliced(start_g, piece.tare_g, cut.before_g, cut.after_g)
    return start_g


def lost_at(piece: Piece, weighing: Weighing) -> float | None:
    """What a piece had lost by a weighing [%], to a hundredth; None where nobody weighed it when it was hung."""
    start_g = start_at(piece, weighing.at_s)
    return None if start_g is None else round(loss_percent(start_g, piece.tare_g, weighing.gross_g), 2)


def target_gross(piece: Piece) -> float | None:
    """What the scale must show when a piece is done [g]; None where the scale cannot say it."""
    start_g = start_at(piece, float("inf"))
    if start_g is None or piece.target_loss_percent is None:
        return None
    return target_weight(start_g, piece.tare_g, piece.target_loss_percent).target_gross_g


def confirmed_ids(piece: Piece) -> set[int]:
    """The weighings of a piece that a second reading agrees with."""
    stand = standing(piece)
    if all(b.at_s - a.at_s > scale.AGREE_WITHIN_S for a, b in pairwise(stand)):
        return set()  # as nearly always: nobody weighed it twice in a row
    flags = scale.confirmed([scale.Reading(w.at_s, w.gross_g, w.kept) for w in stand])
    return {w.id for w, flag in zip(stand, flags, strict=True) if flag}


def on_a_hook(piece: Piece, weighing: Weighing) -> bool:
    """Whether a weighing tells of drying: the piece hung then, or came off with it."""
    return any(h.from_s <= weighing.at_s and (h.to_s is None or weighing.at_s <= h.to_s) for h in piece.hangings)


def core_piece(piece: Piece) -> CorePiece:
    """A stored piece as the forecast sees it: struck weighings left out, in terms of what is left after slices."""
    batch = piece.batch
    here = last_hanging(piece).place_id if piece.hangings else None
    start_g = start_at(piece, float("inf"))
    sure = confirmed_ids(piece)

    def in_terms_of_now(w: Weighing) -> float:
        then_g = start_at(piece, w.at_s)
        if not piece.cuts or start_g is None or then_g is None:
            return w.gross_g
        net_g = net_weight(w.gross_g, piece.tare_g)
        left = net_weight(start_g, piece.tare_g) / net_weight(then_g, piece.tare_g)
        return w.gross_g if left == 1.0 else piece.tare_g + net_g * left

    return CorePiece(
        tag=piece.tag,
        batch=batch.code,
        kind=batch.kind,
        shape=piece.shape,
        casing=piece.casing,
        fat_percent=batch.fat_percent,
        salt_percent=batch.salt_percent,
        diameter_mm=piece.diameter_mm,
        thickness_mm=piece.thickness_mm,
        length_mm=piece.length_mm,
        start_weight_g=start_g,
        tare_g=piece.tare_g,
        hung_at_s=piece.hung_s,
        target_loss_percent=piece.target_loss_percent,
        weighings=tuple(
            CoreWeighing(w.at_s, in_terms_of_now(w), w.id in sure, w.kept)
            for w in standing(piece)
            if on_a_hook(piece, w)
        ),
        stays=_stays(piece, here),
        bone=piece.bone,
        skin=piece.skin,
        done_days=piece.done_days,
        feels=feels_of(piece),
    )


def core_of_new(new: NewPiece) -> CorePiece:
    """A piece as declared, before it is stored, as the forecast sees it. Raises OutOfRangeError."""
    return CorePiece(
        tag=new.tag,
        batch=new.batch_code,
        kind=new.kind,  # type: ignore[arg-type] # checked on entry against the same list
        shape=new.shape,  # type: ignore[arg-type]
        casing=new.casing,  # type: ignore[arg-type]
        fat_percent=new.fat_percent,
        salt_percent=new.salt_percent,
        diameter_mm=new.diameter_mm,
        thickness_mm=new.thickness_mm,
        length_mm=new.length_mm,
        start_weight_g=new.start_weight_g,
        tare_g=new.tare_g,
        hung_at_s=new.hung_s,
        target_loss_percent=new.target_loss_percent,
        bone=new.bone,
        skin=new.skin,
        done_days=new.done_days,
    )


def feels_of(piece: Piece) -> tuple[Feel, ...]:
    """How it felt between the fingers, in time order, where rim or core was felt."""
    found = []
    for event in piece.felt:
        taps = orjson.loads(event.found or "{}")
        if taps.get("firm_rim") or taps.get("firm_core"):
            found.append(Feel(event.at_s, taps.get("firm_rim"), taps.get("firm_core")))
    return tuple(found)


def _stays(piece: Piece, here: int | None) -> tuple[CoreStay, ...]:
    """Where it hung, and the times between in which it was off its hook."""
    found = []
    hangings = sorted(piece.hangings, key=lambda h: (h.from_s, h.id or 2**62))
    for i, h in enumerate(hangings):
        place = "" if h.place_id == here else str(h.place_id)
        found.append(CoreStay(max(h.from_s, piece.hung_s), hook_name(h), place))
        later = hangings[i + 1].from_s if i + 1 < len(hangings) else None
        if h.to_s is not None and later is not None and later > h.to_s:
            found.append(CoreStay(h.to_s, "", place, paused=True))
    return tuple(found)
