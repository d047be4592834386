"""English names of what a sentence names by a code of its own, by the name of the value."""

from typing import Final

_STATES: Final = {
    "in_salt": "in salt",
    "out": "out of the salt",
    "waiting": "waiting for its hook",
    "warm": "in the warm",
    "hanging": "hanging",
    "down": "taken down",
    "resting": "at rest",
    "cut": "cut",
    "kept": "kept",
    "gone": "gone",
}
_HURDLE_STATES: Final = {
    "pass": "passed",
    "fail": "failed",
    "pending": "pending",
    "unknown": "not known",
    "not on the ledger": "not on the ledger",
}
QUANTITIES: Final = (
    "amount", "bought weight", "buffer", "cost", "curing salt", "density", "dextrose", "diameter",
    "distance between hooks", "dry matter", "error that may be", "factor", "fat", "fat of a part",
    "fat of the fat part", "fat of the lean part", "finished weight", "Fourier number", "humidity", "length",
    "loss", "margin", "mass", "meat", "molality", "net weight", "nitrate", "nitrate in the curing salt", "nitrite",
    "nitrite in the curing salt", "pH", "price", "progress", "protein in lean", "rescaling",
    "resolution of the scale", "salt", "salt in it", "share under skin", "soak", "start pH", "tare", "target",
    "target loss", "target pH", "temperature", "temperature of the rest", "thickness", "total", "water",
    "water activity", "water in lean", "weight", "weight of a part", "weight of a piece",
)  # fmt: skip

NAMES: Final[dict[str, dict[str, str]]] = {
    "what": {name: name for name in QUANTITIES},
    "became": _STATES,
    "was": _STATES,
    "stage": _STATES | {"cold": "cold", "cure": "cure", "room": "room", "hang": "hanging", "rest": "rest"},
    "how": {"eaten": "eaten", "given": "given away", "sold": "sold", "discarded": "thrown away"},
    "basis": {"raw": "raw", "cured": "cured", "hung": "hung"},
    "device": {"climate": "a climate sensor", "scale": "a scale", "ph": "a pH meter"},
    "state": _HURDLE_STATES,
    "is_now": _HURDLE_STATES,
    "hurdle": {
        "cold_mix": "cold at mixing",
        "salt": "salt",
        "nitrite_in": "nitrite going in",
        "nitrate_in": "nitrate going in",
        "nitrite_lasts": "how long nitrite lasts",
        "nitrite_left": "nitrite left",
        "parasite": "parasites",
        "cold_cure": "cold while curing",
        "core_salt": "salt in the core",
        "degree_hours": "degree-hours to pH 5.3",
        "acid": "acid, pH 5.3",
        "warmth": "warmth after salting",
        "target_loss": "at its target",
        "dry_enough": "dry enough",
        "evenness": "even and clean",
        "pathogens": "laboratory: germs",
        "keeping": "keeping",
        "discarded": "thrown away",
        "held": "on hold",
    },
    "laboratory": {
        "water_activity": "water activity",
        "ph": "pH",
        "salt": "salt",
        "nitrite": "nitrite",
        "listeria": "listeria",
        "salmonella": "salmonella",
        "stec": "STEC",
        "staphylococcal_enterotoxin": "staphylococcal enterotoxin",
        "moisture": "moisture",
        "protein": "protein",
        "fat": "fat",
    },
}
