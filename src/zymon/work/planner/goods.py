"""What is planned as the rules see it: its sheet for all pieces, its steps before the hook, its pieces on the hook."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from zymon.core.bench.families import FAMILIES
from zymon.core.bench.sheet import Worked, work
from zymon.core.bench.sugars import dextrose_percent
from zymon.core.drying.climate import Log
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.errors import OutOfRangeError
from zymon.core.fermentation.curve import Fermentation
from zymon.core.planning.amounts import Piece, piece_of
from zymon.core.planning.before import Part, PartKind, in_salt, in_the_warm, resting_cold
from zymon.core.planning.drying import MOST_PIECES
from zymon.core.salting.bag import Bag, Cold, Step
from zymon.core.say import Said, said
from zymon.formats.recipe_file import SheetModel, SheetPlan
from zymon.store.database import Session
from zymon.store.models import Place
from zymon.store.places import air_now, places, setpoint_at

USUAL_SALT_C, USUAL_WARM_C = 3.0, 24.0
LEAVES_WARM_PH = 5.1  # usual; what a maker wants of a batch is asked when it goes into the warm
MOST_KEPT = 600  # goods that are worked out once
TRIAL = "\u0000planned"


@dataclass(frozen=True)
class Warmth:
    """How warm it is in the salt and in the warm place [°C]; None where nobody measured or set it."""

    salt_c: float | None
    warm_c: float | None


@dataclass(frozen=True)
class Rooms:
    """Where salt and warm stage would be; None where there is no such place."""

    salt: Place | None
    warm: Place | None
    warmth: Warmth

    def of(self, kind: PartKind) -> Place | None:
        """Where a step before the hook would be; None where there is no such place, or it needs none."""
        return {"salt": self.salt, "warm": self.warm, "cold": None}[kind]


def rooms_of(session: Session, now_s: int) -> Rooms:
    """The first place for salt and the first for the warm stage."""
    by_kind = {kind: next((p for p in places(session) if p.kind == kind), None) for kind in ("salt", "warm")}
    salt_c, warm_c = (_temperature(session, by_kind[kind], now_s) for kind in ("salt", "warm"))
    return Rooms(by_kind["salt"], by_kind["warm"], Warmth(salt_c, warm_c))


def _temperature(session: Session, place: Place | None, now_s: int) -> float | None:
    if place is None:
        return None
    setpoint = setpoint_at(place, now_s)
    if setpoint is not None and setpoint.temperature_c is not None:
        return setpoint.temperature_c
    air = air_now(session, place.id, now_s)
    return None if air is None else round(air.temperature_c, 1)  # a tenth more or less is no other place


@dataclass(frozen=True)
class Goods:
    """A batch that is planned: what is weighed out for it, and how it goes to its hook."""

    sheet: SheetModel  # for all of its pieces
    piece: Piece
    parts: tuple[Part, ...]
    wanted: tuple[CorePiece, ...]
    assumed: tuple[Said, ...]

    @property
    def in_the_mince(self) -> bool:
        """Whether it is made of mince, so that its start is the stuffing."""
        return self.sheet.plan.salting == "in_the_mince"


@lru_cache(maxsize=MOST_KEPT)
def goods_of(sheet_text: str, pieces: int, table_g: float, warmth: Warmth) -> Goods:
    """A sheet made for so many pieces of a weight at the table.

    Parameters: sheet_text, as JSON, for whatever meat; pieces [-]; table_g [g], of each; warmth.
    Raises OutOfRangeError.
    """
    sheet = SheetModel.model_validate_json(sheet_text)
    if not 1 <= pieces <= MOST_PIECES:
        raise OutOfRangeError("refused.planned_pieces", most=MOST_PIECES)
    plan = sheet.plan
    piece = piece_of(plan.salting, plan.loss_basis, plan.target_loss_percent, table_g)
    worked = work(sheet.to_core())
    if worked.formulation is None or worked.total_g <= 0:
        raise OutOfRangeError(worked.problems[0].said if worked.problems else "refused.not_complete")
    bowl_g = worked.total_g if plan.salting == "in_the_mince" else worked.meat_g
    whole = sheet.scaled(pieces * piece.raw_g / bowl_g)
    whole = whole.model_copy(update={"plan": plan.model_copy(update={"piece_g": piece.raw_g})})
    parts, assumed = _before(sheet, worked, piece, warmth)
    hung = hung_piece(whole, piece.hung_g, piece.loss_percent, worked)
    return Goods(whole, piece, parts, (hung,) * pieces, (*assumed, *hung.assumed))


def _before(
    sheet: SheetModel, worked: Worked, piece: Piece, warmth: Warmth
) -> tuple[tuple[Part, ...], tuple[Said, ...]]:
    """The steps before the hook; what nobody measured or set is taken as usual, and said."""
    plan, parts, assumed = sheet.plan, [], []
    if plan.salting != "in_the_mince":
        salt_c = USUAL_SALT_C if warmth.salt_c is None else warmth.salt_c
        parts.append(in_salt(_bag(plan, sheet.salt_percent, min(worked.fat_percent, 80.0), piece.raw_g, salt_c)))
        if warmth.salt_c is None:
            assumed.append(said("assumed.salt_cold", usual_c=USUAL_SALT_C))
        assumed.append(said("assumed.shed", percent=round(100 * (1 - piece.hung_g / piece.raw_g))))
    rests_h = next((f.rests_cold_h for f in FAMILIES if f.id == plan.family), 0.0)
    if rests_h:
        parts.append(resting_cold(rests_h))
    if plan.warm != "none":
        warm_c = USUAL_WARM_C if warmth.warm_c is None else warmth.warm_c
        part, sours = in_the_warm(_stuffed(sheet, worked, warm_c))
        parts.append(part)
        if warmth.warm_c is None:
            assumed.append(said("assumed.warm_place", usual_c=USUAL_WARM_C))
        assumed.append(said("assumed.sours" if sours else "assumed.sours_not", ph=LEAVES_WARM_PH))
    return tuple(parts), tuple(assumed)


def _bag(plan: SheetPlan, salt_percent: float, fat_percent: float, raw_g: float, salt_c: float) -> Bag:
    nothing = np.zeros(0)
    laid = Step(0.0, "lay", plan.salting, min(max(salt_percent, 0.3), 12.0))  # type: ignore[arg-type] # not in the mince
    return Bag(
        geometry="slab" if plan.shape == "slab" else "cylinder",
        across_mm=plan.across_mm,
        weight_g=raw_g,
        fat_percent=fat_percent,
        steps=(laid,),
        cold=Cold(Log(nothing, nothing, nothing), salt_c),
    )


def _stuffed(sheet: SheetModel, worked: Worked, warm_c: float) -> Fermentation:
    return Fermentation(
        culture="wild" if sheet.plan.warm == "wild" else None,
        dextrose_percent=dextrose_percent(sheet.to_core().lines, worked.grams, worked.meat_g),
        salt_percent=round(worked.sodium_chloride_percent, 2),
        start_ph=None,
        target_ph=LEAVES_WARM_PH,
        setpoint_c=warm_c,
        temperature=(),
        readings=(),
        now_hour=0.0,
    )


def hung_piece(sheet: SheetModel, hung_g: float, loss_percent: float, worked: Worked) -> CorePiece:
    """A piece of a sheet as it would hang, never weighed.

    Parameters: sheet; hung_g [g]; loss_percent [%], from the hook; worked, the sheet worked out.
    """
    plan = sheet.plan
    flat, salt = plan.shape == "slab", worked.sodium_chloride_percent
    return CorePiece(
        tag=TRIAL, batch=TRIAL, kind=plan.kind, shape=plan.shape, casing=plan.casing,
        fat_percent=min(worked.fat_percent, 80.0), salt_percent=min(salt, 15.0) if worked.formulation else None,
        diameter_mm=None if flat else plan.across_mm, thickness_mm=plan.across_mm if flat else None, length_mm=None,
        start_weight_g=hung_g, tare_g=0.0, hung_at_s=0.0, target_loss_percent=loss_percent,
    )  # fmt: skip
