"""Whole courses as makers run them: when Zymon says at hanging that they are done, beside what makers report."""

from dataclasses import dataclass

import numpy as np

from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import PieceForecast, forecast
from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing, History, Piece
from zymon.core.drying.surroundings import Sort, Surroundings

DAY = 86_400.0
NOTHING = Log(np.zeros(0), np.zeros(0), np.zeros(0))


@dataclass(frozen=True)
class Course:
    """Goods as they are hung, where, and in how many days makers report them done; nothing weighed, nothing logged."""

    name: str
    told_days: tuple[float, float]
    sort: Sort
    set_to: tuple[float | None, float | None]
    kind: Kind
    shape: Shape
    casing: Casing
    across_mm: float
    start_g: float
    target_percent: float
    fat_percent: float
    salt_percent: float

    def forecast(self) -> PieceForecast:
        """What is said of it at hanging."""
        flat = self.shape == "slab"
        piece = Piece(
            tag="C-01", batch="C", kind=self.kind, shape=self.shape, casing=self.casing, fat_percent=self.fat_percent,
            salt_percent=self.salt_percent, diameter_mm=None if flat else self.across_mm,
            thickness_mm=self.across_mm if flat else None, length_mm=None, start_weight_g=self.start_g, tare_g=0.0,
            hung_at_s=0.0, target_loss_percent=self.target_percent,
        )  # fmt: skip
        return forecast(History((piece,), NOTHING, *self.set_to, 0.0, surroundings=Surroundings(self.sort)))[0]


COURSES = (
    Course("salame ø 60, to 40 %", (55, 70), "drying_chamber", (13, 80), "salame", "cylinder", "natural", 60, 1012, 40,
           27, 2.7),
    Course("leg piece, to 35 %", (49, 63), "household_fridge", (None, None), "whole_muscle", "irregular", "none", 90,
           1760, 35, 8, 3.0),
    Course("beef round ø 90, to 33 %", (32, 46), "drying_chamber", (14, 75), "whole_muscle", "cylinder", "collagen", 90,
           2900, 33, 4, 2.6),
    Course("boned leg muscle, to 40 %", (84, 98), "drying_chamber", (13, 75), "whole_muscle", "irregular", "collagen",
           120, 4600, 40, 10, 2.0),
    Course("duck breast, to 30 %", (17, 28), "household_fridge", (None, None), "breast", "slab", "cloth", 25, 390, 30,
           25, 3.0),
    # pressed, it shed 18 % of its raw 1,450 g: of what is hung it has to lose so much less
    Course("coated beef, to 30 % of raw", (17, 28), "fridge_with_fan", (10, 72), "coated", "slab", "coating", 40, 1230,
           17.5, 8, 3.2),
    Course("winter loin, to 40 % of raw", (42, 70), "smokehouse", (5, 81), "whole_muscle", "irregular", "none", 60,
           1200, 38, 6, 2.0),
    Course("flat belly of 4 cm, to 15 %", (21, 28), "household_fridge", (None, None), "belly", "slab", "none", 40, 1400,
           15, 43, 3.0),
    Course("flat belly of 4 cm, to 27 %", (56, 84), "household_fridge", (None, None), "belly", "slab", "none", 40, 1400,
           27, 43, 3.0),
    Course("thin sausage ø 22, to 40 %", (7, 10), "fan_room", (18, 60), "thin_sausage", "cylinder", "natural", 22, 140,
           40, 28, 2.5),
    Course("thin sausage ø 22, dehydrator", (1.5, 2.5), "dehydrator", (35, 35), "thin_sausage", "cylinder", "natural",
           22, 140, 40, 28, 2.5),
)  # fmt: skip


def days(at_s: float | None) -> float:
    """Days since hanging; inf where there is no date."""
    return float("inf") if at_s is None else at_s / DAY


def measure() -> str:
    """The table of usual outcomes."""
    rows = [
        "Nothing weighed, nothing logged: what is said at hanging, with the air that is usual there where none is set.",
        "",
        "| course | place | makers report, days | Zymon, days | window | its end over its begin | median in the band |",
        "|---|---|---|---|---|---|---|",
    ]
    for course in COURSES:
        made = course.forecast()
        low, mid, high = (days(d) for d in (made.ready_p10_s, made.ready_p50_s, made.ready_p90_s))
        first, last = course.told_days
        rows.append(
            f"| {course.name} | {course.sort.replace('_', ' ')} | {first:g}–{last:g} | {mid:.0f} "
            f"| {low:.0f}–{high:.0f} | {high / low:.1f} | {'yes' if first <= mid <= last else 'no'} |"
        )
    belly = next(c for c in COURSES if c.kind == "belly").forecast()
    lost = [f"{100 * belly.loss_at(week * 7 * DAY)[1]:.0f} %" for week in (3, 4)]
    rows += [
        "",
        "Makers tell a flat belly by days and feel, after three to four weeks, at 12–18 %: after three weeks Zymon "
        f"expects {lost[0]}, after four {lost[1]}.",
    ]
    return "\n".join(rows)
