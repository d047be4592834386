"""What an import shows before it is stored, and its report; the TypeScript types are made from it."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zymon.formats.measured.understanding import Asked
from zymon.store.kinds import ImportKind

from .schemas import Ready, RecordIn

Lines = Annotated[list[Annotated[int, Field(ge=1, le=2**31 - 1)]], Field(max_length=20_000)]


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


class ChoiceOut(BaseModel):
    """An answer that can be given, and what the file shows of it."""

    value: str
    shows: str


class QuestionOut(BaseModel):
    """Something that is not plain. It is open while `answer` is None; meanwhile the file is read as offered.

    `free`: another value than those listed can be given.
    """

    asked: Asked
    text: str
    choices: list[ChoiceOut]
    free: bool
    offered: str | None
    answer: str | None


class FirstRow(BaseModel):
    """A line of a file and what was understood of it; nothing where it is faulty."""

    line: int
    cells: list[str]
    at: datetime | None
    values: list[str]


class SaidBefore(BaseModel):
    """Who answered the questions of files with this head, and when."""

    by: str
    at: datetime


class DoubtfulRow(BaseModel):
    """A row that is held until somebody says whether it counts."""

    line: int
    shown: str
    at: datetime
    question: str


class ImportPreview(BaseModel):
    """What was understood of a file and what it would bring; nothing is stored yet."""

    token: str
    kind: ImportKind
    file_name: str
    understood: list[str]
    questions: list[QuestionOut]
    first_rows: list[FirstRow]
    said_before: SaidBefore | None
    rows: int
    new: int
    same: int
    conflict: int
    error_count: int
    errors: list[RowFault]
    doubtful: list[DoubtfulRow]
    notes: list[str]
    first_at: datetime | None
    last_at: datetime | None
    file_now: datetime | None
    forecasts: list[FileForecast]


class ImportConfirm(RecordIn):
    """The go-ahead for a previewed file; faulty lines are left out only when that is said.

    `keep` and `leave` answer for every line that was in doubt.
    """

    leave_out_faults: bool = False
    keep: Lines = Field(default_factory=list)
    leave: Lines = Field(default_factory=list)


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
