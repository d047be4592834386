"""A cut face as it was seen, smelled and tasted, in taps; and the signs that it shows."""

from dataclasses import dataclass
from typing import Literal

from ..errors import OutOfRangeError, require
from ..faults import CoreFeel, Feel
from .table import Sign

Colour = Literal["even", "grey", "brown"]
Ring = Literal["none", "thin", "wide"]
CutSmell = Literal["clean", "sour", "off", "rancid"]
SaltTaste = Literal["low", "right", "high"]
Taste = Literal["clean", "sour", "sharp", "rancid"]
Spot = Literal["ring", "soft", "grey", "brown", "holes", "smear", "loose", "yellow", "mould"]

WIDE_RING_SHARE = 0.15  # of the half thickness, from which a ring is a wide one; practice: 4 mm of a 60 mm salame


@dataclass(frozen=True)
class Mark:
    """Something seen at a place of the face: from −1 to 1 across and down, the rim at a distance of 1."""

    what: Spot
    x: float
    y: float

    def __post_init__(self) -> None:
        for value in (self.x, self.y):
            require("place on the face", value, -1.2, 1.2, "")


@dataclass(frozen=True)
class CutFace:
    """What was seen, felt, smelled and tasted; None where nobody looked. Raises OutOfRangeError.

    `ring_mm` [mm] from the rim inwards. What smells off is not tasted: a taste beside it is refused.
    """

    ring: Ring | None = None
    ring_mm: float | None = None
    colour: Colour | None = None
    firm_rim: Feel | None = None
    firm_core: CoreFeel | None = None
    smell: CutSmell | None = None
    salt: SaltTaste | None = None
    taste: tuple[Taste, ...] = ()
    holes: bool = False
    smear: bool = False
    loose: bool = False
    yellow_fat: bool = False
    mould_inside: bool = False
    salt_spots: bool = False
    marks: tuple[Mark, ...] = ()

    def __post_init__(self) -> None:
        if self.ring_mm is not None:
            require("ring", self.ring_mm, 0.0, 150.0, "mm", open_low=True)
            if self.ring in (None, "none"):
                raise OutOfRangeError("refused.ring_of_none", ring_mm=self.ring_mm)
        if "clean" in self.taste and len(self.taste) > 1:
            raise OutOfRangeError("refused.clean_and_not")
        if len(self.marks) > 60:
            raise OutOfRangeError("refused.many_marks", many=len(self.marks))
        if not self.looked:
            raise OutOfRangeError("refused.tap_something")

    @property
    def looked(self) -> bool:
        """Whether anything at all was tapped."""
        taps = (self.ring, self.colour, self.firm_rim, self.firm_core, self.smell, self.salt)
        return any(t is not None for t in taps) or bool(self.taste) or bool(self._yes) or bool(self.marks)

    @property
    def _yes(self) -> list[Sign]:
        spots = {m.what for m in self.marks}
        found: list[tuple[bool, Sign]] = [
            (self.holes or "holes" in spots, "holes"),
            (self.smear or "smear" in spots, "smear"),
            (self.loose or "loose" in spots, "loose"),
            (self.yellow_fat or "yellow" in spots, "yellow_fat"),
            (self.mould_inside or "mould" in spots, "mould_inside"),
            (self.salt_spots, "salt_spots"),
        ]
        return [sign for there, sign in found if there]


def signs(face: CutFace) -> tuple[Sign, ...]:
    """The signs that a face shows. Parameters: face.

    >>> signs(CutFace(ring="wide", firm_rim="hard", firm_core="soft", salt="high"))
    ('ring', 'soft_core', 'salt_high')
    """
    spots = {m.what for m in face.marks}
    found: list[Sign] = []
    ringed = face.ring in ("thin", "wide") or "ring" in spots
    soft = face.firm_core in ("soft", "wet") or "soft" in spots
    if ringed or (face.firm_rim == "hard" and soft):
        found.append("ring")
    if soft:
        found.append("soft_core")
    if face.firm_rim == "hard" and face.firm_core == "hard":
        found.append("hard_through")
    if face.colour == "grey" or "grey" in spots:
        found.append("grey")
    if face.colour == "brown" or "brown" in spots:
        found.append("brown")
    found += face._yes
    if face.smell == "off":
        found.append("smell_off")
    if face.smell == "sour" or "sour" in face.taste:
        found.append("sour")
    if "sharp" in face.taste:
        found.append("sharp")
    if face.smell == "rancid" or "rancid" in face.taste:
        found.append("rancid")
    if face.salt == "high":
        found.append("salt_high")
    if face.salt == "low":
        found.append("salt_low")
    return tuple(found)


def ring_of(ring_mm: float, half_thickness_mm: float) -> Ring:
    """Whether a ring of a width is a thin or a wide one. Parameters: ring_mm, half_thickness_mm [mm].

    >>> ring_of(4.5, 30), ring_of(4.4, 30)
    ('wide', 'thin')
    """
    return "wide" if ring_mm >= WIDE_RING_SHARE * half_thickness_mm else "thin"
