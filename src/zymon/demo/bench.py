"""What lies on the Wheelhouse's bench: recipes, lots, a batch that waits for its hooks, a weigh-out left midway."""

from dataclasses import dataclass

from zymon.core.bench.weighing import things
from zymon.formats.recipe_file import SheetCuring, SheetLine, SheetModel, SheetPart, SheetPlan
from zymon.store import bench
from zymon.store.bench_models import MadePiece, WeighEntry, WeighOut
from zymon.store.database import Session
from zymon.store.models import Place

from .plan import DAY, PEOPLE

HOUR = 3600


def _line(name: str, amount: float, role: str = "spice", basis: str = "percent", note: str = "") -> SheetLine:
    return SheetLine.model_validate({"name": name, "amount": amount, "role": role, "basis": basis, "note": note})


SHORT = SheetCuring(name="Short type, 6.25 % nitrite", percent=0.25, nitrite_fraction=0.0625, nitrate_fraction=0)
LONG = SheetCuring(
    name="Long type, 6.25 % nitrite and 4 % nitrate", percent=0.25, nitrite_fraction=0.0625, nitrate_fraction=0.04
)

SALAME = SheetModel(
    parts=[
        SheetPart(name="Shoulder", weight_g=4300, fat_percent=9, price_per_kg=8.9, bought_g=4650, lot="SH-1147"),
        SheetPart(name="Back fat", weight_g=1200, fat_percent=86, price_per_kg=3.6, lot="BF-212"),
    ],
    salt_percent=2.7,
    curing=SHORT,
    lines=[
        _line("Dextrose", 0.3, "sugar"),
        _line("Culture", 0.25, "culture", "per_kg", "wakened half an hour in still water"),
        _line("Black pepper", 0.3),
        _line("Juniper, crushed", 0.12),
        _line("Garlic", 0.15, note="steeped in the wine"),
        _line("Red wine", 1.5, "wine"),
    ],
    plan=SheetPlan(
        family="salame", goods="minced", kind="salame", shape="cylinder", casing="natural", salting="in_the_mince",
        warm="culture", surface="mould", target_loss_percent=36, across_mm=58, piece_g=840,
    ),
)  # fmt: skip
NECK = SheetModel(
    parts=[SheetPart(name="Neck, trimmed", weight_g=2320, fat_percent=14, price_per_kg=11.2, bought_g=2610)],
    salt_percent=2.8,
    curing=LONG,
    lines=[_line("Hay-smoked pepper", 0.6), _line("Bay", 0.05)],
    plan=SheetPlan(
        family="neck", goods="intact", kind="whole_muscle", shape="irregular", casing="natural", salting="measured",
        warm="none", surface="vinegar", target_loss_percent=36, across_mm=88, piece_g=2300,
    ),
)  # fmt: skip


@dataclass(frozen=True)
class _Bowl:
    session: Session
    version_id: int
    at_s: int

    def weigh_out(self, sheet: SheetModel, up_to: int | None) -> WeighOut:
        """A weigh-out of the first `up_to` things, or of all."""
        made = WeighOut(
            recipe_version_id=self.version_id,
            product="Juniper salame",
            sheet=sheet.model_dump_json(),
            profile="us",
            started_s=self.at_s,
            by=PEOPLE[1],
            meat_temperature_c=1.8,
            meat_temperature_s=self.at_s,
        )
        self.session.add(made)
        lots = {"meat-0": ("SH-1147", "meat"), "meat-1": ("BF-212", "meat"), "curing": ("CS-31", "curing_salt")}
        for i, thing in enumerate(things(sheet.to_core(), [])[:up_to]):
            code, kind = lots.get(thing.key, ("", ""))
            lot = bench.lot_for(self.session, code, kind, thing.name, PEOPLE[1], self.at_s) if code else None
            made.entries.append(
                WeighEntry(
                    uid=f"demo-{self.at_s}-{thing.key}",
                    key=thing.key,
                    grams=round(thing.target_g / thing.scale_g) * thing.scale_g,
                    lot=lot,
                    at_s=self.at_s + 90 * i,
                    by=PEOPLE[1],
                )
            )
        self.session.flush()
        return made


def lay_the_bench(session: Session, warm: Place, now_s: int) -> None:
    """Put recipes, lots, a batch and a weigh-out on the bench."""
    first = SALAME.model_copy(update={"lines": [line for line in SALAME.lines if line.name != "Garlic"]})
    recipe = bench.add_recipe(session, "Juniper salame", first.model_dump_json(), "", PEOPLE[0], now_s - int(200 * DAY))
    why = "a little garlic, steeped; the last batch tasted of juniper alone"
    version = bench.add_version(session, recipe.id, 1, SALAME.model_dump_json(), why, PEOPLE[0], now_s - int(60 * DAY))
    bench.add_recipe(
        session, "Neck with hay-smoked pepper", NECK.model_dump_json(), "", PEOPLE[0], now_s - int(180 * DAY)
    )
    yesterday = now_s - 16 * HOUR
    whole = _Bowl(session, version.id, yesterday).weigh_out(SALAME, None)
    poured = {entry.key: entry.grams for entry in whole.entries}
    new = bench.NewMaking(
        code="J-23", product="Juniper salame", kind="salame", shape="cylinder", casing="natural", fat_percent=25.8,
        salt_percent=2.7, sheet=SALAME.as_made(poured).model_dump_json(), profile="us",
        pinch_place_id=warm.id, holds=(),
    )  # fmt: skip
    made = bench.make_batch(session, new, whole, PEOPLE[1], yesterday + HOUR)
    pieces = [
        MadePiece(
            tag=f"J-23-{i + 1:02d}", shape="cylinder", casing="natural", gross_g=gross_g, casing_g=5.0,
            net_g=0.0, string_g=6.0, coat_g=0.0, raw_g=None,
            cured_g=None, diameter_mm=diameter_mm, thickness_mm=None, length_mm=None, target_loss_percent=36.0,
            loss_basis="hung", made_s=yesterday + 2 * HOUR, by=PEOPLE[1],
        )
        for i, (gross_g, diameter_mm) in enumerate([(846, 58), (851, 58), (838, 57), (862, 59), (843, 58), (829, 57)])
    ]  # fmt: skip
    for piece in pieces:
        bench.add_piece(session, made, piece)
    smaller = SALAME.scaled(0.6)
    # left after its third thing
    _Bowl(session, version.id, now_s - 25 * 60).weigh_out(smaller, 3)
