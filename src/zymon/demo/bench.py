"""What lies on the Wheelhouse's bench: recipes, lots, a batch that waits for its hooks, a weigh-out left midway."""

from dataclasses import dataclass

from zymon.core.bench.weighing import things
from zymon.formats.recipe_file import SheetCuring, SheetLine, SheetModel, SheetPart, SheetPlan
from zymon.store import bench
from zymon.store.bench_models import MadePiece, Making, WeighEntry, WeighOut
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
class Bowl:
    """A bowl of juniper salame at a time: by which version, and of which lots by the key of the thing."""

    session: Session
    version_id: int
    at_s: int
    lots: dict[str, str]

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
        for i, thing in enumerate(things(sheet.to_core(), [])[:up_to]):
            code = self.lots.get(thing.key)
            kind = "curing_salt" if thing.key == "curing" else "meat"
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

    def batch(self, code: str, sheet: SheetModel, pinch: Place, pieces: list[tuple[float, float]]) -> Making:
        """A batch of salami made of the whole of it within an hour: gross weights [g] and diameters [mm]."""
        whole = self.weigh_out(sheet, None)
        poured = {entry.key: entry.grams for entry in whole.entries}
        new = bench.NewMaking(
            code=code, product="Juniper salame", kind="salame", shape="cylinder", casing="natural", fat_percent=25.8,
            salt_percent=2.7, sheet=sheet.as_made(poured).model_dump_json(), profile="us",
            pinch_place_id=pinch.id, holds=(),
        )  # fmt: skip
        made = bench.make_batch(self.session, new, whole, PEOPLE[1], self.at_s + HOUR)
        for i, (gross_g, diameter_mm) in enumerate(pieces):
            piece = MadePiece(
                tag=f"{code}-{i + 1:02d}", shape="cylinder", casing="natural", gross_g=gross_g, casing_g=5.0,
                net_g=0.0, string_g=6.0, coat_g=0.0, raw_g=None,
                cured_g=None, diameter_mm=diameter_mm, thickness_mm=None, length_mm=None, target_loss_percent=36.0,
                loss_basis="hung", made_s=self.at_s + 2 * HOUR, by=PEOPLE[1],
            )  # fmt: skip
            bench.add_piece(self.session, made, piece)
        return made


def lay_recipes(session: Session, now_s: int) -> tuple[int, int]:
    """Write the recipes down; gives the versions of the salame back: without garlic, and with it."""
    first = SALAME.model_copy(update={"lines": [line for line in SALAME.lines if line.name != "Garlic"]})
    recipe = bench.add_recipe(session, "Juniper salame", first.model_dump_json(), "", PEOPLE[0], now_s - int(290 * DAY))
    why = "a little garlic, steeped; the last batch tasted of juniper alone"
    version = bench.add_version(session, recipe.id, 1, SALAME.model_dump_json(), why, PEOPLE[0], now_s - int(60 * DAY))
    bench.add_recipe(
        session, "Neck with hay-smoked pepper", NECK.model_dump_json(), "", PEOPLE[0], now_s - int(180 * DAY)
    )
    return recipe.versions[0].id, version.id


def lay_the_bench(session: Session, warm: Place, version_id: int, now_s: int) -> None:
    """Put a batch that waits and a weigh-out left after its third thing on the bench."""
    lots = {"meat-0": "SH-1147", "meat-1": "BF-212", "curing": "CS-31"}
    pieces: list[tuple[float, float]] = [(846, 58), (851, 58), (838, 57), (862, 59), (843, 58), (829, 57)]
    Bowl(session, version_id, now_s - 16 * HOUR, lots).batch("J-23", SALAME, warm, pieces)
    Bowl(session, version_id, now_s - 25 * 60, lots).weigh_out(SALAME.scaled(0.6), 3)
