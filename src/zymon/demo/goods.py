"""What hangs and hung in the Wheelhouse: batches and the awkward cases, as data."""

from dataclasses import dataclass, field

from zymon.core.drying.geometry import Kind, Shape
from zymon.core.drying.history import Casing


@dataclass(frozen=True)
class DemoBatch:
    """A batch: what it is, where it hangs, how old it is by the way its median piece has gone, who weighs what."""

    code: str
    product: str
    kind: Kind
    shape: Shape
    casing: Casing
    place: str
    first_hook: tuple[int, int]
    weights_g: tuple[float, ...]
    target: float
    tare_g: float
    days_to_go: float | None = None  # of the median piece; or else
    days_hung: float | None = None
    fat: float | None = None
    salt: float | None = 2.7
    across_mm: float | None = None
    length_mm: float | None = None
    weigh_every_days: float = 7.0
    weighed: tuple[int, ...] | None = None  # indices of the sentinels; all when None
    luck: tuple[float, float] = (0.0, 0.0)
    hook_air: dict[int, float] = field(default_factory=dict)
    mistake: tuple[int, int, float] | None = None  # piece, weighing from the end, what was typed in place of it
    finished: bool = False
    # what became of its pieces one after the other once they came down: state, how, after how many days they were gone
    then: tuple[tuple[str, str, float], ...] = (("gone", "eaten", 20.0), ("gone", "sold", 9.0), ("kept", "", 0.0))
    left_hanging: tuple[int, ...] = ()  # of a finished batch
    bowl: tuple[str, str, str] | None = None  # lots of meat, fat and curing salt of a salame made by the recipe


def hook_airs(place: str) -> dict[tuple[int, int], float]:
    """The true air of the hooks of a place that differ from the others, by rod and hook."""
    return {
        (batch.first_hook[0], batch.first_hook[1] + i): air
        for batch in HANGING
        if batch.place == place
        for i, air in batch.hook_air.items()
    }


def _salame(n: int, base: float = 840.0) -> tuple[float, ...]:
    return tuple(base + 17 * ((i * 5) % 7 - 3) for i in range(n))


HANGING = (
    DemoBatch(
        "J-21",
        "Juniper salame",
        "salame",
        "cylinder",
        "natural",
        "Wheel Pit",
        (1, 1),
        _salame(8),
        36,
        11,
        1.2,
        fat=26,
        across_mm=58,
        length_mm=300,
        luck=(0.06, 0.02),
    ),
    DemoBatch(
        "J-22",
        "Juniper salame",
        "salame",
        "cylinder",
        "natural",
        "Wheel Pit",
        (2, 1),
        _salame(6, 860),
        36,
        11,
        days_hung=15,
        fat=27,
        across_mm=59,
        length_mm=305,
        weighed=(0, 2, 5),
        weigh_every_days=5,
    ),
    DemoBatch(
        "N-07",
        "Neck with hay-smoked pepper",
        "whole_muscle",
        "irregular",
        "natural",
        "Wheel Pit",
        (3, 1),
        (1910, 2240, 1685, 2060, 1795),
        36,
        28,
        24,
        fat=16,
        salt=2.8,
        across_mm=104,
        length_mm=300,
        mistake=(1, 1, 0.0),
        luck=(-0.1, 0.1),
    ),
    DemoBatch(
        "V-03",
        "Venison round",
        "whole_muscle",
        "cylinder",
        "fibrous",
        "Wheel Pit",
        (3, 6),
        (1480, 1615, 1390, 1555),
        38,
        20,
        11,
        fat=3,
        salt=2.8,
        across_mm=84,
        length_mm=270,
    ),
    DemoBatch(
        "P-31",
        "Plum-and-pepper thin sausage",
        "thin_sausage",
        "cylinder",
        "natural",
        "Wheel Pit",
        (2, 7),
        (212, 205, 219, 208),
        40,
        4,
        days_hung=4.2,
        fat=27,
        across_mm=22,
        length_mm=520,
        weigh_every_days=1.5,
    ),
    DemoBatch(
        "G-05",
        "Goose breast",
        "breast",
        "slab",
        "none",
        "Wheel Pit",
        (4, 1),
        (465, 430, 490, 445),
        30,
        6,
        days_hung=0.15,
        fat=22,
        across_mm=27,
        length_mm=190,
    ),
    DemoBatch(
        "B-09",
        "Flat belly with savory",
        "belly",
        "slab",
        "none",
        "Wheel Pit",
        (4, 5),
        (1620, 1540),
        25,
        14,
        13,
        fat=43,
        across_mm=38,
        length_mm=260,
    ),
    DemoBatch(
        "B-10",
        "Flat belly with savory",
        "belly",
        "slab",
        "none",
        "Mill Loft",
        (1, 4),
        (1580, 1505, 1650),
        25,
        14,
        days_hung=9,
        fat=44,
        across_mm=37,
        length_mm=255,
        hook_air={2: 2.6},
        weigh_every_days=2.5,
    ),
    DemoBatch(
        "N-08",
        "Neck with hay-smoked pepper",
        "whole_muscle",
        "irregular",
        "natural",
        "Mill Loft",
        (1, 1),
        (1730, 1655),
        36,
        28,
        days_hung=12,
        fat=15,
        salt=2.8,
        across_mm=100,
        length_mm=290,
        weigh_every_days=4,
    ),
    DemoBatch(
        "M-02",
        "Mutton leg",
        "ham",
        "irregular",
        "cloth",
        "Mill Loft",
        (2, 1),
        (2870,),
        34,
        60,
        33,
        fat=12,
        salt=3.1,
        across_mm=135,
        length_mm=330,
        weigh_every_days=10,
    ),
)

