"""The words that may stand in a column where the core has none of its own: what a row is, or how it came to be."""

from typing import Literal

PlaceKind = Literal["chamber", "warm", "salt", "store"]
EndedAs = Literal["moved", "down"]
WeighedBy = Literal["hand", "round", "file"]
ImportKind = Literal["climate", "weights", "ph", "hang"]
SaltEventKind = Literal[
    "in", "move", "way", "turn", "drain", "rub", "check", "press", "weigh",
    "out", "rinse", "blot", "soak", "trim", "coat", "wrap", "rest", "discard",
]  # fmt: skip
BatchEventKind = Literal["mould", "vinegar", "spray", "cool", "hang", "hang_cold", "discard"]
HangKind = Literal["inspect", "turn", "wipe", "wrap", "patch", "hold", "release"]
CutVerdict = Literal["good", "held", "discarded"]
PackEventKind = Literal["opened", "out"]
Curing = Literal["", "none", "weighed", "unknown"]
TakenOf = Literal["product", "mix"]
MeatNoteKind = Literal["cold", "room", "mix"]
DeviationAct = Literal["held", "cooled", "discarded", "tested", "other"]
MessageWay = Literal["mail", "call", "push"]
