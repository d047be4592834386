"""Into the rest from outside: bought, or hung before it was on record here."""

from typing import Annotated

from pydantic import Field

from zymon.core.constants import SECONDS_PER_DAY
from zymon.core.drying.evening import Bag
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.errors import OutOfRangeError
from zymon.store import hang, weighings
from zymon.store.places import elsewhere

from ..as_forecast import core_of_new
from ..premises import Premises
from ..schemas import Grams, Millimetres, Note, Product, RecordIn, RowId, Tag
from . import schemas as s
from .views import detail


class OutsideIn(RecordIn):
    """A piece that dried elsewhere: what it is, about how many weeks it hung, what it weighs as it is sealed.

    `across_mm`: diameter, or thickness of a slab. `start_weight_g`: what it weighed when hung, where somebody knows.
    """

    tag: Tag
    batch_code: Tag
    product: Product
    kind: Kind
    shape: Shape
    casing: Casing = "natural"
    fat_percent: Annotated[float, Field(ge=0, le=80, allow_inf_nan=False)] | None = None
    salt_percent: Annotated[float, Field(ge=0, le=15, allow_inf_nan=False)] | None = None
    across_mm: Millimetres
    hung_weeks: Annotated[float, Field(gt=0, le=200, allow_inf_nan=False)]
    start_weight_g: Grams | None = None
    gross_g: Grams | None = None  # null: nobody weighed it
    bag: Bag
    place_id: RowId | None = None
    note: Note = ""


def take_in(shop: Premises, body: OutsideIn) -> s.RestDetail:
    """Take a piece into the rest that never hung here. Raises ClashError, OutOfRangeError, DoubtfulError."""
    if body.start_weight_g is not None and body.gross_g is not None and body.gross_g >= body.start_weight_g:
        raise OutOfRangeError("refused.heavier_than_hung", gross_g=body.gross_g, start_g=body.start_weight_g)
    with shop.recording(body, f"outside {body.tag}") as entry:
        if entry.new:
            at_s = entry.at(body.at)
            slab = body.shape == "slab"
            new = hang.NewPiece(
                tag=body.tag, batch_code=body.batch_code, product=body.product, kind=body.kind, shape=body.shape,
                casing=body.casing, fat_percent=body.fat_percent, salt_percent=body.salt_percent,
                diameter_mm=None if slab else body.across_mm, thickness_mm=body.across_mm if slab else None,
                length_mm=None, start_weight_g=body.start_weight_g, tare_g=0.0, target_loss_percent=None,
                hung_s=int(at_s - body.hung_weeks * 7 * SECONDS_PER_DAY), done_by="feel",
            )  # fmt: skip
            core_of_new(new)  # refuses what no piece can be, before anything is stored
            there = elsewhere(entry.session, body.by, entry.now_s)
            of = hang.hang_piece(entry.session, new, there.rods[0].id, 1, body.by, entry.now_s)
            entry.came("piece", of.id)
            if body.gross_g is not None:
                weighing = weighings.NewWeighing(body.gross_g, at_s)
                entry.came("weighing", weighings.add_weighing(entry.session, of, weighing, body.by, entry.now_s).id)
            state = hang.NewState("resting", body.bag, body.place_id, body.note)
            hang.take_down(entry.session, of, state, at_s, body.by, entry.now_s)
            entry.came("state", of.states[-1].id)
    return detail(shop, entry.made[0].id).model_copy(update={"made": entry.named})
