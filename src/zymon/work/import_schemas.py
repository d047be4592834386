"""What an import shows before it is stored, and its report; the TypeScript types are made from it."""

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from .schemas import Ready, RecordIn


class RowFault(BaseModel):
    """What is wrong with a line of a file; line 0 speaks of the whole file."""

    line: int
    text: str


class FileForecast(BaseModel):
    """The forecast of a piece of a hang file, as of the file's own now."""

    tag: str
    loss_percent: float
    target_weight_g: float | None
    status: Literal["drying", "ready", "stalled"]
    ready: Ready
    doubts: list[str]


class ImportPreview(BaseModel):
    """What was understood of a file and what it would bring; nothing is stored yet."""

    token: str
    kind: Literal["climate", "weights", "hang"]
    file_name: str
    understood: dict[str, str]
    rows: int
    new: int
    same: int
    conflict: int
    error_count: int
    errors: list[RowFault]
    notes: list[str]
    asks: list[str]
    first_at: datetime | None
    last_at: datetime | None
    file_now: datetime | None
    forecasts: list[FileForecast]


class ImportConfirm(RecordIn):
    """The go-ahead for a previewed file; faulty lines are left out only when that is said."""

    leave_out_faults: bool = False


class ImportDone(BaseModel):
    """A report that stays."""

    id: int
    at: datetime
    by: str
    kind: str
    file_name: str
    rows_new: int
    rows_same: int
    rows_conflict: int
    rows_left_out: int
    taken_back: str | None  # by whom and why
