"""What is entered or asked at the Hang station; the TypeScript types are made from it."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing
from zymon.core.ledger.batch import DoneBy, Use
from zymon.core.life import How

from ..schemas import Grams, Millimetres, Moment, Note, Product, Reason, RecordIn, RowId, Tag

YesNo = Literal["yes", "no"]
Chosen = Casing | DoneBy | YesNo


class WhatIfIn(BaseModel):
    """What to set from now on; null leaves a thing as it is. Air: 1 as now, 2 twice the air at the piece."""

    temperature_c: Annotated[float, Field(ge=-5, le=40, allow_inf_nan=False)] | None = None
    rh_percent: Annotated[float, Field(ge=5, le=99, allow_inf_nan=False)] | None = None
    air: Annotated[float, Field(ge=0.2, le=5, allow_inf_nan=False)] = 1.0
    target_loss_percent: Annotated[float, Field(gt=0, le=80, allow_inf_nan=False)] | None = None
    casing: Casing | None = None
    rod_id: RowId | None = None  # with hook: hung there
    hook: Annotated[int, Field(ge=1, le=60)] | None = None


class PieceIn(RecordIn):
    """A piece to hang; of a known batch, or of a new one."""

    tag: Tag
    batch_code: Tag
    product: Product
    kind: Kind
    shape: Shape
    casing: Casing
    fat_percent: Annotated[float, Field(ge=0, le=80, allow_inf_nan=False)] | None = None
    salt_percent: Annotated[float, Field(ge=0, le=15, allow_inf_nan=False)] | None = None
    diameter_mm: Millimetres | None = None
    thickness_mm: Millimetres | None = None
    length_mm: Annotated[float, Field(gt=0, le=2500, allow_inf_nan=False)] | None = None
    start_weight_g: Grams | None = None  # null: nobody weighs it
    tare_g: Annotated[float, Field(ge=0, le=200_000, allow_inf_nan=False)] = 0.0
    target_loss_percent: Annotated[float, Field(gt=0, le=80, allow_inf_nan=False)] | None = None
    done_by: DoneBy = "weight"
    done_days: Annotated[int, Field(ge=1, le=730)] | None = None
    use: Use | None = None  # of a new batch; left out: to be eaten raw
    skin: bool | None = None
    bone: bool | None = None
    rod_id: RowId
    hook: Annotated[int, Field(ge=1, le=60)]


class CorrectionIn(RecordIn):
    """A declared value that was wrong, and why; null where a measure is not known."""

    field: Literal[
        "hung_at",
        "start_weight_g",
        "tare_g",
        "target_loss_percent",
        "diameter_mm",
        "thickness_mm",
        "length_mm",
        "casing",
        "done_by",
        "done_days",
        "skin",
        "bone",
    ]
    value: Annotated[float, Field(allow_inf_nan=False, ge=0, le=200_000)] | Chosen | Moment | None
    reason: Reason


class HookIn(RecordIn):
    """A hook to hang a piece on: moved to it, or hung again."""

    rod_id: RowId
    hook: Annotated[int, Field(ge=1, le=60)]


class SwapIn(RecordIn):
    """Two pieces that change places."""

    other_id: RowId


class BecomeIn(RecordIn):
    """What a piece that is off its hook becomes."""

    kind: Literal["down", "resting", "cut", "kept", "gone"]
    how: How = ""
    place_id: RowId | None = None
    note: Note = ""


class TakeDownIn(BecomeIn):
    """That a piece is taken down: its weight, or that it was not weighed; and what becomes of it."""

    gross_g: Grams | None = None
    first_g: Grams | None = None  # what the scale showed before, where it was asked about and weighed again
    not_weighed: bool = False


class WeighingIn(RecordIn):
    """A weight off the scale, gross; kept where it was asked about and is `sure`.

    `first_g`: what the scale showed before, where that was asked about: when both agree, both stand and are confirmed.
    """

    gross_g: Grams
    first_g: Grams | None = None


class SliceIn(RecordIn):
    """A slice taken off: what the piece weighed before and after, gross."""

    before_g: Grams
    after_g: Grams
    note: Note = ""
