"""What became of the Wheelhouse's finished pieces: squeezed, leaking, cut, judged, packed, opened, sold."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from zymon.core.causes.face import CutFace, Mark
from zymon.core.faults import Found
from zymon.core.stock.packs import Form, KeepAt, Went, Wrap
from zymon.store import hang
from zymon.store.database import Database
from zymon.store.models import Piece
from zymon.work.cut import doing as knife
from zymon.work.cut.schemas import CutIn, TakeIn
from zymon.work.hang import hook
from zymon.work.hang import weighing as scale
from zymon.work.hang.entries import WeighingIn
from zymon.work.hang.hook import HangEventIn
from zymon.work.keep import doing as shelf
from zymon.work.keep.schemas import CostIn, OpenIn, OutIn, PackIn
from zymon.work.premises import Premises

from .plan import DAY, PEOPLE

UID = "demo-past-"  # what the demo itself recorded, so that it is not taken for somebody's work


@dataclass(frozen=True)
class Packing:
    """Packs of a piece, and how many of them were opened or went, how, to whom, how many days later."""

    number: int
    net_g: float
    form: Form
    wrap: Wrap
    keep_at: KeepAt
    period_days: int
    went: tuple[tuple[int, Went, str, float], ...] = ()
    opened_days_ago: float | None = None
    ingredients: str | None = None


@dataclass(frozen=True)
class Cutting:
    """A cut, so many days after the piece came down; the line for next time that was taken of it."""

    tag: str
    days: float
    face: CutFace
    note: str = ""
    take: tuple[str, str] | None = None  # cause, line
    packing: Packing | None = None


GOOD = CutFace(ring="none", colour="even", firm_rim="firm", firm_core="firm", smell="clean", salt="right",
               taste=("clean",))  # fmt: skip
RINGED = CutFace(
    ring="wide", ring_mm=5.0, colour="even", firm_rim="hard", firm_core="yielding", smell="clean", salt="right",
    marks=(Mark("ring", -0.05, -0.88), Mark("ring", 0.86, 0.12), Mark("ring", -0.8, 0.35)),
)  # fmt: skip

CUTTINGS = (
    Cutting("J-17-03", 31, GOOD, "the best of the year so far",
            packing=Packing(4, 120, "piece", "vacuum", "fridge", 180, ((2, "eaten", "", 6), (1, "given", "the miller's "
                            "neighbours", 20)))),
    Cutting("J-18-03", 4, RINGED, "wanted for a birthday", ("cut_early", "next.rest_longer"),
            Packing(4, 110, "sliced", "vacuum", "fridge", 180, ((1, "sold", "Saturday market", 5),), 3.0)),
    Cutting("J-20-03", 5, GOOD, packing=Packing(3, 150, "piece", "paper", "fridge", 60)),
    Cutting("N-05-02", 40, CutFace(ring="thin", ring_mm=3.0, colour="even", firm_rim="firm", firm_core="firm",
                                   smell="clean", salt="right", taste=("clean",)),
            packing=Packing(10, 100, "sliced", "vacuum", "freezer", 365, ((4, "sold", "the inn", 30),
                                                                           (1, "eaten", "", 60)),
                            ingredients="pork neck, salt, hay-smoked pepper, bay, E250, E252")),
    Cutting("V-01-03", 28, CutFace(ring="none", colour="brown", firm_rim="hard", firm_core="hard", smell="clean",
                                   salt="high", taste=("sharp",)), "saltier than it should be",
            packing=Packing(6, 130, "piece", "vacuum", "cellar", 270, ((2, "eaten", "", 14),))),
    Cutting("P-29-03", 2, GOOD, packing=Packing(1, 110, "whole", "paper", "fridge", 45,
                            ingredients="pork, salt, dried plum, black pepper, dextrose, E250")),
)  # fmt: skip
SQUEEZED = (
    ("N-05-03", 100, Found(firm_rim="firm", firm_core="firm")),
    ("J-20-02", 6, Found(firm_rim="firm", firm_core="yielding")),
    ("J-20-01", 0.3, Found(firm_rim="firm", firm_core="firm")),
)  # tag, days ago
LEAKS = ("J-20-06", 7.0)  # and what its bag lost until today [g]
COSTS: tuple[tuple[str, Literal["casing", "work"], float, str], ...] = (
    ("J-17", "casing", 7.5, "2.1 m of middles"),
    ("J-17", "work", 54.0, "three hours of two people"),
)


def after_the_hook(db: Database, now_s: int) -> None:
    """Live what came after the hook, entry by entry, each at its time."""
    _Past(db, now_s).live()


class _Past:
    """The workshop with its clock set back to what is lived again."""

    def __init__(self, db: Database, now_s: int) -> None:
        self.now_s = now_s
        self.clock_s = now_s
        self.shop = Premises(db, lambda: self.clock_s)
        self.uids = self._uids()

    def _uids(self) -> Iterator[str]:
        number = 0
        while True:
            number += 1
            yield f"{UID}{number:03d}"

    def _entry(self, at_s: float, by: int = 0) -> dict[str, Any]:
        self.clock_s = int(min(at_s, self.now_s - 600))
        return {"uid": next(self.uids), "by": PEOPLE[by], "sure": True}

    def _piece(self, tag: str) -> tuple[Piece, int]:
        with self.shop.db.reading() as session:
            found = hang.piece_of_tag(session, tag)
            assert found is not None
            down_s = hang.taken_down_at(found)
            assert down_s is not None
            return found, down_s

    def live(self) -> None:
        """Cut, pack, squeeze and weigh what the plan says."""
        for one in CUTTINGS:
            self._cut(one)
        for tag, days_ago, felt in SQUEEZED:
            piece, _ = self._piece(tag)
            entry = self._entry(self.now_s - days_ago * DAY, 1)
            hook.note(self.shop, HangEventIn(**entry, kind="inspect", pieces=[piece.id], found=felt))
        tag, lost_g = LEAKS
        piece, _ = self._piece(tag)
        with self.shop.db.reading() as session:
            last = hang.piece(session, piece.id).weighings[-1].gross_g
        scale.weigh(self.shop, piece.id, WeighingIn(**self._entry(self.now_s - 5 * 3600), gross_g=last - lost_g))
        for code, kind, amount, note in COSTS:
            piece, down_s = self._piece(f"{code}-01")
            shelf.add_cost(
                self.shop, piece.batch_id, CostIn(**self._entry(down_s), kind=kind, amount=amount, note=note)
            )

    def _cut(self, one: Cutting) -> None:
        piece, down_s = self._piece(one.tag)
        at_s = down_s + one.days * DAY
        body = CutIn(**self._entry(at_s), face=one.face, ends="cut", not_weighed=True, note=one.note)
        cut = knife.cut(self.shop, piece.id, body)
        if one.take is not None:
            cause, line = one.take
            knife.take(self.shop, cut.faces[0].id, TakeIn(**self._entry(at_s + 600), cause=cause, says=line))
        if one.packing is not None:
            self._pack(piece.id, one.packing, at_s + 3600)

    def _pack(self, piece_id: int, plan: Packing, at_s: float) -> None:
        packs = shelf.pack(
            self.shop,
            piece_id,
            PackIn(
                **self._entry(at_s, 1), number=plan.number, net_g=plan.net_g, form=plan.form, wrap=plan.wrap,
                keep_at=plan.keep_at, period_days=plan.period_days, ingredients=plan.ingredients,
            ),
        )  # fmt: skip
        pack_id = packs.packs[-1].id
        assert pack_id is not None
        for number, how, whom, days in plan.went:
            body = OutIn(**self._entry(at_s + days * DAY), number=number, how=how, to_whom=whom)
            shelf.take_out(self.shop, pack_id, body)
        if plan.opened_days_ago is not None:
            shelf.open_pack(self.shop, pack_id, OpenIn(**self._entry(self.now_s - plan.opened_days_ago * DAY)))
