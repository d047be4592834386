"""What the Cut shows and takes; the TypeScript types are made from it."""

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from zymon.core.causes.face import CutFace, Ring
from zymon.core.causes.next_time import SheetField, Where
from zymon.core.causes.table import CauseStage, Sign
from zymon.core.causes.with_it_now import NowAct
from zymon.core.drying.feel import Firmness, RingSeen
from zymon.core.drying.geometry import Shape
from zymon.store.kinds import CutVerdict as Verdict

from ..hang.schemas import InsideOut
from ..schemas import Code, Grams, Note, RecordIn, SaidOut, WithMade

Ends = Literal["cut", "goes_on"]


class CutIn(RecordIn):
    """A cut face; whether the piece is cut up with it or goes on, and with which weights.

    `gross_g`: of the piece when it is cut up, or that it was `not_weighed`. `before_g`, `after_g`: around a slice of
    one that goes on.
    """

    face: CutFace
    ends: Ends | None = None
    gross_g: Grams | None = None
    not_weighed: bool = False
    before_g: Grams | None = None
    after_g: Grams | None = None
    verdict: Verdict = "good"
    note: Note = ""


class RingPredicted(BaseModel):
    """The inside that was predicted when it was cut."""

    ring: RingSeen
    ring_mm: float
    ring_index: float
    rim_feels: Firmness
    core_feels: Firmness
    inside: InsideOut | None = None  # its profile, from rim to core


class TellsOut(BaseModel):
    """What one record says: −1 against … 1 for."""

    measure: str
    strength: float
    says: SaidOut


class NextLine(BaseModel):
    """A line for next time; `changes`: what it changes of the recipe's sheet; `taken`: its note."""

    says: SaidOut
    where: Where
    changes: SheetField | None
    taken: int | None


class CauseOut(BaseModel):
    """What may be behind it: by which signs, what speaks for and against it, what nobody recorded."""

    name: str
    stage: CauseStage
    signs: list[Sign]
    speaks: float
    evidence: list[TellsOut]
    unrecorded: list[str]
    recorded: bool
    source: str
    next_time: list[NextLine]


class NowOut(BaseModel):
    """What to do with the piece now."""

    act: NowAct
    says: SaidOut


class FaceOut(BaseModel):
    """A cut face as it was seen, beside what was predicted."""

    id: int
    at: datetime
    by: str
    face: CutFace
    signs: list[Sign]
    predicted: RingPredicted
    verdict: Verdict
    note: str
    struck_reason: str | None


class UnderTheKnife(WithMade):
    """A piece to be cut or that was cut: its inside, its faces, and what the latest of them says.

    `inside`, `ring_mm`: what was predicted when it was cut, or is now. `recipe`: name of the recipe it was made by.
    """

    piece_id: int
    tag: str
    batch_id: int
    batch: str
    product: str
    shape: Shape
    state: str
    at_rest: bool
    across_mm: float
    days: float
    loss_percent: float | None
    weight_g: float | None
    tare_g: float
    weighed_when_hung: bool
    inside: InsideOut
    ring_mm: float
    recipe_id: int | None
    recipe: str | None
    faces: list[FaceOut]
    causes: list[CauseOut]
    now: list[NowOut]


class ToCut(BaseModel):
    """A piece nobody has looked into yet."""

    piece_id: int
    tag: str
    product: str
    state: str
    since: datetime


class LookedInto(BaseModel):
    """A piece that was looked into: what was seen, and the likeliest cause."""

    piece_id: int
    tag: str
    product: str
    at: datetime
    by: str
    verdict: Verdict
    signs: list[Sign]
    ring: Ring | None
    cause: str | None


class CutList(BaseModel):
    """What waits for the knife, and what was looked into last."""

    waiting: list[ToCut]
    seen: list[LookedInto]


class TakeIn(RecordIn):
    """A line for next time that is taken over: into the recipe's notes, or as a new version of it."""

    says: Code  # of the line
    cause: Code
    as_version: bool = False


class NextTimeOut(BaseModel):
    """A line for next time on a recipe; `version`: the number of the version it was made of."""

    id: int
    says: SaidOut
    product: str
    batch: str
    piece_id: int
    tag: str
    at: datetime
    by: str
    version: int | None