FINISHED = (
    DemoBatch(
        "J-17",
        "Juniper salame",
        "salame",
        "cylinder",
        "natural",
        "Wheel Pit",
        (1, 1),
        _salame(6),
        36,
        11,
        days_hung=250,
        fat=26,
        across_mm=58,
        length_mm=300,
        luck=(0.1, 0.0),
        finished=True,
        then=(
            ("gone", "eaten", 20.0),
            ("gone", "sold", 9.0),
            ("resting", "vacuum", 0.0),
            ("gone", "eaten", 41.0),
            ("gone", "sold", 16.0),
            ("gone", "given", 30.0),
        ),
        bowl=("SH-1039", "BF-188", "CS-30"),
    ),
    DemoBatch(
        "J-18",
        "Juniper salame",
        "salame",
        "cylinder",
        "natural",
        "Wheel Pit",
        (1, 1),
        _salame(6),
        36,
        11,
        days_hung=190,
        fat=25,
        across_mm=58,
        length_mm=300,
        luck=(0.16, 0.05),
        finished=True,
        then=(
            ("gone", "eaten", 20.0),
            ("gone", "sold", 9.0),
            ("resting", "vacuum", 0.0),
            ("gone", "eaten", 41.0),
            ("gone", "sold", 16.0),
            ("gone", "given", 30.0),
        ),
        bowl=("SH-1071", "BF-188", "CS-30"),
    ),
    DemoBatch(
        "J-20",
        "Juniper salame",
        "salame",
        "cylinder",
        "natural",
        "Wheel Pit",
        (4, 8),
        _salame(6, 815),
        36,
        11,
        days_hung=62,
        fat=24,
        across_mm=56,
        length_mm=300,
        finished=True,
        then=(
            ("resting", "vacuum", 0.0),
            ("resting", "paper", 0.0),
            ("kept", "", 0.0),
            ("down", "", 0.0),
            ("kept", "", 0.0),
            ("resting", "vacuum", 0.0),
        ),
        left_hanging=(4,),
        bowl=("SH-1122", "BF-207", "CS-30"),
    ),
    DemoBatch(
        "N-05",
        "Neck with hay-smoked pepper",
        "whole_muscle",
        "irregular",
        "natural",
        "Wheel Pit",
        (3, 1),
        (1840, 2020, 1760),
        36,
        28,
        days_hung=300,
        fat=15,
        across_mm=102,
        length_mm=295,
        luck=(0.0, 0.12),
        finished=True,
        then=(("gone", "sold", 12.0), ("kept", "", 0.0), ("resting", "vacuum", 0.0)),
    ),
    DemoBatch(
        "V-01",
        "Venison round",
        "whole_muscle",
        "cylinder",
        "fibrous",
        "Wheel Pit",
        (3, 6),
        (1500, 1460, 1580),
        38,
        20,
        days_hung=270,
        fat=3,
        across_mm=83,
        length_mm=270,
        luck=(0.12, -0.05),
        finished=True,
        then=(("gone", "eaten", 20.0), ("gone", "sold", 9.0), ("resting", "vacuum", 0.0)),
    ),
    DemoBatch(
        "P-29",
        "Plum-and-pepper thin sausage",
        "thin_sausage",
        "cylinder",
        "natural",
        "Wheel Pit",
        (2, 7),
        (210, 202, 214, 207),
        40,
        4,
        days_hung=60,
        fat=27,
        across_mm=22,
        length_mm=520,
        weigh_every_days=1.5,
        finished=True,
    ),
)
