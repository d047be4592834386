"""Families of goods as starting points: how they are salted, warmed, hung, and to which loss."""

from dataclasses import dataclass
from typing import Literal

from ..drying.geometry import Kind, Shape
from ..drying.history import Casing
from ..salting.ways import Way

SaltingWay = Literal["in_the_mince", Way]
Warm = Literal["culture", "wild", "none"]
Surface = Literal["mould", "vinegar", "leave"]


@dataclass(frozen=True)
class Family:
    """A family of goods with usual values; ranges seen among makers, not limits."""

    id: str
    name: str
    minced: bool
    kind: Kind
    shape: Shape
    casing: Casing
    salting: SaltingWay
    salt_percent: float
    curing_salt: str  # id in CURING_SALTS, or "none"
    curing_salt_percent: float
    before_hanging: str
    warm: Warm
    temperature_c: float
    rh_percent: float
    target_loss_percent: float
    across_mm: float  # diameter, or thickness of a slab
    piece_g: float
    surface: Surface
    hanging: str
    fat_percent: float
    belly: bool = False
    species: str = "pork"
    rests_cold_h: float = 0.0  # before it hangs, beside its salt and its warm stage


# Shares [% of the meat], temperatures [°C], times [h, weeks] and losses [%] as practitioners usually have them
FAMILIES: tuple[Family, ...] = (
    Family("salame", "Salame, cultured", True, "salame", "cylinder", "natural", "in_the_mince", 2.7, "short", 0.25,
           "12–48 h warm", "culture", 13, 80, 35, 60, 900, "mould", "ø 40: 3–4 weeks, ø 60: 7–10, ø 90: 12 and more", 27),
    Family("salame_cold", "Salame, cold hung", True, "salame", "cylinder", "natural", "in_the_mince", 2.8, "short", 0.25,
           "48 h rest in the cold", "none", 12, 78, 33, 60, 900, "vinegar", "as a cultured one", 27, rests_cold_h=48),
    Family("thin_sausage", "Thin dried sausage", True, "thin_sausage", "cylinder", "natural", "in_the_mince", 2.5,
           "short", 0.25, "2 h in the cold, with vinegar", "none", 18, 60, 40, 21, 140, "vinegar",
           "7–10 days with a steady fan", 28, rests_cold_h=2),
    Family("thin_sausage_dehydrator", "Thin dried sausage, dehydrator", True, "thin_sausage", "cylinder", "natural",
           "in_the_mince", 2.5, "short", 0.25, "2 h in the cold, with vinegar; its pH measured before it warms", "none",
           35, 35, 40, 21, 140, "leave", "2 days at 30–40 °C, where degree-hours count", 28, rests_cold_h=2),
    Family("neck", "Neck or loin", False, "whole_muscle", "irregular", "natural", "measured", 2.8, "long", 0.25,
           "7–14 days in salt", "none", 12.5, 80, 35, 85, 1800, "vinegar", "1.5 kg: 5–8 weeks, 3 kg: about 12", 12),
    Family("beef_round", "Beef round", False, "whole_muscle", "cylinder", "natural", "measured", 2.6, "long", 0.25,
           "14–38 days in salt", "none", 13, 75, 37, 85, 1700, "vinegar", "5 weeks to months", 4, species="beef"),
    Family("leg_muscle", "Boned leg muscle", False, "whole_muscle", "irregular", "natural", "measured", 2.0, "long", 0.2,
           "40–45 days in salt", "none", 13, 75, 40, 120, 4500, "leave", "about 3 months", 10),
    Family("leg", "Whole leg on the bone", False, "ham", "irregular", "coating", "buried", 4.0, "none", 0.0,
           "30 days in salt, then coat and cloth bag", "none", 13, 72, 33, 160, 9500, "leave", "6 months and more", 18),
    Family("leg_piece", "Small leg piece, fridge", False, "whole_muscle", "irregular", "membrane", "buried", 3.0, "none",
           0.0, "48 h in salt, 48 h spiced rest", "none", 4, 55, 35, 90, 1700, "leave", "about 8 weeks", 8, rests_cold_h=48),
    Family("tenderloin", "Tenderloin", False, "whole_muscle", "cylinder", "cloth", "buried", 3.0, "none", 0.0,
           "48–72 h in salt, rinsed, in cloth", "none", 14, 55, 30, 50, 400, "leave", "1–2 weeks in a cool room with a fan", 3),
    Family("breast", "Duck or goose breast", False, "breast", "slab", "cloth", "buried", 3.0, "none", 0.0,
           "15–24 h in salt, rinsed, pepper, cloth", "none", 4, 60, 30, 25, 380, "leave", "3 weeks and more", 25, species="poultry"),
    Family("flat_belly", "Flat belly", False, "belly", "slab", "none", "measured", 3.0, "short", 0.2,
           "5–7 days in salt, wine wash, spice", "none", 12, 75, 27, 35, 1400, "vinegar",
           "3–4 weeks by days and feel, 8–12 weeks to 27 %; with its skin on far longer", 43, belly=True),
    Family("rolled_belly", "Rolled belly", False, "belly", "cylinder", "membrane", "measured", 3.0, "short", 0.2,
           "7 days in salt, trimmed, rolled, tied", "none", 12, 76, 27, 75, 1600, "leave",
           "2–4 weeks by days, cooked; months by weight", 43, belly=True),
    Family("belly_strips", "Belly strips for frying", False, "belly", "slab", "none", "rub_and_drain", 3.5, "short", 0.2,
           "5–10 days, rubbed and drained", "none", 10, 70, 25, 30, 900, "leave",
           "5–10 days, cooked; 5–8 weeks if eaten raw", 43, belly=True),
    Family("coated_beef", "Coated beef", False, "coated", "slab", "coating", "pressed", 2.7, "short", 0.25,
           "7 days pressed, then a paste of 3–10 mm", "none", 10, 72, 30, 40, 900, "leave",
           "2.5–5 weeks by weight; 8–12 days by feel in a warm airy place", 8, species="beef"),
    Family("winter_loin", "Winter loins, beef strips", False, "whole_muscle", "irregular", "none", "by_thickness", 2.0,
           "short", 0.25, "1 week, garlic and pepper, cold smoke", "none", 5, 80, 40, 60, 1200, "leave", "4–8 weeks", 6),
)  # fmt: skip


