"""What the Wheelhouse has promised: plans of the weeks to come, two of them for one market, one without room."""

from dataclasses import dataclass
from datetime import UTC, datetime

from zymon.formats.recipe_file import SheetModel, SheetPart
from zymon.store import bench
from zymon.store.database import Database
from zymon.store.places import places
from zymon.work.planner import doing
from zymon.work.planner.schemas import PlanIn
from zymon.work.premises import Premises

from .after import UID
from .bench import NECK, SALAME
from .plan import DAY, PEOPLE

VENISON = NECK.model_copy(
    update={
        "parts": [SheetPart(name="Venison haunch", weight_g=1300, fat_percent=3)],
        "plan": NECK.plan.model_copy(
            update={"family": "beef_round", "species": "venison", "shape": "cylinder", "across_mm": 70, "piece_g": 1300}
        ),
    }
)


@dataclass(frozen=True)
class Promise:
    """Pieces that are promised, in so many days; begun after so many, or as late as it goes."""

    product: str
    sheet: SheetModel
    pieces: int
    table_g: float
    in_days: float
    place: str
    rest_days: float
    occasion: str = ""
    frozen: bool = False
    begins_in_days: float | None = None
    recipe: bool = False  # of the workshop's own


PROMISES = (
    Promise("Juniper salame", SALAME, 12, 350, 78, "Wheel Pit", 7, "Candle market", recipe=True),
    Promise("Neck of the hill pigs", NECK, 4, 1000, 122, "Mill Loft", 21, "Candle market", begins_in_days=6),
    Promise("Venison haunch", VENISON, 5, 700, 100, "Mill Loft", 14, frozen=True, begins_in_days=9),
)


def plan_ahead(db: Database, now_s: int) -> None:
    """Keep the plans, through the planner itself."""
    shop = Premises(db, lambda: float(now_s))
    with db.reading() as session:
        by_name = {place.name: place.id for place in places(session)}
        recipes = {recipe.name: (recipe.id, recipe.versions[-1].number) for recipe in bench.recipes(session)}
    for number, one in enumerate(PROMISES):
        begins = one.begins_in_days
        recipe_id, version = recipes[one.product] if one.recipe else (None, None)
        doing.keep(
            shop,
            PlanIn(
                uid=f"{UID}plan-{number}", by=PEOPLE[0], occasion=one.occasion, product=one.product, sheet=one.sheet,
                pieces=one.pieces, table_g=one.table_g, wanted=_in(now_s, one.in_days), place_id=by_name[one.place],
                start=None if begins is None else _in(now_s, begins), rest_days=one.rest_days, frozen=one.frozen,
                order_days=4, recipe_id=recipe_id, version=version,
            ),
        )  # fmt: skip


def _in(now_s: int, days: float) -> datetime:
    return datetime.fromtimestamp(now_s + days * DAY, UTC)
