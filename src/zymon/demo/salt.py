"""What lies in the Wheelhouse's Salt Fridge: necks nobody turned for days, breasts in their last hours, a leg."""

from dataclasses import dataclass, field

from zymon.core.bench.families import CURING_SALTS, family
from zymon.core.salting.ways import Way
from zymon.formats.family_sheet import SaidOfSalt, family_sheet
from zymon.formats.recipe_file import SheetCuring, Species
from zymon.store import bench, salt
from zymon.store.database import Session
from zymon.store.models import Place
from zymon.store.salt_models import SaltEvent, SaltPiece

from .plan import DAY, PEOPLE

ANIMALS: dict[str, Species] = {"V": "venison", "M": "sheep"}  # by the letter of a batch's code

HOUR = 3600.0


@dataclass(frozen=True)
class DemoSalting:
    """A batch in salt: what was done is (days since it went in, kind, value)."""

    code: str
    product: str
    family: str
    way: Way
    percent: float
    geometry: str
    across_mm: tuple[float, ...]
    weights_g: tuple[float, ...]
    days_in: float
    container: str
    done: tuple[tuple[float, str, float | None], ...] = ()
    skin_share: float = 0.0
    out: dict[int, tuple[float, float]] = field(default_factory=dict)  # piece: days, weight


def _every(days: float, until: float, kind: str) -> tuple[tuple[float, str, float | None], ...]:
    return tuple((days * (i + 1), kind, None) for i in range(int(until / days)))


SALTING = (
    DemoSalting(
        "N-09", "Neck with hay-smoked pepper", "neck", "measured", 2.8, "cylinder", (86, 82, 91), (1880, 1720, 2060),
        10.4, "bags, lower shelf", _every(1.45, 5.9, "turn"),
    ),
    DemoSalting(
        "V-05", "Venison round", "beef_round", "measured", 2.6, "cylinder", (84, 80), (1490, 1420), 18.2,
        "bags, middle shelf", _every(1.4, 17.6, "turn"), out={1: (18.0, 1346)},
    ),
    DemoSalting(
        "G-09", "Goose breast", "breast", "buried", 3.0, "slab", (24, 26, 23), (365, 402, 348), 14 / 24, "tray",
    ),
    DemoSalting(
        "B-13", "Flat belly with savory", "flat_belly", "rub_and_drain", 3.2, "slab", (36, 38), (1510, 1620), 2.6,
        "rack", ((0.7, "drain", 21.0), (1.0, "rub", None), (1.5, "drain", 16.0), (1.6, "turn", None)),
    ),
    DemoSalting(
        "M-04", "Small mutton leg", "leg", "buried", 4.0, "sphere", (128,), (3650,), 9.3, "tub",
        _every(1.2, 9.0, "check"), skin_share=0.4,
    ),
)  # fmt: skip


def lay_in_salt(session: Session, fridge: Place, now_s: int) -> None:
    """Put the demo's muscles in salt and look after them as well as its makers do."""
    for demo in SALTING:
        _Salter(session, fridge, demo, now_s).lay()


class _Salter:
    """Salts one batch."""

    def __init__(self, session: Session, fridge: Place, demo: DemoSalting, now_s: int) -> None:
        self.session, self.fridge, self.demo, self.now_s = session, fridge, demo, now_s
        self.in_s = int(now_s - demo.days_in * DAY)

    def _event(self, tag: str, kind: str, days: float, value: float | None = None) -> SaltEvent:
        at_s = int(self.in_s + days * DAY)
        return SaltEvent(
            uid=f"demo-{tag}-{kind}-{at_s}", kind=kind, at_s=at_s, value=value, by=PEOPLE[at_s % 2], entered_s=at_s
        )

    def lay(self) -> None:
        """Make the batch and put every piece of it in."""
        demo = self.demo
        of = family(demo.family)
        one = next((c for c in CURING_SALTS if c.id == of.curing_salt), None)
        curing = None if one is None else SheetCuring(
            name=one.name, percent=of.curing_salt_percent, nitrite_fraction=one.nitrite_fraction,
            nitrate_fraction=one.nitrate_fraction,
        )  # fmt: skip
        species = ANIMALS.get(demo.code[0])
        said = SaidOfSalt(curing, True, True)
        sheet = family_sheet(
            of, demo.product, list(demo.weights_g), demo.across_mm[0], demo.way, demo.percent, said, species
        )
        new = bench.NewMaking(
            code=demo.code, product=demo.product, kind=of.kind, shape=of.shape, casing=of.casing,
            fat_percent=of.fat_percent, salt_percent=demo.percent, sheet=sheet.model_dump_json(), profile="us",
            pinch_place_id=None, holds=(),
        )  # fmt: skip
        making = bench.make_batch(self.session, new, None, PEOPLE[0], self.in_s)
        for i, (raw_g, across_mm) in enumerate(zip(demo.weights_g, demo.across_mm, strict=True)):
            tag = f"{demo.code}-{i + 1:02d}"
            into = self._event(tag, "in", 0.0)
            into.place_id, into.container = self.fridge.id, demo.container
            into.way, into.free_salt, into.percent = demo.way, False, demo.percent
            rules = ("linear", "square", "diffusion")
            muscle = salt.NewSaltPiece(tag, demo.geometry, across_mm, raw_g, demo.skin_share, rules, 0.0)
            self._look_after(salt.add_piece(self.session, making, muscle, into, self.now_s), i)

    def _look_after(self, piece: SaltPiece, i: int) -> None:
        for days, kind, value in self.demo.done:
            salt.note(self.session, piece, self._event(piece.tag, kind, days, value))
        if i in self.demo.out:
            days, weight_g = self.demo.out[i]
            salt.note(self.session, piece, self._event(piece.tag, "out", days, weight_g))
            salt.note(self.session, piece, self._event(piece.tag, "blot", days + 0.002))