@dataclass(frozen=True)
class CuringSalt:
    """A curing salt: parts of sodium nitrite and nitrate, 0…1."""

    id: str
    name: str
    nitrite_fraction: float
    nitrate_fraction: float
    says: str


# Mass fractions of nitrite and nitrate as sold
CURING_SALTS: tuple[CuringSalt, ...] = (
    CuringSalt("short", "Short type, 6.25 % nitrite", 0.0625, 0.0, "for up to about 30 days"),
    CuringSalt("long", "Long type, 6.25 % nitrite and 4 % nitrate", 0.0625, 0.04, "for hanging over about 30 days"),
    CuringSalt("long_1", "Long type, 6.25 % nitrite and 1 % nitrate", 0.0625, 0.01, "for hanging over about 30 days"),
    CuringSalt("short_588", "Short type, 5.88 % nitrite", 0.0588, 0.0, "for up to about 30 days"),
    CuringSalt("table_04", "Nitrited table salt, 0.4 %", 0.004, 0.0, "replaces all of the salt"),
    CuringSalt("table_06", "Nitrited table salt, 0.6 %", 0.006, 0.0, "replaces all of the salt"),
    CuringSalt("table_09", "Nitrited table salt, 0.9 %", 0.009, 0.0, "replaces all of the salt"),
    CuringSalt("saltpetre", "Saltpetre", 0.0, 1.0, "nitrate alone, slow and hard to dose: not for minced goods"),
)


@dataclass(frozen=True)
class School:
    """One answer to a question on which makers disagree, and what it brings."""

    id: str
    name: str
    brings: str


SCHOOLS: dict[str, tuple[School, ...]] = {
    "salt_basis": (
        School("inclusive", "salt covers the curing salt", "the curing salt is taken off the plain salt"),
        School("exact", "salt covers its sodium chloride", "only the sodium chloride in the curing salt is taken off"),
        School("on_top", "curing salt comes on top", "a little saltier than the figure says"),
    ),
    "loss_basis": (
        School("hung", "weight when hung", "the tag counts from the hook"),
        School("cured", "weight after salting", "the liquid shed in salt does not count"),
        School("raw", "raw trimmed weight", "the liquid shed in salt counts as loss: taken down earlier"),
    ),
    "warm": (
        School("culture", "bought culture", "the pH is led; measure it"),
        School("wild", "wild fermentation", "caution: nobody knows what grows; measure the pH more often"),
        School(
            "none", "no warm stage, cold hung", "salt, nitrite and cold alone hold the line; degree-hours stay unknown"
        ),
    ),
    "surface": (
        School("mould", "sow a white mould", "keeps other moulds off, slows the first days a little"),
        School("vinegar", "wipe with vinegar", "a clean skin to start from; wipe again when something grows"),
        School("leave", "leave it", "watch the skin"),
    ),
}


def family(family_id: str) -> Family:
    """The family of an id. Parameters: family_id [-]. Raises KeyError.

    >>> family("neck").salting
    'measured'
    """
    return next(f for f in FAMILIES if f.id == family_id)
